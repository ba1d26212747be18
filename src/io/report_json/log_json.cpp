#include "io/report_json/log_json.h"

#include "core/base/by_id.h"
#include "core/build/log.h"
#include "core/instructions/log_words.h"
#include "core/log/quantities.h"
#include "io/names.h"
#include "io/report_json/or_null.h"

#include <algorithm>

namespace waxis::io {

namespace {

const char *agreementName(Agreement agreement) {
    switch (agreement) {
    case Agreement::agrees: return "agrees";
    case Agreement::apart: return "apart";
    case Agreement::planUnknown: return "not-planned";
    }
    return "";
}

const char *tellingName(Telling telling) {
    switch (telling) {
    case Telling::tooFew: return "too-few";
    case Telling::notYet: return "not-yet";
    case Telling::told: return "told";
    }
    return "";
}

OrderedJson rowJson(const PlannedMeasured &row) {
    OrderedJson out;
    out["quantity"] = nameOf(row.quantity);
    out["subject"] = row.subject;
    out["loadCase"] = row.loadCase;
    if (!row.which.empty()) out["which"] = row.which;
    out["unit"] = row.unit;
    out["planned"] = orNull(row.planned);
    out["plannedTolerance"] = 2 * row.plannedSigma;
    out["measured"] = row.measured;
    out["measuredTolerance"] = 2 * row.measuredSigma;
    out["times"] = row.entries;
    out["sigmas"] = row.sigmas;
    out["agreement"] = agreementName(row.agreement);
    return out;
}

OrderedJson setupJson(const Trial &trial, const SetupResult &result) {
    OrderedJson out;
    const TrialSetup *setup = byId(trial.setups, result.setup);
    out["id"] = result.setup;
    out["name"] = setup ? setup->name : "";
    out["values"] = OrderedJson::array();
    for (const auto &value : result.values) out["values"].push_back(value.value);
    out["notReached"] = result.notReached;
    out["median"] = orNull(result.median);
    out["lowerQuartile"] = orNull(result.low);
    out["upperQuartile"] = orNull(result.high);
    out["best"] = orNull(result.best);
    out["worst"] = orNull(result.worst);
    return out;
}

OrderedJson pairJson(const Trial &trial, const TrialComparison &pair) {
    OrderedJson out;
    out["better"] = pair.better;
    out["other"] = pair.other;
    out["tries"] = {pair.betterTries, pair.otherTries};
    out["bySession"] = pair.bySession;
    out["U"] = pair.test.u;
    out["p_two_sided"] = pair.test.chance;
    out["p_least"] = pair.test.smallest;
    out["isExact"] = pair.test.isExact;
    out["shift"] = pair.shift.shift;
    out["low"] = pair.shift.low;
    out["high"] = pair.shift.high;
    out["coverage"] = pair.shift.coverage;
    out["shiftIsAtLeast"] = pair.isShiftAtLeast;
    out["telling"] = tellingName(pair.telling);
    if (pair.moreEach)
        out["moreTriesEach"] = *pair.moreEach;
    else
        out["moreTriesEach"] = nullptr;
    out["says"] = wordComparison(trial, pair).text();
    return out;
}

} // namespace

OrderedJson trialsJson(const Build &build, const LogReport &report) {
    auto out = OrderedJson::array();
    for (std::size_t i = 0; i < report.trials.size() && i < build.log->trials.size(); ++i) {
        const Trial &trial = build.log->trials[i];
        OrderedJson one;
        one["id"] = trial.id;
        one["question"] = trial.question;
        one["part"] = trial.part;
        one["quantity"] = nameOf(trial.quantity);
        one["satellites"] = trial.satellites;
        one["unit"] = unitOf(trial);
        one["setups"] = OrderedJson::array();
        for (const auto &setup : report.trials[i].setups) one["setups"].push_back(setupJson(trial, setup));
        one["pairs"] = OrderedJson::array();
        for (const auto &pair : report.trials[i].pairs) one["pairs"].push_back(pairJson(trial, pair));
        one["winner"] = report.trials[i].winner;
        one["next"] = nextSetup(trial);
        out.push_back(std::move(one));
    }
    return out;
}

OrderedJson logJson(const Build &build, const LogReport &report) {
    OrderedJson out;
    out["sessions"] = build.log->sessions.size();
    out["entries"] = build.log->entries.size();
    out["rows"] = OrderedJson::array();
    for (const auto &row : report.rows) out["rows"].push_back(rowJson(row));
    OrderedJson leads;
    leads["wires"] = report.leads.wires;
    leads["longer_mm"] = report.leads.longer_mm;
    leads["longer"] = report.leads.longer;
    leads["shorter"] = report.leads.shorter;
    leads["median_mm"] = report.leads.median_mm;
    leads["low_mm"] = report.leads.low_mm;
    leads["high_mm"] = report.leads.high_mm;
    leads["coverage"] = report.leads.coverage;
    leads["chance"] = report.leads.chance;
    out["leads"] = std::move(leads);
    out["trials"] = trialsJson(build, report);
    return out;
}

RecordingSummary summaryOf(std::string_view bytes) {
    RecordingSummary summary;
    Receiver receiver;
    const auto look = [&] {
        const ReceiverState &state = receiver.state();
        summary.mostUsed = std::max(summary.mostUsed, state.used);
        if (!state.time_s) return;
        if (!summary.from_s) summary.from_s = state.time_s;
        summary.to_s = state.time_s;
        constexpr double kDay_s = 86400;
        double after = *state.time_s - *summary.from_s;
        if (after < 0) after += kDay_s;
        if (state.hasFix && !summary.fixAfter_s) summary.fixAfter_s = after;
        while (int(summary.reachedAfter_s.size()) < state.used) summary.reachedAfter_s.push_back(after);
    };
    // In lines, so that no round is missed.
    while (!bytes.empty()) {
        const std::size_t end = bytes.find('\n');
        const std::string_view piece = bytes.substr(0, end == std::string_view::npos ? end : end + 1);
        if (receiver.feed(piece) > 0) look();
        bytes.remove_prefix(piece.size());
    }
    const auto before = receiver.counts().rounds;
    receiver.finish();
    if (receiver.counts().rounds > before) look();
    summary.counts = receiver.counts();
    summary.last = receiver.state();
    summary.lastFault = receiver.lastFault();
    summary.restarts = receiver.restarts();
    return summary;
}

OrderedJson recordingJson(const RecordingSummary &summary) {
    OrderedJson out;
    out["bytes"] = summary.counts.bytes;
    out["sentences"] = summary.counts.sentences;
    out["unchecked"] = summary.counts.unchecked;
    out["refused"] = summary.counts.refused;
    out["skippedBytes"] = summary.counts.skipped;
    out["rounds"] = summary.counts.rounds;
    out["restarts"] = summary.restarts;
    out["from_s"] = orNull(summary.from_s);
    out["to_s"] = orNull(summary.to_s);
    out["fixAfter_s"] = orNull(summary.fixAfter_s);
    out["reachedAfter_s"] = summary.reachedAfter_s;
    out["mostUsed"] = summary.mostUsed;
    OrderedJson last;
    if (summary.last.place)
        last["place_deg"] = {summary.last.place->latitude_deg, summary.last.place->longitude_deg};
    else
        last["place_deg"] = nullptr;
    last["altitude_m"] = orNull(summary.last.altitude_m);
    last["dilution"] = orNull(summary.last.dilution);
    last["used"] = summary.last.used;
    last["inView"] = summary.last.inView;
    last["best4_dBHz"] = orNull(summary.last.best4_dBHz);
    last["satellites"] = OrderedJson::array();
    for (const auto &satellite : summary.last.satellites) {
        OrderedJson one;
        one["system"] = gnssName(satellite.id.system);
        one["number"] = satellite.id.number;
        one["elevation_deg"] = orNull(satellite.elevation_deg);
        one["azimuth_deg"] = orNull(satellite.azimuth_deg);
        one["ratio_dBHz"] = orNull(satellite.ratio_dBHz);
        one["used"] = satellite.isUsed;
        last["satellites"].push_back(std::move(one));
    }
    out["last"] = std::move(last);
    return out;
}

} // namespace waxis::io
