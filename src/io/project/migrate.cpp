#include "io/project/migrate.h"

#include "io/json/schema.h"

#include <fmt/format.h>

namespace waxis::io {

using nlohmann::json;

std::span<const MigrationStep> buildMigrations() { return {}; }

Result<json, LoadError> migrate(json document, const std::string &format, std::span<const MigrationStep> steps) {
    if (!document.is_object()) return Failure{LoadError{"/", "an object", describeValue(document), ""}};
    const auto kind = document.find("format");
    if (kind == document.end() || *kind != format)
        return Failure{LoadError{"/format", fmt::format("the text \"{}\"", format),
                                 kind == document.end() ? "no such key" : describeValue(*kind), ""}};
    const auto version = document.find("version");
    if (version == document.end() || !version->is_number_integer())
        return Failure{LoadError{"/version", "a whole number",
                                 version == document.end() ? "no such key" : describeValue(*version), ""}};
    const auto present = std::int64_t(steps.size()) + 1;
    const auto found = version->get<std::int64_t>();
    if (found > present)
        return Failure{LoadError{"/version", fmt::format("at most {}", present), describeValue(*version),
                                 "the file was written by a newer Weightaxis; update the program to open it"}};
    if (found < 1) return Failure{LoadError{"/version", "at least 1", describeValue(*version), ""}};
    for (auto at = found; at < present; ++at) {
        steps[std::size_t(at - 1)](document);
        document["version"] = at + 1;
    }
    return document;
}

} // namespace waxis::io
