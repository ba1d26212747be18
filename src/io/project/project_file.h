// Reading and writing builds (.waxis) and part libraries.
#pragma once

#include "core/base/result.h"
#include "core/build/build.h"
#include "core/catalog/library.h"
#include "io/load_error.h"

#include <filesystem>
#include <memory>
#include <nlohmann/json_fwd.hpp>
#include <optional>
#include <string>
#include <string_view>

namespace waxis {

inline constexpr int kBuildFileVersion = 1;

/// What the file held beyond what this version knows; kept and written back.
class KeptKeys {
public:
    KeptKeys() = default;
    explicit KeptKeys(std::shared_ptr<const nlohmann::json> original) : original_(std::move(original)) {}
    const nlohmann::json *original() const { return original_.get(); }

private:
    std::shared_ptr<const nlohmann::json> original_;
};

/// Fingerprint of a file's bytes, to notice that somebody else changed it.
struct FileStamp {
    std::uint64_t hash = 0;
    std::uintmax_t size = 0;
    bool operator==(const FileStamp &) const = default;
};

struct LoadedBuild {
    Build build;
    KeptKeys kept;
    std::vector<LoadWarning> warnings;
    FileStamp stamp;
};

Result<LoadedBuild, LoadError> parseBuild(std::string_view text);
Result<LoadedBuild, LoadError> loadBuild(const std::filesystem::path &path);

/// The same build gives the same bytes.
std::string writeBuild(const Build &build, const KeptKeys &kept = {});

/// Why a build could not be opened again if it were saved as it is, in a builder's words with the thing's name:
/// "Buzzer, position: a number from -100000 up to 100000 is wanted, not the number 150000." None when it can. It asks
/// what opening asks (limits of the schema, references) and takes about as long.
std::optional<std::string> whyNotKept(const Build &build);

struct SaveError {
    std::string reason;
    bool changedOnDisk = false; ///< the file is no longer the one that was read
    bool readOnly = false;      ///< somebody took the right to write it away
};

/// Writes to a temporary file beside the target, syncs it, keeps the former file as "NAME.waxis~" and renames. What is
/// about to be written is read first: text that could not be opened again is refused, and file and backup stay as they
/// are. With `expected` given, refuses when the file on disk is another one by now; a file that is read-only is
/// replaced only with `evenReadOnly`.
Result<FileStamp, SaveError> saveBuild(const std::filesystem::path &path, const Build &build, const KeptKeys &kept = {},
                                       const std::optional<FileStamp> &expected = {}, bool evenReadOnly = false);

/// A practice profile in a file of its own (`weightaxis-practice`).
struct NamedPractice {
    std::string name;
    PracticeSettings settings;
    bool operator==(const NamedPractice &) const = default;
};
Result<NamedPractice, LoadError> parsePractice(std::string_view text);
Result<NamedPractice, LoadError> loadPractice(const std::filesystem::path &path);
std::string writePractice(const NamedPractice &practice);
/// As saveBuild: what cannot be read again is not written. Empty on success, else the reason.
std::string savePractice(const std::filesystem::path &path, const NamedPractice &practice);

Result<PartLibrary, LoadError> parseLibrary(std::string_view text);
Result<PartLibrary, LoadError> loadLibrary(const std::filesystem::path &path);
std::string writeLibrary(const PartLibrary &library);
std::string saveLibrary(const std::filesystem::path &path, const PartLibrary &library);

} // namespace waxis
