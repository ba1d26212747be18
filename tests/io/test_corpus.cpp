// The fuzzer's corpus, all inputs that once broke something among it, and small changes of them, through the loaders.
#include "core/edits/part_edits.h"
#include "support/builds.h"
#include "support/import_promises.h"
#include "support/promises.h"

#include <QDir>

using namespace waxis;

class TestCorpus : public QObject {
    Q_OBJECT

private:
    static QByteArray bytesOf(const QString &path) {
        QFile file(path);
        return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
    }

private slots:
    void everyInputKeepsThePromises_data() {
        QTest::addColumn<QString>("path");
        for (const char *folder : {"/fuzz/project-corpus", "/fuzz/library-corpus", "/fixtures/bad", "/fixtures/builds"})
            for (const auto &info : QDir(WEIGHTAXIS_TESTS + QString(folder)).entryInfoList(QDir::Files))
                QTest::newRow(qPrintable(info.fileName())) << info.absoluteFilePath();
    }
    void everyInputKeepsThePromises() {
        QFETCH(QString, path);
        const QByteArray bytes = bytesOf(path);
        QStringList broken;
        auto demand = [&](bool kept, const char *promise) {
            if (!kept) broken << promise;
        };
        test::anyBytesKeepTheirPromises({bytes.constData(), std::size_t(bytes.size())}, demand);
        // Single bytes changed: most of it is refused, none of it may do harm.
        std::mt19937 random(13);
        for (int i = 0; i < 60 && !bytes.isEmpty(); ++i) {
            QByteArray changed = bytes;
            changed[qsizetype(random() % std::size_t(bytes.size()))] = char(random());
            test::anyBytesKeepTheirPromises({changed.constData(), std::size_t(changed.size())}, demand);
        }
        QVERIFY2(broken.isEmpty(), qPrintable(broken.join("; ") + ", seed 13"));
    }
    void drawingsAndListsKeepTheirs_data() {
        QTest::addColumn<QString>("path");
        for (const char *folder : {"/fuzz/drawing-corpus", "/fuzz/kit-list-corpus", "/fixtures/drawings"})
            for (const auto &info : QDir(WEIGHTAXIS_TESTS + QString(folder)).entryInfoList(QDir::Files))
                if (info.size() < 20000) QTest::newRow(qPrintable(info.fileName())) << info.absoluteFilePath();
    }
    void drawingsAndListsKeepTheirs() {
        QFETCH(QString, path);
        const QByteArray bytes = bytesOf(path);
        QStringList broken;
        auto demand = [&](bool kept, const char *promise) {
            if (!kept) broken << promise;
        };
        test::importsKeepTheirPromises({bytes.constData(), std::size_t(bytes.size())}, demand);
        // Lines exchanged, doubled, lost, or with another number: what half-broken programs write.
        std::mt19937 random(15);
        const QList<QByteArray> lines = bytes.split('\n');
        const char *numbers[] = {"0", "-1", "1e308", "nan", "2000000000", "0.0001", "LINE", "SPLINE", "\xFF"};
        for (int i = 0; i < 25; ++i) {
            QList<QByteArray> changed = lines;
            for (int k = 0; k < 4 && changed.size() > 2; ++k) {
                const auto at = qsizetype(random() % std::size_t(changed.size())),
                           other = qsizetype(random() % std::size_t(changed.size()));
                switch (random() % 4) {
                case 0: changed.swapItemsAt(at, other); break;
                case 1: changed.insert(at, changed[other]); break;
                case 2: changed.removeAt(at); break;
                default: changed[at] = numbers[random() % 9];
                }
            }
            const QByteArray text = changed.join('\n');
            test::importsKeepTheirPromises({text.constData(), std::size_t(text.size())}, demand);
        }
        QVERIFY2(broken.isEmpty(), qPrintable(broken.join("; ") + ", seed 15"));
    }
    void theDemoAndWhatOneDoesToItKeepThePromises() {
        std::mt19937 random(14);
        std::uniform_real_distribution<double> move(-30, 30);
        LoadedBuild loaded = *loadBuild(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis");
        for (int i = 0; i < 10; ++i) {
            const auto &part = loaded.build.parts[random() % loaded.build.parts.size()];
            loaded.build = *shiftPart(loaded.build, part.id, {move(random), move(random), move(random)});
            test::buildKeepsItsPromises(loaded, [](bool kept, const char *promise) { QVERIFY2(kept, promise); });
        }
    }
};

QTEST_APPLESS_MAIN(TestCorpus)
#include "test_corpus.moc"
