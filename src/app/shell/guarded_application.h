// The application with a net under it: an exception in the middle of an event, or a signal to end, loses no work.
#pragma once

#include <QApplication>
#include <functional>

class QSocketNotifier;

namespace waxis::app {

class GuardedApplication : public QApplication {
    Q_OBJECT

public:
    GuardedApplication(int &argc, char **argv);
    ~GuardedApplication() override;

    /// What is done after an exception that an event handler let through; the program goes on afterwards.
    void setRescue(std::function<void(const QString &what)> rescue) { rescue_ = std::move(rescue); }
    /// What is done when the program is told to end (SIGTERM, SIGHUP, SIGINT), before it ends as after such a signal.
    void setLastWords(std::function<void()> lastWords);

    bool notify(QObject *receiver, QEvent *event) override;

private:
    void told();

    std::function<void(const QString &)> rescue_;
    std::function<void()> lastWords_;
    QSocketNotifier *signal_ = nullptr;
    bool rescuing_ = false;
};

} // namespace waxis::app
