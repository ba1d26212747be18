// Wires in numbers: gauges against published tables, lengths and allowances by hand, verdicts, neighbours, cut list.
#include "core/analysis/analysis.h"
#include "core/base/units.h"
#include "core/derived/all_up.h"
#include "core/power/power_report.h"
#include "core/practice/practice.h"
#include "core/remedies/gauge_advice.h"
#include "core/sums/sum.h"
#include "core/wiring/bundle.h"
#include "core/wiring/cut_list.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"
#include "io/csv/csv.h"
#include "io/csv/cut_csv.h"
#include "io/report_json/sum_json.h"
#include "support/findings.h"
#include "support/wires.h"

#include <QtTest>

using namespace waxis;
using namespace waxis::test;

namespace {

bool near(double a, double b, double within = 1e-9) { return std::abs(a - b) <= within; }

/// Two boards 100 mm apart that face each other, and a wire between.
Build twoBoards(std::vector<std::string> names = {"5V", "GND", "TX", "RX"}, double apart_mm = 100) {
    Build build = bareQuad(300, 127);
    addBoard(build, "a", {-apart_mm / 2 - 5, 0, 0}, {portAt("out", {5, 0, 0}, Vec3::UnitX(), names)});
    addBoard(build, "b", {apart_mm / 2 + 5, 0, 0}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), names)});
    std::vector<std::pair<std::string, std::string>> pins;
    for (const auto &s : names) pins.emplace_back(s, s == "TX" ? "RX" : s == "RX" ? "TX" : s);
    build.wires.push_back(wireBetween("w", {"a", "out"}, {"b", "in"}, pins));
    return build;
}

WireReport reportOf(const Build &build, std::size_t wire = 0) {
    Analyser analyser;
    return analyser.update(build).derived.wiring->wires.at(wire);
}

} // namespace

