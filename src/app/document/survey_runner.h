// Takes surveys of the open build in the background, so that the window never waits for them.
#pragma once

#include "app/document/document.h"

#include <QFutureWatcher>
#include <QTimer>
#include <atomic>
#include <memory>

namespace waxis {
class SweepMemory;
}

namespace waxis::app {

/// Waits until the hands rest, leads what wires were put off and surveys a copy of the build on another thread, and
/// gives the results to the document. A change meanwhile stops the run and starts another.
class SurveyRunner : public QObject {
    Q_OBJECT

public:
    explicit SurveyRunner(Document &document, QObject *parent = nullptr);
    ~SurveyRunner() override;
    /// Nothing is under way and the findings are of the build as it is.
    bool isSettled() const { return !underWay_ && !rest_.isActive(); }

signals:
    void stateChanged(); ///< settled or not

private:
    void look();
    void start();

    /// Of one run: the wires first, then the survey.
    struct Seen {
        std::shared_ptr<const LedWires> wires;
        std::shared_ptr<const Survey> survey;
    };
    bool isUpToDate() const { return document_.isSurveyed() && document_.areWiresLed(); }

    Document &document_;
    std::shared_ptr<SweepMemory> memory_; ///< after a move only what has to do with it is swept again
    QTimer rest_;
    QFutureWatcher<Seen> run_;
    bool underWay_ = false; ///< until its end was told: the work itself ends a little earlier
    std::shared_ptr<std::atomic<bool>> stop_;
};

} // namespace waxis::app
