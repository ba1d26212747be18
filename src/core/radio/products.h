// Harmonics and mixing products that land on somebody's band.
#pragma once

#include <vector>

namespace waxis {

struct LineShadow;
struct Practice;
struct RadioReport;

/// Adds what the senders' harmonics put on the listeners (both as indices of `report.radios`).
void findHarmonics(RadioReport &report, const std::vector<int> &senders, const std::vector<int> &listeners,
                   const Practice &practice, const std::vector<LineShadow> &shadows);
/// The same for sums and differences of two senders, made in the output stage of one of them: in the worse one.
void findMixes(RadioReport &report, const std::vector<int> &senders, const std::vector<int> &listeners,
               const Practice &practice, const std::vector<LineShadow> &shadows);

} // namespace waxis
