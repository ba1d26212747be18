#include "app/stages/frame/import_page.h"

#include "app/document/background.h"
#include "app/widgets/typed_number.h"
#include "core/layout/relayout.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QElapsedTimer>
#include <QFileInfo>
#include <QFormLayout>
#include <QFutureWatcher>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMenu>
#include <QProgressDialog>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QThread>
#include <QToolButton>
#include <QVBoxLayout>
#include <memory>

namespace waxis::frame {

namespace {

QTableWidget *table(const QStringList &headers, const QString &name) {
    auto *widget = new QTableWidget(0, int(headers.size()));
    widget->setAccessibleName(name);
    widget->setHorizontalHeaderLabels(headers);
    widget->verticalHeader()->hide();
    widget->verticalHeader()->setDefaultSectionSize(26);
    widget->setSelectionMode(QAbstractItemView::NoSelection);
    widget->setShowGrid(false);
    widget->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    widget->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    return widget;
}

} // namespace

ImportPage::ImportPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    canvas_ = new ImportCanvas(theme);
    title_ = new QLabel;
    title_->setFont(theme.text(15, true));
    problem_ = new QLabel;
    problem_->setWordWrap(true);
    problem_->setObjectName("problem");
    units_ = new QComboBox;
    units_->setObjectName("units");
    units_->addItem(tr("as the file says"), QString());
    for (const char *unit : {"mm", "in", "cm", "m", "ft", "mil"}) units_->addItem(unit, QString(unit));
    nose_ = new QComboBox;
    nose_->setObjectName("nose");
    for (const auto &side : {tr("right"), tr("up"), tr("left"), tr("down")}) nose_->addItem(side);
    auto length = [this](double low, double high, const QString &name) {
        auto *spin = new app::QuantitySpin(Measure::length);
        spin->setRange(low, high);
        spin->setDecimals(1);
        spin->setSuffix(" mm");
        spin->setAccessibleName(name);
        connect(spin, &app::QuantitySpin::refused, &document_, &app::Document::refused);
        return spin;
    };
    prop_ = length(20, 1000, tr("Propellers"));
    prop_->setObjectName("prop");
    standoff_ = length(3, 300, tr("Standoffs"));
    layers_ = table({tr("Layer"), tr("holds")}, tr("Layers"));
    layers_->setObjectName("layers");
    plates_ = table({tr("Plate"), tr("becomes"), tr("mm"), tr("cm²")}, tr("Plates found"));
    plates_->setObjectName("found-plates");
    pickText_ = new QLabel;
    pickText_->setWordWrap(true);
    pickUse_ = new QComboBox;
    pickUse_->setObjectName("pick-use");
    pickUse_->setAccessibleName(tr("What the picked thing is"));
    auto *turn = new app::QuantitySpin(Measure::angle);
    turn->setRange(-180, 180);
    turn->setDecimals(1);
    turn->setSingleStep(90);
    turn->setSuffix(QStringLiteral("°"));
    turn->setObjectName("plate-turn");
    turn->setAccessibleName(tr("Plate turned from how it was drawn"));
    connect(turn, &app::QuantitySpin::refused, &document_, &app::Document::refused);
    turn_ = turn;
    turnRow_ = new QWidget;
    auto *turning = new QFormLayout(turnRow_);
    turning->setContentsMargins(0, 0, 0, 0);
    turning->addRow(tr("Turned (Q, E)"), turn_);
    faults_ = new QLabel;
    faults_->setWordWrap(true);
    faults_->setObjectName("faults");
    skipped_ = new QLabel;
    skipped_->setWordWrap(true);
    skipped_->setObjectName("skipped");
    apply_ = new QPushButton(tr("Make it the frame"));
    apply_->setObjectName("apply");
    auto *cancel = new QPushButton(tr("Leave it"));

