// Groups of grams in words and colours.
#pragma once

#include "app/theme/theme.h"
#include "core/balance/breakdown.h"

#include <QCoreApplication>

namespace waxis::balance {

inline QString groupWord(GramGroup group) {
    const auto say = [](const char *text) { return QCoreApplication::translate("Grams", text); };
    switch (group) {
    case GramGroup::power: return say("motors, power");
    case GramGroup::control: return say("control");
    case GramGroup::radio: return say("radio");
    case GramGroup::sensing: return say("sensing");
    case GramGroup::imaging: return say("cameras");
    case GramGroup::load: return say("pack, load");
    case GramGroup::mounts: return say("mounts");
    case GramGroup::plates: return say("plates, arms");
    case GramGroup::hardware: return say("hardware");
    case GramGroup::wires: return say("wires");
    case GramGroup::allowances: return say("allowances");
    }
    return {};
}

inline QColor groupColor(GramGroup group, const theme::Theme &theme) {
    switch (group) {
    case GramGroup::power: return theme::familyColor(Family::power);
    case GramGroup::control: return theme::familyColor(Family::control);
    case GramGroup::radio: return theme::familyColor(Family::radio);
    case GramGroup::sensing: return theme::familyColor(Family::sensing);
    case GramGroup::imaging: return theme::familyColor(Family::imaging);
    case GramGroup::load: return theme::familyColor(Family::load);
    case GramGroup::mounts:
    case GramGroup::plates: return theme::familyColor(Family::structure);
    case GramGroup::hardware:
    case GramGroup::wires:
    case GramGroup::allowances: return theme.colors().softChalk;
    }
    return {};
}

} // namespace waxis::balance
