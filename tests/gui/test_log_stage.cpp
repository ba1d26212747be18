// The Log bench with mouse and keys, and the instruments: simulated ones over pseudo-terminals, plugged, pulled,
// spoilt.
#include "app/document/instruments.h"
#include "app/shell/findings_panel.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/log/log_bench.h"
#include "app/widgets/port_strip.h"
#include "core/base/by_id.h"
#include "core/build/log.h"
#include "core/edits/log_edits.h"
#include "core/edits/part_edits.h"
#include "core/kit/kit.h"
#include "core/measured/log_report.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QProcess>
#include <QPushButton>
#include <QStandardPaths>
#include <QToolButton>

using namespace waxis;
using namespace waxis::test;

namespace {

logbench::LogBench &bench(WindowFixture &f, logbench::Page page = logbench::Page::entries) {
    f.window->setStage(Stage::log);
    f.window->logBench().showPage(page);
    QTest::qWait(30);
    return f.window->logBench();
}

const Log &logOf(WindowFixture &f) { return *f.document().build().log; }

void press(WindowFixture &f, const char *name) {
    auto *button = f.window->findChild<QAbstractButton *>(name);
    QVERIFY2(button && button->isVisible() && button->isEnabled(), name);
    QTest::mouseClick(button, Qt::LeftButton);
}

QString text(WindowFixture &f, const char *name) {
    auto *label = f.window->findChild<QLabel *>(name);
    return label ? label->text() : QString();
}

void type(WindowFixture &f, const QString &line) {
    auto &edit = f.window->logBench().entries().line();
    edit.setFocus();
    edit.clear();
    QTest::keyClicks(&edit, line);
    QTest::keyClick(&edit, Qt::Key_Escape); // what is offered under it
    QTest::keyClick(&edit, Qt::Key_Return);
}

/// Answers the next question for a line of text.
void answer(const QString &line) {
    QTimer::singleShot(150, [line] {
        auto *dialog = qobject_cast<QInputDialog *>(QApplication::activeModalWidget());
        if (!dialog) return;
        dialog->setTextValue(line);
        dialog->accept();
    });
}

constexpr int kPatience_ms = 60000;

} // namespace

