#include "app/shell/inspector_panel.h"

#include "app/shell/balance_rows.h"
#include "app/shell/channel_rows.h"
#include "app/shell/fastening_rows.h"
#include "app/shell/mounting_rows.h"
#include "app/shell/pair_card.h"
#include "app/shell/quick_look_rows.h"
#include "app/shell/radio_rows.h"
#include "app/shell/selection_card.h"
#include "app/shell/stack_rows.h"
#include "app/shell/wire_card.h"
#include "app/theme/look.h"
#include "app/theme/metrics.h"
#include "app/widgets/texts.h"
#include "app/widgets/type_choice.h"
#include "app/widgets/typed_number.h"
#include "core/balance/mass_rows.h"
#include "core/build/chain.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/case_edits.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>
#include <cmath>
#include <optional>

namespace waxis::app {

InspectorPanel::InspectorPanel(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("inspector");
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 12, 16, 8);
    layout->setSpacing(4);
    empty_ = new QLabel(tr("Choose a part on the mat, or press Ctrl+K and type its name."));
    empty_->setWordWrap(true);
    layout->addWidget(empty_);
    body_ = new QWidget;
    layout->addWidget(body_);
    several_ = new SelectionCard(document_, theme_);
    member_ = new MemberCard(document_, theme_);
    layout->addWidget(several_);
    layout->addWidget(member_);
    wire_ = new WireCard(document_, theme_);
    layout->addWidget(wire_);
    pair_ = new PairCard(document_, theme_);
    layout->addWidget(pair_);
    auto *inner = new QVBoxLayout(body_);
    inner->setContentsMargins(0, 0, 0, 0);
    inner->setSpacing(4);
    name_ = new QLineEdit;
    name_->setFont(theme_.text(theme::kHeadPixels, true));
    name_->setObjectName("part-name");
    name_->setAccessibleName(tr("Name of the part"));
    name_->setFrame(false);
    inner->addWidget(name_);
    where_ = new QLabel;
    where_->setWordWrap(true);
    inner->addWidget(where_);
    form_ = new QFormLayout;
    form_->setContentsMargins(0, 4, 0, 0);
    form_->setVerticalSpacing(3);
    form_->setHorizontalSpacing(12);
    inner->addLayout(form_);
    type_ = new TypeChoice;
    type_->setObjectName("part-type");
    type_->setAccessibleName(tr("Type of the part"));
    type_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    form_->addRow(tr("type"), type_);
    const std::array<QString, 3> places{tr("fore–aft"), tr("left–right"), tr("height")};
    const std::array<QString, 3> names{"position-x", "position-y", "position-z"};
    for (std::size_t i = 0; i < 3; ++i) {
        position_[i] = addNumber(places[i], names[i], tr("mm"));
        connect(position_[i], &QLineEdit::editingFinished, this, &InspectorPanel::applyPosition);
    }
    turn_ = new QLabel;
    turn_->setObjectName("turn-words");
    form_->addRow(tr("attitude"), turn_);
    auto *row = new QHBoxLayout;
    row->setSpacing(4);
    const std::array<QString, 3> turns{tr("roll"), tr("pitch"), tr("yaw")};
    for (std::size_t i = 0; i < 3; ++i) {
        angles_[i] = new QLineEdit;
        angles_[i]->setFont(theme_.numbers(12));
        angles_[i]->setObjectName(turns[i]);
        angles_[i]->setAccessibleName(tr("%1 in degrees").arg(turns[i]));
        angles_[i]->setToolTip(i == 0   ? tr("roll, right side down")
                               : i == 1 ? tr("pitch, nose down")
                                        : tr("yaw, turned left"));
        row->addWidget(angles_[i]);
        connect(angles_[i], &QLineEdit::editingFinished, this, &InspectorPanel::applyTurn);
    }
    form_->addRow(tr("roll, pitch, yaw °"), row);
    mass_ = addNumber(tr("weight"), "mass", tr("g"));
    mass_->setToolTip(tr("Weighed grams, with the doubt behind it if you like: 9.8 ± 0.2. Empty: the type's weight."));
    connect(mass_, &QLineEdit::editingFinished, this, &InspectorPanel::applyMass);
    massSource_ = new QLabel;
    form_->addRow({}, massSource_);
    note_ = new QLineEdit;
    note_->setObjectName("part-note");
    note_->setAccessibleName(tr("Note on the part"));
    note_->setPlaceholderText(tr("what to remember of it"));
    form_->addRow(tr("note"), note_);
    balance_ = new BalanceRows(document_, theme_, *form_, this);
    fastening_ = new FasteningRows(document_, *form_, this);
    stacked_ = new StackRows(document_, theme_, *form_, this);
    mounting_ = new MountingRows(document_, theme_, *form_, this);
    radio_ = new RadioRows(document_, theme_, *form_, this);
    channels_ = new ChannelRows(document_, *form_, this);
    looks_ = new QuickLookRows(document_, *form_, this);
    near_ = new QLabel;
    near_->setTextFormat(Qt::PlainText);
    near_->setFont(theme_.numbers(11));
    near_->setObjectName("neighbours");
    form_->addRow(tr("nearest"), near_);

