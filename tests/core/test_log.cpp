// The log: entries as they are typed, what trials tell, what was measured against what is planned, what is taken over.
#include "core/edits/feedback_edits.h"
#include "core/edits/log_edits.h"
#include "core/instructions/log_words.h"
#include "core/log/entry_text.h"
#include "core/log/fingerprint.h"
#include "core/log/trial_report.h"
#include "core/measured/log_report.h"
#include "core/wiring/wire_report.h"
#include "support/builds.h"
#include "support/findings.h"

#include <QTest>
#include <cmath>
#include <random>

using namespace waxis;

namespace {

Trial trialOf(std::vector<double> a, std::vector<double> b, TrialQuantity quantity = TrialQuantity::secondsToFix) {
    Trial trial;
    trial.id = "t";
    trial.question = "Which?";
    trial.quantity = quantity;
    trial.setups.resize(2);
    trial.setups[0].id = trial.setups[0].name = "tail";
    trial.setups[1].id = trial.setups[1].name = "mast";
    int n = 0;
    const auto add = [&](const char *setup, double value) {
        Try one;
        one.id = "try" + std::to_string(++n);
        one.setup = setup;
        one.value = std::abs(value);
        one.reached = value > 0; // negative: given up after that long
        trial.tries.push_back(one);
    };
    for (const double value : a) add("tail", value);
    for (const double value : b) add("mast", value);
    return trial;
}

/// The demo as it was before anything was measured.
Build plainDemo() {
    Build build = test::stakewalker();
    build.log = SharedValue<Log>();
    return build;
}

Build withSession(Build build) {
    Session session;
    session.at = "2026-05-14T10:20:00+02:00";
    return *addSession(build, session);
}

Build logged(const Build &build, const std::string &line) {
    const auto entry = readEntry(build, line);
    if (!entry) qFatal("%s: %s", line.c_str(), entry.error().message.c_str());
    const auto next = addEntry(build, *entry);
    if (!next) qFatal("%s", next.error().message.c_str());
    return *next;
}

LogReport reportOf(const Build &build) {
    Analyser analyser;
    return *analyser.update(build).derived.log;
}

const PlannedMeasured *rowOf(const LogReport &report, Quantity quantity) {
    for (const auto &row : report.rows)
        if (row.quantity == quantity) return &row;
    return nullptr;
}

} // namespace

