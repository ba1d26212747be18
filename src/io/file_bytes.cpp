#include "io/file_bytes.h"

#include <cerrno>
#include <chrono>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <fstream>
#include <sys/stat.h>
#include <unistd.h>
#include <vector>

namespace waxis::io {

namespace fs = std::filesystem;

namespace {

std::string reasonOf(const char *what) { return fmt::format("{}: {}", what, std::strerror(errno)); }

bool writeAll(int file, std::string_view bytes) {
    while (!bytes.empty()) {
        const auto written = ::write(file, bytes.data(), bytes.size());
        if (written < 0 && errno == EINTR) continue;
        if (written <= 0) return false;
        bytes.remove_prefix(std::size_t(written));
    }
    return true;
}

void syncFolder(const fs::path &folder) {
    const int handle = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (handle < 0) return;
    ::fsync(handle);
    ::close(handle);
}

} // namespace

FileStamp stampOf(std::string_view bytes) {
    std::uint64_t hash = 14695981039346656037ull;
    for (unsigned char byte : bytes) hash = (hash ^ byte) * 1099511628211ull;
    return {hash, bytes.size()};
}

Result<std::string, std::string> readFile(const fs::path &path, std::size_t limit) {
    std::error_code error;
    const auto status = fs::status(path, error);
    if (error || !fs::exists(status)) return Failure{std::string("no such file")};
    if (!fs::is_regular_file(status)) return Failure{std::string("something that is no file")};
    const auto size = fs::file_size(path, error);
    if (error) return Failure{error.message()};
    if (size > limit) return Failure{fmt::format("{} MB, more than the {} MB that are read", size >> 20, limit >> 20)};
    std::ifstream in(path, std::ios::binary);
    if (!in) return Failure{reasonOf("it cannot be opened")};
    std::string bytes(size, '\0');
    in.read(bytes.data(), std::streamsize(size));
    if (std::size_t(in.gcount()) != size) return Failure{std::string("a file that ends early")};
    return bytes;
}

bool isReadOnly(const fs::path &path) {
    std::error_code error;
    const auto status = fs::status(path, error);
    constexpr auto kWrite = fs::perms::owner_write | fs::perms::group_write | fs::perms::others_write;
    return !error && fs::is_regular_file(status) && (status.permissions() & kWrite) == fs::perms::none;
}

std::string deliver(const fs::path &path, std::string_view bytes) {
    std::error_code error;
    const auto status = fs::status(path, error); // of what a link leads to
    if (!fs::exists(status) || fs::is_regular_file(status)) return replaceFile(path, bytes, false);
    if (fs::is_directory(status)) return "it is a folder";
    const int file = ::open(path.c_str(), O_WRONLY | O_CLOEXEC);
    if (file < 0) return reasonOf("it cannot be opened");
    const bool written = writeAll(file, bytes);
    const std::string problem = written ? std::string() : reasonOf("cannot write to it");
    ::close(file);
    return problem;
}

namespace {
constexpr std::string_view kUnfinished = ".unfinished-"; // six letters behind it
}

void removeUnfinished(const fs::path &path) {
    using namespace std::chrono_literals;
    constexpr auto kSurelyDead = 60s;
    const std::string prefix = path.filename().string() + std::string(kUnfinished);
    std::error_code error;
    std::vector<fs::path> old;
    for (fs::directory_iterator at(path.parent_path(), error), end; !error && at != end; at.increment(error)) {
        const std::string name = at->path().filename().string();
        if (name.size() != prefix.size() + 6 || !name.starts_with(prefix)) continue;
        std::error_code gone;
        const auto written = fs::last_write_time(at->path(), gone);
        if (!gone && fs::file_time_type::clock::now() - written > kSurelyDead) old.push_back(at->path());
    }
    for (const auto &file : old) fs::remove(file, error);
}

std::string replaceFile(const fs::path &given, std::string_view bytes, bool keepBackup) {
    std::error_code error;
    const bool exists = fs::exists(given, error);
    const fs::path path = exists ? fs::canonical(given, error) : fs::absolute(given, error);
    if (error) return error.message();
    const fs::path folder = path.parent_path();
    removeUnfinished(path);
    std::string pattern = (folder / (path.filename().string() + std::string(kUnfinished) + "XXXXXX")).string();
    const int file = ::mkstemp(pattern.data());
    if (file < 0) return reasonOf("cannot write in this folder");
    const auto fail = [&](const char *what) {
        const auto reason = reasonOf(what);
        ::unlink(pattern.c_str());
        return reason;
    };
    mode_t mode = 0644;
    struct stat before {};
    if (exists && ::stat(path.c_str(), &before) == 0) mode = before.st_mode & 07777;
    const bool written = ::fchmod(file, mode) == 0 && writeAll(file, bytes) && ::fsync(file) == 0;
    if (::close(file) != 0 || !written) return fail("cannot write the file");
    if (exists && keepBackup) {
        const fs::path backup = path.string() + "~";
        fs::remove(backup, error);
        fs::create_hard_link(path, backup, error);
        if (error) fs::copy_file(path, backup, fs::copy_options::overwrite_existing, error); // no hard links here
        if (error) return fail("cannot keep a backup of the former file");
    }
    if (::rename(pattern.c_str(), path.c_str()) != 0) return fail("cannot replace the file");
    syncFolder(folder);
    return {};
}

} // namespace waxis::io
