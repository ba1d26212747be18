// Frame drawings in and out. The drawings of tests/fixtures/drawings were written by ezdxf (scripts/make-dxf-fixtures),
// which is not ours; the expected areas are closed forms of what that script draws.
#include "core/analysis/analysis.h"
#include "core/build/frame_shapes.h"
#include "core/layout/layout.h"
#include "core/recognise/recognise.h"
#include "io/drawing/dxf_reader.h"
#include "io/drawing/plate_writer.h"
#include "support/builds.h"

#include <QXmlStreamReader>
#include <clocale>

using namespace waxis;

namespace {

FlatDrawing drawing(const char *name, const char *unit = nullptr) {
    auto loaded =
        loadDxf(std::string(WEIGHTAXIS_TEST_FIXTURES "/drawings/") + name, unit ? findDrawingUnit(unit) : nullptr);
    if (!loaded) qFatal("%s: %s", name, loaded.error().error.text().c_str());
    return *loaded;
}

/// 120 x 60 mm with corners of R 10, four and four holes of 3.2, one of 6, an obround of 6 + 4 x 4, a slot of 22 x 3.
const double kOutline_mm2 = 120 * 60 - (4 - M_PI) * 100;
const double kPlate_mm2 = kOutline_mm2 - 8 * M_PI * 1.6 * 1.6 - M_PI * 9 - (6 * 4 + M_PI * 4) - 66;

/// Chords within 0.02 mm of arcs: an area is off by at most that along its curved border.
void checkPlate(const Recognition &found) {
    QCOMPARE(found.plates.size(), std::size_t(1));
    const FoundPlate &plate = found.plates[0];
    QVERIFY2(std::abs(plate.area_mm2 - kPlate_mm2) < 0.02 * (2 * M_PI * 10 + 4 * M_PI) / 2,
             qPrintable(QString::number(plate.area_mm2)));
    QCOMPARE(plate.holes.size(), std::size_t(9));
    QCOMPARE(plate.cutouts.size(), std::size_t(2));
    QCOMPARE(plate.patterns.size(), std::size_t(2));
    QCOMPARE(plate.patterns[0].use, PatternUse::motor);
    QVERIFY((plate.patterns[0].centre_mm - Vec2(20, 30)).norm() < 1e-6);
    QVERIFY(plate.patterns[0].shaftHole);
    QCOMPARE(plate.patterns[1].pattern.size_mm, 30.5);
    QVERIFY((plate.patterns[1].centre_mm - Vec2(60, 30)).norm() < 1e-6);
    for (const auto &hole : plate.holes)
        QVERIFY(std::abs(hole.diameter_mm - 3.2) < 1e-6 || std::abs(hole.diameter_mm - 6) < 1e-6);
    QCOMPARE(plate.cutouts[0].use, SlotUse::strap);
    QVERIFY(plate.cutouts[1].roundEnds);
    QVERIFY(std::abs(plate.cutouts[1].length_mm - 10) < 0.03 && std::abs(plate.cutouts[1].width_mm - 4) < 0.03);
    QVERIFY(std::abs(plate.cutouts[1].angle_deg - 90) < 0.5);
}

double areaOn(const Recognition &found, const std::string &layer) {
    double area = 0;
    for (const auto &plate : found.plates)
        if (plate.layer == layer) area += plate.area_mm2;
    return area;
}

std::string wrapped(const std::string &entities, int units = 4) {
    return "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n" + std::to_string(units) +
           "\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities + "0\nENDSEC\n0\nEOF\n";
}

} // namespace

