#include "app/stages/frame/parameter_panel.h"

#include "app/widgets/typed_number.h"
#include "core/build/frame_shapes.h"
#include "core/layout/frame_report.h"
#include "core/layout/handles.h"
#include "core/layout/numbering.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace waxis::frame {

namespace {

QString fromView(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

QString groupTitle(ParameterGroup group) {
    switch (group) {
    case ParameterGroup::arms: return ParameterPanel::tr("Arms");
    case ParameterGroup::propellers: return ParameterPanel::tr("Motors and propellers");
    case ParameterGroup::plates: return ParameterPanel::tr("Plates");
    case ParameterGroup::stack: return ParameterPanel::tr("Stack");
    case ParameterGroup::extras: return ParameterPanel::tr("Extras");
    }
    return {};
}

QTableWidget *table(const QStringList &headers, const QString &name) {
    auto *widget = new QTableWidget(0, int(headers.size()));
    widget->setAccessibleName(name);
    widget->setHorizontalHeaderLabels(headers);
    widget->verticalHeader()->hide();
    widget->verticalHeader()->setDefaultSectionSize(26);
    widget->setSelectionBehavior(QAbstractItemView::SelectRows);
    widget->setSelectionMode(QAbstractItemView::SingleSelection);
    widget->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    widget->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    widget->setShowGrid(false);
    widget->horizontalHeader()->setHighlightSections(false);
    return widget;
}

void showAllRows(QTableWidget *widget) {
    widget->setFixedHeight(widget->horizontalHeader()->sizeHint().height() + 26 * widget->rowCount() + 4);
}

} // namespace

ParameterPanel::ParameterPanel(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QScrollArea(parent), document_(document), theme_(theme) {
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto *inner = new QWidget;
    auto *column = new QVBoxLayout(inner);
    column->setContentsMargins(12, 8, 12, 12);
    column->setSpacing(6);
    layouts_ = new QComboBox;
    layouts_->setObjectName("layout");
    layouts_->setAccessibleName(tr("Motor layout"));
    layouts_->addItem(tr("Own frame"), QString());
    for (const auto &layout : layouts()) {
        layouts_->addItem(fromView(layout.title), fromView(layout.id));
        layouts_->setItemData(layouts_->count() - 1, fromView(layout.what), Qt::ToolTipRole);
    }
    connect(layouts_, &QComboBox::activated, this, &ParameterPanel::chooseLayout);
    what_ = new QLabel;
    what_->setWordWrap(true);
    parameters_ = new QWidget;
    new QVBoxLayout(parameters_);
    parameters_->layout()->setContentsMargins(0, 0, 0, 0);
    column->addWidget(heading(tr("Layout")));
    column->addWidget(layouts_);
    column->addWidget(what_);
    column->addWidget(parameters_);

    column->addWidget(heading(tr("Motor numbers")));
    numbering_ = new QComboBox;
    numbering_->setObjectName("numbering");
    numbering_->setAccessibleName(tr("Numbering"));
    numbering_->addItem(tr("Not chosen"), QString());
    for (const auto &n : numberings()) {
        numbering_->addItem(fromView(n.title), fromView(n.id));
        numbering_->setItemData(numbering_->count() - 1, fromView(n.what), Qt::ToolTipRole);
    }
    connect(numbering_, &QComboBox::activated, this, [this](int index) {
        if (const auto *chosen = findNumbering(numbering_->itemData(index).toString().toStdString()))
            document_.edit(tr("Number the motors"), chooseNumbering(document_.build(), chosen->numbering));
    });
    auto *reverse = new QPushButton(tr("Reverse all"));
    reverse->setToolTip(tr("Every motor turns the other way"));
    connect(reverse, &QPushButton::clicked, this,
            [this] { document_.edit(tr("Reverse all motors"), reverseSpins(document_.build())); });
    auto *row = new QHBoxLayout;
    row->addWidget(numbering_, 1);
    row->addWidget(reverse);
    column->addLayout(row);
    motors_ = table({tr("No."), tr("Place"), tr("Turns"), tr("Nut"), tr("Tip"), tr("Frame"), tr("Side")}, tr("Motors"));
    motors_->setObjectName("motors");
    connect(motors_, &QTableWidget::cellChanged, this, [this](int r, int column_) {
        if (filling_ || column_ != 0) return;
        const auto &mounts = document_.build().frame->motorMounts;
        bool good = false;
        const int number = motors_->item(r, 0)->text().toInt(&good);
        if (r < int(mounts.size()))
            document_.edit(tr("Number a motor"),
                           setMotorNumber(document_.build(), mounts[std::size_t(r)].id, good ? number : 0));
        refreshMotors();
    });
    connect(motors_, &QTableWidget::cellClicked, this, [this](int r, int column_) {
        const auto &mounts = document_.build().frame->motorMounts;
        if (column_ == 6 && r < int(mounts.size()))
            document_.edit(hangs(mounts[std::size_t(r)]) ? tr("A motor on top") : tr("A hanging motor"),
                           hangMotor(document_.build(), mounts[std::size_t(r)].id, !hangs(mounts[std::size_t(r)])));
        if (column_ == 2 && r < int(mounts.size()))
            document_.edit(tr("Reverse a motor"), setMotorSpin(document_.build(), mounts[std::size_t(r)].id,
                                                               opposite(mounts[std::size_t(r)].spin)));
    });
    column->addWidget(motors_);

    column->addWidget(heading(tr("Plates")));
    plates_ = table({tr("Plate"), tr("mm"), tr("Bottom"), tr("Material"), tr("g")}, tr("Plates"));
    plates_->setObjectName("plates");
    connect(plates_, &QTableWidget::cellChanged, this, [this](int r, int c) {
        if (filling_ || r >= int(document_.build().frame->plates.size())) return;
        Plate plate = document_.build().frame->plates[std::size_t(r)];
        const QString text = plates_->item(r, c) ? plates_->item(r, c)->text() : QString();
        const auto length = app::typedNumber(text, Measure::length);
        const bool good = c != 1 && c != 2 ? true : length.has_value();
        if (!good) emit document_.refused(app::notUnderstood(text, Measure::length));
        if (c == 0) plate.name = text.toStdString();
        if (c == 1 && length) plate.thickness_mm = *length;
        if (c == 2 && length) plate.z_mm = *length;
        if (good)
            document_.edit(tr("Change %1").arg(QString::fromStdString(plate.name)), setPlate(document_.build(), plate));
        refreshPlates();
    });
    connect(plates_, &QTableWidget::currentCellChanged, this, [this](int r) {
        if (!filling_ && r >= 0 && r < int(document_.build().frame->plates.size()))
            document_.select(QString::fromStdString(document_.build().frame->plates[std::size_t(r)].id));
    });
    column->addWidget(plates_);
    column->addWidget(heading(tr("Posts, places, openings")));
    things_ = new FrameThings(document_, theme_);
    column->addWidget(things_);
    column->addStretch();
    setWidget(inner);
    connect(&document_, &app::Document::changed, this, &ParameterPanel::refresh);
    refresh();
}

QLabel *ParameterPanel::heading(const QString &text) {
    auto *label = new QLabel(text);
    label->setFont(theme_.text(13, true));
    label->setContentsMargins(0, 8, 0, 0);
    return label;
}

QWidget *ParameterPanel::editorOf(const QString &parameter) const {
    const auto at = editors_.find(parameter);
    return at == editors_.end() ? nullptr : at->second;
}

void ParameterPanel::chooseLayout(int index) {
    const auto *layout = findLayout(layouts_->itemData(index).toString().toStdString());
    if (!layout) {
        refresh();
        return;
    }
    // What both layouts ask for keeps its number.
    LayoutValues values;
    for (const auto &parameter : parametersOf(layout->kind)) {
        const auto at = document_.build().frame->layoutParameters.find(std::string(parameter.id));
        if (at != document_.build().frame->layoutParameters.end() && isGenerated(*document_.build().frame) &&
            at->second >= parameter.minimum && at->second <= parameter.maximum)
            values[at->first] = at->second;
    }
    document_.edit(tr("Layout %1").arg(fromView(layout->title)), relayout(document_.build(), layout->kind, values));
    refresh();
}

void ParameterPanel::rebuildParameters() {
    const Frame &frame = *document_.build().frame;
    const QString layoutId = isGenerated(frame) ? QString::fromStdString(frame.layout) : QString();
    if (layoutId == builtFor_ && (!editors_.empty() || layoutId.isEmpty())) return;
    builtFor_ = layoutId;
    editors_.clear();
    auto *column = static_cast<QVBoxLayout *>(parameters_->layout());
    while (auto *item = column->takeAt(0)) {
        if (item->widget()) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    const auto *layout = findLayout(layoutId.toStdString());
    if (!layout) return;
    QFormLayout *form = nullptr;
    std::optional<ParameterGroup> group;
    for (const auto &parameter : parametersOf(layout->kind)) {
        if (!group || *group != parameter.group) {
            group = parameter.group;
            column->addWidget(heading(groupTitle(parameter.group)));
            auto *holder = new QWidget;
            form = new QFormLayout(holder);
            form->setContentsMargins(0, 0, 0, 0);
            form->setVerticalSpacing(3);
            form->setFieldGrowthPolicy(QFormLayout::FieldsStayAtSizeHint);
            form->setLabelAlignment(Qt::AlignLeft);
            column->addWidget(holder);
        }
        const QString id = fromView(parameter.id), title = fromView(parameter.title);
        const std::string key(parameter.id);
        if (parameter.form == ParameterForm::yesNo) {
            auto *box = new QCheckBox(title);
            box->setObjectName(id);
            connect(box, &QCheckBox::toggled, this, [this, key, title](bool on) {
                if (!filling_) document_.edit(title, setLayoutValue(document_.build(), key, on ? 1 : 0));
            });
            form->addRow(box);
            editors_[id] = box;
            continue;
        }
        auto *spin = new app::QuantitySpin(parameter.unit == "mm"  ? Measure::length
                                           : parameter.unit == "°" ? Measure::angle
                                                                   : Measure::number);
        connect(spin, &app::QuantitySpin::refused, &document_, &app::Document::refused);
        spin->setObjectName(id);
        spin->setAccessibleName(title);
        spin->setRange(parameter.minimum, parameter.maximum);
        spin->setDecimals(parameter.form == ParameterForm::whole ? 0 : 1);
        spin->setSingleStep(parameter.form == ParameterForm::whole ? 2 : parameter.maximum > 100 ? 1 : 0.5);
        spin->setSuffix(parameter.unit.empty()  ? QString()
                        : parameter.unit == "°" ? "°"
                                                : " " + fromView(parameter.unit));
        spin->setKeyboardTracking(false);
        spin->setFixedWidth(96);
        spin->setAlignment(Qt::AlignRight);
        connect(spin, &QDoubleSpinBox::valueChanged, this, [this, key, title](double value) {
            if (!filling_)
                document_.edit(title, setLayoutValue(document_.build(), key, value),
                               "layout/" + QString::fromStdString(key));
        });
        auto *label = new QLabel(title);
        label->setWordWrap(true);
        label->setFixedWidth(178); // one column of numbers through all groups
        label->setBuddy(spin);
        form->addRow(label, spin);
        editors_[id] = spin;
    }
}

void ParameterPanel::refreshMotors() {
    const Frame &frame = *document_.build().frame;
    const FrameReport report = frameReport(frame);
    filling_ = true;
    numbering_->setCurrentIndex(std::max(0, numbering_->findData(QString::fromStdString(frame.numbering))));
    motors_->setRowCount(int(report.motors.size()));
    const auto &practice = document_.analysis().practice;
    for (int r = 0; r < int(report.motors.size()); ++r) {
        const MotorReport &motor = report.motors[std::size_t(r)];
        const bool clockwise = motor.spin == Spin::clockwise;
        QString place = QString::fromStdString(displayName(document_.build(), motor.mount));
        place.remove(tr(" propeller disc"));
        auto put = [&](int column, const QString &text, const QString &tip, bool editable = false) {
            auto *item = new QTableWidgetItem(text);
            item->setToolTip(tip);
            item->setFlags(editable ? Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable
                                    : Qt::ItemIsEnabled | Qt::ItemIsSelectable);
            if (column >= 4) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            motors_->setItem(r, column, item);
            return item;
        };
        put(0, motor.number > 0 ? QString::number(motor.number) : QString(),
            tr("The controller's output; type another"), true);
        put(1, place, QString::fromStdString(motor.mount));
        put(2, clockwise ? tr("right ↻") : tr("left ↺"),
            clockwise ? tr("Clockwise seen from above: fit a propeller made for clockwise; click to reverse")
                      : tr("Counter-clockwise seen from above: fit a propeller made for counter-clockwise; click to "
                           "reverse"));
        put(3, clockwise ? tr("left-hand") : tr("right-hand"), tr("Thread that tightens itself on this motor"));
        auto gap = [&](int column, const std::optional<double> &value, double limit, const QString &tip) {
            auto *item = put(column, value ? QLocale().toString(*value, 'f', 1) : QString("–"), tip);
            if (value && *value < limit)
                item->setForeground(theme_.colors().severity(*value < 0 ? Severity::stop : Severity::watch));
        };
        gap(4, motor.tipGap_mm, practice[Limit::tipGap], tr("To the nearest other propeller, mm"));
        gap(5, motor.frameGap_mm, practice[Limit::propRigidGap],
            tr("From the propeller's circle to the nearest plate or standoff in plan, mm"));
        for (const auto &mount : frame.motorMounts)
            if (mount.id == motor.mount)
                put(6, hangs(mount) ? tr("under") : tr("top"),
                    tr("On top of its arm, or hanging under it; click to change"));
    }
    const int widths[] = {30, 0, 54, 66, 38, 44, 44};
    for (int c = 0; c < 7; ++c) {
        if (widths[c])
            motors_->setColumnWidth(c, widths[c]);
        else
            motors_->horizontalHeader()->setSectionResizeMode(c, QHeaderView::Stretch);
    }
    showAllRows(motors_);
    filling_ = false;
}

void ParameterPanel::refreshPlates() {
    const Frame &frame = *document_.build().frame;
    const FrameReport report = frameReport(frame);
    filling_ = true;
    plates_->setRowCount(int(frame.plates.size()));
    for (int r = 0; r < int(frame.plates.size()); ++r) {
        const Plate &plate = frame.plates[std::size_t(r)];
        auto put = [&](int column, const QString &text, bool editable) {
            auto *item = new QTableWidgetItem(text);
            if (!editable) item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
            if (column != 0) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            plates_->setItem(r, column, item);
        };
        put(0, QString::fromStdString(plate.name.empty() ? plate.id : plate.name), true);
        put(1, QLocale().toString(plate.thickness_mm, 'g', 4), true);
        put(2, QLocale().toString(plate.z_mm, 'g', 5), true);
        const auto &mass = report.plates[std::size_t(r)].mass_g;
        put(4, mass ? QLocale().toString(*mass, 'f', 1) : QString("?"), false);
        auto *materials = new QComboBox;
        materials->setFrame(false);
        for (const auto *list : {&frame.materials, &commonMaterials()})
            for (const auto &material : *list) {
                materials->addItem(QString::fromStdString(material.name));
                materials->setItemData(
                    materials->count() - 1,
                    tr("%1 g/cm³%2").arg(material.density_g_cm3).arg(material.conducts ? tr(", conducts") : QString()),
                    Qt::ToolTipRole);
            }
        materials->setCurrentText(QString::fromStdString(plate.material));
        connect(materials, &QComboBox::activated, this, [this, materials, id = plate.id] {
            for (Plate changed : document_.build().frame->plates)
                if (changed.id == id) {
                    changed.material = materials->currentText().toStdString();
                    document_.edit(tr("Material of %1").arg(QString::fromStdString(changed.name)),
                                   setPlate(document_.build(), changed));
                    return;
                }
        });
        plates_->setCellWidget(r, 3, materials);
    }
    plates_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    plates_->setColumnWidth(1, 40);
    plates_->setColumnWidth(2, 58);
    plates_->setColumnWidth(3, 104);
    plates_->setColumnWidth(4, 46);
    showAllRows(plates_);
    filling_ = false;
}

void ParameterPanel::refresh() {
    const Frame &frame = *document_.build().frame;
    rebuildParameters();
    filling_ = true;
    const auto *layout = isGenerated(frame) ? findLayout(frame.layout) : nullptr;
    layouts_->setCurrentIndex(layout ? layouts_->findData(QString::fromStdString(frame.layout)) : 0);
    what_->setText(
        layout ? fromView(layout->what)
        : frame.motorMounts.empty() && frame.plates.empty()
            ? tr("Choose a layout to begin with.")
            : tr("Drawn by hand or read from a drawing: pull the motors on the drawing. Choosing a layout replaces "
                 "the frame; parts on sites of the same name stay on them."));
    for (const auto &[id, widget] : editors_) {
        const auto at = frame.layoutParameters.find(id.toStdString());
        if (at == frame.layoutParameters.end()) continue;
        if (auto *spin = qobject_cast<QDoubleSpinBox *>(widget)) spin->setValue(at->second);
        if (auto *box = qobject_cast<QCheckBox *>(widget)) box->setChecked(at->second != 0);
    }
    filling_ = false;
    refreshMotors();
    if (!document_.isPreviewing()) refreshPlates();
}

} // namespace waxis::frame
