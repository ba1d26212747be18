// What the stages are called.
#pragma once

#include <QString>
#include <vector>

namespace waxis::app {

struct StageText {
    QString id, name;
};
/// In the order of the bench.
const std::vector<StageText> &stageTexts();

} // namespace waxis::app
