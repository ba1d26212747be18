// Named states of a build in its file: kept, small, compared, gone back to; and the log's lists out and in.
#include "core/base/by_id.h"
#include "core/build/log.h"
#include "core/edits/log_edits.h"
#include "core/edits/part_edits.h"
#include "core/log/fingerprint.h"
#include "core/studies/state_difference.h"
#include "io/csv/log_csv.h"
#include "io/json/snapshots.h"
#include "io/project/states.h"
#include "support/builds.h"

#include <QTest>
#include <nlohmann/json.hpp>

using namespace waxis;
using nlohmann::json;

namespace {

Build keptAs(const Build &build, const char *name) {
    const auto kept = addSnapshot(build, stateFrom(build, name, "2026-05-14T10:00:00+02:00"));
    if (!kept) qFatal("%s", kept.error().message.c_str());
    return *kept;
}

Build reopened(const Build &build) {
    const auto loaded = parseBuild(writeBuild(build));
    if (!loaded) qFatal("%s", loaded.error().text().c_str());
    return loaded->build;
}

Build withoutLog(Build build) {
    build.log = SharedValue<Log>();
    return build;
}

} // namespace

class TestStates : public QObject {
    Q_OBJECT

private slots:
    /// The examples of RFC 7396, appendix A, that have no null in the target.
    void patchesAreThoseOfTheStandard() {
        const std::vector<std::array<const char *, 3>> cases{
            {R"({"a":"b"})", R"({"a":"c"})", R"({"a":"c"})"},
            {R"({"a":"b"})", R"({"b":"c"})", R"({"a":"b","b":"c"})"},
            {R"({"a":"b","b":"c"})", R"({"a":null})", R"({"b":"c"})"},
            {R"({"a":["b"]})", R"({"a":"c"})", R"({"a":"c"})"},
            {R"({"a":"c"})", R"({"a":["b"]})", R"({"a":["b"]})"},
            {R"({"a":{"b":"c"}})", R"({"a":{"b":"d","c":null}})", R"({"a":{"b":"d"}})"},
            {R"({"a":[{"b":"c"}]})", R"({"a":[1]})", R"({"a":[1]})"}};
        for (const auto &[target, patch, result] : cases) {
            json applied = json::parse(target);
            applied.merge_patch(json::parse(patch));
            QVERIFY(applied == json::parse(result));
            // And ours leads from the one to the other.
            json again = json::parse(target);
            again.merge_patch(io::mergePatch(json::parse(target), json::parse(result)));
            QVERIFY(again == json::parse(result));
        }
    }
    void listsByIdComeBack() {
        const json value = json::parse(R"({"parts":[{"id":"a","x":[1,2]},{"id":"b","inner":[{"id":"c"}]}],"plain":[1,2],
                                            "mixed":[{"id":"a"},{"no":1}],"twice":[{"id":"a"},{"id":"a"}],"none":[]})");
        QVERIFY(io::listed(io::keyedById(value)) == value);
        QVERIFY(io::keyedById(value)["parts"].is_object() && io::keyedById(value)["mixed"].is_array());
    }
    void aStateCostsWhatIsOtherwiseInIt() {
        const Build build = withoutLog(test::stakewalker());
        const auto plain = writeBuild(build).size();
        const Build kept = keptAs(build, "before");
        QVERIFY2(writeBuild(kept).size() < plain + 400,
                 QByteArray::number(qulonglong(writeBuild(kept).size() - plain)));
        // One part moved: some numbers more, not the list of all parts.
        const Build moved = *shiftPart(kept, "buzzer", Vec3(-5, 0, 0));
        QVERIFY2(writeBuild(moved).size() < plain + 700,
                 QByteArray::number(qulonglong(writeBuild(moved).size() - plain)));
    }
    void statesComeBackFromTheFile() {
        Build build = withoutLog(test::stakewalker());
        const Build first = build;
        build = keptAs(build, "first");
        build = *shiftPart(build, "buzzer", Vec3(-5, 0, 0));
        const Build second = withoutLog(build);
        build = keptAs(build, "second");
        build = *removePart(build, "buzzer");
        build.name = "Another name";
        const Build opened = reopened(build);
        QVERIFY(opened == build);
        const auto &states = opened.log->snapshots;
        QCOMPARE(states.size(), std::size_t(2));
        const auto one = buildOfState(states[0]), two = buildOfState(states[1]);
        QVERIFY(one && two);
        QVERIFY(*one == first);
        QVERIFY(*two == second);
        QCOMPARE(states[0].fingerprint, fingerprintOf(first));
        // Saving what was opened changes nothing.
        QVERIFY(writeBuild(opened) == writeBuild(build));
    }
    void goingBackKeepsTheLog() {
        Build build = keptAs(test::stakewalker(), "before");
        build = *shiftPart(build, "buzzer", Vec3(-5, 0, 0));
        Session session;
        session.at = "2026-05-15T10:00:00+02:00";
        build = *addSession(build, session);
        const auto back = backToState(build, build.log->snapshots.back());
        QVERIFY(back);
        QVERIFY(back->log == build.log);
        QCOMPARE(findPart(*back, "buzzer")->placement, findPart(test::stakewalker(), "buzzer")->placement);
    }
    void aBrokenStateKeepsNoFileClosed() {
        const Build kept = keptAs(withoutLog(test::stakewalker()), "before");
        json file = json::parse(writeBuild(kept));
        file["log"]["states"][0]["patch"] = json::parse(R"({"parts":{"buzzer":{"type":7,"[]":4}},"frame":null})");
        const auto opened = parseBuild(file.dump());
        QVERIFY(opened);
        const auto state = buildOfState(opened->build.log->snapshots[0]);
        QVERIFY(!state && !state.error().text().empty());
        QVERIFY(!backToState(opened->build, opened->build.log->snapshots[0]));
        file["log"]["states"][0].erase("patch");
        const auto without = parseBuild(file.dump());
        QVERIFY(!without && without.error().where == "/log/states/0");
    }
    void differencesAreSaidAsABuilderSeesThem() {
        const Build before = withoutLog(test::stakewalker());
        QVERIFY(differenceBetween(before, before).isSame());
        Build after = *shiftPart(before, "buzzer", Vec3(-5, 0, 0));
        after = *weighPart(after, "gps", measuredValue(30, 0.2));
        const StateDifference difference = differenceBetween(before, after);
        QVERIFY(!difference.isSame());
        QCOMPARE(difference.moved.size(), std::size_t(1));
        QVERIFY(difference.moved[0].part == "buzzer" && std::abs(difference.moved[0].by_mm.x() + 5) < 1e-9);
        QVERIFY(difference.cases[0].after_g > difference.cases[0].before_g + 15);
        QVERIFY(difference.cases[0].after_s && *difference.cases[0].after_s < *difference.cases[0].before_s);
        const StateDifference gone = differenceBetween(before, *removePart(before, "buzzer"));
        QCOMPARE(gone.gone, std::vector<std::string>{"buzzer"});
        QVERIFY(!gone.wiresGone.empty());
    }

    void entriesGoOutAndComeIn() {
        const Build build = test::stakewalker();
        QVERIFY(build.log->entries.size() > 20);
        const auto list = readEntryList(parseCsv(writeEntries(build)), build);
        QVERIFY2(list.problems.empty(), list.problems.empty() ? "" : list.problems[0].reason.c_str());
        QCOMPARE(list.entries.size(), build.log->entries.size());
        QVERIFY(list.sessions.empty()); // by their time they are the build's
        for (std::size_t i = 0; i < list.entries.size(); ++i) {
            Entry expected = build.log->entries[i];
            expected.id.clear();
            expected.raw.clear();
            expected.at.clear();
            QVERIFY2(list.entries[i] == expected, expected.text.c_str());
        }
        // Into a build that knows nothing of them.
        const auto fresh =
            takeEntryList(withoutLog(build), readEntryList(parseCsv(writeEntries(build)), withoutLog(build)));
        QVERIFY(fresh);
        QCOMPARE(fresh->log->entries.size(), build.log->entries.size());
        QVERIFY(fresh->log->sessions.size() >= 3);
    }
    void badRowsAreNamedAndTheOthersKept() {
        const auto list = readEntryList(
            parseCsv(
                "time;quantity;of;values\n2026-05-20T10:00:00Z;weight;gps;12,4 g\n;wieght;gps;3\n;weight;gps;12 mm\n"
                ";flight;;9:40 1850 mAh\n;weight;gps;1 g 2 g\n"),
            test::stakewalker());
        QCOMPARE(list.entries.size(), std::size_t(2));
        QCOMPARE(list.entries[0].values[0], 12.4);
        QCOMPARE(list.entries[1].values[1], 1850.0);
        QCOMPARE(list.problems.size(), std::size_t(3));
        QVERIFY(list.problems[0].line == 3 &&
                list.problems[0].reason.find("did you mean \"weight\"") != std::string::npos);
        QVERIFY(list.problems[1].line == 4 && list.problems[2].line == 6);
        QVERIFY(!readEntryList(parseCsv("a,b\n1,2\n"), test::stakewalker()).problems.empty());
    }
    void triesGoOutAndComeIn() {
        const Build build = test::stakewalker();
        const TryList list = readTryList(parseCsv(writeTries(build)), build);
        QVERIFY(list.problems.empty());
        QCOMPARE(list.rows.size(), build.log->trials[0].tries.size());
        const auto taken = takeTryList(build, list);
        QVERIFY(taken && taken->log->trials[0].tries.size() == 2 * list.rows.size());
        const TryList bad =
            readTryList(parseCsv("trial,way,value\nnone,a,1\nt-gps,way-tail,much\nt-gps,nowhere,1\n"), build);
        QCOMPARE(bad.problems.size(), std::size_t(3));
    }
};

QTEST_GUILESS_MAIN(TestStates)
#include "test_states.moc"
