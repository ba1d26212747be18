#include "app/stages/kit/part_editor.h"

#include "app/document/background.h"
#include "app/document/data_files.h"
#include "app/stages/kit/part_fields.h"
#include "app/widgets/file_dialogs.h"
#include "core/edits/kit_edits.h"
#include "core/edits/part_edits.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QFormLayout>
#include <QFutureWatcher>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressDialog>
#include <QPushButton>
#include <QRegularExpression>
#include <QScrollArea>
#include <QVBoxLayout>
#include <atomic>
#include <memory>

namespace waxis::kit {

PartEditor::PartEditor(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    canvas_ = new PartCanvas(theme);
    canvas_->setObjectName("type-canvas");
    auto *inner = new QWidget;
    column_ = new QVBoxLayout(inner);
    column_->setContentsMargins(12, 8, 12, 12);
    column_->setSpacing(4);
    title_ = new QLabel;
    title_->setFont(theme.text(15, true));
    column_->addWidget(title_);
    makeForm();
    column_->addStretch();
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(inner);
    faultText_ = new QLabel;
    faultText_->setObjectName("type-faults");
    faultText_->setWordWrap(true);
    faultText_->setContentsMargins(12, 6, 12, 0);
    auto *cancel = new QPushButton(tr("Leave it"));
    keepOwn_ = new QPushButton(tr("Keep in my parts"));
    keepOwn_->setObjectName("keep-own");
    keepOwn_->setToolTip(tr("In the build and in your own part library"));
    keep_ = new QPushButton(tr("Keep in this build"));
    keep_->setObjectName("keep");
    auto *buttons = new QHBoxLayout;
    buttons->setContentsMargins(12, 6, 12, 8);
    buttons->addWidget(cancel);
    buttons->addStretch();
    buttons->addWidget(keepOwn_);
    buttons->addWidget(keep_);
    auto *side = new QVBoxLayout;
    side->setContentsMargins(0, 0, 0, 0);
    side->setSpacing(0);
    side->addWidget(scroll, 1);
    side->addWidget(faultText_);
    side->addLayout(buttons);
    auto *holder = new QWidget;
    holder->setMinimumWidth(430);
    holder->setMaximumWidth(520);
    holder->setLayout(side);
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(canvas_, 10);
    row->addWidget(holder, 14);
    connect(cancel, &QPushButton::clicked, this, [this] { emit finished(false); });
    connect(keep_, &QPushButton::clicked, this, [this] { keep(false); });
    connect(keepOwn_, &QPushButton::clicked, this, [this] { keep(true); });
}

void PartEditor::heading(const QString &text) {
    auto *label = new QLabel(text);
    label->setFont(theme_.text(13, true));
    label->setContentsMargins(0, 10, 0, 0);
    column_->addWidget(label);
    auto *holder = new QWidget;
    form_ = new QFormLayout(holder);
    form_->setContentsMargins(0, 0, 0, 0);
    form_->setVerticalSpacing(3);
    form_->setLabelAlignment(Qt::AlignLeft);
    column_->addWidget(holder);
}

QLineEdit *PartEditor::line(const QString &label, const QString &name, std::function<QString()> get,
                            std::function<bool(const QString &)> set, const QString &tip) {
    auto *edit = new QLineEdit;
    edit->setObjectName(name);
    edit->setAccessibleName(label);
    edit->setToolTip(tip);
    auto *caption = new QLabel(label);
    caption->setFixedWidth(150);
    caption->setBuddy(edit);
    form_->addRow(caption, edit);
    connect(edit, &QLineEdit::textEdited, this, [this, label, set](const QString &text) {
        if (!filling_) changed(set(text) ? QString() : tr("%1: \"%2\" cannot be read").arg(label, text));
    });
    fillers_.push_back([edit, get] {
        if (!edit->hasFocus()) edit->setText(get());
    });
    return edit;
}

QLineEdit *PartEditor::number(const QString &label, const QString &name,
                              std::function<std::optional<double> *()> field) {
    return line(
        label, name, [field] { return numberText(*field()); },
        [field](const QString &text) { return setMaybe(*field(), text); });
}

void PartEditor::choice(const QString &label, const QString &name, const QStringList &words, std::function<int()> get,
                        std::function<void(int)> set) {
    auto *box = new QComboBox;
    box->setObjectName(name);
    box->setAccessibleName(label);
    box->addItems(words);
    auto *caption = new QLabel(label);
    caption->setFixedWidth(150);
    form_->addRow(caption, box);
    connect(box, &QComboBox::activated, this, [this, set](int index) {
        set(index);
        changed();
        refill();
    });
    fillers_.push_back([box, get] { box->setCurrentIndex(get()); });
}

void PartEditor::flag(const QString &label, const QString &name, std::function<bool *()> field) {
    auto *box = new QCheckBox(label);
    box->setObjectName(name);
    form_->addRow(box);
    connect(box, &QCheckBox::toggled, this, [this, field](bool on) {
        if (filling_) return;
        *field() = on;
        changed();
    });
    fillers_.push_back([box, field] { box->setChecked(*field()); });
}

void PartEditor::measured(const QString &label, const QString &name, std::function<Measured *()> field) {
    line(
        label, name,
        [field] {
            const Measured &m = *field();
            return m.tolerance ? tr("%1 ± %2").arg(numberText(m.value), numberText(*m.tolerance)) : numberText(m.value);
        },
        [field](const QString &text) {
            const auto words = text.split(QChar(0x00B1));
            Measured &m = *field();
            std::optional<double> value, tolerance;
            if (!setMaybe(value, words[0]) || (words.size() > 1 && !setMaybe(tolerance, words[1]))) return false;
            m.value = value;
            m.tolerance = tolerance;
            return true;
        },
        tr("As 8.6 or 8.6 ± 0.2"));
}

void PartEditor::pattern(const QString &label, const QString &name, std::optional<HolePattern> PartType::*field) {
    line(
        label, name,
        [this, field] {
            const auto &p = type_.*field;
            if (!p) return QString();
            QString text = numberText(p->size_mm);
            if (p->shape == PatternShape::rectangle) text += " x " + numberText(p->width_mm);
            if (p->shape == PatternShape::circle) text = "d " + text;
            return text + tr(", holes %1").arg(numberText(p->holeDiameter_mm)) +
                   (p->holes != 4 ? tr(" x %1").arg(p->holes) : QString());
        },
        [this, field](const QString &text) {
            if (text.trimmed().isEmpty()) {
                (type_.*field).reset();
                return true;
            }
            // "30.5, holes 3.2", "d 16, holes 3.2 x 4", "30 x 20, holes 2.2"
            QString plain = text;
            plain.replace(tr("holes"), "", Qt::CaseInsensitive);
            const auto parts = plain.split(QRegularExpression(",\\s+|;"));
            if (parts.size() != 2) return false;
            HolePattern p;
            QString size = parts[0].trimmed();
            if (size.startsWith('d', Qt::CaseInsensitive)) {
                p.shape = PatternShape::circle;
                size = size.mid(1);
            }
            const auto sides = size.split('x');
            const auto holes = parts[1].split('x');
            const auto first = readLength(sides[0]), hole = readLength(holes[0]);
            if (!first || !hole || sides.size() > 2 || holes.size() > 2) return false;
            p.size_mm = *first;
            p.holeDiameter_mm = *hole;
            if (sides.size() == 2) {
                const auto second = readLength(sides[1]);
                if (!second || p.shape == PatternShape::circle) return false;
                p.shape = PatternShape::rectangle;
                p.width_mm = *second;
            }
            if (holes.size() == 2) {
                const auto count = readLength(holes[1]);
                if (!count || *count < 1 || *count > 64) return false;
                p.holes = int(*count);
            }
            type_.*field = p;
            return true;
        },
        tr("Squares by their side: 30.5, holes 3.2. Circles by their diameter: d 16, holes 3.2. Rectangles: 30 x 20, "
           "holes 2.2"));
}

void PartEditor::tableWithButtons(QWidget *records, const QString &addText, std::function<void()> addOne,
                                  std::function<void()> removeOne) {
    column_->addWidget(records);
    auto *row = new QHBoxLayout;
    auto *add = new QPushButton(addText);
    add->setObjectName(records->objectName() + "-add");
    auto *remove = new QPushButton(tr("Remove"));
    row->addWidget(add);
    row->addWidget(remove);
    row->addStretch();
    column_->addLayout(row);
    connect(add, &QPushButton::clicked, this, std::move(addOne));
    connect(remove, &QPushButton::clicked, this, std::move(removeOne));
}

Electrical &PartEditor::electrical() {
    if (!type_.electrical) type_.electrical.emplace();
    return *type_.electrical;
}

void PartEditor::makeForm() {
    const auto report = [this](const QString &problem) {
        changed(problem.isEmpty() ? QString() : tr("%1 cannot be read").arg(problem));
    };
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
        [this] { return &type_.solids; }, report);
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
             true}},
        [this] { return &type_.ports; }, report);
    ports_->widget()->setObjectName("ports");
    Port port;
    port.id = "port";
    table(*ports_, tr("Add a port"), port);
    connect(ports_->widget(), &QTableWidget::currentCellChanged, this,
            [this] { canvas_->show(type_, -1, ports_->current()); });
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
             }}},
        [this] { return &type_.leads; }, report);
    leads_->widget()->setObjectName("leads");
    SuppliedLead lead;
    lead.length_mm = 100;
    table(*leads_, tr("Add a lead"), lead);

    makeElectricForm();
    makeRadioForm();
    makeHardwareForm();
    line(
        tr("Note"), "type-note", [this] { return QString::fromStdString(type_.note); },
        [this](const QString &text) {
            type_.note = text.toStdString();
            return true;
        });
}

