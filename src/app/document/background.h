// Where the window's long work runs.
#pragma once

#include <QFutureWatcher>
#include <QTimer>
#include <QtConcurrent>
#include <atomic>
#include <functional>
#include <memory>
#include <utility>

namespace waxis::app {

/// Threads of its own: those of Qt's common pool also fill large areas, and painting would wait for a free one.
QThreadPool &backgroundPool();

/// Runs `work(arguments...)` there; with a QPromise as its first parameter when it gives several results.
template <class Work, class... Arguments>
auto inBackground(Work &&work, Arguments &&...arguments) {
    return QtConcurrent::run(&backgroundPool(), std::forward<Work>(work), std::forward<Arguments>(arguments)...);
}

/// Works one thing out on a copy, in the background, once the hands rest. What is asked for anew while it runs calls it
/// off and starts again; only a result that nobody called off is handed over, in the window's thread. Its end waits for
/// what runs.
template <class Result>
class Background {
public:
    /// Holds copies of all it reads; should return early once `stop` is set, what it returns then is thrown away.
    using Work = std::function<Result(const std::atomic<bool> &stop)>;

    /// `prepare` is asked when `rest_ms` have passed since the last ask(): for the work, or for nothing when there is
    /// none to do.
    Background(int rest_ms, std::function<Work()> prepare, std::function<void(Result)> take)
        : prepare_(std::move(prepare)), take_(std::move(take)) {
        rest_.setSingleShot(true);
        rest_.setInterval(rest_ms);
        QObject::connect(&rest_, &QTimer::timeout, &rest_, [this] { start(); });
        QObject::connect(&run_, &QFutureWatcherBase::finished, &rest_, [this] {
            underWay_ = false;
            if (*stop_)
                rest_.start();
            else
                take_(run_.result());
        });
    }
    ~Background() {
        run_.disconnect();
        *stop_ = true;
        run_.waitForFinished();
    }
    Background(const Background &) = delete;
    Background &operator=(const Background &) = delete;

    /// Something that it is made of has changed.
    void ask() {
        if (underWay_) *stop_ = true;
        rest_.start();
    }
    /// Nobody wants it any more; what runs is called off when it is asked for again, or thrown away.
    void cancel() { rest_.stop(); }
    bool isRunning() const { return underWay_; }
    /// Nothing is under way or waiting.
    bool isSettled() const { return !underWay_ && !rest_.isActive(); }

private:
    void start() {
        if (underWay_) return; // its end starts again
        Work work = prepare_();
        if (!work) return;
        stop_ = std::make_shared<std::atomic<bool>>(false);
        underWay_ = true;
        run_.setFuture(inBackground([work = std::move(work), stop = stop_] { return work(*stop); }));
    }

    std::function<Work()> prepare_;
    std::function<void(Result)> take_;
    QTimer rest_;
    QFutureWatcher<Result> run_;
    bool underWay_ = false; ///< until its end was told: the work itself ends a little earlier, in its own thread
    std::shared_ptr<std::atomic<bool>> stop_ = std::make_shared<std::atomic<bool>>(false);
};

} // namespace waxis::app
