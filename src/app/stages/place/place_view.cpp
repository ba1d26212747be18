#include "app/stages/place/place_view.h"

#include "app/drawing/mat.h"
#include "app/drawing/walk.h"
#include "app/stages/place/library_drawer.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/group_edits.h"
#include "core/edits/hung_on.h"
#include "core/rules/wording.h"
#include "core/scene/scene.h"

#include <QApplication>
#include <QMouseEvent>
#include <QPainter>
#include <QRubberBand>
#include <QScrollBar>
#include <QWheelEvent>
#include <cmath>

namespace waxis::place {

using drawing::View;

namespace {
constexpr double kSmallestScale = 0.2, kLargestScale = 40;
} // namespace

PlaceView::PlaceView(drawing::BuildScene &scene, app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QGraphicsView(parent), scene_(scene), document_(document), theme_(theme) {
    scene_.showIn(*this);
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
    ladder_ = new HeightLadder(theme_, viewport());
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
    if (mode_ == Mode::dragging && ladder_->isVisible()) {
        stepRung(event->angleDelta().y() > 0 ? 1 : -1);
        event->accept();
        return;
    }
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
    pressAt_ = event->pos();
    pressedMember_.clear();
    if (overSectionLine(event->pos())) {
        mode_ = Mode::sectioning;
        return;
    }
    const QStringList under = scene_.partsAt(mapToScene(event->pos()));
    if (event->modifiers() & Qt::ShiftModifier) { // several: one more, or all within a frame drawn with the mouse
        if (!under.isEmpty()) {
            document_.toggleSelected(under.first());
            mode_ = Mode::idle;
        } else {
            mode_ = Mode::banding;
            if (!band_) band_ = new QRubberBand(QRubberBand::Rectangle, viewport());
            band_->setGeometry(QRect(pressAt_, QSize()));
            band_->show();
        }
        return;
    }
    // A part that is already chosen keeps the pointer, even when others lie over it.
    const auto chosen =
        std::find_if(under.begin(), under.end(), [&](const QString &id) { return document_.selection().contains(id); });
    wasSelected_ = chosen != under.end();
    pressedPart_ = wasSelected_ ? *chosen : under.isEmpty() ? QString() : under.first();
    if (pressedPart_.isEmpty()) {
        const auto members = scene_.frameAt(mapToScene(event->pos()));
        if (!members.isEmpty())
            pressedMember_ = members.contains(document_.selected()) ? document_.selected() : members.first();
        mode_ = Mode::panning;
        lastPan_ = event->pos();
        if (!pressedMember_.isEmpty() && pressedMember_ == document_.selected()) mode_ = Mode::pressed;
        return;
    }
    if (!wasSelected_) document_.select(pressedPart_);
    mode_ = Mode::pressed;
}

void PlaceView::mouseMoveEvent(QMouseEvent *event) {
    switch (mode_) {
    case Mode::idle: {
        if (measuring_) measureTo(event->pos());
        const auto under = scene_.partsAt(mapToScene(event->pos()));
        setCursor(overSectionLine(event->pos()) ? (sectionAcross_ ? Qt::SplitHCursor : Qt::SplitVCursor)
                  : under.isEmpty()             ? Qt::ArrowCursor
                                                : Qt::OpenHandCursor);
        return;
    }
    case Mode::pressed:
        if ((event->pos() - pressAt_).manhattanLength() < 3) return;
        if (pressedPart_.isEmpty())
            beginPlateDrag();
        else
            beginDrag();
        if (mode_ == Mode::plateDragging) dragPlateTo(event->pos(), !(event->modifiers() & Qt::ControlModifier));
        if (mode_ != Mode::dragging) return;
        [[fallthrough]];
    case Mode::dragging: dragTo(event->pos(), !(event->modifiers() & Qt::ControlModifier)); return;
    case Mode::plateDragging: dragPlateTo(event->pos(), !(event->modifiers() & Qt::ControlModifier)); return;
    case Mode::banding: band_->setGeometry(QRect(pressAt_, event->pos()).normalized()); return;
    case Mode::sectioning: {
        const QPointF at = mapToScene(event->pos());
        const double value = sectionAcross_ ? at.x() : -at.y();
        constexpr double kCentre_mm = 1.0; // the middle attracts
        emit sectionMoved(std::abs(value) < kCentre_mm ? 0 : value);
        return;
    }
    case Mode::panning: {
        const QPointF moved = QPointF(event->pos() - lastPan_) / pixelsPerMm();
        lastPan_ = event->pos();
        emit zoomed(pixelsPerMm(), centre() - moved);
        return;
    }
    }
}

void PlaceView::mouseReleaseEvent(QMouseEvent *event) {
    const Mode was = mode_;
    setCursor(Qt::ArrowCursor);
    if (was == Mode::dragging || was == Mode::plateDragging) {
        endDrag(true);
        return;
    }
    mode_ = Mode::idle;
    if (was == Mode::banding) endBand();
    const bool still = (event->pos() - pressAt_).manhattanLength() < 3;
    if (was == Mode::panning && still) document_.select(pressedMember_); // nothing, or what of the frame lies there
    if (was != Mode::pressed || !wasSelected_ || !still) return;
    if (document_.selection().size() > 1) { // a click without moving takes this one out of the many
        document_.select(pressedPart_);
        return;
    }
    // A second click on the same place chooses what lies beneath.
    const QStringList under = scene_.partsAt(mapToScene(pressAt_));
    const auto at = under.indexOf(document_.selected());
    if (at >= 0 && under.size() > 1) document_.select(under[(at + 1) % under.size()]);
}

void PlaceView::endBand() {
    const QRectF frame = mapToScene(band_->geometry()).boundingRect();
    band_->hide();
    QStringList inside;
    for (const auto &part : document_.build().parts) {
        const auto *item = scene_.item(QString::fromStdString(part.id));
        if (item && item->isVisible() && frame.contains(item->silhouette().boundingRect()))
            inside << QString::fromStdString(part.id);
    }
    document_.selectAll(inside);
}

void PlaceView::beginDrag() {
    const Part *part = findPart(document_.build(), pressedPart_.toStdString());
    if (part && document_.foldedShare() > 0) {
        emit document_.refused(tr("The arms are folded in this load case: choose another to move parts."));
        part = nullptr;
    } else if (part && part->pinned) {
        emit document_.refused(tr("%1 is pinned; Space unpins it.").arg(QString::fromStdString(part->name)));
        part = nullptr;
    }
    if (!part) {
        mode_ = Mode::idle;
        return;
    }
    startBuild_ = document_.build();
    startPose_ = framePose(startBuild_, *part);
    if (auto *item = scene_.item(pressedPart_)) startOutline_ = item->silhouette();
    if (const PartType *type = typeOf(startBuild_, *part); type && document_.selection().size() < 2)
        showSeats(part, *type);
    mode_ = Mode::dragging;
    setCursor(Qt::ClosedHandCursor);
}

void PlaceView::beginPlateDrag() {
    const auto &plates = document_.build().frame->plates;
    const bool isPlate = std::any_of(plates.begin(), plates.end(),
                                     [&](const Plate &plate) { return plate.id == pressedMember_.toStdString(); });
    if (!isPlate || document_.foldedShare() > 0) {
        mode_ = Mode::panning; // arms and posts move in the Frame stage
        lastPan_ = pressAt_;
        return;
    }
    startBuild_ = document_.build();
    startOutline_ = scene_.silhouetteOf(pressedMember_);
    mode_ = Mode::plateDragging;
    setCursor(Qt::ClosedHandCursor);
}

void PlaceView::dragTo(const QPoint &at, bool snapping) {
    const Part *part = findPart(startBuild_, pressedPart_.toStdString());
    if (!part) return;
    const QPointF moved = mapToScene(at) - mapToScene(pressAt_);
    Pose wanted = startPose_;
    wanted.position_mm += drawing::unproject(scene_.view(), moved);
    const auto together = document_.selectedParts();
    const bool several = together.size() > 1;
    dragAt_ = at;
    dragSnaps_ = snapping;
    const PartType *type = typeOf(startBuild_, *part);
    if (type && !several && !stackPlaceOf(startBuild_, *part)) {
        findFaces(at, *type, wanted);
        if (chosenFace_ && rung_ >= 0) wanted = onFace(*type, wanted, faces_[std::size_t(rung_)]);
        showLadder(at, *type);
    }
    Snap target{wanted, {}, {}, {}, {}};
    if (snapping)
        target = snap(startBuild_, *part, wanted, scene_.view(), kSnapPixels / pixelsPerMm(), document_.library(),
                      several, chosenFace_.has_value());
    if (chosenFace_ && rung_ >= 0 && !target.perch) target.plate = faces_[std::size_t(rung_)].plate;
    document_.preview(
        several ? shiftParts(startBuild_, together, target.X_FramePart.position_mm - startPose_.position_mm)
                : bringAlong(startBuild_, settle(startBuild_, part->id, target, document_.library()), part->id));
    scene_.showDrag({startOutline_, startOutline_.translated(moved), target.guides, target.text});
}

void PlaceView::dragPlateTo(const QPoint &at, bool snapping) {
    Vec3 shift = drawing::unproject(scene_.view(), mapToScene(at) - mapToScene(pressAt_));
    if (snapping) // whole millimetres
        for (int axis = 0; axis < 3; ++axis) shift[axis] = std::round(shift[axis]);
    document_.preview(shiftPlate(startBuild_, pressedMember_.toStdString(), shift));
    scene_.showDrag({startOutline_,
                     startOutline_.translated(drawing::project(scene_.view(), shift)),
                     {},
                     QString::fromStdString(shiftInWords(shift))});
}

void PlaceView::endDrag(bool keep) {
    const bool plate = mode_ == Mode::plateDragging;
    const QStringList chosen = document_.selection();
    mode_ = Mode::idle;
    scene_.clearDrag();
    endLadder();
    const QString name =
        QString::fromStdString(displayName(document_.build(), (plate ? pressedMember_ : pressedPart_).toStdString()));
    if (keep)
        document_.commitPreview(chosen.size() > 1 ? tr("Move %n parts", nullptr, int(chosen.size()))
                                                  : tr("Move %1").arg(name));
    else
        document_.cancelPreview();
    scene_.layOutLabels(pixelsPerMm());
}

void PlaceView::setSectionLine(std::optional<double> at_mm, bool acrossCraft) {
    sectionLine_ = at_mm;
    sectionAcross_ = acrossCraft;
    std::vector<drawing::Picture> pictures;
    if (at_mm) {
        constexpr double kReach_mm = 1500, kBarb_mm = 9;
        const double x = *at_mm;
        QPainterPath line;
        if (acrossCraft) {
            line.moveTo(x, -kReach_mm);
            line.lineTo(x, kReach_mm);
        } else {
            line.moveTo(-kReach_mm, -x);
            line.lineTo(kReach_mm, -x);
        }
        pictures.push_back({line, theme_.colors().chalk, {}, Qt::DashDotLine, 1.4, {}, {}});
        // Which way the cut is looked at: from the right-hand side, or at the nose.
        const QRectF content = scene_.contentRect();
        for (double end : {0.1, 0.9}) {
            const QPointF foot = acrossCraft ? QPointF(x, content.top() + end * content.height())
                                             : QPointF(content.left() + end * content.width(), -x);
            const QPointF way = acrossCraft ? QPointF(-kBarb_mm, 0) : QPointF(0, -kBarb_mm);
            pictures.push_back(
                {drawing::arrowPath(foot, foot + way, 4), theme_.colors().chalk, {}, Qt::SolidLine, 1.4, {}, {}});
        }
        pictures.back().tag =
            acrossCraft ? tr("cut %1 mm fore").arg(x, 0, 'f', 1) : tr("cut %1 mm left").arg(x, 0, 'f', 1);
        pictures.back().tagAt = acrossCraft ? QPointF(x + 14, content.center().y() + content.height() * 0.3)
                                            : QPointF(content.center().x() + content.width() * 0.3, -x + 6);
    }
    scene_.setExtra("section", std::move(pictures));
}

bool PlaceView::overSectionLine(const QPoint &at) const {
    if (!sectionLine_) return false;
    const QPointF p = mapToScene(at);
    constexpr double kNear_px = 4;
    return std::abs((sectionAcross_ ? p.x() : -p.y()) - *sectionLine_) * pixelsPerMm() < kNear_px;
}

QString PlaceView::thingUnder(const QPoint &at) const {
    const auto parts = scene_.partsAt(mapToScene(at));
    if (!parts.isEmpty()) return parts.first();
    const auto members = scene_.frameAt(mapToScene(at));
    return members.isEmpty() ? QString() : members.first();
}

void PlaceView::beginMeasure() {
    const QPoint at = viewport()->mapFromGlobal(QCursor::pos());
    measuring_ = true;
    measureFrom_ = thingUnder(at);
    measurePoint_ = mapToScene(at);
    measureTo(at);
}

void PlaceView::measureTo(const QPoint &at) {
    const QString to = thingUnder(at);
    drawing::Picture picture{{}, theme_.colors().chalk, {}, Qt::SolidLine, 1.6, {}, {}};
    QPointF a = measurePoint_, b = mapToScene(at);
    if (!measureFrom_.isEmpty() && !to.isEmpty() && to != measureFrom_) { // from thing to thing, in space
        const auto gap = gapBetween(document_.analysis().derived.scene, measureFrom_.toStdString(), to.toStdString());
        if (!gap) return;
        a = drawing::project(scene_.view(), gap->onA_mm);
        b = drawing::project(scene_.view(), gap->onB_mm);
        auto name = [&](const QString &id) {
            return QString::fromStdString(displayName(document_.build(), id.toStdString()));
        };
        picture.tag = gap->distance_mm > 0.005
                          ? tr("%1 mm  %2 – %3").arg(gap->distance_mm, 0, 'f', 2).arg(name(measureFrom_), name(to))
                          : tr("%1 and %2 touch").arg(name(measureFrom_), name(to));
    } else {
        const QPointF d = b - a;
        picture.tag = tr("%1 mm on the drawing (%2, %3)")
                          .arg(std::hypot(d.x(), d.y()), 0, 'f', 1)
                          .arg(d.x(), 0, 'f', 1)
                          .arg(-d.y(), 0, 'f', 1);
    }
    picture.path.moveTo(a);
    picture.path.lineTo(b);
    constexpr double kEnd_px = 3;
    for (const auto &end : {a, b}) picture.path.addEllipse(end, kEnd_px / pixelsPerMm(), kEnd_px / pixelsPerMm());
    picture.tagAt = (a + b) / 2 + QPointF(0, 16 / pixelsPerMm());
    scene_.setExtra("measure", {picture});
}

void PlaceView::endMeasure() {
    measuring_ = false;
    scene_.setExtra("measure", {});
}

void PlaceView::leaveEvent(QEvent *event) {
    if (measuring_) endMeasure();
    QGraphicsView::leaveEvent(event);
}

void PlaceView::contextMenuEvent(QContextMenuEvent *event) {
    if (mode_ != Mode::idle) return;
    if (event->reason() == QContextMenuEvent::Mouse) {
        const QStringList under = scene_.partsAt(mapToScene(event->pos()));
        const bool chosen = std::any_of(under.begin(), under.end(),
                                        [&](const QString &id) { return document_.selection().contains(id); });
        if (!chosen) {
            const QString thing = thingUnder(event->pos());
            document_.select(thing);
        }
    }
    emit contextWanted(event->globalPos());
    event->accept();
}

} // namespace waxis::place
