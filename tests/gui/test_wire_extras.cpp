// What else there is to wires, channels and load cases, typed and chosen in the real window.
#include "app/stages/wire/wire_bench.h"
#include "app/widgets/function_text.h"
#include "core/edits/case_edits.h"
#include "core/power/power_report.h"
#include "window_fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <QToolButton>

using namespace waxis;
using namespace waxis::test;

namespace {

/// A wire chosen in Wire, its card opened as far as it goes.
const Wire &chosen(WindowFixture &f, const char *id) {
    f.window->setStage(Stage::wire);
    f.document().select(id);
    QTest::qWait(30);
    auto *more = f.child<QToolButton>("wire-more");
    if (!more->isChecked()) more->click();
    QTest::qWait(20);
    return *findWire(f.document().build(), id);
}

void type(WindowFixture &f, const char *field, const QString &text) {
    auto *edit = f.child<QLineEdit>(field);
    edit->setFocus();
    edit->selectAll();
    if (text.isEmpty())
        QTest::keyClick(edit, Qt::Key_Delete);
    else
        QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Return);
    QTest::qWait(20);
}

/// By the menu of the button, as a click on it opens it.
void take(QToolButton *button, const QString &text) {
    for (auto *action : button->menu()->actions())
        if (action->text().contains(text)) return action->trigger();
    QFAIL(qPrintable(text + " is not offered"));
}

const LoadCase &ferryOf(WindowFixture &f) {
    for (const auto &loadCase : f.document().build().loadCases)
        if (loadCase.id == "ferry") return loadCase;
    qFatal("no case \"ferry\"");
}

QString ferry(WindowFixture &f) { return QString::fromStdString(ferryOf(f).name); }

/// An entry of a box, by the keys as far as it.
void pick(QComboBox *box, const QString &text) {
    const int wanted = box->findText(text);
    if (wanted < 0) QFAIL(qPrintable(text + " is not offered"));
    box->setFocus();
    const bool down = wanted > box->currentIndex();
    for (int n = std::abs(wanted - box->currentIndex()); n > 0; --n) {
        const auto name = box->accessibleName(); // the table is filled anew after each step
        auto *table = box->window();
        QTest::keyClick(box, down ? Qt::Key_Down : Qt::Key_Up);
        QTest::qWait(20);
        for (auto *now : table->findChildren<QComboBox *>())
            if (now->accessibleName() == name) box = now;
    }
}

} // namespace

