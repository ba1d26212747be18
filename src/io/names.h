// Words that stand for enumerations in files, one table each.
#pragma once

#include "core/build/build.h"
#include "core/build/log.h"

#include <optional>
#include <string_view>
#include <utility>

namespace waxis {
enum class GramGroup;
enum class MassKind;
enum class SavingKind;
enum class Severity;
enum class Stage;
} // namespace waxis

namespace waxis::io {

std::string_view nameOf(Source value);
std::string_view nameOf(SolidRole value);
std::string_view nameOf(PadJoint value);
std::string_view nameOf(PatternShape value);
std::string_view nameOf(PartKind value);
std::string_view nameOf(FastenerForm value);
std::string_view nameOf(HeadStyle value);
std::string_view nameOf(LayerRole value);
std::string_view nameOf(StackHold value);
std::string_view nameOf(ScrewEnd value);
std::string_view nameOf(WireLay value);
std::string_view nameOf(WireMake value);
std::string_view nameOf(SignalKind value);
std::string_view nameOf(ChannelFunction value);
std::string_view nameOf(Contacts value);
std::string_view nameOf(Draw value);
std::string_view nameOf(PortKind value);
std::string_view nameOf(Spin value);
std::string_view nameOf(SiteKind value);
std::string_view nameOf(LoadCaseKind value);
std::string_view nameOf(HoleEdge value);
std::string_view nameOf(FasteningMethod value);
std::string_view nameOf(Severity value);
std::string_view nameOf(Stage value);
std::string_view nameOf(Family value);
std::string_view nameOf(MassKind value);
std::string_view nameOf(ArmSection value);
std::string_view nameOf(ArmWall value);
std::string_view nameOf(StandoffRole value);
std::string_view nameOf(AntennaKind value);
std::string_view nameOf(Polarisation value);
std::string_view nameOf(WeighingMethod value);
std::string_view nameOf(Quantity value);
std::string_view nameOf(TrialQuantity value);
std::string_view nameOf(SkyAround value);
std::string_view nameOf(GramGroup value);
std::string_view nameOf(SavingKind value);

/// The value of a name; nullopt for a word that is not in the table.
template <class E>
std::optional<E> fromName(std::string_view name);

} // namespace waxis::io
