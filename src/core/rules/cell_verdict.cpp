#include "core/rules/cell_verdict.h"
#include "core/radio/radio_report.h"

namespace waxis {

Severity cellSeverity(const RadioCell &cell, bool compass, const Practice &practice) {
    if (!cell.counts) return Severity::pass;
    if (compass)
        return cell.heading_deg > practice[Limit::headingStop]    ? Severity::stop
               : cell.heading_deg > practice[Limit::headingWatch] ? Severity::watch
               : cell.heading_deg > practice[Limit::headingNote]  ? Severity::note
                                                                  : Severity::pass;
    if (cell.coupling) {
        if (cell.blockingMargin_dB < 0 || cell.rise_dB > practice[Limit::desenseStop]) return Severity::stop;
        if (cell.blockingMargin_dB < practice[Limit::blockingReserve] || cell.rise_dB > practice[Limit::desenseWatch])
            return Severity::watch;
    }
    return cell.practice_mm && cell.distance_mm < *cell.practice_mm ? Severity::watch : Severity::pass;
}

} // namespace waxis
