#include "io/project/project_file.h"

#include "io/file_bytes.h"
#include "io/json/parse.h"
#include "io/json/read_model.h"
#include "io/json/schema.h"
#include "io/json/write_model.h"
#include "io/project/migrate.h"

#include <cctype>
#include <cstdlib>
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

/// "position_mm" and "offsetX_mm" as one says them: the unit stands with the number.
std::string wordsOf(std::string key) {
    if (const auto unit = key.rfind('_'); unit != std::string::npos && unit > 0) key.resize(unit);
    std::string words;
    for (const char c : key) {
        if (std::isupper(static_cast<unsigned char>(c))) words += ' ';
        words += char(std::tolower(static_cast<unsigned char>(c)));
    }
    return words;
}

/// The fault with the name of the innermost thing that has one, and what of it.
std::string inWords(const json &document, const LoadError &fault) {
    const json *at = &document;
    std::string name, what;
    std::size_t begin = fault.where.find('/');
    while (at && begin != std::string::npos && begin + 1 < fault.where.size()) {
        const auto end = std::min(fault.where.find('/', begin + 1), fault.where.size());
        const std::string key = fault.where.substr(begin + 1, end - begin - 1);
        begin = end;
        if (at->is_array()) {
            const auto index = std::size_t(std::atoll(key.c_str()));
            at = index < at->size() ? &(*at)[index] : nullptr;
            if (at && at->is_object())
                for (const char *called : {"name", "id"})
                    if (at->contains(called) && (*at)[called].is_string()) {
                        constexpr std::size_t kShown = 60;
                        name = (*at)[called].get<std::string>();
                        if (name.size() > kShown) name = name.substr(0, kShown) + "...";
                        what.clear();
                        break;
                    }
        } else {
            if (key != "value") what = wordsOf(key); // of a weight: the weight
            at = at->is_object() && at->contains(key) ? &(*at)[key] : nullptr;
        }
    }
    std::string place = name.empty() ? what : what.empty() ? name : name + ", " + what;
    if (place.empty()) place = fault.where;
    return fmt::format("{}: {} is wanted, not {}.", place, fault.expected, fault.found);
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

std::optional<std::string> whyNotKept(const Build &build) {
    const json document = toJson(build);
    if (const auto fault = validate(document, SchemaKind::build)) return inWords(document, *fault);
    try {
        readBuild(document);
    } catch (const Unreadable &unreadable) {
        return inWords(document, unreadable.error);
    } catch (const json::exception &error) {
        return fmt::format("It could not be opened again: {}.", error.what());
    }
    return std::nullopt;
}

Result<FileStamp, SaveError> saveBuild(const std::filesystem::path &path, const Build &build, const KeptKeys &kept,
                                       const std::optional<FileStamp> &expected, bool evenReadOnly) {
    const std::string text = writeBuild(build, kept);
    if (const auto again = parseBuild(text); !again)
        return Failure{SaveError{whyNotKept(build).value_or(again.error().text()), false}};
    if (expected) {
        const auto present = readFile(path, kLargestFile);
        if (present && !(stampOf(*present) == *expected))
            return Failure{SaveError{"the file was changed on disk since it was opened", true}};
    }
    if (!evenReadOnly && isReadOnly(path)) return Failure{SaveError{"the file is read-only", false, true}};
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

std::string savePractice(const std::filesystem::path &path, const NamedPractice &practice) {
    const std::string text = writePractice(practice);
    if (const auto again = parsePractice(text); !again) return again.error().text();
    return replaceFile(path, text);
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

std::string saveLibrary(const std::filesystem::path &path, const PartLibrary &library) {
    const std::string text = writeLibrary(library);
    if (const auto again = parseLibrary(text); !again) return again.error().text();
    return replaceFile(path, text);
}

std::string writeLibrary(const PartLibrary &library) {
    OrderedJson out{{"format", "weightaxis-parts"}, {"version", 1}, {"name", library.name}};
    auto types = OrderedJson::array();
    for (const auto &[id, type] : library.types) types.push_back(toJson(type));
    out["types"] = types;
    return prettyJson(out);
}

} // namespace waxis
