// Seats: where parts can be held, how they get there, and what FIT-13 says of those that hang in the air.
#include "core/analysis/analysis.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/build/near_frame.h"
#include "core/edits/furnish_stack.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/perch_edits.h"
#include "core/layout/layout.h"
#include "core/placing/faces.h"
#include "core/placing/fit_here.h"
#include "core/placing/perch.h"
#include "core/placing/usual_hold.h"
#include "core/practice/practice.h"
#include "core/rules/rule.h"
#include "core/rules/wording.h"
#include "support/builds.h"
#include "support/library.h"

using namespace waxis;
using waxis::test::shippedLibrary;

namespace {

/// The frame that a newcomer begins with.
Build freshQuad() {
    Build build;
    build.name = "New build";
    build.frame = *generateFrame(LayoutKind::quadX, {});
    return build;
}

Build seatedOn(const Build &build, const char *type, std::size_t most = 99, std::vector<std::string> *ids = nullptr) {
    const PartType &wanted = shippedLibrary().at(type);
    const auto all = perchesFor(build, wanted, shippedLibrary());
    if (all.empty()) qFatal("no place for %s", type);
    auto alike = alikeTo(all.front(), all);
    alike.resize(std::min(alike.size(), most));
    std::vector<std::string> added;
    auto next = addPerched(build, wanted, alike, shippedLibrary(), &added);
    if (!next) qFatal("%s: %s", type, next.error().message.c_str());
    if (ids) *ids = added;
    return *next;
}

/// The demo with a whip that leans back by sixty degrees.
Build stakewalkerWithWhip() {
    Build build = test::stakewalker();
    const Quat lean(Eigen::AngleAxisd(-60 * M_PI / 180, Vec3::UnitY()));
    return *addPart(build, shippedLibrary().at("ant-868-whip"), "whip", {{0, 0, 60}, lean});
}

/// `surveyed`: with what a survey offers as cures.
std::vector<Finding> heldFindings(const Build &build, bool surveyed = false) {
    Analyser analyser;
    std::vector<Finding> found;
    for (const auto &finding : (surveyed ? analyseFully(analyser, build) : analyser.update(build)).findings)
        if (finding.rule == RuleId::fitHeld) found.push_back(finding);
    return found;
}

int count(const Build &build, RuleId rule, Severity severity) {
    Analyser analyser;
    const auto &all = analyser.update(build).findings;
    return int(std::count_if(all.begin(), all.end(),
                             [&](const Finding &f) { return f.rule == rule && f.severity == severity; }));
}

const Finding *heldOf(const std::vector<Finding> &found, const std::string &part) {
    for (const auto &finding : found)
        if (finding.subjects.front() == part) return &finding;
    return nullptr;
}

} // namespace

