#include "app/document/survey_runner.h"
#include "app/shell/findings_panel.h"
#include "app/shell/guarded_application.h"
#include "app/shell/main_window.h"
#include "app/shell/plurals.h"
#include "app/stages/balance/balance_bench.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/pending/pending_bench.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/stack/stack_bench.h"
#include "app/stages/wire/wire_bench.h"
#include "app/widgets/notice_bar.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QElapsedTimer>
#include <QLocale>
#include <QSettings>
#include <QTemporaryDir>
#include <QTextStream>
#include <QTimer>
#include <algorithm>

namespace {

int fail(const QString &why) {
    QTextStream(stderr) << "weightaxis: " << why << '\n';
    return 2;
}

/// Without a display pictures and help still work, drawn off screen; a window needs one. False: nothing can be done.
bool canStart(int argc, char **argv) {
    if (qEnvironmentVariableIsSet("DISPLAY") || qEnvironmentVariableIsSet("WAYLAND_DISPLAY") ||
        qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
        return true;
    const bool needsNoWindow = std::any_of(argv + 1, argv + argc, [](const char *word) {
        const QByteArrayView argument(word);
        return argument.startsWith("--screenshot") || argument == "--help" || argument == "-h" ||
               argument == "--version" || argument == "-v";
    });
    if (needsNoWindow) qputenv("QT_QPA_PLATFORM", "offscreen");
    return needsNoWindow;
}

} // namespace

int main(int argc, char **argv) {
    QElapsedTimer sinceStart;
    sinceStart.start();
    if (!canStart(argc, argv))
        return fail(
            "there is no display (neither DISPLAY nor WAYLAND_DISPLAY is set). --screenshot OUT.png draws the window "
            "to a file, xvfb-run gives it a display of its own.");
    waxis::app::GuardedApplication application(argc, argv);
    QApplication::setApplicationName("weightaxis");
    QApplication::setApplicationDisplayName("Weightaxis");
    QApplication::setApplicationVersion(WEIGHTAXIS_VERSION);
    QApplication::setOrganizationName("weightaxis");
    waxis::app::loadPlurals();
    QLocale::setDefault(QLocale::c()); // one way to write numbers everywhere; typed ones may have a decimal comma

    QCommandLineParser parser;
    parser.setApplicationDescription("Plan where everything mounts in a multirotor frame.");
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(
        "FILE", "build to open (.waxis); a frame drawing (.dxf) or kit list (.csv) to begin one with", "[FILE]");
    const QCommandLineOption screenshot("screenshot", "Save a picture of the window and end.", "OUT.png");
    const QCommandLineOption size("size", "Size of the window, as 1280x800.", "WxH", "1280x800");
    const QCommandLineOption stage(
        "stage", "Stage to show: kit, frame, place, stack, wire, radio, balance, build, log.", "STAGE", "place");
    const QCommandLineOption themeName("theme", "light or dark.", "THEME");
    const QCommandLineOption pair("pair", "In Radio: the pair to look at.", "FROM,TO");
    const QCommandLineOption select("select", "Part to select.", "ID");
    const QCommandLineOption lower("lower", "Place: what the lower view shows: side, front, solid, lens, sky.", "VIEW",
                                   "side");
    const QCommandLineOption larger("larger", "Place: the lower view takes most of the bench.");
    const QCommandLineOption overlays("overlays", "Place: overlays switched by their digits, as 1246.", "DIGITS");
    const QCommandLineOption loadCase("load-case", "Load case to show.", "ID");
    const QCommandLineOption ghost("ghost", "Place: drop a ghost of the GPS at a place in plan; may be repeated.",
                                   "X,Y");
    const QCommandLineOption practice("practice", "Show the practice sheet.");
    const QCommandLineOption editPart("edit-part", "Open a part type of the build in the part editor.", "TYPE");
    const QCommandLineOption page("page", "Wire, Radio and Balance: the page to show.", "PAGE");
    const QCommandLineOption startTime("start-time", "Print the milliseconds to a usable window and end.");
    parser.addOptions({screenshot, size, stage, themeName, select, pair, lower, larger, overlays, loadCase, ghost,
                       practice, editPart, page, startTime});
    parser.process(application);

    const bool picture = parser.isSet(screenshot);
    const QTemporaryDir settingsForPictures; // a picture neither shows nor changes what the user has set
    if (picture) QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settingsForPictures.path());
    const QString wantedTheme = parser.isSet(themeName) ? parser.value(themeName)
                                : picture               ? "light"
                                                        : QSettings().value("theme", "light").toString();
    if (wantedTheme != "light" && wantedTheme != "dark") return fail("--theme takes light or dark");
    waxis::theme::Theme theme(wantedTheme == "dark" ? waxis::theme::Mode::dark : waxis::theme::Mode::light);

