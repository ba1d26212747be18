// The fuzzer's corpus, all inputs that once broke something among it, and small changes of them, through the loaders.
#include "support/builds.h"
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
        for (const char *folder : {"/fuzz/corpus", "/fixtures/bad", "/fixtures/builds"})
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
