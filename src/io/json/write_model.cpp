#include "io/json/write_model.h"

#include "io/json/described_build.h"
#include "io/json/snapshots.h"
#include "io/json/writing.h"

namespace waxis::io {

OrderedJson toJson(const Vec2 &v) { return Writing::json(v); }
OrderedJson toJson(const Vec3 &v) { return Writing::json(v); }
OrderedJson toJson(const Measured &measured) { return Writing::json(measured); }
OrderedJson toJson(const PartType &type) { return Writing::json(type); }
OrderedJson toJson(const PracticeSettings &settings) { return Writing::json(settings); }

OrderedJson toJson(const Build &build) {
    Writing file;
    file.out["format"] = "weightaxis-build";
    file.out["version"] = 1;
    describe(file, build);
    writeSnapshots(file.out, build);
    return std::move(file.out);
}

} // namespace waxis::io
