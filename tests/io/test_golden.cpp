// What `analyse --json` says of the demos is what it said before, key by key. A wanted change is looked at and taken
// over with scripts/golden.
#include <QProcess>
#include <QtTest>
#include <cmath>
#include <fstream>
#include <nlohmann/json.hpp>

using nlohmann::json;

namespace {

/// What a list's entries are known by, so that one more of them is one difference; none: by their place.
std::string nameOf(const json &entry) {
    if (!entry.is_object()) return {};
    for (const char *key : {"key", "id", "item", "subject", "wire", "part", "name"})
        if (const auto at = entry.find(key); at != entry.end() && at->is_string()) return at->get<std::string>();
    return {};
}

using Entries = std::vector<std::pair<std::string, const json *>>;

Entries entriesOf(const json &node) {
    Entries entries;
    if (node.is_object())
        for (const auto &[key, value] : node.items()) entries.emplace_back(key, &value);
    std::map<std::string, int> seen;
    if (node.is_array())
        for (std::size_t i = 0; i < node.size(); ++i) {
            const std::string name = nameOf(node[i]);
            const int time = seen[name]++;
            entries.emplace_back(name.empty() ? std::to_string(i)
                                 : time == 0  ? name
                                              : name + "#" + std::to_string(time + 1),
                                 &node[i]);
        }
    return entries;
}

std::string shortly(const json &node) {
    constexpr std::size_t kMost = 90;
    const std::string text = node.dump();
    return text.size() <= kMost ? text : text.substr(0, kMost) + "…";
}

/// Equal but for the last digits, which another compiler may round otherwise.
bool sameNumber(double a, double b) { return std::abs(a - b) <= 1e-9 + 1e-7 * std::max(std::abs(a), std::abs(b)); }

void compare(const json &kept, const json &now, const std::string &where, std::vector<std::string> &differences) {
    if (kept.is_number() && now.is_number() && sameNumber(kept.get<double>(), now.get<double>())) return;
    const bool nested = (kept.is_object() && now.is_object()) || (kept.is_array() && now.is_array());
    if (!nested) {
        if (kept != now) differences.push_back(where + ": " + shortly(kept) + " -> " + shortly(now));
        return;
    }
    const Entries before = entriesOf(kept), after = entriesOf(now);
    std::map<std::string, const json *> left(after.begin(), after.end());
    std::string order, orderNow; // of what both have
    for (const auto &[name, value] : before) {
        const auto at = left.find(name);
        if (at == left.end()) {
            differences.push_back(where + "/" + name + ": gone, was " + shortly(*value));
            continue;
        }
        compare(*value, *at->second, where + "/" + name, differences);
        left.erase(at);
        order += name + "\n";
    }
    for (const auto &[name, value] : after)
        if (left.contains(name))
            differences.push_back(where + "/" + name + ": new, " + shortly(*value));
        else
            orderNow += name + "\n";
    if (kept.is_array() && order != orderNow) differences.push_back(where + ": in another order");
}

json readJson(const std::string &path) {
    std::ifstream in(path);
    return json::parse(in, nullptr, false);
}

json analysed(const QString &file) {
    QProcess program;
    program.start(WEIGHTAXIS_CLI_PROGRAM, {"analyse", "--json", file});
    program.waitForFinished(120'000);
    const QByteArray text = program.readAllStandardOutput();
    return json::parse(text.begin(), text.end(), nullptr, false);
}

} // namespace

class TestGolden : public QObject {
    Q_OBJECT

private slots:
    void whatIsSaidOfABuildStays_data() {
        QTest::addColumn<QString>("file");
        for (const char *demo : {"stakewalker", "kilnlamp", "owlbox-mini", "sedge-tri"})
            QTest::newRow(demo) << QStringLiteral(WEIGHTAXIS_TEST_DATA "/demos/%1.waxis").arg(demo);
        QTest::newRow("v1-every-field") << QStringLiteral(WEIGHTAXIS_TEST_FIXTURES "/builds/v1-every-field.waxis");
    }
    void whatIsSaidOfABuildStays() {
        QFETCH(QString, file);
        const std::string kept = WEIGHTAXIS_TESTS "/golden/" + std::string(QTest::currentDataTag()) + ".json";
        const json before = readJson(kept), now = analysed(file);
        QVERIFY2(!before.is_discarded(), kept.c_str());
        QVERIFY(!now.is_discarded());
        std::vector<std::string> differences;
        compare(before, now, "", differences);
        constexpr std::size_t kShown = 60;
        for (std::size_t i = 0; i < differences.size() && i < kShown; ++i) qInfo("%s", differences[i].c_str());
        if (!differences.empty())
            QFAIL(qPrintable(
                QStringLiteral("%1 differences; when they are wanted: scripts/golden accept").arg(differences.size())));
    }
    void aDifferenceIsSeen_data() {
        QTest::addColumn<QString>("before");
        QTest::addColumn<QString>("after");
        QTest::addColumn<QStringList>("says");
        QTest::newRow("nothing") << R"({"a": [1, 2]})"
                                 << R"({"a": [1, 2.0000000001]})" << QStringList{};
        QTest::newRow("number") << R"({"a": [1, 2]})"
                                << R"({"a": [1, 2.001]})" << QStringList{"/a/1: 2 -> 2.001"};
        QTest::newRow("kind") << R"({"a": 1})"
                              << R"({"a": null})" << QStringList{"/a: 1 -> null"};
        QTest::newRow("one more in between")
            << R"([{"id": "x"}, {"id": "z"}])"
            << R"([{"id": "x"}, {"id": "y"}, {"id": "z"}])" << QStringList{R"(/y: new, {"id":"y"})"};
        QTest::newRow("gone") << R"({"a": 1, "b": 2})"
                              << R"({"b": 2})" << QStringList{"/a: gone, was 1"};
        QTest::newRow("order") << R"([{"id": "x"}, {"id": "y"}])"
                               << R"([{"id": "y"}, {"id": "x"}])" << QStringList{": in another order"};
        QTest::newRow("namesakes") << R"([{"id": "x", "n": 1}, {"id": "x", "n": 2}])"
                                   << R"([{"id": "x", "n": 1}, {"id": "x", "n": 3}])" << QStringList{"/x#2/n: 2 -> 3"};
    }
    void aDifferenceIsSeen() {
        QFETCH(QString, before);
        QFETCH(QString, after);
        QFETCH(QStringList, says);
        std::vector<std::string> differences;
        compare(json::parse(before.toStdString()), json::parse(after.toStdString()), "", differences);
        QStringList list;
        for (const auto &difference : differences) list << QString::fromStdString(difference);
        QCOMPARE(list, says);
    }
};

QTEST_GUILESS_MAIN(TestGolden)
#include "test_golden.moc"