class TestWiring : public QObject {
    Q_OBJECT

private slots:
    void gaugesFollowTheStandard() {
        // ASTM B258: 36 AWG is 0.0050 inch, 0000 would be 0.4600; 10 AWG 2.588 mm, 20 AWG 0.8118 mm (published tables).
        QVERIFY(near(awgDiameter_mm(36), 0.127, 1e-12));
        QVERIFY(near(awgDiameter_mm(10), 2.588, 5e-4));
        QVERIFY(near(awgDiameter_mm(20), 0.8118, 5e-5));
        // Ten gauges thinner: a tenth of the area, as the trade says, within 2 %.
        QVERIFY(near(awgArea_mm2(10) / awgArea_mm2(20), 10.16, 0.02));
        QCOMPARE(lightestGauge(3.0).value_or(0), 24);
        QCOMPARE(lightestGauge(30.0).value_or(0), 14);
        QVERIFY(!lightestGauge(80.0));
        QVERIFY(!findWireStock(13));
    }
    void everyGaugeHasItsSum_data() {
        QTest::addColumn<QString>("gauge");
        QTest::addColumn<double>("diameter_mm"); // ASTM B258, from memory of handbook tables; less than 0: refused
        QTest::newRow("0000") << "0000" << 11.684;
        QTest::newRow("00") << "00" << 9.266;
        QTest::newRow("0") << "0" << 8.251;
        QTest::newRow("odd") << "13" << 1.828;
        QTest::newRow("thinnest") << "40" << 0.0799;
        QTest::newRow("thinner") << "41" << -1.0;
        QTest::newRow("thicker") << "00000" << -1.0;
        QTest::newRow("half") << "13.5" << -1.0;
        QTest::newRow("no gauge") << "thin" << -1.0;
    }
    void everyGaugeHasItsSum() {
        QFETCH(QString, gauge);
        QFETCH(double, diameter_mm);
        const SumValue awg = io::sumValueFromText(gauge.toStdString());
        const auto result = calculate(*findSum("wire-gauge"), {{"awg", awg}});
        const auto drop = calculate(*findSum("voltage-drop"), {{"awg", awg}, {"one_way_m", 0.5}, {"I_A", 2.0}});
        if (diameter_mm < 0) {
            QVERIFY(!result && !drop);
            QCOMPARE(result.error().text(), std::string("awg: a gauge from 0000 to 40 expected"));
            return;
        }
        QVERIFY(result && drop);
        QVERIFY(near(std::get<double>(findKey(*result, "d_mm")->held), diameter_mm, 6e-4));
        const double stock = std::get<double>(findKey(*result, "silicone_OD_mm")->held);
        QVERIFY(std::isnan(stock)); // none of these is sold as a silicone lead
        const double metre_mohm = std::get<double>(findKey(*result, "R20_mohm_per_m")->held);
        QVERIFY(near(std::get<double>(findKey(*drop, "drop_V")->held), 2 * 0.5 * metre_mohm * 1e-3 * 2, 1e-12));
    }
    void cornersAreShortenedByTheFormula() {
        // r (t - 2 tan(t/2)): a square corner at 10 mm is 20 mm of tangents against 15.708 of arc.
        QVERIFY(near(cornerChange_mm(10, 90), 15.7079632679 - 20, 1e-9));
        QCOMPARE(cornerChange_mm(10, 0), 0.0);
        QVERIFY(std::isfinite(cornerChange_mm(10, 180)));
    }
    void bundlesHoldTheirWires() {
        QCOMPARE(bundleDiameters(1), 1.0);
        for (int n = 2; n < 40; ++n) {
            QVERIFY2(bundleDiameters(n) >= bundleDiameters(n - 1), qPrintable(QString::number(n)));
            QVERIFY(n / (bundleDiameters(n) * bundleDiameters(n)) < 0.91); // never denser than the plane's best packing
        }
        // Closed forms: a ring of n round one in the middle; 18 and 19 alike.
        QVERIFY(near(bundleDiameters(8), 1 + 1 / std::sin(kPi / 7), 1e-12));
        QVERIFY(near(bundleDiameters(9), 1 + 1 / std::sin(kPi / 8), 1e-12));
        QVERIFY(near(bundleDiameters(19), 1 + std::sqrt(2.0) + std::sqrt(6.0), 1e-12));
        const std::vector<double> unlike{4, 1, 1};
        QVERIFY(bundleDiameter_mm(unlike) >= 5.0); // two thickest side by side
    }
    void lengthsAreTheSumOfTheirParts() {
        const Build build = twoBoards();
        const WireReport r = reportOf(build);
        // By hand: 100 mm straight, two solder pads at 3 mm, 10 mm to solder once more; 116 rounds up to 120.
        QVERIFY2(near(r.route_mm, 100, 1e-9), qPrintable(QString::number(r.route_mm)));
        QCOMPARE(r.corners_mm, 0.0);
        QCOMPARE(r.ends_mm, 6.0);
        QCOMPARE(r.resolder_mm, 10.0);
        QCOMPARE(r.slack_mm, 0.0);
        QCOMPARE(r.needed_mm, 116.0);
        QCOMPARE(r.cut_mm, 120.0);
        QVERIFY(r.verdict == LeadVerdict::cut);
        // Four cores of 28 or 26 AWG: grams by length.
        double mass = 0;
        for (int awg : {26, 26, 28, 28}) mass += findWireStock(awg)->mass_g_m * 0.120;
        QVERIFY2(near(r.mass_g, mass, 1e-9), qPrintable(QString::number(r.mass_g)));
    }
    void twistedWiresAreLonger() {
        Build build = twoBoards({"TX", "RX"});
        build.wires[0].lay = WireLay::twisted;
        build.wires[0].twistPitch_mm = 12;
        build.wires[0].gauge_AWG = 28; // 1.2 mm over the jacket
        const WireReport r = reportOf(build);
        QVERIFY(near(r.twist, std::sqrt(1 + std::pow(3.14159265358979 * 1.2 / 12, 2)), 1e-9));
        QVERIFY(near(r.needed_mm, 100 * r.twist + 16, 1e-9));
    }
    void slackIsLeftWhereThingsMove() {
        Build build = twoBoards();
        build.frame.edit([](Frame &frame) {
            Site site;
            site.id = "soft";
            site.isolated = true;
            frame.sites.push_back(site);
        });
        Build soft = build;
        for (auto &part : soft.parts)
            if (part.id == "b") part.placement.site = "soft";
        const WireReport r = reportOf(soft);
        QCOMPARE(r.slack_mm, 8.0);
        QCOMPARE(r.slackFor, std::vector<std::string>{"sway"});
        // The same to the highest plate, which opens.
        Build lid = build;
        lid.frame.edit([](Frame &frame) {
            for (const auto &[id, z] : {std::pair{"low", -40.0}, std::pair{"lid", 40.0}}) {
                Plate plate;
                plate.id = id;
                plate.outline_mm = {{-20, 200}, {20, 200}, {20, 240}, {-20, 240}};
                plate.z_mm = z;
                plate.thickness_mm = 2;
                frame.plates.push_back(plate);
            }
        });
        for (auto &part : lid.parts)
            if (part.id == "b") part.fastening.onto = {"lid"};
        QCOMPARE(reportOf(lid).slack_mm, 30.0);
    }
    void suppliedLeadsAreComparedWithWhatIsNeeded() {
        auto withLead = [](double length_mm, const std::string &plug) {
            Build build = twoBoards();
            build.types.edit([&](TypeTable &types) { typeIn(types, "a").leads = {{"out", length_mm, 28, plug}}; });
            return build;
        };
        QVERIFY(reportOf(withLead(200, "")).verdict == LeadVerdict::trim);
        QCOMPARE(reportOf(withLead(200, "")).cut_mm, 120.0);
        QVERIFY(reportOf(withLead(200, "")).mass_g < 0); // what is cut off was in the part's own weight
        QVERIFY(reportOf(withLead(200, "servo plug")).verdict == LeadVerdict::asItIs);
        QVERIFY(reportOf(withLead(120, "")).verdict == LeadVerdict::asItIs);
        // 6 mm short: it can be soldered once; 21 mm short: not at all.
        auto near = findingsOf(withLead(110, ""), RuleId::wirLength),
             far = findingsOf(withLead(95, ""), RuleId::wirLength);
        QCOMPARE(near.size(), std::size_t(1));
        QVERIFY(near[0].severity == Severity::watch);
        QVERIFY(far[0].severity == Severity::stop);
        QCOMPARE(far[0].margin, -21.0);
        // What is offered cures it: moving an end nearer, or cutting new.
        QVERIFY(far[0].fixes.size() >= 2);
        for (const auto &fix : far[0].fixes) {
            const auto mended = applyFix(withLead(95, ""), fix);
            QVERIFY(bool(mended));
            QVERIFY(findingsOf(*mended, RuleId::wirLength).empty());
        }
    }
    void motorsWhoseLeadsLeaveOnTheFarSideAreTurned_data() {
        QTest::addColumn<int>("turned"); // degrees from where the leads leave towards the controller
        QTest::addColumn<bool>("oblong");
        QTest::addColumn<bool>("found");
        QTest::newRow("the near side") << 0 << false << false;
        QTest::newRow("the far side") << 180 << false << true;
        QTest::newRow("aside") << 90 << false << true;
        QTest::newRow("aside, with holes for half turns alone") << 90 << true << false;
        QTest::newRow("the far side, with such holes") << 180 << true << true;
    }
    void motorsWhoseLeadsLeaveOnTheFarSideAreTurned() {
        QFETCH(int, turned);
        QFETCH(bool, oblong);
        QFETCH(bool, found);
        Build build = bareQuad();
        addBoard(build, "motor", {100, 0, 0}, {portAt("leads", {-12, 0, 2}, -Vec3::UnitX(), {"A", "B", "C"})},
                 PartKind::motor);
        build.types.edit([&](TypeTable &types) {
            typeIn(types, "motor").mounting =
                HolePattern{oblong ? PatternShape::rectangle : PatternShape::square, 16, oblong ? 19.0 : 0.0, 3.2, 4};
        });
        addBoard(build, "esc", {0, 0, 0}, {portAt("m1", {5, 0, 2}, Vec3::UnitX(), {"A", "B", "C"})},
                 PartKind::fourInOneEsc);
        build.wires = {wireBetween("w", {"motor", "leads"}, {"esc", "m1"}, {{"A", "A"}, {"B", "B"}, {"C", "C"}})};
        build = *turnPart(build, "motor", Vec3::UnitZ(), turned);
        std::vector<Finding> sides;
        for (const auto &f : findingsOf(build, RuleId::wirLength))
            if (f.variant == "far side") sides.push_back(f);
        QCOMPARE(sides.size(), std::size_t(found));
        if (!found) return;
        QCOMPARE(sides[0].severity, Severity::note);
        const auto mended = applyFix(build, sides[0].fixes.at(0));
        QVERIFY(bool(mended));
        for (const auto &f : findingsOf(*mended, RuleId::wirLength)) QVERIFY(f.variant != "far side");
        // What is said is what the route has less, round the motor's body a little more.
        const double less_mm = reportOf(build).route_mm - reportOf(*mended).route_mm;
        QVERIFY2(less_mm > 0.7 * *sides[0].measured && less_mm < 1.4 * *sides[0].measured,
                 qPrintable(QString("%1 for %2").arg(less_mm).arg(*sides[0].measured)));
    }
    void aSuppliedLeadHasTheGaugeThatItHas() {
        Build build = twoBoards();
        build.types.edit([&](TypeTable &types) { typeIn(types, "a").leads = {{"out", 200, 28, ""}}; });
        // The gauge of the lead itself changes nothing; another one is cut new, and weighs as a whole.
        const auto same = setGauge(build, "w", 28), thicker = setGauge(build, "w", 22);
        QVERIFY(same && thicker);
        QVERIFY(same->wires[0].make == WireMake::asSupplied && reportOf(*same).mass_g < 0);
        QVERIFY(thicker->wires[0].make == WireMake::stock && reportOf(*thicker).mass_g > 0);
        // A file may say otherwise: what is cut off is still thin wire.
        Build told = build;
        told.wires[0].gauge_AWG = 22;
        QCOMPARE(reportOf(told).mass_g, reportOf(build).mass_g);
    }
    void readyMadeCablesComeInLengths() {
        Build build = twoBoards();
        build.types.edit([](TypeTable &types) {
            for (const char *id : {"a", "b"}) typeIn(types, id).ports[0].kind = PortKind::socket;
        });
        build.wires[0].make = WireMake::readyMade;
        const WireReport r = reportOf(build);
        QCOMPARE(r.resolder_mm, 0.0);
        QCOMPARE(*r.supplied_mm, 120.0); // 104 mm: 100 is too short
        build.wires[0].readyMade_mm = 80;
        QVERIFY(reportOf(build).verdict == LeadVerdict::shortBy);
        Build far = twoBoards({"TX", "RX"}, 590);
        far.wires[0].make = WireMake::readyMade;
        QVERIFY(reportOf(far).verdict == LeadVerdict::none);
    }
    void parallelRunsAreMeasured() {
        // A pack lead and a serial wire 6 mm apart over 100 mm; the twisted one does not mind.
        Build build = twoBoards({"TX", "RX"});
        addBoard(build, "p", {-55, 10, 0}, {portAt("out", {5, 0, 0}, Vec3::UnitX(), {"BAT", "GND"})}, PartKind::battery,
                 pack(4, 1000, 50));
        addBoard(build, "q", {55, 10, 0}, {portAt("in", {-5, 0, 0}, -Vec3::UnitX(), {"BAT", "GND"})}, PartKind::other,
                 takes(10, 26, 20, 40));
        build.types.edit([](TypeTable &types) {
            for (const char *id : {"a", "b", "p", "q"}) typeIn(types, id).solids[0].shape = Box{Vec3(10, 5, 4)};
        });
        for (auto &part : build.parts)
            if (part.id == "p" || part.id == "q") part.placement.pose.position_mm.y() = 6;
        build.wires.push_back(wireBetween("power", {"p", "out"}, {"q", "in"}, {{"BAT", "BAT"}, {"GND", "GND"}}));
        auto found = findingsOf(build, RuleId::wirParallel);
        QCOMPARE(found.size(), std::size_t(1));
        QVERIFY2(std::abs(*found[0].measured - 100) < 5, qPrintable(QString::number(*found[0].measured)));
        QVERIFY(near(found[0].inputs[1].value, 6, 0.5));
        QVERIFY(found[0].from_mm.has_value());
        const auto twisted = applyFix(build, found[0].fixes.at(0));
        QVERIFY(bool(twisted));
        QVERIFY(findingsOf(*twisted, RuleId::wirParallel).empty());
        // A tenth of the current is not heard in a serial line: 4 times the length for it, twice for what listens.
        Build weak = build;
        weak.types.edit([](TypeTable &types) { typeIn(types, "q").electrical = takes(10, 26, 2, 4); });
        QVERIFY(findingsOf(weak, RuleId::wirParallel).empty());
        // Twelve millimetres apart they are not beside each other.
        for (auto &part : build.parts)
            if (part.id == "p" || part.id == "q") part.placement.pose.position_mm.y() = 14;
        QVERIFY(findingsOf(build, RuleId::wirParallel).empty());
    }
    void loneSpansAndGrommetsAreFound() {
        const Build build = twoBoards({"TX", "RX"});
        const auto spans = findingsOf(build, RuleId::wirSpan);
        QVERIFY(!spans.empty());
        const auto tied = applyFix(build, spans[0].fixes.at(0));
        QVERIFY(bool(tied) && tied->ties.size() == 1);
        QVERIFY(findingsOf(*tied, RuleId::wirSpan).empty()); // two spans of under 60 mm
        // A plate with a slot between the boards.
        Build plate = twoBoards({"TX", "RX"});
        plate.frame.edit([](Frame &frame) {
            Plate p;
            p.id = "plate";
            p.outline_mm = {{-90, -90}, {90, -90}, {90, 90}, {-90, 90}};
            p.z_mm = 9;
            p.thickness_mm = 2;
            frame.plates.push_back(p);
            frame.passThroughs.push_back({"slot", "plate", {{-6, -6}, {6, -6}, {6, 6}, {-6, 6}}, HoleEdge::bare});
        });
        for (auto &part : plate.parts)
            if (part.id == "b") part.placement.pose.position_mm.z() = 20;
        const auto edges = findingsOf(plate, RuleId::wirEdge);
        QCOMPARE(edges.size(), std::size_t(1));
        QVERIFY(edges[0].severity == Severity::watch);
        const auto grommet = applyFix(plate, edges[0].fixes.at(0));
        QVERIFY(bool(grommet));
        QVERIFY(findingsOf(*grommet, RuleId::wirEdge).empty());
        // Two 28 AWG wires of 1.2 mm in 144 mm2: pi/4 x 2 x 1.44 / 144.
        Analyser analyser;
        const auto &use = analyser.update(plate).derived.wiring->holes.at(0);
        QVERIFY(near(use.fill, 3.14159265 / 4 * 2 * 1.44 / 144, 1e-6));
        QVERIFY(near(use.hole_mm, 12, 0.05));
    }
    void thinnerWireIsOffered() {
        const Build build = stakewalker();
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        int offered = 0;
        for (std::size_t w = 0; w < build.wires.size(); ++w) {
            const WireReport &report = analysis.derived.wiring->wires[w];
            const WireCurrent &current = analysis.derived.power->wires[w];
            const auto lighter = lighterGauge(build.wires[w], report, current, analysis.practice);
            if (!lighter) continue;
            ++offered;
            QVERIFY(lighter->saves_g > 0 && lighter->gauge_AWG > report.gauge_AWG);
            // It carries what the wire carries, and the next thinner one would not.
            const double share = analysis.practice[Limit::wireShare] / 100;
            QVERIFY(findWireStock(lighter->gauge_AWG)->carries_A * share >= current.typical_A - 1e-9);
            const WireStock *thinner = findWireStock(lighter->gauge_AWG + 2);
            if (thinner)
                QVERIFY(thinner->carries_A * share < current.typical_A || thinner->carries_A * kBurst < current.peak_A);
        }
        QVERIFY(offered > 0);
    }
    void wiresThroughBodiesAreFound() {
        // A shroud's wall between the boards: the wire finds its way round it by itself.
        Build build = twoBoards({"TX", "RX"});
        addBox(build, "wall", {4, 30, 30}, {0, 0, 0}, 5, PartKind::mount);
        QVERIFY(findingsOf(build, RuleId::wirSolid).empty());
        // Pinned inside it, it is crushed; what is offered lets it go.
        build.wires[0].stops = {{std::string(), Vec3(0, 5, 5)}};
        const auto found = findingsOf(build, RuleId::wirSolid);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::stop);
        QCOMPARE(found[0].subjects, (std::vector<std::string>{build.wires[0].id, "wall"}));
        const auto freed = applyFix(build, found[0].fixes.at(0));
        QVERIFY(bool(freed) && findingsOf(*freed, RuleId::wirSolid).empty());
        // Beside it is right, and so is within the mount that carries its own end.
        build.wires[0].stops[0].point_mm = Vec3(0, 18, 5);
        QVERIFY(findingsOf(build, RuleId::wirSolid).empty());
        build.wires[0].stops[0].point_mm = Vec3(0, 5, 5);
        for (auto &part : build.parts)
            if (part.id == build.wires[0].from.part) part.fastening.onto = {"wall"};
        QVERIFY(findingsOf(build, RuleId::wirSolid).empty());
    }
    void wiresRoundTheRimOfAPlateAreFound() {
        // One board under the plate, one on it, both with their pads towards its rim.
        Build build = bareQuad(300, 127);
        addBoard(build, "a", {-15, 0, 0}, {portAt("out", {-5, 0, 2}, -Vec3::UnitX(), {"TX", "RX"})});
        addBoard(build, "b", {-15, 0, 14}, {portAt("in", {-5, 0, 2}, -Vec3::UnitX(), {"TX", "RX"})});
        build.wires = {wireBetween("w", {"a", "out"}, {"b", "in"}, {{"TX", "RX"}, {"RX", "TX"}})};
        build.frame.edit([](Frame &frame) {
            Plate p;
            p.id = "plate";
            p.outline_mm = {{-30, -90}, {30, -90}, {30, 90}, {-30, 90}};
            p.z_mm = 9;
            p.thickness_mm = 2;
            p.material = "carbon";
            frame.plates.push_back(p);
        });
        const auto found = findingsOf(build, RuleId::wirEdge);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].variant, std::string("rim"));
        QCOMPARE(found[0].subjects, (std::vector<std::string>{"plate", build.wires[0].id}));
        QCOMPARE(found[0].fixes.size(), std::size_t(2)); // tape, sleeve
        for (const auto &fix : found[0].fixes) {
            const auto mended = applyFix(build, fix);
            QVERIFY(bool(mended) && findingsOf(*mended, RuleId::wirEdge).empty());
        }
        build.frame.edit([](Frame &frame) { frame.plates.back().material = "glass"; });
        QVERIFY(findingsOf(build, RuleId::wirEdge).empty());
    }
    void wiresWeighSomething() {
        const Build build = twoBoards();
        Build without = build;
        without.wires.clear();
        Analyser a, b;
        const double with_g = allUp(a.update(build).derived).mass_g;
        const double without_g = allUp(b.update(without).derived).mass_g;
        QVERIFY(near(with_g - without_g, reportOf(build).mass_g, 1e-9));
    }
    void theCutListNamesEveryCore() {
        const Build build = stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const CutList list = cutList(build, practiceOf(build.practice), *derived.wiring);
        std::size_t cores = 0;
        for (const auto &wire : build.wires) cores += wire.lay == WireLay::coax ? 1 : wire.cores.size();
        QCOMPARE(list.rows.size(), cores);
        double metres = 0, rows_m = 0;
        for (const auto &s : list.stock) metres += s.metres;
        for (const auto &row : list.rows)
            if (row.cut == "cut" && row.gauge_AWG > 0) rows_m += row.length_mm * 1e-3;
        QVERIFY(near(metres, rows_m, 1e-9));
        QVERIFY(list.ties > 0);
        QCOMPARE(list.grommets, 1);
        // As CSV it reads back: a row for each core, then stock and small parts in the same columns.
        const CsvTable table = parseCsv(writeCutList(list));
        QVERIFY(table.problems.empty());
        QVERIFY(table.rows.size() >= cores + list.stock.size());
        QCOMPARE(QString::fromStdString(table.header.at(3)), QString("length mm"));
        // Who adds up the lengths gets the pieces: totals stand in a column of their own.
        double pieces_mm = 0, listed_mm = 0;
        for (const auto &row : list.rows) pieces_mm += std::round(row.length_mm);
        for (const auto &row : table.rows) listed_mm += QString::fromStdString(row.at(3)).toDouble();
        QVERIFY(near(pieces_mm, listed_mm, 1e-6));
        QCOMPARE(QString::fromStdString(table.rows.at(0).at(0)), QString::fromStdString(list.rows[0].label));
    }
    void jointsInTheFlightPathAreCounted() {
        Build build = stakewalker();
        QVERIFY(findingsOf(build, RuleId::wirJoints).empty()); // the battery plug, as the practice has it
        for (auto &wire : build.wires)
            if (wire.id == "w-motor-1") wire.splices = 3;
        QCOMPARE(*findingsOf(build, RuleId::wirJoints)[0].measured, 4.0);
        QVERIFY(findingsOf(build, RuleId::wirJoints)[0].severity == Severity::watch);
    }
    void everyDemoIsFullyRouted() {
        for (const char *demo : {"stakewalker", "kilnlamp", "sedge-tri", "owlbox-mini"}) {
            const auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis");
            QVERIFY(bool(loaded));
            Analyser analyser;
            const Derived &derived = analyser.update(loaded->build).derived;
            QVERIFY(loaded->build.wires.size() >= 14);
            for (std::size_t w = 0; w < derived.routes.size(); ++w) {
                const std::string what = std::string(demo) + " " + loaded->build.wires[w].id;
                QVERIFY2(derived.routes[w].found, what.c_str());
                QVERIFY2(derived.wiring->wires[w].verdict != LeadVerdict::unknown, what.c_str());
                QVERIFY2(derived.wiring->wires[w].needed_mm > 0, what.c_str());
            }
            QVERIFY(derived.power->unfed.empty() || std::string(demo) == "kilnlamp");
        }
    }
    void theLongestLegRoundsAWireMayTurn() {
        // Bends: a square corner with room bends as wanted, a hairpin 4 mm wide does not.
        Build build = twoBoards({"BAT", "GND"});
        build.wires[0].gauge_AWG = 14; // 3.5 mm: 10.5 mm wanted
        build.wires[0].stops = {{std::string(), Vec3(0, 60, 0)}};
        QVERIFY(findingsOf(build, RuleId::wirBend).empty());
        build.wires[0].stops = {{std::string(), Vec3(30, 0, 4)}, {std::string(), Vec3(-30, 0, 6)}};
        QVERIFY(!findingsOf(build, RuleId::wirBend).empty());
    }
};

QTEST_APPLESS_MAIN(TestWiring)
#include "test_wiring.moc"
