#include "core/edits/log_edits.h"

#include "core/base/by_id.h"
#include "core/log/entry_text.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace waxis {

namespace {

Failure<EditError> failure(std::string message) { return Failure{EditError{std::move(message)}}; }

bool isTaken(const Build &build, const std::string &id) {
    const auto ids = allIds(build);
    return std::find(ids.begin(), ids.end(), id) != ids.end();
}

/// Empty: the id is good, and one is given where there is none.
std::string giveId(const Build &build, std::string &id, const std::string &base) {
    if (id.empty()) {
        id = freshId(build, base);
        return {};
    }
    return isTaken(build, id) ? fmt::format("The id \"{}\" is taken.", id) : std::string();
}

void keepByTime(std::vector<Session> &sessions) {
    std::stable_sort(sessions.begin(), sessions.end(), [](const Session &a, const Session &b) { return a.at < b.at; });
}

/// The log with one thing of a list replaced.
template <class Thing>
EditResult replaced(const Build &build, std::vector<Thing> Log::*list, const Thing &thing, const char *what) {
    if (!byId((*build.log).*list, thing.id)) return failure(fmt::format("There is no {} \"{}\".", what, thing.id));
    Build next = build;
    next.log.edit([&](Log &log) { *byId(log.*list, thing.id) = thing; });
    return next;
}

template <class Thing>
EditResult removed(const Build &build, std::vector<Thing> Log::*list, const std::string &id, const char *what) {
    if (!byId((*build.log).*list, id)) return failure(fmt::format("There is no {} \"{}\".", what, id));
    Build next = build;
    next.log.edit([&](Log &log) { std::erase_if(log.*list, [&](const Thing &thing) { return thing.id == id; }); });
    return next;
}

std::string faultOf(const Trial &trial) {
    if (trial.question.empty()) return "A trial needs its question.";
    if (trial.satellites < 1 || trial.satellites > 100) return "Between 1 and 100 satellites can be waited for.";
    if (!(trial.longest_s >= 1 && trial.longest_s <= 86400)) return "A try lasts between a second and a day.";
    std::set<std::string> names;
    for (const auto &setup : trial.setups)
        if (setup.name.empty() || !names.insert(setup.name).second)
            return "Each way of a trial needs a name of its own.";
    return {};
}

/// Set-ups without an id get one; tries of set-ups that are gone go.
void settle(const Build &build, Trial &trial) {
    for (auto &setup : trial.setups)
        for (int n = 1; setup.id.empty(); ++n) {
            const std::string id = fmt::format("{}-way-{}", trial.id, n);
            const bool taken = isTaken(build, id) || byId(trial.setups, id);
            if (!taken) setup.id = id;
        }
    std::erase_if(trial.tries, [&](const Try &one) { return !byId(trial.setups, one.setup); });
}

std::string faultOf(const Log &log, const Trial &trial, const Try &one) {
    if (!byId(trial.setups, one.setup)) return fmt::format("The trial has no way \"{}\".", one.setup);
    if (!one.session.empty() && !byId(log.sessions, one.session))
        return fmt::format("There is no session \"{}\".", one.session);
    if (!one.value && !(one.watched_s > 0)) return "A try needs its value.";
    if (one.value && !(*one.value >= -1e9 && *one.value <= 1e9)) return "A try's value is no number that can be kept.";
    return {};
}

} // namespace

const Session *latestSession(const Build &build) {
    return build.log->sessions.empty() ? nullptr : &build.log->sessions.back();
}

EditResult addSession(const Build &build, Session session) {
    if (session.at.empty()) return failure("A session needs its day and time.");
    if (const auto fault = giveId(build, session.id, "session"); !fault.empty()) return failure(fault);
    Build next = build;
    next.log.edit([&](Log &log) {
        log.sessions.push_back(std::move(session));
        keepByTime(log.sessions);
    });
    return next;
}

EditResult changeSession(const Build &build, const Session &session) {
    if (session.at.empty()) return failure("A session needs its day and time.");
    auto next = replaced(build, &Log::sessions, session, "session");
    if (next) next->log.edit([](Log &log) { keepByTime(log.sessions); });
    return next;
}

EditResult removeSession(const Build &build, const std::string &id) {
    auto next = removed(build, &Log::sessions, id, "session");
    if (next)
        next->log.edit([&](Log &log) {
            std::erase_if(log.entries, [&](const Entry &entry) { return entry.session == id; });
            for (auto &trial : log.trials)
                for (auto &one : trial.tries)
                    if (one.session == id) one.session.clear();
        });
    return next;
}

