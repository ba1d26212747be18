#include "app/stages/stack/layer_strip.h"

#include "core/catalog/fastener_types.h"
#include "core/stack/edits.h"

#include <QMenu>
#include <algorithm>
#include <array>

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
    const std::string thread = report->screw.task.thread ? std::string(report->screw.task.thread->name) : "M3";

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
    auto hardware = [&](const QString &title, std::vector<Result<PartType, TypeError>> types) {
        auto *sub = menu.addMenu(title);
        for (auto &type : types)
            if (type)
                sub->addAction(QString::fromStdString(type->name), &focus,
                               [&focus, made = *type] { addPieces(focus, made); });
    };
    auto sizes = [&](FastenerForm form, std::initializer_list<double> heights, const std::string &material,
                     double stud = 0) {
        std::vector<Result<PartType, TypeError>> types;
        for (double h : heights) {
            FastenerData data{form, thread, h};
            data.stud_mm = stud;
            types.push_back(fastenerType(data, material));
        }
        return types;
    };
    std::vector<Result<PartType, TypeError>> dampers;
    for (double h : {2.0, 3.0, 4.0, 5.0, 6.0}) dampers.push_back(damperType(thread, h));
    hardware(tr("Dampers"), std::move(dampers));
    hardware(tr("Spacers, nylon"), sizes(FastenerForm::spacer, {2, 3, 4, 5, 6, 8, 10, 12, 15}, "nylon"));
    hardware(tr("Spacers, aluminium"), sizes(FastenerForm::spacer, {3, 5, 6, 8, 10, 12, 15}, "aluminium"));
    hardware(tr("Standoffs, threaded"), sizes(FastenerForm::standoff, {5, 6, 8, 10, 12, 15, 20, 25}, "nylon"));
    hardware(tr("Standoffs with a 6 mm male end"),
             sizes(FastenerForm::standoff, {5, 6, 8, 10, 12, 15, 20, 25}, "nylon", 6));
    std::vector<Result<PartType, TypeError>> nuts;
    for (const auto &[form, material] : {std::pair{FastenerForm::nut, "nylon"},
                                         {FastenerForm::nut, "steel"},
                                         {FastenerForm::nut, "aluminium"},
                                         {FastenerForm::lockNut, "steel"},
                                         {FastenerForm::thinLockNut, "steel"}})
        nuts.push_back(fastenerType({form, thread}, material));
    hardware(tr("Nuts"), std::move(nuts));
    std::vector<Result<PartType, TypeError>> washers;
    for (const char *material : {"steel", "nylon"})
        washers.push_back(fastenerType({FastenerForm::washer, thread}, material));
    hardware(tr("Washers"), std::move(washers));
    hardware(tr("Shims"), sizes(FastenerForm::shim, {0.1, 0.2, 0.3, 0.5, 1.0}, "steel"));
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

} // namespace waxis::stackbench
