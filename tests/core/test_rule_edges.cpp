// Rules at their edges, on derived values made by hand: where each starts to find, one step before, what it does not
// know, and its sentences. What the values come from is tested where they are made. The rows are in core/rule_rows.
#include "core/rule_rows/setting.h"

#include <QTest>
#include <map>

using namespace waxis;
using namespace waxis::test;

namespace {

std::vector<Row> rows() {
    std::vector<Row> all;
    for (const auto &table : {lookRows, jointRows, linkRows, motorRows, placeRows, balanceRows, compassRows, powerRows,
                              radioRows, runRows, stackRows, frameRows, schoolRows, sequenceRows, logRows})
        for (auto &row : table()) all.push_back(std::move(row));
    return all;
}

} // namespace

class TestRuleEdges : public QObject {
    Q_OBJECT

private slots:
    void everyRuleHasRows() {
        // Of bodies in the room: their edges are walked by tests of their own, on builds that a row is too short for.
        const std::map<RuleId, const char *> elsewhere{
            {RuleId::fitOverlap, "test_rules"},      {RuleId::fitGap, "test_rules"},
            {RuleId::fitPropZone, "test_rules"},     {RuleId::fitTipGap, "test_rules"},
            {RuleId::fitHeld, "test_seats"},         {RuleId::kitSize, "test_kit"},
            {RuleId::frmHeads, "test_frame_screws"}, {RuleId::wirSolid, "test_wiring"}};
        std::map<RuleId, std::pair<int, int>> found; // rows in which it finds something, in which it does not
        for (const auto &row : rows()) {
            const bool finds = row.severity && *row.severity != Severity::pass;
            ++(finds ? found[row.rule].first : found[row.rule].second);
        }
        for (const auto &rule : ruleBook()) {
            const auto name = std::string(ruleName(rule.id));
            if (elsewhere.contains(rule.id)) {
                QVERIFY2(!found.contains(rule.id), (name + " has rows now: take it off the list").c_str());
                continue;
            }
            QVERIFY2(found[rule.id].first > 0, (name + " has no row in which it finds something").c_str());
            // What every sender is told of has no quiet side.
            QVERIFY2(found[rule.id].second > 0 || rule.id == RuleId::radLaw, (name + " has no quiet row").c_str());
        }
    }
    void rulesStartWhereTheySay_data() {
        QTest::addColumn<int>("row");
        const auto all = rows();
        for (std::size_t i = 0; i < all.size(); ++i) QTest::newRow(all[i].name) << int(i);
    }
    void rulesStartWhereTheySay() {
        QFETCH(int, row);
        const Row expected = rows()[std::size_t(row)];
        Setting scene;
        expected.make(scene);
        const auto all = scene.judged(expected.rule);
        const auto at = std::find_if(all.begin(), all.end(), [&](const Finding &f) {
            return expected.variant.empty() || f.variant == expected.variant;
        });
        if (!expected.severity) {
            QVERIFY2(all.empty(), all.empty() ? "" : all[0].key().c_str());
            return;
        }
        QVERIFY(at != all.end());
        QCOMPARE(int(at->severity), int(*expected.severity));
        QVERIFY2(std::abs(at->margin - expected.margin) < 1e-6, std::to_string(at->margin).c_str());
        QVERIFY(at->rule == expected.rule);
        for (const auto &subject : at->subjects) QVERIFY(!subject.empty());
        if (expected.severity == Severity::pass) return;
        const FindingText text = ruleOf(expected.rule).word(scene.build, *at);
        QVERIFY2(QString::fromStdString(text.headline.text()).contains(QString::fromStdString(expected.headline)),
                 text.headline.text().c_str());
        for (const auto &sentence : {text.headline.text(), text.detail.text()})
            QVERIFY2(!sentence.empty() && sentence.find_first_of("{}") == std::string::npos, sentence.c_str());
    }
};

QTEST_GUILESS_MAIN(TestRuleEdges)
#include "test_rule_edges.moc"