    connect(name_, &QLineEdit::editingFinished, this, [this] {
        if (const Part *part = document_.selectedPart(); part && name_->isModified())
            document_.edit(tr("Rename %1").arg(QString::fromStdString(part->name)),
                           renamePart(document_.build(), part->id, name_->text().trimmed().toStdString()));
        name_->setModified(false);
    });
    connect(note_, &QLineEdit::editingFinished, this, [this] {
        if (const Part *part = document_.selectedPart(); part && note_->isModified())
            document_.edit(tr("Note on %1").arg(QString::fromStdString(part->name)),
                           notePart(document_.build(), part->id, note_->text().trimmed().toStdString()));
        note_->setModified(false);
    });
    connect(type_, &QComboBox::activated, this, [this](int index) {
        const Part *part = document_.selectedPart();
        if (!part) return;
        const auto id = type_->itemData(index).toString().toStdString();
        Build next = document_.build();
        if (!next.types->contains(id)) {
            const auto at = document_.library().find(id);
            if (at == document_.library().end()) return;
            next.types.edit([&](TypeTable &table) { table.emplace(at->first, at->second); });
        }
        document_.edit(tr("Change type of %1").arg(QString::fromStdString(part->name)),
                       replaceType(next, part->id, id));
    });
    connect(&document_, &Document::changed, this, &InspectorPanel::refresh);
    connect(&document_, &Document::selectionChanged, this, [this] {
        for (auto *field : findChildren<QLineEdit *>()) field->setModified(false);
        refresh();
    });
    setProperty(theme::kQuiet, true);
    for (QLabel *values : {turn_, near_}) values->setForegroundRole(QPalette::BrightText);
    theme_.dress(*this, theme::Ground::form);
    refresh();
}

QLineEdit *InspectorPanel::addNumber(const QString &label, const QString &name, const QString &unit) {
    auto *field = new QLineEdit;
    field->setObjectName(name);
    field->setFont(theme_.numbers(12));
    field->setAccessibleName(tr("%1 in %2").arg(label, unit));
    form_->addRow(label, field);
    return field;
}

void InspectorPanel::setStage(Stage stage) { balance_->setShown(stage == Stage::balance); }

void InspectorPanel::refresh() {
    const bool pair = pair_->refresh();
    pair_->setVisible(pair);
    if (pair) {
        for (QWidget *other : {static_cast<QWidget *>(wire_), static_cast<QWidget *>(several_),
                               static_cast<QWidget *>(member_), body_, static_cast<QWidget *>(empty_)})
            other->setVisible(false);
        return;
    }
    const Part *part = document_.selectedPart();
    const bool several = document_.selectedParts().size() > 1;
    const bool member = !part && member_->refresh();
    const bool wire = !part && !member && wire_->refresh();
    wire_->setVisible(wire);
    several_->setVisible(several);
    member_->setVisible(member);
    body_->setVisible(part && !several);
    empty_->setVisible(!part && !member && !wire);
    if (several) several_->refresh();
    if (!part || several) return;
    const Build &build = document_.build();
    const PartType *type = typeOf(build, *part);
    const Pose pose = framePose(build, *part);
    putText(name_, QString::fromStdString(part->name));
    putText(note_, QString::fromStdString(part->note));
    note_->setToolTip(QString::fromStdString(part->note));
    QStringList where;
    if (type && !type->maker.empty()) where << QString::fromStdString(type->maker);
    const std::string &holder = !part->placement.site.empty()   ? part->placement.site
                                : !part->fastening.onto.empty() ? part->fastening.onto.front()
                                                                : part->placement.site;
    where << (holder.empty() ? tr("free on the mat")
                             : tr("on %1").arg(QString::fromStdString(displayName(build, holder))));
    if (part->pinned) where << tr("pinned");
    if (!document_.isAboardNow(*part))
        where << tr("not aboard in this load case");
    else if (!document_.isSwitchedOnNow(*part) && canBeOff(document_.build(), part->id))
        where << tr("switched off in this load case");
    where_->setText(where.join(QStringLiteral(" · ")));

    // The list of types is made anew only when another kind of part is chosen.
    if (type && type_->property("part").toString() != document_.selected() + "/" + QString::fromStdString(part->type)) {
        type_->setProperty("part", document_.selected() + "/" + QString::fromStdString(part->type));
        type_->offer(document_, *part);
    }
    for (int i = 0; i < 3; ++i)
        putText(position_[std::size_t(i)], tr("%1 mm").arg(QString::fromStdString(oneDecimal(pose.position_mm[i]))));
    const auto angles = rollPitchYawFrom(pose.rotation);
    const double values[] = {angles.roll_deg, angles.pitch_deg, angles.yaw_deg};
    for (std::size_t i = 0; i < 3; ++i) putText(angles_[i], QString::fromStdString(oneDecimal(values[i])));
    turn_->setText(QString::fromStdString(turnInWords(pose.rotation)));

    balance_->refresh();
    fastening_->refresh();
    stacked_->refresh();
    mounting_->refresh();
    radio_->refresh();
    channels_->refresh();
    looks_->refresh();
    const auto index = std::size_t(part - build.parts.data());
    const MassRow &row = document_.analysis().derived.massRows[index];
    const int digits = row.tolerance_g > 0 && row.tolerance_g < 0.05 ? 2 : 1; // a damper's hundredths are all it has
    putText(mass_, row.known
                       ? tr("%1 ± %2 g").arg(row.element.mass_g, 0, 'f', digits).arg(row.tolerance_g, 0, 'f', digits)
                       : QString());
    mass_->setPlaceholderText(tr("unknown: weigh it"));
    switch (row.source) {
    case Source::catalogue: massSource_->setText(row.known ? tr("from the catalogue") : tr("not known")); break;
    case Source::measured: massSource_->setText(tr("weighed")); break;
    case Source::estimated: massSource_->setText(tr("estimated")); break;
    }
    const auto &derived = document_.analysis().derived;
    constexpr double kReach_mm = 150;
    const auto near = nearestThings(derived.scene, int(index), document_.loadCase(), kReach_mm, 3);
    QStringList lines;
    for (const auto &gap : near) {
        const auto &other = derived.scene.owners[derived.scene.traits[gap.b].owner];
        lines << tr("%1 mm  %2")
                     .arg(QString::fromStdString(oneDecimal(gap.distance_mm)), 5)
                     .arg(QString::fromStdString(displayName(build, other.id)));
    }
    near_->setText(lines.isEmpty() ? tr("nothing near") : lines.join('\n'));
}

