#include "app/stages/stack/layer_strip.h"

#include "core/build/chain.h"
#include "core/catalog/fastener_types.h"
#include "core/edits/stack_edits.h"
#include "core/pins/signal.h"
#include "core/stack/report.h"
#include "core/stack/stock.h"

#include <QMenu>
#include <algorithm>
#include <array>
#include <span>

namespace waxis::stackbench {

namespace {

/// Where the next layer goes: on the chosen one, else outermost but inside the nuts that end the column.
int placeFor(const StackFocus &focus) {
    const Stack *stack = focus.stack();
    if (!stack) return 0;
    if (focus.layer() >= 0) return focus.layer() + 1;
    int at = int(stack->layers.size());
    if (!stack->headsOutside && stack->end == ScrewEnd::nut && at > 0 && stack->layers.back().role == LayerRole::nut)
        --at;
    return at;
}

using Made = Result<PartType, TypeError>;

std::vector<Made> sizesOf(FastenerForm form, const std::string &thread, std::span<const double> heights,
                          const std::string &material, double stud_mm = 0) {
    std::vector<Made> types;
    for (double h : heights) {
        FastenerData data{form, thread, h};
        data.stud_mm = stud_mm;
        types.push_back(fastenerType(data, material));
    }
    return types;
}

std::vector<Made> nutsOf(const std::string &thread) {
    std::vector<Made> nuts;
    for (const auto &[form, material] : {std::pair{FastenerForm::nut, "nylon"},
                                         {FastenerForm::nut, "steel"},
                                         {FastenerForm::nut, "aluminium"},
                                         {FastenerForm::lockNut, "steel"},
                                         {FastenerForm::thinLockNut, "steel"},
                                         {FastenerForm::pressNut, "steel"}})
        nuts.push_back(fastenerType({form, thread}, material));
    return nuts;
}

std::vector<Made> dampersOf(const std::string &thread) {
    std::vector<Made> dampers;
    for (double h : kDamperHeights_mm) dampers.push_back(damperType(thread, h));
    return dampers;
}

std::vector<Made> washersOf(const std::string &thread) {
    std::vector<Made> washers;
    for (const char *material : {"steel", "nylon"})
        washers.push_back(fastenerType({FastenerForm::washer, thread}, material));
    return washers;
}

/// Everything that one buys at a fastener dealer's, by title.
std::vector<std::pair<QString, std::vector<Made>>> hardwareFor(const std::string &thread) {
    auto tr = [](const char *text) { return StackFocus::tr(text); };
    static constexpr std::array<double, 8> posts{5, 6, 8, 10, 12, 15, 20, 25};
    static constexpr std::array<double, 5> shims{0.1, 0.2, 0.3, 0.5, 1.0};
    return {{tr("Dampers"), dampersOf(thread)},
            {tr("Spacers, nylon"), sizesOf(FastenerForm::spacer, thread, kSpacerHeights_mm, "nylon")},
            {tr("Spacers, aluminium"), sizesOf(FastenerForm::spacer, thread, kSpacerHeights_mm, "aluminium")},
            {tr("Standoffs, threaded"), sizesOf(FastenerForm::standoff, thread, posts, "nylon")},
            {tr("Standoffs with a 6 mm male end"), sizesOf(FastenerForm::standoff, thread, posts, "nylon", 6)},
            {tr("Nuts"), nutsOf(thread)},
            {tr("Washers"), washersOf(thread)},
            {tr("Shims"), sizesOf(FastenerForm::shim, thread, shims, "steel")}};
}

std::string threadOf(const StackFocus &focus) {
    const StackReport *report = focus.report();
    return report && report->screw.task.thread ? std::string(report->screw.task.thread->name) : "M3";
}

void addPieces(StackFocus &focus, const PartType &type) {
    const Stack *stack = focus.stack();
    const int at = placeFor(focus);
    if (stack)
        focus.edit(StackFocus::tr("Add %1").arg(QString::fromStdString(type.name)),
                   addHardware(focus.document().build(), stack->id, at, type), at);
}

} // namespace

void fillAddMenu(QMenu &menu, StackFocus &focus) {
    menu.clear();
    const Stack *stack = focus.stack();
    const StackReport *report = focus.report();
    if (!stack || !report) return;
    const Build &build = focus.document().build();
    const HolePattern *pattern = patternOf(build, *stack);
    auto tr = [](const char *text) { return StackFocus::tr(text); };

    auto *boards = menu.addMenu(tr("Board of the build"));
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        const auto role = type ? roleOf(*type) : std::nullopt;
        if (!role || isHardware(*role) || stackPlaceOf(build, part)) continue;
        const bool fits = pattern && type->mounting && linesUp(*pattern, *type->mounting);
        boards->addAction(QString::fromStdString(part.name) + (fits ? QString() : tr(" (other pattern)")), &focus,
                          [&focus, id = part.id] {
                              const int at = placeFor(focus);
                              if (const Stack *now = focus.stack())
                                  focus.edit(StackFocus::tr("Lay a board in"),
                                             addBoard(focus.document().build(), now->id, at, id), at);
                          });
    }
    boards->setEnabled(!boards->isEmpty());
    auto *fresh = menu.addMenu(tr("Board from the library"));
    for (const auto &[id, type] : focus.document().library()) {
        const auto role = roleOf(type);
        if (!role || isHardware(*role) || !pattern || !type.mounting || !linesUp(*pattern, *type.mounting)) continue;
        fresh->addAction(QString::fromStdString(type.name), &focus, [&focus, typeId = id] {
            const auto &library = focus.document().library();
            const auto found = library.find(typeId);
            const int at = placeFor(focus);
            if (const Stack *now = focus.stack(); now && found != library.end())
                focus.edit(StackFocus::tr("Lay a board in"),
                           addBoard(focus.document().build(), now->id, at, found->second), at);
        });
    }
    fresh->setEnabled(!fresh->isEmpty());
    menu.addSeparator();
    for (auto &[title, types] : hardwareFor(threadOf(focus))) {
        auto *sub = menu.addMenu(title);
        for (auto &type : types)
            if (type)
                sub->addAction(QString::fromStdString(type->name), &focus,
                               [&focus, made = *type] { addPieces(focus, made); });
    }
    menu.addSeparator();
    const std::array<std::tuple<QString, LayerRole, double>, 3> fillers{
        {{tr("Air, 2 mm"), LayerRole::gap, 2.0},
         {tr("Wires between, 2 mm"), LayerRole::wires, 2.0},
         {tr("Insulating sheet, 0.2 mm"), LayerRole::sheet, 0.2}}};
    for (const auto &[text, role, height] : fillers)
        menu.addAction(text, &focus, [&focus, role = role, height = height] {
            const int at = placeFor(focus);
            if (const Stack *now = focus.stack())
                focus.edit(StackFocus::tr("Add a layer"),
                           addFiller(focus.document().build(), now->id, at, role, height), at);
        });
}

void fillChangeMenu(QMenu &menu, StackFocus &focus) {
    menu.clear();
    const Stack *stack = focus.stack();
    const int layer = focus.layer();
    if (!stack || layer < 0 || !isHardware(stack->layers[std::size_t(layer)].role)) return;
    const Part *part = findPart(focus.document().build(), stack->layers[std::size_t(layer)].parts.front());
    const LayerRole role = stack->layers[std::size_t(layer)].role;
    for (auto &[title, types] : hardwareFor(threadOf(focus)))
        for (auto &type : types) {
            if (!type || roleOf(*type) != role) continue;
            auto *action = menu.addAction(QString::fromStdString(type->name), &focus, [&focus, made = *type] {
                if (const Stack *now = focus.stack())
                    focus.edit(StackFocus::tr("Use %1").arg(QString::fromStdString(made.name)),
                               changeHardware(focus.document().build(), now->id, focus.layer(), made));
            });
            action->setCheckable(true);
            action->setChecked(part && part->type == type->id);
        }
}

} // namespace waxis::stackbench
