#include "app/stages/place/place_view.h"

#include "app/drawing/mat.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/snapping.h"
#include "core/build/frame_shapes.h"

#include <QApplication>
#include <QDragEnterEvent>
#include <QKeyEvent>
#include <QMimeData>
#include <QPainter>
#include <QScrollBar>
#include <cmath>

namespace waxis::place {

using drawing::View;

namespace {
constexpr double kSnapPixels = 7;
constexpr double kSmallestScale = 0.2, kLargestScale = 40;
} // namespace

PlaceView::PlaceView(drawing::BuildScene &scene, app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QGraphicsView(&scene, parent), scene_(scene), document_(document), theme_(theme) {
    setViewportUpdateMode(QGraphicsView::MinimalViewportUpdate);
    setRenderHint(QPainter::Antialiasing);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFrameShape(QFrame::NoFrame);
    setTransformationAnchor(QGraphicsView::NoAnchor);
    setResizeAnchor(QGraphicsView::NoAnchor);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAcceptDrops(true);
    connect(&theme_, &theme::Theme::changed, this, [this] {
        resetCachedContent();
        viewport()->update();
    });
}

void PlaceView::drawBackground(QPainter *painter, const QRectF &rect) {
    drawing::paintMat(*painter, rect, pixelsPerMm(), theme_.colors());
}

void PlaceView::look(double scale, const QPointF &centre) {
    scale = std::clamp(scale, kSmallestScale, kLargestScale);
    if (std::abs(scale - pixelsPerMm()) > 1e-9) {
        setTransform(QTransform::fromScale(scale, scale));
        scene_.layOutLabels(scale);
    }
    centerOn(centre);
}

QPointF PlaceView::centre() const { return mapToScene(viewport()->rect()).boundingRect().center(); }

void PlaceView::resizeEvent(QResizeEvent *event) {
    QGraphicsView::resizeEvent(event);
    scene_.layOutLabels(pixelsPerMm());
}

void PlaceView::wheelEvent(QWheelEvent *event) {
    const double factor = std::pow(1.0015, event->angleDelta().y());
    const double scale = std::clamp(pixelsPerMm() * factor, kSmallestScale, kLargestScale);
    const QPointF under = mapToScene(event->position().toPoint());
    const QPointF fromCentre = event->position() - QRectF(viewport()->rect()).center();
    emit zoomed(scale, under - fromCentre / scale); // what is under the pointer stays there
    event->accept();
}

void PlaceView::mousePressEvent(QMouseEvent *event) {
    if (event->button() == Qt::MiddleButton ||
        (event->button() == Qt::LeftButton && event->modifiers() & Qt::AltModifier)) {
        mode_ = Mode::panning;
        lastPan_ = event->pos();
        setCursor(Qt::ClosedHandCursor);
        return;
    }
    if (event->button() != Qt::LeftButton) return QGraphicsView::mousePressEvent(event);
    const QStringList under = scene_.partsAt(mapToScene(event->pos()));
    // A part that is already chosen keeps the pointer, even when others lie over it.
    wasSelected_ = under.contains(document_.selected());
    pressedPart_ = wasSelected_ ? document_.selected() : under.isEmpty() ? QString() : under.first();
    document_.select(pressedPart_);
    pressAt_ = event->pos();
    mode_ = pressedPart_.isEmpty() ? Mode::panning : Mode::pressed;
    if (mode_ == Mode::panning) lastPan_ = event->pos();
}

void PlaceView::mouseMoveEvent(QMouseEvent *event) {
    switch (mode_) {
    case Mode::idle: {
        const auto under = scene_.partsAt(mapToScene(event->pos()));
        setCursor(under.isEmpty() ? Qt::ArrowCursor : Qt::OpenHandCursor);
        return;
    }
    case Mode::pressed:
        if ((event->pos() - pressAt_).manhattanLength() < 3) return;
        beginDrag(event->pos());
        if (mode_ != Mode::dragging) return;
        [[fallthrough]];
    case Mode::dragging: dragTo(event->pos(), !(event->modifiers() & Qt::ControlModifier)); return;
    case Mode::panning: {
        const QPointF moved = QPointF(event->pos() - lastPan_) / pixelsPerMm();
        lastPan_ = event->pos();
        emit zoomed(pixelsPerMm(), centre() - moved);
        return;
    }
    }
}

void PlaceView::mouseReleaseEvent(QMouseEvent *) {
    const Mode was = mode_;
    setCursor(Qt::ArrowCursor);
    if (was == Mode::dragging) {
        endDrag(true);
        return;
    }
    mode_ = Mode::idle;
    if (was != Mode::pressed || !wasSelected_) return;
    // A second click on the same place chooses what lies beneath.
    const QStringList under = scene_.partsAt(mapToScene(pressAt_));
    const auto at = under.indexOf(document_.selected());
    if (at >= 0 && under.size() > 1) document_.select(under[(at + 1) % under.size()]);
}

void PlaceView::beginDrag(const QPoint &) {
    const Part *part = document_.selectedPart();
    if (!part || part->pinned) {
        if (part) emit document_.refused(tr("%1 is pinned; Space unpins it.").arg(QString::fromStdString(part->name)));
        mode_ = Mode::idle;
        return;
    }
    startBuild_ = document_.build();
    startPose_ = framePose(startBuild_, *part);
    if (auto *item = scene_.item(pressedPart_)) startOutline_ = item->silhouette();
    mode_ = Mode::dragging;
    setCursor(Qt::ClosedHandCursor);
}

void PlaceView::dragTo(const QPoint &at, bool snapping) {
    const Part *part = findPart(startBuild_, pressedPart_.toStdString());
    if (!part) return;
    const QPointF moved = mapToScene(at) - mapToScene(pressAt_);
    Pose wanted = startPose_;
    wanted.position_mm += drawing::unproject(scene_.view(), moved);
    Snap target{wanted, {}, {}, {}};
    if (snapping) target = snap(startBuild_, *part, wanted, scene_.view(), kSnapPixels / pixelsPerMm());
    const auto site = sitePose(*startBuild_.frame, target.site);
    document_.preview(site ? seatPart(startBuild_, part->id, target.site, site->inverse() * target.X_FramePart)
                           : movePart(startBuild_, part->id, target.X_FramePart));
    scene_.showDrag({startOutline_, startOutline_.translated(moved), target.guides, target.text});
}

void PlaceView::endDrag(bool keep) {
    mode_ = Mode::idle;
    scene_.clearDrag();
    if (keep)
        document_.commitPreview(
            tr("Move %1").arg(QString::fromStdString(displayName(document_.build(), pressedPart_.toStdString()))));
    else
        document_.cancelPreview();
    scene_.layOutLabels(pixelsPerMm());
}

EditResult PlaceView::withNewPart(const QPoint &at, bool snapping) const {
    const auto own = startBuild_.types->find(newType_);
    const auto shipped = document_.library().find(newType_);
    const PartType *type = own != startBuild_.types->end()        ? &own->second
                           : shipped != document_.library().end() ? &shipped->second
                                                                  : nullptr;
    if (!type) return Failure{EditError{tr("The library has no such part.").toStdString()}};
    const Vec3 p = drawing::unproject(scene_.view(), mapToScene(at));
    Pose wanted{p, Quat::Identity()};
    if (scene_.view() == View::plan) // it stands on the highest plate there
        for (const auto &plate : startBuild_.frame->plates)
            if (contains({plate.outline_mm, plate.cutouts_mm}, p.head<2>()))
                wanted.position_mm.z() = std::max(wanted.position_mm.z(), plate.z_mm + plate.thickness_mm);
    auto added = addPart(startBuild_, *type, newType_, wanted);
    if (!added || !snapping) return added;
    const Part &part = added->parts.back();
    const Snap target = snap(*added, part, wanted, scene_.view(), kSnapPixels / pixelsPerMm());
    const auto site = sitePose(*added->frame, target.site);
    return site ? seatPart(*added, part.id, target.site, site->inverse() * target.X_FramePart)
                : movePart(*added, part.id, target.X_FramePart);
}

void PlaceView::dragEnterEvent(QDragEnterEvent *event) {
    if (!event->mimeData()->hasFormat(kTypeMime)) return event->ignore(); // files are the window's
    newType_ = event->mimeData()->data(kTypeMime).toStdString();
    startBuild_ = document_.build();
    event->acceptProposedAction();
}

void PlaceView::dragMoveEvent(QDragMoveEvent *event) {
    if (newType_.empty()) return event->ignore();
    document_.preview(withNewPart(event->position().toPoint(), !(event->modifiers() & Qt::ControlModifier)));
    event->acceptProposedAction();
}

void PlaceView::dragLeaveEvent(QDragLeaveEvent *) {
    newType_.clear();
    document_.cancelPreview();
}

void PlaceView::dropEvent(QDropEvent *event) {
    if (newType_.empty()) return event->ignore();
    const auto added = withNewPart(event->position().toPoint(), !(event->modifiers() & Qt::ControlModifier));
    newType_.clear();
    const QString id = added ? QString::fromStdString(added->parts.back().id) : QString();
    if (document_.edit(added ? tr("Add %1").arg(QString::fromStdString(added->parts.back().name)) : QString(), added))
        document_.select(id);
    scene_.layOutLabels(pixelsPerMm());
    setFocus();
    event->acceptProposedAction();
}

void PlaceView::nudge(const Vec3 &shift_mm) {
    const Part *part = document_.selectedPart();
    if (part->pinned) {
        emit document_.refused(tr("%1 is pinned; Space unpins it.").arg(QString::fromStdString(part->name)));
        return;
    }
    document_.edit(tr("Nudge %1").arg(QString::fromStdString(part->name)),
                   shiftPart(document_.build(), part->id, shift_mm), "nudge/" + document_.selected());
}

void PlaceView::turn(const Vec3 &axis, double angle_deg, const QString &name) {
    const Part *part = document_.selectedPart();
    document_.edit(name.arg(QString::fromStdString(part->name)),
                   turnPart(document_.build(), part->id, axis, angle_deg));
}

bool PlaceView::handleKey(QKeyEvent *event) {
    if (event->key() == Qt::Key_0) {
        emit fitWanted();
        return true;
    }
    if (event->key() == Qt::Key_Escape) {
        if (mode_ == Mode::dragging)
            endDrag(false);
        else
            document_.select({});
        return true;
    }
    const Part *part = document_.selectedPart();
    if (!part || mode_ == Mode::dragging) return false;
    const double step = event->modifiers() & Qt::ShiftModifier     ? 0.1
                        : event->modifiers() & Qt::ControlModifier ? 5.0
                                                                   : 1.0;
    const Vec3 eye = drawing::towardsViewer(scene_.view());
    switch (event->key()) {
    case Qt::Key_Right: nudge(drawing::unproject(scene_.view(), {step, 0})); return true;
    case Qt::Key_Left: nudge(drawing::unproject(scene_.view(), {-step, 0})); return true;
    case Qt::Key_Up: nudge(drawing::unproject(scene_.view(), {0, -step})); return true;
    case Qt::Key_Down: nudge(drawing::unproject(scene_.view(), {0, step})); return true;
    case Qt::Key_Q: turn(eye, 90, tr("Turn %1 left")); return true;
    case Qt::Key_E: turn(eye, -90, tr("Turn %1 right")); return true;
    case Qt::Key_V: turn(Vec3::UnitX(), 180, tr("Turn %1 upside down")); return true;
    case Qt::Key_Space: {
        const QString name = part->pinned ? tr("Unpin %1") : tr("Pin %1");
        document_.edit(name.arg(QString::fromStdString(part->name)),
                       pinPart(document_.build(), part->id, !part->pinned));
        return true;
    }
    case Qt::Key_Delete:
        document_.edit(tr("Remove %1").arg(QString::fromStdString(part->name)),
                       removePart(document_.build(), part->id));
        return true;
    default: return false;
    }
}

void PlaceView::keyPressEvent(QKeyEvent *event) {
    if (!handleKey(event)) QGraphicsView::keyPressEvent(event);
}

} // namespace waxis::place
