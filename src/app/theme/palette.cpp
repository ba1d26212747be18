#include "app/theme/palette.h"

namespace waxis::theme {

const Palette &palette(Mode mode) {
    static const Palette light{.paper = "#F4F1EA",
                               .panel = "#FBF9F4",
                               .ink = "#22282B",
                               .muted = "#5E666C",
                               .rule = "#D9D3C7",
                               .field = "#FFFFFF",
                               .link = "#1E6487",
                               .mat = "#1F3B39",
                               .matGrid = "#294A47",
                               .matGridStrong = "#335955",
                               .matBar = "#1A3230",
                               .matFaint = "#6F8781",
                               .chalk = "#E9EFE6",
                               .softChalk = "#9FB8B0",
                               .plumb = "#F0A030",
                               .thrustAxis = "#8FD3C8",
                               .stop = "#B3372B",
                               .watch = "#B87A00",
                               .note = "#2F7394",
                               .unknown = "#7A7F83"};
    static const Palette dark{.paper = "#15191A",
                              .panel = "#1C2123",
                              .ink = "#E4E3DC",
                              .muted = "#9BA4A6",
                              .rule = "#363D40",
                              .field = "#15191A",
                              .link = "#7FC0E2",
                              .mat = "#172C2A",
                              .matGrid = "#1F3836",
                              .matGridStrong = "#294744",
                              .matBar = "#122321",
                              .matFaint = "#6F8781",
                              .chalk = "#E9EFE6",
                              .softChalk = "#9FB8B0",
                              .plumb = "#F0A030",
                              .thrustAxis = "#8FD3C8",
                              .stop = "#EE7A6C",
                              .watch = "#E3B04B",
                              .note = "#6FB4DE",
                              .unknown = "#A3A8AB"};
    return mode == Mode::light ? light : dark;
}

QColor Palette::severity(Severity severity) const {
    switch (severity) {
    case Severity::stop: return stop;
    case Severity::watch: return watch;
    case Severity::note: return note;
    case Severity::unknown: return unknown;
    case Severity::pass: return muted;
    }
    return muted;
}

QColor severityOnMat(Severity severity) {
    // Sensing parts are as blue as the dark theme's notes: on the mat notes are paler.
    if (severity == Severity::note) return "#C4D6F0";
    return palette(Mode::dark).severity(severity);
}

QColor lensColor() { return "#2A2F33"; }

QColor familyColor(Family family) {
    switch (family) {
    case Family::power: return "#D2785A";
    case Family::control: return "#D9BE62";
    case Family::radio: return "#9A7FDC";
    case Family::sensing: return "#6EB4DF";
    case Family::imaging: return "#EEA1BF";
    case Family::structure: return "#80988F";
    case Family::load: return "#AFC08B";
    }
    return "#80988F";
}

} // namespace waxis::theme
