#include "app/document/survey_runner.h"
#include "app/shell/findings_panel.h"
#include "app/shell/guarded_application.h"
#include "app/shell/main_window.h"
#include "app/shell/plurals.h"
#include "app/stages/balance/balance_bench.h"
#include "app/stages/build/build_bench.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/log/log_bench.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/sky_panel.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/stack/stack_bench.h"
#include "app/stages/stage_texts.h"
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

using waxis::app::MainWindow;

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

/// What can be asked for on the command line; the help lists it in this order.
struct Options {
    QCommandLineOption screenshot{"screenshot", "Save a picture of the window and end.", "OUT.png"};
    QCommandLineOption size{"size", "Size of the window, as 1280x800.", "WxH", "1280x800"};
    QCommandLineOption stage{"stage", "Stage to show: kit, frame, place, stack, wire, radio, balance, build, log.",
                             "STAGE", "place"};
    QCommandLineOption theme{"theme", "light or dark.", "THEME"};
    QCommandLineOption select{"select", "Part to select.", "ID"};
    QCommandLineOption pair{"pair", "In Radio: the pair to look at.", "FROM,TO"};
    QCommandLineOption lower{"lower", "Place: what the lower view shows: side, front, solid, lens, sky.", "VIEW",
                             "side"};
    QCommandLineOption larger{"larger", "Place: the lower view takes most of the bench."};
    QCommandLineOption overlays{"overlays", "Place: overlays switched by their digits, as 1246.", "DIGITS"};
    QCommandLineOption loadCase{"load-case", "Load case to show.", "ID"};
    QCommandLineOption ghost{"trial", "Place: remember a place for the GPS, in plan; may be repeated.", "X,Y"};
    QCommandLineOption practice{"practice", "Show the practice sheet."};
    QCommandLineOption editPart{"edit-part", "Open a part type of the build in the part editor.", "TYPE"};
    QCommandLineOption page{"page", "Wire, Radio and Balance: the page to show.", "PAGE"};
    QCommandLineOption startTime{"start-time", "Print the milliseconds to a usable window and end."};

    void addTo(QCommandLineParser &parser) const {
        parser.setApplicationDescription("Plan where everything mounts in a multirotor frame.");
        parser.addHelpOption();
        parser.addVersionOption();
        parser.addPositionalArgument(
            "FILE", "build to open (.waxis); a frame drawing (.dxf) or kit list (.csv) to begin one with", "[FILE]");
        parser.addOptions({screenshot, size, stage, theme, select, pair, lower, larger, overlays, loadCase, ghost,
                           practice, editPart, page, startTime});
    }
};

// The following say what is wrong with what was asked for; nothing when it was done.

QString openFile(MainWindow &window, const QCommandLineParser &parser, const Options &options) {
    const auto &stages = waxis::app::stageTexts();
    const QString id = parser.value(options.stage);
    const auto wanted = std::find_if(stages.begin(), stages.end(), [&](const auto &s) { return s.id == id; });
    if (wanted == stages.end()) return "there is no stage \"" + id + "\"";
    const auto files = parser.positionalArguments();
    if (files.size() > 1) return "one FILE at a time";
    if (files.isEmpty()) return {};
    const bool opened = window.openAny(files.first());
    if (!opened && parser.isSet(options.screenshot)) return window.notices().text();
    if (opened && files.first().endsWith(".waxis")) window.setStage(waxis::Stage(wanted - stages.begin()));
    return {};
}

QString showInPlace(MainWindow &window, const QCommandLineParser &parser, const Options &options) {
    const QStringList lowers{"side", "front", "solid", "lens", "sky"};
    const auto lowerView = lowers.indexOf(parser.value(options.lower));
    if (lowerView < 0) return "--lower takes " + lowers.join(", ");
    window.placeBench().showLower(waxis::place::Lower(lowerView));
    for (const QChar digit : parser.value(options.overlays)) window.placeBench().toggleOverlay(digit.digitValue());
    for (const auto &place : parser.values(options.ghost)) {
        const auto numbers = place.split(',');
        if (numbers.size() != 2) return "--trial takes X,Y in mm";
        window.placeBench().sky().addPlace(waxis::drawing::View::plan,
                                           {numbers[0].toDouble(), numbers[1].toDouble(), 0});
    }
    return {};
}

QString showLoadCase(MainWindow &window, const QString &id) {
    const auto &cases = window.document().analysis().derived.loadCases;
    const auto at =
        std::find_if(cases.begin(), cases.end(), [&](const auto &c) { return QString::fromStdString(c.id) == id; });
    if (at == cases.end()) return "the build has no load case \"" + id + "\"";
    window.document().setLoadCase(int(at - cases.begin()));
    return {};
}

