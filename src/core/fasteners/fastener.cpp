#include "core/fasteners/fastener.h"

#include "core/base/units.h"
#include "core/fasteners/screw.h"

#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

// M1.6, M2, M2.5, M3, M4, M1.4, M1.7, M5. Zero: not made. From memory of the standards.
constexpr std::array<HeadSize, 8> kButton{{{0, 0, false},
                                           {3.5, 1.3, false},
                                           {4.7, 1.5, false},
                                           {5.7, 1.65, true},
                                           {7.6, 2.2, true},
                                           {0, 0, false},
                                           {0, 0, false},
                                           {9.5, 2.75, true}}};
constexpr std::array<HeadSize, 8> kCountersunk{{{3.0, 1.0, true},
                                                {3.8, 1.2, true},
                                                {4.7, 1.5, true},
                                                {6.72, 1.86, true},
                                                {8.96, 2.48, true},
                                                {2.6, 0.85, false},
                                                {3.2, 1.0, false},
                                                {11.2, 3.1, true}}};
constexpr std::array<double, 8> kLockNut{0, 0, 0, 4.5, 6.0, 0, 0, 6.8};         // ISO 7040
constexpr std::array<double, 8> kThinLockNut{0, 3.2, 3.8, 3.9, 5.0, 0, 0, 5.0}; // ISO 10511; M2 and M2.5 stock sizes

/// All sizes lie in one table, the usual ones first.
std::size_t indexOf(const ThreadSize &thread) { return std::size_t(&thread - threadSizes().data()); }

} // namespace

std::optional<HeadSize> headOf(const ThreadSize &thread, HeadStyle style) {
    HeadSize size{thread.capHead_mm, thread.nominal_mm, true};
    if (style == HeadStyle::button) size = kButton[indexOf(thread)];
    if (style == HeadStyle::countersunk) size = kCountersunk[indexOf(thread)];
    return size.diameter_mm > 0 ? std::optional(size) : std::nullopt;
}

std::optional<double> driveKey_mm(const ThreadSize &thread, HeadStyle style) {
    if (style == HeadStyle::cap) return thread.capKey_mm;
    constexpr std::array<double, 8> kSocket{0,   1.3, 1.5, 2.0,
                                            2.5, 0,   0,   3.0}; // button heads, and countersunk ones from M3 on
    const double key = kSocket[indexOf(thread)];
    const bool slotted = style == HeadStyle::countersunk && thread.nominal_mm < 3;
    return key > 0 && !slotted && headOf(thread, style) ? std::optional(key) : std::nullopt;
}

std::optional<double> nutHeight_mm(const ThreadSize &thread, FastenerForm form) {
    const std::size_t i = indexOf(thread);
    double height = 0;
    if (form == FastenerForm::nut) height = thread.nutHeight_mm;
    if (form == FastenerForm::lockNut) height = kLockNut[i] > 0 ? kLockNut[i] : kThinLockNut[i];
    if (form == FastenerForm::thinLockNut) height = kThinLockNut[i];
    return height > 0 ? std::optional(height) : std::nullopt;
}

std::optional<double> screwVolume_mm3(const ThreadSize &thread, double length_mm, HeadStyle style) {
    if (style == HeadStyle::cap) return capScrewVolume_mm3(thread, length_mm);
    const auto head = headOf(thread, style);
    if (!head) return std::nullopt;
    const double shaft = meanThreadArea_mm2(thread.nominal_mm, thread.pitch_mm);
    // The cap screw's socket, as deep a share of this head.
    const double socket = std::sqrt(3.0) / 2 * thread.capKey_mm * thread.capKey_mm * 0.64 * socketDepth_mm(thread) *
                          head->height_mm / thread.nominal_mm;
    const double a = head->diameter_mm / 2, h = head->height_mm;
    if (style == HeadStyle::button) return shaft * length_mm + kPi * h / 6 * (3 * a * a + h * h) - socket;
    const double b = thread.nominal_mm / 2; // truncated cone down to the shaft; the length counts the head
    return shaft * (length_mm - h) + kPi * h / 3 * (a * a + a * b + b * b) - socket;
}

double nutVolume_mm3(const ThreadSize &thread, double height_mm) {
    const double hexagon = std::sqrt(3.0) / 2 * thread.nutFlats_mm * thread.nutFlats_mm;
    return (hexagon - meanThreadArea_mm2(thread.nominal_mm, thread.pitch_mm)) * height_mm;
}

double washerVolume_mm3(const ThreadSize &thread, double height_mm) {
    const double outer = thread.washerOuter_mm, inner = thread.fineHole_mm;
    return kPi / 4 * (outer * outer - inner * inner) * height_mm;
}

std::string_view formWord(FastenerForm form) {
    switch (form) {
    case FastenerForm::screw: return "screw";
    case FastenerForm::nut: return "nut";
    case FastenerForm::lockNut: return "lock nut";
    case FastenerForm::thinLockNut: return "thin lock nut";
    case FastenerForm::pressNut: return "press nut";
    case FastenerForm::washer: return "washer";
    case FastenerForm::shim: return "shim";
    case FastenerForm::spacer: return "spacer";
    case FastenerForm::standoff: return "standoff";
    }
    return "screw";
}

std::string_view headWord(HeadStyle style) {
    switch (style) {
    case HeadStyle::cap: return "cap";
    case HeadStyle::button: return "button";
    case HeadStyle::countersunk: return "countersunk";
    }
    return "cap";
}

std::string fastenerName(const FastenerData &f, const std::string &material) {
    switch (f.form) {
    case FastenerForm::screw:
        return fmt::format("{} x {:g} {} screw, {}", f.thread, f.length_mm, headWord(f.head), material);
    case FastenerForm::nut:
    case FastenerForm::lockNut:
    case FastenerForm::thinLockNut:
    case FastenerForm::pressNut:
    case FastenerForm::washer: return fmt::format("{} {}, {}", f.thread, formWord(f.form), material);
    case FastenerForm::shim:
    case FastenerForm::spacer:
    case FastenerForm::standoff:
        return fmt::format("{} {} {:g} mm, {}", f.thread, formWord(f.form), f.length_mm, material);
    }
    return {};
}

} // namespace waxis
