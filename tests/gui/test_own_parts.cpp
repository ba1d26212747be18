// Part types and own parts in the real window: made, pasted, changed, taken out.
#include "app/stages/kit/own_part_card.h"
#include "app/stages/kit/own_parts_dialog.h"
#include "core/analysis/analysis.h"
#include "core/catalog/connectors.h"
#include "core/kit/kit.h"
#include "core/radio/antennas.h"
#include "gui/kit_hands.h"
#include "io/project/project_file.h"
#include "support/every_field.h"

#include <QAbstractSpinBox>
#include <QClipboard>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QStandardPaths>
#include <QTableWidget>
#include <QToolButton>

using namespace waxis;
using test::cell;
using test::type;
using test::WindowFixture;

class TestOwnParts : public QObject {
    Q_OBJECT

private slots:
    void whatTurnsCoolsAndTiesIsTyped() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.findChild<QToolButton *>("new-part")->click();
        auto &editor = bench.editor();
        const auto fill = [&](const char *name, const QString &text) {
            auto *field = editor.findChild<QLineEdit *>(name);
            field->setFocus();
            field->selectAll();
            QTest::keyClicks(field, text);
        };
        fill("type-name", "Osier gimbal");
        fill("type-mass", "40");
        fill("type-strap", "220");
        fill("type-cooling", "35");
        QCOMPARE(editor.type().strapLength_mm, std::optional(220.0));
        QCOMPARE(editor.type().coolingArea_cm2, std::optional(35.0));
        auto *joints = editor.findChild<QTableWidget *>("joints");
        QPushButton *add = nullptr;
        for (auto *button : editor.findChildren<QPushButton *>())
            if (button->text() == "Add a joint") add = button;
        for (auto *button : editor.findChildren<QToolButton *>())
            if (!add && button->text() == "Add a joint") button->click();
        if (add) add->click();
        QCOMPARE(editor.type().travels.size(), std::size_t(1));
        joints->item(0, 1)->setText("1, 2, 3");
        joints->item(0, 4)->setText("75");
        QCOMPARE(editor.type().travels[0].pivot_mm, Vec3(1, 2, 3));
        QCOMPARE(editor.type().travels[0].to_deg, 75.0);
        auto *keep = editor.findChild<QPushButton *>("keep");
        QVERIFY(keep->isEnabled());
        joints->item(0, 4)->setText("400"); // no joint turns farther than round
        QVERIFY(!keep->isEnabled());
        joints->item(0, 4)->setText("60");
        QVERIFY(keep->isEnabled());
        joints->item(0, 5)->setText("9"); // it has one body
        QVERIFY(!keep->isEnabled());
    }
    void aPartIsMadeCheckedAndKept() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.findChild<QToolButton *>("new-part")->click();
        QVERIFY(bench.isEditingPart());
        auto &editor = bench.editor();
        auto field = [&](const char *name) { return editor.findChild<QLineEdit *>(name); };
        auto fill = [&](const char *name, const QString &text) {
            field(name)->setFocus();
            field(name)->selectAll();
            QTest::keyClicks(field(name), text);
        };
        auto *keep = editor.findChild<QPushButton *>("keep");
        auto *faults = editor.findChild<QLabel *>("type-faults");
        fill("type-name", "Reed bed lamp");
        QCOMPARE(editor.type().id, std::string("reed-bed-lamp")); // follows the name until somebody types another
        fill("type-mass", "12,5");
        QCOMPARE(*editor.type().mass_g.value, 12.5);
        // What is wrong is said while it is typed, and keeps it from being kept.
        fill("type-mass", "heavy");
        QVERIFY(!keep->isEnabled());
        QVERIFY(faults->text().contains("heavy"));
        fill("type-mass", "12.5");
        QVERIFY(keep->isEnabled());
        auto *bodies = editor.findChild<QTableWidget *>("bodies");
        bodies->item(0, 0)->setText("30 x 20 x 0");
        QVERIFY(!keep->isEnabled());
        QVERIFY(faults->text().contains("body 1"));
        bodies->item(0, 0)->setText("30 x 20 x 1,6");
        QCOMPARE(std::get<Box>(editor.type().solids[0].shape).fullSize_mm, Vec3(30, 20, 1.6));
        editor.findChild<QPushButton *>("bodies-add")->click();
        bodies->item(1, 0)->setText("d 12 x 8");
        bodies->item(1, 1)->setText("0, 0, 5.6");
        QCOMPARE(std::get<Cylinder>(editor.type().solids[1].shape).diameter_mm, 12.0);
        fill("type-mounting", "20, holes 2.2");
        QCOMPARE(editor.type().mounting->size_mm, 20.0);
        editor.findChild<QPushButton *>("ports-add")->click();
        auto *ports = editor.findChild<QTableWidget *>("ports");
        ports->item(0, 0)->setText("in");
        ports->item(0, 3)->setText("aft");
        ports->item(0, 5)->setText("5V DIN");
        QVERIFY(faults->text().contains("no ground")); // odd, but it can be kept
        QVERIFY(keep->isEnabled());
        ports->item(0, 5)->setText("5V GND DIN");
        QVERIFY(!faults->text().contains("no ground"));
        QCOMPARE(editor.type().ports[0].direction, Vec3(-1, 0, 0));
        fill("type-vmax", "5.5");
        keep->click();
        QVERIFY(!bench.isEditingPart());
        const PartType &kept = f.document().build().types->at("reed-bed-lamp");
        QCOMPARE(*kept.electrical->supplyMax_V, 5.5);
        QCOMPARE(kept.ports[0].pins.size(), std::size_t(3));
        QVERIFY(bench.model().rowOf("reed-bed-lamp") >= 0);
        QVERIFY(parseBuild(writeBuild(f.document().build())));
    }
    void radiosAreTypedInThePartEditor() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.changePart("vtx-58-1w");
        auto &editor = bench.editor();
        const auto fill = [&](const char *name, const QString &text) {
            auto *field = editor.findChild<QLineEdit *>(name);
            field->setFocus();
            field->selectAll();
            QTest::keyClicks(field, text);
        };
        auto *keep = editor.findChild<QPushButton *>("keep");
        fill("radio-channels", "A=5700, 5800");
        QCOMPARE(editor.type().radio[0].channels, (std::vector<RadioChannel>{{"A", 5700}, {"", 5800}}));
        fill("radio-channels", "A=2400"); // outside its band
        QVERIFY(!keep->isEnabled());
        fill("radio-channels", "A=5700");
        QVERIFY(keep->isEnabled());
        fill("type-clocks", "pixel clock=27, 1.2");
        QCOMPARE(editor.type().clocks, (std::vector<Clock>{{"pixel clock", 27}, {"", 1.2}}));
        fill("type-compass", "1, 2, 3");
        QCOMPARE(*editor.type().magnetics->compass_mm, Vec3(1, 2, 3));
        keep->click();
        QVERIFY(parseBuild(writeBuild(f.document().build())));
        QVERIFY(!settingOf(f.document().build(), "vtx", 0).centre_MHz.has_value() ||
                *settingOf(f.document().build(), "vtx", 0).centre_MHz == 5740); // still within the band
        bench.changePart("ant-58-omni");
        fill("antenna-coax", "hose");
        QVERIFY(!keep->isEnabled());
        fill("antenna-coax", "RG-178");
        QCOMPARE(editor.type().antenna->coax, std::string("rg178"));
        fill("antenna-pattern", "0=1, 90=2.5, 60=0");
        QVERIFY(!keep->isEnabled());
        fill("antenna-pattern", "0=1, 90=2.5, 180=-3");
        QCOMPARE(editor.type().antenna->pattern.size(), std::size_t(3));
        QVERIFY(keep->isEnabled());
    }
    void changingAPartTypeChangesAllItsParts() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.table().setCurrentIndex(cell(bench, "motor-2807", kit::name));
        bench.changePart();
        QVERIFY(bench.isEditingPart());
        auto &editor = bench.editor();
        auto *id = editor.findChild<QLineEdit *>("type-id");
        id->setFocus();
        id->selectAll();
        QTest::keyClicks(id, "motor-own");
        auto *mass = editor.findChild<QLineEdit *>("type-mass");
        mass->setFocus();
        mass->selectAll();
        QTest::keyClicks(mass, "50");
        editor.findChild<QPushButton *>("keep")->click();
        QVERIFY(!f.document().build().types->contains("motor-2807"));
        QCOMPARE(findPart(f.document().build(), "motor-1")->type, std::string("motor-own"));
        QVERIFY(findKitEntry(f.document().build(), "motor-own")); // what was counted stays counted
        f.document().history().undo();
        QVERIFY(f.document().build().types->contains("motor-2807"));
        // An id that another type has is refused while it is typed.
        bench.changePart("motor-2807");
        id->setFocus();
        id->selectAll();
        QTest::keyClicks(id, "prop-7");
        QVERIFY(!editor.findChild<QPushButton *>("keep")->isEnabled());
    }
    void bodiesComeFromStlAndBadOnesAreTold() {
        WindowFixture f;
        auto writeStl = [&](const char *name, int facets) {
            // A tetrahedron: four facets close it, three leave it open.
            const Vec3 p[] = {{0, 0, 0}, {10, 0, 0}, {0, 10, 0}, {0, 0, 10}};
            const int t[][3] = {{0, 2, 1}, {0, 1, 3}, {0, 3, 2}, {1, 2, 3}};
            QFile file(f.folder.filePath(name));
            if (!file.open(QIODevice::WriteOnly)) return QString();
            file.write("solid x\n");
            for (int i = 0; i < facets; ++i) {
                file.write("facet normal 0 0 0\nouter loop\n");
                for (int k : t[i])
                    file.write(QString("vertex %1 %2 %3\n").arg(p[k].x()).arg(p[k].y()).arg(p[k].z()).toLatin1());
                file.write("endloop\nendfacet\n");
            }
            file.write("endsolid x\n");
            return f.folder.filePath(name);
        };
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.newPart(PartKind::mount);
        auto &editor = bench.editor();
        const auto before = editor.type().solids.size();
        editor.readBodies(writeStl("open.stl", 3));
        QTRY_VERIFY_WITH_TIMEOUT(editor.findChild<QLabel *>("type-faults")->text().contains("open edges"), 10000);
        QCOMPARE(editor.type().solids.size(), before);
        editor.readBodies(writeStl("closed.stl", 4));
        QTRY_COMPARE_WITH_TIMEOUT(editor.type().solids.size(), before + 1, 10000);
        const Mesh &mesh = std::get<Mesh>(editor.type().solids.back().shape);
        QVERIFY(std::abs(mesh.exact->volume_mm3 - 1000.0 / 6) < 1e-6);
        editor.findChild<QPushButton *>("keep")->click();
        QVERIFY(parseBuild(writeBuild(f.document().build())));
    }
    void onesOwnPartsArePastedPassedOnTakenInAndFollowed() {
        QStandardPaths::setTestModeEnabled(true);
        const QString shelf =
            QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/weightaxis/parts/own.json";
        QFile::remove(shelf);
        const auto clean = qScopeGuard([&] { QFile::remove(shelf); });
        WindowFixture f;
        const auto openDialog = [&](const char *action) {
            f.window->actions().action(action)->trigger();
            return f.window->findChild<kit::OwnPartsDialog *>();
        };
        // A pasted table, one row of it wrong: the good ones are kept, the other is told.
        QApplication::clipboard()->setText("name\tkind\tlike\tgrams\nBench receiver\treceiver\t\t2.4\nBench "
                                           "motor\t\t2207 motor\t33\nBad\tbanana\t\t1\n");
        auto *dialog = openDialog("paste-parts");
        QVERIFY(dialog);
        auto *rows = dialog->findChild<QTableWidget *>("own-pasted-rows");
        QCOMPARE(rows->rowCount(), 3);
        QVERIFY(rows->item(2, 4)->text().contains("banana"));
        auto *keep = dialog->findChild<QPushButton *>("own-keep-pasted");
        QCOMPARE(keep->text(), QString("Keep 2 parts"));
        QTest::mouseClick(keep, Qt::LeftButton);
        QVERIFY(f.document().isOwnType("own-bench-receiver"));
        QCOMPARE(*f.document().library().at("own-bench-motor").mass_g.value, 33.0);
        // The same out of a file: semicolons, decimal commas, letters of an old code page.
        QString why;
        const QString csv = f.folder.filePath("parts.csv");
        QFile out(csv);
        QVERIFY(out.open(QIODevice::WriteOnly));
        out.write("name;kind;grams\r\nGr\xfcner Empf\xe4nger;receiver;2,6\r\n");
        out.close();
        QVERIFY2(dialog->readTable(csv, why), qPrintable(why));
        QCOMPARE(rows->rowCount(), 1);
        QCOMPARE(rows->item(0, 0)->text(), QString::fromUtf8("Grüner Empfänger"));
        QTest::mouseClick(keep, Qt::LeftButton);
        QVERIFY(std::any_of(f.document().library().begin(), f.document().library().end(), [](const auto &entry) {
            return entry.second.name == "Grüner Empfänger" && entry.second.mass_g.value == 2.6;
        }));
        QVERIFY(!dialog->readTable(f.folder.filePath("nowhere.csv"), why) && !why.isEmpty());
        // Passed on as a file, taken in again elsewhere.
        QString problem;
        const QString path = f.folder.filePath("mine.json");
        QVERIFY2(dialog->passOn(path, {"own-bench-motor"}, problem), qPrintable(problem));
        const auto written = loadLibrary(path.toStdString());
        QVERIFY(written && written->types.size() == 1);
        PartType better = written->types.at("own-bench-motor");
        better.mass_g = measuredValue(34.5, 0.1);
        // This build uses the first state of it.
        Build next = f.document().build();
        next.types.edit(
            [&](TypeTable &table) { table.emplace("own-bench-motor", written->types.at("own-bench-motor")); });
        QVERIFY(f.document().edit("Take", EditResult(next)));
        PartLibrary corrected;
        corrected.name = "Corrected";
        corrected.types.emplace(better.id, better);
        QFile file(path);
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write(QByteArray::fromStdString(writeLibrary(corrected)));
        file.close();
        QCOMPARE(dialog->takeIn(path, problem), 1);
        QVERIFY(dialog->takeIn(f.folder.filePath("nothing.json"), problem) < 0);
        QVERIFY(!problem.isEmpty());
        dialog->reject();
        // What is corrected is offered with what changes, and followed with one press.
        QVERIFY2(f.window->notices().text().contains("33 → 34.5"), qPrintable(f.window->notices().text()));
        QPushButton *follow = nullptr;
        for (auto *button : f.window->notices().findChildren<QPushButton *>())
            if (button->text() == "Follow") follow = button;
        QVERIFY(follow);
        QTest::mouseClick(follow, Qt::LeftButton);
        QCOMPARE(*f.document().build().types->at("own-bench-motor").mass_g.value, 34.5);
        f.document().history().undo();
        QCOMPARE(*f.document().build().types->at("own-bench-motor").mass_g.value, 33.0);
    }
    void onesOwnPartsAreTakenOutAndPutBack() {
        QStandardPaths::setTestModeEnabled(true);
        const QString shelf =
            QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/weightaxis/parts/own.json";
        QFile::remove(shelf);
        const auto clean = qScopeGuard([&] { QFile::remove(shelf); });
        WindowFixture f;
        f.window->actions().action("own-parts")->trigger();
        auto *dialog = f.window->findChild<kit::OwnPartsDialog *>();
        auto *out = dialog->findChild<QPushButton *>("own-take-out");
        auto *back = dialog->findChild<QPushButton *>("own-put-back");
        QVERIFY(!out->isEnabled() && !back->isVisible()); // there are none yet
        dialog->findChild<QPlainTextEdit *>("own-pasted")
            ->setPlainText("name,like,connectors\nMine,868n,5V GND TX RX / coax SMA\nOther,868n,\n");
        QTest::mouseClick(dialog->findChild<QPushButton *>("own-keep-pasted"), Qt::LeftButton);
        QVERIFY(f.document().isOwnType("own-mine") && f.document().isOwnType("own-other"));
        auto *table = dialog->findChild<QTableWidget *>("own-parts-table");
        table->selectRow(0);
        QTest::mouseClick(out, Qt::LeftButton);
        QVERIFY(!f.document().isOwnType("own-mine") && f.document().isOwnType("own-other"));
        QVERIFY(!f.document().library().contains("own-mine"));
        QVERIFY(f.document().library().contains("rx-868n")); // the shipped ones are still there
        auto kept = loadLibrary(shelf.toStdString());
        QVERIFY(kept && kept->types.size() == 1);
        QVERIFY(back->isVisible());
        QTest::mouseClick(back, Qt::LeftButton);
        QVERIFY(f.document().isOwnType("own-mine"));
        kept = loadLibrary(shelf.toStdString());
        QVERIFY(kept && kept->types.size() == 2);
        // By the list's menu too.
        table->selectRow(1);
        const QStringList texts = waxis::test::readMenu(
            [&] {
                emit table->customContextMenuRequested({5, 30});
            },
            "Take out");
        QVERIFY(texts.size() >= 2);
        QVERIFY(!f.document().isOwnType("own-other"));
    }
    void connectorsAreTypedAddedAndMovedOnTheCard() {
        WindowFixture f;
        auto *card = new kit::OwnPartCard(f.document(), f.theme, f.window.get());
        card->setAttribute(Qt::WA_DeleteOnClose);
        card->like(f.document().library().at("rx-868n"));
        card->open();
        const auto line = [&](int port) { return card->findChild<QLineEdit *>(QString("own-pins-%1").arg(port)); };
        QCOMPARE(line(0)->text(), QString("5V GND TX RX"));
        line(0)->selectAll();
        QTest::keyClicks(line(0), "3v3 gnd tx rx");
        QCOMPARE(card->type().ports[0].pins.front().signal, std::string("3V3"));
        QTest::keyClicks(line(0), " (x");
        auto *keep = card->findChild<QPushButton *>("own-keep");
        card->findChild<QLineEdit *>("own-name")->setText("Mine");
        QVERIFY(!keep->isEnabled());
        QVERIFY(card->findChild<QLabel *>("own-problem")->text().contains("5V GND TX RX"));
        line(0)->selectAll();
        QTest::keyClicks(line(0), "5V GND TX RX");
        QVERIFY(keep->isEnabled());
        // Onto another side: it sits on the edge there and looks outward.
        auto *side = card->findChild<QComboBox *>("own-side-0");
        side->setCurrentIndex(int(Side::left));
        emit side->activated(int(Side::left));
        QCOMPARE(sideOf(card->type().ports[0]), Side::left);
        QVERIFY(std::abs(card->type().ports[0].position_mm.y() - 6) < 1.5);
        const auto ports = card->type().ports.size();
        auto *menu = card->findChild<QMenu *>("own-connector-menu");
        menu->actions().at(1)->trigger(); // a pin for each channel
        QCOMPARE(card->type().ports.size(), ports + 1);
        QCOMPARE(line(int(ports))->text(), QString("5V GND CH1 CH2 CH3 CH4"));
        QTest::mouseClick(card->findChild<QToolButton *>("own-remove-1"), Qt::LeftButton); // the antenna's
        QTest::qWait(20);
        QCOMPARE(card->type().ports.size(), ports);
        auto *canvas = card->findChild<kit::PartCanvas *>();
        canvas->setFocus();
        const double before = canvas->pixelsPerMm();
        QTest::keyClick(canvas, Qt::Key_Tab); // the board
        QTest::keyClick(canvas, Qt::Key_Tab);
        QTest::keyClick(canvas, Qt::Key_Tab); // a connector
        QTest::keyClick(canvas, Qt::Key_Z);
        QVERIFY(canvas->pixelsPerMm() > 2 * before);
        QVERIFY(card->type().radio.front().port.empty()); // no antenna port is left
        QVERIFY(keep->isEnabled());
    }
    void aRowIsTheModelOfOnesOwnPart() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        for (int row = 0; row < bench.model().rowCount(); ++row)
            if (bench.model().line(row).item == "gps-n10c") bench.table().setCurrentIndex(bench.model().index(row, 1));
        QTest::mouseClick(f.window->findChild<QToolButton *>("like-row"), Qt::LeftButton);
        auto *card = f.window->findChild<kit::OwnPartCard *>();
        QVERIFY(card && card->isVisible());
        QCOMPARE(card->type().kind, PartKind::gps);
        card->reject();
    }
    static QString inAFile(const PartType &type) {
        PartLibrary library;
        library.types[type.id] = type;
        static const QRegularExpression beyondNineDigits("(?<=\\.\\d{9})\\d+");
        return QString::fromStdString(writeLibrary(library)).remove(beyondNineDigits);
    }
    void whatTheEditorShowsItTakesBackAsItIs_data() {
        QTest::addColumn<QString>("id");
        QTest::newRow("every field of a file") << QString();
        for (const char *id : {"fc-305", "gps-n10c", "pack-6s1300", "vtx-58-1w", "rx-868d", "tcam-gimbal", "cam-19",
                               "half-60-pack", "alarm-4s", "motor-2807"})
            QTest::newRow(id) << QString(id);
    }
    void whatTheEditorShowsItTakesBackAsItIs() {
        // Each field and cell typed again as it reads: what a file holds comes through the window unchanged.
        QFETCH(QString, id);
        WindowFixture f;
        f.window->setStage(Stage::kit);
        f.window->kitBench().changePart("fc-305");
        auto &editor = f.window->kitBench().editor();
        const PartType type =
            id.isEmpty() ? test::everyField().types->at("type-1") : f.document().library().at(id.toStdString());
        editor.open(type, type.id); // changed, so that its id stays
        const QString written = inAFile(type);
        for (auto *field : editor.findChildren<QLineEdit *>()) {
            if (qobject_cast<QAbstractSpinBox *>(field->parentWidget()) || field->isReadOnly()) continue;
            const QString text = field->text();
            field->setText(text + " ");
            field->setText(text);
            emit field->textEdited(text);
            QVERIFY2(inAFile(editor.type()) == written, qPrintable(field->objectName() + ": " + text));
        }
        for (auto *table : editor.findChildren<QTableWidget *>())
            for (int row = 0; row < table->rowCount(); ++row)
                for (int column = 0; column < table->columnCount(); ++column) {
                    QTableWidgetItem *item = table->item(row, column);
                    if (!item || !(item->flags() & Qt::ItemIsEditable)) continue;
                    const QString text = item->text();
                    item->setText(text + " ");
                    table->item(row, column)->setText(text);
                    QVERIFY2(inAFile(editor.type()) == written, qPrintable(QString("%1, row %2, column %3: %4")
                                                                               .arg(table->objectName())
                                                                               .arg(row)
                                                                               .arg(column)
                                                                               .arg(text)));
                }
    }
    void thePropellersDiameterIsTypedInThePartEditor() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        f.window->kitBench().changePart("prop-7");
        auto *field = f.window->findChild<QLineEdit *>("type-diameter");
        QVERIFY(field && field->isVisible());
        field->setFocus();
        field->selectAll();
        QTest::keyClicks(field, "6.5 in");
        QTest::keyClick(field, Qt::Key_Return);
        QVERIFY2(std::abs(*f.window->kitBench().editor().type().propDiameter_mm - 165.1) < 1e-6,
                 qPrintable(QString::number(*f.window->kitBench().editor().type().propDiameter_mm)));
    }
};

QTEST_MAIN(TestOwnParts)
#include "test_own_parts.moc"
