// Tries the cures of all findings in the background, so that only those are offered that leave the craft better off.
#pragma once

#include "app/document/document.h"
#include "core/studies/cures.h"

#include <QFutureWatcher>
#include <QTimer>
#include <atomic>
#include <map>
#include <memory>

namespace waxis::app {

class CureRunner : public QObject {
    Q_OBJECT

public:
    explicit CureRunner(Document &document, QObject *parent = nullptr);
    ~CureRunner() override;

    /// The cures of a finding of the open build; null while they are still being tried.
    const std::vector<Cure> *curesOf(const Finding &finding) const;
    /// The cures of that finding are tried before all others: a hand waits for them.
    void tryFirst(const std::string &findingKey);
    bool isSettled() const { return !underWay_ && !rest_.isActive(); }

signals:
    void tried(); ///< more of them are known

private:
    /// Of a finding: a survey that comes in may offer more than was tried before.
    struct Tried {
        std::string key;
        std::size_t offered = 0; ///< fixes that the finding had then
        std::vector<Cure> cures;
    };
    bool isKnown(const Finding &finding) const;
    void look();
    void start();
    void stop();

    Document &document_;
    QTimer rest_;
    QFutureWatcher<Tried> run_;
    bool underWay_ = false; ///< until its end was told: the work itself ends a little earlier
    std::shared_ptr<std::atomic<bool>> stop_;
    Build of_;                           ///< the build that `known_` speaks of
    std::map<std::string, Tried> known_; ///< by key
    std::string first_;                  ///< finding that is tried before the others
};

} // namespace waxis::app
