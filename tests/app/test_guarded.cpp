// The net under the program, in a process of its own: exceptions in events, signals to end.
#include "app/shell/guarded_application.h"

#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <QTimer>
#include <QtTest>
#include <csignal>
#include <new>
#include <stdexcept>

using namespace waxis;

namespace {

/// The child: keeps "work" when it is told to end.
int child(int argc, char **argv) {
    app::GuardedApplication application(argc, argv);
    const QString file = QString::fromLocal8Bit(argv[2]);
    application.setLastWords([file] {
        QFile kept(file);
        if (kept.open(QIODevice::WriteOnly)) kept.write("work");
    });
    QTimer::singleShot(0, [] {
        std::puts("ready");
        std::fflush(stdout);
    });
    QTimer::singleShot(20000, &application, &QCoreApplication::quit);
    return QCoreApplication::exec();
}

} // namespace

class TestGuarded : public QObject {
    Q_OBJECT

private slots:
    void anExceptionInAnEventIsToldAndTheProgramGoesOn() {
        auto *application = static_cast<app::GuardedApplication *>(qApp);
        QStringList told;
        application->setRescue([&](const QString &what) {
            told << what;
            if (told.size() == 3) throw std::runtime_error("the rescue fails too"); // even that ends nothing
        });
        bool after = false;
        QTimer::singleShot(0, application, [] { throw std::bad_alloc(); });
        QTimer::singleShot(10, application, [] { throw std::runtime_error("the lattice"); });
        QTimer::singleShot(20, application, [] { throw std::logic_error("third"); });
        QTimer::singleShot(40, application, [&] { after = true; });
        QTRY_VERIFY(after);
        QCOMPARE(told, (QStringList{"there is not enough memory", "the lattice", "third"}));
        application->setRescue({});
    }
    void workIsKeptWhenTheProgramIsToldToEnd_data() {
        QTest::addColumn<int>("number");
        QTest::newRow("SIGTERM") << SIGTERM;
        QTest::newRow("SIGHUP") << SIGHUP;
        QTest::newRow("SIGINT") << SIGINT;
    }
    void workIsKeptWhenTheProgramIsToldToEnd() {
        QFETCH(int, number);
        QTemporaryDir folder;
        const QString file = folder.filePath("kept");
        QProcess process;
        process.start(QCoreApplication::applicationFilePath(), {"child", file});
        QVERIFY(process.waitForReadyRead(10000));
        QVERIFY(process.readAllStandardOutput().contains("ready"));
        QCOMPARE(::kill(pid_t(process.processId()), number), 0);
        QVERIFY(process.waitForFinished(10000));
        QCOMPARE(process.exitStatus(), QProcess::CrashExit); // ended by the signal, as whoever sent it expects
        QFile kept(file);
        QVERIFY(kept.open(QIODevice::ReadOnly));
        QCOMPARE(kept.readAll(), QByteArray("work"));
    }
};

int main(int argc, char **argv) {
    if (argc == 3 && QByteArrayView(argv[1]) == "child") return child(argc, argv);
    app::GuardedApplication application(argc, argv);
    TestGuarded test;
    return QTest::qExec(&test, argc, argv);
}
#include "test_guarded.moc"
