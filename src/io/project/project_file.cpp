#include "io/project/project_file.h"

#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "io/json/read_model.h"
#include "io/json/schema.h"
#include "io/json/write_model.h"
#include "io/project/migrate.h"

#include <fmt/format.h>

namespace waxis {

using nlohmann::json;
using namespace io;

namespace {

/// Text -> JSON -> present version -> valid by the schema.
Result<json, LoadError> checkedDocument(std::string_view text, const std::string &format, SchemaKind kind) {
    auto parsed = parseJson(text);
    if (!parsed) return Failure{parsed.error()};
    auto migrated = migrate(std::move(*parsed), format,
                            kind == SchemaKind::build ? buildMigrations() : std::span<const MigrationStep>{});
    if (!migrated) return Failure{migrated.error()};
    if (auto fault = validate(*migrated, kind)) return Failure{*fault};
    return migrated;
}

LoadError unreadableFile(const std::filesystem::path &path, const std::string &why) {
    return {path.string(), "a readable file", why, ""};
}

} // namespace

Result<LoadedBuild, LoadError> parseBuild(std::string_view text) {
    auto document = checkedDocument(text, "weightaxis-build", SchemaKind::build);
    if (!document) return Failure{document.error()};
    try {
        LoadedBuild loaded;
        loaded.build = readBuild(*document);
        loaded.warnings = unknownKeys(*document, SchemaKind::build);
        loaded.stamp = stampOf(text);
        loaded.kept = KeptKeys(std::make_shared<const json>(std::move(*document)));
        return loaded;
    } catch (const Unreadable &unreadable) {
        return Failure{unreadable.error};
    } catch (const json::exception &error) {
        return Failure{LoadError{"/", "a document as the schema says", error.what(), ""}};
    }
}

Result<LoadedBuild, LoadError> loadBuild(const std::filesystem::path &path) {
    const auto bytes = readFile(path, kLargestFile);
    if (!bytes) return Failure{unreadableFile(path, bytes.error())};
    return parseBuild(*bytes);
}

std::string writeBuild(const Build &build, const KeptKeys &kept) {
    const OrderedJson document = toJson(build);
    if (!kept.original()) return prettyJson(document);
    // Which unknown keys survive is found on a plain copy; they are then appended behind the known ones.
    json merged = document;
    keepUnknownKeys(merged, *kept.original(), SchemaKind::build);
    return prettyJson(orderedLike(document, merged));
}

Result<FileStamp, SaveError> saveBuild(const std::filesystem::path &path, const Build &build, const KeptKeys &kept,
                                       const std::optional<FileStamp> &expected) {
    const std::string text = writeBuild(build, kept);
    if (expected) {
        const auto present = readFile(path, kLargestFile);
        if (present && !(stampOf(*present) == *expected))
            return Failure{SaveError{"the file was changed on disk since it was opened", true}};
    }
    if (const auto problem = replaceFile(path, text); !problem.empty()) return Failure{SaveError{problem, false}};
    return stampOf(text);
}

Result<NamedPractice, LoadError> parsePractice(std::string_view text) {
    auto document = checkedDocument(text, "weightaxis-practice", SchemaKind::practice);
    if (!document) return Failure{document.error()};
    try {
        return NamedPractice{(*document)["name"].get<std::string>(),
                             readPractice((*document)["practice"], "/practice")};
    } catch (const Unreadable &unreadable) {
        return Failure{unreadable.error};
    } catch (const json::exception &error) {
        return Failure{LoadError{"/", "a document as the schema says", error.what(), ""}};
    }
}

Result<NamedPractice, LoadError> loadPractice(const std::filesystem::path &path) {
    const auto bytes = readFile(path, kLargestFile);
    if (!bytes) return Failure{unreadableFile(path, bytes.error())};
    return parsePractice(*bytes);
}

std::string writePractice(const NamedPractice &practice) {
    return prettyJson(OrderedJson{{"format", "weightaxis-practice"},
                                  {"version", 1},
                                  {"name", practice.name},
                                  {"practice", toJson(practice.settings)}});
}

Result<PartLibrary, LoadError> parseLibrary(std::string_view text) {
    auto document = checkedDocument(text, "weightaxis-parts", SchemaKind::parts);
    if (!document) return Failure{document.error()};
    try {
        PartLibrary library;
        library.name = (*document)["name"].get<std::string>();
        const auto &types = (*document)["types"];
        for (std::size_t i = 0; i < types.size(); ++i) {
            auto type = readPartType(types[i], fmt::format("/types/{}", i));
            const std::string id = type.id;
            if (!library.types.emplace(id, std::move(type)).second)
                return Failure{
                    LoadError{fmt::format("/types/{}/id", i), "an id of its own", fmt::format("\"{}\" again", id), ""}};
        }
        return library;
    } catch (const Unreadable &unreadable) {
        return Failure{unreadable.error};
    } catch (const json::exception &error) {
        return Failure{LoadError{"/", "a document as the schema says", error.what(), ""}};
    }
}

Result<PartLibrary, LoadError> loadLibrary(const std::filesystem::path &path) {
    const auto bytes = readFile(path, kLargestFile);
    if (!bytes) return Failure{unreadableFile(path, bytes.error())};
    return parseLibrary(*bytes);
}

std::string writeLibrary(const PartLibrary &library) {
    OrderedJson out{{"format", "weightaxis-parts"}, {"version", 1}, {"name", library.name}};
    auto types = OrderedJson::array();
    for (const auto &[id, type] : library.types) types.push_back(toJson(type));
    out["types"] = types;
    return prettyJson(out);
}

} // namespace waxis
