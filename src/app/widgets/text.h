// Core text for Qt.
#pragma once

#include <QString>
#include <string>

namespace talvik::app {

inline QString qs(const std::string& s) {
    return QString::fromStdString(s);
}

// "1 base", "3 bases".
inline QString counted(std::size_t n, const QString& what) {
    return QStringLiteral("%1 %2%3").arg(n).arg(what, n == 1 ? QString() : QStringLiteral("s"));
}

}  // namespace talvik::app