class TestLog : public QObject {
    Q_OBJECT

private slots:
    void entriesAreReadAsTyped_data() {
        QTest::addColumn<QString>("line");
        QTest::addColumn<int>("quantity");
        QTest::addColumn<QString>("subject");
        QTest::addColumn<QList<double>>("values");
        QTest::addColumn<QString>("text");
        const auto row = [](const char *line, Quantity quantity, const char *subject, QList<double> values,
                            const char *text = "") {
            QTest::newRow(line) << line << int(quantity) << subject << values << text;
        };
        row("weight gps 12.4 g", Quantity::partWeight, "gps", {12.4});
        row("w gps 12.4", Quantity::partWeight, "gps", {12.4});
        row("weight \"Buzzer\" 2,1 g", Quantity::partWeight, "buzzer", {2.1});
        row("craft 1.18 kg", Quantity::craftWeight, "", {1180});
        row("idle 350 mA", Quantity::idleCurrent, "", {0.35});
        row("hover 12.5A", Quantity::hoverCurrent, "", {12.5});
        row("flight 9:40 1850 mAh a little jello", Quantity::flight, "", {9 + 40.0 / 60, 1850}, "a little jello");
        row("flight 1850 mAh 9:40", Quantity::flight, "", {9 + 40.0 / 60, 1850});
        row("size gps 25 x 25 x 8 mm", Quantity::size, "gps", {25, 25, 8});
        row("size gps 25x25x8mm", Quantity::size, "gps", {25, 25, 8});
        row("temperature vtx 71 C after 3 min", Quantity::temperature, "vtx", {71, 3});
        row("balance -3 mm 1 mm", Quantity::craftBalance, "", {-3, 1});
        row("turned 2 -4 1 5", Quantity::headingTurned, "", {2, -4, 1, 5});
        row("range 140 m -92 dBm", Quantity::rangeWalk, "", {140, -92});
        row("seen jello 2 above half throttle", Quantity::seen, "", {2}, "above half throttle");
        row("open telemetry stays silent", Quantity::openEnd, "", {}, "telemetry stays silent");
        row("damage vtx cracked lens", Quantity::damage, "vtx", {}, "cracked lens");
    }
    void entriesAreReadAsTyped() {
        QFETCH(QString, line);
        QFETCH(int, quantity);
        QFETCH(QString, subject);
        QFETCH(QList<double>, values);
        QFETCH(QString, text);
        const Build build = plainDemo();
        const auto entry = readEntry(build, line.toStdString());
        QVERIFY2(entry, entry ? "" : entry.error().message.c_str());
        QCOMPARE(int(entry->quantity), quantity);
        QCOMPARE(entry->subjects.empty() ? QString() : QString::fromStdString(entry->subjects[0]), subject);
        QCOMPARE(entry->values.size(), std::size_t(values.size()));
        for (int i = 0; i < values.size(); ++i) QVERIFY(std::abs(entry->values[std::size_t(i)] - values[i]) < 1e-9);
        QCOMPARE(QString::fromStdString(entry->text), text);
        // What is shown can be typed again.
        const auto again = readEntry(build, entryLine(build, *entry));
        QVERIFY2(again, entryLine(build, *entry).c_str());
        QCOMPARE(again->subjects, entry->subjects);
        QCOMPARE(again->text, entry->text);
        for (std::size_t i = 0; i < entry->values.size(); ++i)
            QVERIFY(std::abs(again->values[i] - entry->values[i]) < 0.01);
    }
    void whatCannotBeReadSaysWhere_data() {
        QTest::addColumn<QString>("line");
        QTest::addColumn<int>("at");
        QTest::addColumn<QString>("says");
        QTest::addColumn<QString>("suggests");
        QTest::newRow("nothing") << "" << 0 << "nothing is typed"
                                 << "";
        QTest::newRow("no quantity") << "wieght gps 12" << 0 << "nothing that can be entered"
                                     << "weight";
        QTest::newRow("no part") << "weight gpx 12 g" << 7 << "no part of this build"
                                 << "gps";
        QTest::newRow("wrong unit") << "weight gps 12 mm" << 11 << "is no weight"
                                    << "";
        QTest::newRow("no number") << "hover" << 5 << "1 value is wanted"
                                   << "";
        QTest::newRow("three of four") << "turned 1 2 3" << 12 << "4 values are wanted"
                                       << "";
        QTest::newRow("out of range") << "throttle 130 %" << 14 << "not between 0 and 100"
                                      << "";
        QTest::newRow("unknown sight") << "seen jallo 2" << 5 << "none of the words"
                                       << "jello";
        QTest::newRow("doubt") << "weight gps 12 g ± much" << 16 << "a doubt is wanted"
                               << "";
    }
    void whatCannotBeReadSaysWhere() {
        QFETCH(QString, line);
        QFETCH(int, at);
        QFETCH(QString, says);
        QFETCH(QString, suggests);
        const auto entry = readEntry(plainDemo(), line.toStdString());
        QVERIFY(!entry);
        QVERIFY2(QString::fromStdString(entry.error().message).contains(says), entry.error().message.c_str());
        QCOMPARE(int(entry.error().at), at);
        QCOMPARE(QString::fromStdString(entry.error().suggestion), suggests);
    }
    void wordsAreCompleted() {
        const Build build = plainDemo();
        QCOMPARE(entryCompletions(build, "te"), (std::vector<std::string>{"temperature"}));
        const auto parts = entryCompletions(build, "weight gp");
        QVERIFY(!parts.empty() && parts.front() == "gps");
        QVERIFY(entryCompletions(build, "idle 3").empty());
    }

