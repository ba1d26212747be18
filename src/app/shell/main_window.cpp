#include "app/shell/main_window.h"

#include "app/shell/axis_bar.h"
#include "app/shell/command_palette.h"
#include "app/shell/data_files.h"
#include "app/shell/findings_panel.h"
#include "app/shell/inspector_panel.h"
#include "app/shell/notice_bar.h"
#include "app/shell/practice_sheet.h"
#include "app/shell/stage_rail.h"
#include "app/shell/start_page.h"
#include "app/shell/sum_sheet.h"
#include "app/shell/survey_runner.h"
#include "app/stages/balance/balance_bench.h"
#include "app/stages/frame/frame_bench.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/pending/pending_bench.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/stack/stack_bench.h"
#include "app/stages/wire/wire_bench.h"
#include "app/theme/metrics.h"
#include "core/layout/layout.h"
#include "core/rules/rule.h"

#include <QApplication>
#include <QCloseEvent>
#include <QComboBox>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLocale>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPixmapCache>
#include <QPushButton>
#include <QSettings>
#include <QStackedWidget>
#include <QUndoView>
#include <QVBoxLayout>

namespace waxis::app {

namespace {

/// A thin line between panels.
QFrame *rule(QFrame::Shape shape) {
    auto *line = new QFrame;
    line->setFrameShape(shape);
    line->setFrameShadow(QFrame::Plain);
    line->setFixedSize(shape == QFrame::VLine ? QSize(1, QWIDGETSIZE_MAX) : QSize(QWIDGETSIZE_MAX, 1));
    line->setObjectName("rule");
    return line;
}

} // namespace

MainWindow::MainWindow(theme::Theme &theme, const QString &autosaveFolder, QWidget *parent)
    : QMainWindow(parent), theme_(theme),
      autosave_(document_, autosaveFolder.isEmpty() ? Autosave::standardFolder() : autosaveFolder) {
    constexpr int kDrawingCache_kB = 96 * 1024; // every part and plate of a crowded build, in both views
    QPixmapCache::setCacheLimit(kDrawingCache_kB);
    setAcceptDrops(true);
    setMinimumSize(1000, 640);
    setWindowIcon(QIcon(theme_.icon("weightaxis", {}, 64, 1)));
    QStringList problems;
    document_.setLibrary(partLibrary(problems));

    surveyor_ = new SurveyRunner(document_, this);
    rail_ = new StageRail(document_, theme_);
    bench_ = new QStackedWidget;
    bench_->setMinimumSize(420, 320); // the benches scroll: none of them may make the window larger
    start_ = new StartPage(theme_);
    place_ = new place::PlaceBench(document_, theme_);
    kit_ = new kit::KitBench(document_, theme_);
    frame_ = new frame::FrameBench(document_, theme_);
    stack_ = new stackbench::StackBench(document_, theme_);
    wire_ = new wire::WireBench(document_, theme_);
    radio_ = new radio::RadioBench(document_, theme_);
    balance_ = new balance::BalanceBench(document_, theme_);
    const std::map<Stage, QWidget *> built{{Stage::kit, kit_},        {Stage::frame, frame_}, {Stage::place, place_},
                                           {Stage::stack, stack_},    {Stage::wire, wire_},   {Stage::radio, radio_},
                                           {Stage::balance, balance_}};
    for (int i = 0; i < kStageCount; ++i) {
        const auto own = built.find(Stage(i));
        bench_->addWidget(own == built.end() ? new PendingBench(Stage(i), theme_) : own->second);
    }
    bench_->addWidget(start_);
    practiceSheet_ = new PracticeSheet(document_, theme_);
    bench_->addWidget(practiceSheet_);
    notices_ = new NoticeBar(theme_);
    inspector_ = new InspectorPanel(document_, theme_);
    findings_ = new FindingsPanel(document_, theme_);
    axisBar_ = new AxisBar(document_, theme_);
    palette_ = new CommandPalette(theme_, this);

    auto *middle = new QVBoxLayout;
    middle->setContentsMargins(0, 0, 0, 0);
    middle->setSpacing(0);
    middle->addWidget(notices_);
    middle->addWidget(bench_, 1);
    ledger_ = new QWidget;
    ledger_->setFixedWidth(theme::kLedgerWidth);
    ledger_->setAutoFillBackground(true);
    auto *ledger = new QVBoxLayout(ledger_);
    ledger->setContentsMargins(0, 0, 0, 0);
    ledger->setSpacing(0);
    ledger->addWidget(inspector_);
    ledger->addWidget(rule(QFrame::HLine));
    ledger->addWidget(findings_, 1);
    auto *row = new QHBoxLayout;
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(rail_);
    row->addLayout(middle, 1);
    row->addWidget(rule(QFrame::VLine));
    row->addWidget(ledger_);
    auto *central = new QWidget;
    auto *all = new QVBoxLayout(central);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addLayout(row, 1);
    all->addWidget(axisBar_);
    setCentralWidget(central);

    table_ = new ActionTable(actionSpecs(), this);
    makeMenus();
    connect(rail_, &StageRail::stageChosen, this, &MainWindow::setStage);
    connect(axisBar_, &AxisBar::clicked, this, [this] { setStage(Stage::balance); });
    connect(findings_, &FindingsPanel::revealWanted, this, [this](const QStringList &ids, RuleId rule) {
        const Stage about = ruleOf(rule).stage;
        if (about == Stage::stack && stack_->reveal(ids)) {
            setStage(Stage::stack);
            return;
        }
        if (about == Stage::wire && wire_->reveal(ids)) {
            setStage(Stage::wire);
            return;
        }
        if (about == Stage::radio && radio_->reveal(ids)) {
            setStage(Stage::radio);
            return;
        }
        if (about == Stage::balance) {
            balance_->reveal(ids, rule);
            setStage(Stage::balance);
            return;
        }
        setStage(Stage::place);
        place_->reveal(ids);
    });
    connect(start_, &StartPage::fileChosen, this, &MainWindow::openAsking);
    connect(start_, &StartPage::browseWanted, this, &MainWindow::browse);
    connect(start_, &StartPage::layoutWanted, this, &MainWindow::newFromLayout);
    connect(start_, &StartPage::drawingWanted, this, [this] { newFromDrawing(); });
    connect(start_, &StartPage::kitListWanted, this, [this] { newFromKitList(); });
    auto say = [this](const QString &text, bool bad) {
        notices_->say(text, bad ? Severity::stop : Severity::note, {}, bad ? 0 : 6);
    };
    connect(&place_->library(), &place::LibraryDrawer::chosen, this,
            [this](const QString &type) { addFromLibrary(type.toStdString()); });
    connect(kit_, &kit::KitBench::said, this, say);
    connect(frame_, &frame::FrameBench::said, this, say);
    connect(wire_, &wire::WireBench::said, this, say);
    connect(balance_, &balance::BalanceBench::said, this, say);
    connect(practiceSheet_, &PracticeSheet::said, this, say);
    connect(practiceSheet_, &PracticeSheet::finished, this, [this] { setStage(stage_); });
    connect(&document_, &Document::refused, this,
            [this](const QString &reason) { notices_->say(reason, Severity::note, {}, 6); });
    connect(&document_, &Document::stateChanged, this, &MainWindow::refreshTitle);
    connect(&document_, &Document::opened, this, &MainWindow::refreshLoadCases);
    connect(&document_, &Document::loadCaseChanged, this,
            [this] { loadCases_->setCurrentIndex(document_.loadCase()); });
    connect(&document_, &Document::changed, this, [this] {
        if (document_.isPreviewing()) return;
        refreshTitle();
        refreshProfile();
        table_->refresh();
    });
    connect(&document_, &Document::selectionChanged, table_, &ActionTable::refresh);
    connect(&document_.history(), &QUndoStack::indexChanged, table_, &ActionTable::refresh);
    auto dress = [this] {
        const auto &c = theme_.colors();
        centralWidget()->setStyleSheet(
            QStringLiteral("QFrame#rule { color: %1; background: %1; border: none; }").arg(c.rule.name()));
        QPalette panel = ledger_->palette();
        panel.setColor(QPalette::Window, c.panel);
        ledger_->setPalette(panel);
        rail_->setAutoFillBackground(true);
        rail_->setPalette(panel);
    };
    dress();
    connect(&theme_, &theme::Theme::changed, this, dress);

    QSettings settings;
    if (!restoreGeometry(settings.value("window/geometry").toByteArray())) resize(1280, 800);
    start_->show(demoFiles(), recentFiles());
    bench_->setCurrentWidget(start_);
    rail_->setStage(Stage::place);
    findings_->setStage(Stage::place);
    refreshTitle();
    refreshLoadCases();
    refreshProfile();
    if (!problems.isEmpty()) notices_->say(tr("Part library not read: %1").arg(problems.join("; ")), Severity::watch);
}

MainWindow::~MainWindow() {
    delete takeCentralWidget(); // a cell that is being filled in gives its text to the document as it goes
}

void MainWindow::showPracticeSheet() { bench_->setCurrentWidget(practiceSheet_); }

QWidget *MainWindow::makeTopRow() {
    auto *row = new QWidget;
    auto *layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 3, 12, 3);
    layout->setSpacing(8);
    title_ = new QLabel;
    title_->setTextFormat(Qt::RichText);
    layout->addWidget(title_);
    layout->addSpacing(12);
    loadCases_ = new QComboBox;
    loadCases_->setObjectName("load-case");
    loadCases_->setAccessibleName(tr("Load case"));
    loadCases_->setToolTip(tr("Load case: what is aboard"));
    loadCases_->setMinimumWidth(190);
    layout->addWidget(loadCases_);
    connect(loadCases_, &QComboBox::activated, this, [this](int index) { document_.setLoadCase(index); });
    profiles_ = new QComboBox;
    profiles_->setObjectName("practice");
    profiles_->setAccessibleName(tr("Practice profile"));
    for (const auto &profile : profiles()) {
        profiles_->addItem(
            tr("%1 practice").arg(QString::fromUtf8(profile.name.data(), qsizetype(profile.name.size()))),
            QString::fromUtf8(profile.id.data(), qsizetype(profile.id.size())));
        profiles_->setItemData(profiles_->count() - 1,
                               QString::fromUtf8(profile.forWhom.data(), qsizetype(profile.forWhom.size())),
                               Qt::ToolTipRole);
    }
    profiles_->insertSeparator(profiles_->count());
    profiles_->addItem(tr("Limits and schools…"), QStringLiteral("sheet"));
    layout->addWidget(profiles_);
    connect(profiles_, &QComboBox::activated, this, &MainWindow::pickProfile);
    auto *go = new QPushButton(tr("Go to or do…   Ctrl K"));
    go->setMinimumWidth(170);
    go->setFocusPolicy(Qt::TabFocus);
    layout->addWidget(go);
    connect(go, &QPushButton::clicked, this, &MainWindow::openPalette);
    return row;
}

