#include "app/shell/mounting_rows.h"

#include "app/widgets/form_rows.h"
#include "app/widgets/typed_number.h"
#include "core/attitude/mounting_angles.h"
#include "core/edits/part_edits.h"
#include "core/rules/wording.h"
#include "core/sight/camera_pose.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>

namespace waxis::app {

namespace {

QString three(const RollPitchYaw &a) {
    auto number = [](double value) { return QString::fromStdString(oneDecimal(value)); };
    constexpr int kWide = 6;
    return MountingRows::tr("%1°%2°%3°")
        .arg(number(a.roll_deg), kWide)
        .arg(number(a.pitch_deg), kWide)
        .arg(number(a.yaw_deg), kWide);
}

} // namespace

MountingRows::MountingRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), form_(form) {
    tilt_ = new QLineEdit;
    tilt_->setObjectName("camera-tilt");
    tilt_->setFont(theme.numbers(12));
    tilt_->setAccessibleName(tr("Tilt upwards in degrees"));
    form.addRow(tr("tilt up"), tilt_);
    connect(tilt_, &QLineEdit::editingFinished, this, &MountingRows::applyTilt);
    enter_ = new QLabel;
    enter_->setObjectName("angles-to-enter");
    enter_->setFont(theme.numbers(11));
    enter_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    form.addRow(tr("to enter"), enter_);
}

void MountingRows::refresh() {
    const Part *part = document_.selectedPart();
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    if (!type) return;
    const Pose pose = framePose(document_.build(), *part);
    showRow(form_, tilt_, type->camera.has_value());
    if (type->camera) {
        putText(tilt_, QStringLiteral("%1°").arg(QString::fromStdString(oneDecimal(tiltOf(*type, pose)))));
        tilt_->setToolTip(tr("allowed: %1° to %2°").arg(type->camera->tiltMin_deg).arg(type->camera->tiltMax_deg));
    }
    const bool tells = type->arrow && (type->kind == PartKind::flightController || type->kind == PartKind::gps);
    showRow(form_, enter_, tells);
    if (!tells) return;
    const MountingAngles angles = mountingAngles(
        *type->arrow, type->kind == PartKind::gps ? compassRotation(*type, pose.rotation) : pose.rotation);
    const bool onlyUp = type->kind == PartKind::gps && document_.analysis().practice.follows("compass", "unused");
    if (onlyUp) {
        enter_->setText(tr("nothing: the compass is not used;\nthe top leans %1° from up")
                            .arg(QString::fromStdString(oneDecimal(angles.topTilt_deg))));
        enter_->setToolTip({});
        return;
    }
    QString text = tr("%1  z down\n%2  z up").arg(three(angles.down), three(angles.up));
    text += '\n' + QString::fromStdString(angles.inWords);
    if (angles.offNearest_deg > 0.05)
        text += tr(", %1° off").arg(QString::fromStdString(oneDecimal(angles.offNearest_deg)));
    enter_->setText(text);
    enter_->setToolTip(tr("z down: x forward, y right, as most controllers count; z up: x forward, y left.\n"
                          "Roll, pitch, yaw; turned about z first, then y, then x.\n"
                          "The same over the pole, z down: %1")
                           .arg(three(otherTriple(angles.down))));
}

void MountingRows::applyTilt() {
    const Part *part = document_.selectedPart();
    if (!part || !tilt_->isModified()) return;
    tilt_->setModified(false);
    const auto value = typedNumber(tilt_->text(), Measure::angle);
    if (!value)
        emit document_.refused(notUnderstood(tilt_->text(), Measure::angle));
    else
        document_.edit(tr("Tilt %1 to %2°").arg(QString::fromStdString(part->name)).arg(*value, 0, 'f', 1),
                       tiltCamera(document_.build(), part->id, *value));
    refresh();
}

} // namespace waxis::app