    void fiveAgainstFiveTell() {
        const Trial trial = trialOf({214, 262, 301, 188, 355}, {96, 118, 131, 88, 142});
        const TrialReport report = trialReport(trial, 0.05);
        QCOMPARE(report.winner, std::string("mast"));
        QCOMPARE(report.pairs.size(), std::size_t(1));
        const TrialComparison &pair = report.pairs[0];
        QVERIFY(pair.telling == Telling::told && pair.better == "mast" && !pair.moreEach);
        QVERIFY(std::abs(pair.test.chance - 2.0 / 252) < 1e-12);
        QVERIFY(pair.shift.low > 0 && pair.shift.low <= pair.shift.shift && pair.shift.shift <= pair.shift.high);
        QCOMPARE(wordComparison(trial, pair).text().find("mast is quicker than tail by"), std::size_t(0));
        QVERIFY(wordComparison(trial, pair).text().find("5 against 5 tries; chance alone would do that once in 126.") !=
                std::string::npos);
        QCOMPARE(*report.setups[0].median, 262.0);
        QCOMPARE(*report.setups[1].best, 88.0);
    }
    void threeAgainstThreeCannotTell() {
        const TrialReport report = trialReport(trialOf({214, 262, 301}, {96, 118, 131}), 0.05);
        QVERIFY(report.pairs[0].telling == Telling::tooFew); // even so far apart it is one in ten
        QVERIFY(report.winner.empty());
        QVERIFY(trialReport(trialOf({214, 262}, {96, 118, 131, 90, 95}), 0.05).pairs[0].telling == Telling::tooFew);
        // Four against four can.
        QVERIFY(trialReport(trialOf({214, 262, 301, 280}, {96, 118, 131, 90}), 0.05).pairs[0].telling == Telling::told);
    }
    void whatIsNotToldAsksForMore() {
        const Trial trial = trialOf({120, 150, 135, 160, 140}, {118, 142, 133, 148, 129});
        const TrialComparison pair = trialReport(trial, 0.05).pairs[0];
        QVERIFY(pair.telling == Telling::notYet);
        QVERIFY(pair.moreEach && *pair.moreEach > 0);
        QVERIFY(wordComparison(trial, pair).text().find("No difference can be told yet") == 0);
    }
    void triesThatWereGivenUpRankLast() {
        // Two never got there: they are no better than the slowest, and they are not dropped.
        const Trial trial = trialOf({-360, 240, -360, 250, 300}, {96, 118, 131, 88, 142});
        const TrialReport report = trialReport(trial, 0.05);
        QVERIFY(report.pairs[0].telling == Telling::told && report.pairs[0].isShiftAtLeast);
        QCOMPARE(report.setups[0].notReached, 2);
        QCOMPARE(*report.setups[0].median, 300.0);
        QVERIFY(!report.setups[0].worst && !report.setups[0].isWorstReached);
        QCOMPARE(report.pairs[0].otherTries, 5);
        // Given up early is not quick.
        const TrialReport early = trialReport(trialOf({-30, -30, -30, -30, -30}, {96, 118, 131, 88, 142}), 0.05);
        QVERIFY(early.pairs[0].better == "mast" && early.pairs[0].telling == Telling::told);
    }
    void moreCanBeBetter() {
        const TrialReport report =
            trialReport(trialOf({30, 31, 29, 30.5, 32}, {38, 39, 41, 37, 40}, TrialQuantity::carrierToNoise), 0.05);
        QCOMPARE(report.winner, std::string("mast"));
        QVERIFY(report.pairs[0].shift.shift > 0);
    }
    void sessionsAreComparedWithinThemselves() {
        // The second day was slow for both: mixed up, the difference drowns; within the days it does not.
        Trial trial = trialOf({130, 140, 150, 430, 440, 450}, {100, 110, 120, 400, 410, 420});
        QVERIFY(trialReport(trial, 0.05).pairs[0].telling == Telling::notYet);
        for (auto &one : trial.tries) one.session = *one.value < 300 ? "s1" : "s2";
        const TrialComparison pair = trialReport(trial, 0.05).pairs[0];
        QVERIFY(pair.bySession && pair.telling == Telling::told && pair.better == "mast");
        QVERIFY(std::abs(pair.shift.shift - 30) < 1e-9);
        // 2 of the 20 x 20 arrangements lie as far off.
        QVERIFY(std::abs(pair.test.chance - 2.0 / 400) < 1e-12);
    }
    void thresholdsAreAppliedAfterwards() {
        Trial trial = trialOf({}, {});
        trial.quantity = TrialQuantity::secondsToSatellites;
        Try one;
        one.setup = "tail";
        one.watched_s = 300;
        one.reached_s = {20, 25, 31, 40, 55, 80, 120, 240};
        trial.satellites = 5;
        QVERIFY(tryValue(trial, one)->value == 55 && tryValue(trial, one)->reached);
        trial.satellites = 8;
        QCOMPARE(tryValue(trial, one)->value, 240.0);
        trial.satellites = 9;
        QVERIFY(tryValue(trial, one)->value == 300 && !tryValue(trial, one)->reached);
        trial.quantity = TrialQuantity::secondsToFix;
        QVERIFY(!tryValue(trial, one)->reached);
    }
    void plansAreFair() {
        Trial trial = trialOf({}, {});
        std::string order;
        for (int i = 0; i < 8; ++i) {
            Try one;
            one.setup = nextSetup(trial);
            order += one.setup == "tail" ? 'A' : 'B';
            one.value = 1;
            trial.tries.push_back(one);
        }
        QCOMPARE(order, std::string("ABBAABBA"));
    }
    void aBetterPlaceIsFoundAsOftenAsTheFormulaSays() {
        // Power: 5 against 5 with times that spread by a third; one place takes twice as long. And no difference: the
        // verdict is wrong in no more than one of twenty.
        std::mt19937 random(11);
        std::lognormal_distribution<double> slow(std::log(200), 0.33), quick(std::log(100), 0.33);
        constexpr int kTimes = 400;
        int found = 0, wrong = 0;
        for (int i = 0; i < kTimes; ++i) {
            std::vector<double> a, b, c;
            for (int k = 0; k < 5; ++k) {
                a.push_back(slow(random));
                b.push_back(quick(random));
                c.push_back(quick(random));
            }
            found += trialReport(trialOf(a, b), 0.05).winner == "mast";
            wrong += !trialReport(trialOf(b, c), 0.05).winner.empty();
        }
        qInfo("found %d, wrong %d of %d", found, wrong, kTimes);
        QVERIFY(found > 0.7 * kTimes);
        QVERIFY(wrong <= 0.05 * kTimes);
    }