void MainWindow::pickProfile(int index) {
    const QString id = profiles_->itemData(index).toString();
    if (id == "sheet") {
        refreshProfile();
        showPracticeSheet();
        return;
    }
    document_.edit(tr("Practice %1").arg(id), chooseProfile(document_.build(), id.toStdString()));
}

void MainWindow::refreshTitle() {
    const bool edited = document_.isModified();
    // The row keeps room for "edited": the menu bar does not make its corner wider later.
    const QFontMetrics strong(theme_.text(theme::kTextPixels, true));
    constexpr int kWidest_px = 150; // longer names are cut: the menus need the room at 1100 pixels
    const QString name = strong.elidedText(document_.title(), Qt::ElideRight, kWidest_px);
    title_->setToolTip(name == document_.title() ? QString() : document_.title());
    const int wide = strong.horizontalAdvance(name + QStringLiteral("  ") + tr("edited")) + 8;
    if (title_->minimumWidth() != wide) {
        title_->setMinimumWidth(wide);
        menuBar()->cornerWidget()->adjustSize();
        menuBar()->setCornerWidget(menuBar()->cornerWidget()); // lays it out anew
    }
    title_->setText(QStringLiteral("<b>%1</b>%2")
                        .arg(name.toHtmlEscaped(), edited ? QStringLiteral(" <span style='color:%1'>%2</span>")
                                                                .arg(theme_.colors().muted.name(), tr("edited"))
                                                          : QString()));
    setWindowTitle(tr("%1[*] – Weightaxis").arg(document_.title()));
    setWindowModified(edited);
}

