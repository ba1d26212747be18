// Hands on the mat: drag, nudge, turn, pin, type, undo, in the real window; numbers must change as the core computes
// them.
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/place_view.h"
#include "core/analysis/analysis.h"
#include "core/derived/all_up.h"
#include "gui/window_fixture.h"

#include <QDropEvent>
#include <QLineEdit>
#include <QMimeData>

#include <QAbstractButton>
#include <QComboBox>
#include <QCompleter>
#include <QLineEdit>
#include <QUndoView>

using namespace waxis;
using test::WindowFixture;

namespace {

/// The findings and balance that the core computes for the build that the window shows; `draggedFrom`: while the mouse
/// is down, where wires are stretched from how they ran before.
bool showsWhatTheCoreComputes(WindowFixture &f, const Build *draggedFrom = nullptr) {
    Analyser analyser;
    analyser.setSurvey(f.document().analysis().derived.survey); // views and access come in the background
    if (draggedFrom) analyser.update(*draggedFrom);
    analyser.setHurry(draggedFrom);
    const Analysis &fresh = analyser.update(f.document().build());
    const auto loadCase = std::size_t(f.document().loadCase());
    const Vec3 d = *offsetOf_mm(fresh.derived, loadCase);
    auto has = [&](double value) { return f.axisText().contains(QString::number(std::abs(value), 'f', 1)); };
    return f.findingRows() == int(fresh.findings.size()) && has(allUp(fresh.derived, loadCase).mass_g) && has(d.x()) &&
           has(d.z()) &&
           f.axisText().contains(QString("%1 stop, %2 watch").arg(fresh.counts.stop).arg(fresh.counts.watch));
}

QLineEdit *field(WindowFixture &f, const char *name) { return f.window->findChild<QLineEdit *>(name); }

void type(QLineEdit *edit, const QString &text) {
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Return);
}

} // namespace