    void aWeightIsComparedAndTaken() {
        const Build build = withSession(plainDemo());
        const auto before = reportOf(build);
        QVERIFY(before.rows.empty());
        const Build next = logged(build, "weight gps 15 g");
        const auto report = reportOf(next);
        const PlannedMeasured *row = rowOf(report, Quantity::partWeight);
        QVERIFY(row && row->planned && row->measured == 15 && row->feedback.size() == 1);
        const auto taken = takeFeedback(next, row->feedback[0]);
        QVERIFY(taken);
        QCOMPARE(*findPart(*taken, "gps")->mass_g.value, 15.0);
        const PlannedMeasured after = *rowOf(reportOf(*taken), Quantity::partWeight);
        QVERIFY(after.agreement == Agreement::agrees && after.feedback.empty() && *after.planned == 15);
    }
    void hoverCorrectsTheFigureOfMerit() {
        const Build build = withSession(plainDemo());
        const auto planned = rowOf(reportOf(logged(build, "hover 1 A")), Quantity::hoverCurrent)->planned;
        QVERIFY(planned && *planned > 1);
        const Build worse = logged(build, "hover " + std::to_string(1.3 * *planned) + " A");
        const auto report = reportOf(worse);
        const PlannedMeasured *row = rowOf(report, Quantity::hoverCurrent);
        QVERIFY(row && !row->feedback.empty());
        EditResult taken = worse;
        for (const auto &feedback : row->feedback) taken = takeFeedback(*taken, feedback);
        QVERIFY(taken);
        const PlannedMeasured after = *rowOf(reportOf(*taken), Quantity::hoverCurrent);
        QVERIFY2(std::abs(*after.planned / after.measured - 1) < 0.005, std::to_string(*after.planned).c_str());
        QVERIFY(!taken->practice.notes.empty());
    }
    void leadsCutLongerBecomeSlack() {
        Build build = withSession(plainDemo());
        Analyser analyser;
        const auto wires = analyser.update(build).derived.wiring->wires;
        int cut = 0;
        for (const auto &wire : wires)
            if (wire.verdict == LeadVerdict::cut && cut < 7) {
                Entry entry;
                entry.quantity = Quantity::leadCut;
                entry.subjects = {wire.wire};
                entry.values = {wire.cut_mm + 14};
                build = *addEntry(build, entry);
                ++cut;
            }
        QVERIFY2(cut >= 6, std::to_string(cut).c_str());
        const auto report = reportOf(build);
        QVERIFY(report.slack && report.slack->values[0] == 14 && report.leads.longer == cut);
        const auto taken = takeFeedback(build, *report.slack);
        QVERIFY(taken);
        const auto after = analyser.update(*taken).derived;
        for (const auto &wire : wires)
            for (const auto &now : after.wiring->wires)
                if (now.wire == wire.wire && wire.verdict == LeadVerdict::cut && now.resolder_mm > 0)
                    QVERIFY(now.cut_mm >= wire.cut_mm + 10);
        QVERIFY(!after.log->slack);
    }
    void everyFeedbackIsUndone() {
        // An edit gives another build; the one before is as it was, so taking back is to have kept it.
        const Build build = logged(withSession(plainDemo()), "sag gps 0.7 mm");
        const Build copy = build;
        const auto report = reportOf(build);
        QVERIFY(rowOf(report, Quantity::sag) && !rowOf(report, Quantity::sag)->feedback.empty());
        const auto taken = takeFeedback(build, rowOf(report, Quantity::sag)->feedback[0]);
        QVERIFY(taken && !(*taken == build));
        QVERIFY(build == copy);
        QVERIFY(!takeFeedback(build, {FeedbackKind::partWeight, "nobody", {3}, {}, {}, ""}));
        QVERIFY(!takeFeedback(build, {FeedbackKind::partWeight, "gps", {std::nan("")}, {}, {}, ""}));
        QVERIFY(!takeFeedback(build, {FeedbackKind::kindSize, "gps", {3}, {}, {}, ""}));
    }
    void placesChangeOverWithTheTrialsWinner() {
        const Build build = plainDemo();
        const Pose there{Vec3(-60, 0, 80), Quat::Identity()};
        Feedback feedback{FeedbackKind::place, "gps", {}, {}, {}, "trial", there};
        const auto moved = takeFeedback(build, feedback);
        QVERIFY(moved);
        QVERIFY((framePose(*moved, *findPart(*moved, "gps")).position_mm - there.position_mm).norm() < 1e-9);
        // Where it stood is a trial place now, and the way back is the same edit.
        QCOMPARE(moved->trials.size(), build.trials.size() + 1);
        feedback.X_FramePart = framePose(build, *findPart(build, "gps"));
        const auto back = takeFeedback(*moved, feedback);
        QVERIFY(back && back->trials.size() == moved->trials.size());
        QVERIFY((framePose(*back, *findPart(*back, "gps")).position_mm - feedback.X_FramePart->position_mm).norm() <
                1e-9);
    }
    void fingerprintsKnowWhatMatters() {
        const Build build = plainDemo();
        const std::string print = fingerprintOf(build);
        QCOMPARE(print.size(), std::size_t(16));
        Build same = build;
        same.note = "another note";
        same.parts[0].note = "words";
        same.practice.limits["tip-gap"] = 3;
        same = withSession(same);
        QCOMPARE(fingerprintOf(same), print);
        Build other = build;
        other.parts[3].placement.pose.position_mm.x() += 0.5;
        QVERIFY(fingerprintOf(other) != print);
        other = build;
        other.wires[0].lay = other.wires[0].lay == WireLay::twisted ? WireLay::loose : WireLay::twisted;
        QVERIFY(fingerprintOf(other) != print);
    }
    void sessionsKeepTheirOrderAndTakeTheirEntriesAlong() {
        Build build = withSession(plainDemo());
        Session earlier;
        earlier.at = "2026-05-12T09:00:00+02:00";
        build = *addSession(build, earlier);
        QVERIFY(build.log->sessions[0].at < build.log->sessions[1].at);
        build = logged(build, "idle 0.3 A"); // goes to the last
        QCOMPARE(build.log->entries[0].session, build.log->sessions[1].id);
        QVERIFY(!addEntry(build, Entry{}));
        const auto gone = removeSession(build, build.log->sessions[1].id);
        QVERIFY(gone && gone->log->entries.empty() && gone->log->sessions.size() == 1);
        QVERIFY(!addEntry(plainDemo(), build.log->entries[0]));
    }
};

QTEST_GUILESS_MAIN(TestLog)
#include "test_log.moc"
