#include "app/stages/frame/import_page.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHeaderView>
#include <QTableWidget>
#include <algorithm>

namespace waxis::frame {

namespace {

QString layerUseText(LayerUse use) {
    switch (use) {
    case LayerUse::automatic: return ImportPage::tr("by itself");
    case LayerUse::plates: return ImportPage::tr("plates");
    case LayerUse::holes: return ImportPage::tr("holes of others");
    case LayerUse::ignore: return ImportPage::tr("left out");
    }
    return {};
}

QString roleText(PlateRole role) {
    switch (role) {
    case PlateRole::main: return ImportPage::tr("main");
    case PlateRole::second: return ImportPage::tr("second");
    case PlateRole::top: return ImportPage::tr("top");
    case PlateRole::clean: return ImportPage::tr("clean, on bobbins");
    case PlateRole::arm: return ImportPage::tr("arm");
    case PlateRole::other: return ImportPage::tr("other");
    case PlateRole::ignore: return ImportPage::tr("left out");
    }
    return {};
}

void fitRows(QTableWidget *widget, int most) {
    const int rows = std::min(widget->rowCount(), most);
    widget->setFixedHeight(widget->horizontalHeader()->sizeHint().height() + 26 * std::max(rows, 1) + 4);
}

} // namespace

void ImportPage::fillLayers() {
    filling_ = true;
    layers_->setRowCount(drawing_ ? int(drawing_->layers.size()) : 0);
    for (int r = 0; r < layers_->rowCount(); ++r) {
        const std::string name = drawing_->layers[std::size_t(r)];
        auto *item = new QTableWidgetItem(QString::fromStdString(name));
        item->setFlags(Qt::ItemIsEnabled);
        layers_->setItem(r, 0, item);
        auto *use = new QComboBox;
        use->setFrame(false);
        for (auto choice : {LayerUse::plates, LayerUse::holes, LayerUse::ignore})
            use->addItem(layerUseText(choice), int(choice));
        use->setCurrentIndex(use->findData(int(found_.layers.at(name))));
        connect(use, &QComboBox::activated, this, [this, name, use] {
            options_.layers[name] = LayerUse(use->currentData().toInt());
            recogniseNow();
        });
        layers_->setCellWidget(r, 1, use);
    }
    layers_->setColumnWidth(1, 136);
    fitRows(layers_, 5);
    filling_ = false;
}

void ImportPage::fillPlates() {
    filling_ = true;
    plates_->setRowCount(int(std::min<std::size_t>(found_.plates.size(), 200)));
    for (int r = 0; r < plates_->rowCount(); ++r) {
        const FoundPlate &plate = found_.plates[std::size_t(r)];
        PlateChoice &choice = choices_.plates[std::size_t(r)];
        auto put = [&](int column, const QString &text, bool editable) {
            auto *item = new QTableWidgetItem(text);
            item->setFlags(editable ? Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable
                                    : Qt::ItemIsEnabled);
            if (column > 1) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            plates_->setItem(r, column, item);
        };
        put(0, QString::fromStdString(choice.name.empty() ? plate.layer : choice.name), true);
        QString tip = plate.text.empty()
                          ? tr("on layer %1").arg(QString::fromStdString(plate.layer))
                          : tr("on layer %1; written there: %2")
                                .arg(QString::fromStdString(plate.layer), QString::fromStdString(plate.text));
        if (choice.turn_deg != 0) tip += tr("; turned by %1° from how it was drawn").arg(choice.turn_deg, 0, 'f', 0);
        plates_->item(r, 0)->setToolTip(tip);
        put(2, QLocale().toString(choice.thickness_mm, 'g', 3), true);
        put(3, QLocale().toString(plate.area_mm2 / 100, 'f', 1), false);
        auto *role = new QComboBox;
        role->setFrame(false);
        for (auto candidate : {PlateRole::main, PlateRole::second, PlateRole::top, PlateRole::clean, PlateRole::arm,
                               PlateRole::other, PlateRole::ignore})
            role->addItem(roleText(candidate), int(candidate));
        role->setCurrentIndex(role->findData(int(choice.role)));
        connect(role, &QComboBox::activated, this, [this, r, role] {
            auto &changed = choices_.plates[std::size_t(r)];
            changed.role = PlateRole(role->currentData().toInt());
            changed.name.clear();
            picked_ = {Pick::Kind::plate, std::size_t(r), 0};
            refresh();
        });
        plates_->setCellWidget(r, 1, role);
    }
    plates_->setColumnWidth(1, 104);
    plates_->setColumnWidth(2, 36);
    plates_->setColumnWidth(3, 46);
    fitRows(plates_, 8);
    filling_ = false;
}

void ImportPage::fillPick() {
    pickUse_->clear();
    const bool any = picked_.kind != Pick::Kind::none && picked_.plate < found_.plates.size();
    pickUse_->setVisible(any && picked_.kind != Pick::Kind::plate);
    pickText_->setVisible(any);
    turnRow_->setVisible(any);
    if (!any) return;
    filling_ = true;
    turn_->setValue(choices_.plates[picked_.plate].turn_deg);
    filling_ = false;
    const FoundPlate &plate = found_.plates[picked_.plate];
    switch (picked_.kind) {
    case Pick::Kind::none: break;
    case Pick::Kind::plate:
        pickText_->setText(tr("<b>Plate</b> on %1: %2 cm², %3 holes, %4 slots, %5 patterns")
                               .arg(QString::fromStdString(plate.layer))
                               .arg(plate.area_mm2 / 100, 0, 'f', 1)
                               .arg(plate.holes.size())
                               .arg(plate.cutouts.size())
                               .arg(plate.patterns.size()));
        break;
    case Pick::Kind::hole: {
        const FoundHole &hole = plate.holes[picked_.index];
        pickText_->setText(tr("<b>Hole</b> %1 mm at (%2, %3): %4")
                               .arg(hole.diameter_mm, 0, 'f', 2)
                               .arg(hole.centre_mm.x(), 0, 'f', 2)
                               .arg(hole.centre_mm.y(), 0, 'f', 2)
                               .arg(hole.screw ? tr("for %1").arg(QString::fromUtf8(hole.screw->thread->name.data()))
                                               : tr("no screw of M1.6 to M4")));
        pickUse_->addItem(tr("no screw"), QString());
        for (const auto &thread : threadSizes())
            pickUse_->addItem(tr("for %1").arg(QString::fromUtf8(thread.name.data(), qsizetype(thread.name.size()))),
                              QString::fromUtf8(thread.name.data(), qsizetype(thread.name.size())));
        pickUse_->setCurrentIndex(hole.screw ? pickUse_->findData(QString::fromUtf8(hole.screw->thread->name.data()))
                                             : 0);
        break;
    }
    case Pick::Kind::slot: {
        const FoundSlot &slot = plate.cutouts[picked_.index];
        pickText_->setText(
            tr("<b>Slot</b> %1 × %2 mm: what is it for?").arg(slot.length_mm, 0, 'f', 1).arg(slot.width_mm, 0, 'f', 1));
        const std::pair<SlotUse, QString> uses[] = {{SlotUse::passThrough, tr("wires pass through")},
                                                    {SlotUse::tie, tr("cable ties")},
                                                    {SlotUse::strap, tr("battery strap")},
                                                    {SlotUse::motorSlot, tr("motor screws")},
                                                    {SlotUse::window, tr("cut out to save weight")}};
        for (const auto &[use, text] : uses) pickUse_->addItem(text, int(use));
        pickUse_->setCurrentIndex(pickUse_->findData(int(slot.use)));
        break;
    }
    case Pick::Kind::pattern: {
        const FoundPattern &p = plate.patterns[picked_.index];
        pickText_->setText(tr("<b>Pattern</b> %1 mm as drawn, holes %2 mm: what mounts there?")
                               .arg(p.measured_mm, 0, 'f', 2)
                               .arg(p.pattern.holeDiameter_mm, 0, 'f', 1));
        const std::pair<PatternUse, QString> uses[] = {
            {PatternUse::stack, tr("a stack")}, {PatternUse::motor, tr("a motor")}, {PatternUse::other, tr("nothing")}};
        for (const auto &[use, text] : uses) pickUse_->addItem(text, int(use));
        pickUse_->setCurrentIndex(pickUse_->findData(int(p.use)));
        break;
    }
    }
}

} // namespace waxis::frame