class TestLogStage : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() {
        QStandardPaths::setTestModeEnabled(true);
        qputenv("WEIGHTAXIS_SIM", WEIGHTAXIS_SIM_PROGRAM);
    }

    void anEntryIsTypedSeenChangedAndTakenBack() {
        WindowFixture f;
        auto &b = bench(f);
        press(f, "new-session");
        const std::size_t before = logOf(f).entries.size();
        type(f, "weight gps 11.9 g");
        QCOMPARE(logOf(f).entries.size(), before + 1);
        QVERIFY(b.entries().line().text().isEmpty() && b.entries().line().hasFocus());
        auto &table = b.entries().table();
        QCOMPARE(table.rowCount(), 1);
        QCOMPARE(table.item(0, 2)->text(), QString("11.9 g"));
        QVERIFY(!logOf(f).sessions.back().fingerprint.empty());
        // What cannot be read stays where it is, with the reason and what was meant.
        type(f, "weight gpx 3 g");
        QCOMPARE(logOf(f).entries.size(), before + 1);
        QVERIFY2(text(f, "entry-hint").contains("did you mean \"gps\""), qPrintable(text(f, "entry-hint")));
        QCOMPARE(b.entries().line().text(), QString("weight gpx 3 g"));
        // In its cell.
        table.setCurrentCell(0, 2);
        table.editItem(table.item(0, 2));
        auto *editor = table.findChild<QLineEdit *>();
        QVERIFY(editor);
        editor->setText("12.1 g");
        QTest::keyClick(editor, Qt::Key_Return);
        QTRY_COMPARE(logOf(f).entries.back().values[0], 12.1); // an editor gives its text back in its own time
        press(f, "entry-aside");
        QVERIFY(logOf(f).entries.back().setAside);
        for (int i = 0; i < 4; ++i) f.document().history().undo();
        QCOMPARE(logOf(f).entries.size(), before);
    }
    void anOpenEndIsMended() {
        WindowFixture f;
        auto &b = bench(f);
        press(f, "new-session");
        type(f, "open telemetry stays silent");
        b.entries().table().setCurrentCell(0, 0);
        press(f, "entry-blocks");
        const auto open = [&] {
            int count = 0;
            for (const auto &finding : f.document().analysis().findings)
                count += finding.rule == RuleId::logOpen && finding.severity == Severity::watch;
            return count;
        };
        QCOMPARE(open(), 1);
        answer("telemetry wire was on the wrong pad");
        press(f, "entry-cure");
        QCOMPARE(logOf(f).entries.back().cure, std::string("telemetry wire was on the wrong pad"));
        QCOMPARE(open(), 0);
    }
    void aSessionSaysWhereAndHow() {
        WindowFixture f;
        bench(f);
        press(f, "new-session");
        auto *place = f.window->findChild<QLineEdit *>("session-place");
        auto *air = f.window->findChild<QLineEdit *>("session-air");
        place->setFocus();
        QTest::keyClick(place, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(place, "South bank");
        QTest::keyClick(place, Qt::Key_Return);
        air->setFocus();
        QTest::keyClick(air, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClicks(air, "64 F");
        QTest::keyClick(air, Qt::Key_Return);
        QCOMPARE(logOf(f).sessions.back().place, std::string("South bank"));
        QVERIFY(std::abs(*logOf(f).sessions.back().air_C - 17.78) < 0.01);
        QVERIFY(f.window->logBench().sessions().list().item(0)->text().contains("South bank"));
        const auto sessions = logOf(f).sessions.size(), entries = logOf(f).entries.size();
        type(f, "idle 350 mA");
        press(f, "remove-session");
        QVERIFY(logOf(f).sessions.size() == sessions - 1 && logOf(f).entries.size() == entries);
        f.document().history().undo();
        QVERIFY(logOf(f).sessions.size() == sessions && logOf(f).entries.size() == entries + 1);
    }
    void theFlightsClockEntersAFlight() {
        WindowFixture f;
        bench(f);
        press(f, "new-session");
        press(f, "flight-timer");
        QTest::qWait(1300);
        QVERIFY(text(f, "flight-clock") != "0:00");
        press(f, "flight-timer");
        QVERIFY(logOf(f).entries.back().quantity == Quantity::flight && logOf(f).entries.back().values[0] > 0.015);
    }
    void aListIsReadAndItsFaultsAreSaid() {
        WindowFixture f;
        auto &b = bench(f);
        press(f, "new-session");
        const QString path = f.folder.filePath("list.csv");
        QFile file(path);
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("quantity,of,values,doubt\r\nweight,gps,12.2 g,0.1\r\nwieght,gps,3 g,\r\nidle,,350 mA,\r\n");
        file.close();
        const std::size_t before = logOf(f).entries.size();
        QSignalSpy said(&b, &app::Bench::said);
        b.entries().importList(path);
        QCOMPARE(logOf(f).entries.size(), before + 2);
        QVERIFY(said.count() == 1 && said[0][0].toString().contains("line 3"));
        QCOMPARE(*logOf(f).entries[before].tolerance, 0.1);
        QCOMPARE(logOf(f).entries[before + 1].values[0], 0.35);
    }
    void whatWasMeasuredIsTakenOverAndUndone() {
        WindowFixture f;
        auto &b = bench(f);
        press(f, "new-session");
        type(f, "weight gps 15 g");
        b.showPage(logbench::Page::planned);
        auto &table = b.planned().table();
        int row = -1;
        for (int r = 0; r < table.rowCount(); ++r)
            if (table.item(r, 0)->text().startsWith("GPS with compass")) row = r;
        QVERIFY(row >= 0);
        QCOMPARE(table.item(row, 4)->text(), QString("apart"));
        table.setCurrentCell(row, 0);
        // What it would change is said before it is taken.
        QVERIFY(QTest::qWaitFor([&] { return text(f, "planned-would").startsWith("Taken over:"); }, kPatience_ms));
        QVERIFY2(text(f, "planned-would").contains("g"), qPrintable(text(f, "planned-would")));
        const Build before = f.document().build();
        press(f, "planned-take");
        QCOMPARE(*findPart(f.document().build(), "gps")->mass_g.value, 15.0);
        f.document().history().undo();
        QVERIFY(f.document().build() == before);
        // Every other row that can be taken is undone as well.
        int taken = 0;
        for (int r = 0; r < table.rowCount(); ++r) {
            table.setCurrentCell(r, 0);
            auto *take = f.window->findChild<QPushButton *>("planned-take");
            if (!take->isVisible()) continue;
            QTest::mouseClick(take, Qt::LeftButton);
            QVERIFY(!(f.document().build() == before));
            f.document().history().undo();
            QVERIFY(f.document().build() == before);
            ++taken;
        }
        QVERIFY2(taken >= 3, QByteArray::number(taken));
    }
    void aStateIsKeptComparedAndGoneBackTo() {
        WindowFixture f;
        auto &b = bench(f, logbench::Page::changes);
        answer("before the buzzer moves");
        press(f, "state-keep");
        QCOMPARE(logOf(f).snapshots.back().name, std::string("before the buzzer moves"));
        const Vec3 before = framePose(f.document().build(), *findPart(f.document().build(), "buzzer")).position_mm;
        QVERIFY(f.document().edit("Move", shiftPart(f.document().build(), "buzzer", Vec3(-7, 0, 0))));
        auto *from = f.window->findChild<QComboBox *>("changes-from");
        from->setCurrentIndex(from->count() - 1);
        auto &table = b.changes().table();
        QVERIFY(QTest::qWaitFor([&] { return table.rowCount() > 0 && table.item(0, 0)->text() == "Buzzer"; },
                                kPatience_ms));
        QVERIFY2(table.item(0, 1)->text().contains("7.0 mm aft"), qPrintable(table.item(0, 1)->text()));
        press(f, "state-back");
        QVERIFY(
            (framePose(f.document().build(), *findPart(f.document().build(), "buzzer")).position_mm - before).norm() <
            1e-6);
        QCOMPARE(logOf(f).snapshots.back().name, std::string("before the buzzer moves")); // the log stays
        f.document().history().undo();
        QVERIFY(
            (framePose(f.document().build(), *findPart(f.document().build(), "buzzer")).position_mm - before).norm() >
            6);
    }
    void aFindingLeadsToWhatItIsAbout() {
        WindowFixture f;
        auto &b = bench(f, logbench::Page::changes);
        QVERIFY(b.reveal({}, RuleId::logLeads));
        QVERIFY(b.planned().isVisible());
        QVERIFY(b.reveal({"gps"}, RuleId::logTrial));
        QVERIFY(b.trials().isVisible());
        QVERIFY(b.reveal({}, RuleId::logOpen));
        QVERIFY(b.entries().isVisible());
    }

    void theKitIsWeighedPieceByPiece() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        app::Instruments &instruments = f.window->instruments();
        instruments.setSpeed(10);
        instruments.setSeed(5);
        auto *strip = f.window->kitBench().findChild<app::PortStrip *>();
        QVERIFY(strip);
        strip->simulate();
        QVERIFY(QTest::qWaitFor([&] { return instruments.scale().reading().has_value(); }, kPatience_ms));
        const auto unweighed = [&] {
            int count = 0;
            for (const auto &line : *f.document().analysis().derived.kit)
                count += line.needed > 0 && !line.weighedMass_g.known() && line.catalogueMass_g.known();
            return count;
        };
        const int before = unweighed();
        QVERIFY(before >= 4);
        const auto entries = logOf(f).entries.size();
        press(f, "weighing-start");
        auto &walk = f.window->kitBench().weighing();
        QVERIFY(walk.isRunning() && !walk.item().empty());
        const std::string first = walk.item();
        QVERIFY(QTest::qWaitFor([&] { return unweighed() <= before - 3; }, kPatience_ms));
        // The row is filled, and the log keeps what the scale sent.
        const KitEntry *entry = findKitEntry(f.document().build(), first);
        QVERIFY(entry && entry->mass_g.known() && entry->mass_g.source == Source::measured);
        QVERIFY(logOf(f).entries.size() >= entries + 3);
        QVERIFY(logOf(f).entries.back().raw.starts_with("ST,GS"));
        // Pulled out in the middle: it waits, and goes on when it is back.
        instruments.tellScale("fault unplug 2");
        QVERIFY(QTest::qWaitFor([&] { return instruments.scale().line().state() == LineState::absent; }, kPatience_ms));
        QVERIFY(!instruments.scale().line().advice().isEmpty());
        const int then = unweighed();
        QVERIFY(QTest::qWaitFor([&] { return instruments.scale().line().state() == LineState::open; }, kPatience_ms));
        QVERIFY(QTest::qWaitFor([&] { return unweighed() < then || !walk.isRunning(); }, kPatience_ms));
        walk.stop();
        QVERIFY(!walk.isRunning());
    }
    void garbageAndCutLinesAreSkipped() {
        WindowFixture f;
        bench(f, logbench::Page::trials);
        app::Instruments &instruments = f.window->instruments();
        instruments.setSpeed(20);
        instruments.simulateReceiver(f.document().build(), "gps");
        GnssLink &gnss = instruments.gnss();
        QVERIFY(QTest::qWaitFor([&] { return gnss.receiver().state().hasFix; }, kPatience_ms));
        for (const char *fault : {"fault garbage", "fault cut", "fault checksum"}) instruments.tellReceiver(fault);
        const auto refused = gnss.receiver().counts().refused;
        QVERIFY(QTest::qWaitFor([&] { return gnss.receiver().counts().refused > refused + 20; }, kPatience_ms));
        const auto rounds = gnss.receiver().counts().rounds;
        QVERIFY(QTest::qWaitFor([&] { return gnss.receiver().counts().rounds > rounds + 20; }, kPatience_ms));
        QVERIFY(!gnss.receiver().lastFault().empty());
        QVERIFY(gnss.receiver().state().used < 100);
        // Silence is said, and that it is over.
        instruments.tellReceiver("fault none");
        instruments.tellReceiver("fault silence");
        QVERIFY(QTest::qWaitFor([&] { return gnss.line().state() == LineState::silent; }, kPatience_ms));
        QVERIFY(gnss.summary().contains("nothing comes"));
        instruments.tellReceiver("fault none");
        QVERIFY(QTest::qWaitFor([&] { return gnss.line().state() == LineState::open; }, kPatience_ms));
        instruments.closeReceiver();
        QVERIFY(!gnss.isOpen() && !instruments.isReceiverSimulated());
    }
    void aPortThatIsNotThereIsWaitedFor() {
        WindowFixture f;
        app::Instruments &instruments = f.window->instruments();
        instruments.openReceiver(f.folder.filePath("nothing-here"));
        QVERIFY(instruments.gnss().line().state() == LineState::absent);
        QVERIFY(instruments.gnss().summary().contains("plug it in"));
        instruments.openScale(f.folder.filePath("nothing-here"), 9600, scalePatterns().front());
        QVERIFY(instruments.scale().line().state() == LineState::absent);
        instruments.closeReceiver();
        instruments.closeScale();
    }
    void aRecordingIsPlayed() {
        WindowFixture f;
        const QString path = f.folder.filePath("try.nmea");
        QCOMPARE(QProcess::execute(WEIGHTAXIS_SIM_PROGRAM, {"gnss", "--seconds", "90", "--out", path}), 0);
        app::Instruments &instruments = f.window->instruments();
        QVERIFY(instruments.replayReceiver(path, 60));
        QVERIFY(QTest::qWaitFor([&] { return instruments.gnss().receiver().state().used >= 12; }, kPatience_ms));
        QSignalSpy said(&instruments, &app::Instruments::said);
        QVERIFY(!instruments.replayReceiver(f.folder.filePath("none.nmea"), 1));
        QVERIFY(said.count() == 1 && said[0][1].toBool());
    }
    /// From a cold start to the verdict, sixty times as fast as the clock: the place over the video unit is slower, and
    /// the bench says so by itself.
    void aTrialRunsFromColdStartToItsVerdict() {
        WindowFixture f;
        auto &b = bench(f, logbench::Page::trials);
        f.document().select("gps");
        const std::size_t trials = logOf(f).trials.size();
        press(f, "trial-new");
        QCOMPARE(logOf(f).trials.size(), trials + 1);
        const std::string id = logOf(f).trials.back().id;
        // Two ways: where it is, and over the video unit.
        Trial trial = *byId(logOf(f).trials, id);
        QVERIFY(trial.part == "gps" && !trial.setups.empty());
        trial.setups.resize(1);
        TrialSetup over;
        over.name = "Over the video unit";
        over.stood = StoodAt{{Vec3(-30, 0, 60), trial.setups[0].stood->X_FramePart.rotation}};
        trial.setups.push_back(over);
        trial.satellites = 12;
        trial.longest_s = 240;
        QVERIFY(f.document().edit("Ways", changeTrialOf(f.document().build(), trial)));
        app::Instruments &instruments = f.window->instruments();
        instruments.setSpeed(60);
        instruments.setSeed(21);
        instruments.simulateReceiver(f.document().build(), "gps");
        QVERIFY(QTest::qWaitFor([&] { return instruments.gnss().isAlive(); }, kPatience_ms));
        QStringList told;
        connect(&f.document(), &app::Document::refused, this, [&](const QString &why) { told << why; });
        connect(&b, &app::Bench::said, this, [&](const QString &what, bool) { told << what; });
        std::string order;
        for (int n = 0; n < 8; ++n) {
            const auto before = byId(logOf(f).trials, id)->tries.size();
            press(f, "try-arm");
            QVERIFY(b.trials().runner().state() != logbench::TryState::idle);
            order += b.trials().runner().setup() == byId(logOf(f).trials, id)->setups[0].id ? 'A' : 'B';
            const bool kept =
                QTest::qWaitFor([&] { return byId(logOf(f).trials, id)->tries.size() > before; }, kPatience_ms);
            QVERIFY2(kept, qPrintable(QString("try %1: %2, %3 s, %4")
                                          .arg(n)
                                          .arg(int(b.trials().runner().state()))
                                          .arg(b.trials().runner().running_s())
                                          .arg(instruments.gnss().summary() + told.join("; "))));
        }
        QCOMPARE(order, std::string("ABBAABBA"));
        const Trial &done = *byId(logOf(f).trials, id);
        for (const auto &one : done.tries) {
            QVERIFY2(one.instrument == "simulated receiver" && one.watched_s > 10 && one.heard.size() > 10,
                     qPrintable(QString("%1, %2 s, %3 heard, %4 reached, %5")
                                    .arg(QString::fromStdString(one.instrument))
                                    .arg(one.watched_s)
                                    .arg(one.heard.size())
                                    .arg(one.reached_s.size())
                                    .arg(QString::fromStdString(one.setup))));
            QVERIFY(one.nose_deg.has_value());
        }
        const QString verdict = text(f, "trial-verdict");
        QVERIFY2(verdict.contains("Where it is is quicker than Over the video unit"), qPrintable(verdict));
        QVERIFY(verdict.contains("4 against 4 tries; chance alone would do that once in 35."));
        // It stands where it did better: nothing to find. Once it stands elsewhere the finding says so, with the way
        // back.
        const auto found = [&]() -> const Finding * {
            for (const auto &finding : f.document().analysis().findings)
                if (finding.rule == RuleId::logTrial && finding.variant == id) return &finding;
            return nullptr;
        };
        QVERIFY(!found());
        const Pose was = framePose(f.document().build(), *findPart(f.document().build(), "gps"));
        QVERIFY(f.document().edit("Move", movePart(f.document().build(), "gps", over.stood->X_FramePart)));
        const Finding *finding = found();
        QVERIFY(finding && finding->fixes.size() == 1);
        QVERIFY(f.document().edit("Back", applyFix(f.document().build(), finding->fixes[0])));
        QVERIFY(!found());
        QVERIFY((framePose(f.document().build(), *findPart(f.document().build(), "gps")).position_mm - was.position_mm)
                    .norm() < 0.1);
        // What was heard lies over what is predicted.
        QVERIFY(QTest::qWaitFor([&] { return text(f, "sky-proof").contains("open:"); }, kPatience_ms));
    }
    void aTryIsTypedByHand() {
        WindowFixture f;
        auto &b = bench(f, logbench::Page::trials);
        const Trial &trial = logOf(f).trials.front();
        const auto before = trial.tries.size();
        auto *value = f.window->findChild<QLineEdit *>("try-value");
        QVERIFY(value && value->isVisible());
        value->setFocus();
        QTest::keyClicks(value, "2:10");
        QTest::keyClick(value, Qt::Key_Return);
        QTest::keyClicks(value, "> 6:00");
        QTest::keyClick(value, Qt::Key_Return);
        QElapsedTimer clock;
        clock.start();
        QTest::keyClicks(value, "2:20");
        QTest::keyClick(value, Qt::Key_Return);
        qInfo("a try by hand took %lld ms", clock.elapsed());
        const auto &tries = logOf(f).trials.front().tries;
        QCOMPARE(tries.size(), before + 3);
        QVERIFY(*tries[before].value == 130 && tries[before].reached);
        QVERIFY(*tries[before + 1].value == 360 && !tries[before + 1].reached);
        press(f, "way-tries");
        QVERIFY(b.trials().tries().isVisible());
        b.trials().chooseSetup(tries[before].setup);
        QStringList values;
        for (int row = 0; row < b.trials().tries().rowCount(); ++row) values << b.trials().tries().item(row, 1)->text();
        QVERIFY2(values.contains("2:10"), qPrintable(values.join(", ")));
    }
};

QTEST_MAIN(TestLogStage)
#include "test_log_stage.moc"
