#include "app/stages/frame/frame_canvas.h"

#include "core/build/frame_shapes.h"
#include "core/layout/frame_report.h"
#include "core/layout/hand_edits.h"

#include <QContextMenuEvent>
#include <algorithm>
#include <cmath>

namespace waxis::frame {

namespace {
constexpr double kReach_px = 9;

Vec2 vec(const QPointF &p) { return {p.x(), p.y()}; }
} // namespace

FrameCanvas::FrameCanvas(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : MatCanvas(theme, parent), document_(document), handles_(frameHandles(*document.build().frame)) {
    setAccessibleName(tr("Frame drawing"));
    connect(&document_, &app::Document::changed, this, [this] {
        handles_ = frameHandles(*document_.build().frame);
        update();
    });
    connect(&document_, &app::Document::selectionChanged, this, qOverload<>(&QWidget::update));
    connect(&document_, &app::Document::highlightChanged, this, qOverload<>(&QWidget::update));
    connect(&document_, &app::Document::opened, this, &FrameCanvas::fit);
}

QRectF FrameCanvas::content() const {
    const Frame &frame = *document_.build().frame;
    double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
    auto take = [&](double x, double y, double r) {
        x0 = std::min(x0, x - r);
        x1 = std::max(x1, x + r);
        y0 = std::min(y0, y - r);
        y1 = std::max(y1, y + r);
    };
    for (const auto &mount : frame.motorMounts)
        take(mount.position_mm.x(), mount.position_mm.y(), mount.propDiameter_mm / 2);
    for (const auto &plate : frame.plates)
        for (const auto &p : plate.outline_mm) take(p.x(), p.y(), 0);
    for (const auto &arm : frame.arms) take(arm.tip_mm.x(), arm.tip_mm.y(), arm.width_mm);
    return x1 > x0 ? QRectF(x0, y0, x1 - x0, y1 - y0) : QRectF();
}

QPointF FrameCanvas::handlePixels(HandleKind kind, const QString &mount) const {
    for (const auto &handle : handles_)
        if (handle.kind == kind && (mount.isEmpty() || handle.mount == mount.toStdString()))
            return toPixels(handle.position_mm.x(), handle.position_mm.y());
    return {};
}

std::vector<FrameCanvas::Thing> FrameCanvas::things() const {
    std::vector<Thing> list;
    const Frame &frame = *document_.build().frame;
    for (const auto &post : frame.standoffs) list.push_back({post.id, post.base_mm.head<2>(), post.diameter_mm / 2});
    for (const auto &site : frame.sites) list.push_back({site.id, site.X_FrameSite.position_mm.head<2>(), 0});
    for (const auto &screw : frame.screws) list.push_back({screw.id, screw.at_mm, 1.5});
    for (const auto &pass : frame.passThroughs) {
        Aabb box;
        for (const auto &p : pass.outline_mm) box.include(Vec3(p.x(), p.y(), 0));
        list.push_back({pass.id, ((box.min_mm + box.max_mm) / 2).head<2>(), box.size_mm().head<2>().minCoeff() / 2});
    }
    return list;
}

std::optional<FrameCanvas::Thing> FrameCanvas::thingAt(const QPointF &at) const {
    std::optional<Thing> best;
    double nearest = 1e300;
    for (const auto &thing : things()) {
        const QPointF d = toPixels(thing.at_mm.x(), thing.at_mm.y()) - at;
        const double away = std::hypot(d.x(), d.y());
        if (away > std::max(kReach_px, thing.reach_mm * pixelsPerMm()) || away >= nearest) continue;
        nearest = away;
        best = thing;
    }
    return best;
}

std::optional<QPointF> FrameCanvas::thingPixels(const std::string &id) const {
    for (const auto &thing : things())
        if (thing.id == id) return toPixels(thing.at_mm.x(), thing.at_mm.y());
    return std::nullopt;
}

const FrameHandle *FrameCanvas::handleAt(const QPointF &at) const {
    const FrameHandle *best = nullptr;
    double nearest = kReach_px;
    for (const auto &handle : handles_) {
        const QPointF d = toPixels(handle.position_mm.x(), handle.position_mm.y()) - at;
        // A motor's number is larger than the small squares.
        const double away = std::hypot(d.x(), d.y()) - (handle.kind == HandleKind::motor ? 5 : 0);
        if (away < nearest) {
            nearest = away;
            best = &handle;
        }
    }
    return best;
}

bool FrameCanvas::press(const QPointF &at, Qt::KeyboardModifiers) {
    setFocus();
    const FrameHandle *handle = handleAt(at);
    if (!handle) {
        if (const auto thing = thingAt(at)) {
            document_.select(QString::fromStdString(thing->id));
            heldThing_ = thing;
            refusal_.clear();
            startBuild_ = document_.build();
            grip_ = thing->at_mm - vec(toMm(at));
            return true;
        }
        choosePlateUnder(at);
        return false;
    }
    held_ = *handle;
    startBuild_ = document_.build();
    grip_ = handle->position_mm - vec(toMm(at));
    return true;
}

/// The plate on top under the pointer is chosen; empty mat lets go.
void FrameCanvas::choosePlateUnder(const QPointF &at) {
    const Vec2 p = vec(toMm(at));
    const Plate *chosen = nullptr;
    for (const auto &plate : document_.build().frame->plates)
        if (contains({plate.outline_mm, plate.cutouts_mm}, p) && (!chosen || plate.z_mm > chosen->z_mm))
            chosen = &plate;
    document_.select(chosen ? QString::fromStdString(chosen->id) : QString());
}

void FrameCanvas::drag(const QPointF &at, Qt::KeyboardModifiers modifiers) {
    const double step = modifiers & Qt::ControlModifier ? 0.1 : 0.5;
    if (heldThing_) {
        Vec2 to = vec(toMm(at)) + grip_;
        for (int axis = 0; axis < 2; ++axis) to[axis] = std::round(to[axis] / step) * step;
        const auto moved = moveOnFrame(startBuild_, heldThing_->id, to);
        refusal_ = moved ? QString() : QString::fromStdString(moved.error().message);
        document_.preview(moved); // where it does not go it stays where it last did
        update();
        return;
    }
    if (!held_) return;
    document_.preview(pullHandle(startBuild_, *held_, vec(toMm(at)) + grip_, step));
}

void FrameCanvas::release() {
    if (heldThing_) {
        const QString name = tr("Move %1").arg(QString::fromStdString(displayName(document_.build(), heldThing_->id)));
        if (!refusal_.isEmpty()) emit document_.refused(refusal_);
        heldThing_.reset();
        refusal_.clear();
        if (document_.isPreviewing()) document_.commitPreview(name);
        update();
        return;
    }
    if (!held_) return;
    const QString name = held_->kind == HandleKind::motor       ? tr("Move motors")
                         : held_->kind == HandleKind::propeller ? tr("Resize propellers")
                                                                : tr("Resize the body");
    held_.reset();
    document_.commitPreview(name);
    update();
}

void FrameCanvas::cancel() {
    held_.reset();
    heldThing_.reset();
    refusal_.clear();
    document_.cancelPreview();
    update();
}

void FrameCanvas::hover(const QPointF &at) {
    const FrameHandle *handle = handleAt(at);
    const bool changed = bool(handle) != bool(hovered_) ||
                         (handle && (handle->kind != hovered_->kind || handle->mount != hovered_->mount));
    if (!handle) setCursor(thingAt(at) ? Qt::SizeAllCursor : Qt::ArrowCursor);
    if (!changed) return;
    hovered_ = handle ? std::optional(*handle) : std::nullopt;
    if (handle) setCursor(Qt::SizeAllCursor);
    update();
}

QRectF FrameCanvas::chosenBox() const {
    const std::string id = document_.selected().toStdString();
    const Frame &frame = *document_.build().frame;
    for (const auto &thing : things())
        if (thing.id == id) {
            const double r = std::max(thing.reach_mm, 5.0);
            return QRectF(thing.at_mm.x() - r, thing.at_mm.y() - r, 2 * r, 2 * r);
        }
    const auto boxOf = [](const Aabb &box) {
        return QRectF(box.min_mm.x(), box.min_mm.y(), box.size_mm().x(), box.size_mm().y());
    };
    for (const auto &plate : frame.plates)
        if (plate.id == id) return boxOf(boundsOf(plateShape(plate), platePose(plate)));
    for (const auto &arm : frame.arms)
        if (arm.id == id) return boxOf(boundsOf(armShape(arm), armPose(arm)));
    return {};
}

QStringList FrameCanvas::walkable() const {
    QStringList ids;
    for (const auto &plate : document_.build().frame->plates) ids << QString::fromStdString(plate.id);
    for (const auto &thing : things()) ids << QString::fromStdString(thing.id);
    return ids;
}

void FrameCanvas::removeChosen() {
    const std::string id = document_.selected().toStdString();
    const auto all = things();
    if (std::any_of(all.begin(), all.end(), [&](const Thing &thing) { return thing.id == id; }))
        document_.edit(tr("Take out %1").arg(QString::fromStdString(displayName(document_.build(), id))),
                       removeFromFrame(document_.build(), id));
}

void FrameCanvas::keyPressEvent(QKeyEvent *event) {
    const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier));
    if (plain && (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace)) return removeChosen();
    MatCanvas::keyPressEvent(event);
}

void FrameCanvas::contextMenuEvent(QContextMenuEvent *event) {
    if (held_ || heldThing_) return;
    if (event->reason() == QContextMenuEvent::Mouse) {
        if (const auto thing = thingAt(event->pos()))
            document_.select(QString::fromStdString(thing->id));
        else
            choosePlateUnder(event->pos());
    }
    emit contextWanted(event->globalPos());
    event->accept();
}

} // namespace waxis::frame
