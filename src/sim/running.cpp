#include "sim/running.h"

#include "sim/faults.h"
#include "sim/pseudo_terminal.h"

#include <chrono>
#include <csignal>
#include <cstdio>
#include <fstream>
#include <iostream>
#include <map>
#include <poll.h>
#include <sstream>
#include <sys/stat.h>
#include <unistd.h>

namespace waxis::sim {

namespace {

volatile std::sig_atomic_t stopped = 0;
void stop(int) { stopped = 1; }

/// Faults with the time at which they end, in seconds of the clock; 0: never.
class Trouble {
public:
    explicit Trouble(std::uint32_t seed) : faults(seed) {}
    Faults faults;
    bool tell(const std::string &line, double now_s) {
        std::istringstream words(line);
        std::string first, name;
        double seconds = 0;
        words >> first >> name >> seconds;
        if (first != "fault") return false;
        if (name == "none") {
            faults.clear();
            until_.clear();
            return true;
        }
        const auto fault = faultNamed(name);
        if (!fault) return false;
        faults.set(*fault, true);
        until_[*fault] = seconds > 0 ? now_s + seconds : 0;
        return true;
    }
    void pass(double now_s) {
        for (auto &[fault, until] : until_)
            if (until > 0 && now_s >= until) {
                faults.set(fault, false);
                until = 0;
            }
    }

private:
    std::map<Fault, double> until_;
};

int record(const Instrument &instrument, const RunOptions &options, Trouble &trouble) {
    std::ofstream file;
    if (options.out != "-") {
        file.open(options.out, std::ios::binary);
        if (!file) {
            std::cerr << "weightaxis-sim: " << options.out << " cannot be written\n";
            return 2;
        }
    }
    std::ostream &out = options.out == "-" ? std::cout : file;
    for (double at = 0; at < options.seconds; at += instrument.step_s) {
        const std::string bytes = instrument.next(instrument.step_s);
        if (!trouble.faults.has(Fault::silence) && !trouble.faults.has(Fault::unplug))
            out << trouble.faults.spoil(bytes);
    }
    out.flush();
    return out ? 0 : 2;
}

} // namespace

int run(const Instrument &instrument, const RunOptions &options) {
    Trouble trouble(options.seed ^ 0x5eedu);
    for (const auto &fault : options.faults)
        if (!trouble.tell("fault " + fault, 0)) {
            std::cerr << "weightaxis-sim: there is no fault \"" << fault
                      << "\": cut, checksum, garbage, silence, unplug\n";
            return 2;
        }
    if (!options.out.empty()) return record(instrument, options, trouble);
    std::signal(SIGINT, stop);
    std::signal(SIGTERM, stop);
    std::signal(SIGPIPE, SIG_IGN);
    PseudoTerminal port(instrument.name);
    std::cout << port.path() << std::endl;
    struct stat input {};
    const bool hasPipe = ::fstat(STDIN_FILENO, &input) == 0 && S_ISFIFO(input.st_mode);
    bool listens = hasPipe || ::isatty(STDIN_FILENO);
    std::string typed;
    const auto begin = std::chrono::steady_clock::now();
    double sent_s = 0, from_s = 0; // from_s: when it began to send, by the clock
    bool waits = options.waits;
    while (!stopped) {
        pollfd wait{STDIN_FILENO, POLLIN, 0};
        constexpr int kTick_ms = 20;
        ::poll(&wait, listens ? 1 : 0, kTick_ms);
        const double now_s = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
        if (listens && (wait.revents & (POLLIN | POLLHUP))) {
            char bytes[512];
            const ssize_t count = ::read(STDIN_FILENO, bytes, sizeof bytes);
            if (count <= 0) {
                if (hasPipe) break; // whoever started it is gone
                listens = false;
            } else {
                typed.append(bytes, std::size_t(count));
            }
            for (std::size_t end = typed.find('\n'); end != std::string::npos; end = typed.find('\n')) {
                const std::string line = typed.substr(0, end);
                typed.erase(0, end + 1);
                if (line == "go") {
                    waits = false;
                    from_s = now_s;
                    continue;
                }
                if (!trouble.tell(line, now_s) && !instrument.tell(line))
                    std::cerr << "weightaxis-sim: not understood: " << line << std::endl;
            }
        }
        trouble.pass(now_s);
        const bool isGone = trouble.faults.has(Fault::unplug);
        if (isGone && port.isPlugged()) port.unplug();
        if (!isGone && !port.isPlugged()) port.plug();
        while (!waits && sent_s + instrument.step_s <= (now_s - from_s) * options.speed) {
            sent_s += instrument.step_s;
            const std::string bytes = instrument.next(instrument.step_s);
            if (!trouble.faults.has(Fault::silence)) port.write(trouble.faults.spoil(bytes));
        }
        if (options.seconds > 0 && sent_s >= options.seconds) break;
    }
    return 0;
}

} // namespace waxis::sim