void PartEditor::open(const PartType &type, const std::string &replaces) {
    type_ = type;
    replaces_ = replaces;
    idFollowsName_ = replaces.empty();
    problem_.clear();
    title_->setText(replaces.empty() ? tr("New part type") : tr("Part type %1").arg(QString::fromStdString(type.name)));
    if (auto *focus = focusWidget()) focus->clearFocus();
    refill();
    changed();
    canvas_->fit();
}

void PartEditor::refill() {
    filling_ = true;
    for (const auto &fill : fillers_) fill();
    filling_ = false;
}

void PartEditor::changed(const QString &problem) {
    problem_ = problem;
    faults_ = faultsOf(type_, document_.build().frame->materials);
    if (type_.id != replaces_ && document_.build().types->contains(type_.id))
        faults_.insert(faults_.begin(), {"id", tr("the build has a part type of this id").toStdString(), true});
    canvas_->show(type_, bodies_->widget()->hasFocus() ? bodies_->current() : -1,
                  ports_->widget()->hasFocus() ? ports_->current() : -1);
    QStringList lines;
    const auto &c = theme_.colors();
    auto add = [&](const QString &text, Severity severity) {
        lines << QStringLiteral("<span style='color:%1'>%2</span>")
                     .arg(c.severity(severity).name(), text.toHtmlEscaped());
    };
    if (!problem_.isEmpty()) add(problem_, Severity::stop);
    for (const auto &fault : faults_)
        add(QString::fromStdString(fault.where + ": " + fault.what), fault.stops ? Severity::stop : Severity::watch);
    constexpr int kShown = 5;
    if (lines.size() > kShown) lines = lines.mid(0, kShown) << tr("and %1 more").arg(lines.size() - kShown);
    faultText_->setText(lines.isEmpty() ? tr("Nothing is wrong with it.") : lines.join("<br>"));
    const bool good =
        problem_.isEmpty() && std::none_of(faults_.begin(), faults_.end(), [](const PartFault &f) { return f.stops; });
    keep_->setEnabled(good);
    keepOwn_->setEnabled(good);
    if (idFollowsName_)
        if (auto *id = findChild<QLineEdit *>("type-id"); id && !id->hasFocus())
            id->setText(QString::fromStdString(type_.id));
}

