// Drawings in, plates and kit lists out, frames from layouts.
#include "cli/output.h"

#include "core/analysis/analysis.h"
#include "core/field_study/deck.h"
#include "core/layout/layout.h"
#include "core/practice/practice.h"
#include "core/radio/radio_report.h"
#include "core/recognise/laying.h"
#include "core/wiring/wire_report.h"
#include "io/csv/cut_csv.h"
#include "io/csv/kit_csv.h"
#include "io/csv/mass_csv.h"
#include "io/drawing/dxf_reader.h"
#include "io/drawing/plate_writer.h"
#include "io/file_bytes.h"
#include "io/project/project_file.h"
#include "io/report_json/import_json.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <ostream>

namespace waxis::cli {

namespace {

std::string at(const Vec2 &p) { return fmt::format("({:.2f}, {:.2f})", p.x(), p.y()); }

void printPlate(const FoundPlate &plate, const PlateChoice &choice, std::ostream &out) {
    using waxis::io::nameOf;
    say(out, "\nlayer {}: {} plate, {:.1f} mm2, {} corners\n", plate.layer, nameOf(choice.role), plate.area_mm2,
        plate.outline_mm.size());
    for (const auto &p : plate.patterns)
        say(out, "  {:<13} {:g}{} mm {} at {}, holes {:g} mm{}\n", fmt::format("{} pattern", nameOf(p.use)),
            p.pattern.size_mm, p.secondSize_mm > 0 ? fmt::format(" x {:g}", p.secondSize_mm) : "",
            p.pattern.shape == PatternShape::circle ? "circle" : "square", at(p.centre_mm), p.pattern.holeDiameter_mm,
            std::abs(p.angle_deg) > 0.05 ? fmt::format(", turned {:.1f}°", p.angle_deg) : "");
    for (const auto &hole : plate.holes)
        say(out, "  hole {:.2f} mm at {}{}\n", hole.diameter_mm, at(hole.centre_mm),
            hole.screw ? fmt::format(", {} {}", hole.screw->thread->name, nameOf(hole.screw->fit)) : "");
    for (const auto &slot : plate.cutouts)
        say(out, "  {} {:.2f} x {:.2f} mm at {}{}\n", nameOf(slot.use), slot.length_mm, slot.width_mm,
            at(slot.centre_mm), slot.angle_deg != 0 ? fmt::format(", along {:.1f}°", slot.angle_deg) : "");
}

} // namespace

int importFrame(const ImportOptions &options, Streams io) {
    Outputs outputs(io, {options.file}, options.force);
    if (!outputs.mayWrite({options.out, options.json ? "-" : ""})) return unreadable;
    const auto drawing = loadDxf(options.file, findDrawingUnit(options.units));
    if (!drawing) {
        const DrawingError &problem = drawing.error();
        say(io.err, "{}: {}\n", options.file, problem.error.text());
        if (problem.unitsMissing) say(io.err, "say which: --units mm or --units in\n");
        return unreadable;
    }
    RecogniseOptions recogniseOptions;
    recogniseOptions.tolerance_mm = options.tolerance_mm;
    Recognition found = recognise(*drawing, recogniseOptions);
    DrawingChoices choices = guessChoices(found);
    turnByHoles(found, choices);
    choices.nose = options.nose == "up"     ? NoseSide::up
                   : options.nose == "left" ? NoseSide::left
                   : options.nose == "down" ? NoseSide::down
                                            : NoseSide::right;
    if (options.prop_mm > 0) choices.propDiameter_mm = options.prop_mm;
    if (options.json) {
        io.out << waxis::io::recognitionText(*drawing, found, choices);
    } else {
        say(io.out, "{}: {} plate(s), drawn in {}\n", options.file, found.plates.size(), drawing->units);
        for (std::size_t i = 0; i < found.plates.size(); ++i) printPlate(found.plates[i], choices.plates[i], io.out);
        if (!found.skipped.empty()) say(io.out, "\nleft out:\n");
        for (const auto &skipped : found.skipped)
            say(io.out, "  {}{}: {}\n", skipped.what,
                skipped.layer.empty() ? "" : fmt::format(" on layer {}", skipped.layer), skipped.reason);
    }
    if (options.out.empty()) return clean;
    const auto frame = frameFromDrawing(found, choices);
    if (!frame) {
        say(io.err, "{}: no frame: {}\n", options.file, frame.error());
        return unreadable;
    }
    Build build;
    build.name = "Build from " + std::filesystem::path(options.file).stem().string();
    build.frame = *frame;
    return outputs.put(options.out, writeBuild(build)) ? clean : unreadable;
}

int exportBuild(const ExportOptions &options, Streams io) {
    Outputs outputs(io, {options.file}, options.force);
    if (!outputs.mayWrite({options.platesDxf, options.platesSvg, options.drillDxf, options.drillSvg, options.kitCsv,
                           options.cutCsv, options.massCsv, options.necDeck}))
        return unreadable;
    const auto loaded = loadBuild(options.file);
    if (!loaded) {
        say(io.err, "{}: {}\n", options.file, loaded.error().text());
        return unreadable;
    }
    const Build &build = loaded->build;
    const Frame &frame = *build.frame;
    bool any = false, written = true;
    auto write = [&](const std::string &path, auto &&make) {
        if (path.empty()) return;
        any = true;
        written &= outputs.put(path, make());
    };
    const bool plates = !options.platesDxf.empty() || !options.platesSvg.empty() || !options.drillDxf.empty() ||
                        !options.drillSvg.empty();
    if (plates && frame.plates.empty() && frame.arms.empty()) {
        say(io.err, "{}: the frame has no plates and no arms to write\n", options.file);
        return unreadable;
    }
    write(options.platesDxf, [&] { return platesAsDxf(frame); });
    write(options.platesSvg, [&] { return platesAsSvg(frame); });
    write(options.drillDxf, [&] { return platesAsDxf(frame, PlateSheet::drillTemplate); });
    write(options.drillSvg, [&] { return platesAsSvg(frame, PlateSheet::drillTemplate); });
    write(options.kitCsv, [&] { return writeKitList(build, practiceOf(build.practice)); });
    write(options.cutCsv, [&] {
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        return writeCutList(cutList(build, analysis.practice, *analysis.derived.wiring));
    });
    write(options.massCsv, [&] {
        Analyser analyser;
        return writeMassTable(build, analyser.update(build).derived);
    });
    if (!options.necDeck.empty()) {
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const auto find = [&](const std::string &id) {
            const auto at = std::find_if(derived.radio->radios.begin(), derived.radio->radios.end(),
                                         [&](const RadioUse &r) { return r.id() == id; });
            return at == derived.radio->radios.end() ? nullptr : &*at;
        };
        const RadioUse *from = find(options.from), *to = find(options.to);
        if (!from || !to) {
            std::string known;
            for (const auto &radio : derived.radio->radios) known += (known.empty() ? "" : ", ") + radio.id();
            say(io.err, "{}: --from and --to name a radio each; there are: {}\n", options.file,
                known.empty() ? "none" : known);
            return unreadable;
        }
        FieldStudyOptions study;
        study.mostSegments = options.segments;
        const auto deck = fieldDeck(build, *from, *to, study);
        if (!deck) {
            say(io.err, "{}: no model of these two: {}\n", options.file, deck.error());
            return unreadable;
        }
        write(options.necDeck, [&] { return deck->text(); });
    }
    if (!any) {
        say(io.err, "nothing to write: name --plates-dxf, --plates-svg, --drill-dxf, --drill-svg, --kit-csv, "
                    "--cut-csv, --mass-csv or --nec-deck\n");
        return unreadable;
    }
    return written ? clean : unreadable;
}

int newBuild(const NewOptions &options, Streams io) {
    if (options.list) {
        for (const auto &layout : layouts()) {
            say(io.out, "{:<14} {} {}\n", layout.id, layout.title, layout.what);
            for (const auto &p : parametersOf(layout.kind))
                say(io.out, "    {:<20} {:g} to {:g} {}, standard {:g}: {}\n", p.id, p.minimum, p.maximum, p.unit,
                    p.standard, p.title);
        }
        return clean;
    }
    const auto *layout = findLayout(options.layout);
    auto refuse = [&](const std::string &why) {
        say(io.err, "new: {}\n", why);
        return int(unreadable);
    };
    if (!layout) return refuse(fmt::format("there is no layout \"{}\"; new --list shows them", options.layout));
    Outputs outputs(io, {}, options.force);
    const std::string target = options.out.empty() ? "-" : options.out;
    if (!outputs.mayWrite({target})) return unreadable;
    LayoutValues values;
    for (const auto &word : options.values) {
        const auto equals = word.find('=');
        double number = 0;
        const char *first = word.data() + equals + 1, *last = word.data() + word.size();
        if (equals == std::string::npos || first == last)
            return refuse(fmt::format("\"{}\": KEY=NUMBER expected", word));
        const auto read = std::from_chars(first, last, number);
        if (read.ptr != last || read.ec != std::errc() || !std::isfinite(number))
            return refuse(fmt::format("\"{}\": KEY=NUMBER expected", word));
        if (!values.emplace(word.substr(0, equals), number).second)
            return refuse(fmt::format("\"{}\": it was given before", word));
    }
    const auto frame = generateFrame(layout->kind, values);
    if (!frame) return refuse(frame.error().text());
    Build build;
    build.name = frame->name;
    build.frame = *frame;
    return outputs.put(target, writeBuild(build)) ? clean : unreadable;
}

} // namespace waxis::cli
