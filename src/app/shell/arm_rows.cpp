#include "app/shell/arm_rows.h"

#include "app/widgets/form_rows.h"
#include "app/widgets/typed_number.h"
#include "core/build/frame_shapes.h"
#include "core/layout/hand_edits.h"
#include "core/rules/wording.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLineEdit>
#include <algorithm>
#include <array>
#include <tuple>

namespace waxis::app {

namespace {

QString shown(double value, const char *unit) { return QStringLiteral("%1 %2").arg(value, 0, 'g', 6).arg(unit); }

enum Folds { kAside, kDown };

const std::array<std::pair<ArmWall, const char *>, 5> kWalls{
    {{ArmWall::both, QT_TRANSLATE_NOOP("ArmRows", "both")},
     {ArmWall::left, QT_TRANSLATE_NOOP("ArmRows", "left")},
     {ArmWall::right, QT_TRANSLATE_NOOP("ArmRows", "right")},
     {ArmWall::top, QT_TRANSLATE_NOOP("ArmRows", "top")},
     {ArmWall::bottom, QT_TRANSLATE_NOOP("ArmRows", "bottom")}}};

/// "30 6 both; 80 4 left grommet": where from the root, how wide, through which wall, the edge.
QString shownHoles(const std::vector<ArmHole> &holes) {
    QStringList all;
    for (const auto &hole : holes) {
        QString text = QStringLiteral("%1 %2").arg(hole.at_mm, 0, 'g', 6).arg(hole.diameter_mm, 0, 'g', 6);
        for (const auto &[wall, word] : kWalls)
            if (wall == hole.wall) text += ' ' + ArmRows::tr(word);
        if (hole.edge == HoleEdge::grommet) text += ' ' + ArmRows::tr("grommet");
        all << text;
    }
    return all.join(QStringLiteral("; "));
}

std::optional<std::vector<ArmHole>> readHoles(const QString &typed) {
    std::vector<ArmHole> holes;
    for (const auto &piece : typed.split(';', Qt::SkipEmptyParts)) {
        ArmHole hole;
        std::vector<double> numbers;
        for (const auto &word : piece.simplified().split(' ', Qt::SkipEmptyParts)) {
            const auto named = std::find_if(kWalls.begin(), kWalls.end(), [&](const auto &wall) {
                return word.compare(ArmRows::tr(wall.second), Qt::CaseInsensitive) == 0;
            });
            if (named != kWalls.end())
                hole.wall = named->first;
            else if (word.compare(ArmRows::tr("grommet"), Qt::CaseInsensitive) == 0)
                hole.edge = HoleEdge::grommet;
            else if (const auto number = typedNumber(word, Measure::length))
                numbers.push_back(*number);
            else
                return std::nullopt;
        }
        if (numbers.size() != 2) return std::nullopt;
        hole.at_mm = numbers[0];
        hole.diameter_mm = numbers[1];
        holes.push_back(hole);
    }
    return holes;
}

} // namespace

ArmRows::ArmRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), theme_(theme), form_(form) {
    section_ = new QComboBox;
    section_->setObjectName("arm-section");
    section_->setAccessibleName(tr("What the arm is across"));
    section_->addItem(tr("solid bar"), int(ArmSection::bar));
    section_->addItem(tr("box with a wall"), int(ArmSection::box));
    section_->addItem(tr("round tube"), int(ArmSection::tube));
    form.addRow(tr("section"), section_);
    connect(section_, &QComboBox::activated, this, [this](int index) {
        const auto section = ArmSection(section_->itemData(index).toInt());
        apply(tr("Arm: %1").arg(section_->itemText(index)), [section](Arm &arm) {
            arm.section = section;
            if (section == ArmSection::bar) arm.holes.clear();
            constexpr double kWall_mm = 1.5; // until somebody says what it is
            if (section != ArmSection::bar && !(arm.wall_mm > 0))
                arm.wall_mm = std::min({kWall_mm, arm.width_mm / 4, arm.thickness_mm / 4});
        });
    });
    wall_ = number(tr("wall"), "arm-wall", tr("Wall of the arm in mm"), Measure::length, false,
                   [](Arm &arm, std::optional<double> value) { arm.wall_mm = *value; });
    holes_ = new QLineEdit;
    holes_->setObjectName("arm-holes");
    holes_->setAccessibleName(tr("Holes in the walls of the arm"));
    holes_->setToolTip(tr("Where from the root and how wide, mm, through which wall (both sides, left, right, top, "
                          "bottom): 30 6 both; 80 4 left grommet"));
    holes_->setFont(theme_.numbers(12));
    holes_->setPlaceholderText(tr("none; 30 6 both; 80 4 left"));
    form.addRow(tr("holes"), holes_);
    connect(holes_, &QLineEdit::editingFinished, this, [this] {
        if (!holes_->isModified()) return;
        holes_->setModified(false);
        const auto holes = readHoles(holes_->text());
        if (!holes) {
            emit document_.refused(tr("\"%1\" is no list of holes: where from the root, how wide, which wall, as 30 6 "
                                      "both; 80 4 left.")
                                       .arg(holes_->text()));
            return refresh();
        }
        apply(tr("Holes in the arm"), [&](Arm &arm) { arm.holes = *holes; });
    });
    width_ = number(tr("width"), "arm-width", tr("Width of the arm in mm"), Measure::length, false,
                    [](Arm &arm, std::optional<double> value) { arm.width_mm = *value; });
    thickness_ = number(tr("thickness"), "arm-thickness", tr("Thickness of the arm in mm"), Measure::length, false,
                        [](Arm &arm, std::optional<double> value) { arm.thickness_mm = *value; });
    material_ = new QComboBox;
    material_->setObjectName("arm-material");
    material_->setAccessibleName(tr("Material of the arm"));
    form.addRow(tr("material"), material_);
    connect(material_, &QComboBox::activated, this, [this](int index) {
        const std::string material = material_->itemText(index).toStdString();
        apply(tr("Arm of %1").arg(material_->itemText(index)), [&](Arm &arm) { arm.material = material; });
    });
    joint_ = number(tr("folds at"), "arm-joint", tr("Folding joint from the root in mm, empty for none"),
                    Measure::length, true, [](Arm &arm, std::optional<double> value) { arm.foldJoint_mm = value; });
    joint_->setPlaceholderText(tr("does not fold"));
    folds_ = new QComboBox;
    folds_->setObjectName("arm-folds");
    folds_->setAccessibleName(tr("Which way the arm folds"));
    folds_->addItem(tr("to the side"), kAside);
    folds_->addItem(tr("downwards"), kDown);
    form.addRow(tr("which way"), folds_);
    connect(folds_, &QComboBox::activated, this, [this](int index) {
        apply(tr("Arm folds %1").arg(folds_->itemText(index)), [index](Arm &arm) { arm.foldsDown = index == kDown; });
    });
    angle_ = number(tr("turned by"), "arm-fold-angle", tr("How far the arm folds, degrees, empty for 90"),
                    Measure::angle, true, [](Arm &arm, std::optional<double> value) { arm.foldAngle_deg = value; });
    angle_->setPlaceholderText(tr("90°"));
    hinge_ = number(tr("joint weighs"), "arm-hinge", tr("Weight of the folding joint in g, empty when not known"),
                    Measure::mass, true, [](Arm &arm, std::optional<double> value) { arm.hinge_g = value; });
    hinge_->setPlaceholderText(tr("not counted"));
    mass_ = new QLineEdit;
    mass_->setObjectName("arm-mass");
    mass_->setAccessibleName(tr("Weight of this arm in g, empty: from its size"));
    mass_->setFont(theme_.numbers(12));
    mass_->setPlaceholderText(tr("from its size"));
    form.addRow(tr("weighed"), mass_);
    connect(mass_, &QLineEdit::editingFinished, this, [this] {
        if (!mass_->isModified() || !arm()) return;
        mass_->setModified(false);
        const QString text = mass_->text().trimmed();
        const auto typed = typedWithDoubt(text);
        if (!text.isEmpty() && !typed) {
            emit document_.refused(notUnderstood(text, Measure::mass));
            return refresh();
        }
        Arm next = *arm();
        next.mass_g = typed ? measuredValue(typed->value, typed->doubt) : Measured{};
        document_.edit(tr("Weight of %1").arg(document_.selected()), setArm(document_.build(), next));
        refresh();
    });
    alike_ = new QCheckBox(tr("all arms of this size"));
    alike_->setObjectName("arms-alike");
    alike_->setChecked(true);
    alike_->setToolTip(tr("What is changed here is changed for all arms that are like this one"));
    form.addRow(QString(), alike_);
}