void MainWindow::refreshLoadCases() {
    loadCases_->clear();
    for (const auto &loadCase : document_.analysis().derived.loadCases)
        loadCases_->addItem(QString::fromStdString(loadCase.name));
    loadCases_->setCurrentIndex(document_.loadCase());
}

void MainWindow::refreshProfile() {
    profiles_->setCurrentIndex(profiles_->findData(QString::fromStdString(document_.build().practice.profile)));
}

bool MainWindow::openAny(const QString &path) {
    if (path.endsWith(".dxf", Qt::CaseInsensitive)) {
        newFromDrawing(path);
        return true;
    }
    if (path.endsWith(".csv", Qt::CaseInsensitive)) {
        newFromKitList(path);
        return true;
    }
    return openFile(path);
}

bool MainWindow::openFile(const QString &path) {
    LoadError error;
    std::vector<LoadWarning> warnings;
    if (!document_.open(path, error, warnings)) {
        notices_->say(tr("%1 was not opened. At %2: expected %3, found %4. %5")
                          .arg(QFileInfo(path).fileName(), QString::fromStdString(error.where),
                               QString::fromStdString(error.expected), QString::fromStdString(error.found),
                               QString::fromStdString(error.suggestion))
                          .trimmed(),
                      Severity::stop);
        return false;
    }
    notices_->hide();
    setStage(Stage::place);
    rememberRecent(document_.path());
    if (!warnings.empty())
        notices_->say(tr("%n key(s) in the file are not known and are kept: %1", nullptr, int(warnings.size()))
                          .arg(QString::fromStdString(warnings.front().where + " " + warnings.front().message)),
                      Severity::note);
    place_->plan().setFocus();
    return true;
}

