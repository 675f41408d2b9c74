// Core text for Qt.
#pragma once

#include <QString>
#include <string>

namespace talvik::app {

inline QString qs(const std::string& s) {
    return QString::fromStdString(s);
}

}  // namespace talvik::app