QLineEdit *ArmRows::number(const QString &label, const char *name, const QString &spoken, Measure measure, bool empty,
                           std::function<void(Arm &, std::optional<double>)> put) {
    auto *field = new QLineEdit;
    field->setObjectName(name);
    field->setAccessibleName(spoken);
    field->setFont(theme_.numbers(12));
    form_.addRow(label, field);
    connect(field, &QLineEdit::editingFinished, this, [this, field, measure, empty, label, put = std::move(put)] {
        if (!field->isModified()) return;
        field->setModified(false);
        const QString text = field->text().trimmed();
        const auto value = typedNumber(text, measure);
        if (!value && !(empty && text.isEmpty())) {
            emit document_.refused(notUnderstood(text, measure));
            return refresh();
        }
        apply(tr("Arm: %1 %2").arg(label, text.isEmpty() ? tr("none") : text), [&](Arm &arm) { put(arm, value); });
    });
    return field;
}

const Arm *ArmRows::arm() const {
    const std::string id = document_.selected().toStdString();
    for (const auto &arm : document_.build().frame->arms)
        if (arm.id == id) return &arm;
    return nullptr;
}

void ArmRows::apply(const QString &what, const std::function<void(Arm &)> &change) {
    const auto sizeOf = [](const Arm &a) { return std::tuple(a.width_mm, a.thickness_mm, a.section, a.wall_mm); };
    if (const Arm *chosen = arm()) {
        EditResult next = document_.build();
        for (const auto &one : document_.build().frame->arms) {
            if (!next || !(one.id == chosen->id || (alike_->isChecked() && sizeOf(one) == sizeOf(*chosen)))) continue;
            Arm changed = one;
            change(changed);
            next = setArm(*next, changed);
        }
        document_.edit(what, next);
    }
    refresh();
}

