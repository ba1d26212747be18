#include "io/json/read_model.h"

#include "io/json/described_build.h"
#include "io/json/reading.h"
#include "io/json/snapshots.h"
#include "io/json/value_checks.h"

namespace waxis::io {

namespace {

template <class T>
T readOne(const nlohmann::json &object, const std::string &pointer) {
    T value;
    Reading in(object, pointer);
    describe(in, value);
    check(in, value);
    return value;
}

} // namespace

PracticeSettings readPractice(const nlohmann::json &object, const std::string &pointer) {
    return readOne<PracticeSettings>(object, pointer);
}

PartType readPartType(const nlohmann::json &object, const std::string &pointer) {
    return readOne<PartType>(object, pointer);
}

Build readBuild(const nlohmann::json &document) {
    Build build = readOne<Build>(document, "");
    readSnapshots(document, build);
    checkReferences(build);
    return build;
}

} // namespace waxis::io
