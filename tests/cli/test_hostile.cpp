// Files that were made to hurt: each ends within ten seconds and a gigabyte, told in a sentence or read rightly. They
// are made here, for some are large.
#include "support/builds.h"

#include <QElapsedTimer>
#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <functional>
#include <nlohmann/json.hpp>
#include <sys/resource.h>

using namespace waxis;
using nlohmann::json;

namespace {

struct Run {
    int exit = -1;
    QByteArray out, err;
    double seconds = 0;
};

Run run(const QStringList &arguments) {
    constexpr rlim_t kMemory = 1u << 30;
    constexpr int kMost_ms = 10000;
    QProcess process;
    process.setChildProcessModifier([] {
        const rlimit memory{kMemory, kMemory};
        ::setrlimit(RLIMIT_AS, &memory);
    });
    QElapsedTimer clock;
    clock.start();
    process.start(WEIGHTAXIS_CLI_PROGRAM, arguments);
    Run run;
    if (!process.waitForFinished(kMost_ms)) {
        process.kill();
        process.waitForFinished();
        run.exit = -2;
    } else {
        run.exit = process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -3;
    }
    run.out = process.readAllStandardOutput();
    run.err = process.readAllStandardError();
    run.seconds = double(clock.elapsed()) / 1000;
    return run;
}

json demo() {
    QFile file(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis");
    if (!file.open(QIODevice::ReadOnly)) qFatal("demo not read");
    return json::parse(file.readAll().toStdString());
}

std::string changed(const std::function<void(json &)> &change) {
    json document = demo();
    change(document);
    return document.dump();
}

json &partOf(json &build, const char *id) {
    for (auto &part : build["parts"])
        if (part["id"] == id) return part;
    qFatal("no such part");
}

/// Pairs of lines of a DXF drawing in mm.
std::string dxf(const std::string &blocks, const std::string &entities) {
    return "0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nBLOCKS\n" + blocks +
           "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" + entities + "0\nENDSEC\n0\nEOF\n";
}
std::string block(const std::string &name, const std::string &inside) {
    return "0\nBLOCK\n2\n" + name + "\n10\n0\n20\n0\n" + inside + "0\nENDBLK\n";
}
std::string insert(const std::string &name, int columns = 1, int rows = 1, const char *scale = "1") {
    return "0\nINSERT\n8\n0\n2\n" + name + "\n10\n0\n20\n0\n41\n" + scale + "\n42\n" + scale + "\n70\n" +
           std::to_string(columns) + "\n71\n" + std::to_string(rows) + "\n44\n1\n45\n1\n";
}
std::string line(double x0, double y0, double x1, double y1, const std::string &layer = "0") {
    return "0\nLINE\n8\n" + layer + "\n10\n" + std::to_string(x0) + "\n20\n" + std::to_string(y0) + "\n11\n" +
           std::to_string(x1) + "\n21\n" + std::to_string(y1) + "\n";
}
std::string repeated(const std::string &text, int times) {
    std::string all;
    for (int i = 0; i < times; ++i) all += text;
    return all;
}

} // namespace

class TestHostile : public QObject {
    Q_OBJECT
    QTemporaryDir folder_;