class TestDxf : public QObject {
    Q_OBJECT

private slots:
    void everyVersionReadsTheSame_data() {
        QTest::addColumn<QString>("name");
        QTest::addColumn<QString>("unit");
        for (const char *release : {"r2000", "r2004", "r2007", "r2010", "r2013", "r2018"})
            QTest::newRow(release) << QString("plate-%1-mm.dxf").arg(release) << QString();
        QTest::newRow("r12 in mm") << "plate-r12-mm.dxf"
                                   << "mm";
        QTest::newRow("r12 in inches") << "plate-r12-in.dxf"
                                       << "in";
        QTest::newRow("inches by the header") << "plate-r2010-in.dxf" << QString();
        QTest::newRow("no unit, told") << "plate-r2010-unitless.dxf"
                                       << "mm";
    }
    void everyVersionReadsTheSame() {
        QFETCH(QString, name);
        QFETCH(QString, unit);
        const auto read = drawing(qPrintable(name), unit.isEmpty() ? nullptr : qPrintable(unit));
        QCOMPARE(read.layers, std::vector<std::string>{"main-plate"});
        checkPlate(recognise(read));
    }
    void aMissingUnitIsAskedFor() {
        for (const char *name : {"plate-r12-mm.dxf", "plate-r2010-unitless.dxf"}) {
            const auto read = loadDxf(std::string(WEIGHTAXIS_TEST_FIXTURES "/drawings/") + name);
            QVERIFY(!read);
            QVERIFY(read.error().unitsMissing);
            QVERIFY((read.error().size - Vec2(120, 60)).norm() < 1e-6);
        }
        // A unit that is told wins over the header's, and that is said.
        const auto read = drawing("plate-r2010-in.dxf", "mm");
        const auto tiny = recognise(read).plates.at(0).outline_mm; // its holes are too small to be drilled
        QVERIFY(std::abs(areaProperties({tiny, {}}).area_mm2 - kOutline_mm2 / 645.16) < 0.02);
        QVERIFY(std::any_of(read.skipped.begin(), read.skipped.end(),
                            [](const Skipped &s) { return s.what == "units of the header"; }));
        QVERIFY(!findDrawingUnit("furlong"));
    }
    void looseLinesArcsAndAnEllipseMakeThePlate() {
        const auto found = recognise(drawing("pieces.dxf"));
        QCOMPARE(found.plates.size(), std::size_t(1));
        const double expected = kOutline_mm2 - 4 * M_PI * 2.56 - M_PI * 8 * 4;
        QVERIFY(std::abs(found.plates[0].area_mm2 - expected) < 0.02 * (2 * M_PI * 10 + 38) / 2);
        QCOMPARE(found.layers.at("drill"), LayerUse::holes);
        std::string all;
        for (const auto &skipped : found.skipped) all += skipped.what + " " + skipped.reason + "; ";
        for (const char *word : {"text", "open outline", "20.00 mm apart", "drawn twice"})
            QVERIFY2(all.find(word) != std::string::npos, all.c_str());
    }
    void blocksAreTurnedMirroredScaledNestedAndRepeated() {
        const auto found = recognise(drawing("blocks.dxf"));
        QCOMPARE(found.plates.size(), std::size_t(1));
        const auto &plate = found.plates[0];
        std::set<std::pair<int, int>> centres;
        for (const auto &p : plate.patterns) {
            QCOMPARE(p.use, PatternUse::motor);
            centres.emplace(int(std::lround(p.centre_mm.x())), int(std::lround(p.centre_mm.y())));
            if (std::lround(p.centre_mm.x()) == 200) QCOMPARE(p.pattern.size_mm, 19.0);
        }
        QCOMPARE(centres, (std::set<std::pair<int, int>>{
                              {0, 0}, {0, 100}, {100, 100}, {200, 100}, {100, -50}, {150, -50}, {-50, 20}, {-50, 80}}));
        // The small triangle beside each base: right of the plain one, left of the mirrored, above the one turned by 90
        // degrees.
        auto triangleAt = [&](const Vec2 &p) {
            return std::any_of(plate.cutouts.begin(), plate.cutouts.end(), [&](const FoundSlot &s) {
                return contains({s.ring, {}}, p);
            });
        };
        QVERIFY(triangleAt({14, 0.5}));         // (19, 5.5) less the base point
        QVERIFY(triangleAt({100 - 14, 100.5})); // mirrored
        QVERIFY(triangleAt({150 - 0.5, -50 + 14}));
        QVERIFY(std::any_of(found.skipped.begin(), found.skipped.end(),
                            [](const Skipped &s) { return s.what == "block NOWHERE"; }));
    }
    void splinesEllipsesAndMirroredEntitiesKeepTheirArea() {
        const auto found = recognise(drawing("curves.dxf"));
        const double ellipse = M_PI * 30 * 15, circle = M_PI * 400;
        QVERIFY(std::abs(areaOn(found, "ellipse") - ellipse) < 0.02 * 145 / 2);
        QVERIFY(std::abs(areaOn(found, "nurbs") - circle) < 0.02 * 126 / 2);
        QVERIFY(std::abs(areaOn(found, "through-points") - circle) <
                0.005 * circle); // a smooth curve of its own choice
        // Drawn at x = -310..-300 with the axis turned over: it stands at +300..+310, its bulge to the right of the
        // travel.
        QVERIFY(std::abs(areaOn(found, "mirrored") - (100 + M_PI * 25 / 2)) < 0.3);
        for (const auto &plate : found.plates)
            if (plate.layer == "mirrored")
                for (const auto &p : plate.outline_mm) QVERIFY(p.x() > 290 && p.x() < 311);
        // No chord is farther than 0.02 mm from its curve.
        for (const auto &plate : found.plates)
            if (plate.layer == "nurbs")
                for (std::size_t i = 0; i < plate.outline_mm.size(); ++i) {
                    const Vec2 middle = (plate.outline_mm[i] + plate.outline_mm[(i + 1) % plate.outline_mm.size()]) / 2;
                    QVERIFY(20 - (middle - Vec2(100, 0)).norm() < kFlattening_mm);
                }
    }
    void fiveThousandEntitiesComeOutWhole() {
        const auto read = drawing("many.dxf");
        QCOMPARE(read.paths.size(), std::size_t(5000));
        const auto found = recognise(read);
        QCOMPARE(found.plates.size(), std::size_t(500));
        for (const auto &plate : found.plates) QCOMPARE(plate.holes.size(), std::size_t(6));
    }
    void theShippedDrawingsMakeFramesWithoutFaults() {
        for (const auto &[name, motors, standoffs, prop_in] :
             {std::tuple{"marshlight-5.dxf", 4, 4, 5.0}, {"owlbox-3.dxf", 4, 4, 3.0}}) {
            const auto read = loadDxf(std::string(WEIGHTAXIS_TEST_DATA "/drawings/") + name);
            QVERIFY2(bool(read), name);
            const auto found = recognise(*read);
            const auto choices = guessChoices(found);
            QVERIFY2(std::abs(choices.propDiameter_mm - prop_in * 25.4) < 1e-9,
                     qPrintable(QString::number(choices.propDiameter_mm / 25.4)));
            const auto frame = frameFromDrawing(found, choices);
            QVERIFY2(bool(frame), frame ? "" : frame.error().c_str());
            QCOMPARE(int(frame->motorMounts.size()), motors);
            QCOMPARE(int(frame->standoffs.size()), standoffs);
            QCOMPARE(frame->plates.size(), std::size_t(2));
            Build build;
            build.name = name;
            build.frame = *frame;
            QVERIFY(parseBuild(writeBuild(build)));
            Analyser analyser;
            QCOMPARE(analyser.update(build).counts.stop, 0);
        }
    }
    void generatedFramesComeBackTheSame_data() {
        QTest::addColumn<int>("index");
        for (int i = 0; i < int(layouts().size()); ++i) QTest::newRow(layouts()[std::size_t(i)].id.data()) << i;
    }
    void generatedFramesComeBackTheSame() {
        QFETCH(int, index);
        const Frame frame = *generateFrame(layouts()[std::size_t(index)].kind, {});
        const auto read = readDxf(platesAsDxf(frame));
        QVERIFY2(bool(read), read ? "" : read.error().error.text().c_str());
        const auto found = recognise(*read);
        QVERIFY(found.skipped.empty());
        for (const auto &plate : frame.plates) {
            const auto at = std::find_if(found.plates.begin(), found.plates.end(),
                                         [&](const FoundPlate &p) { return p.layer == plate.id; });
            QVERIFY2(at != found.plates.end(), plate.id.c_str());
            // Coordinates are written to 1e-6 mm.
            QCOMPARE(at->outline_mm.size(), plate.outline_mm.size());
            for (const auto &corner : plate.outline_mm)
                QVERIFY(std::any_of(at->outline_mm.begin(), at->outline_mm.end(),
                                    [&](const Vec2 &p) { return (p - corner).norm() < 2e-6; }));
            QCOMPARE(at->holes.size(), plate.holes.size());
            for (const auto &hole : plate.holes)
                QVERIFY(std::any_of(at->holes.begin(), at->holes.end(), [&](const FoundHole &h) {
                    return (h.centre_mm - hole.centre_mm).norm() < 2e-6 &&
                           std::abs(h.diameter_mm - hole.diameter_mm) < 3e-6;
                }));
            QCOMPARE(at->cutouts.size(), plate.cutouts_mm.size());
        }
        // And so do the masses of a frame made of it: 0.01 %.
        auto choices = guessChoices(found);
        for (std::size_t i = 0; i < found.plates.size(); ++i)
            for (const auto &plate : frame.plates)
                if (plate.id == found.plates[i].layer) {
                    choices.plates[i].thickness_mm = plate.thickness_mm;
                    choices.plates[i].material = plate.material;
                }
        for (std::size_t i = 0; i < found.plates.size(); ++i)
            if (choices.plates[i].role == PlateRole::arm) choices.plates[i].role = PlateRole::ignore;
        const auto again = frameFromDrawing(found, choices);
        QVERIFY2(bool(again), again ? "" : again.error().c_str());
        auto massOf = [](const Frame &f) {
            double mass = 0;
            for (const auto &plate : f.plates) mass += shapeProperties(plateShape(plate)).volume_mm3;
            return mass;
        };
        QVERIFY(std::abs(massOf(*again) - massOf(frame)) < 1e-4 * massOf(frame));
    }
    void templatesCarryTheirMarksAndARuler() {
        const Frame frame = *generateFrame(LayoutKind::quadX, {});
        const auto read = readDxf(platesAsDxf(frame, PlateSheet::drillTemplate));
        QVERIFY(bool(read));
        double ruler = 0;
        for (const auto &path : read->paths)
            if (path.layer == "marks") ruler = std::max(ruler, (path.points_mm.back() - path.points_mm.front()).norm());
        QVERIFY(std::abs(ruler - 100) < 1e-6);
    }
    void svgIsInMillimetresAndWellFormed() {
        const Frame frame = *generateFrame(LayoutKind::hexaX, {});
        for (auto sheet : {PlateSheet::outlines, PlateSheet::drillTemplate}) {
            QXmlStreamReader xml(QByteArray::fromStdString(platesAsSvg(frame, sheet)));
            double width = 0, box = 0;
            int circles = 0;
            while (!xml.atEnd()) {
                xml.readNext();
                if (!xml.isStartElement()) continue;
                if (xml.name() == QLatin1String("svg")) {
                    QVERIFY(xml.attributes().value("width").endsWith(QLatin1String("mm")));
                    width = xml.attributes().value("width").chopped(2).toDouble();
                    box = xml.attributes().value("viewBox").split(' ')[2].toDouble();
                }
                circles += xml.name() == QLatin1String("circle");
            }
            QVERIFY2(!xml.hasError(), qPrintable(xml.errorString()));
            QCOMPARE(width, box); // one user unit is one millimetre
            std::size_t holes = 0;
            for (const auto &plate : cutPlates(frame)) holes += plate.holes.size();
            QCOMPARE(std::size_t(circles), holes);
        }
    }
    void badDrawingsAreRefusedWithAPlace_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::newRow("empty") << QByteArray();
        QTest::newRow("text") << QByteArray("this is a letter\nand no drawing\n");
        QTest::newRow("binary") << QByteArray("AutoCAD Binary DXF\r\n\x1a\0abc", 24);
        QTest::newRow("no section") << QByteArray("0\nEOF\n");
        QTest::newRow("cut off") << QByteArray("0\nSECTION\n2\nENTITIES\n0\nLINE\n");
        QTest::newRow("odd lines") << QByteArray("0\nSECTION\n2\nENTITIES\nLINE\n0\n0\nENDSEC\n");
        QTest::newRow("count too large") << QByteArray::fromStdString(
            wrapped("0\nLWPOLYLINE\n8\na\n90\n2000000000\n70\n1\n"));
        QTest::newRow("knots too many") << QByteArray::fromStdString(wrapped("0\nSPLINE\n8\na\n71\n3\n72\n1e9\n"));
        QTest::newRow("long line") << QByteArray("0\n") + QByteArray(5000, 'A') + "\n";
    }
    void badDrawingsAreRefusedWithAPlace() {
        QFETCH(QByteArray, bytes);
        const auto read = readDxf({bytes.data(), std::size_t(bytes.size())}, findDrawingUnit("mm"));
        QVERIFY(!read);
        QVERIFY(!read.error().error.where.empty() && !read.error().error.expected.empty() &&
                !read.error().error.found.empty());
    }
    void whatCannotBeUsedIsToldApart() {
        const auto read = readDxf(wrapped("0\nTEXT\n8\nnotes\n10\n0\n20\n0\n40\n2\n1\nhello\n"
                                          "0\nPOINT\n8\nnotes\n10\n1\n20\n1\n"
                                          "0\n3DSOLID\n8\nsolids\n"
                                          "0\nCIRCLE\n8\na\n10\n0\n20\n0\n40\n0\n"
                                          "0\nCIRCLE\n8\na\n10\n1e300\n20\n0\n40\n5\n"
                                          "0\nCIRCLE\n8\na\n10\n0\n20\n0\n40\n5\n"
                                          "0\nINSERT\n8\na\n2\nGHOST\n10\n0\n20\n0\n"));
        QVERIFY2(bool(read), read ? "" : read.error().error.text().c_str());
        QCOMPARE(read->paths.size(), std::size_t(1));
        std::string all;
        for (const auto &skipped : read->skipped) all += skipped.what + ": " + skipped.reason + "; ";
        for (const char *word : {"text", "point", "3DSOLID", "no radius", "not finite", "GHOST"})
            QVERIFY2(all.find(word) != std::string::npos, all.c_str());
    }
    void blocksInThemselvesComeToAnEnd() {
        const std::string text =
            "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nA\n10\n0\n20\n0\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n5\n"
            "0\nINSERT\n8\n0\n2\nA\n10\n1\n20\n1\n0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"
            "0\nINSERT\n8\nlay\n2\nA\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n";
        const auto read = readDxf(text, findDrawingUnit("mm"));
        QVERIFY2(bool(read), read ? "" : read.error().error.text().c_str());
        QVERIFY(!read->paths.empty() && read->paths.size() < 50);
        for (const auto &path : read->paths) QCOMPARE(path.layer, std::string("lay")); // layer 0 takes the insert's
        QVERIFY(read->skipped.size() == 1 && read->skipped[0].reason.find("too deep") != std::string::npos);
    }
    void layerNamesOfOldCodePagesAreReadable() {
        const auto read = readDxf(wrapped("0\nCIRCLE\n8\nPlatte gr\xFC\x6E\n10\n0\n20\n0\n40\n5\n"));
        QCOMPARE(read->layers.at(0), std::string("Platte gr\xC3\xBCn"));
    }
    void aCommaLocaleChangesNothing() {
        const char *former = std::setlocale(LC_NUMERIC, nullptr);
        const std::string kept = former ? former : "C";
        // Not every machine has one; the numbers are the same with and without.
        for (const char *name : {"de_DE.UTF-8", "fr_FR.UTF-8", "de_DE"})
            if (std::setlocale(LC_NUMERIC, name)) break;
        const auto found = recognise(drawing("plate-r2010-mm.dxf"));
        const std::string text = platesAsDxf(*generateFrame(LayoutKind::quadX, {}));
        std::setlocale(LC_NUMERIC, kept.c_str());
        checkPlate(found);
        QVERIFY(text == platesAsDxf(*generateFrame(LayoutKind::quadX, {})));
    }
};

QTEST_APPLESS_MAIN(TestDxf)
#include "test_dxf.moc"
