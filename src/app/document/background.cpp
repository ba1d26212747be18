#include "app/document/background.h"

#include <sys/resource.h>

namespace waxis::app {

namespace {

/// Its threads are niced by a first task each, since a pool has no other place for it.
class Pool : public QThreadPool {
public:
    Pool() {
        setExpiryTimeout(-1); // a thread that ended would come back as eager as any
        for (int i = 0; i < maxThreadCount(); ++i)
            start([] {
                constexpr int kNice = 10;
                setpriority(PRIO_PROCESS, 0, kNice); // of this thread alone, on Linux: it gives way to the window's
                QThread::msleep(20);                 // so that each thread gets one of these
            });
    }
};

} // namespace

QThreadPool &backgroundPool() {
    static Pool pool;
    return pool;
}

} // namespace waxis::app