EditResult addEntry(const Build &build, Entry entry) {
    if (entry.session.empty())
        if (const Session *latest = latestSession(build)) entry.session = latest->id;
    if (!byId(build.log->sessions, entry.session)) return failure("An entry needs a session: begin one first.");
    if (const auto fault = faultOf(entry); !fault.empty()) return failure(fault);
    if (const auto fault = giveId(build, entry.id, "entry"); !fault.empty()) return failure(fault);
    Build next = build;
    next.log.edit([&](Log &log) { log.entries.push_back(std::move(entry)); });
    return next;
}

EditResult changeEntry(const Build &build, const Entry &entry) {
    if (!byId(build.log->sessions, entry.session)) return failure("An entry needs a session.");
    if (const auto fault = faultOf(entry); !fault.empty()) return failure(fault);
    return replaced(build, &Log::entries, entry, "entry");
}

EditResult removeEntry(const Build &build, const std::string &id) { return removed(build, &Log::entries, id, "entry"); }

EditResult addTrialOf(const Build &build, Trial trial) {
    if (const auto fault = faultOf(trial); !fault.empty()) return failure(fault);
    if (const auto fault = giveId(build, trial.id, "trial"); !fault.empty()) return failure(fault);
    settle(build, trial);
    Build next = build;
    next.log.edit([&](Log &log) { log.trials.push_back(std::move(trial)); });
    return next;
}

EditResult changeTrialOf(const Build &build, const Trial &trial) {
    if (const auto fault = faultOf(trial); !fault.empty()) return failure(fault);
    Trial settled = trial;
    settle(build, settled);
    return replaced(build, &Log::trials, settled, "trial");
}

EditResult removeTrialOf(const Build &build, const std::string &id) {
    return removed(build, &Log::trials, id, "trial");
}

EditResult addTry(const Build &build, const std::string &trial, Try one) {
    const Trial *of = byId(build.log->trials, trial);
    if (!of) return failure(fmt::format("There is no trial \"{}\".", trial));
    if (const auto fault = faultOf(*build.log, *of, one); !fault.empty()) return failure(fault);
    if (const auto fault = giveId(build, one.id, trial + "-try"); !fault.empty()) return failure(fault);
    Build next = build;
    next.log.edit([&](Log &log) { byId(log.trials, trial)->tries.push_back(std::move(one)); });
    return next;
}

EditResult changeTry(const Build &build, const std::string &trial, const Try &one) {
    const Trial *of = byId(build.log->trials, trial);
    if (!of || !byId(of->tries, one.id)) return failure(fmt::format("There is no try \"{}\".", one.id));
    if (const auto fault = faultOf(*build.log, *of, one); !fault.empty()) return failure(fault);
    Build next = build;
    next.log.edit([&](Log &log) { *byId(byId(log.trials, trial)->tries, one.id) = one; });
    return next;
}

EditResult removeTry(const Build &build, const std::string &trial, const std::string &id) {
    const Trial *of = byId(build.log->trials, trial);
    if (!of || !byId(of->tries, id)) return failure(fmt::format("There is no try \"{}\".", id));
    Build next = build;
    next.log.edit(
        [&](Log &log) { std::erase_if(byId(log.trials, trial)->tries, [&](const Try &one) { return one.id == id; }); });
    return next;
}

EditResult addSnapshot(const Build &build, Snapshot snapshot) {
    if (snapshot.name.empty()) return failure("A state needs a name.");
    if (snapshot.document->empty()) return failure("There is nothing to keep in this state.");
    if (const auto fault = giveId(build, snapshot.id, "state"); !fault.empty()) return failure(fault);
    Build next = build;
    next.log.edit([&](Log &log) { log.snapshots.push_back(std::move(snapshot)); });
    return next;
}

EditResult renameSnapshot(const Build &build, const std::string &id, const std::string &name) {
    const Snapshot *state = byId(build.log->snapshots, id);
    if (!state) return failure(fmt::format("There is no state \"{}\".", id));
    if (name.empty()) return failure("A state needs a name.");
    Snapshot renamed = *state;
    renamed.name = name;
    return replaced(build, &Log::snapshots, renamed, "state");
}

EditResult removeSnapshot(const Build &build, const std::string &id) {
    return removed(build, &Log::snapshots, id, "state");
}

} // namespace waxis
