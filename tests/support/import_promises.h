// What the readers of drawings and lists promise of any bytes at all; held by the fuzzer and by the tests of its
// corpus.
#pragma once

#include "core/recognise/recognise.h"
#include "io/csv/kit_csv.h"
#include "io/drawing/dxf_reader.h"
#include "io/drawing/plate_writer.h"
#include "io/project/project_file.h"

#include <functional>
#include <string_view>

namespace waxis::test {

using ImportDemand = std::function<void(bool, const char *)>;

inline void drawingKeepsItsPromises(std::string_view text, const ImportDemand &demand) {
    const auto drawing = readDxf(text, findDrawingUnit("mm"));
    if (!drawing) {
        demand(!drawing.error().error.where.empty() && !drawing.error().error.expected.empty(),
               "drawing errors have a place");
    } else {
        for (const auto &path : drawing->paths)
            for (const auto &p : path.points_mm) demand(p.allFinite(), "points are finite");
        const Recognition found = recognise(*drawing);
        DrawingChoices choices = guessChoices(found);
        demand(choices.plates.size() == found.plates.size(), "each plate has a choice");
        if (const auto frame = frameFromDrawing(found, choices)) {
            Build build;
            build.name = "fuzz";
            build.frame = *frame;
            // Files hold lengths up to 100 m and outlines of a few thousand corners; what is larger is refused on
            // loading.
            if (const auto again = parseBuild(writeBuild(build)))
                demand(*again->build.frame == *frame, "the frame comes back");
            demand(bool(readDxf(platesAsDxf(*frame))), "what is written can be read");
        }
    }
}

/// Read against an empty build and against one that has parts and a library beside it.
inline void kitListKeepsItsPromises(std::string_view text, const Build &build, const TypeTable &library,
                                    const ImportDemand &demand) {
    const CsvTable table = parseCsv(text);
    demand(table.rows.size() == table.lines.size(), "each row has a line");
    for (const auto &row : table.rows) demand(row.size() == table.header.size(), "rows are as wide as the header");
    auto columns = guessKitColumns(table.header);
    if (!columns.empty() && columns[0] == KitColumn::ignore) columns[0] = KitColumn::name;
    const KitList list = readKitList(table, columns, build, practiceOf({}), library);
    demand(list.rows.size() + list.problems.size() <= table.rows.size() + table.problems.size(),
           "no row comes from nowhere");
    const auto taken = takeKitList(build, list, library);
    demand(bool(taken), "a list can be taken");
    if (taken && text.size() % 8 == 0) { // saving and checking takes long: not for every text
        const auto again = parseBuild(writeBuild(*taken));
        demand(bool(again), "a build with the list can be saved and read");
        if (again) demand(again->build.kit == taken->kit, "the kit comes back");
    }
    const auto rewritten = taken ? readKitList(parseCsv(writeKitList(*taken, practiceOf({}))),
                                               guessKitColumns(parseCsv(writeKitList(*taken, practiceOf({}))).header),
                                               *taken, practiceOf({}), library)
                                 : KitList{};
    demand(rewritten.problems.empty(), "the kit's own list can be read again");
}

inline void importsKeepTheirPromises(std::string_view text, const ImportDemand &demand) {
    drawingKeepsItsPromises(text, demand);
    kitListKeepsItsPromises(text, {}, {}, demand);
}

} // namespace waxis::test