    auto *inner = new QWidget;
    auto *column = new QVBoxLayout(inner);
    column->setContentsMargins(12, 8, 12, 12);
    column->setSpacing(6);
    column->addWidget(title_);
    column->addWidget(problem_);
    column->addWidget(faults_);
    auto *form = new QFormLayout;
    form->addRow(tr("Drawn in"), units_);
    form->addRow(tr("The nose points"), nose_);
    form->addRow(tr("Propellers"), prop_);
    form->addRow(tr("Standoffs"), standoff_);
    column->addLayout(form);
    column->addWidget(layers_);
    column->addWidget(plates_);
    column->addWidget(pickText_);
    column->addWidget(pickUse_);
    column->addWidget(turnRow_);
    column->addWidget(skipped_);
    column->addStretch();
    laid_ = new QToolButton;
    laid_->setObjectName("laid");
    laid_->setText(tr("Laid together"));
    laid_->setToolTip(tr("The plates on one another as in the frame; one that lies wrong is dragged into its place"));
    laid_->setCheckable(true);
    byHoles_ = new QToolButton;
    byHoles_->setObjectName("by-holes");
    byHoles_->setText(tr("By the holes again"));
    byHoles_->setToolTip(tr("The picked plate where its common holes put it"));
    auto *laying = new QHBoxLayout;
    laying->addWidget(laid_);
    laying->addWidget(byHoles_);
    laying->addStretch();
    column->insertLayout(column->indexOf(plates_) + 1, laying);
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(inner);
    auto *side = new QVBoxLayout;
    side->setContentsMargins(0, 0, 0, 8);
    side->addWidget(scroll, 1);
    auto *buttons = new QHBoxLayout;
    buttons->setContentsMargins(12, 0, 12, 0);
    buttons->addWidget(cancel);
    buttons->addStretch();
    buttons->addWidget(apply_);
    side->addLayout(buttons);
    auto *holder = new QWidget;
    holder->setFixedWidth(316);
    holder->setLayout(side);
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(canvas_, 1);
    row->addWidget(holder);

    connect(canvas_, &ImportCanvas::picked, this, [this](const Pick &pick) {
        picked_ = pick;
        refresh();
    });
    connect(canvas_, &ImportCanvas::moved, this, [this](std::size_t plate, const Vec2 &shift_mm) {
        if (plate >= choices_.plates.size()) return;
        choices_.plates[plate].shift_mm = shift_mm;
        refresh();
    });
    connect(canvas_, &ImportCanvas::turned, this, [this](std::size_t plate, double by_deg) {
        if (plate < choices_.plates.size()) turnTo(plate, choices_.plates[plate].turn_deg + by_deg);
    });
    connect(canvas_, &ImportCanvas::contextWanted, this, &ImportPage::showMenu);
    connect(turn_, &QDoubleSpinBox::valueChanged, this, [this](double value) {
        if (!filling_) turnTo(picked_.plate, value);
    });
    connect(laid_, &QToolButton::toggled, canvas_, &ImportCanvas::setLaid);
    connect(byHoles_, &QToolButton::clicked, this, [this] {
        if (picked_.plate >= choices_.plates.size()) return;
        choices_.plates[picked_.plate].shift_mm.reset();
        refresh();
    });
    connect(units_, &QComboBox::activated, this, [this] { read(); });
    connect(nose_, &QComboBox::activated, this, [this](int index) {
        choices_.nose = NoseSide(index);
        refresh();
    });
    connect(prop_, &QDoubleSpinBox::valueChanged, this, [this](double value) { choices_.propDiameter_mm = value; });
    connect(standoff_, &QDoubleSpinBox::valueChanged, this,
            [this](double value) { choices_.standoffHeight_mm = value; });
    connect(plates_, &QTableWidget::cellChanged, this, [this](int r, int c) {
        if (filling_) return;
        if (c == 0) {
            choices_.plates[std::size_t(r)].name = plates_->item(r, c)->text().trimmed().left(60).toStdString();
            refresh();
            return;
        }
        if (c != 2) return;
        const QString typed = plates_->item(r, c)->text();
        const auto value = app::typedNumber(typed, Measure::length);
        if (!value)
            emit document_.refused(app::notUnderstood(typed, Measure::length));
        else if (*value < 0.2 || *value > 50)
            emit document_.refused(tr("A plate is 0.2 to 50 mm thick, not %1.").arg(typed));
        else
            choices_.plates[std::size_t(r)].thickness_mm = *value;
        refresh();
    });
    connect(pickUse_, &QComboBox::activated, this, &ImportPage::correct);
    connect(apply_, &QPushButton::clicked, this, &ImportPage::apply);
    connect(cancel, &QPushButton::clicked, this, [this] { emit finished(false); });
}