void ArmRows::refresh() {
    const Arm *chosen = arm();
    for (auto *field : {wall_, holes_, width_, thickness_, joint_, angle_, hinge_, mass_})
        showRow(form_, field, chosen);
    for (auto *field : {section_, material_, folds_}) showRow(form_, field, chosen);
    alike_->setVisible(chosen);
    if (!chosen) return;
    section_->setCurrentIndex(section_->findData(int(chosen->section)));
    showRow(form_, wall_, chosen->section != ArmSection::bar);
    showRow(form_, holes_, chosen->section != ArmSection::bar);
    putText(holes_, shownHoles(chosen->holes));
    putText(wall_, shown(chosen->wall_mm, "mm"));
    putText(width_, shown(chosen->width_mm, "mm"));
    putText(thickness_, shown(chosen->thickness_mm, "mm"));
    material_->clear();
    for (const auto *list : {&document_.build().frame->materials, &commonMaterials()})
        for (const auto &material : *list) {
            const QString name = QString::fromStdString(material.name);
            if (material_->findText(name) < 0) material_->addItem(name);
        }
    const QString own = QString::fromStdString(chosen->material);
    if (material_->findText(own) < 0) material_->addItem(own);
    material_->setCurrentText(own);
    const bool folds = chosen->foldJoint_mm.has_value();
    putText(joint_, folds ? shown(*chosen->foldJoint_mm, "mm") : QString());
    showRow(form_, folds_, folds);
    showRow(form_, angle_, folds);
    showRow(form_, hinge_, folds);
    folds_->setCurrentIndex(chosen->foldsDown ? kDown : kAside);
    putText(angle_, chosen->foldAngle_deg ? QStringLiteral("%1°").arg(*chosen->foldAngle_deg, 0, 'g', 6) : QString());
    putText(hinge_, chosen->hinge_g ? shown(*chosen->hinge_g, "g") : QString());
    putText(mass_, writtenWithDoubt(chosen->mass_g, QStringLiteral("g")));
}

} // namespace waxis::app
