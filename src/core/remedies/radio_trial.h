// One pair of radios tried with something changed.
#pragma once

#include "core/practice/practice.h"
#include "core/radio/radio_report.h"

#include <vector>

namespace waxis {

/// A cell of the report after some radio has changed, with its products.
inline RadioCell cellOf(RadioReport trial, const Practice &practice, const std::vector<LineShadow> &shadows, int sender,
                        int listener) {
    judgeRadios(trial, practice, shadows);
    for (std::size_t r = 0; r < trial.rows.size(); ++r)
        for (std::size_t c = 0; c < trial.columns.size(); ++c)
            if (trial.rows[r].radio == sender && trial.columns[c].radio == listener) return trial.cell(r, c);
    return {};
}

inline bool isWell(const RadioCell &cell, const Practice &practice) {
    return cell.counts && cell.margin_dB >= 0 && cell.blockingMargin_dB >= practice[Limit::blockingReserve] &&
           (!cell.practice_mm || cell.distance_mm >= *cell.practice_mm);
}

/// Only what matters for a pair: the sender, the listener, and every other sender, whose products may land there.
inline RadioReport pairOnly(const RadioReport &report) {
    RadioReport trial;
    trial.radios = report.radios;
    return trial;
}

} // namespace waxis
