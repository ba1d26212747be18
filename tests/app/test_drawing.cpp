// Drawings tell the truth: projections, outlines, snapping, labels that keep out of each other's way.
#include "app/drawing/build_scene.h"
#include "app/shell/command_palette.h"
#include "app/shell/findings_panel.h"
#include "app/stages/place/snapping.h"
#include "core/build/frame_shapes.h"
#include "core/edits/part_edits.h"
#include "core/rules/rule.h"
#include "support/builds.h"

#include <QGraphicsPathItem>
#include <QPen>
#include <QtTest>

using namespace waxis;
using drawing::View;

namespace {

constexpr View kViews[] = {View::plan, View::side, View::front};

void openDemo(app::Document &document) {
    LoadError error;
    std::vector<LoadWarning> warnings;
    QVERIFY(document.open(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis", error, warnings));
}

double areaOf(const QPainterPath &path) {
    double area = 0;
    for (const auto &polygon : path.toSubpathPolygons())
        for (int i = 0; i + 1 < polygon.size(); ++i)
            area += polygon[i].x() * polygon[i + 1].y() - polygon[i + 1].x() * polygon[i].y();
    return std::abs(area) / 2;
}

Build board(const std::optional<HolePattern> &pattern) {
    Build build = test::bareQuad();
    test::addBox(build, "fc", {36, 36, 6}, {0, 0, 20}, 8);
    build.types.edit([&](TypeTable &types) { test::typeIn(types, "fc").mounting = pattern; });
    build.frame.edit([](Frame &frame) {
        frame.plates.push_back({"main",
                                "Main plate",
                                {{-80, -25}, {80, -25}, {80, 25}, {-80, 25}},
                                {},
                                {},
                                -2,
                                2,
                                "carbon",
                                false,
                                {},
                                {}});
        Site site;
        site.id = "stack";
        site.name = "Stack";
        site.kind = SiteKind::pattern;
        site.X_FrameSite = {{5, 0, 12}, Quat::Identity()};
        site.pattern = HolePattern{PatternShape::square, 30.5, 0, 3.2, 4};
        frame.sites.push_back(site);
    });
    return build;
}

place::Snap snapAt(const Build &build, const Vec3 &at, View view = View::plan, double reach = 4) {
    return place::snap(build, build.parts[0], {at, Quat::Identity()}, view, reach, {});
}

} // namespace

class TestDrawing : public QObject {
    Q_OBJECT

private slots:
    void theNosePointsRightAndUpIsUp() {
        QCOMPARE(drawing::project(View::plan, {1, 2, 3}), QPointF(1, -2)); // left is up in plan
        QCOMPARE(drawing::project(View::side, {1, 2, 3}), QPointF(1, -3));
        QCOMPARE(drawing::project(View::front, {1, 2, 3}), QPointF(2, -3)); // seen from the nose, left is right
    }
    void unprojectingADragMovesThePartUnderThePointer() {
        for (const View view : kViews) {
            const QPointF drag(7, -11);
            const Vec3 moved = drawing::unproject(view, drag);
            QVERIFY((drawing::project(view, moved) - drag).manhattanLength() < 1e-12);
            QVERIFY(std::abs(moved.dot(drawing::towardsViewer(view))) < 1e-12);
        }
    }
    void outlinesHaveTheAreaOfTheShadow() {
        // A convex body's mean shadow is a quarter of its surface (Cauchy); single views are checked by hand.
        const Shape box = Box{{20, 10, 4}};
        QVERIFY(std::abs(areaOf(drawing::outline(View::plan, box, {})) - 200) < 1e-9);
        QVERIFY(std::abs(areaOf(drawing::outline(View::side, box, {})) - 80) < 1e-9);
        QVERIFY(std::abs(areaOf(drawing::outline(View::front, box, {})) - 40) < 1e-9);
        const Pose turned{Vec3::Zero(), quaternionFrom({0, 0, 45})};
        QVERIFY(std::abs(areaOf(drawing::outline(View::side, box, turned)) - (20 + 10) / std::sqrt(2.0) * 4) < 1e-9);
        const Pose lying{Vec3::Zero(), quaternionFrom({0, 90, 0})};
        QVERIFY(std::abs(areaOf(drawing::outline(View::plan, Cylinder{10, 30}, lying)) - 300) <
                2); // 40 corners for a circle
    }
    void holesStayOpenInPlan() {
        const Prism plate{{{{-20, -20}, {20, -20}, {20, 20}, {-20, 20}}, {circleRing({5, 0}, 6)}}, 2};
        const QPainterPath path = drawing::outline(View::plan, plate, {});
        QVERIFY(path.contains(QPointF(-5, 0)));
        QVERIFY(!path.contains(QPointF(5, 0)));
    }
    void whatIsNearerLiesOnTop() {
        const Shape box = Box{{10, 10, 4}};
        QVERIFY(drawing::nearness(View::plan, box, {{0, 0, 9}, Quat::Identity()}) >
                drawing::nearness(View::plan, box, {{0, 0, 5}, Quat::Identity()}));
        QCOMPARE(drawing::nearness(View::plan, box, {{0, 0, 9}, Quat::Identity()}), 11.0);
    }
    void boardsAreDrawnToTheSiteWhoseHolesFit() {
        const HolePattern fits{PatternShape::square, 30.5, 0, 3.2, 4}, other{PatternShape::square, 20, 0, 3.2, 4};
        const auto seated = snapAt(board(fits), {3, 2, 20});
        QVERIFY(seated.perch && seated.perch->kind == PerchKind::pattern);
        QCOMPARE(seated.perch->site, std::string("stack"));
        QVERIFY((seated.X_FramePart.position_mm - Vec3(5, 0, 12)).norm() < 1e-12);
        QVERIFY(seated.text.contains("stack"));
        QVERIFY(!snapAt(board(other), {3, 2, 20}).perch);
        QVERIFY(!snapAt(board(std::nullopt), {3, 2, 20}).perch);
        QVERIFY(!snapAt(board(fits), {15, 0, 20}).perch); // out of reach
    }
    void edgesFacesAndTheCentreLineAttract() {
        const Build build = board(std::nullopt);
        const auto middle = snapAt(build, {-30, 2.5, 20});
        QVERIFY(std::abs(middle.X_FramePart.position_mm.y()) < 1e-12);
        QCOMPARE(middle.guides.size(), std::size_t(1));
        const auto edge = snapAt(build, {60, 12, 20}); // front edge of the board at 78, of the plate at 80
        QVERIFY(std::abs(edge.X_FramePart.position_mm.x() - 62) < 1e-12);
        const auto standing = snapAt(build, {0, 12, 5}, View::side); // bottom at 2, plate's top at 0
        QVERIFY(std::abs(standing.X_FramePart.position_mm.z() - 3) < 1e-12);
        QVERIFY(standing.text.contains("Main plate"));
        const auto hanging = snapAt(build, {0, 12, -4}, View::side); // top at -1, plate's bottom at -2
        QVERIFY(std::abs(hanging.X_FramePart.position_mm.z() + 5) < 1e-12);
        const auto away = snapAt(build, {-30, 12, 20});
        QVERIFY((away.X_FramePart.position_mm - Vec3(-30, 12, 20)).norm() < 1e-12);
        QVERIFY(away.text.isEmpty());
    }
    void labelsNeverStandOnEachOther() {
        app::Document document;
        openDemo(document);
        theme::Theme theme(theme::Mode::light);
        for (const View view : kViews) {
            drawing::BuildScene scene(view, document, theme);
            for (double scale : {1.0, 1.7, 4.0, 12.0}) {
                scene.layOutLabels(scale);
                std::vector<QRectF> shown;
                for (const auto &part : document.build().parts) {
                    const auto *item = scene.item(QString::fromStdString(part.id));
                    if (!item->isVisible() || item->shownLabel(scale).isNull()) continue;
                    const QRectF rect = item->shownLabel(scale);
                    for (const auto &other : shown) QVERIFY2(!other.intersects(rect), qPrintable(item->label()));
                    QVERIFY(item->sceneBoundingRect().contains(rect));
                    shown.push_back(rect);
                }
                if (scale > 3 && view != View::front) QVERIFY(shown.size() >= 3);
            }
        }
    }
    void theSceneShowsWhatIsAboardAndNothingElse() {
        app::Document document;
        openDemo(document);
        theme::Theme theme(theme::Mode::light);
        drawing::BuildScene scene(View::plan, document, theme);
        QVERIFY(scene.item("acam")->isVisible());
        document.setLoadCase(1);
        QVERIFY(!scene.item("acam")->isVisible());
        QVERIFY(!scene.partsAt(scene.item("pack")->silhouette().boundingRect().center()).contains("acam"));
        document.edit("remove", removePart(document.build(), "buzzer"));
        QVERIFY(!scene.item("buzzer"));
        const Vec3 gps = framePose(document.build(), *findPart(document.build(), "gps")).position_mm;
        QVERIFY((scene.item("gps")->pos() - drawing::project(View::plan, gps)).manhattanLength() < 1e-9);
    }
    void propellerZonesFollowThePractice() {
        app::Document document;
        openDemo(document);
        theme::Theme theme(theme::Mode::light);
        drawing::BuildScene scene(View::side, document, theme);
        auto thickestDisc = [&] {
            double most = 0;
            for (const auto *item : scene.items())
                if (const auto *path = qgraphicsitem_cast<const QGraphicsPathItem *>(item);
                    path && path->pen().style() == Qt::DashLine)
                    most = std::max(most, path->path().boundingRect().height());
            return most;
        };
        // 12 mm above and 8 mm below the blades of 127 mm, in proportion for these; 25 and 20 mm for 381 mm.
        const double diameter = document.build().frame->motorMounts[0].propDiameter_mm;
        QVERIFY(std::abs(thickestDisc() - 20 * diameter / 127) < 1e-6);
        document.edit("practice", chooseProfile(document.build(), "lift"));
        QVERIFY(std::abs(thickestDisc() - 45 * diameter / 381) < 1e-6);
    }
    void findingsAreListedWorstFirstAndByStage() {
        app::Document document;
        openDemo(document);
        app::FindingsModel model(document);
        // What is accepted stands last.
        for (int row = 1; row < model.rowCount() && !model.finding(row).accepted(); ++row)
            QVERIFY(model.finding(row - 1).severity <= model.finding(row).severity);
        model.setStage(Stage::balance);
        QCOMPARE(model.rowCount(), 3);
        for (int row = 0; row < model.rowCount(); ++row)
            QVERIFY(ruleOf(model.finding(row).rule).stage == Stage::balance);
        model.setStage(Stage::wire);
        QCOMPARE(model.rowCount(), 12);
        model.setStage(std::nullopt);
        QCOMPARE(model.rowCount(), 38);
    }
    void thePaletteFindsWordsInAnyOrder() {
        QVERIFY(app::matchScore("GPS with compass", "comp gps") > 0);
        QCOMPARE(app::matchScore("GPS with compass", "gps buzzer"), 0);
        QVERIFY(app::matchScore("GPS mast", "gps") > app::matchScore("Add GPS mast", "gps")); // beginnings count more
        QVERIFY(app::matchScore("Turn left", "") > 0);
        QVERIFY(app::matchScore("Übersicht", "über") > 0);
    }
};

QTEST_MAIN(TestDrawing)
#include "test_drawing.moc"
