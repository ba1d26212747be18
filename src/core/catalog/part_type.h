// What the library knows about one model of part.
#pragma once

#include "core/base/measured.h"
#include "core/base/spin.h"
#include "core/catalog/ratings.h"
#include "core/catalog/signal_kind.h"
#include "core/fasteners/fastener.h"
#include "core/geometry/hole_pattern.h"
#include "core/geometry/solid.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class PartKind {
    flightController,
    fourInOneEsc,
    esc,
    motor,
    propeller,
    battery,
    regulator,
    distributionBoard,
    capacitor,
    powerPlug,
    receiver,
    videoTransmitter,
    digitalVideoUnit,
    antenna,
    gps,
    buzzer,
    lamp,
    flightCamera,
    payloadCamera,
    gimbal,
    servo,
    mount,
    damper,
    pad,
    fastener,
    strap,
    tube,
    landingFoot,
    inlinePart,    ///< sits in one core of a wire: fuse, diode, resistor, ferrite, capacitor
    currentSensor, ///< in the pack's lead; power modules with their regulator too
    powerSwitch,
    powerBank,
    overlayBoard, ///< writes onto the picture
    recorder,
    packAlarm,
    microphone,
    fan,
    heatSink,
    guard,
    other
};

/// Part families have one colour each in drawings.
enum class Family { power, control, radio, sensing, imaging, structure, load };
Family familyOf(PartKind kind);

/// Fasteners go through what they hold, straps round it: they may meet their partners.
bool holdsOthers(PartKind kind);

enum class PortKind { pads, plug, socket, coax, usb, lens, card, button, lamp };

struct Pin {
    std::string signal;                               ///< "5V", "GND", "TX", "VIDEO", ...
    std::optional<double> level_V;                    ///< of a signal; none: not stated
    bool inverted = false;                            ///< idles low where the custom is high
    std::optional<SignalKind> kind = {};              ///< none: what its name says
    ChannelFunction function = ChannelFunction::none; ///< inputs that are labelled: AIL, ELE...
    bool operator==(const Pin &) const = default;
};

/// How wires are joined to pads.
enum class PadJoint {
    unstated,    ///< taken to be through holes, for safety
    throughHole, ///< cut ends stand out on the other side
    surface
};

/// What a hand meets on a plug half.
enum class Contacts {
    unstated,
    covered, ///< sockets in a housing: the half that may stay live
    exposed  ///< pins that stand out
};

struct Port {
    std::string id;
    PortKind kind = PortKind::pads;
    Vec3 position_mm = Vec3::Zero();
    Vec3 direction = Vec3::UnitX(); ///< outward, in the part's axes
    Vec3 fullSize_mm =
        Vec3::Zero(); ///< room of plug body and first bend along direction, across, and in height; 0: not stated
    std::vector<Pin> pins;
    bool mustStayReachable = false;
    PadJoint joint = PadJoint::unstated;
    std::string connector = {}; ///< "SMA", "micro-coax snap plug"; of plugs and sockets the family: "1.0 mm lock plug"
    Contacts contacts = Contacts::unstated;
    bool keyed = false;                    ///< goes in one way round only
    bool locks = false;                    ///< holds by a latch or thread
    int rows = 1;                          ///< of pins, as they lie in the hand
    std::optional<double> pitch_mm = {};   ///< of neighbouring pins
    std::optional<double> padSize_mm = {}; ///< pads: width of one, or of the hole in it
    bool operator==(const Port &) const = default;
};

/// A joint that turns what lies beyond it: a gimbal's axis, a hinge of a landing gear, the output of a servo.
struct Travel {
    std::string name;
    Vec3 pivot_mm = Vec3::Zero();
    Vec3 axis = Vec3::UnitY();       ///< unit vector, in the part's axes as drawn
    double from_deg = 0, to_deg = 0; ///< about the axis, from how it is drawn
    int firstSolid = 0;              ///< that solid and those after it turn, and what sits on the part
    bool operator==(const Travel &) const = default;
};

struct PartType {
    std::string id;
    std::string name;
    std::string maker;
    PartKind kind = PartKind::other;
    std::vector<Solid> solids;
    Measured mass_g;
    std::optional<Vec3> centreOfMass_mm; ///< default: from the solids and their densities
    std::optional<HolePattern> mounting;
    std::optional<Vec3> arrow; ///< direction of the printed arrow, in the part's axes
    std::vector<Port> ports;
    bool hot = false;          ///< gets hot in use: keep battery and printed plastic away
    bool flexible = false;     ///< bends in the wash: antenna elements, ties, loose leads
    Measured maxThrust_gf;     ///< motors: static thrust with the build's propeller
    std::optional<Spin> turns; ///< propellers and self-tightening nuts: the motor's direction that they are made for
    std::optional<double> propDiameter_mm; ///< propellers: tip to tip
    std::optional<double> propPitch_mm;    ///< propellers: way in one turn
    std::optional<int> propBlades;         ///< propellers: of one
    std::optional<double> bore_mm;         ///< propellers: hole of the hub
    std::optional<double> shaft_mm;        ///< motors: what the propeller goes on
    std::string shaftThread;               ///< motors: for the nut, "M5"; empty: not stated
    Measured threadDepth_mm;               ///< motors: how deep a screw may go before it touches the windings
    std::optional<FastenerData> fastener;  ///< screws, nuts, spacers: which
    std::optional<HolePattern> carries;    ///< adapter plates: the other pattern, beside `mounting`
    std::optional<Electrical> electrical;
    std::vector<RadioBand> radio;
    std::vector<Clock> clocks;
    std::optional<Antenna> antenna;
    std::optional<Camera> camera;
    std::optional<Magnetics> magnetics;
    std::vector<SuppliedLead> leads;
    std::vector<Travel> travels; ///< the outermost joint first
    /// Receivers: what they send on channel 1, 2, ...; controllers: what they expect there; others: what they want.
    std::vector<ChannelFunction> functions;
    std::optional<double> strapLength_mm;  ///< straps: whole length as sold
    std::optional<double> coolingArea_cm2; ///< sinks and finned cases: what the air reaches; none: the solids' faces
    bool mustSeeSky = false;
    bool fragile = false;
    std::string note;

    // Copied in a hundred files; the code of it is made in one.
    PartType();
    PartType(const PartType &);
    PartType(PartType &&) noexcept;
    PartType &operator=(const PartType &);
    PartType &operator=(PartType &&) noexcept;
    ~PartType();
    bool operator==(const PartType &) const;
};

/// Types by their id.
using TypeTable = std::map<std::string, PartType>;

} // namespace waxis
