// What goes wrong outside the program, for as long as one of these lives.
#pragma once

#include <csignal>
#include <cstdlib>
#include <sys/resource.h>
#include <unistd.h>

namespace waxis::test {

/// No file can grow beyond some bytes: writing stops half way, as on a full disk.
class FullDisk {
public:
    explicit FullDisk(rlim_t bytes) {
        former_ = std::signal(SIGXFSZ, SIG_IGN);
        getrlimit(RLIMIT_FSIZE, &limit_);
        rlimit less = limit_;
        less.rlim_cur = bytes;
        setrlimit(RLIMIT_FSIZE, &less);
    }
    ~FullDisk() {
        setrlimit(RLIMIT_FSIZE, &limit_);
        std::signal(SIGXFSZ, former_);
    }
    FullDisk(const FullDisk &) = delete;
    FullDisk &operator=(const FullDisk &) = delete;

private:
    rlimit limit_{};
    void (*former_)(int) = SIG_DFL;
};

/// The superuser may write everywhere; as anybody else the tests find closed doors closed.
class NobodyInParticular {
public:
    NobodyInParticular() {
        constexpr uid_t kNobody = 65534;
        if (geteuid() == 0 && seteuid(kNobody) == 0) changed_ = true;
    }
    ~NobodyInParticular() {
        if (changed_ && seteuid(0) != 0) std::abort();
    }
    NobodyInParticular(const NobodyInParticular &) = delete;
    NobodyInParticular &operator=(const NobodyInParticular &) = delete;

private:
    bool changed_ = false;
};

} // namespace waxis::test