void PartEditor::readBodies(const QString &path) {
    using Read = Result<ImportedSolids, LoadError>;
    auto goesOn = std::make_shared<std::atomic<bool>>(true);
    auto *waiting = new QProgressDialog(tr("Reading %1…").arg(QFileInfo(path).fileName()), tr("Give up"), 0, 0, this);
    waiting->setObjectName("reading-bodies");
    waiting->setWindowModality(Qt::WindowModal);
    constexpr int kPatience_ms = 400;
    waiting->setMinimumDuration(kPatience_ms);
    waiting->setValue(0);
    connect(waiting, &QProgressDialog::canceled, this, [goesOn] { *goesOn = false; });
    auto *watcher = new QFutureWatcher<std::shared_ptr<Read>>(this);
    connect(watcher, &QFutureWatcherBase::finished, this, [this, watcher, waiting] {
        waiting->deleteLater();
        watcher->deleteLater();
        takeBodies(*watcher->result());
    });
    connect(this, &QObject::destroyed, [goesOn] { *goesOn = false; }); // nobody waits for it any more
    watcher->setFuture(app::inBackground([path, goesOn] {
        return std::make_shared<Read>(readSolids(path.toStdString(), [goesOn] { return goesOn->load(); }));
    }));
}

void PartEditor::takeBodies(const Result<ImportedSolids, LoadError> &solids) {
    if (!solids) {
        changed(tr("Not read: expected %1, found %2. %3")
                    .arg(QString::fromStdString(solids.error().expected), QString::fromStdString(solids.error().found),
                         QString::fromStdString(solids.error().suggestion)));
        return;
    }
    double volume = 0;
    for (const auto &body : solids->bodies) {
        Solid solid;
        solid.shape = body.mesh;
        type_.solids.push_back(solid);
        volume += body.mesh.exact->volume_mm3;
    }
    refill();
    changed();
    canvas_->fit();
    const QString weight = type_.mass_g.known()
                               ? tr(", %1 g/cm³ at its mass").arg(*type_.mass_g.value / volume * 1000, 0, 'f', 2)
                               : QString();
    QString text = tr("%n body(ies) read: %1 cm³%2. Give them a material, or the part its weighed mass.", nullptr,
                      int(solids->bodies.size()))
                       .arg(volume / 1000, 0, 'f', 2)
                       .arg(weight);
    QStringList faults;
    for (const auto &fault : solids->faults) faults << QString::fromStdString(fault);
    if (!faults.isEmpty()) text = tr("Read in part: %1. ").arg(faults.mid(0, 3).join("; ")) + text;
    emit said(text, !faults.isEmpty());
}

bool PartEditor::keep(bool inOwnLibrary) {
    if (type_.electrical && *type_.electrical == Electrical{})
        type_.electrical.reset(); // looking at the fields is no statement
    if (!document_.edit(tr("Part type %1").arg(QString::fromStdString(type_.name)),
                        putType(document_.build(), type_, replaces_)))
        return false;
    if (replaces_.empty() && std::none_of(document_.build().parts.begin(), document_.build().parts.end(),
                                          [&](const Part &p) { return p.type == type_.id; }))
        if (!findKitEntry(document_.build(), type_.id))
            document_.edit(tr("Kit"), addToKit(document_.build(), type_, 1));
    if (inOwnLibrary) {
        QString problem;
        if (!app::keepInOwnLibrary(type_, problem)) {
            emit said(tr("Kept in the build, but not in your parts: %1").arg(problem), true);
            emit finished(true);
            return true;
        }
        document_.addOwnType(type_);
    }
    emit finished(true);
    return true;
}

} // namespace waxis::kit
