// The window used for long and ended at any moment. Run by scripts/endure, not by the test suite.
//
//   endure kill N FOLDER [SEED]     a window edits and saves by real events and is killed N times, every fourth time
//   told
//                                   to end (SIGTERM); what is left is read
//   endure monkey MINUTES FOLDER [SEED]   seeded random keys, clicks, drags over all stages and demos
//   endure work FOLDER SEED         (used by kill) the window that is killed
#include "app/document/autosave.h"
#include "app/document/survey_runner.h"
#include "app/shell/findings_panel.h"
#include "app/shell/guarded_application.h"
#include "app/shell/main_window.h"
#include "app/shell/plurals.h"
#include "app/stages/balance/balance_bench.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/place_view.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/stack/stack_bench.h"
#include "core/build/build.h"

#include <QAbstractButton>
#include <QApplication>
#include <QDialog>
#include <QDir>
#include <QDrag>
#include <QElapsedTimer>
#include <QFile>
#include <QMenu>
#include <QMessageBox>
#include <QProcess>
#include <QRandomGenerator>
#include <QSettings>
#include <QStandardPaths>
#include <QTest>
#include <QTextStream>
#include <QTimer>
#include <algorithm>
#include <array>
#include <atomic>
#include <chrono>
#include <cmath>
#include <csignal>
#include <execinfo.h>
#include <functional>
#include <malloc.h>
#include <optional>
#include <pthread.h>
#include <thread>
#include <unistd.h>
#include <utility>

using namespace waxis;