    waxis::app::MainWindow window(theme);
    application.setRescue([&window](const QString &what) { window.survive(what); });
    if (!picture) application.setLastWords([&window] { window.autosave().writeNow(); });
    const auto &stages = waxis::app::stageTexts();
    const auto wanted =
        std::find_if(stages.begin(), stages.end(), [&](const auto &s) { return s.id == parser.value(stage); });
    if (wanted == stages.end()) return fail("there is no stage \"" + parser.value(stage) + "\"");
    const auto files = parser.positionalArguments();
    if (files.size() > 1) return fail("one FILE at a time");
    if (!files.isEmpty()) {
        const bool opened = window.openAny(files.first());
        if (!opened && picture) return fail(window.notices().text());
        if (opened && files.first().endsWith(".waxis")) window.setStage(waxis::Stage(wanted - stages.begin()));
    }
    if (parser.isSet(select)) window.document().select(parser.value(select));

    const QStringList lowers{"side", "front", "solid", "lens", "sky"};
    const auto lowerView = lowers.indexOf(parser.value(lower));
    if (lowerView < 0) return fail("--lower takes " + lowers.join(", "));
    window.placeBench().showLower(waxis::place::Lower(lowerView));
    for (const QChar digit : parser.value(overlays)) window.placeBench().toggleOverlay(digit.digitValue());
    if (parser.isSet(loadCase)) {
        const auto &cases = window.document().analysis().derived.loadCases;
        const auto at = std::find_if(cases.begin(), cases.end(), [&](const auto &c) {
            return QString::fromStdString(c.id) == parser.value(loadCase);
        });
        if (at == cases.end()) return fail("the build has no load case \"" + parser.value(loadCase) + "\"");
        window.document().setLoadCase(int(at - cases.begin()));
    }

    for (const auto &place : parser.values(ghost)) {
        const auto numbers = place.split(',');
        if (numbers.size() != 2) return fail("--ghost takes X,Y in mm");
        window.placeBench().sky().addGhost(waxis::drawing::View::plan,
                                           {numbers[0].toDouble(), numbers[1].toDouble(), 0});
    }
    if (parser.isSet(page)) {
        const auto wire = QStringList{"routes", "pins", "cut"}.indexOf(parser.value(page));
        const auto radio =
            QStringList{"matrix", "coverage", "compass", "places", "ground", "study"}.indexOf(parser.value(page));
        const auto balance = QStringList{"target", "grams", "packs", "doubt", "weighings"}.indexOf(parser.value(page));
        if (wire < 0 && radio < 0 && balance < 0)
            return fail(
                "--page takes routes, pins, cut, matrix, coverage, compass, places, ground, study, target, grams, "
                "packs, doubt or weighings");
        if (balance >= 0) window.balanceBench().showPage(waxis::balance::Page(balance));
        if (wire >= 0) window.wireBench().showPage(waxis::wire::Page(wire));
        if (radio >= 0) window.radioBench().showPage(waxis::radio::Page(radio));
    }
    if (parser.isSet(pair)) {
        const auto ids = parser.value(pair).split(',');
        if (ids.size() != 2) return fail("--pair takes FROM,TO: a sender and a listener");
        window.document().lookAtPair({ids[0], ids[1]});
    }
    if (parser.isSet(practice)) window.showPracticeSheet();
    if (parser.isSet(editPart)) {
        if (!window.document().build().types->contains(parser.value(editPart).toStdString()))
            return fail("the build has no part type \"" + parser.value(editPart) + "\"");
        window.setStage(waxis::Stage::kit);
        window.kitBench().changePart(parser.value(editPart).toStdString());
    }

    if (picture) {
        const auto numbers = parser.value(size).split('x');
        const int width = numbers.value(0).toInt(), height = numbers.value(1).toInt();
        if (numbers.size() != 2 || width < 100 || height < 100) return fail("--size takes WIDTHxHEIGHT, as 1280x800");
        window.setMinimumSize(0, 0);
        window.resize(width, height);
        window.show();
        if (parser.isSet(larger))
            QTimer::singleShot(100, &window, [&] { window.placeBench().enlargeLower(true); }); // once it has its size
        QTimer shutter; // once the window stands still and the survey is in
        QObject::connect(&shutter, &QTimer::timeout, &window, [&] {
            if (!window.surveyor().isSettled() || !window.findings().isSettled() ||
                !window.stackBench().whatIf().isSettled() || !window.radioBench().isSettled() ||
                !window.balanceBench().isSettled())
                return;
            shutter.stop();
            QTimer::singleShot(300, &window, [&] { // the panels have taken it in
                const bool saved = window.grab().save(parser.value(screenshot));
                QApplication::exit(saved ? 0 : fail("cannot write " + parser.value(screenshot)));
            });
        });
        shutter.start(700);
        return QApplication::exec();
    }
    window.show();
    window.offerRecovery();
    if (parser.isSet(startTime))
        QTimer::singleShot(0, &window, [&] {
            QApplication::processEvents();
            QTextStream(stdout) << sinceStart.elapsed() << " ms\n";
            QApplication::exit(0);
        });
    return QApplication::exec();
}
