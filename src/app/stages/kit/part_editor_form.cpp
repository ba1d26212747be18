// The part editor's sections on what a part is, its bodies, mounting, ports and leads.
#include "app/stages/kit/part_editor.h"

#include "app/stages/kit/part_fields.h"
#include "app/widgets/file_dialogs.h"
#include "app/widgets/function_text.h"

#include <QPushButton>
#include <memory>

namespace waxis::kit {

void PartEditor::makeForm() {
    makeIdentityForm();
    makeBodiesForm();
    makeMountingForm();
    makePortsForm();
    makeLeadsForm();
    makeElectricForm();
    makeBandsForm();
    makeFirstBandForm();
    makeAntennaForm();
    makeCameraForm();
    makeMagnetismForm();
    makeHardwareForm();
    makeJointsForm();
    line(
        tr("Note"), "type-note", [this] { return QString::fromStdString(type_.note); },
        [this](const QString &text) {
            type_.note = text.toStdString();
            return true;
        });
}

void PartEditor::makeIdentityForm() {
    heading(tr("What it is"));
    line(
        tr("Name"), "type-name", [this] { return QString::fromStdString(type_.name); },
        [this](const QString &text) {
            type_.name = text.trimmed().toStdString();
            if (idFollowsName_) type_.id = idFromName(type_.name);
            return true;
        });
    line(
        tr("Id"), "type-id", [this] { return QString::fromStdString(type_.id); },
        [this](const QString &text) {
            type_.id = text.trimmed().toStdString();
            idFollowsName_ = false;
            return true;
        });
    choice(
        tr("Kind"), "type-kind", wordsUpTo(PartKind::other), [this] { return int(type_.kind); },
        [this](int i) { type_.kind = PartKind(i); });
    line(
        tr("Maker"), "type-maker", [this] { return QString::fromStdString(type_.maker); },
        [this](const QString &text) {
            type_.maker = text.trimmed().toStdString();
            return true;
        });
    measured(tr("Mass, g"), "type-mass", [this] { return &type_.mass_g; });
    line(
        tr("Centre of mass, mm"), "type-com",
        [this] { return type_.centreOfMass_mm ? vectorText(*type_.centreOfMass_mm) : QString(); },
        [this](const QString &text) {
            if (text.trimmed().isEmpty()) {
                type_.centreOfMass_mm.reset();
                return true;
            }
            const auto v = readVector(text);
            if (v) type_.centreOfMass_mm = v;
            return v.has_value();
        },
        tr("Empty: that of the bodies"));
    flag(tr("Gets hot"), "type-hot", [this] { return &type_.hot; });
    flag(tr("Bends in the wash"), "type-flexible", [this] { return &type_.flexible; });
    flag(tr("Fragile"), "type-fragile", [this] { return &type_.fragile; });
    flag(tr("Must see the sky"), "type-sky", [this] { return &type_.mustSeeSky; });
}

void PartEditor::makeBodiesForm() {
    heading(tr("Bodies"));
    bodies_ = std::make_unique<RecordTable<Solid>>(
        tr("Bodies"),
        std::vector<RecordColumn<Solid>>{
            {tr("Shape, mm"), 0, [](const Solid &s) { return shapeText(s.shape); },
             [](Solid &s, const QString &text) {
                 if (!canBeTyped(s.shape)) return text == shapeText(s.shape);
                 const auto shape = readShape(text);
                 if (shape) s.shape = *shape;
                 return shape.has_value();
             }},
            {tr("Middle at"), 82, [](const Solid &s) { return vectorText(s.X_PartSolid.position_mm); },
             [](Solid &s, const QString &text) { return setVector(s.X_PartSolid.position_mm, text); }},
            {tr("Turned, °"), 54,
             [](const Solid &s) {
                 const auto a = rollPitchYawFrom(s.X_PartSolid.rotation);
                 const Vec3 angles(a.roll_deg, a.pitch_deg, a.yaw_deg);
                 return angles.norm() < 1e-9 ? QString() : vectorText(angles);
             },
             [](Solid &s, const QString &text) {
                 Vec3 a = Vec3::Zero();
                 if (!text.trimmed().isEmpty() && !setVector(a, text)) return false;
                 s.X_PartSolid.rotation = quaternionFrom({a.x(), a.y(), a.z()});
                 return true;
             }},
            {tr("Role"), 96, [](const Solid &s) { return fromView(io::nameOf(s.role)); },
             [](Solid &s, const QString &text) { return setWord(s.role, text); }, wordsUpTo(SolidRole::soft)},
            {tr("Material"), 100, [](const Solid &s) { return QString::fromStdString(s.material); },
             [](Solid &s, const QString &text) {
                 s.material = text.toStdString();
                 return true;
             },
             [] {
                 QStringList names{QString()};
                 for (const auto &material : commonMaterials()) names << QString::fromStdString(material.name);
                 return names;
             }()},
            {tr("Bare"),
             34,
             [](const Solid &s) { return s.bare ? QString("yes") : QString(); },
             [](Solid &s, const QString &text) {
                 s.bare = !text.isEmpty();
                 return true;
             },
             {},
             true}},
        [this] { return &type_.solids; }, unreadable());
    bodies_->widget()->setObjectName("bodies");
    Solid box;
    box.shape = Box{{20, 15, 5}};
    box.X_PartSolid.position_mm.z() = 2.5;
    table(*bodies_, tr("Add a body"), box);
    auto *read = new QPushButton(tr("Bodies from STEP or STL…"));
    read->setObjectName("read-bodies");
    column_->addWidget(read, 0, Qt::AlignLeft);
    connect(read, &QPushButton::clicked, this, [this] {
        const QString path = app::askOpenPath(this, tr("Bodies of the part"), tr("Solids (*.step *.stp *.stl)"));
        if (!path.isEmpty()) readBodies(path);
    });
    connect(bodies_->widget(), &QTableWidget::currentCellChanged, this,
            [this] { canvas_->show(type_, bodies_->current(), -1); });
}

void PartEditor::makeMountingForm() {
    heading(tr("Mounting"));
    pattern(tr("Holes"), "type-mounting", &PartType::mounting);
    pattern(tr("Adapter: other holes"), "type-carries", &PartType::carries);
    choice(
        tr("Printed arrow"), "type-arrow", {tr("none"), "forward", "left", "aft", "right", "up", "down"},
        [this] {
            if (!type_.arrow) return 0;
            static const QStringList words{"", "forward", "left", "aft", "right", "up", "down"};
            return std::max(0, int(words.indexOf(directionText(*type_.arrow))));
        },
        [this](int index) {
            static const QStringList words{"", "forward", "left", "aft", "right", "up", "down"};
            type_.arrow = index == 0 ? std::nullopt : readDirection(words[index]);
        });
    choice(
        tr("Made for motors that turn"), "type-turns", {tr("either way"), tr("clockwise"), tr("counter-clockwise")},
        [this] { return !type_.turns                      ? 0
                        : *type_.turns == Spin::clockwise ? 1
                                                          : 2; },
        [this](int index) {
            type_.turns =
                index == 0 ? std::nullopt : std::optional(index == 1 ? Spin::clockwise : Spin::counterClockwise);
        });
}

void PartEditor::makePortsForm() {
    heading(tr("Ports"));
    ports_ = std::make_unique<RecordTable<Port>>(
        tr("Ports"),
        std::vector<RecordColumn<Port>>{
            {tr("Id"), 62, [](const Port &p) { return QString::fromStdString(p.id); },
             [](Port &p, const QString &text) {
                 p.id = text.trimmed().toStdString();
                 return !p.id.empty();
             }},
            {tr("Kind"), 72, [](const Port &p) { return fromView(io::nameOf(p.kind)); },
             [](Port &p, const QString &text) { return setWord(p.kind, text); }, wordsUpTo(PortKind::lamp)},
            {tr("At, mm"), 76, [](const Port &p) { return vectorText(p.position_mm); },
             [](Port &p, const QString &text) { return setVector(p.position_mm, text); }},
            {tr("Faces"), 58, [](const Port &p) { return directionText(p.direction); },
             [](Port &p, const QString &text) { return setDirection(p.direction, text); }},
            {tr("Room, mm"), 72,
             [](const Port &p) { return p.fullSize_mm.isZero() ? QString() : vectorText(p.fullSize_mm); },
             [](Port &p, const QString &text) {
                 if (!text.trimmed().isEmpty()) return setVector(p.fullSize_mm, text);
                 p.fullSize_mm.setZero();
                 return true;
             }},
            {tr("Pins in order, or connector"), 0,
             [](const Port &p) { // coax has no pins but a connector
                 return p.kind == PortKind::coax ? QString::fromStdString(p.connector) : pinsText(p.pins);
             },
             [](Port &p, const QString &text) {
                 if (p.kind == PortKind::coax)
                     p.connector = text.trimmed().toStdString();
                 else
                     p.pins = readPins(text);
                 return true;
             }},
            {tr("Reach"),
             40,
             [](const Port &p) { return p.mustStayReachable ? QString("yes") : QString(); },
             [](Port &p, const QString &text) {
                 p.mustStayReachable = !text.isEmpty();
                 return true;
             },
             {},
             true},
            {tr("Joint"),
             70,
             [](const Port &p) {
                 return p.joint == PadJoint::throughHole ? tr("through")
                        : p.joint == PadJoint::surface   ? tr("surface")
                                                         : QString();
             },
             [](Port &p, const QString &text) {
                 p.joint = text == tr("through")   ? PadJoint::throughHole
                           : text == tr("surface") ? PadJoint::surface
                                                   : PadJoint::unstated;
                 return true;
             },
             {QString(), tr("through"), tr("surface")}}},
        [this] { return &type_.ports; }, unreadable());
    ports_->widget()->setObjectName("ports");
    Port port;
    port.id = "port";
    table(*ports_, tr("Add a port"), port);
    connect(ports_->widget(), &QTableWidget::currentCellChanged, this,
            [this] { canvas_->show(type_, -1, ports_->current()); });
    makePlugsTable();
    line(
        tr("Channels in order"), "type-functions", [this] { return app::functionsText(type_.functions); },
        [this](const QString &text) {
            const auto list = app::readFunctions(text);
            if (list) type_.functions = *list;
            return list.has_value();
        },
        tr("Receivers: what they send on channel 1, 2, ...; controllers: what they expect there; others: what they "
           "want. "
           "Words: %1")
            .arg(app::functionWords()));
}

/// The same ports once more: how they mate.
void PartEditor::makePlugsTable() {
    auto flagColumn = [](const QString &title, int width, bool Port::*field) {
        return RecordColumn<Port>{title,
                                  width,
                                  [field](const Port &p) { return p.*field ? QString("yes") : QString(); },
                                  [field](Port &p, const QString &text) {
                                      p.*field = !text.isEmpty();
                                      return true;
                                  },
                                  {},
                                  true};
    };
    const auto size = [](std::optional<double> &value, const QString &text) {
        std::optional<double> read;
        if (!setMaybe(read, text) || (read && !(*read > 0))) return false;
        value = read;
        return true;
    };
    plugs_ = std::make_unique<RecordTable<Port>>(
        tr("How the ports mate"),
        std::vector<RecordColumn<Port>>{
            {tr("Port"), 62, [](const Port &p) { return QString::fromStdString(p.id); },
             [](Port &p, const QString &text) { return text == QString::fromStdString(p.id); }},
            {tr("Family"), 0, [](const Port &p) { return QString::fromStdString(p.connector); },
             [](Port &p, const QString &text) {
                 p.connector = text.trimmed().toStdString();
                 return true;
             }},
            {tr("Contacts"), 76, [](const Port &p) { return fromView(io::nameOf(p.contacts)); },
             [](Port &p, const QString &text) { return setWord(p.contacts, text); }, wordsUpTo(Contacts::exposed)},
            flagColumn(tr("Keyed"), 46, &Port::keyed),
            flagColumn(tr("Locks"), 46, &Port::locks),
            {tr("Rows"), 42, [](const Port &p) { return QString::number(p.rows); },
             [](Port &p, const QString &text) {
                 const auto rows = readLength(text);
                 if (!rows || *rows < 1 || *rows > 10) return false;
                 p.rows = int(*rows);
                 return true;
             }},
            {tr("Pitch"), 46, [](const Port &p) { return numberText(p.pitch_mm); },
             [size](Port &p, const QString &text) { return size(p.pitch_mm, text); }},
            {tr("Pad, mm"), 58, [](const Port &p) { return numberText(p.padSize_mm); },
             [size](Port &p, const QString &text) { return size(p.padSize_mm, text); }}},
        [this] { return &type_.ports; }, unreadable());
    plugs_->widget()->setObjectName("plugs");
    plugs_->widget()->setToolTip(
        tr("Family: what goes together, such as 1.0 mm lock plug. Contacts: what a hand meets on it. Pitch: of "
           "neighbouring pins. Pad: width of one, or of the hole in it; all in mm."));
    column_->addWidget(plugs_->widget());
    fillers_.push_back([this] { plugs_->fill(); });
}

void PartEditor::makeLeadsForm() {
    const auto words = [](const std::vector<std::string> &list) {
        QStringList texts;
        for (const auto &word : list) texts << QString::fromStdString(word);
        return texts.join(' ');
    };
    const auto split = [](std::vector<std::string> &list, const QString &text) {
        list.clear();
        for (const auto &word : text.simplified().split(' ', Qt::SkipEmptyParts)) list.push_back(word.toStdString());
        return list.size() <= 200;
    };
    leads_ = std::make_unique<RecordTable<SuppliedLead>>(
        tr("Leads that come with it"),
        std::vector<RecordColumn<SuppliedLead>>{
            {tr("Lead of port"), 100, [](const SuppliedLead &l) { return QString::fromStdString(l.port); },
             [](SuppliedLead &l, const QString &text) {
                 l.port = text.trimmed().toStdString();
                 return true;
             }},
            {tr("mm"), 60, [](const SuppliedLead &l) { return numberText(l.length_mm); },
             [](SuppliedLead &l, const QString &text) { return setNumber(l.length_mm, text); }},
            {tr("AWG"), 50,
             [](const SuppliedLead &l) { return l.gauge_AWG ? QString::number(l.gauge_AWG) : QString(); },
             [](SuppliedLead &l, const QString &text) {
                 const auto gauge = text.trimmed().isEmpty() ? std::optional<double>(0) : readLength(text);
                 if (!gauge || *gauge < 0 || *gauge > 60) return false;
                 l.gauge_AWG = int(*gauge);
                 return true;
             }},
            {tr("Far end"), 0, [](const SuppliedLead &l) { return QString::fromStdString(l.plug); },
             [](SuppliedLead &l, const QString &text) {
                 l.plug = text.trimmed().toStdString();
                 return true;
             }},
            {tr("Its pins"), 90, [words](const SuppliedLead &l) { return words(l.pins); },
             [split](SuppliedLead &l, const QString &text) { return split(l.pins, text); }},
            {tr("Colours"), 90, [words](const SuppliedLead &l) { return words(l.colours); },
             [split](SuppliedLead &l, const QString &text) { return split(l.colours, text); }},
            {tr("Size, mm"), 76,
             [](const SuppliedLead &l) { return l.plugSize_mm ? vectorText(*l.plugSize_mm) : QString(); },
             [](SuppliedLead &l, const QString &text) {
                 if (text.trimmed().isEmpty()) {
                     l.plugSize_mm.reset();
                     return true;
                 }
                 const auto size = readVector(text);
                 if (!size || size->minCoeff() < 0) return false;
                 l.plugSize_mm = size;
                 return true;
             }}},
        [this] { return &type_.leads; }, unreadable());
    leads_->widget()->setObjectName("leads");
    SuppliedLead lead;
    lead.length_mm = 100;
    table(*leads_, tr("Add a lead"), lead);
}

} // namespace waxis::kit