void ImportPage::open(const QString &path) {
    path_ = path;
    options_ = {};
    units_->setCurrentIndex(0);
    title_->setText(QFileInfo(path).fileName());
    read();
}

void ImportPage::read() {
    drawing_.reset();
    found_ = {};
    choices_ = {};
    picked_ = {};
    problem_->clear();
    const std::string unit = units_->currentData().toString().toStdString();
    stop_.request_stop();
    stop_ = std::stop_source();
    auto reading = app::inBackground([path = path_.toStdString(), unit, options = options_, stop = stop_.get_token()] {
        auto read = std::make_shared<Read>(Read{loadDxf(path, findDrawingUnit(unit), stop), {}});
        if (read->drawing) read->found = recognise(*read->drawing, options);
        return read;
    });
    // Most drawings are there at once; for others the window goes on living.
    constexpr int kAtOnce_ms = 300;
    QElapsedTimer clock;
    clock.start();
    while (!reading.isFinished() && clock.elapsed() < kAtOnce_ms) QThread::msleep(2);
    if (reading.isFinished()) return take(*reading.result());
    refresh();
    auto *waiting = new QProgressDialog(tr("Reading %1…").arg(QFileInfo(path_).fileName()), tr("Give up"), 0, 0, this);
    waiting->setObjectName("reading-drawing");
    waiting->setWindowModality(Qt::WindowModal);
    waiting->setMinimumDuration(0);
    waiting->setValue(0);
    auto *watcher = new QFutureWatcher<std::shared_ptr<Read>>(this);
    connect(waiting, &QProgressDialog::canceled, this, [this] {
        stop_.request_stop(); // what comes of it is not wanted any more
        emit finished(false);
    });
    connect(watcher, &QFutureWatcherBase::finished, this, [this, watcher, waiting, wanted = stop_.get_token()] {
        waiting->deleteLater();
        watcher->deleteLater();
        if (!wanted.stop_requested()) take(*watcher->result());
    });
    watcher->setFuture(reading);
}

void ImportPage::take(const Read &read) {
    if (!read.drawing) {
        const DrawingError &error = read.drawing.error();
        problem_->setText(
            error.unitsMissing
                ? tr("The drawing does not say its unit; it measures %1 × %2 of them. Choose above: mm, or in.")
                      .arg(error.size.x(), 0, 'g', 4)
                      .arg(error.size.y(), 0, 'g', 4)
                : tr("Not read. At %1: expected %2, found %3. %4")
                      .arg(QString::fromStdString(error.error.where), QString::fromStdString(error.error.expected),
                           QString::fromStdString(error.error.found), QString::fromStdString(error.error.suggestion)));
        refresh();
        return;
    }
    drawing_ = *read.drawing;
    takeRecognition(read.found);
    canvas_->fit();
}

void ImportPage::recogniseNow() { takeRecognition(recognise(*drawing_, options_)); }

void ImportPage::takeRecognition(Recognition recognition) {
    const Recognition before = std::move(found_);
    const DrawingChoices corrected = std::move(choices_);
    found_ = std::move(recognition);
    choices_ = guessChoices(found_);
    turnByHoles(found_, choices_);
    if (!before.plates.empty()) keepCorrections(before, corrected, found_, choices_);
    choices_.nose = NoseSide(std::max(0, nose_->currentIndex()));
    picked_ = {};
    filling_ = true;
    prop_->setValue(choices_.propDiameter_mm);
    standoff_->setValue(choices_.standoffHeight_mm);
    filling_ = false;
    refresh();
}

