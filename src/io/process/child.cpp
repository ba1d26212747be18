#include "io/process/child.h"

#include <array>
#include <cerrno>
#include <chrono>
#include <csignal>
#include <cstring>
#include <fcntl.h>
#include <poll.h>
#include <spawn.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

extern char **environ;

namespace waxis::io {

namespace {

/// The reading end of a child's output.
class Pipe {
public:
    Pipe() { open_ = ::pipe2(ends_.data(), O_CLOEXEC) == 0; }
    ~Pipe() {
        closeWriting();
        if (open_) ::close(ends_[0]);
    }
    Pipe(const Pipe &) = delete;
    Pipe &operator=(const Pipe &) = delete;
    bool isOpen() const { return open_; }
    int reading() const { return ends_[0]; }
    int writing() const { return ends_[1]; }
    void closeWriting() {
        if (open_ && ends_[1] >= 0) ::close(ends_[1]);
        ends_[1] = -1;
    }

private:
    std::array<int, 2> ends_{-1, -1};
    bool open_ = false;
};

/// 0 when it runs; else an errno.
int spawn(const std::filesystem::path &program, const std::vector<std::string> &arguments, int output, pid_t &child) {
    posix_spawn_file_actions_t actions;
    ::posix_spawn_file_actions_init(&actions);
    ::posix_spawn_file_actions_addopen(&actions, 0, "/dev/null", O_RDONLY, 0);
    ::posix_spawn_file_actions_adddup2(&actions, output, 1);
    ::posix_spawn_file_actions_addopen(&actions, 2, "/dev/null", O_WRONLY, 0);
    std::vector<std::string> words{program.string()};
    words.insert(words.end(), arguments.begin(), arguments.end());
    std::vector<char *> pointers;
    for (auto &word : words) pointers.push_back(word.data());
    pointers.push_back(nullptr);
    const int problem = ::posix_spawn(&child, program.c_str(), &actions, nullptr, pointers.data(), environ);
    ::posix_spawn_file_actions_destroy(&actions);
    return problem;
}

} // namespace

ChildResult runChild(const std::filesystem::path &program, const std::vector<std::string> &arguments,
                     const ChildLimits &limits, const std::function<bool()> &goesOn) {
    ChildResult result;
    Pipe pipe;
    pid_t child = -1;
    const int problem = pipe.isOpen() ? spawn(program, arguments, pipe.writing(), child) : errno;
    if (problem != 0) {
        result.problem = program.string() + ": " + std::strerror(problem);
        return result;
    }
    pipe.closeWriting();
    const auto start = std::chrono::steady_clock::now();
    bool killed = false;
    const auto end = [&](ChildEnd why) {
        if (!killed) ::kill(child, SIGKILL);
        killed = true;
        result.end = why;
    };
    std::array<char, 65536> bytes{};
    constexpr int kAsk_ms = 100;
    for (bool open = true; open && !killed;) {
        pollfd waiting{pipe.reading(), POLLIN, 0};
        const int ready = ::poll(&waiting, 1, kAsk_ms);
        if (goesOn && !goesOn()) end(ChildEnd::cancelled);
        const std::chrono::duration<double> gone = std::chrono::steady_clock::now() - start;
        if (gone.count() > limits.seconds) end(ChildEnd::tooLong);
        if (ready <= 0) continue;
        const auto read = ::read(pipe.reading(), bytes.data(), bytes.size());
        if (read < 0 && errno == EINTR) continue;
        open = read > 0;
        if (read > 0) result.output.append(bytes.data(), std::size_t(read));
        if (result.output.size() > limits.output_bytes) end(ChildEnd::tooMuch);
    }
    // It may have closed its output and still be busy.
    int status = 0;
    while (::waitpid(child, &status, killed ? 0 : WNOHANG) == 0) {
        const std::chrono::duration<double> gone = std::chrono::steady_clock::now() - start;
        if (gone.count() > limits.seconds) end(ChildEnd::tooLong);
        ::poll(nullptr, 0, 5);
    }
    if (killed) return result;
    result.end = WIFSIGNALED(status) ? ChildEnd::died : ChildEnd::exited;
    result.code = WIFSIGNALED(status) ? WTERMSIG(status) : WEXITSTATUS(status);
    return result;
}

void limitMyself(std::size_t memory_bytes, unsigned processor_s) {
    const rlimit memory{memory_bytes, memory_bytes}, time{processor_s, processor_s + 1}, none{0, 0};
    ::setrlimit(RLIMIT_AS, &memory);
    ::setrlimit(RLIMIT_CPU, &time);
    ::setrlimit(RLIMIT_CORE, &none);
}

} // namespace waxis::io
