// What the keyboard does to what is chosen.
#include "app/stages/place/place_view.h"

#include "app/drawing/mat.h"
#include "app/drawing/walk.h"
#include "app/stages/place/library_drawer.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/edits/group_edits.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"

#include <QKeyEvent>
#include <cmath>

namespace waxis::place {

void PlaceView::keyReleaseEvent(QKeyEvent *event) {
    if (event->key() == Qt::Key_M && !event->isAutoRepeat() && measuring_)
        endMeasure();
    else
        QGraphicsView::keyReleaseEvent(event);
}

void PlaceView::nudge(const Vec3 &shift_mm) {
    const Part *part = document_.selectedPart();
    if (const auto together = document_.selectedParts(); together.size() > 1) {
        document_.edit(tr("Nudge %n parts", nullptr, int(together.size())),
                       shiftParts(document_.build(), together, shift_mm), "nudge/" + document_.selection().join('/'));
        return;
    }
    if (part->pinned) {
        emit document_.refused(tr("%1 is pinned; Space unpins it.").arg(QString::fromStdString(part->name)));
        return;
    }
    const double along = std::abs((placementAxes(document_.build(), *part).rotation * Vec3::UnitZ()).dot(shift_mm));
    if (along > 1e-9 && stackPlaceOf(document_.build(), *part)) {
        emit document_.refused(
            tr("%1 lies in a stack: its height is that of the layers under it. Drag it in Stack (F4).")
                .arg(QString::fromStdString(part->name)));
        return;
    }
    document_.edit(tr("Nudge %1").arg(QString::fromStdString(part->name)),
                   bringAlong(document_.build(), shiftPart(document_.build(), part->id, shift_mm), part->id),
                   "nudge/" + document_.selected());
}

void PlaceView::turn(const Vec3 &axis, double angle_deg, const QString &name) {
    const Part *part = document_.selectedPart();
    document_.edit(name.arg(QString::fromStdString(part->name)),
                   bringAlong(document_.build(), turnPart(document_.build(), part->id, axis, angle_deg), part->id));
}

bool PlaceView::handleKey(QKeyEvent *event) {
    if (event->key() == Qt::Key_0) {
        emit fitWanted();
        return true;
    }
    if (event->key() == Qt::Key_Z && !(event->modifiers() & ~Qt::KeypadModifier)) {
        emit zoomWanted();
        return true;
    }
    if (event->key() == Qt::Key_Escape) {
        if (mode_ == Mode::dragging || mode_ == Mode::plateDragging)
            endDrag(false);
        else
            document_.select({});
        return true;
    }
    if (event->key() >= Qt::Key_1 && event->key() <= Qt::Key_9 && !(event->modifiers() & ~Qt::KeypadModifier)) {
        emit overlayWanted(event->key() - Qt::Key_0);
        return true;
    }
    if (event->key() == Qt::Key_L && !event->modifiers()) {
        emit largerLowerWanted();
        return true;
    }
    if (event->key() == Qt::Key_M && !event->modifiers()) {
        if (!event->isAutoRepeat()) beginMeasure();
        return true;
    }
    if (event->key() == Qt::Key_G && !event->modifiers()) {
        emit placeWanted(drawing::unproject(scene_.view(), mapToScene(viewport()->mapFromGlobal(QCursor::pos()))));
        return true;
    }
    if ((event->key() == Qt::Key_PageUp || event->key() == Qt::Key_PageDown) && mode_ == Mode::dragging) {
        stepRung(event->key() == Qt::Key_PageUp ? 1 : -1);
        return true;
    }
    const Part *part = document_.selectedPart();
    if (!part || mode_ == Mode::dragging) return false;
    const double step = event->modifiers() & Qt::ShiftModifier     ? 0.1
                        : event->modifiers() & Qt::ControlModifier ? 5.0
                                                                   : 1.0;
    switch (event->key()) {
    case Qt::Key_Right: nudge(drawing::unproject(scene_.view(), {step, 0})); return true;
    case Qt::Key_Left: nudge(drawing::unproject(scene_.view(), {-step, 0})); return true;
    case Qt::Key_Up: nudge(drawing::unproject(scene_.view(), {0, -step})); return true;
    case Qt::Key_Down: nudge(drawing::unproject(scene_.view(), {0, step})); return true;
    default: break;
    }
    if (event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier)) return false;
    switch (event->key()) {
    case Qt::Key_Q: turnChosen(1); return true;
    case Qt::Key_E: turnChosen(-1); return true;
    case Qt::Key_V: overturnChosen(); return true;
    case Qt::Key_Space: pinChosen(); return true;
    case Qt::Key_Delete: removeChosen(); return true;
    default: return false;
    }
}

void PlaceView::turnChosen(double quarterTurns) {
    if (!document_.selectedPart()) return;
    turn(drawing::towardsViewer(scene_.view()), 90 * quarterTurns,
         quarterTurns > 0 ? tr("Turn %1 left") : tr("Turn %1 right"));
}

void PlaceView::overturnChosen() {
    if (const Part *part = document_.selectedPart())
        document_.edit(tr("Turn %1 upside down").arg(QString::fromStdString(part->name)),
                       overturnPart(document_.build(), part->id));
}

void PlaceView::pinChosen() {
    const Part *part = document_.selectedPart();
    if (!part) return;
    const QString name = part->pinned ? tr("Unpin %1") : tr("Pin %1");
    document_.edit(name.arg(QString::fromStdString(part->name)), pinPart(document_.build(), part->id, !part->pinned));
}

void PlaceView::removeChosen() {
    const auto together = document_.selectedParts();
    if (together.empty()) return;
    if (together.size() > 1)
        document_.edit(tr("Remove %n parts", nullptr, int(together.size())), removeParts(document_.build(), together));
    else
        document_.edit(tr("Remove %1").arg(QString::fromStdString(displayName(document_.build(), together.front()))),
                       removePart(document_.build(), together.front()));
}

bool PlaceView::focusNextPrevChild(bool next) {
    if (const auto to = drawing::walkTo(scene_.drawnParts(), document_.selected(), next)) {
        document_.select(*to);
        return true;
    }
    return QGraphicsView::focusNextPrevChild(next);
}

void PlaceView::keyPressEvent(QKeyEvent *event) {
    if (!handleKey(event)) QGraphicsView::keyPressEvent(event);
}

} // namespace waxis::place