class TestPlace : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void theDemoShowsWeightBalanceAndFindings() {
        WindowFixture f;
        QVERIFY(f.axisText().startsWith("1085.0 g"));
        QVERIFY(showsWhatTheCoreComputes(f));
    }
    void numbersChangeWhileTheMouseIsDown() {
        WindowFixture f;
        const QString before = f.axisText();
        const Vec3 start = f.position("pack");
        const Build still = f.document().build();
        f.dragBy("pack", {-60, 0});
        QVERIFY(f.document().isPreviewing());
        QVERIFY(f.axisText() != before);
        QVERIFY(showsWhatTheCoreComputes(f, &still));
        const double moved = f.position("pack").x() - start.x();
        QVERIFY(std::abs(moved + 60 / f.plan().pixelsPerMm()) < 1e-6);
        // 1 mm of the pack is its share of the mass in CG: the whole point of the program, checked by hand.
        const double shift = f.document().offset_mm()->x();
        Analyser analyser;
        const double was = offsetOf_mm(analyser.update(test::stakewalker()).derived)->x();
        const double packMass = *f.document().build().types->at("pack-6s2200").mass_g.value;
        QVERIFY(std::abs((shift - was) - moved * packMass / f.document().mass()->mass_g) < 1e-6);
        QCOMPARE(f.document().history().count(), 0); // nothing is kept yet
        f.drop();
        QCOMPARE(f.document().history().count(), 1);
        QVERIFY(!f.document().isPreviewing());
        QVERIFY(showsWhatTheCoreComputes(f));
    }
    void undoAndRedoRestoreEveryNumber() {
        WindowFixture f;
        const QString before = f.axisText();
        f.dragBy("gps", {25, 14});
        f.drop();
        const QString after = f.axisText();
        QVERIFY(after != before);
        QTest::keyClick(f.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QCOMPARE(f.axisText(), before);
        QTest::keyClick(f.window.get(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
        QCOMPARE(f.axisText(), after);
        QVERIFY(f.document().history().text(0).contains("Move GPS with compass"));
    }
    void slidingThePackAftCuresTheBalanceFinding() {
        WindowFixture f;
        auto balanceFindings = [&] {
            int count = 0;
            for (const auto &finding : f.document().analysis().findings)
                count += finding.rule == RuleId::balOffset &&
                         (finding.loadCase == "survey" ||
                          std::count(finding.subjects.begin(), finding.subjects.end(), std::string("survey")) > 0);
            return count;
        };
        QCOMPARE(balanceFindings(), 1);
        f.dragBy("pack", {int(-14 * f.plan().pixelsPerMm()), 0});
        f.drop();
        QCOMPARE(balanceFindings(), 0);
        QVERIFY(showsWhatTheCoreComputes(f));
    }
    void escapePutsADraggedPartBack() {
        WindowFixture f;
        const Vec3 start = f.position("gps");
        f.dragBy("gps", {40, 10});
        QVERIFY((f.position("gps") - start).norm() > 5);
        QTest::keyClick(&f.plan(), Qt::Key_Escape);
        QVERIFY((f.position("gps") - start).norm() < 1e-12);
        QCOMPARE(f.document().history().count(), 0);
        f.drop();
        QCOMPARE(f.document().history().count(), 0);
    }
    void draggingNearTheCentreLineSnapsToIt() {
        WindowFixture f;
        f.dragBy("buzzer", {0, f.plan().mapFromScene(0, 0).y() - f.at("buzzer").y() + 3}, Qt::NoModifier);
        QVERIFY(std::abs(f.position("buzzer").y()) < 1e-9);
        f.drop();
        QTest::keyClick(f.window.get(), Qt::Key_Z, Qt::ControlModifier);
        f.dragBy("buzzer", {0, f.plan().mapFromScene(0, 0).y() - f.at("buzzer").y() + 3});
        QVERIFY(std::abs(f.position("buzzer").y()) > 0.5); // Ctrl: free
        QTest::keyClick(&f.plan(), Qt::Key_Escape);
        f.drop();
    }
    void boardsSnapToTheHolePatternThatFits() {
        WindowFixture f;
        f.dragBy("fc", {37, 21});
        f.drop();
        QVERIFY(findPart(f.document().build(), "fc")->placement.site.empty());
        f.dragBy("fc", {-37 + 3, -21 - 2}, Qt::NoModifier);
        f.drop();
        QCOMPARE(findPart(f.document().build(), "fc")->placement.site, std::string("site-stack"));
    }
    void arrowKeysNudge_data() {
        QTest::addColumn<int>("key");
        QTest::addColumn<int>("modifier");
        QTest::addColumn<double>("x");
        QTest::addColumn<double>("y");
        QTest::newRow("right is the nose") << int(Qt::Key_Right) << int(Qt::NoModifier) << 1.0 << 0.0;
        QTest::newRow("fine") << int(Qt::Key_Left) << int(Qt::ShiftModifier) << -0.1 << 0.0;
        QTest::newRow("coarse, up is left") << int(Qt::Key_Up) << int(Qt::ControlModifier) << 0.0 << 5.0;
    }
    void arrowKeysNudge() {
        QFETCH(int, key);
        QFETCH(int, modifier);
        QFETCH(double, x);
        QFETCH(double, y);
        WindowFixture f;
        f.document().select("gps");
        const Vec3 start = f.position("gps");
        QTest::keyClick(&f.plan(), Qt::Key(key), Qt::KeyboardModifier(modifier));
        QVERIFY((f.position("gps") - start - Vec3(x, y, 0)).norm() < 1e-9);
        QTest::keyClick(&f.plan(), Qt::Key(key), Qt::KeyboardModifier(modifier));
        QCOMPARE(f.document().history().count(), 1); // quick nudges are one step
        QVERIFY(showsWhatTheCoreComputes(f));
    }
    void quarterTurnsAndUpsideDown() {
        WindowFixture f;
        f.document().select("fc");
        const Quat start = framePose(f.document().build(), *findPart(f.document().build(), "fc")).rotation;
        auto words = [&] {
            return turnInWords(framePose(f.document().build(), *findPart(f.document().build(), "fc")).rotation);
        };
        QTest::keyClick(&f.plan(), Qt::Key_Q);
        const auto once = words();
        QTest::keyClick(&f.plan(), Qt::Key_E);
        QCOMPARE(
            framePose(f.document().build(), *findPart(f.document().build(), "fc")).rotation.angularDistance(start) <
                1e-7,
            true);
        QTest::keyClick(&f.plan(), Qt::Key_V);
        QVERIFY(QString::fromStdString(words()).contains("upside down"));
        QVERIFY(once != words());
        QCOMPARE(f.document().history().count(), 3);
    }
    void pinnedPartsStayPut() {
        WindowFixture f;
        f.document().select("gps");
        QTest::keyClick(&f.plan(), Qt::Key_Space);
        QVERIFY(findPart(f.document().build(), "gps")->pinned);
        const Vec3 start = f.position("gps");
        f.dragBy("gps", {40, 0});
        f.drop();
        QTest::keyClick(&f.plan(), Qt::Key_Right);
        QVERIFY((f.position("gps") - start).norm() < 1e-12);
        QVERIFY(f.window->notices().text().contains("pinned"));
    }
    void aSecondClickChoosesWhatLiesBeneath() {
        WindowFixture f;
        const QPoint place = f.at("fc");
        QTest::mouseClick(f.plan().viewport(), Qt::LeftButton, {}, place);
        const QString first = f.document().selected();
        QVERIFY(!first.isEmpty());
        QTest::mouseClick(f.plan().viewport(), Qt::LeftButton, {}, place);
        QVERIFY(f.document().selected() != first);
    }
    void posesCanBeTyped() {
        WindowFixture f;
        f.document().select("gps");
        type(field(f, "position-x"), "-70,5"); // a decimal comma will do
        QVERIFY(std::abs(f.position("gps").x() + 70.5) < 1e-9);
        type(field(f, "pitch"), "-20");
        QVERIFY(turnInWords(framePose(f.document().build(), *findPart(f.document().build(), "gps")).rotation)
                    .find("nose up 20") != std::string::npos);
        const int steps = f.document().history().count();
        type(field(f, "position-y"), "far");
        QCOMPARE(f.document().history().count(), steps);
        QVERIFY(f.window->notices().text().contains("far"));
        QVERIFY(field(f, "position-y")->text().contains("mm"));
        QVERIFY(showsWhatTheCoreComputes(f));
    }
    void weighingAPartEntersTheBalance() {
        WindowFixture f;
        f.document().select("gpsmast");
        QVERIFY(f.axisText().contains("1 unknown"));
        type(field(f, "mass"), "4.2 ± 0.1");
        const Measured &mass = findPart(f.document().build(), "gpsmast")->mass_g;
        QCOMPARE(*mass.value, 4.2);
        QCOMPARE(*mass.tolerance, 0.1);
        QVERIFY(mass.source == Source::measured);
        QVERIFY(f.axisText().contains("0 unknown"));
        QVERIFY(showsWhatTheCoreComputes(f));
        type(field(f, "mass"), "-3");
        QCOMPARE(*findPart(f.document().build(), "gpsmast")->mass_g.value, 4.2);
    }
    void anotherModelComesFromTheLibrary() {
        WindowFixture f;
        f.document().select("pack");
        auto *types = f.window->findChild<QComboBox *>("part-type");
        const int small = types->findData("pack-6s1300");
        QVERIFY(small >= 0);
        const QString before = f.axisText();
        types->setCurrentIndex(small);
        emit types->activated(small);
        QCOMPARE(findPart(f.document().build(), "pack")->type, std::string("pack-6s1300"));
        QVERIFY(f.axisText() != before);
        QVERIFY(showsWhatTheCoreComputes(f));
    }
    void smallWeightsKeepTheirDigits() {
        WindowFixture f;
        f.document().select("damper-1"); // 0.1 g, give or take a hundredth
        const QString text = field(f, "mass")->text();
        QVERIFY2(text.contains("± 0.0") && !text.contains("± 0.0 "), qPrintable(text));
        f.document().select("fc");
        QVERIFY(field(f, "mass")->text().contains(QRegularExpression("\\d\\.\\d ± \\d\\.\\d g")));
    }
    void typesThatFitComeFirstAndAreFoundByTyping() {
        WindowFixture f;
        f.document().select("fc"); // on a pattern of 30.5 mm
        auto *types = f.window->findChild<QComboBox *>("part-type");
        int misfits = 0, fitting = 0;
        for (int i = 0; i < types->count(); ++i) {
            if (types->itemText(i).isEmpty()) continue; // the line between
            const bool misfit = !types->itemData(i, Qt::ToolTipRole).toString().isEmpty();
            misfits += misfit;
            fitting += !misfit;
            if (!misfit) QCOMPARE(misfits, 0); // none that fits stands below one that does not
        }
        QVERIFY(fitting > 1 && misfits > 0);
        // A piece of the name is enough; what is no type is put back.
        types->lineEdit()->setFocus();
        types->lineEdit()->selectAll();
        QTest::keyClicks(types->lineEdit(), "nonsense");
        QTest::keyClick(types->lineEdit(), Qt::Key_Return);
        QCOMPARE(types->lineEdit()->text(), types->itemText(types->currentIndex()));
        QCOMPARE(findPart(f.document().build(), "fc")->type, std::string("fc-305"));
        types->lineEdit()->selectAll();
        QTest::keyClicks(types->lineEdit(), "c7 light");
        QVERIFY(types->completer()->completionCount() >= 1);
        QVERIFY(types->completer()->currentCompletion().contains("C7 light"));
    }
    void loadCaseAndPracticeSwitchWhatIsJudged() {
        WindowFixture f;
        auto *cases = f.window->findChild<QComboBox *>("load-case");
        QCOMPARE(cases->count(), 5); // three, a line, and the way to change them
        cases->setCurrentIndex(1);
        emit cases->activated(1);
        QVERIFY(f.axisText().startsWith("950.1 g"));
        auto *profiles = f.window->findChild<QComboBox *>("practice");
        const int watches = f.document().analysis().counts.watch;
        const auto compassCounts = [&] {
            return std::any_of(f.document().analysis().findings.begin(), f.document().analysis().findings.end(),
                               [](const Finding &finding) { return finding.rule == RuleId::navThrottle; });
        };
        QVERIFY(compassCounts());
        profiles->setCurrentIndex(profiles->findData("sprint"));
        emit profiles->activated(profiles->currentIndex());
        QCOMPARE(f.document().analysis().practice.profile, std::string("sprint"));
        QVERIFY(!compassCounts());                                       // racers fly without one
        QTest::keyClick(f.window.get(), Qt::Key_Z, Qt::ControlModifier); // the profile is an edit like any other
        QCOMPARE(f.document().analysis().counts.watch, watches);
        QCOMPARE(profiles->currentData().toString(), QString("range"));
    }
    void partsComeFromTheLibraryAndGo() {
        WindowFixture f;
        const auto parts = f.document().build().parts.size();
        f.document().select("buzzer");
        QTest::keyClick(&f.plan(), Qt::Key_Delete);
        QCOMPARE(f.document().build().parts.size(), parts - 1);
        QVERIFY(f.document().selected().isEmpty());
        QVERIFY(showsWhatTheCoreComputes(f));
        f.document().history().undo();
        QCOMPARE(f.document().build().parts.size(), parts);
    }
    void wheelZoomsAtThePointerInBothViews() {
        WindowFixture f;
        auto &elevation = f.window->placeBench().elevation();
        const QPoint pointer = f.at("gps");
        const QPointF under = f.plan().mapToScene(pointer);
        const double scale = f.plan().pixelsPerMm();
        QWheelEvent wheel(pointer, f.plan().viewport()->mapToGlobal(pointer), {}, {0, 240}, Qt::NoButton,
                          Qt::NoModifier, Qt::NoScrollPhase, false);
        QApplication::sendEvent(f.plan().viewport(), &wheel);
        QVERIFY(f.plan().pixelsPerMm() > scale * 1.2);
        QVERIFY((f.plan().mapToScene(pointer) - under).manhattanLength() < 1.5);
        QVERIFY(std::abs(elevation.pixelsPerMm() - f.plan().pixelsPerMm()) < 1e-9);
        QVERIFY(std::abs(elevation.centre().x() - f.plan().centre().x()) < 1.5); // still on one x axis
        QTest::keyClick(&f.plan(), Qt::Key_0);
        QVERIFY(std::abs(f.plan().pixelsPerMm() - scale) < 1e-6);
    }
    void theElevationTurnsToTheFrontAndDragsThere() {
        WindowFixture f;
        auto &elevation = f.window->placeBench().elevation();
        f.document().select("gps");
        const Vec3 start = f.position("gps");
        QTest::keyClick(&elevation, Qt::Key_Up);
        QVERIFY((f.position("gps") - start - Vec3(0, 0, 1)).norm() < 1e-9);
        for (auto *button : f.window->findChildren<QAbstractButton *>())
            if (button->text() == "Front") QTest::mouseClick(button, Qt::LeftButton);
        QTest::keyClick(&elevation, Qt::Key_Right); // seen from the nose, right is the craft's left
        QVERIFY((f.position("gps") - start - Vec3(0, 1, 1)).norm() < 1e-9);
    }
    void partsAreSearchedAndDraggedFromTheLibrary() {
        WindowFixture f;
        auto &bench = f.window->placeBench();
        bench.showLibrary(true);
        const int all = bench.library().list().count();
        QVERIFY(all > 150);
        QTest::keyClicks(&bench.library().words(), "buzzer loud");
        QCOMPARE(bench.library().list().count(), 1);
        QMimeData data;
        data.setData(place::kTypeMime, "buzzer-loud");
        auto &view = f.plan();
        const auto at = [&](double x, double y) { return view.mapFromScene(QPointF(x, -y)); };
        QDragEnterEvent enter(at(40, 0), Qt::CopyAction, &data, Qt::LeftButton, {});
        QApplication::sendEvent(view.viewport(), &enter);
        QVERIFY(enter.isAccepted());
        const std::size_t before = f.document().build().parts.size();
        QDragMoveEvent move(at(-50, 12), Qt::CopyAction, &data, Qt::LeftButton, Qt::ControlModifier);
        QApplication::sendEvent(view.viewport(), &move);
        QVERIFY(f.document().isPreviewing()); // seen, weighed and judged while it hangs on the pointer
        QCOMPARE(f.document().build().parts.size(), before + 1);
        QDropEvent drop(QPointF(at(-50, 12)), Qt::CopyAction, &data, Qt::LeftButton, Qt::ControlModifier);
        QApplication::sendEvent(view.viewport(), &drop);
        QVERIFY(!f.document().isPreviewing());
        QCOMPARE(f.document().build().parts.size(), before + 1);
        QCOMPARE(f.document().selected(), QString("buzzer-loud"));
        const Vec3 place = f.position("buzzer-loud");
        QVERIFY(std::abs(place.x() + 50) < 1 && std::abs(place.y() - 12) < 1);
        QCOMPARE(place.z(), 35.0); // on the top plate
        f.document().history().undo();
        QCOMPARE(f.document().build().parts.size(), before);
        // Leaving the mat takes it away again.
        QApplication::sendEvent(view.viewport(), &enter);
        QApplication::sendEvent(view.viewport(), &move);
        QDragLeaveEvent leave;
        QApplication::sendEvent(view.viewport(), &leave);
        QVERIFY(!f.document().isPreviewing());
        QCOMPARE(f.document().build().parts.size(), before);
    }
};

QTEST_MAIN(TestPlace)
#include "test_place.moc"
