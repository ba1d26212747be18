#include "core/wiring/pad_joints.h"

#include "core/pins/signal.h"
#include "core/wiring/bundle.h"
#include "core/wiring/core_gauge.h"
#include "core/wiring/gauge.h"

#include <algorithm>
#include <map>
#include <numeric>

namespace waxis {

// Strands lie less close than solid copper: a stranded conductor is some 13 % thicker than the solid one of its gauge.
static constexpr double kStranded = 1.13;

SolderHeat PadJoints::heat() const {
    constexpr double kLight_mm2 = 0.25, kMiddle_mm2 = 1.0;
    return copper_mm2 <= kLight_mm2    ? SolderHeat::light
           : copper_mm2 <= kMiddle_mm2 ? SolderHeat::middle
                                       : SolderHeat::heavy;
}

std::vector<PadJoints> padJoints(const Build &build) {
    std::vector<PadJoints> joints;
    std::map<std::string, std::size_t, std::less<>> known;
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        if (wire.lay == WireLay::coax) continue;
        for (std::size_t c = 0; c < wire.cores.size(); ++c)
            for (const bool atFrom : {true, false}) {
                const WireEnd &end = atFrom ? wire.from : wire.to;
                const std::string &pin = atFrom ? wire.cores[c].fromPin : wire.cores[c].toPin;
                const Port *port = portOf(build, end);
                if (!port || pinIndex(*port, pin) < 0) continue;
                const auto [at, fresh] = known.emplace(end.part + '/' + end.port + '/' + pin, joints.size());
                if (fresh) {
                    PadJoints joint;
                    joint.part = end.part;
                    joint.port = end.port;
                    joint.pin = pin;
                    joint.kind = port->kind;
                    joint.way = port->joint;
                    joint.has_mm = port->padSize_mm;
                    joints.push_back(std::move(joint));
                }
                joints[at->second].cores.push_back({int(w), int(c), gaugeOf(build, wire, wire.cores[c])});
            }
    }
    for (auto &joint : joints) {
        std::vector<double> strands;
        for (const auto &core : joint.cores) {
            const int awg = std::clamp(core.gauge_AWG, -3, 40);
            joint.copper_mm2 += awgArea_mm2(awg);
            strands.push_back(kStranded * awgDiameter_mm(awg));
        }
        joint.wants_mm = joint.way == PadJoint::throughHole ? bundleDiameter_mm(strands)
                                                            : std::accumulate(strands.begin(), strands.end(), 0.0);
    }
    return joints;
}

std::string_view heatWord(SolderHeat heat) {
    switch (heat) {
    case SolderHeat::light: return "light";
    case SolderHeat::middle: return "middle";
    case SolderHeat::heavy: return "heavy";
    }
    return {};
}

} // namespace waxis
