// What has to be true of single values that were read, and the schema cannot say. Throw Unreadable.
#pragma once

#include "core/build/build.h"

namespace waxis::io {

class Reading;

void check(const Reading &in, const HolePattern &pattern);
void check(const Reading &in, const Solid &solid);
void check(const Reading &in, const Electrical &electrical);
void check(const Reading &in, const RadioBand &band);
void check(const Reading &in, const Antenna &antenna);
void check(const Reading &in, const FastenerData &fastener);
void check(const Reading &in, const Arm &arm);
void check(const Reading &in, const Plate &plate);
void check(const Reading &in, const Standoff &standoff);
void check(const Reading &in, const FrameScrew &screw);
void check(const Reading &in, const SlideRange &slide);
void check(const Reading &in, const StackLayer &layer);
void check(const Reading &in, const Stack &stack);
void check(const Reading &in, const RouteStop &stop);
void check(const Reading &in, const Weighing &weighing);
void check(const Reading &in, const PracticeSettings &practice);

} // namespace waxis::io
