#pragma once

#include <QString>

namespace talvik::app {

// The help page, as HTML.
QString helpText();

}  // namespace talvik::app