class TestWireExtras : public QObject {
    Q_OBJECT

private slots:
    void sleeveTapeAndNumbersAreEdited() {
        WindowFixture f;
        chosen(f, "w-main");
        f.child<QCheckBox>("wire-sleeved")->click();
        f.child<QCheckBox>("wire-taped")->click();
        type(f, "wire-splices", "2");
        const auto now = [&] { return *findWire(f.document().build(), "w-main"); };
        QVERIFY(now().sleeved && now().edgesTaped);
        QCOMPARE(now().splices, 2);
        type(f, "wire-splices", "2.5"); // no half splices: said, and nothing changes
        QCOMPARE(now().splices, 2);
        type(f, "wire-splices", "");
        QCOMPARE(now().splices, 0);
        f.document().history().undo();
        QCOMPARE(now().splices, 2);
        auto *lay = f.child<QComboBox>("wire-lay");
        lay->setCurrentIndex(int(WireLay::twisted));
        emit lay->activated(int(WireLay::twisted));
        type(f, "wire-pitch", "20 mm");
        QCOMPARE(now().twistPitch_mm, 20.0);
    }
    void plugsAreNamedAndTurned() {
        WindowFixture f;
        chosen(f, "w-gps");
        const auto now = [&] { return *findWire(f.document().build(), "w-gps"); };
        type(f, "wire-plug-from", "servo plug, 2.54 mm");
        QVERIFY(now().fromPlug && now().fromPlug->family == "servo plug, 2.54 mm");
        const auto &findings = f.document().analysis().findings;
        QVERIFY(std::any_of(findings.begin(), findings.end(),
                            [](const Finding &finding) { return finding.rule == RuleId::lnkMates; }));
        type(f, "wire-plug-from-ways", "6");
        type(f, "wire-plug-from-size", "9 x 6 x 3");
        f.child<QCheckBox>("wire-plug-from-turned")->click();
        QVERIFY(now().fromPlug->turned && now().fromPlug->ways == 6 && now().fromPlug->size_mm->y() == 6);
        type(f, "wire-plug-from-size", "9 x 6"); // three sides are wanted
        QCOMPARE(now().fromPlug->size_mm->x(), 9.0);
        // Nothing stated is nothing kept.
        f.child<QCheckBox>("wire-plug-from-turned")->click();
        for (const char *field : {"wire-plug-from", "wire-plug-from-ways", "wire-plug-from-size"}) type(f, field, "");
        QVERIFY(!now().fromPlug);
    }
    void aFuseIsPutInMovedTurnedAndTakenOut() {
        WindowFixture f;
        const std::size_t cores = chosen(f, "w-main").cores.size();
        const auto inserts = [&] { return findWire(f.document().build(), "w-main")->inserts; };
        auto *add = f.child<QToolButton>("wire-insert-add");
        take(add, "30 A fuse");
        QCOMPARE(inserts().size(), std::size_t(1));
        QCOMPARE(inserts()[0].core, 0);
        QVERIFY(f.document().build().types->contains(inserts()[0].type));
        const auto &findings = f.document().analysis().findings;
        QVERIFY(std::any_of(findings.begin(), findings.end(), [](const Finding &finding) {
            return finding.rule == RuleId::pwrInline && finding.severity == Severity::watch; // 30 A, and full thrust
        }));
        take(add, "Ferrite ring, 14");
        QCOMPARE(inserts()[1].core, -1);
        auto *list = f.child<QListWidget>("wire-inserts");
        QCOMPARE(list->count(), 2);
        list->setCurrentRow(0);
        type(f, "wire-insert-at", "10");
        QCOMPARE(inserts()[0].at, 0.1);
        type(f, "wire-insert-at", "110");
        QCOMPARE(inserts()[0].at, 0.1);
        f.child<QToolButton>("wire-insert-turn")->click();
        QVERIFY(inserts()[0].turned);
        auto *core = f.child<QComboBox>("wire-insert-core");
        QCOMPARE(core->count(), int(cores) + 1);
        core->setCurrentIndex(1);
        emit core->activated(1);
        QCOMPARE(inserts()[0].core, 1);
        f.child<QToolButton>("wire-insert-remove")->click();
        QCOMPARE(inserts().size(), std::size_t(1));
        QCOMPARE(inserts()[0].core, -1);
    }
    void channelsAreTypedInOrder() {
        WindowFixture f;
        f.window->setStage(Stage::place);
        f.document().select("rx");
        QTest::qWait(30);
        type(f, "channels", "roll, pitch, throttle yaw mode");
        QCOMPARE(findPart(f.document().build(), "rx")->channels.size(), std::size_t(5));
        f.document().select("fc");
        QTest::qWait(30);
        type(f, "channels", "throttle, roll, pitch, yaw");
        const auto &findings = f.document().analysis().findings;
        QVERIFY(std::any_of(findings.begin(), findings.end(), [](const Finding &finding) {
            return finding.rule == RuleId::lnkFunctions && finding.severity == Severity::stop;
        }));
        type(f, "channels", "throttle, rolling");
        QCOMPARE(findPart(f.document().build(), "fc")->channels.size(), std::size_t(4)); // it goes back to what it was
        QVERIFY(f.child<QLineEdit>("channels")->text().startsWith("throttle, roll, pitch"));
        // A plate of holes has none.
        f.document().select("pack");
        QTest::qWait(30);
        QVERIFY(!f.child<QLineEdit>("channels")->isVisible());
        QVERIFY(!app::readFunctions("roll, rolling"));
        QCOMPARE(app::functionsText(*app::readFunctions("roll;gimbal-tilt")), QString("roll, gimbal-tilt"));
    }
    void aBenchCaseTakesAUsbCable() {
        WindowFixture f;
        f.window->showBuildSheet();
        QTest::qWait(30);
        auto *cases = f.child<QTableWidget>("load-cases");
        const auto box = [&](const QString &name) -> QComboBox * {
            for (auto *found : cases->findChildren<QComboBox *>())
                if (found->accessibleName().startsWith(name) && found->accessibleName().contains(ferry(f)))
                    return found;
            return nullptr;
        };
        QVERIFY(!box("USB cable")->isEnabled()); // nothing is plugged into what flies
        pick(box("What"), "on the ground, powered");
        QCOMPARE(ferryOf(f).kind, LoadCaseKind::bench);
        pick(box("Pack of"), "none");
        pick(box("USB cable"), QString::fromStdString(displayName(f.document().build(), "fc")));
        QCOMPARE(ferryOf(f).usb, std::string("fc"));
        const auto &supplies = f.document().analysis().derived.power->supplies;
        QVERIFY(std::find(supplies[1].alive.begin(), supplies[1].alive.end(), "fc") != supplies[1].alive.end());
        QVERIFY(std::find(supplies[1].dark.begin(), supplies[1].dark.end(), "esc") != supplies[1].dark.end());
    }
    void aPartIsSwitchedOffInALoadCase() {
        WindowFixture f;
        f.window->showBuildSheet();
        QTest::qWait(30);
        const QString vtx = QString::fromStdString(displayName(f.document().build(), "vtx"));
        const auto button = [&] { return f.child<QPushButton>("off-ferry"); };
        QCOMPARE(button()->text(), QString("none"));
        // A click opens its menu; there the part is chosen with the keys.
        QTimer::singleShot(50, &f.document(), [&] {
            auto *menu = button()->menu();
            QVERIFY(menu->isVisible());
            for (auto *action : menu->actions())
                if (action->text() == vtx) menu->setActiveAction(action);
            QTest::keyClick(menu, Qt::Key_Return);
        });
        QTest::mouseClick(button(), Qt::LeftButton);
        QTest::qWait(30);
        QCOMPARE(ferryOf(f).off, std::vector<std::string>{"vtx"});
        QCOMPARE(button()->text(), vtx);
        // The inspector says so, and the matrix of that case leaves it out.
        f.document().setLoadCase(1);
        f.window->setStage(Stage::radio);
        f.document().select("vtx");
        QTest::qWait(30);
        const auto labels = f.window->findChildren<QLabel *>();
        QVERIFY(std::any_of(labels.begin(), labels.end(), [](const QLabel *label) {
            return label->isVisible() && label->text().contains("switched off in this load case");
        }));
        f.document().history().undo();
        QVERIFY(ferryOf(f).off.empty());
    }
    void jointsAreListedWithTheirHeat() {
        WindowFixture f;
        f.window->setStage(Stage::wire);
        f.window->wireBench().showPage(wire::Page::joints);
        QTest::qWait(30);
        auto *table = f.window->findChild<QTableWidget *>("joints-table");
        QVERIFY(table && table->rowCount() > 60);
        QSet<QString> heats;
        for (int row = 0; row < table->rowCount(); ++row) heats << table->item(row, 8)->text();
        QVERIFY(heats.contains("light") && heats.contains("heavy") && heats.contains("crimped"));
        QVERIFY(f.child<QLabel>("joints-sum")->text().contains("no pack connected"));
        QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(0, 0)).center());
        QCOMPARE(f.document().selected(), table->item(0, 0)->data(Qt::UserRole).toString());
        // In the smallest window whose joint it is can still be read.
        f.window->resize(1100, 700);
        QTest::qWait(50);
        for (const int column : {0, 3})
            QVERIFY2(table->columnWidth(column) >= 100, qPrintable(QString::number(column)));
    }
    void theAxisBarSaysWhatAnEditCosts() {
        WindowFixture f;
        auto *bar = f.window->findChild<app::AxisBar *>();
        QVERIFY(bar->spokenText().contains("hover "));
        QVERIFY(!bar->spokenText().contains(" s;"));
        Build heavier = f.document().build();
        heavier.allowances.push_back({"lead", "Lead", measuredValue(50), Vec3::Zero()});
        f.document().edit("lead", heavier);
        // Some 5 % of the weight: power goes with its 1.5th power, so some 7 % of 16 minutes.
        QVERIFY2(bar->spokenText().contains(QStringLiteral("−")), qPrintable(bar->spokenText()));
        f.document().history().undo();
        QVERIFY(bar->spokenText().contains("+"));
    }
};

QTEST_MAIN(TestWireExtras)
#include "test_wire_extras.moc"
