#include "io/names.h"

#include "core/balance/mass_kind.h"
#include "core/findings/finding.h"
#include "core/studies/saving_kind.h"

#include <algorithm>
#include <array>

namespace waxis::io {

namespace {

template <class E>
struct Names;

// NOLINTBEGIN(cppcoreguidelines-macro-usage): the tables below are data, and each needs its own specialisation.
#define WAXIS_NAMES(Enum, ...)                                                                                         \
    template <>                                                                                                        \
    struct Names<Enum> {                                                                                               \
        static constexpr auto table = std::to_array<std::pair<Enum, std::string_view>>(__VA_ARGS__);                   \
    };

WAXIS_NAMES(Source,
            {{Source::catalogue, "catalogue"}, {Source::measured, "measured"}, {Source::estimated, "estimated"}})
WAXIS_NAMES(SolidRole, {{SolidRole::body, "body"},
                        {SolidRole::board, "board"},
                        {SolidRole::component, "component"},
                        {SolidRole::connector, "connector"},
                        {SolidRole::shield, "shield"},
                        {SolidRole::lens, "lens"},
                        {SolidRole::soft, "soft"}})
WAXIS_NAMES(PadJoint,
            {{PadJoint::unstated, "unstated"}, {PadJoint::throughHole, "through-hole"}, {PadJoint::surface, "surface"}})
WAXIS_NAMES(PatternShape, {{PatternShape::square, "square"},
                           {PatternShape::circle, "circle"},
                           {PatternShape::rectangle, "rectangle"}})
WAXIS_NAMES(FastenerForm, {{FastenerForm::screw, "screw"},
                           {FastenerForm::nut, "nut"},
                           {FastenerForm::lockNut, "lock-nut"},
                           {FastenerForm::thinLockNut, "thin-lock-nut"},
                           {FastenerForm::pressNut, "press-nut"},
                           {FastenerForm::washer, "washer"},
                           {FastenerForm::shim, "shim"},
                           {FastenerForm::spacer, "spacer"},
                           {FastenerForm::standoff, "standoff"}})
WAXIS_NAMES(HeadStyle,
            {{HeadStyle::cap, "cap"}, {HeadStyle::button, "button"}, {HeadStyle::countersunk, "countersunk"}})
WAXIS_NAMES(LayerRole, {{LayerRole::frame, "frame"},
                        {LayerRole::board, "board"},
                        {LayerRole::adapter, "adapter"},
                        {LayerRole::damper, "damper"},
                        {LayerRole::spacer, "spacer"},
                        {LayerRole::nut, "nut"},
                        {LayerRole::washer, "washer"},
                        {LayerRole::shim, "shim"},
                        {LayerRole::gap, "gap"},
                        {LayerRole::wires, "wires"},
                        {LayerRole::sheet, "sheet"}})
WAXIS_NAMES(WireLay, {{WireLay::loose, "loose"},
                      {WireLay::twisted, "twisted"},
                      {WireLay::shielded, "shielded"},
                      {WireLay::flat, "flat"},
                      {WireLay::coax, "coax"}})
WAXIS_NAMES(WireMake,
            {{WireMake::asSupplied, "as-supplied"}, {WireMake::stock, "stock"}, {WireMake::readyMade, "ready-made"}})
WAXIS_NAMES(StackHold, {{StackHold::screws, "screws"}, {StackHold::ties, "ties"}, {StackHold::strap, "strap"}})
WAXIS_NAMES(ScrewEnd, {{ScrewEnd::nut, "nut"}, {ScrewEnd::spacer, "spacer"}, {ScrewEnd::frame, "frame"}})
WAXIS_NAMES(PartKind, {{PartKind::flightController, "flight-controller"},
                       {PartKind::fourInOneEsc, "four-in-one-esc"},
                       {PartKind::esc, "esc"},
                       {PartKind::motor, "motor"},
                       {PartKind::propeller, "propeller"},
                       {PartKind::battery, "battery"},
                       {PartKind::regulator, "regulator"},
                       {PartKind::distributionBoard, "distribution-board"},
                       {PartKind::capacitor, "capacitor"},
                       {PartKind::powerPlug, "power-plug"},
                       {PartKind::receiver, "receiver"},
                       {PartKind::videoTransmitter, "video-transmitter"},
                       {PartKind::digitalVideoUnit, "digital-video-unit"},
                       {PartKind::antenna, "antenna"},
                       {PartKind::gps, "gps"},
                       {PartKind::buzzer, "buzzer"},
                       {PartKind::lamp, "lamp"},
                       {PartKind::flightCamera, "flight-camera"},
                       {PartKind::payloadCamera, "payload-camera"},
                       {PartKind::gimbal, "gimbal"},
                       {PartKind::servo, "servo"},
                       {PartKind::mount, "mount"},
                       {PartKind::damper, "damper"},
                       {PartKind::pad, "pad"},
                       {PartKind::fastener, "fastener"},
                       {PartKind::strap, "strap"},
                       {PartKind::tube, "tube"},
                       {PartKind::landingFoot, "landing-foot"},
                       {PartKind::inlinePart, "in-line-part"},
                       {PartKind::currentSensor, "current-sensor"},
                       {PartKind::powerSwitch, "power-switch"},
                       {PartKind::powerBank, "power-bank"},
                       {PartKind::overlayBoard, "overlay-board"},
                       {PartKind::recorder, "recorder"},
                       {PartKind::packAlarm, "pack-alarm"},
                       {PartKind::microphone, "microphone"},
                       {PartKind::fan, "fan"},
                       {PartKind::heatSink, "heat-sink"},
                       {PartKind::guard, "guard"},
                       {PartKind::other, "other"}})
WAXIS_NAMES(SignalKind, {{SignalKind::ground, "ground"},
                         {SignalKind::supply, "supply"},
                         {SignalKind::supplyIn, "supply-in"},
                         {SignalKind::supplyOut, "supply-out"},
                         {SignalKind::sense, "voltage-sense"},
                         {SignalKind::phase, "phase"},
                         {SignalKind::serialTx, "serial-out"},
                         {SignalKind::serialRx, "serial-in"},
                         {SignalKind::oneWire, "one-wire"},
                         {SignalKind::busData, "bus-data"},
                         {SignalKind::busClock, "bus-clock"},
                         {SignalKind::motor, "motor-out"},
                         {SignalKind::servo, "servo-out"},
                         {SignalKind::pulse, "pulse-in"},
                         {SignalKind::channel, "channel"},
                         {SignalKind::video, "video"},
                         {SignalKind::videoIn, "video-in"},
                         {SignalKind::videoOut, "video-out"},
                         {SignalKind::videoLink, "video-link"},
                         {SignalKind::audioIn, "audio-in"},
                         {SignalKind::audioOut, "audio-out"},
                         {SignalKind::telemetry, "telemetry"},
                         {SignalKind::current, "current"},
                         {SignalKind::lampData, "lamp-data"},
                         {SignalKind::buzzer, "buzzer"},
                         {SignalKind::boot, "boot"},
                         {SignalKind::cell, "cell"},
                         {SignalKind::usb, "usb"},
                         {SignalKind::other, "other"}})
WAXIS_NAMES(ChannelFunction, {{ChannelFunction::none, "none"},
                              {ChannelFunction::roll, "roll"},
                              {ChannelFunction::pitch, "pitch"},
                              {ChannelFunction::throttle, "throttle"},
                              {ChannelFunction::yaw, "yaw"},
                              {ChannelFunction::mode, "mode"},
                              {ChannelFunction::arm, "arm"},
                              {ChannelFunction::switchOne, "switch-1"},
                              {ChannelFunction::switchTwo, "switch-2"},
                              {ChannelFunction::switchThree, "switch-3"},
                              {ChannelFunction::gimbalTilt, "gimbal-tilt"},
                              {ChannelFunction::gimbalPan, "gimbal-pan"},
                              {ChannelFunction::gimbalRoll, "gimbal-roll"},
                              {ChannelFunction::lamps, "lamps"},
                              {ChannelFunction::cameraSwitch, "camera-switch"},
                              {ChannelFunction::gear, "gear"}})
WAXIS_NAMES(Contacts,
            {{Contacts::unstated, "unstated"}, {Contacts::covered, "covered"}, {Contacts::exposed, "exposed"}})
WAXIS_NAMES(Draw, {{Draw::constantCurrent, "constant-current"}, {Draw::constantPower, "constant-power"}})
WAXIS_NAMES(PortKind, {{PortKind::pads, "pads"},
                       {PortKind::plug, "plug"},
                       {PortKind::socket, "socket"},
                       {PortKind::coax, "coax"},
                       {PortKind::usb, "usb"},
                       {PortKind::lens, "lens"},
                       {PortKind::card, "card"},
                       {PortKind::button, "button"},
                       {PortKind::lamp, "lamp"}})
WAXIS_NAMES(Spin, {{Spin::clockwise, "clockwise"}, {Spin::counterClockwise, "counter-clockwise"}})
WAXIS_NAMES(SiteKind, {{SiteKind::pattern, "pattern"},
                       {SiteKind::face, "face"},
                       {SiteKind::edge, "edge"},
                       {SiteKind::arm, "arm"},
                       {SiteKind::strap, "strap"},
                       {SiteKind::mast, "mast"}})
WAXIS_NAMES(LoadCaseKind,
            {{LoadCaseKind::flight, "flight"}, {LoadCaseKind::bench, "bench"}, {LoadCaseKind::carried, "carried"}})
WAXIS_NAMES(HoleEdge, {{HoleEdge::bare, "bare"}, {HoleEdge::grommet, "grommet"}})
WAXIS_NAMES(FasteningMethod, {{FasteningMethod::none, "none"},
                              {FasteningMethod::screws, "screws"},
                              {FasteningMethod::tape, "tape"},
                              {FasteningMethod::hookAndLoop, "hook-and-loop"},
                              {FasteningMethod::ties, "ties"},
                              {FasteningMethod::strap, "strap"},
                              {FasteningMethod::glue, "glue"},
                              {FasteningMethod::stack, "stack"},
                              {FasteningMethod::pressed, "pressed"},
                              {FasteningMethod::soldered, "soldered"}})
WAXIS_NAMES(Severity, {{Severity::stop, "stop"},
                       {Severity::watch, "watch"},
                       {Severity::note, "note"},
                       {Severity::unknown, "unknown"},
                       {Severity::pass, "pass"}})
WAXIS_NAMES(Stage, {{Stage::kit, "kit"},
                    {Stage::frame, "frame"},
                    {Stage::place, "place"},
                    {Stage::stack, "stack"},
                    {Stage::wire, "wire"},
                    {Stage::radio, "radio"},
                    {Stage::balance, "balance"},
                    {Stage::build, "build"},
                    {Stage::log, "log"}})
WAXIS_NAMES(Family, {{Family::power, "power"},
                     {Family::control, "control"},
                     {Family::radio, "radio"},
                     {Family::sensing, "sensing"},
                     {Family::imaging, "imaging"},
                     {Family::structure, "structure"},
                     {Family::load, "load"}})
WAXIS_NAMES(MassKind, {{MassKind::part, "part"},
                       {MassKind::plate, "plate"},
                       {MassKind::arm, "arm"},
                       {MassKind::standoff, "standoff"},
                       {MassKind::allowance, "allowance"},
                       {MassKind::fastening, "fastening"},
                       {MassKind::wire, "wire"}})
WAXIS_NAMES(ArmSection, {{ArmSection::bar, "bar"}, {ArmSection::box, "box"}, {ArmSection::tube, "tube"}})
WAXIS_NAMES(StandoffRole, {{StandoffRole::standoff, "standoff"},
                           {StandoffRole::bobbin, "bobbin"},
                           {StandoffRole::foot, "foot"},
                           {StandoffRole::stopper, "stopper"}})
WAXIS_NAMES(ArmWall, {{ArmWall::left, "left"},
                      {ArmWall::right, "right"},
                      {ArmWall::both, "both"},
                      {ArmWall::top, "top"},
                      {ArmWall::bottom, "bottom"}})
WAXIS_NAMES(AntennaKind, {{AntennaKind::dipole, "dipole"},
                          {AntennaKind::monopole, "monopole"},
                          {AntennaKind::teeElement, "tee-element"},
                          {AntennaKind::helical, "helical"},
                          {AntennaKind::circularOmni, "circular-omni"},
                          {AntennaKind::patch, "patch"},
                          {AntennaKind::ceramicPatch, "ceramic-patch"},
                          {AntennaKind::loadedDipole, "loaded-dipole"}})
WAXIS_NAMES(Polarisation, {{Polarisation::linear, "linear"},
                           {Polarisation::rightCircular, "right-circular"},
                           {Polarisation::leftCircular, "left-circular"}})
WAXIS_NAMES(Quantity, {{Quantity::partWeight, "part-weight"},
                       {Quantity::craftWeight, "craft-weight"},
                       {Quantity::craftBalance, "craft-balance"},
                       {Quantity::size, "size"},
                       {Quantity::leadCut, "lead-cut"},
                       {Quantity::leadTrimmed, "lead-trimmed"},
                       {Quantity::leadShort, "lead-short"},
                       {Quantity::idleCurrent, "idle-current"},
                       {Quantity::hoverCurrent, "hover-current"},
                       {Quantity::hoverThrottle, "hover-throttle"},
                       {Quantity::restVoltage, "rest-voltage"},
                       {Quantity::hoverVoltage, "hover-voltage"},
                       {Quantity::flight, "flight"},
                       {Quantity::temperature, "temperature"},
                       {Quantity::satellites, "satellites"},
                       {Quantity::headingLifted, "heading-lifted"},
                       {Quantity::headingTurned, "heading-turned"},
                       {Quantity::rangeWalk, "range-walk"},
                       {Quantity::sag, "sag"},
                       {Quantity::fieldOfPlace, "field-of-place"},
                       {Quantity::seen, "seen"},
                       {Quantity::fault, "fault"},
                       {Quantity::setting, "setting"},
                       {Quantity::motorReversed, "motor-reversed"},
                       {Quantity::takenOut, "taken-out"},
                       {Quantity::putIn, "put-in"},
                       {Quantity::spareUsed, "spare-used"},
                       {Quantity::damage, "damage"},
                       {Quantity::openEnd, "open-end"}})
WAXIS_NAMES(TrialQuantity, {{TrialQuantity::secondsToSatellites, "seconds-to-satellites"},
                            {TrialQuantity::secondsToFix, "seconds-to-fix"},
                            {TrialQuantity::satellitesUsed, "satellites-used"},
                            {TrialQuantity::carrierToNoise, "carrier-to-noise"},
                            {TrialQuantity::dilution, "dilution"},
                            {TrialQuantity::headingError, "heading-error"},
                            {TrialQuantity::rangeReached, "range-reached"},
                            {TrialQuantity::temperature, "temperature"},
                            {TrialQuantity::other, "other"}})
WAXIS_NAMES(SkyAround, {{SkyAround::open, "open"}, {SkyAround::trees, "trees"}, {SkyAround::houses, "houses"}})
WAXIS_NAMES(WeighingMethod,
            {{WeighingMethod::total, "total"}, {WeighingMethod::scales, "scales"}, {WeighingMethod::lines, "lines"}})
WAXIS_NAMES(GramGroup, {{GramGroup::power, "power"},
                        {GramGroup::control, "control"},
                        {GramGroup::radio, "radio"},
                        {GramGroup::sensing, "sensing"},
                        {GramGroup::imaging, "imaging"},
                        {GramGroup::load, "load"},
                        {GramGroup::mounts, "mounts"},
                        {GramGroup::plates, "plates"},
                        {GramGroup::hardware, "hardware"},
                        {GramGroup::wires, "wires"},
                        {GramGroup::allowances, "allowances"}})
WAXIS_NAMES(SavingKind, {{SavingKind::material, "material"},
                         {SavingKind::drawnNot, "not-placed"},
                         {SavingKind::gauge, "gauge"},
                         {SavingKind::lead, "lead"},
                         {SavingKind::leaveOut, "leave-out"}})
#undef WAXIS_NAMES
// NOLINTEND(cppcoreguidelines-macro-usage)

template <class E>
std::string_view lookUp(E value) {
    const auto &table = Names<E>::table;
    return std::find_if(table.begin(), table.end(), [&](const auto &row) { return row.first == value; })->second;
}

} // namespace

std::string_view nameOf(Source value) { return lookUp(value); }
std::string_view nameOf(SolidRole value) { return lookUp(value); }
std::string_view nameOf(PadJoint value) { return lookUp(value); }
std::string_view nameOf(PatternShape value) { return lookUp(value); }
std::string_view nameOf(PartKind value) { return lookUp(value); }
std::string_view nameOf(FastenerForm value) { return lookUp(value); }
std::string_view nameOf(HeadStyle value) { return lookUp(value); }
std::string_view nameOf(LayerRole value) { return lookUp(value); }
std::string_view nameOf(WireLay value) { return lookUp(value); }
std::string_view nameOf(WireMake value) { return lookUp(value); }
std::string_view nameOf(StackHold value) { return lookUp(value); }
std::string_view nameOf(ScrewEnd value) { return lookUp(value); }
std::string_view nameOf(SignalKind value) { return lookUp(value); }
std::string_view nameOf(ChannelFunction value) { return lookUp(value); }
std::string_view nameOf(Contacts value) { return lookUp(value); }
std::string_view nameOf(Draw value) { return lookUp(value); }
std::string_view nameOf(PortKind value) { return lookUp(value); }
std::string_view nameOf(Spin value) { return lookUp(value); }
std::string_view nameOf(SiteKind value) { return lookUp(value); }
std::string_view nameOf(LoadCaseKind value) { return lookUp(value); }
std::string_view nameOf(HoleEdge value) { return lookUp(value); }
std::string_view nameOf(FasteningMethod value) { return lookUp(value); }
std::string_view nameOf(Severity value) { return lookUp(value); }
std::string_view nameOf(Stage value) { return lookUp(value); }
std::string_view nameOf(Family value) { return lookUp(value); }
std::string_view nameOf(MassKind value) { return lookUp(value); }
std::string_view nameOf(ArmSection value) { return lookUp(value); }
std::string_view nameOf(ArmWall value) { return lookUp(value); }
std::string_view nameOf(StandoffRole value) { return lookUp(value); }
std::string_view nameOf(AntennaKind value) { return lookUp(value); }
std::string_view nameOf(Polarisation value) { return lookUp(value); }
std::string_view nameOf(WeighingMethod value) { return lookUp(value); }
std::string_view nameOf(Quantity value) { return lookUp(value); }
std::string_view nameOf(TrialQuantity value) { return lookUp(value); }
std::string_view nameOf(SkyAround value) { return lookUp(value); }
std::string_view nameOf(GramGroup value) { return lookUp(value); }
std::string_view nameOf(SavingKind value) { return lookUp(value); }

template <class E>
std::optional<E> fromName(std::string_view name) {
    for (const auto &[value, word] : Names<E>::table)
        if (word == name) return value;
    return std::nullopt;
}

template std::optional<Source> fromName<Source>(std::string_view);
template std::optional<SolidRole> fromName<SolidRole>(std::string_view);
template std::optional<PadJoint> fromName<PadJoint>(std::string_view);
template std::optional<PatternShape> fromName<PatternShape>(std::string_view);
template std::optional<PartKind> fromName<PartKind>(std::string_view);
template std::optional<FastenerForm> fromName<FastenerForm>(std::string_view);
template std::optional<HeadStyle> fromName<HeadStyle>(std::string_view);
template std::optional<LayerRole> fromName<LayerRole>(std::string_view);
template std::optional<StackHold> fromName<StackHold>(std::string_view);
template std::optional<ScrewEnd> fromName<ScrewEnd>(std::string_view);
template std::optional<WireLay> fromName<WireLay>(std::string_view);
template std::optional<WireMake> fromName<WireMake>(std::string_view);
template std::optional<SignalKind> fromName<SignalKind>(std::string_view);
template std::optional<ChannelFunction> fromName<ChannelFunction>(std::string_view);
template std::optional<Contacts> fromName<Contacts>(std::string_view);
template std::optional<Draw> fromName<Draw>(std::string_view);
template std::optional<PortKind> fromName<PortKind>(std::string_view);
template std::optional<Spin> fromName<Spin>(std::string_view);
template std::optional<SiteKind> fromName<SiteKind>(std::string_view);
template std::optional<LoadCaseKind> fromName<LoadCaseKind>(std::string_view);
template std::optional<HoleEdge> fromName<HoleEdge>(std::string_view);
template std::optional<FasteningMethod> fromName<FasteningMethod>(std::string_view);
template std::optional<Stage> fromName<Stage>(std::string_view);
template std::optional<ArmSection> fromName<ArmSection>(std::string_view);
template std::optional<ArmWall> fromName<ArmWall>(std::string_view);
template std::optional<StandoffRole> fromName<StandoffRole>(std::string_view);
template std::optional<AntennaKind> fromName<AntennaKind>(std::string_view);
template std::optional<Polarisation> fromName<Polarisation>(std::string_view);
template std::optional<Quantity> fromName<Quantity>(std::string_view);
template std::optional<TrialQuantity> fromName<TrialQuantity>(std::string_view);
template std::optional<SkyAround> fromName<SkyAround>(std::string_view);
template std::optional<WeighingMethod> fromName<WeighingMethod>(std::string_view);

} // namespace waxis::io
