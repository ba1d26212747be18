#include "sim/pseudo_terminal.h"

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <poll.h>
#include <stdexcept>
#include <termios.h>
#include <unistd.h>
#include <vector>

namespace waxis::sim {

namespace {
[[noreturn]] void refuse(const char *what) {
    throw std::runtime_error(std::string(what) + ": " + std::strerror(errno));
}
} // namespace

PseudoTerminal::PseudoTerminal(const std::string &name) {
    const char *base = std::getenv("XDG_RUNTIME_DIR");
    if (!base || ::access(base, W_OK) != 0) base = std::getenv("TMPDIR");
    if (!base || ::access(base, W_OK) != 0) base = "/tmp";
    std::string pattern = std::string(base) + "/weightaxis-sim-XXXXXX";
    std::vector<char> made(pattern.begin(), pattern.end());
    made.push_back('\0');
    if (!::mkdtemp(made.data())) refuse("no folder for the port's name");
    folder_ = made.data();
    link_ = folder_ + "/" + name;
    plug();
}

PseudoTerminal::~PseudoTerminal() {
    unplug();
    ::rmdir(folder_.c_str());
}

void PseudoTerminal::plug() {
    if (isPlugged()) return;
    master_ = ::posix_openpt(O_RDWR | O_NOCTTY | O_NONBLOCK | O_CLOEXEC);
    if (master_ < 0 || ::grantpt(master_) != 0 || ::unlockpt(master_) != 0) refuse("no pseudo-terminal");
    char name[128];
    if (::ptsname_r(master_, name, sizeof name) != 0) refuse("the pseudo-terminal has no name");
    // Held open here, so that a reader who comes and goes ends nothing.
    slave_ = ::open(name, O_RDWR | O_NOCTTY | O_CLOEXEC);
    if (slave_ < 0) refuse("the pseudo-terminal cannot be opened");
    termios settings{};
    ::tcgetattr(slave_, &settings);
    ::cfmakeraw(&settings);
    ::tcsetattr(slave_, TCSANOW, &settings);
    ::unlink(link_.c_str());
    if (::symlink(name, link_.c_str()) != 0) refuse("the port cannot be named");
}

void PseudoTerminal::unplug() {
    ::unlink(link_.c_str());
    if (slave_ >= 0) ::close(slave_);
    if (master_ >= 0) ::close(master_);
    master_ = slave_ = -1;
}

void PseudoTerminal::write(std::string_view bytes) {
    while (isPlugged() && !bytes.empty()) {
        const ssize_t written = ::write(master_, bytes.data(), bytes.size());
        if (written < 0 && errno == EAGAIN) {
            // A reader that is busy for a moment loses nothing: a faster clock waits for it.
            // Who started this one is heard meanwhile.
            constexpr int kPatience_ms = 4000;
            pollfd waits[2]{{master_, POLLOUT, 0}, {STDIN_FILENO, POLLIN, 0}};
            if (::poll(waits, 2, kPatience_ms) > 0) {
                if (waits[0].revents & POLLOUT) continue;
                return;
            }
            // Nobody reads: what waits is old by now.
            ::tcflush(slave_, TCIFLUSH);
            return;
        }
        if (written <= 0) return;
        bytes.remove_prefix(std::size_t(written));
    }
    char typed[256];
    while (isPlugged() && ::read(master_, typed, sizeof typed) > 0) {
    } // what is sent to the instrument is heard by nobody
}

} // namespace waxis::sim