class TestSeats : public QObject {
    Q_OBJECT

private slots:
    void aMotorSnapsToTheMountThatItIsDroppedNear_data() {
        QTest::addColumn<double>("off_mm");
        QTest::addColumn<bool>("snaps");
        // Anywhere on the mount; beyond half a motor it is not meant.
        QTest::newRow("on it") << 0.0 << true;
        QTest::newRow("beside it") << 9.0 << true;
        QTest::newRow("just within") << 13.9 << true;
        QTest::newRow("just beyond") << 14.1 << false;
    }
    void aMotorSnapsToTheMountThatItIsDroppedNear() {
        QFETCH(double, off_mm);
        QFETCH(bool, snaps);
        const Build build = freshQuad();
        const MotorMount &mount = build.frame->motorMounts[0];
        const Pose wanted{mount.position_mm + Vec3(off_mm, 0, 0), Quat::Identity()};
        const auto added = addPart(build, shippedLibrary().at("motor-2207"), "motor", wanted);
        const auto perch =
            nearestPerch(*added, added->parts.back(), wanted, {true, true, false}, 2.0, shippedLibrary());
        QCOMPARE(perch.has_value(), snaps);
        if (!snaps) return;
        QCOMPARE(perch->kind, PerchKind::motorMount);
        QCOMPARE(perch->site, mount.id);
        QVERIFY(perch->linesUp);
        const auto seated = perchPart(*added, added->parts.back().id, *perch, shippedLibrary());
        QVERIFY(bool(seated));
        const Part &motor = seated->parts.back();
        QVERIFY((framePose(*seated, motor).position_mm - mount.position_mm).norm() < 1e-9);
        QCOMPARE(motor.fastening.method, FasteningMethod::screws);
        QCOMPARE(motor.fastening.onto, std::vector<std::string>{"arm-fr"});
        QVERIFY(heldFindings(*seated).empty());
        QCOMPARE(count(*seated, RuleId::fitPropZone, Severity::stop), 0); // its own disc
    }
    void whatLiesFarAwayIsSaid_data() {
        QTest::addColumn<double>(
            "fore_mm"); // where the buzzer of the demo goes; its frame ends 112 mm before the datum
        QTest::addColumn<bool>("far");
        QTest::newRow("on the craft") << 0.0 << false;
        QTest::newRow("one metre") << 1000.0 << false;
        QTest::newRow("20 m") << 20000.0 << true;
        QTest::newRow("as far as a file holds") << 100000.0 << true;
        QTest::newRow("behind") << -20000.0 << true;
    }
    void whatLiesFarAwayIsSaid() {
        QFETCH(double, fore_mm);
        QFETCH(bool, far);
        Build build = test::stakewalker();
        if (fore_mm != 0) build = *shiftPart(build, "buzzer", {fore_mm, 0, 0}, false);
        const auto found = heldFindings(build);
        const Finding *finding = heldOf(found, "buzzer");
        QCOMPARE(finding && finding->variant == "far", far);
        QCOMPARE(finding != nullptr, fore_mm != 0); // elsewhere in the air nothing holds it either
        if (!far) return;
        const std::string text = wordFinding(build, *finding).headline.text();
        QVERIFY2(text.find("m away from the frame") != std::string::npos, text.c_str());
        QVERIFY(std::abs(*finding->measured - std::abs(fore_mm) / 1000) < 0.3);
    }
    void theFrameEndsWhereFarBegins() {
        Build build = freshQuad();
        const Aabb frame = frameBounds(*build.frame);
        for (const double beyond : {-1.0, 1.0}) {
            PartType lamp = shippedLibrary().at("buzzer-12");
            const double x = frame.max_mm.x() + kFarFromFrame_mm + beyond;
            const Build put = *addPart(build, lamp, "buzzer", {{x, 0, 0}, Quat::Identity()});
            const auto found = heldFindings(put);
            QCOMPARE(heldOf(found, put.parts.back().id)->variant == "far", beyond > 0);
        }
    }
    void itsLeadsComeOutAlongTheArm() {
        const Build build = seatedOn(freshQuad(), "motor-2207");
        for (const auto &part : build.parts) {
            const Vec3 leads = framePose(build, part).rotation * -Vec3::UnitX();
            const Vec3 inwards = -framePose(build, part).position_mm.normalized();
            QVERIFY(leads.head<2>().normalized().dot(inwards.head<2>().normalized()) > 0.999);
        }
    }
    void allFourAtOnceWithNamesOfTheirOwn() {
        std::vector<std::string> ids;
        const Build build = seatedOn(freshQuad(), "motor-2207", 99, &ids);
        QCOMPARE(ids.size(), std::size_t(4));
        std::set<std::string> names, mounts;
        for (const auto &part : build.parts) {
            names.insert(part.name);
            mounts.insert(part.placement.site);
        }
        QCOMPARE(names, (std::set<std::string>{"Front right motor", "Front left motor", "Rear right motor",
                                               "Rear left motor"}));
        QCOMPARE(mounts.size(), std::size_t(4));
        QVERIFY(perchesFor(build, shippedLibrary().at("motor-2207"), shippedLibrary()).empty()); // every mount has one
        QVERIFY(perchesFor(freshQuad(), shippedLibrary().at("prop-5"), shippedLibrary()).empty()); // no motor yet
    }
    void aCircleThatDoesNotMeetTheMountsIsSaid() {
        const Build build = freshQuad(); // 16 mm circles
        const auto wide = misfit(build, shippedLibrary().at("motor-2806"), shippedLibrary());
        QVERIFY(wide.has_value());
        QCOMPARE(wide->text(), std::string("19 mm circle, the mounts have 16"));
        QVERIFY(!misfit(build, shippedLibrary().at("motor-2207"), shippedLibrary()));
        const auto places = perchesFor(build, shippedLibrary().at("motor-2806"), shippedLibrary());
        QVERIFY(!places.empty() && !places.front().linesUp); // offered all the same, and FIT-5 finds it
        const Build seated = seatedOn(build, "motor-2806", 1);
        QCOMPARE(count(seated, RuleId::fitMounting, Severity::stop), 1);
        QCOMPARE(count(seatedOn(build, "motor-2207", 1), RuleId::fitMounting, Severity::stop), 0);
    }
    void aPropellerSitsOnTheBellAndGivesTheDiscItsSize() {
        Build build = seatedOn(freshQuad(), "motor-2207");
        build = seatedOn(build, "prop-51");
        QCOMPARE(build.parts.size(), std::size_t(8));
        for (const auto &part : build.parts) {
            if (part.type != "prop-51") continue;
            const double over = framePose(build, part).position_mm.z() - 5; // arm 5 mm thick
            QVERIFY2(std::abs(over - 18.6) < 1e-6, "hub stands on the bell, 18.6 mm over the motor's foot");
            for (const auto &mount : build.frame->motorMounts)
                if (mount.id == part.placement.site) {
                    QCOMPARE(part.turns, std::optional(mount.spin));
                    QVERIFY(std::abs(mount.propDiameter_mm - 129.5) < 0.1);
                    QVERIFY(std::abs(mount.propPlane_mm - (18.6 + 6.5 / 2)) < 1e-6); // middle of the hub
                }
        }
        build = seatedOn(build, "nut-m5");
        QCOMPARE(build.parts.size(), std::size_t(12));
        QVERIFY(heldFindings(build).empty());
        QCOMPARE(count(build, RuleId::fitPropZone, Severity::stop), 0);
        QCOMPARE(count(build, RuleId::fitOverlap, Severity::stop), 0);
        QVERIFY(
            misfit(build, shippedLibrary().at("prop-7"), shippedLibrary()).has_value()); // 178 mm tips on 167 mm axes
        QVERIFY(!misfit(build, shippedLibrary().at("prop-6"), shippedLibrary()));
    }
    void copyToTheOtherArmsNeedsNoSetting() {
        Build build = seatedOn(freshQuad(), "motor-2207", 1);
        std::vector<std::string> added;
        auto all = copyToOtherArms(build, build.parts[0].id, &added);
        QVERIFY(bool(all));
        QCOMPARE(added.size(), std::size_t(3));
        QVERIFY(heldFindings(*all).empty());
        QCOMPARE(count(*all, RuleId::fitPropZone, Severity::stop), 0);
        build = seatedOn(*all, "prop-5", 1);
        all = copyToOtherArms(build, build.parts.back().id, &added);
        QVERIFY(bool(all));
        for (const auto &part : all->parts) {
            if (part.type != "prop-5") continue;
            const Part *motor = findPart(*all, part.fastening.onto.front()); // its own arm's
            QVERIFY(motor && motor->placement.site == part.placement.site);
        }
        QVERIFY(heldFindings(*all).empty());
        QVERIFY(!copyToOtherArms(*all, part(*all, "prop-5"), nullptr));
    }
    void twoBoardsOnOnePatternAreOneStack() {
        Build build = seatedOn(freshQuad(), "esc4-305");
        build = seatedOn(build, "fc-305");
        QCOMPARE(build.stacks.size(), std::size_t(1));
        QVERIFY(stackPlaceOf(build, build.parts[0]) && stackPlaceOf(build, build.parts[1]));
        QVERIFY(lacksHardware(build, build.stacks[0].id));
        const auto fitted = furnishStack(build, build.stacks[0].id, practiceOf(build.practice));
        QVERIFY(bool(fitted));
        QVERIFY(!lacksHardware(*fitted, build.stacks[0].id));
        Analyser analyser;
        for (const auto &finding : analyser.update(*fitted).findings)
            QVERIFY2(ruleOf(finding.rule).stage != Stage::stack || finding.severity != Severity::stop,
                     wordFinding(*fitted, finding).headline.text().c_str());
        QVERIFY(!furnishStack(build, "nothing", practiceOf(build.practice)));
        QCOMPARE(*furnishStack(*fitted, build.stacks[0].id, practiceOf(build.practice)) == *fitted,
                 true); // nothing more
    }
    void twoSmallerBoardsShareOneAdapter() {
        Build build = seatedOn(freshQuad(), "esc4-255");
        QCOMPARE(build.parts.size(), std::size_t(2)); // with its adapter plate
        build = seatedOn(build, "fc-255");
        QCOMPARE(std::count_if(build.parts.begin(), build.parts.end(),
                               [](const Part &p) { return p.type == "adapter-305-255"; }),
                 1);
        QCOMPARE(build.stacks.size(), std::size_t(1));
        QCOMPARE(build.stacks[0].layers.size(), std::size_t(3)); // base, ESC, controller
        QVERIFY(heldFindings(build).empty());
    }
    void theLadderHasARungForEachFace() {
        const Build build = freshQuad();
        const auto faces = facesAt(*build.frame, {30, 0});
        QCOMPARE(faces.size(), std::size_t(6)); // main, second, top: each under and on
        QVERIFY(faces.front().under && faces.front().plate == "plate-main" && !faces.front().room_mm);
        QCOMPARE(faces[3].plate, std::string("plate-second"));
        QCOMPARE(*faces[3].room_mm, 25.0); // standoffs
        QVERIFY(facesAt(*build.frame, {300, 0}).empty());
        const PartType &receiver = shippedLibrary().at("rx-868n");
        for (const auto &face : faces) {
            const Pose there = onFace(receiver, {Vec3(30, 0, 99), Quat::Identity()}, face);
            QCOMPARE(rungOf(faces, receiver, there), int(&face - faces.data()));
        }
        QCOMPARE(rungOf({}, receiver, {}), -1);
    }
    void everyKindOfPartFindsAPlaceWhereItIsHeld_data() {
        QTest::addColumn<QString>("type");
        for (const char *type : {"esc-45", "plug-60a", "cap-1000-35", "rx-868n", "vtx-58-25", "gps-n10", "mast-gps-60",
                                 "tube-antenna", "buzzer-12", "pack-4s1300", "cam-14", "ant-868-whip", "reg-5v3"})
            QTest::newRow(type) << type;
    }
    void everyKindOfPartFindsAPlaceWhereItIsHeld() {
        QFETCH(QString, type);
        const Build build = seatedOn(freshQuad(), type.toUtf8().constData(), 1);
        const auto held = heldFindings(build);
        QVERIFY2(held.empty(), held.empty() ? "" : wordFinding(build, held.front()).headline.text().c_str());
        QCOMPARE(count(build, RuleId::fitOverlap, Severity::stop), 0);
        QCOMPARE(count(build, RuleId::fitPropZone, Severity::stop), 0);
    }
    void whatNothingHoldsIsAStop_data() {
        QTest::addColumn<double>("height_mm");
        QTest::addColumn<bool>("named");
        QTest::addColumn<QString>("variant");
        QTest::newRow("touches what it names") << 0.0 << true << QString();
        QTest::newRow("just within the limit") << 0.99 << true << QString();
        QTest::newRow("just beyond it") << 1.01 << true << "apart";
        QTest::newRow("names nothing") << 0.0 << false << "nothing";
    }
    void whatNothingHoldsIsAStop() {
        QFETCH(double, height_mm);
        QFETCH(bool, named);
        QFETCH(QString, variant);
        Build build = freshQuad();
        Part &box = test::addBox(build, "box", {10, 10, 4}, {0, 0, 34 + 2 + height_mm}, 5); // the top plate ends at 34
        if (named) box.fastening = {FasteningMethod::tape, {"plate-top"}, false, {}};
        const auto held = heldFindings(build, true);
        QCOMPARE(held.size(), std::size_t(variant.isEmpty() ? 0 : 1));
        if (variant.isEmpty()) return;
        QCOMPARE(QString::fromStdString(held[0].variant), variant);
        QCOMPARE(held[0].severity, Severity::stop);
        // Each offered place holds it, and says by what.
        QVERIFY(!held[0].fixes.empty());
        for (const auto &fix : held[0].fixes) {
            const auto cured = applyFix(build, fix);
            QVERIFY(bool(cured));
            QVERIFY(heldFindings(*cured).empty());
            QVERIFY(wordFix(build, fix).text().starts_with("Put box "));
        }
    }
    void whatHangsOnSomethingLooseIsSaidOnce() {
        Build build = freshQuad();
        test::addBox(build, "mast", {4, 4, 20}, {0, 0, 100}, 3);
        test::addBox(build, "head", {10, 10, 4}, {0, 0, 112}, 5).fastening = {
            FasteningMethod::tape, {"mast"}, false, {}};
        auto held = heldFindings(build);
        QCOMPARE(held.size(), std::size_t(1));
        QVERIFY(heldOf(held, "mast"));
        // Two that hold on to each other alone are an island.
        for (auto &part : build.parts)
            if (part.id == "mast") part.fastening = {FasteningMethod::tape, {"head"}, false, {}};
        held = heldFindings(build);
        QVERIFY(!held.empty() && held[0].variant == "island");
        // Let down onto the top plate and taped there, both are held.
        for (auto &part : build.parts) part.placement.pose.position_mm.z() -= 100 - 34 - 10;
        build.parts[0].fastening.onto.push_back("plate-top");
        QVERIFY(heldFindings(build).empty());
    }
    void aPlateWithoutPostsHangsInTheAir() {
        Build build = freshQuad();
        QVERIFY(heldFindings(build).empty());
        build.frame.edit([](Frame &frame) { frame.standoffs.clear(); });
        const auto held = heldFindings(build);
        QCOMPARE(held.size(), std::size_t(1));
        QCOMPARE(held[0].subjects.front(), std::string("plate-top"));
        QCOMPARE(held[0].variant, std::string("frame"));
    }
    void aDemoPartIsHeld_data() {
        QTest::addColumn<QString>("demo");
        for (const char *demo : {"stakewalker", "kilnlamp", "sedge-tri", "owlbox-mini"}) QTest::newRow(demo) << demo;
    }
    void aDemoPartIsHeld() {
        QFETCH(QString, demo);
        auto loaded = loadBuild((WEIGHTAXIS_TEST_DATA "/demos/" + demo.toStdString() + ".waxis").c_str());
        QVERIFY(bool(loaded));
        auto held = heldFindings(loaded->build);
        // Owlbox has one strap for two packs, a little short for the long one.
        std::erase_if(held, [](const Finding &f) { return f.variant == "strap" && f.severity == Severity::watch; });
        for (const auto &finding : held) qWarning("%s", wordFinding(loaded->build, finding).headline.text().c_str());
        QCOMPARE(held.size(), std::size_t(0));
    }
    void tubesAndMastsGoOntoPostsWithoutTheMouse_data() {
        QTest::addColumn<QString>("type");
        QTest::addColumn<bool>("offered");
        QTest::newRow("a tube") << "tube-antenna" << true;
        QTest::newRow("a whip") << "ant-868-whip" << true;
        QTest::newRow("a mast") << "mast-gps" << true;
        QTest::newRow("a pack is not tied to a post") << "pack-6s1300" << false;
        QTest::newRow("nor is a controller") << "fc-305" << false;
    }
    void tubesAndMastsGoOntoPostsWithoutTheMouse() {
        QFETCH(QString, type);
        QFETCH(bool, offered);
        const Build build = freshQuad();
        QVERIFY(!build.frame->standoffs.empty());
        const PartType &wanted = shippedLibrary().at(type.toStdString());
        const auto all = perchesFor(build, wanted, shippedLibrary());
        const auto post =
            std::find_if(all.begin(), all.end(), [](const Perch &p) { return p.kind == PerchKind::standoff; });
        QCOMPARE(post != all.end(), offered);
        if (!offered) return;
        std::vector<std::string> ids;
        const auto put = addPerched(build, wanted, {*post}, shippedLibrary(), &ids);
        QVERIFY(put);
        QCOMPARE(findPart(*put, ids.front())->fastening.onto, std::vector<std::string>{post->on});
        for (const auto &finding : heldFindings(*put)) // it touches the post, and stands on the deck
            QVERIFY2(finding.severity > Severity::watch || std::find(finding.subjects.begin(), finding.subjects.end(),
                                                                     ids.front()) == finding.subjects.end(),
                     finding.key().c_str());
    }
    void whatLeansRestsOnItsRimWhereItSnaps() {
        const Build build = stakewalkerWithWhip();
        const Part &whip = build.parts.back();
        const auto site = sitePose(*build.frame, "site-tail");
        Pose wanted = framePose(build, whip);
        wanted.position_mm = site->position_mm + Vec3(2, 1, 0);
        const auto perch = nearestPerch(build, whip, wanted, {true, true, true}, 6, shippedLibrary());
        QVERIFY(perch);
        QCOMPARE(perch->site, std::string("site-tail"));
        const auto seated = perchPart(build, whip.id, *perch, shippedLibrary());
        QVERIFY(seated);
        const double low = partBounds(*seated, *findPart(*seated, whip.id)).min_mm.z();
        QVERIFY2(std::abs(low - site->position_mm.z()) < 1e-6, qPrintable(QString::number(low)));
    }

private:
    static std::string part(const Build &build, const std::string &type) {
        for (const auto &p : build.parts)
            if (p.type == type) return p.id;
        return {};
    }
};

QTEST_APPLESS_MAIN(TestSeats)
#include "test_seats.moc"
