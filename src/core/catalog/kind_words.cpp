#include "core/catalog/kind_words.h"

#include <array>

namespace waxis {

namespace {

struct KindWords {
    std::string_view name;
    std::array<std::string_view, 8> synonyms; ///< the rest is empty
};

/// In the order of PartKind.
constexpr std::array<KindWords, std::size_t(PartKind::other) + 1> kWords{{
    {"flight controller", {"fc", "autopilot", "board"}},
    {"four-in-one ESC", {"speed controller", "4in1", "4-in-1", "4 in 1", "regulator for motors"}},
    {"ESC", {"speed controller", "single esc", "motor controller"}},
    {"motor", {"brushless", "engine"}},
    {"propeller", {"prop", "props", "airscrew", "blade", "blades", "rotor"}},
    {"battery pack", {"pack", "battery", "accumulator", "lipo", "li-ion", "lithium", "cells"}},
    {"regulator", {"bec", "step-down", "converter", "voltage", "supply"}},
    {"distribution board", {"pdb", "power board"}},
    {"capacitor", {"cap", "electrolytic", "filter"}},
    {"battery plug", {"connector", "power plug", "power lead"}},
    {"receiver", {"rx", "radio", "control link"}},
    {"video transmitter", {"vtx", "video sender", "sender"}},
    {"digital video unit", {"vtx", "digital video transmitter", "video sender", "dvu"}},
    {"antenna", {"aerial"}},
    {"GPS module", {"gnss", "satellite", "compass", "magnetometer", "navigation"}},
    {"buzzer", {"beeper", "sounder", "finder"}},
    {"lamp", {"led", "light", "strobe"}},
    {"flight camera", {"fpv camera", "camera"}},
    {"payload camera", {"action camera", "camera"}},
    {"gimbal", {"camera mount", "stabiliser"}},
    {"servo", {"actuator"}},
    {"mount", {"bracket", "holder", "adapter", "mast", "plate"}},
    {"damper", {"grommet", "soft mount", "rubber"}},
    {"pad", {"tape", "foam", "hook-and-loop"}},
    {"fastener", {"screw", "bolt", "nut", "washer", "spacer", "standoff"}},
    {"strap", {"tie", "zip tie", "cable tie", "band"}},
    {"tube", {"boom", "pipe"}},
    {"landing foot", {"leg", "gear", "skid", "feet"}},
    {"in-line part", {"fuse", "diode", "resistor", "ferrite", "series capacitor", "in a wire"}},
    {"current sensor", {"power module", "shunt", "ammeter", "voltage sensor"}},
    {"switch", {"hand switch", "power switch", "button"}},
    {"power bank", {"usb supply", "field supply"}},
    {"overlay board", {"osd", "on-screen display", "text on the picture"}},
    {"recorder", {"flight recorder", "dvr", "video recorder", "logger"}},
    {"pack alarm", {"cell alarm", "voltage alarm", "cell checker"}},
    {"microphone", {"sound"}},
    {"fan", {"blower", "cooling"}},
    {"heat sink", {"sink", "cooler", "fins"}},
    {"guard", {"propeller guard", "bumper", "shroud", "duct"}},
    {"other part", {"thing"}},
}};

} // namespace

std::string_view kindName(PartKind kind) { return kWords[std::size_t(kind)].name; }

std::span<const std::string_view> kindSynonyms(PartKind kind) {
    const auto &all = kWords[std::size_t(kind)].synonyms;
    std::size_t n = 0;
    while (n < all.size() && !all[n].empty()) ++n;
    return {all.data(), n};
}

std::string_view familyName(Family family) {
    switch (family) {
    case Family::power: return "power";
    case Family::control: return "control";
    case Family::radio: return "radio";
    case Family::sensing: return "sensing";
    case Family::imaging: return "imaging";
    case Family::structure: return "structure";
    case Family::load: return "load";
    }
    return {};
}

} // namespace waxis
