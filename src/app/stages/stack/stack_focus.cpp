#include "app/stages/stack/stack_focus.h"

#include "core/build/chain.h"
#include "core/rules/wording.h"
#include "core/stack/report.h"

#include <QLocale>
#include <algorithm>
#include <cmath>

namespace waxis::stackbench {

QString number(double value, int decimals) {
    constexpr double kHair = 1e-8; // sums of hundredths land beside the half
    const QString text = QString::number(value + std::copysign(kHair, value), 'f', decimals);
    return text.toDouble() == 0 && text.startsWith('-') ? text.mid(1) : text;
}

StackFocus::StackFocus(app::Document &document, QObject *parent) : QObject(parent), document_(document) {
    connect(&document_, &app::Document::opened, this, [this] {
        stackId_.clear();
        layer_ = gap_ = -1;
        tell();
    });
    connect(&document_, &app::Document::changed, this, [this] {
        const Stack *now = stack();
        if (now && layer_ >= int(now->layers.size())) layer_ = -1;
        const StackReport *told = report();
        if (!told || gap_ >= int(told->gaps.size())) gap_ = -1;
        tell();
    });
    connect(&document_, &app::Document::selectionChanged, this, [this] {
        if (const Part *part = document_.selectedPart())
            if (const auto place = stackPlaceOf(document_.build(), *part)) {
                const bool same = place->stack->id == (stack() ? stack()->id : std::string()) && place->layer == layer_;
                stackId_ = place->stack->id;
                layer_ = place->layer;
                if (!same) tell();
            }
    });
}

void StackFocus::tell() {
    if (awake_) {
        missed_ = false;
        emit changed();
    } else
        missed_ = true;
}

void StackFocus::setAwake(bool awake) {
    awake_ = awake;
    if (awake_ && missed_) tell();
}

const Stack *StackFocus::stack() const {
    const Build &build = document_.build();
    if (const Stack *chosen = findStack(build, stackId_)) return chosen;
    return build.stacks.empty() ? nullptr : &build.stacks.front();
}

const StackReport *StackFocus::report() const {
    const Stack *now = stack();
    for (const auto &report : document_.analysis().derived.stacks)
        if (now && report.stack == now->id) return &report;
    return nullptr;
}

int StackFocus::gap() const {
    const StackReport *told = report();
    if (!told || told->gaps.empty()) return -1;
    if (gap_ >= 0) return gap_;
    const auto least = std::min_element(told->gaps.begin(), told->gaps.end(), [](const StackGap &a, const StackGap &b) {
        if (a.toPlate != b.toPlate) return b.toPlate; // boards first: plates have their own cards
        return a.air_mm() < b.air_mm();
    });
    return int(least - told->gaps.begin());
}

void StackFocus::chooseStack(const std::string &id) {
    stackId_ = id;
    layer_ = gap_ = -1;
    tell();
}

void StackFocus::chooseLayer(int layer) {
    layer_ = layer;
    const Stack *now = stack();
    if (now && layer >= 0 && layer < int(now->layers.size())) {
        // One piece stands for its layer: the inspector shows it, and another type there changes all of them.
        const auto &parts = now->layers[std::size_t(layer)].parts;
        document_.select(parts.empty() ? QString() : QString::fromStdString(parts.front()));
    }
    tell();
}

void StackFocus::chooseGap(int gap) {
    gap_ = gap;
    tell();
}

bool StackFocus::reveal(const std::string &id) {
    if (findStack(document_.build(), id)) {
        chooseStack(id);
        return true;
    }
    const Part *part = findPart(document_.build(), id);
    const auto place = part ? stackPlaceOf(document_.build(), *part) : std::nullopt;
    if (!place) return false;
    stackId_ = place->stack->id;
    chooseLayer(place->layer);
    return true;
}

bool StackFocus::edit(const QString &name, const EditResult &result, int layer) {
    if (!document_.edit(name, result)) return false;
    const Stack *now = stack();
    chooseLayer(now && layer < int(now->layers.size()) ? layer : -1);
    return true;
}

QString StackFocus::layerWords(int index) const {
    const Stack *now = stack();
    const StackReport *told = report();
    if (!now || !told || index < 0 || index >= int(now->layers.size())) return {};
    const StackLayer &layer = now->layers[std::size_t(index)];
    const LayerReport &own = told->layers[std::size_t(index)];
    const LayerSpan &span = told->chain.spans[std::size_t(index)];
    const QString free = number(own.free_mm), height = number(span.to_mm - span.from_mm);
    const Part *part = layer.parts.empty() ? nullptr : findPart(document_.build(), layer.parts.front());
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    switch (layer.role) {
    case LayerRole::frame: return tr("frame  %1").arg(height);
    case LayerRole::board:
    case LayerRole::adapter: return tr("%1  %2").arg(QString::fromStdString(part ? part->name : std::string()), height);
    case LayerRole::damper:
        return layer.squeeze > 0 ? tr("dampers  %1 → %2").arg(free, height) : tr("dampers  %1").arg(height);
    case LayerRole::spacer:
        return type && type->fastener && type->fastener->form == FastenerForm::standoff
                   ? tr("standoffs  %1").arg(height)
                   : tr("spacers  %1").arg(height);
    case LayerRole::nut:
        return type && type->fastener && type->fastener->form != FastenerForm::nut ? tr("lock nuts  %1").arg(height)
                                                                                   : tr("nuts  %1").arg(height);
    case LayerRole::washer: return tr("washers  %1").arg(height);
    case LayerRole::shim: return tr("shims  %1").arg(number(own.free_mm, 2));
    case LayerRole::gap: return tr("air  %1").arg(height);
    case LayerRole::wires: return tr("wires  %1 between").arg(free);
    case LayerRole::sheet: return tr("sheet  %1 between").arg(number(own.free_mm, 2));
    }
    return {};
}

} // namespace waxis::stackbench