QString showPage(MainWindow &window, const QString &page) {
    const auto wire = QStringList{"routes", "pins", "cut", "joints"}.indexOf(page);
    const auto radio = QStringList{"matrix", "coverage", "compass", "places", "ground", "study"}.indexOf(page);
    const auto balance = QStringList{"target", "grams", "packs", "propellers", "doubt", "weighings"}.indexOf(page);
    const auto build = QStringList{"steps", "checks", "settings", "service"}.indexOf(page);
    const auto log = QStringList{"entries", "trials", "planned", "changes"}.indexOf(page);
    if (wire < 0 && radio < 0 && balance < 0 && build < 0 && log < 0)
        return "--page takes routes, pins, cut, matrix, coverage, compass, places, ground, study, target, grams, "
               "packs, propellers, doubt, weighings, steps, checks, settings, service, entries, trials, planned or "
               "changes";
    if (log >= 0) window.logBench().showPage(waxis::logbench::Page(log));
    if (build >= 0) window.buildBench().showPage(waxis::assembly::Page(build));
    if (balance >= 0) window.balanceBench().showPage(waxis::balance::Page(balance));
    if (wire >= 0) window.wireBench().showPage(waxis::wire::Page(wire));
    if (radio >= 0) window.radioBench().showPage(waxis::radio::Page(radio));
    return {};
}

QString showPair(MainWindow &window, const QString &pair) {
    const auto ids = pair.split(',');
    if (ids.size() != 2) return "--pair takes FROM,TO: a sender and a listener";
    window.document().lookAtPair({ids[0], ids[1]});
    return {};
}

QString editPart(MainWindow &window, const std::string &type) {
    if (!window.document().build().types->contains(type))
        return "the build has no part type \"" + QString::fromStdString(type) + "\"";
    window.setStage(waxis::Stage::kit);
    window.kitBench().changePart(type);
    return {};
}

/// Everything that was asked for, up to the first thing that cannot be.
QString show(MainWindow &window, const QCommandLineParser &parser, const Options &options) {
    QString wrong = openFile(window, parser, options);
    const auto then = [&](const QCommandLineOption &option, auto &&showIt) {
        if (wrong.isEmpty() && parser.isSet(option)) wrong = showIt(parser.value(option));
    };
    then(options.select, [&](const QString &id) {
        window.document().select(id);
        return QString();
    });
    if (wrong.isEmpty()) wrong = showInPlace(window, parser, options);
    then(options.loadCase, [&](const QString &id) { return showLoadCase(window, id); });
    then(options.page, [&](const QString &page) { return showPage(window, page); });
    then(options.pair, [&](const QString &pair) { return showPair(window, pair); });
    then(options.practice, [&](const QString &) {
        window.showPracticeSheet();
        return QString();
    });
    then(options.editPart, [&](const QString &type) { return editPart(window, type.toStdString()); });
    return wrong;
}

/// Runs until the window stands still and the survey is in, saves a picture and ends.
int takePicture(MainWindow &window, const QCommandLineParser &parser, const Options &options) {
    const auto numbers = parser.value(options.size).split('x');
    const int width = numbers.value(0).toInt(), height = numbers.value(1).toInt();
    if (numbers.size() != 2 || width < 100 || height < 100) return fail("--size takes WIDTHxHEIGHT, as 1280x800");
    window.setMinimumSize(0, 0);
    window.resize(width, height);
    window.show();
    if (parser.isSet(options.larger))
        QTimer::singleShot(100, &window, [&] { window.placeBench().enlargeLower(true); }); // once it has its size
    QTimer shutter;
    QObject::connect(&shutter, &QTimer::timeout, &window, [&] {
        if (!window.surveyor().isSettled() || !window.findings().isSettled() ||
            !window.stackBench().whatIf().isSettled() || !window.radioBench().isSettled() ||
            !window.balanceBench().isSettled() || !window.buildBench().isSettled())
            return;
        shutter.stop();
        QTimer::singleShot(300, &window, [&] { // the panels have taken it in
            const QString path = parser.value(options.screenshot);
            QApplication::exit(window.grab().save(path) ? 0 : fail("cannot write " + path));
        });
    });
    shutter.start(700);
    return QApplication::exec();
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

    const Options options;
    QCommandLineParser parser;
    options.addTo(parser);
    parser.process(application);

    const bool picture = parser.isSet(options.screenshot);
    const QTemporaryDir settingsForPictures; // a picture neither shows nor changes what the user has set
    if (picture) QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settingsForPictures.path());
    const QString wantedTheme = parser.isSet(options.theme) ? parser.value(options.theme)
                                : picture                   ? "light"
                                                            : QSettings().value("theme", "light").toString();
    if (wantedTheme != "light" && wantedTheme != "dark") return fail("--theme takes light or dark");
    waxis::theme::Theme theme(wantedTheme == "dark" ? waxis::theme::Mode::dark : waxis::theme::Mode::light);

    MainWindow window(theme);
    application.setRescue([&window](const QString &what) { window.survive(what); });
    if (!picture) application.setLastWords([&window] { window.autosave().writeNow(); });
    if (const QString wrong = show(window, parser, options); !wrong.isEmpty()) return fail(wrong);
    if (picture) return takePicture(window, parser, options);
    window.show();
    window.offerRecovery();
    if (parser.isSet(options.startTime))
        QTimer::singleShot(0, &window, [&] {
            QApplication::processEvents();
            QTextStream(stdout) << sinceStart.elapsed() << " ms\n";
            QApplication::exit(0);
        });
    return QApplication::exec();
}
