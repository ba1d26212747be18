// Inside report_json: what was measured, what trials tell, what a receiver's recording holds.
#pragma once

#include "core/build/build.h"
#include "core/measured/log_report.h"
#include "core/nmea/receiver.h"
#include "io/json/write_model.h"

namespace waxis::io {

/// As docs/format/analysis.md says: under "log" of `analyse --json`, and by `log --json` and `trial --json`.
OrderedJson logJson(const Build &build, const LogReport &report);
OrderedJson trialsJson(const Build &build, const LogReport &report);

/// One recording, of `nmea --json`.
struct RecordingSummary {
    ReceiverCounts counts;
    ReceiverState last;
    std::string lastFault;
    int restarts = 0;
    int mostUsed = 0;
    std::optional<double> from_s, to_s; ///< times of day
    std::optional<double> fixAfter_s;   ///< rounds of known time are counted from the first
    std::vector<double> reachedAfter_s; ///< [n]: until n + 1 satellites were in use
};
RecordingSummary summaryOf(std::string_view bytes);
OrderedJson recordingJson(const RecordingSummary &summary);

} // namespace waxis::io
