// What can be done with several parts at once: one table for the menu, the palette and the inspector.
#pragma once

#include "app/document/document.h"

#include <QKeySequence>
#include <functional>
#include <vector>

namespace waxis::app {

struct GroupTool {
    QString id;
    QString text;
    QString brief; ///< on a small button; empty: only in the menu
    QString row;   ///< of buttons in the inspector
    QKeySequence key;
    std::size_t least = 2; ///< parts that must be chosen
    std::function<void(Document &)> run;
    bool separatorBefore = false;
};

const std::vector<GroupTool> &groupTools();

} // namespace waxis::app