void ImportPage::refresh() {
    problem_->setVisible(!problem_->text().isEmpty());
    canvas_->show(found_, choices_, picked_);
    fillLayers();
    fillPlates();
    fillPick();
    byHoles_->setVisible(laid_->isChecked() && picked_.kind != Pick::Kind::none &&
                         picked_.plate < choices_.plates.size() && choices_.plates[picked_.plate].shift_mm);
    QStringList lines;
    for (const auto &fault : found_.faults) lines << tr("• %1").arg(QString::fromStdString(fault.text).toHtmlEscaped());
    constexpr int kFaults = 8;
    const int moreFaults = int(lines.size()) - kFaults;
    if (moreFaults > 0) lines = lines.mid(0, kFaults) << tr("and %1 more").arg(moreFaults);
    faults_->setText(tr("<b>Cannot be cut like this</b><br>") + lines.join("<br>"));
    faults_->setVisible(!found_.faults.empty());
    lines.clear();
    for (const auto &skipped : found_.skipped)
        lines << QStringLiteral("• %1%2: %3")
                     .arg(QString::fromStdString(skipped.what).toHtmlEscaped(),
                          skipped.layer.empty()
                              ? QString()
                              : tr(" on %1").arg(QString::fromStdString(skipped.layer).toHtmlEscaped()),
                          QString::fromStdString(skipped.reason).toHtmlEscaped());
    constexpr int kShown = 12;
    const int more = int(lines.size()) - kShown;
    if (more > 0) lines = lines.mid(0, kShown) << tr("and %1 more").arg(more);
    skipped_->setText(lines.isEmpty() ? QString() : tr("<b>Left out</b><br>") + lines.join("<br>"));
    apply_->setEnabled(!found_.plates.empty());
}

void ImportPage::correct(int choice) {
    if (picked_.plate >= found_.plates.size()) return;
    FoundPlate &plate = found_.plates[picked_.plate];
    const int value = pickUse_->itemData(choice).toInt();
    if (picked_.kind == Pick::Kind::hole) {
        // The same thread for every hole of that size: they were drilled with one tool.
        const ThreadSize *thread = findThread(pickUse_->itemData(choice).toString().toStdString());
        const double drilled_mm = plate.holes[picked_.index].diameter_mm;
        for (auto &hole : plate.holes) {
            if (std::abs(hole.diameter_mm - drilled_mm) > 0.05) continue;
            hole.screw.reset();
            if (thread) hole.screw = ScrewHole{thread, HoleFit::fine, 0};
        }
    }
    if (picked_.kind == Pick::Kind::slot) plate.cutouts[picked_.index].use = SlotUse(value);
    if (picked_.kind == Pick::Kind::pattern) plate.patterns[picked_.index].use = PatternUse(value);
    refresh();
}

void ImportPage::turnTo(std::size_t plate, double to_deg) {
    turnPlate(found_, choices_, plate, to_deg);
    refresh();
}

void ImportPage::showMenu(const QPoint &globally) {
    if (picked_.kind == Pick::Kind::none || picked_.plate >= choices_.plates.size()) return;
    QMenu menu(this);
    for (int i = 0; i < pickUse_->count() && picked_.kind != Pick::Kind::plate; ++i) {
        QAction *use = menu.addAction(pickUse_->itemText(i), this, [this, i] { correct(i); });
        use->setCheckable(true);
        use->setChecked(i == pickUse_->currentIndex());
    }
    menu.addSeparator();
    const std::size_t plate = picked_.plate;
    const double now_deg = choices_.plates[plate].turn_deg;
    menu.addAction(tr("Turn the plate left\tQ"), this, [=, this] { turnTo(plate, now_deg + 90); });
    menu.addAction(tr("Turn the plate right\tE"), this, [=, this] { turnTo(plate, now_deg - 90); });
    QAction *asDrawn = menu.addAction(tr("As it was drawn"), this, [=, this] { turnTo(plate, 0); });
    asDrawn->setEnabled(now_deg != 0);
    if (byHoles_->isVisible()) menu.addAction(byHoles_->text(), byHoles_, &QToolButton::click);
    menu.addAction(tr("Zoom to this\tZ"), canvas_, &ImportCanvas::zoomToChosen);
    menu.exec(globally);
}

void ImportPage::apply() {
    const auto frame = frameFromDrawing(found_, choices_);
    if (!frame) {
        problem_->setText(tr("No frame came of it: %1").arg(QString::fromStdString(frame.error())));
        refresh();
        return;
    }
    Frame named = *frame;
    named.name = QFileInfo(path_).completeBaseName().toStdString();
    if (document_.edit(tr("Frame from %1").arg(QFileInfo(path_).fileName()), replaceFrame(document_.build(), named)))
        emit finished(true);
}

} // namespace waxis::frame
