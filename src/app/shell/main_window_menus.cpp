// What the window's menus hold: one table of actions, and the menus made of it.
#include "app/shell/main_window.h"

#include "app/document/clipboard.h"
#include "app/document/data_files.h"
#include "app/shell/findings_panel.h"
#include "app/shell/group_tools.h"
#include "app/stages/balance/balance_bench.h"
#include "app/stages/frame/frame_bench.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/outline_panel.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/place_view.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/stack/stack_bench.h"
#include "app/stages/stage_texts.h"
#include "app/stages/wire/wire_bench.h"
#include "core/edits/case_edits.h"
#include "core/edits/wire_edits.h"
#include "core/sums/sum.h"

#include <QFileInfo>
#include <QListView>
#include <QMenu>
#include <QMenuBar>
#include <QSettings>

namespace waxis::app {

std::vector<ActionSpec> MainWindow::actionSpecs() {
    // A frame alone is worth keeping too.
    auto anything = [this] {
        const Build &build = document_.build();
        return !build.parts.empty() || !document_.path().isEmpty() || document_.isModified() ||
               !build.frame->plates.empty() || !build.frame->arms.empty();
    };
    auto chosen = [this] { return document_.selectedPart() != nullptr; };
    // In Stack they turn and take out the chosen layer.
    auto onPart = [this](void (stackbench::StackCanvas::*layer)(), auto part) {
        return [this, layer, part] {
            if (stage_ == Stage::stack)
                (stack_->canvas().*layer)();
            else
                part(place_->plan());
        };
    };
    auto several = [this] { return !document_.selectedParts().empty(); };
    std::vector<ActionSpec> specs{
        {"start-page", Menu::file, tr("Start page"), {}, {}, [this] { showStart(); }},
        {"new-layout", Menu::file, tr("New from a layout"), QKeySequence::New, {}, [this] { newFromLayout(); }},
        {"new-drawing", Menu::file, tr("New from a frame drawing…"), {}, {}, [this] { newFromDrawing(); }},
        {"new-kit", Menu::file, tr("New from a kit list…"), {}, {}, [this] { newFromKitList(); }},
        {"open", Menu::file, tr("Open…"), QKeySequence::Open, {}, [this] { browse(); }},
        {"save", Menu::file, tr("Save"), QKeySequence::Save, anything, [this] { save(false); }},
        {"save-as", Menu::file, tr("Save as…"), QKeySequence("Ctrl+Shift+S"), anything, [this] { save(true); }},
        {"quit", Menu::file, tr("Quit"), QKeySequence("Ctrl+Q"), {}, [this] { close(); }, true},
        {"undo", Menu::edit, tr("Undo"), QKeySequence::Undo, [this] { return document_.history().canUndo(); },
         [this] { document_.history().undo(); }},
        {"redo", Menu::edit, tr("Redo"), QKeySequence("Ctrl+Shift+Z"), [this] { return document_.history().canRedo(); },
         [this] { document_.history().redo(); }},
        {"history", Menu::edit, tr("History…"), {}, anything, [this] { showHistory(); }},
        {"cut", Menu::edit, tr("Cut"), QKeySequence::Cut, several, [this] { copyChosen(true); }, true},
        {"copy", Menu::edit, tr("Copy"), QKeySequence::Copy, several, [this] { copyChosen(false); }},
        {"paste", Menu::edit, tr("Paste"), QKeySequence::Paste, [] { return arePartsOnClipboard(); },
         [this] { paste(); }},
        {"duplicate", Menu::edit, tr("Duplicate"), QKeySequence("Ctrl+D"), several, [this] { duplicateChosen(); }},
        {"build-sheet", Menu::edit, tr("Name, notes and load cases…"), {}, {}, [this] { showBuildSheet(); }, true},
        {"palette", Menu::edit, tr("Go to or do…"), QKeySequence("Ctrl+K"), {}, [this] { openPalette(); }, true},
        {"turn-left",
         Menu::part,
         tr("Turn left\tQ"),
         {},
         chosen,
         onPart(&stackbench::StackCanvas::turnLeft, [](place::PlaceView &v) { v.turnChosen(1); })},
        {"turn-right",
         Menu::part,
         tr("Turn right\tE"),
         {},
         chosen,
         onPart(&stackbench::StackCanvas::turnRight, [](place::PlaceView &v) { v.turnChosen(-1); })},
        {"upside-down",
         Menu::part,
         tr("Upside down\tV"),
         {},
         chosen,
         onPart(&stackbench::StackCanvas::flipChosen, [](place::PlaceView &v) { v.overturnChosen(); })},
        {"pin", Menu::part, tr("Pin or unpin\tSpace"), {}, chosen, [this] { place_->plan().pinChosen(); }},
        {"remove",
         Menu::part,
         tr("Remove\tDel"),
         {},
         [this, chosen] { return chosen() || findWire(document_.build(), document_.selected().toStdString()); },
         [this,
          remove = onPart(&stackbench::StackCanvas::removeChosen, [](place::PlaceView &v) { v.removeChosen(); })] {
             const std::string id = document_.selected().toStdString();
             if (const Wire *wire = findWire(document_.build(), id))
                 document_.edit(tr("Take %1 out").arg(QString::fromStdString(wire->name)),
                                removeWire(document_.build(), id));
             else
                 remove();
         },
         true},
        {"replace", Menu::part, tr("Replace by another type…"), QKeySequence("Ctrl+R"), chosen,
         [this] {
             const QString part = document_.selected();
             setStage(Stage::place);
             place_->showLibrary(true);
             place_->library().replace(part);
         }},
        {"optional",
         Menu::part,
         tr("Optional, or always aboard"),
         {},
         chosen,
         [this] {
             if (const Part *part = document_.selectedPart())
                 document_.edit(part->optional ? tr("%1 always aboard").arg(QString::fromStdString(part->name))
                                               : tr("Make %1 optional").arg(QString::fromStdString(part->name)),
                                makeOptional(document_.build(), part->id, !part->optional));
         }},
        {"like-this",
         Menu::part,
         tr("A part of your own like this one…"),
         {},
         chosen,
         [this] {
             if (const Part *part = document_.selectedPart()) ownPartLike(QString::fromStdString(part->type));
         }},
        {"own-parts", Menu::part, tr("My parts…"), {}, {}, [this] { showOwnParts(false); }, true},
        {"paste-parts", Menu::part, tr("My parts from a pasted table…"), {}, {}, [this] { showOwnParts(true); }},
        {"new-part",
         Menu::part,
         tr("New part type"),
         {},
         {},
         [this] {
             setStage(Stage::kit);
             kit_->newPart();
         }},
        {"change-type",
         Menu::part,
         tr("Change the part type"),
         {},
         chosen,
         [this] {
             setStage(Stage::kit);
             if (const Part *part = document_.selectedPart()) kit_->changePart(part->type);
         }},
        {"library",
         Menu::view,
         tr("Part library"),
         QKeySequence("Ctrl+L"),
         {},
         [this] {
             setStage(Stage::place);
             // Open but without the keyboard it takes it; only then it closes.
             const bool has = place_->library().isVisible() && place_->library().hasKeyboard();
             place_->showLibrary(!has);
         }},
        {"fit", Menu::view, tr("Fit the drawing\t0"), {}, anything, [this] { fitDrawing(); }},
        {"zoom",
         Menu::view,
         tr("Zoom to what is chosen\tZ"),
         {},
         [this] { return !document_.selected().isEmpty() || stage_ == Stage::radio || stage_ == Stage::balance; },
         [this] { zoomToChosen(); }},
        {"outline",
         Menu::view,
         tr("All things, a list"),
         QKeySequence("Ctrl+Shift+L"),
         {},
         [this] {
             setStage(Stage::place);
             place_->showOutline(!place_->outline().isVisible());
         }},
        {"theme",
         Menu::view,
         tr("Light or dark"),
         QKeySequence("Ctrl+T"),
         {},
         [this] {
             theme_.setMode(theme_.mode() == theme::Mode::light ? theme::Mode::dark : theme::Mode::light);
             QSettings().setValue("theme", theme_.mode() == theme::Mode::dark ? "dark" : "light");
         }},
        {"why", Menu::check, tr("Next finding"), QKeySequence("F10"), anything, [this] { findings_->showNext(); }},
        {"practice", Menu::check, tr("Practice: limits and schools"), {}, anything, [this] { showPracticeSheet(); }},
        {"lesson", Menu::help, tr("First build, a lesson"), {}, {}, [this] { startLesson(); }},
        {"help", Menu::help, tr("Keys and hands"), QKeySequence("?"), {}, [this] { showHelp(); }},
    };
    for (int i = 0; i < kStageCount; ++i)
        specs.push_back({"stage-" + stageTexts()[std::size_t(i)].id,
                         Menu::view,
                         stageTexts()[std::size_t(i)].name,
                         QKeySequence(Qt::Key_F1 + i),
                         {},
                         [this, i] { goToStage(Stage(i)); },
                         i == 0});
    for (auto &spec : arrangeSpecs()) specs.push_back(std::move(spec));
    for (const auto &overlay : drawing::kOverlays)
        specs.push_back(
            {QStringLiteral("overlay-%1").arg(overlay.key),
             Menu::view,
             tr("Overlay: %1").arg(drawing::overlayText(overlay.says)) + QStringLiteral("\t%1").arg(overlay.key),
             {},
             {},
             [this, digit = overlay.key] {
                 setStage(Stage::place);
                 place_->toggleOverlay(digit);
             },
             overlay.key == 1});
    const std::pair<place::Lower, QString> lowers[] = {
        {place::Lower::side, tr("Lower view: side")},
        {place::Lower::front, tr("Lower view: front")},
        {place::Lower::solid, tr("Lower view: solid, in three dimensions")},
        {place::Lower::lens, tr("Lower view: what the camera sees")},
        {place::Lower::sky, tr("Lower view: sky over the GPS")}};
    for (const auto &[which, text] : lowers)
        specs.push_back({QStringLiteral("lower-%1").arg(int(which)),
                         Menu::view,
                         text,
                         {},
                         {},
                         [this, which = which] {
                             setStage(Stage::place);
                             place_->showLower(which);
                         },
                         which == place::Lower::side});
    const auto page = [&](Stage stage, const QString &text, std::function<void()> show) {
        specs.push_back({QStringLiteral("page-%1").arg(specs.size()),
                         Menu::view,
                         tr("%1: %2").arg(stageTexts()[std::size_t(stage)].name, text),
                         {},
                         {},
                         [this, stage, show = std::move(show)] {
                             setStage(stage);
                             show();
                         }});
    };
    const std::pair<wire::Page, QString> wirePages[] = {{wire::Page::routes, tr("routes")},
                                                        {wire::Page::pins, tr("pins")},
                                                        {wire::Page::cut, tr("cut list")},
                                                        {wire::Page::joints, tr("joints")}};
    for (const auto &[which, text] : wirePages)
        page(Stage::wire, text, [this, which = which] { wire_->showPage(which); });
    const std::pair<radio::Page, QString> radioPages[] = {
        {radio::Page::matrix, tr("ladder and matrix")}, {radio::Page::coverage, tr("coverage")},
        {radio::Page::compass, tr("compass")},          {radio::Page::places, tr("GPS places")},
        {radio::Page::ground, tr("ground link")},       {radio::Page::study, tr("field study")}};
    for (const auto &[which, text] : radioPages)
        page(Stage::radio, text, [this, which = which] { radio_->showPage(which); });
    const std::pair<balance::Page, QString> balancePages[] = {
        {balance::Page::target, tr("target")},
        {balance::Page::grams, tr("grams, limits and what to lose")},
        {balance::Page::packs, tr("other packs")},
        {balance::Page::propellers, tr("other propellers")},
        {balance::Page::doubt, tr("doubt, what to weigh next")},
        {balance::Page::weighings, tr("weighings")}};
    for (const auto &[which, text] : balancePages)
        page(Stage::balance, text, [this, which = which] { balance_->showPage(which); });
    for (const auto &sum : sumRegistry())
        specs.push_back({"sum-" + QString::fromStdString(sum.name),
                         Menu::check,
                         QString::fromStdString(sum.title),
                         {},
                         {},
                         [this, name = QString::fromStdString(sum.name)] { showSum(name); },
                         &sum == &sumRegistry().front()});
    return specs;
}

std::vector<ActionSpec> MainWindow::arrangeSpecs() {
    auto several = [this](std::size_t least) {
        return [this, least] { return document_.selectedParts().size() >= least; };
    };
    std::vector<ActionSpec> specs;
    for (const auto &tool : groupTools())
        specs.push_back({tool.id, Menu::arrange, tool.text, tool.key, several(tool.least),
                         [this, tool] { tool.run(document_); }, tool.separatorBefore});
    return specs;
}

void MainWindow::makeMenus() {
    const std::pair<Menu, QString> titles[] = {
        {Menu::file, tr("File")}, {Menu::edit, tr("Edit")},   {Menu::part, tr("Part")}, {Menu::arrange, tr("Arrange")},
        {Menu::view, tr("View")}, {Menu::check, tr("Check")}, {Menu::help, tr("Help")}};
    for (const auto &[which, text] : titles) {
        auto *menu = menuBar()->addMenu(text);
        QMenu *pages = nullptr, *sums = nullptr; // many of a kind: one level down
        for (const auto &spec : table_->specs()) {
            if (spec.menu != which) continue;
            QMenu *place = menu;
            if (spec.id.startsWith("page-")) {
                if (!pages) pages = menu->addMenu(tr("Pages"));
                place = pages;
            } else if (spec.id.startsWith("sum-")) {
                if (!sums) sums = menu->addMenu(tr("Quick sums"));
                place = sums;
            } else if (spec.separatorBefore)
                menu->addSeparator();
            place->addAction(table_->action(spec.id));
            if (spec.id == "open") {
                auto *recent = menu->addMenu(tr("Open recent"));
                connect(recent, &QMenu::aboutToShow, this, [this, recent] {
                    recent->clear();
                    for (const auto &path : recentFiles())
                        recent
                            ->addAction(tr("%1   in %2")
                                            .arg(QFileInfo(path).completeBaseName(),
                                                 shortFolder(QFileInfo(path).absolutePath())),
                                        this, [this, path] { openAsking(path); })
                            ->setToolTip(path);
                    for (const auto &path : demoFiles())
                        recent->addAction(tr("Demo: %1").arg(demoTitle(path)), this,
                                          [this, path] { openAsking(path); });
                });
            }
            if (spec.id == "remove") {
                auto *add = menu->addMenu(tr("Add from the library"));
                connect(add, &QMenu::aboutToShow, this, [this, add] {
                    add->clear();
                    for (const auto &[id, type] : document_.library())
                        add->addAction(QString::fromStdString(type.name), this,
                                       [this, typeId = id] { addFromLibrary(typeId); });
                });
            }
        }
    }
    menuBar()->setCornerWidget(makeTopRow());
}

} // namespace waxis::app
