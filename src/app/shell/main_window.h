// Puts the panels together; does no work of its own.
#pragma once

#include "app/document/autosave.h"
#include "app/document/document.h"
#include "app/shell/actions.h"
#include "app/theme/theme.h"

#include <QMainWindow>
#include <array>

class QComboBox;
class QScrollArea;
class QSplitter;
class QLabel;
class QStackedWidget;

namespace waxis::place {
class PlaceBench;
}
namespace waxis::kit {
class KitBench;
}
namespace waxis::frame {
class FrameBench;
}
namespace waxis::wire {
class WireBench;
}
namespace waxis::radio {
class RadioBench;
}
namespace waxis::assembly {
class BuildBench;
}
namespace waxis::balance {
class BalanceBench;
}
namespace waxis::logbench {
class LogBench;
}
namespace waxis::stackbench {
class StackBench;
}

namespace waxis::app {

class AxisBar;
class Bench;
class BuildSheet;
class CommandPalette;
class FindingsPanel;
class InspectorPanel;
class Instruments;
class LessonStrip;
class NoticeBar;
class PracticeSheet;
class StageRail;
class StartPage;
class SurveyRunner;

class MainWindow : public QMainWindow {
    Q_OBJECT

public:
    /// `autosaveFolder` empty: the standard one.
    explicit MainWindow(theme::Theme &theme, const QString &autosaveFolder = {}, QWidget *parent = nullptr);
    ~MainWindow() override;

    Document &document() { return document_; }
    place::PlaceBench &placeBench() { return *place_; }
    stackbench::StackBench &stackBench() { return *stack_; }
    wire::WireBench &wireBench() { return *wire_; }
    radio::RadioBench &radioBench() { return *radio_; }
    balance::BalanceBench &balanceBench() { return *balance_; }
    assembly::BuildBench &buildBench() { return *build_; }
    logbench::LogBench &logBench() { return *log_; }
    Instruments &instruments() { return *instruments_; }
    kit::KitBench &kitBench() { return *kit_; }
    frame::FrameBench &frameBench() { return *frame_; }
    FindingsPanel &findings() { return *findings_; }
    AxisBar &axisBar() { return *axisBar_; }
    NoticeBar &notices() { return *notices_; }
    ActionTable &actions() { return *table_; }
    Autosave &autosave() { return autosave_; }
    PracticeSheet &practiceSheet() { return *practiceSheet_; }
    /// The practice of the build: limits, schools, comparison, in the place of the bench.
    void showPracticeSheet();
    /// Name, notes and load cases of the build, in the place of the bench.
    void showBuildSheet();
    BuildSheet &buildSheet() { return *buildSheet_; }
    SurveyRunner &surveyor() { return *surveyor_; }

    bool openFile(const QString &path);
    /// A build; or a frame drawing or kit list to begin a new one with.
    bool openAny(const QString &path);
    /// A new build with the standard frame of a layout, in the Frame stage.
    void newFromLayout();
    /// A new build from a frame drawing, looked over in the Frame stage; empty: asks for the file.
    void newFromDrawing(const QString &path = {});
    /// A new build whose box is filled from a kit list; empty: asks for the file.
    void newFromKitList(const QString &path = {});
    /// The first build as a lesson: a new build, and a strip that walks along.
    void startLesson();
    LessonStrip &lesson() { return *lesson_; }
    /// The page of the beginning, at any time; the build stays open.
    void showStart();
    /// After an exception that nobody caught: work is kept, and it is said what happened.
    void survive(const QString &what);
    void setStage(Stage stage);
    /// The same by hand: the ledger then shows the findings of that stage.
    void goToStage(Stage stage);
    Stage stage() const { return stage_; }
    /// Offers what a crash left behind.
    void offerRecovery();
    void showSum(const QString &name);

protected:
    void closeEvent(QCloseEvent *event) override;
    void contextMenuEvent(QContextMenuEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void dragEnterEvent(QDragEnterEvent *event) override;
    void dropEvent(QDropEvent *event) override;

private:
    std::vector<ActionSpec> actionSpecs();
    std::vector<ActionSpec> arrangeSpecs();
    void makeMenus();
    QWidget *makeTopRow();
    void refreshTitle();
    void layOutCorner();
    void refreshLoadCases();
    void refreshProfile();
    bool mayReplaceBuild();
    /// For everything a person opens: asks first when there are changes.
    void openAsking(const QString &path);
    void startNew(const Build &build, Stage stage);
    void save(bool askForName, bool overwriteChanges = false);
    void browse();
    void openPalette();
    /// The card for a part of one's own: like a type, or from nothing (empty).
    void ownPartLike(const QString &type);
    /// One's own parts; `pasting`: the page for a pasted table.
    void showOwnParts(bool pasting);
    /// Types of one's own that were corrected after this build had taken them in: shown, and followed when wanted.
    void offerCorrectedTypes();
    void addFromLibrary(const std::string &typeId);
    void copyChosen(bool cut);
    void paste();
    void duplicateChosen();
    void pasteParts(const Build &clip, const QString &name);
    void showPartMenu(const QPoint &at);
    void zoomToChosen();
    void fitDrawing();
    void tell(const QString &text, bool bad);
    /// After a part was seated on one of several like places: the others at once.
    void offerAllAlike(const QString &part);
    /// Dialogs keep a folder for each kind of file; never one of the program's own.
    void saveTo(const QString &path, bool overwrite = false);
    void rememberRecent(const QString &path);
    void forgetRecent(const QString &path);
    QStringList recentFiles() const;
    void showHistory();
    void showHelp();
    void pickProfile(int index);

    theme::Theme &theme_;
    Document document_;
    Autosave autosave_;
    QString libraryProblem_; ///< until it was said beside an open file
    Stage stage_ = Stage::place;
    ActionTable *table_ = nullptr;
    SurveyRunner *surveyor_ = nullptr;
    QStackedWidget *bench_ = nullptr;
    std::array<Bench *, kStageCount> benches_{}; ///< by stage
    place::PlaceBench *place_ = nullptr;
    stackbench::StackBench *stack_ = nullptr;
    wire::WireBench *wire_ = nullptr;
    radio::RadioBench *radio_ = nullptr;
    balance::BalanceBench *balance_ = nullptr;
    assembly::BuildBench *build_ = nullptr;
    logbench::LogBench *log_ = nullptr;
    Instruments *instruments_ = nullptr;
    kit::KitBench *kit_ = nullptr;
    frame::FrameBench *frame_ = nullptr;
    StartPage *start_ = nullptr;
    PracticeSheet *practiceSheet_ = nullptr;
    BuildSheet *buildSheet_ = nullptr;
    LessonStrip *lesson_ = nullptr;
    StageRail *rail_ = nullptr;
    InspectorPanel *inspector_ = nullptr;
    FindingsPanel *findings_ = nullptr;
    AxisBar *axisBar_ = nullptr;
    NoticeBar *notices_ = nullptr;
    CommandPalette *palette_ = nullptr;
    QComboBox *loadCases_ = nullptr;
    QComboBox *profiles_ = nullptr;
    QLabel *title_ = nullptr;
    QWidget *ledger_ = nullptr;
    QSplitter *ledgerSplit_ = nullptr;
    bool ledgerMoved_ = false;
    QScrollArea *inspectorScroll_ = nullptr;
};

} // namespace waxis::app