namespace {

QTextStream &out() {
    static QTextStream stream(stdout);
    return stream;
}

qint64 now_ms() { return QDateTime::currentMSecsSinceEpoch(); }

/// The lamp's way from where the demo has it counts the edits: each is one nudge of 1 mm, forth without end.
const QString kPart = "gps";

double foreOf(const Build &build) { return framePose(build, *findPart(build, kPart.toStdString())).position_mm.x(); }

/// Edits by arrow keys, saves now and then; tells each edit with its time, unbuffered.
int work(app::GuardedApplication &application, const QString &folder, quint32 seed) {
    QRandomGenerator random(seed);
    theme::Theme theme(theme::Mode::light);
    app::MainWindow window(theme, folder + "/unsaved");
    window.resize(1280, 800);
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    if (!window.openFile(folder + "/craft.waxis")) return 3;
    application.setLastWords([&window] { window.autosave().writeNow(); }); // as the program does
    window.document().select(kPart);
    auto &plan = window.placeBench().plan();
    plan.setFocus();
    out() << "ready " << now_ms() << Qt::endl;
    for (int edit = 1;; ++edit) {
        const bool back = edit / 20 % 2; // there and back, so that it stays on the craft
        QTest::keyClick(&plan, back ? Qt::Key_Left : Qt::Key_Right);
        out() << "edit " << now_ms() << " " << QString::number(foreOf(window.document().build()), 'f', 6) << Qt::endl;
        QTest::qWait(random.bounded(20, 400));
        if (random.bounded(12) == 0) QTest::keyClick(&window, Qt::Key_S, Qt::ControlModifier);
    }
}

/// When a state with that place was made last; -1: never.
qint64 timeOf(const std::vector<std::pair<qint64, double>> &edits, double fore) {
    for (auto at = edits.rbegin(); at != edits.rend(); ++at)
        if (std::abs(at->second - fore) < 1e-3) return at->first;
    return -1;
}

int killOften(int times, const QString &folder, quint32 seed) {
    QRandomGenerator random(seed);
    int torn = 0, killed = 0, toldToEnd = 0;
    qint64 most_ms = 0, mostTold_ms = 0;
    for (int round = 0; round < times; ++round) {
        const QString place = folder + "/kill";
        QDir(place).removeRecursively();
        QDir().mkpath(place);
        QFile::copy(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis", place + "/craft.waxis");
        QFile::setPermissions(place + "/craft.waxis", QFile::ReadOwner | QFile::WriteOwner);
        QProcess window;
        window.start(QCoreApplication::applicationFilePath(), {"work", place, QString::number(random.generate())});
        QByteArray told;
        QElapsedTimer clock;
        clock.start();
        while (!told.contains("ready") && clock.elapsed() < 20000 && window.waitForReadyRead(20000))
            told += window.readAllStandardOutput();
        QTest::qSleep(random.bounded(200, 4000));
        const bool endsItself = round % 4 == 3;
        const qint64 end = now_ms();
        if (endsItself)
            window.terminate();
        else
            window.kill();
        window.waitForFinished();
        (endsItself ? toldToEnd : killed) += 1;
        told += window.readAllStandardOutput();
        std::vector<std::pair<qint64, double>> edits;
        for (const auto &line : told.split('\n')) {
            const auto words = line.trimmed().split(' ');
            if (words.size() == 3 && words[0] == "edit") edits.emplace_back(words[1].toLongLong(), words[2].toDouble());
        }
        // Whatever is there is whole; the newest of it says how much is lost.
        qint64 newest = edits.empty() ? end : edits.front().first - 1;
        QStringList files{place + "/craft.waxis", place + "/craft.waxis~"};
        for (const auto &info : QDir(place + "/unsaved").entryInfoList({"*.waxis"}, QDir::Files))
            files << info.absoluteFilePath();
        for (const auto &file : files) {
            if (!QFile::exists(file)) continue;
            const auto loaded = loadBuild(file.toStdString());
            if (!loaded) {
                ++torn;
                out() << "TORN " << file << ": " << QString::fromStdString(loaded.error().text()) << Qt::endl;
                continue;
            }
            if (!file.endsWith('~')) newest = std::max(newest, timeOf(edits, foreOf(loaded->build)));
        }
        // Lost is what came after the newest kept state; the first of it is the oldest.
        qint64 lost_ms = 0;
        for (const auto &[when, fore] : edits)
            if (when > newest) {
                lost_ms = end - when;
                break;
            }
        if (endsItself)
            mostTold_ms = std::max(mostTold_ms, lost_ms);
        else
            most_ms = std::max(most_ms, lost_ms);
        if ((round + 1) % 25 == 0)
            out() << round + 1 << " ended, " << torn << " torn, oldest loss " << most_ms << " ms, when told "
                  << mostTold_ms << " ms" << Qt::endl;
    }
    constexpr qint64 kPromised_ms = 10500; // ten seconds, and the time of a write
    const bool good = torn == 0 && most_ms <= kPromised_ms && mostTold_ms == 0;
    out() << "kill: " << killed << " kills and " << toldToEnd << " times told to end, " << torn
          << " torn files, oldest loss " << most_ms << " ms, when told " << mostTold_ms
          << " ms: " << (good ? "kept as promised" : "NOT as promised") << Qt::endl;
    return good ? 0 : 1;
}

qint64 residentKilobytes() {
    QFile file("/proc/self/status");
    if (!file.open(QIODevice::ReadOnly)) return 0;
    for (const auto &line : file.readAll().split('\n'))
        if (line.startsWith("VmRSS:")) return line.mid(6).trimmed().split(' ').first().toLongLong();
    return 0;
}

/// Says where the window is when it has not beaten for a second: names of functions, from the innermost out.
class Watchdog {
public:
    Watchdog() : window_(pthread_self()), watching_([this](const std::stop_token &stop) { watch(stop); }) {
        std::signal(SIGUSR1, [](int) {
            std::array<void *, 60> frames{};
            const int depth = backtrace(frames.data(), int(frames.size()));
            backtrace_symbols_fd(frames.data(), depth, STDERR_FILENO);
        });
    }
    void beat() { last_ms_ = now_ms(); }

private:
    void watch(const std::stop_token &stop) const {
        qint64 told = 0;
        while (!stop.stop_requested()) {
            std::this_thread::sleep_for(std::chrono::milliseconds(50));
            const qint64 last = last_ms_;
            if (now_ms() - last < 900 || last == told) continue;
            told = last;
            pthread_kill(window_, SIGUSR1);
        }
    }
    pthread_t window_;
    std::atomic<qint64> last_ms_ = now_ms();
    std::jthread watching_;
};

/// Whatever opens and waits for somebody is closed again.
void dismiss() {
    QDrag::cancel(); // a drag between widgets waits for a button that nobody really holds
    if (auto *popup = QApplication::activePopupWidget()) popup->close();
    if (auto *box = qobject_cast<QMessageBox *>(QApplication::activeModalWidget())) {
        for (auto *button : box->buttons())
            if (box->buttonRole(button) == QMessageBox::DestructiveRole) return button->click();
        box->reject();
    } else if (auto *dialog = qobject_cast<QDialog *>(QApplication::activeModalWidget())) {
        dialog->reject();
    }
}

/// Processor time of this thread: what is missing to the time that passed was waited for, or taken by others.
qint64 ownWork_ms() {
    timespec time{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &time);
    return qint64(time.tv_sec) * 1000 + time.tv_nsec / 1'000'000;
}

/// What a virtual machine's host took from its processors, all together. Which of them worked for the window nobody
/// can say, so that a stall is sure only beyond all of it.
qint64 stolen_ms() {
    QFile file("/proc/stat");
    if (!file.open(QIODevice::ReadOnly)) return 0;
    constexpr int kSteal = 8; // of "cpu", user, nice, system, idle, iowait, irq, softirq, steal
    const auto words = file.readLine().simplified().split(' ');
    const qint64 ticks = words.value(kSteal).toLongLong();
    return ticks * 1000 / sysconf(_SC_CLK_TCK);
}

/// Every stage, page and view once: what is made when it is first shown (the solid view alone takes 80 MB) is no
/// growth.
void lookRound(app::MainWindow &window) {
    const auto rest = [] { QTest::qWait(300); };
    for (int stage = 0; stage < 7; ++stage) {
        QTest::keyClick(&window, Qt::Key(Qt::Key_F1 + stage));
        rest();
    }
    for (const auto &spec : window.actions().specs())
        if (spec.id.startsWith("page-") || spec.id.startsWith("lower-")) {
            window.actions().action(spec.id)->trigger();
            rest();
        }
    QTest::keyClick(&window, Qt::Key_F3);
    rest();
}

constexpr std::size_t kMostParts = 150; ///< more than twice as many as the largest demo has

/// A stall is what keeps the window from answering: a beat that comes late. Waiting in a dialog is none.
class Pulse {
public:
    explicit Pulse(const std::function<QString()> &what) {
        beat_.start();
        QObject::connect(&heart_, &QTimer::timeout, [this, what] { look(what()); });
        heart_.start(20);
    }
    qint64 longest_ms = 0;
    QString longest;   ///< what was being done then
    long doubtful = 0; ///< beats that came late only because the host gave no time

private:
    void look(const QString &what) {
        watchdog_.beat();
        const qint64 ownNow = ownWork_ms(), stolenNow = stolen_ms();
        const qint64 stolen = stolenNow - std::exchange(stolenBefore_, stolenNow);
        const qint64 late = beat_.restart(), took = late - stolen;
        const qint64 own = ownNow - std::exchange(ownBefore_, ownNow);
        if (took > longest_ms) {
            longest_ms = took;
            longest = what;
        }
        doubtful += took <= 1000 && late > 1000;
        if (took > 1000)
            out() << "STALL " << took << " ms without " << stolen << " stolen ones, " << own
                  << " of them its own work: " << what << Qt::endl;
    }

    QElapsedTimer beat_;
    QTimer heart_;
    Watchdog watchdog_;
    qint64 ownBefore_ = ownWork_ms(), stolenBefore_ = stolen_ms();
};

/// Does anything to a window, by chance.
class Monkey {
public:
    Monkey(app::MainWindow &window, QString folder, quint32 seed)
        : window_(window), folder_(std::move(folder)), random_(seed) {}

    void open(int which) {
        what_ = "another demo";
        const QString name = demos_[which % demos_.size()], copy = folder_ + "/" + name;
        QFile::remove(copy);
        QFile::copy(WEIGHTAXIS_TEST_DATA "/demos/" + name, copy);
        QFile::setPermissions(copy, QFile::ReadOwner | QFile::WriteOwner);
        window_.document().history().setClean();
        window_.openFile(copy);
    }
    /// One event. False: there was nothing where it wanted to point.
    bool act() {
        const auto roll = random_.bounded(100);
        // Pasting doubles: beyond that it is no craft any more, and another one is opened.
        if (window_.document().build().parts.size() > kMostParts && !window_.document().isPreviewing()) open(0);
        if (roll < 4) {
            stage_ = random_.bounded(7);
            what_ = QString("stage %1").arg(stage_);
            QTest::keyClick(&window_, Qt::Key(Qt::Key_F1 + stage_));
        } else if (roll < 5)
            open(random_.bounded(int(demos_.size())));
        else if (roll < 52)
            type(roll);
        else
            return point(roll);
        return true;
    }
    /// What it did last, how often, and on how large a craft.
    QString what() const {
        return QString("%1 (event %2, %3 parts)").arg(what_).arg(events).arg(window_.document().build().parts.size());
    }
    long events = 0;

private:
    void type(int roll) {
        static const std::vector<Qt::Key> keys{Qt::Key_Left,   Qt::Key_Right, Qt::Key_Up, Qt::Key_Down,  Qt::Key_Tab,
                                               Qt::Key_Q,      Qt::Key_E,     Qt::Key_V,  Qt::Key_Space, Qt::Key_Delete,
                                               Qt::Key_Z,      Qt::Key_0,     Qt::Key_1,  Qt::Key_5,     Qt::Key_9,
                                               Qt::Key_Escape, Qt::Key_Enter, Qt::Key_T};
        static const std::vector<Qt::Key> withControl{Qt::Key_Z, Qt::Key_C, Qt::Key_V, Qt::Key_D,
                                                      Qt::Key_L, Qt::Key_R, Qt::Key_A, Qt::Key_T};
        QWidget *under = QApplication::focusWidget() ? QApplication::focusWidget() : &window_;
        if (roll < 40) {
            const Qt::Key key = keys[std::size_t(random_.bounded(int(keys.size())))];
            what_ = QString("key %1 in stage %2").arg(int(key)).arg(stage_);
            QTest::keyClick(under, key, random_.bounded(5) == 0 ? Qt::ShiftModifier : Qt::NoModifier);
        } else if (roll < 48) {
            const Qt::Key key = withControl[std::size_t(random_.bounded(int(withControl.size())))];
            what_ = QString("Ctrl key %1 in stage %2").arg(int(key)).arg(stage_);
            QTest::keyClick(&window_, key, Qt::ControlModifier);
        } else {
            what_ = "digits typed";
            QTest::keyClicks(under, QString::number(random_.bounded(1, 40)));
            QTest::keyClick(under, Qt::Key_Return);
        }
    }
    bool point(int roll) {
        const QPoint at(random_.bounded(80, window_.width()), random_.bounded(40, window_.height()));
        QWidget *target = window_.childAt(at);
        if (!target) return false;
        const QPoint inside = target->mapFrom(&window_, at);
        what_ = QString("mouse on %1 in stage %2").arg(target->metaObject()->className()).arg(stage_);
        if (roll < 80) {
            QTest::mouseClick(target, random_.bounded(6) == 0 ? Qt::RightButton : Qt::LeftButton, {}, inside);
        } else if (roll < 95) {
            QTest::mousePress(target, Qt::LeftButton, {}, inside);
            for (int i = 1; i <= 4; ++i) {
                const QPoint to = inside + QPoint(random_.bounded(-40, 40), random_.bounded(-40, 40)) * i / 2;
                QMouseEvent move(QEvent::MouseMove, to, target->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
                QApplication::sendEvent(target, &move);
            }
            QTest::mouseRelease(target, Qt::LeftButton, {}, inside + QPoint(20, 10));
        } else {
            QWheelEvent wheel(inside, target->mapToGlobal(inside), {}, QPoint(0, random_.bounded(2) ? 120 : -120),
                              Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
            QApplication::sendEvent(target, &wheel);
        }
        return true;
    }

    app::MainWindow &window_;
    QString folder_, what_;
    QRandomGenerator random_;
    const QStringList demos_ = QDir(WEIGHTAXIS_TEST_DATA "/demos").entryList({"*.waxis"}, QDir::Files);
    int stage_ = 0;
};

/// Crafts differ by hundreds of megabytes, as parts are pulled far away, and so do stages and what works behind them:
/// growth is judged with the same craft on the same bench, when nothing is under way any more.
struct Memory {
    qint64 resident_MB = 0, used_MB = 0;
};
Memory atRest(Monkey &monkey, app::MainWindow &window) {
    dismiss();
    monkey.open(0);
    QTest::keyClick(&window, Qt::Key_F3);
    window.placeBench().showLower(place::Lower::side);
    QTest::qWait(2000);
    (void)QTest::qWaitFor(
        [&] {
            return window.surveyor().isSettled() && window.findings().isSettled() &&
                   window.stackBench().whatIf().isSettled() && window.radioBench().isSettled() &&
                   window.balanceBench().isSettled();
        },
        120'000);
    malloc_trim(0); // what was given back is nobody's
    const auto heap = mallinfo2();
    return {residentKilobytes() >> 10, qint64(heap.uordblks + heap.hblkhd) >> 20};
}

int runMonkey(double minutes, const QString &folder, quint32 seed) {
    theme::Theme theme(theme::Mode::light);
    app::MainWindow window(theme, folder + "/unsaved");
    window.resize(1280, 800);
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    Monkey monkey(window, folder, seed);
    monkey.open(0);
    lookRound(window);
    QTimer closer; // modal dialogs run loops of their own
    QObject::connect(&closer, &QTimer::timeout, dismiss);
    closer.start(150);
    QElapsedTimer all;
    all.start();
    std::vector<qint64> leasts_kB; // of each thousand events
    std::optional<Memory> warm;
    constexpr long kWarm = 10'000; // events, after which everything has been used
    Pulse pulse([&] { return monkey.what(); });
    while (all.elapsed() < qint64(minutes * 60000)) {
        if (!monkey.act()) continue;
        QApplication::processEvents(QEventLoop::AllEvents, 20);
        ++monkey.events;
        const qint64 now_kB = residentKilobytes();
        if (monkey.events == kWarm) warm = atRest(monkey, window);
        if (monkey.events % 1000 == 1) leasts_kB.push_back(now_kB);
        leasts_kB.back() = std::min(leasts_kB.back(), now_kB);
    }
    const Memory last = atRest(monkey, window);
    const qint64 growth_MB = warm ? last.used_MB - warm->used_MB : 0;
    out() << "least memory of each thousand events, MB:";
    for (const qint64 least : leasts_kB) out() << " " << least / 1024;
    out() << Qt::endl;
    if (warm)
        out() << "with the first demo open and at rest, resident and in use, MB: after the first events "
              << warm->resident_MB << " and " << warm->used_MB << ", at the end " << last.resident_MB << " and "
              << last.used_MB << Qt::endl;
    const bool good = pulse.longest_ms <= 1000 && growth_MB <= 50;
    out() << "monkey: " << monkey.events << " events in " << minutes << " minutes, seed " << seed << ", longest "
          << pulse.longest_ms << " ms (" << pulse.longest << "), " << pulse.doubtful
          << " later than a second while the host stole, grown by " << growth_MB
          << " MB: " << (good ? "good" : "NOT good") << Qt::endl;
    window.document().history().setClean();
    return good ? 0 : 1;
}

} // namespace

int main(int argc, char **argv) {
    app::GuardedApplication application(argc, argv);
    QApplication::setApplicationName("weightaxis-endure");
    QApplication::setOrganizationName("weightaxis");
    QStandardPaths::setTestModeEnabled(true);
    QSettings().clear();
    app::loadPlurals();
    QLocale::setDefault(QLocale::c());
    const QStringList words = QApplication::arguments();
    const QString what = words.value(1);
    if (what == "work") return work(application, words.value(2), words.value(3).toUInt());
    const double amount = words.value(2).toDouble();
    const QString folder = words.value(3);
    const quint32 seed = words.size() > 4 ? words[4].toUInt() : 1;
    if (!(amount > 0) || folder.isEmpty()) {
        out() << "endure kill TIMES FOLDER [SEED] | endure monkey MINUTES FOLDER [SEED]" << Qt::endl;
        return 2;
    }
    QDir().mkpath(folder);
    if (what == "kill") return killOften(int(amount), folder, seed);
    if (what == "monkey") return runMonkey(amount, folder, seed);
    return 2;
}
