#include "app/shell/guarded_application.h"

#include <QSocketNotifier>
#include <QTextStream>
#include <array>
#include <csignal>
#include <exception>
#include <malloc.h>
#include <new>
#include <sys/socket.h>
#include <unistd.h>
#include <utility>

namespace waxis::app {

namespace {

/// A signal handler may do next to nothing: it writes the number into one end, the event loop reads it at the other.
std::array<int, 2> gSignalEnds{-1, -1};

void pass(int number) {
    const auto byte = char(number);
    [[maybe_unused]] const auto written = ::write(gSignalEnds[0], &byte, 1);
}

} // namespace

GuardedApplication::GuardedApplication(int &argc, char **argv) : QApplication(argc, argv) {
    // What a search or a survey asked for goes back to the system when it is done, instead of staying with its thread.
    constexpr int kLarge = 1 << 20;
    mallopt(M_MMAP_THRESHOLD, kLarge);
    mallopt(M_TRIM_THRESHOLD, 4 * kLarge);
}

GuardedApplication::~GuardedApplication() {
    for (const int number : {SIGTERM, SIGHUP, SIGINT}) std::signal(number, SIG_DFL);
    for (int &end : gSignalEnds)
        if (end >= 0) ::close(std::exchange(end, -1));
}

void GuardedApplication::setLastWords(std::function<void()> lastWords) {
    lastWords_ = std::move(lastWords);
    if (signal_ || ::socketpair(AF_UNIX, SOCK_STREAM, 0, gSignalEnds.data()) != 0) return;
    signal_ = new QSocketNotifier(gSignalEnds[1], QSocketNotifier::Read, this);
    connect(signal_, &QSocketNotifier::activated, this, &GuardedApplication::told);
    struct sigaction action {};
    action.sa_handler = pass;
    ::sigemptyset(&action.sa_mask);
    action.sa_flags = SA_RESTART;
    for (const int number : {SIGTERM, SIGHUP, SIGINT}) ::sigaction(number, &action, nullptr);
}

void GuardedApplication::told() {
    signal_->setEnabled(false);
    char number = 0;
    if (::read(gSignalEnds[1], &number, 1) != 1) number = SIGTERM;
    if (lastWords_) lastWords_();
    // As everybody expects of a program that was ended by this signal.
    std::signal(number, SIG_DFL);
    ::raise(number);
}

bool GuardedApplication::notify(QObject *receiver, QEvent *event) {
    QString what;
    try {
        return QApplication::notify(receiver, event);
    } catch (const std::bad_alloc &) {
        what = tr("there is not enough memory");
    } catch (const std::exception &error) {
        what = QString::fromUtf8(error.what());
    }
    QTextStream(stderr) << "weightaxis: " << what << '\n';
    if (rescue_ && !rescuing_) {
        rescuing_ = true;
        try {
            rescue_(what);
        } catch (const std::exception &error) {
            QTextStream(stderr) << "weightaxis: " << error.what() << '\n';
        }
        rescuing_ = false;
    }
    return true;
}

} // namespace waxis::app