void MainWindow::openAsking(const QString &path) {
    if (mayReplaceBuild()) openFile(path);
}

bool MainWindow::mayReplaceBuild() {
    if (!document_.isModified()) return true;
    const auto answer =
        QMessageBox::question(this, tr("Weightaxis"), tr("%1 has changes that are not saved.").arg(document_.title()),
                              QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    if (answer == QMessageBox::Save) save(false);
    return answer == QMessageBox::Discard || (answer == QMessageBox::Save && !document_.isModified());
}

void MainWindow::startNew(const Build &build, Stage stage) {
    LoadedBuild fresh;
    fresh.build = build;
    document_.show(std::move(fresh), {});
    notices_->hide();
    setStage(stage);
}

void MainWindow::newFromLayout() {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = tr("New build").toStdString();
    if (auto frame = generateFrame(LayoutKind::quadX, {})) build.frame = *frame;
    startNew(build, Stage::frame);
    frame_->canvas().fit();
}

void MainWindow::newFromDrawing(const QString &path) {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = path.isEmpty() ? tr("New build").toStdString() : QFileInfo(path).completeBaseName().toStdString();
    startNew(build, Stage::frame);
    if (path.isEmpty())
        frame_->browseDrawing();
    else
        frame_->readDrawing(path);
}

void MainWindow::newFromKitList(const QString &path) {
    if (!mayReplaceBuild()) return;
    Build build;
    build.name = tr("New build").toStdString();
    startNew(build, Stage::kit);
    if (path.isEmpty())
        kit_->browseList();
    else
        kit_->readList(path);
}

void MainWindow::setStage(Stage stage) {
    stage_ = stage;
    bench_->setCurrentIndex(int(stage));
    rail_->setStage(stage);
    findings_->setStage(stage);
    inspector_->setStage(stage);
}

void MainWindow::browse() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Open a build"), document_.path(), tr("Weightaxis builds (*.waxis)"));
    if (!path.isEmpty()) openAsking(path);
}