void InspectorPanel::applyPosition() {
    const Part *part = document_.selectedPart();
    if (!part) return;
    Pose pose = framePose(document_.build(), *part);
    bool typed = false;
    for (int i = 0; i < 3; ++i) {
        auto *field = position_[std::size_t(i)];
        if (!field->isModified()) continue;
        const auto value = typedNumber(field->text(), Measure::length);
        field->setModified(false);
        if (!value) {
            emit document_.refused(notUnderstood(field->text(), Measure::length));
            continue;
        }
        pose.position_mm[i] = *value;
        typed = true;
    }
    if (typed) {
        const Vec3 shift = pose.position_mm - framePose(document_.build(), *part).position_mm;
        const Vec3 along = placementAxes(document_.build(), *part).rotation * Vec3::UnitZ();
        if (std::abs(along.dot(shift)) > 1e-9 && stackPlaceOf(document_.build(), *part))
            emit document_.refused(tr("%1 lies in a stack: its height is that of the layers under it. Change them in "
                                      "Stack (F4).")
                                       .arg(QString::fromStdString(part->name)));
        document_.edit(tr("Move %1").arg(QString::fromStdString(part->name)),
                       bringAlong(document_.build(), shiftPart(document_.build(), part->id, shift), part->id));
    }
    refresh();
}

void InspectorPanel::applyTurn() {
    const Part *part = document_.selectedPart();
    if (!part) return;
    const Pose pose = framePose(document_.build(), *part);
    const auto now = rollPitchYawFrom(pose.rotation);
    double values[] = {now.roll_deg, now.pitch_deg, now.yaw_deg};
    bool typed = false;
    for (std::size_t i = 0; i < 3; ++i) {
        if (!angles_[i]->isModified()) continue;
        const auto value = typedNumber(angles_[i]->text(), Measure::angle);
        angles_[i]->setModified(false);
        if (!value) {
            emit document_.refused(notUnderstood(angles_[i]->text(), Measure::angle));
            continue;
        }
        values[i] = *value;
        typed = true;
    }
    if (typed) {
        Pose turned = pose;
        turned.rotation = quaternionFrom({values[0], values[1], values[2]});
        document_.edit(tr("Turn %1").arg(QString::fromStdString(part->name)),
                       bringAlong(document_.build(), placePart(document_.build(), part->id, turned), part->id));
    }
    refresh();
}

void InspectorPanel::applyMass() {
    const Part *part = document_.selectedPart();
    if (!part || !mass_->isModified()) return;
    mass_->setModified(false);
    const QString text = mass_->text().trimmed();
    Measured weighed;
    if (!text.isEmpty()) {
        const auto typed = typedWithDoubt(text);
        if (!typed) {
            emit document_.refused(tr("\"%1\" is no weight: grams are wanted, as 9.8 or 9.8 ± 0.2.").arg(text));
            refresh();
            return;
        }
        weighed = measuredValue(typed->value, typed->doubt);
    }
    document_.edit(tr("Weigh %1").arg(QString::fromStdString(part->name)),
                   weighPart(document_.build(), part->id, weighed));
    refresh();
}

} // namespace waxis::app
