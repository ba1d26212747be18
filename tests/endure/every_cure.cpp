// Every cure of every finding, applied and judged anew. Run by scripts/every-cure, not by the test suite.
//
//   every_cure BROKEN [SEED]   the demos as they are, and BROKEN builds more that random edits have spoilt
//
// Told by rule: how many fixes its findings name, how many of those are refused, how many bring a stop that was not
// there, and how many are left of them in the window, which tries each before it offers it. It fails when one of those
// brings a stop.
#include "core/studies/cures.h"
#include "support/any_edit.h"
#include "support/builds.h"

#include <QTextStream>
#include <atomic>
#include <mutex>
#include <thread>

using namespace waxis;

namespace {

struct Tally {
    int fixes = 0, refused = 0, bring = 0, offered = 0, offeredBring = 0;
    std::set<std::string> brought; ///< rules of the stops that fixes bring
};

std::set<std::string> stopsOf(const Analysis &analysis) {
    std::set<std::string> stops;
    for (const auto &f : analysis.findings)
        if (f.severity == Severity::stop && !f.accepted()) stops.insert(f.trouble());
    return stops;
}

/// The rules of the stops that a changed build has and the former had not.
std::set<std::string> newStops(const std::set<std::string> &before, const Analysis &after) {
    std::set<std::string> rules;
    for (const auto &f : after.findings)
        if (f.severity == Severity::stop && !f.accepted() && !before.contains(f.trouble()))
            rules.insert(std::string(ruleName(f.rule)));
    return rules;
}

using Table = std::map<std::string, Tally>;

Table tryAll(const Build &build) {
    Table table;
    Analyser full, judge, plain;
    const std::vector<Finding> findings = analyseFully(full, build).findings;
    const std::set<std::string> before = stopsOf(plain.update(build));
    CureTester tester(build);
    for (const auto &finding : findings) {
        if (finding.accepted()) continue;
        Tally &tally = table[std::string(ruleName(finding.rule))];
        for (const auto &fix : finding.fixes) {
            ++tally.fixes;
            const auto next = applyFix(build, fix);
            if (!next) {
                ++tally.refused;
                continue;
            }
            const auto rules = newStops(before, judge.update(*next));
            tally.bring += !rules.empty();
            tally.brought.insert(rules.begin(), rules.end());
        }
        for (const auto &cure : tester.curesOf(finding)) {
            ++tally.offered;
            Analyser anew;
            tally.offeredBring += !newStops(before, anew.update(cure.after)).empty();
        }
    }
    return table;
}

/// A demo after some random edits.
Build spoilt(Build build, std::mt19937 &random) {
    constexpr int kEdits = 6;
    for (int done = 0, tries = 0; done < kEdits && tries < 60; ++tries) {
        test::Draw draw(build, random);
        const auto &edit = test::everyEdit()[draw.upTo(test::everyEdit().size())];
        const EditResult next = edit.run(build, draw);
        if (!next || *next == build || next->parts.size() + 3 < build.parts.size()) continue;
        build = *next;
        ++done;
    }
    return build;
}

} // namespace

int main(int argc, char **argv) {
    const int broken = argc > 1 ? std::atoi(argv[1]) : 50;
    std::mt19937 random(argc > 2 ? unsigned(std::atoi(argv[2])) : 1);
    std::vector<Build> builds;
    for (const char *demo : {"stakewalker", "owlbox-mini", "kilnlamp", "sedge-tri"}) {
        auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis");
        if (!loaded) qFatal("%s", loaded.error().text().c_str());
        builds.push_back(std::move(loaded->build));
    }
    for (int i = 0; i < broken; ++i) builds.push_back(spoilt(builds[std::size_t(i % 4)], random));

    Table all;
    std::atomic<std::size_t> next = 0;
    std::mutex guard;
    const auto work = [&] {
        for (std::size_t i; (i = next++) < builds.size();) {
            const Table table = tryAll(builds[i]);
            const std::lock_guard lock(guard);
            for (const auto &[rule, tally] : table) {
                Tally &sum = all[rule];
                sum.fixes += tally.fixes;
                sum.refused += tally.refused;
                sum.bring += tally.bring;
                sum.offered += tally.offered;
                sum.offeredBring += tally.offeredBring;
                sum.brought.insert(tally.brought.begin(), tally.brought.end());
            }
        }
    };
    std::thread second(work);
    work();
    second.join();

    QTextStream out(stdout);
    Tally sum;
    out << "rule    fixes refused bring offered of these bring\n";
    for (const auto &[rule, tally] : all) {
        if (tally.fixes + tally.offered == 0) continue;
        QStringList brought;
        for (const auto &name : tally.brought) brought << QString::fromStdString(name);
        out << QString("%1 %2 %3 %4 %5 %6  %7\n")
                   .arg(QString::fromStdString(rule), -7)
                   .arg(tally.fixes, 5)
                   .arg(tally.refused, 7)
                   .arg(tally.bring, 5)
                   .arg(tally.offered, 7)
                   .arg(tally.offeredBring, 8)
                   .arg(brought.join(' '));
        sum.fixes += tally.fixes, sum.refused += tally.refused, sum.bring += tally.bring;
        sum.offered += tally.offered, sum.offeredBring += tally.offeredBring;
    }
    out << builds.size() << " builds: " << sum.fixes << " fixes, " << sum.refused << " refused, " << sum.bring
        << " bring a stop; " << sum.offered << " offered, " << sum.offeredBring << " of these bring a stop\n";
    return sum.offeredBring == 0 && sum.offered > 0 ? 0 : 1;
}