    QString put(const char *name, const std::string &bytes) {
        const QString path = folder_.filePath(name);
        QFile file(path);
        if (!file.open(QIODevice::WriteOnly)) qFatal("not written");
        file.write(bytes.data(), qint64(bytes.size()));
        return path;
    }
    /// Exit codes that are right: 0 and 1 for what is read and judged, 2 for what is refused.
    void endsWell(const QStringList &arguments, const QList<int> &exits) {
        const Run r = run(arguments);
        const QByteArray told = QByteArray::number(r.seconds) + " s, exit " + QByteArray::number(r.exit) + ": " +
                                r.err.left(300) + r.out.left(100);
        QVERIFY2(exits.contains(r.exit), told.constData());
        if (r.exit != 2) return;
        QVERIFY2(!r.err.isEmpty() && r.err.count('\n') <= 6, told.constData());
        QVERIFY2(!r.err.contains("bad_alloc"), told.constData());
    }

private slots:
    void builds_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<QList<int>>("exits");
        const auto row = [](const char *name, const std::string &bytes, QList<int> exits) {
            QTest::newRow(name) << QByteArray::fromStdString(bytes) << exits;
        };
        row("a part 20 m away", changed([](json &b) { partOf(b, "buzzer")["position_mm"] = {20000, 20000, 0}; }), {1});
        row("a part as far as can be said", changed([](json &b) {
                partOf(b, "buzzer")["position_mm"] = {100000, 100000, 100000};
            }),
            {1});
        row("every part as far as can be said", changed([](json &b) {
                for (auto &part : b["parts"]) part["position_mm"] = {100000, 100000, 100000};
            }),
            {1, 2});
        row("a plate of 100 m", changed([](json &b) {
                b["frame"]["plates"][0]["outline_mm"] = {
                    {-50000, -50000}, {50000, -50000}, {50000, 50000}, {-50000, 50000}};
            }),
            {0, 1, 2});
        row("a body of 100 m", changed([](json &b) {
                for (auto &type : b["types"])
                    for (auto &solid : type["solids"])
                        if (solid.contains("size_mm")) {
                            solid["size_mm"][0] = 100000;
                            return;
                        }
            }),
            {0, 1, 2});
        row("an id of 30,000 letters", changed([](json &b) { partOf(b, "buzzer")["id"] = std::string(30000, 'a'); }),
            {2});
        row("a name of 1,100 letters", changed([](json &b) { partOf(b, "buzzer")["name"] = std::string(1100, 'a'); }),
            {2});
        row("a name that steers the terminal", changed([](json &b) { partOf(b, "buzzer")["name"] = "x\x1b[2Jy"; }),
            {1});
        row("20,000 parts", changed([](json &b) {
                const json buzzer = partOf(b, "buzzer");
                for (int i = int(b["parts"].size()); i < 20000; ++i) {
                    json copy = buzzer;
                    copy["id"] = "copy-" + std::to_string(i);
                    copy["position_mm"] = {i % 140 * 10.0, i / 140 * 10.0, 0};
                    b["parts"].push_back(copy);
                }
            }),
            {0, 1, 2});
        row("300 radios", changed([](json &b) {
                const json radio = partOf(b, "rx");
                for (int i = 0; i < 300; ++i) {
                    json copy = radio;
                    copy["id"] = "rx-" + std::to_string(i);
                    copy["position_mm"] = {i % 20 * 20.0, i / 20 * 20.0, 50};
                    b["parts"].push_back(copy);
                }
            }),
            {0, 1, 2});
        row("200,000 unknown keys", changed([](json &b) {
                for (int i = 0; i < 200000; ++i) b["k" + std::to_string(i)] = 0;
            }),
            {0, 1, 2});
        row("five million empty things",
            "{\"format\":\"weightaxis-build\",\"x\":[" + repeated("{},", 5'000'000) + "{}]}", {2});
        row("a million brackets", std::string(1'000'000, '['), {2});
        row("a number beyond all", changed([](json &b) { b["version"] = 1; }) + "1e999", {2});
    }
    void builds() {
        QFETCH(QByteArray, bytes);
        QFETCH(QList<int>, exits);
        endsWell({"check", put("hostile.waxis", bytes.toStdString())}, exits);
    }
    void controlsInNamesAreEscaped() {
        const QString path =
            put("names.waxis", changed([](json &b) { partOf(b, "buzzer")["name"] = "evil\x1b[31m\u0085 buzzer"; }));
        const Run r = run({"check", path});
        QVERIFY(r.out.contains("evil\\x1b[31m\\x85 buzzer"));
        QVERIFY(!r.out.contains('\x1b'));
    }
    void drawings_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<QList<int>>("exits");
        const auto row = [](const char *name, const std::string &bytes, QList<int> exits) {
            QTest::newRow(name) << QByteArray::fromStdString(bytes) << exits;
        };
        const std::string square = line(0, 0, 50, 0) + line(50, 0, 50, 50) + line(50, 50, 0, 50) + line(0, 50, 0, 0);
        const auto nest = [&](const std::string &innermost) {
            std::string blocks = block("a9", innermost);
            for (int i = 8; i >= 0; --i)
                blocks += block("a" + std::to_string(i), repeated(insert("a" + std::to_string(i + 1)), 10));
            return dxf(blocks, square + insert("a0"));
        };
        row("a thousand million of a missing block", nest(insert("nobody")), {0, 2});
        row("a thousand million scaled to nothing", nest(insert("a9", 1, 1, "0")), {0, 2});
        row("grids of fifty million",
            dxf(block("dot", line(0, 0, 1, 0)), square + repeated(insert("dot", 100, 100), 5000)), {2});
        std::string star = square, layers = square, chain = square;
        for (int i = 0; i < 20000; ++i)
            star += line(100, 100, 100 + 50 * std::cos(i * 0.001), 100 + 50 * std::sin(i * 0.001));
        row("20,000 lines from one point", dxf("", star), {0});
        for (int i = 0; i < 50000; ++i) layers += line(i, 0, i + 1, 5, "l" + std::to_string(i));
        row("50,000 layers", dxf("", layers), {0, 2});
        for (int i = 0; i < 40000; ++i) { // one outline of very many pieces
            const double a = 2 * M_PI * i / 40000, b = 2 * M_PI * (i + 1) / 40000;
            chain += line(300 + 150 * std::cos(a), 150 * std::sin(a), 300 + 150 * std::cos(b), 150 * std::sin(b));
        }
        row("an outline of 40,000 lines", dxf("", chain), {0, 2});
        std::string spline = "0\nSPLINE\n8\n0\n70\n8\n71\n3\n72\n100004\n73\n100000\n";
        for (int i = 0; i < 100004; ++i) spline += "40\n" + std::to_string(i) + "\n";
        for (int i = 0; i < 100000; ++i)
            spline += "10\n" + std::to_string(i % 500) + "\n20\n" + std::to_string((i * 7919) % 500) + "\n";
        row("a spline of 100,000 points", dxf("", square + spline), {0, 2});
        std::string holes = square;
        for (int i = 0; i < 20000; ++i)
            holes += "0\nCIRCLE\n8\n0\n10\n" + std::to_string(0.2 + i % 140 * 0.35) + "\n20\n" +
                     std::to_string(0.2 + i / 140 * 0.34) + "\n40\n0.15\n";
        row("20,000 holes in a plate", dxf("", holes), {0, 2});
    }
    void drawings() {
        QFETCH(QByteArray, bytes);
        QFETCH(QList<int>, exits);
        endsWell({"import-frame", put("hostile.dxf", bytes.toStdString())}, exits);
    }
};

QTEST_GUILESS_MAIN(TestHostile)
#include "test_hostile.moc"
