#include "app/stages/stack/stack_canvas.h"

#include "core/edits/stack_edits.h"
#include "core/rules/stack_air.h"
#include "core/stack/report.h"

#include <QContextMenuEvent>
#include <QFontMetricsF>
#include <QKeyEvent>
#include <algorithm>
#include <cmath>

namespace waxis::stackbench {

namespace {
constexpr double kLabel_px = 15; // least height between two labels
constexpr double kThin_px = 5;   // layers thinner than this can still be taken hold of
constexpr double kFitMargin_px = 28;
} // namespace

StackCanvas::StackCanvas(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : MatCanvas(theme, parent), focus_(focus) {
    setAccessibleName(tr("Stack, cut open"));
    connect(&focus_, &StackFocus::changed, this, [this] { lookAgain(); });
    connect(&focus_.document(), &app::Document::opened, this, &StackCanvas::fit);
    connect(&focus_.document(), &app::Document::highlightChanged, this, qOverload<>(&QWidget::update));
    connect(&focus_.document(), &app::Document::loadCaseChanged, this, [this] { lookAgain(); });
    lookAgain();
}

void StackCanvas::lookAgain() {
    if (!focus_.document().isPreviewing() && held_ >= 0 && !moved_) held_ = -1;
    const double before = column_.halfWidth_mm + column_.high_mm - column_.low_mm;
    column_ = columnOf(focus_, view_);
    const double tall = held_ < 0 ? wantedTall() : tall_;
    const bool changed = std::abs(before - (column_.halfWidth_mm + column_.high_mm - column_.low_mm)) > 0.5;
    if (held_ < 0 && (changed || tall != tall_)) {
        tall_ = tall;
        fit();
    }
    update();
}

void StackCanvas::resizeEvent(QResizeEvent *event) {
    tall_ = wantedTall(); // before the drawing is fitted into the new size
    MatCanvas::resizeEvent(event);
}

double StackCanvas::leftRoom() const {
    const Stack *stack = focus_.stack();
    const QFontMetricsF metrics(theme().text(kLabelFont_px, true));
    double widest = 40;
    for (int i = 0; stack && i < int(stack->layers.size()); ++i)
        widest = std::max(widest, metrics.horizontalAdvance(focus_.layerWords(i)));
    constexpr double kLeader_px = 24, kMost = 0.5; // of the width: a long name gives way to the drawing
    return std::min(widest + kLeader_px, kMost * width());
}

double StackCanvas::rightRoom() const { return tight() ? 56 : narrow() ? 122 : 152; }

double StackCanvas::wantedTall() const {
    const double tall = column_.high_mm - column_.low_mm, wide = 2 * column_.halfWidth_mm;
    if (tall <= 0 || wide <= 0) return 1;
    constexpr double kMost = 2; // beyond, boards look like bricks
    const double across = std::max(1.0, width() - leftRoom() - rightRoom()) / wide;
    const double upwards = std::max(1.0, height() - 2 * kFitMargin_px) / tall;
    return std::floor(std::clamp(upwards / across, 1.0, kMost) * 10) / 10;
}

void StackCanvas::setView(const ColumnView &view) {
    view_ = view;
    lookAgain();
}

QRectF StackCanvas::content() const {
    if (!focus_.report()) return {};
    // Labels and the screw beside the column have their width in pixels, whatever the scale turns out to be.
    const double left_px = leftRoom() - kFitMargin_px, right_px = rightRoom() - kFitMargin_px;
    const double tall = tall_ * (column_.high_mm - column_.low_mm), wide = 2 * column_.halfWidth_mm;
    const double scale = std::max(0.5, std::min((width() - 2 * kFitMargin_px - left_px - right_px) / wide,
                                                (height() - 2 * kFitMargin_px) / tall));
    const double low = tall_ * (column_.up > 0 ? column_.low_mm : -column_.high_mm);
    return {-column_.halfWidth_mm - left_px / scale, low, wide + (left_px + right_px) / scale, tall};
}

QRectF StackCanvas::chosenBox() const {
    const StackReport *report = focus_.report();
    const int layer = focus_.layer();
    if (!report || layer < 0 || layer >= int(report->chain.spans.size())) return {};
    const LayerSpan &span = report->chain.spans[std::size_t(layer)];
    const double a = tall_ * column_.up * span.from_mm, b = tall_ * column_.up * span.to_mm;
    return {-column_.halfWidth_mm, std::min(a, b), 2 * column_.halfWidth_mm, std::abs(b - a)};
}

QStringList StackCanvas::walkable() const {
    QStringList layers;
    const Stack *stack = focus_.stack();
    for (int i = 0; stack && i < int(stack->layers.size()); ++i) layers << QString::number(i);
    return layers;
}

void StackCanvas::contextMenuEvent(QContextMenuEvent *event) {
    // The layer under the pointer is chosen; the window then shows the menu of the part that it is.
    if (const int layer = layerAt(event->pos()); event->reason() == QContextMenuEvent::Mouse && layer >= 0)
        focus_.chooseLayer(layer);
    event->ignore();
}

QPointF StackCanvas::layerPixels(int layer) const {
    const StackReport *report = focus_.report();
    if (!report || layer < 0 || layer >= int(report->chain.spans.size())) return {};
    const LayerSpan &span = report->chain.spans[std::size_t(layer)];
    return {toPixels(-column_.halfWidth_mm * 0.55, 0).x(), heightPixels((span.from_mm + span.to_mm) / 2)};
}

std::vector<StackCanvas::Label> StackCanvas::labels() const {
    std::vector<Label> list;
    const StackReport *report = focus_.report();
    const Stack *stack = focus_.stack();
    if (!report || !stack) return list;
    const double right = toPixels(-column_.halfWidth_mm, 0).x() - 14, left = 6;
    for (int i = 0; i < int(stack->layers.size()); ++i)
        list.push_back({i, {}, focus_.layerWords(i), layerPixels(i).y()});
    // From the top down; pushed apart where they would collide, the whole column of labels kept in sight.
    std::stable_sort(list.begin(), list.end(), [](const Label &a, const Label &b) { return a.at_px < b.at_px; });
    double y = -1e9;
    std::vector<double> at;
    for (const auto &label : list) at.push_back(y = std::max(label.at_px, y + kLabel_px));
    double limit = height() - 12.0;
    for (std::size_t k = list.size(); k-- > 0;) {
        at[k] = std::min(at[k], limit);
        limit = at[k] - kLabel_px;
    }
    for (std::size_t k = 0; k < list.size(); ++k)
        list[k].box = QRectF(left, at[k] - kLabel_px / 2, std::max(40.0, right - left), kLabel_px);
    return list;
}

std::vector<StackCanvas::Dimension> StackCanvas::dimensions() const {
    std::vector<Dimension> list;
    const StackReport *report = focus_.report();
    if (!report) return list;
    const auto &practice = focus_.document().analysis().practice;
    auto middle = [&](const Ring &ring) {
        double x = 0;
        for (const auto &p : ring) x += column_.across(p) / double(ring.size());
        return x;
    };
    auto add = [&](int index, const StackGap &gap, Severity verdict) {
        if (gap.where.empty()) return;
        const double x = toPixels(middle(gap.where), 0).x();
        Dimension d;
        d.gap = index;
        d.low = {x, heightPixels(gap.lower.to_mm)};
        d.high = {x, heightPixels(gap.lower.to_mm + gap.gap_mm)};
        d.severity = verdict;
        d.text = number(gap.air_mm());
        if (gap.wires_mm > 0) d.text += tr(" beside %1 of wires").arg(number(gap.wires_mm));
        list.push_back(d);
    };
    for (int i = 0; i < int(report->gaps.size()); ++i) {
        const StackGap &gap = report->gaps[std::size_t(i)];
        Severity verdict = airSeverity(gap.air_mm(), practice);
        if (gap.toPlate) { // there bare metal is what matters
            verdict = gap.air_mm() < 0 ? Severity::stop : Severity::pass;
            for (const auto &bare : report->bare)
                if (!bare.hardware && !bare.sheet && (bare.board == gap.above || bare.board == gap.below) &&
                    bare.air_mm < practice[Limit::bareGap] - 1e-9 && verdict == Severity::pass)
                    verdict = bare.air_mm <= 0 ? Severity::stop : Severity::watch;
        }
        add(i, gap, verdict);
    }
    if (!report->plateAbove.empty()) {
        add(-1, report->closest, airSeverity(report->closest.air_mm(), practice));
        if (!list.empty() && list.back().gap == -1) {
            const double air = report->closest.air_mm();
            list.back().text = air < 0 ? tr("%1 too high").arg(number(-air)) : tr("%1 free").arg(number(air));
        }
    }
    const QFontMetricsF metrics(theme().numbers(11));
    std::vector<QRectF> taken;
    for (auto &d : list) {
        const QSizeF size(metrics.horizontalAdvance(d.text) + 10, metrics.height() + 2);
        QPointF at((d.low.x() + d.high.x()) / 2 + size.width() / 2 + 6, (d.low.y() + d.high.y()) / 2);
        for (int tries = 0; tries < 8; ++tries) {
            d.box = QRectF(at - QPointF(size.width() / 2, size.height() / 2), size);
            d.box.moveLeft(std::clamp(d.box.left(), 2.0, std::max(2.0, width() - size.width() - 2)));
            d.box.moveTop(std::clamp(d.box.top(), 2.0, std::max(2.0, height() - size.height() - 2)));
            if (std::none_of(taken.begin(), taken.end(), [&](const QRectF &r) { return r.intersects(d.box); })) break;
            at.rx() += tries % 2 ? 0 : size.width() + 4;
            at.ry() -= tries % 2 ? size.height() : 0;
        }
        taken.push_back(d.box);
    }
    return list;
}

QStringList StackCanvas::writing() const {
    QStringList words;
    for (const auto &label : labels()) words << label.text;
    for (const auto &d : dimensions()) words << d.text;
    return words;
}

std::vector<StackCanvas::Written> StackCanvas::written() const {
    std::vector<Written> list;
    const QFontMetricsF metrics(theme().text(kLabelFont_px, true));
    for (const auto &label : labels())
        list.push_back({label.box, metrics.horizontalAdvance(label.text) <= label.box.width()});
    for (const auto &d : dimensions()) list.push_back({d.box, true});
    return list;
}

int StackCanvas::layerAt(const QPointF &at) const {
    for (const auto &label : labels())
        if (label.box.contains(at)) return label.layer;
    const StackReport *report = focus_.report();
    if (!report) return -1;
    if (at.x() < toPixels(-column_.halfWidth_mm, 0).x() || at.x() > toPixels(column_.halfWidth_mm, 0).x()) return -1;
    int best = -1;
    double nearest = kThin_px;
    for (int i = 0; i < int(report->chain.spans.size()); ++i) {
        const double a = heightPixels(report->chain.spans[std::size_t(i)].from_mm);
        const double b = heightPixels(report->chain.spans[std::size_t(i)].to_mm);
        const double low = std::min(a, b), high = std::max(a, b);
        const double off = at.y() < low ? low - at.y() : at.y() > high ? at.y() - high : 0;
        if (off < nearest) {
            nearest = off;
            best = i;
        }
    }
    return best;
}

bool StackCanvas::press(const QPointF &at, Qt::KeyboardModifiers) {
    for (const auto &d : dimensions())
        if (d.box.contains(at) && d.gap >= 0) {
            focus_.chooseGap(d.gap);
            return true;
        }
    const int layer = layerAt(at);
    if (layer < 0) return false;
    setFocus(Qt::MouseFocusReason);
    focus_.chooseLayer(layer);
    const Stack *stack = focus_.stack();
    if (!stack || stack->layers[std::size_t(layer)].role == LayerRole::frame) return true;
    held_ = layer;
    target_ = layer;
    moved_ = false;
    grip_ = at;
    startBuild_ = focus_.document().build();
    startMiddles_px_.clear();
    for (int i = 0; i < int(stack->layers.size()); ++i) startMiddles_px_.push_back(layerPixels(i).y());
    return true;
}

int StackCanvas::targetFor(double y_px) const {
    // How many of the others lie further in: counted where they were when it was taken up.
    int inside = 0;
    for (int i = 0; i < int(startMiddles_px_.size()); ++i)
        if (i != held_ && (startMiddles_px_[std::size_t(i)] - y_px) * column_.up > 0) ++inside;
    return inside;
}

void StackCanvas::drag(const QPointF &at, Qt::KeyboardModifiers) {
    if (held_ < 0 || (!moved_ && (at - grip_).manhattanLength() < 4)) return;
    moved_ = true;
    const int target = targetFor(at.y());
    if (target == target_) return;
    target_ = target;
    const Stack *stack = focus_.stack();
    if (!stack) return;
    focus_.document().preview(moveLayer(startBuild_, stack->id, held_, target));
    focus_.chooseLayer(target);
}

void StackCanvas::release() {
    if (held_ >= 0 && moved_ && target_ != held_)
        focus_.document().commitPreview(tr("Move a layer"));
    else if (focus_.document().isPreviewing())
        focus_.document().cancelPreview();
    held_ = -1;
    moved_ = false;
    update();
}

void StackCanvas::cancel() {
    focus_.document().cancelPreview();
    if (held_ >= 0) focus_.chooseLayer(held_);
    held_ = -1;
    moved_ = false;
    update();
}

void StackCanvas::hover(const QPointF &at) {
    const int now = layerAt(at);
    setCursor(now >= 0 ? Qt::OpenHandCursor : Qt::ArrowCursor);
    if (now == hovered_) return;
    hovered_ = now;
    update();
}

void StackCanvas::moveChosen(int steps) {
    const Stack *stack = focus_.stack();
    const int layer = focus_.layer(), to = layer + steps;
    if (!stack || layer < 0 || to < 0 || to >= int(stack->layers.size())) return;
    focus_.edit(tr("Move a layer"), moveLayer(focus_.document().build(), stack->id, layer, to), to);
}

void StackCanvas::flipChosen() {
    if (const Stack *stack = focus_.stack(); stack && focus_.layer() >= 0)
        focus_.edit(tr("Turn a board over"), flipBoard(focus_.document().build(), stack->id, focus_.layer()));
}

void StackCanvas::turnChosen(double angle_deg) {
    if (const Stack *stack = focus_.stack(); stack && focus_.layer() >= 0)
        focus_.edit(tr("Turn a board"), turnBoard(focus_.document().build(), stack->id, focus_.layer(), angle_deg));
}

void StackCanvas::removeChosen() {
    if (const Stack *stack = focus_.stack(); stack && focus_.layer() >= 0)
        focus_.edit(tr("Take a layer out"), removeLayer(focus_.document().build(), stack->id, focus_.layer()), -1);
}

void StackCanvas::keyPressEvent(QKeyEvent *event) {
    const Stack *stack = focus_.stack();
    const int count = stack ? int(stack->layers.size()) : 0;
    const bool carry = event->modifiers() & (Qt::AltModifier | Qt::ControlModifier);
    auto step = [&](int way) {
        if (count == 0) return;
        if (carry)
            moveChosen(way);
        else
            focus_.chooseLayer(focus_.layer() < 0 ? (way > 0 ? 0 : count - 1)
                                                  : std::clamp(focus_.layer() + way, 0, count - 1));
    };
    const bool letter = event->key() == Qt::Key_V || event->key() == Qt::Key_Q || event->key() == Qt::Key_E ||
                        event->key() == Qt::Key_Delete;
    if (letter && carry) return MatCanvas::keyPressEvent(event); // the window's
    switch (event->key()) {
    case Qt::Key_Up: step(column_.up > 0 ? 1 : -1); break;
    case Qt::Key_Down: step(column_.up > 0 ? -1 : 1); break;
    case Qt::Key_V: flipChosen(); break;
    case Qt::Key_Q: turnChosen(90); break;
    case Qt::Key_E: turnChosen(-90); break;
    case Qt::Key_Delete: removeChosen(); break;
    default: MatCanvas::keyPressEvent(event);
    }
}

} // namespace waxis::stackbench
