// Whole files in and out.
#pragma once

#include "core/base/result.h"
#include "io/project/project_file.h"

#include <filesystem>
#include <string>
#include <string_view>

namespace waxis::io {

/// FNV-1a over the bytes, and their number.
FileStamp stampOf(std::string_view bytes);

/// The bytes, or why they cannot be read. Directories, devices and files over the limit are refused.
Result<std::string, std::string> readFile(const std::filesystem::path &path, std::size_t limit);

/// There is such a file and nobody has the right to write it (whoever asks: the administrator may write anything).
bool isReadOnly(const std::filesystem::path &path);

/// To a regular file, or where there is nothing yet, in one step without a backup; to a queue, a terminal or a device
/// byte by byte: those are not replaced. Empty on success, else the reason.
std::string deliver(const std::filesystem::path &path, std::string_view bytes);

/// Takes away what killed writers of this file left beside it more than a minute ago.
void removeUnfinished(const std::filesystem::path &path);

/// Replaces the file in one step, keeping the former one as "NAME~"; links are followed. Empty on success, else
/// the reason. What killed writers left beside it is taken away.
std::string replaceFile(const std::filesystem::path &path, std::string_view bytes, bool keepBackup = true);

} // namespace waxis::io