void MainWindow::save(bool askForName, bool overwriteChanges) {
    QString path = document_.path();
    const bool shipped = !path.isEmpty() && demoFiles().contains(path);
    if (askForName || path.isEmpty() || shipped) {
        const QString proposal = shipped ? QDir::homePath() + "/" + QFileInfo(path).fileName() : path;
        path = QFileDialog::getSaveFileName(this, tr("Save the build"), proposal, tr("Weightaxis builds (*.waxis)"));
        if (path.isEmpty()) return;
        if (!path.endsWith(".waxis")) path += ".waxis";
    }
    SaveError error;
    if (document_.save(path, error, overwriteChanges)) {
        rememberRecent(document_.path());
        notices_->say(tr("Saved as %1.").arg(path), Severity::note, {}, 3);
        return;
    }
    std::vector<NoticeChoice> choices;
    if (error.changedOnDisk)
        choices = {{tr("Overwrite"), [this] { save(false, true); }},
                   {tr("Save as…"), [this] { save(true); }},
                   {tr("Open what is on disk"), [this, path] { openFile(path); }}};
    notices_->say(tr("Not saved: %1.").arg(QString::fromStdString(error.reason)), Severity::stop, std::move(choices));
}

void MainWindow::addFromLibrary(const std::string &typeId) {
    const auto own = document_.build().types->find(typeId);
    const bool embedded = own != document_.build().types->end();
    const auto shipped = document_.library().find(typeId);
    if (!embedded && shipped == document_.library().end()) return;
    const PartType type = embedded ? own->second : shipped->second;
    setStage(Stage::place);
    const QPointF middle = place_->plan().centre();
    const std::string id = freshId(document_.build(), typeId);
    if (document_.edit(tr("Add %1").arg(QString::fromStdString(type.name)),
                       addPart(document_.build(), type, typeId, Pose{Vec3(middle.x(), -middle.y(), 0)})))
        document_.select(QString::fromStdString(id));
}

void MainWindow::openPalette() {
    std::vector<PaletteEntry> entries;
    for (const auto &spec : table_->specs()) {
        auto *action = table_->action(spec.id);
        if (action->isEnabled() && spec.id != "palette")
            entries.push_back({spec.text.section('\t', 0, 0),
                               spec.id.startsWith("sum-")     ? tr("calculation")
                               : spec.id.startsWith("stage-") ? tr("stage")
                               : spec.id.startsWith("page-")  ? tr("page")
                                                              : spec.key.toString(QKeySequence::NativeText),
                               spec.run});
    }
    for (const auto &part : document_.build().parts)
        entries.push_back({QString::fromStdString(part.name.empty() ? part.id : part.name), tr("part"),
                           [this, id = QString::fromStdString(part.id)] {
                               setStage(Stage::place);
                               document_.select(id);
                               place_->reveal({id});
                               document_.highlight({});
                           }});
    for (const auto &[id, type] : document_.library())
        entries.push_back({tr("Add %1").arg(QString::fromStdString(type.name)), tr("library"),
                           [this, typeId = id] { addFromLibrary(typeId); }});
    palette_->open(std::move(entries));
}

void MainWindow::showSum(const QString &name) {
    if (const Sum *sum = findSum(name.toStdString())) (new SumSheet(*sum, theme_, this))->show();
}

void MainWindow::showHistory() {
    auto *view = new QUndoView(&document_.history());
    view->setParent(this, Qt::Tool);
    view->setAttribute(Qt::WA_DeleteOnClose);
    view->setWindowTitle(tr("History of %1").arg(document_.title()));
    view->setEmptyLabel(tr("as opened"));
    view->resize(320, 420);
    view->show();
}

