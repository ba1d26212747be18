#include "app/stages/stage_texts.h"

#include <QCoreApplication>

namespace waxis::app {

const std::vector<StageText> &stageTexts() {
    auto say = [](const char *text) { return QCoreApplication::translate("Stages", text); };
    static const std::vector<StageText> texts{
        {"kit", say("Kit")},         {"frame", say("Frame")}, {"place", say("Place")},
        {"stack", say("Stack")},     {"wire", say("Wire")},   {"radio", say("Radio")},
        {"balance", say("Balance")}, {"build", say("Build")}, {"log", say("Log")},
    };
    return texts;
}

} // namespace waxis::app
