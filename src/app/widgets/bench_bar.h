// The narrow bar over a bench, in the mat's colours.
#pragma once

#include "app/theme/theme.h"

#include <functional>
#include <vector>

class QHBoxLayout;
class QToolButton;
class QWidget;

namespace waxis::theme {

/// A bar with an empty QHBoxLayout; it follows the theme.
QWidget *makeBenchBar(const Theme &theme, QWidget *parent, int height = 32);

/// Buttons of which one is down, for the pages of a bench: text and object name; `pick` gets the number.
std::vector<QToolButton *> addPageTabs(QWidget &bar, const std::vector<std::pair<QString, const char *>> &pages,
                                       const std::function<void(int)> &pick);

} // namespace waxis::theme