void MainWindow::showHelp() {
    auto *sheet = new QMessageBox(
        QMessageBox::NoIcon, tr("Keys and hands"),
        tr("Drag a part; hold Ctrl to keep it from snapping, Esc to put it back.\n"
           "A second click chooses what lies beneath; Shift-click adds, Shift-drag on the mat\n"
           "takes all within a frame. A chosen plate is dragged with what it carries.\n"
           "Arrow keys nudge by 1 mm, with Shift 0.1 mm, with Ctrl 5 mm.\n"
           "Q and E turn by a quarter, V turns upside down, Space pins, Ctrl+M mirrors.\n"
           "1 to 8 switch overlays, L makes the lower view larger, G drops a ghost of the GPS.\n"
           "In Balance: drag a part on its line, or nudge it with the arrow keys; Enter slides it to balance.\n"
           "In Stack: drag a layer, Up and Down choose, with Ctrl they move it; V turns a board over, Q and E\n"
           "by a quarter, Del takes it out.\n"
           "Hold M over two things to measure between them.\n"
           "Wheel zooms at the pointer, 0 fits, dragging the mat moves it.\n"
           "F1 to F9 change the stage, F10 goes to the next finding, Ctrl+K finds anything.\n"
           "Ctrl+C in a table copies all of it as CSV.\n"
           "In the findings: Enter why, S show, F fix, A accept."),
        QMessageBox::Close, this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->open();
}

QStringList MainWindow::recentFiles() const {
    QStringList files = QSettings().value("recent").toStringList();
    files.removeIf([](const QString &path) { return !QFileInfo::exists(path); });
    return files;
}

void MainWindow::rememberRecent(const QString &path) {
    if (path.isEmpty() || demoFiles().contains(path)) return;
    QStringList files = recentFiles();
    files.removeAll(path);
    files.prepend(path);
    constexpr int kKept = 8;
    QSettings().setValue("recent", QStringList(files.mid(0, kKept)));
}

void MainWindow::offerRecovery() {
    const auto left = autosave_.leftBehind();
    if (left.empty()) return;
    const Recovery newest = left.front();
    notices_->say(tr("Unsaved work on %1 from %2 was kept.")
                      .arg(newest.name, QLocale().toString(newest.when, QLocale::ShortFormat)),
                  Severity::watch,
                  {{tr("Recover"),
                    [this, newest] {
                        QString reason;
                        if (autosave_.recover(newest, reason))
                            setStage(Stage::place);
                        else
                            notices_->say(tr("The kept copy cannot be read: %1").arg(reason), Severity::stop);
                    }},
                   {tr("Discard"), [this, newest] {
                        Autosave::discard(newest);
                        offerRecovery();
                    }}});
}

void MainWindow::closeEvent(QCloseEvent *event) {
    if (auto *field = focusWidget()) field->clearFocus(); // what is being typed counts
    if (!mayReplaceBuild()) {
        event->ignore();
        return;
    }
    autosave_.clear();
    QSettings().setValue("window/geometry", saveGeometry());
    event->accept();
}

namespace {

/// Builds, frame drawings and kit lists can be dropped.
bool canTake(const QString &path) {
    return path.endsWith(".waxis") || path.endsWith(".dxf", Qt::CaseInsensitive) ||
           path.endsWith(".csv", Qt::CaseInsensitive);
}

} // namespace

void MainWindow::dragEnterEvent(QDragEnterEvent *event) {
    for (const auto &url : event->mimeData()->urls())
        if (canTake(url.toLocalFile())) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent *event) {
    for (const auto &url : event->mimeData()->urls()) {
        const QString path = url.toLocalFile();
        if (!canTake(path)) continue;
        if (path.endsWith(".waxis")) {
            openAsking(path);
        } else if (path.endsWith(".csv", Qt::CaseInsensitive)) { // into the open build
            setStage(Stage::kit);
            kit_->readList(path);
        } else {
            setStage(Stage::frame);
            frame_->readDrawing(path);
        }
        return;
    }
}

} // namespace waxis::app
