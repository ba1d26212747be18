// What is dragged in from the library: where it would sit, and putting it there.
#include "app/stages/place/place_view.h"

#include "app/drawing/mat.h"
#include "app/drawing/walk.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/seat_marks.h"
#include "core/build/frame_shapes.h"
#include "core/edits/part_edits.h"
#include "core/edits/perch_edits.h"
#include "core/rules/wording.h"

#include <QDragEnterEvent>
#include <QKeyEvent>
#include <QMimeData>
#include <cmath>

namespace waxis::place {

using drawing::View;

EditResult PlaceView::withNewPart(const QPoint &at, bool snapping, Snap *where) const {
    const PartType *type = typeNamed(newType_);
    if (!type) return Failure{EditError{tr("The library has no such part.").toStdString()}};
    const Vec3 p = drawing::unproject(scene_.view(), mapToScene(at));
    Pose wanted{p, Quat::Identity()};
    if (rung_ >= 0) wanted = onFace(*type, wanted, faces_[std::size_t(rung_)]);
    auto added = addPart(startBuild_, *type, newType_, wanted);
    if (!added || !snapping) return added;
    const Part &part = added->parts.back();
    Snap target = snap(*added, part, wanted, scene_.view(), kSnapPixels / pixelsPerMm(), document_.library(), false,
                       chosenFace_.has_value());
    if (target.perch) { // named after the arm that it is on
        if (where) *where = target;
        return addPerched(startBuild_, *type, {*target.perch}, document_.library());
    }
    if (rung_ >= 0) {
        const Face &face = faces_[std::size_t(rung_)];
        target.plate = face.plate;
        if (target.text.isEmpty())
            target.text = (face.under ? tr("under %1") : tr("on %1"))
                              .arg(QString::fromStdString(nameWithin(startBuild_, face.plate)));
    }
    if (where) *where = target;
    return settle(*added, part.id, target, document_.library());
}

void PlaceView::dragEnterEvent(QDragEnterEvent *event) {
    if (!event->mimeData()->hasFormat(kTypeMime)) return event->ignore(); // files are the window's
    newType_ = event->mimeData()->data(kTypeMime).toStdString();
    startBuild_ = document_.build();
    if (const PartType *type = typeNamed(newType_)) showSeats(nullptr, *type);
    qApp->installEventFilter(this); // after the drag's own: the wheel and the keys come here first
    event->acceptProposedAction();
}

void PlaceView::dragMoveEvent(QDragMoveEvent *event) {
    if (newType_.empty()) return event->ignore();
    Snap where;
    const QPoint at = event->position().toPoint();
    dragAt_ = at;
    dragSnaps_ = !(event->modifiers() & Qt::ControlModifier);
    if (const PartType *type = typeNamed(newType_)) {
        findFaces(at, *type, {drawing::unproject(scene_.view(), mapToScene(at)), Quat::Identity()});
        showLadder(at, *type);
    }
    document_.preview(withNewPart(at, !(event->modifiers() & Qt::ControlModifier), &where));
    QPainterPath pointer;
    constexpr double kPointer_px = 14;
    pointer.addEllipse(mapToScene(at), kPointer_px / pixelsPerMm(), kPointer_px / pixelsPerMm());
    scene_.showDrag({{}, where.text.isEmpty() ? QPainterPath() : pointer, where.guides, where.text});
    event->acceptProposedAction();
}

void PlaceView::dragLeaveEvent(QDragLeaveEvent *) {
    newType_.clear();
    qApp->removeEventFilter(this);
    scene_.clearDrag();
    endLadder();
    document_.cancelPreview();
}

void PlaceView::dropEvent(QDropEvent *event) {
    if (newType_.empty()) return event->ignore();
    Snap where;
    const QPoint spot = event->position().toPoint();
    if (const PartType *type = typeNamed(newType_))
        findFaces(spot, *type, {drawing::unproject(scene_.view(), mapToScene(spot)), Quat::Identity()});
    const auto added = withNewPart(spot, !(event->modifiers() & Qt::ControlModifier), &where);
    newType_.clear();
    qApp->removeEventFilter(this);
    scene_.clearDrag();
    endLadder();
    const auto at = startBuild_.parts.size(); // behind it may stand its adapter plate
    const QString id = added ? QString::fromStdString(added->parts[at].id) : QString();
    if (document_.edit(added ? tr("Add %1").arg(QString::fromStdString(added->parts[at].name)) : QString(), added))
        document_.select(id);
    scene_.layOutLabels(pixelsPerMm());
    setFocus();
    event->acceptProposedAction();
    if (where.perch && alikeTo(*where.perch, {*where.perch, *where.perch}).size() > 1) emit partSeated(id);
}

const PartType *PlaceView::typeNamed(const std::string &id) const {
    const auto own = startBuild_.types->find(id);
    if (own != startBuild_.types->end()) return &own->second;
    const auto shipped = document_.library().find(id);
    return shipped != document_.library().end() ? &shipped->second : nullptr;
}

void PlaceView::findFaces(const QPoint &at, const PartType &type, const Pose &wanted) {
    faces_.clear();
    rung_ = -1;
    if (scene_.view() != View::plan) return;
    const Vec3 p = drawing::unproject(scene_.view(), mapToScene(at));
    faces_ = facesAt(*startBuild_.frame, p.head<2>());
    if (faces_.empty()) return;
    if (chosenFace_) { // the same face, or the nearest to it where that plate ends
        double least = 1e300;
        for (std::size_t i = 0; i < faces_.size(); ++i) {
            const double off = std::abs(faces_[i].z_mm - chosenFace_->z_mm) + (faces_[i].under != chosenFace_->under);
            if (off >= least) continue;
            least = off;
            rung_ = int(i);
        }
        return;
    }
    // A new part stands on the highest face; one that is moved is shown where it is.
    rung_ = newType_.empty() ? rungOf(faces_, type, wanted) : int(faces_.size()) - 1;
}

void PlaceView::showLadder(const QPoint &at, const PartType &type) {
    QStringList words;
    for (auto face = faces_.rbegin(); face != faces_.rend(); ++face) {
        const QString plate = QString::fromStdString(nameWithin(startBuild_, face->plate));
        QString text = (face->under ? tr("under %1") : tr("on %1")).arg(plate);
        if (face->room_mm) text += tr("  %1 mm free").arg(*face->room_mm, 0, 'f', 1);
        words << text;
    }
    ladder_->show(tr("%1: at what height?").arg(QString::fromStdString(type.name)), words,
                  rung_ < 0 ? -1 : int(faces_.size()) - 1 - rung_, at);
}

void PlaceView::endLadder() {
    ladder_->hide();
    faces_.clear();
    rung_ = -1;
    chosenFace_.reset();
    scene_.setExtra("seats", {});
}

void PlaceView::stepRung(int up) {
    if (faces_.empty()) return;
    rung_ = std::clamp(rung_ + up, 0, int(faces_.size()) - 1);
    chosenFace_ = faces_[std::size_t(rung_)];
    if (mode_ == Mode::dragging) {
        dragTo(dragAt_, dragSnaps_);
    } else if (const PartType *type = newType_.empty() ? nullptr : typeNamed(newType_)) {
        showLadder(dragAt_, *type);
        Snap where;
        document_.preview(withNewPart(dragAt_, dragSnaps_, &where));
        scene_.showDrag({{}, {}, where.guides, where.text});
    }
}

void PlaceView::showSeats(const Part *part, const PartType &type) {
    std::vector<Perch> places =
        part ? perchesFor(startBuild_, *part, document_.library()) : perchesFor(startBuild_, type, document_.library());
    std::erase_if(places, [](const Perch &p) { return p.kind == PerchKind::plate || p.kind == PerchKind::plateUnder; });
    scene_.setExtra("seats", seatPictures(scene_.view(), startBuild_, type, places, {}, theme_));
}

bool PlaceView::eventFilter(QObject *watched, QEvent *event) {
    if (newType_.empty()) return QGraphicsView::eventFilter(watched, event);
    if (event->type() == QEvent::Wheel) {
        stepRung(static_cast<QWheelEvent *>(event)->angleDelta().y() > 0 ? 1 : -1);
        return true;
    }
    if (event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent *>(event)->key();
        if (key != Qt::Key_PageUp && key != Qt::Key_PageDown) return false;
        stepRung(key == Qt::Key_PageUp ? 1 : -1);
        return true;
    }
    return QGraphicsView::eventFilter(watched, event);
}

} // namespace waxis::place
