// The narrow bar over a bench, in the mat's colours.
#pragma once

#include "app/theme/theme.h"

class QWidget;

namespace waxis::theme {

/// A bar with an empty QHBoxLayout; it follows the theme.
QWidget *makeBenchBar(const Theme &theme, QWidget *parent, int height = 32);

} // namespace waxis::theme
