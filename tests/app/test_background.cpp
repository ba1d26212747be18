// Work behind the window: what was asked for last counts, and nothing is told to what is gone.
#include "app/document/background.h"

#include <QTest>
#include <optional>

using waxis::app::Background;

class TestBackground : public QObject {
    Q_OBJECT

private slots:
    void aResultComesOnceTheHandsRest() {
        int asked = 0;
        std::vector<int> taken;
        Background<int> background(
            20, [&] { return [n = ++asked](const std::atomic<bool> &) { return n; }; },
            [&](int n) { taken.push_back(n); });
        QVERIFY(background.isSettled());
        for (int i = 0; i < 5; ++i) background.ask(); // one wish after the other is one wish
        QVERIFY(!background.isSettled());
        QTRY_VERIFY(background.isSettled());
        QCOMPARE(asked, 1);
        QCOMPARE(taken, std::vector<int>{1});
    }
    void whatWasAskedForLastCounts() {
        std::atomic<bool> running = false;
        int wish = 1;
        std::vector<int> taken;
        Background<int> background(
            1,
            [&] {
                return [&running, n = wish](const std::atomic<bool> &stop) {
                    running = true;
                    while (n == 1 && !stop) QThread::msleep(1); // the first would never end by itself
                    return n;
                };
            },
            [&](int n) { taken.push_back(n); });
        background.ask();
        QTRY_VERIFY(running);
        QVERIFY(background.isRunning());
        wish = 2;
        background.ask();
        QTRY_VERIFY(background.isSettled());
        QCOMPARE(taken, std::vector<int>{2});
    }
    void whereThereIsNothingToDoNothingIsTaken() {
        bool taken = false;
        Background<int> background(
            1, [] { return Background<int>::Work(); }, [&](int) { taken = true; });
        background.ask();
        QTRY_VERIFY(background.isSettled());
        QVERIFY(!taken);
        background.ask();
        background.cancel();
        QVERIFY(background.isSettled());
    }
    void theEndWaitsForWhatRunsAndTellsNobody() {
        std::atomic<bool> running = false, ended = false;
        bool taken = false;
        {
            Background<int> background(
                1,
                [&] {
                    return [&](const std::atomic<bool> &stop) {
                        running = true;
                        while (!stop) QThread::msleep(1);
                        ended = true;
                        return 1;
                    };
                },
                [&](int) { taken = true; });
            background.ask();
            QTRY_VERIFY(running);
        }
        QVERIFY(ended);
        QTest::qWait(20);
        QVERIFY(!taken);
    }
};

QTEST_GUILESS_MAIN(TestBackground)
#include "test_background.moc"
