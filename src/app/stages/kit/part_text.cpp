#include "app/stages/kit/part_text.h"

#include "core/base/quantity.h"
#include "io/csv/csv.h"
#include "io/names.h"

#include <QCoreApplication>
#include <QRegularExpression>
#include <cmath>

namespace waxis::kit {

namespace {

const std::pair<const char *, Vec3> kDirections[] = {{"forward", Vec3::UnitX()}, {"aft", -Vec3::UnitX()},
                                                     {"left", Vec3::UnitY()},    {"right", -Vec3::UnitY()},
                                                     {"up", Vec3::UnitZ()},      {"down", -Vec3::UnitZ()}};

QString word(std::string_view name) { return QString::fromUtf8(name.data(), qsizetype(name.size())); }

QStringList timesSplit(QString text) {
    text.replace(QChar(0x00D7), 'x').replace('*', 'x').replace('X', 'x');
    return text.split('x');
}

} // namespace

std::optional<double> readLength(const QString &text) { return readQuantity(text.toStdString(), Measure::length); }

QString numberText(double value) { return QString::number(std::round(value * 1e4) / 1e4, 'g', 10); }
QString numberText(const std::optional<double> &value) { return value ? numberText(*value) : QString(); }

std::optional<Vec3> readVector(const QString &text) {
    static const QRegularExpression gaps("[;\\s]+|,\\s+|,(?=\\S+,)");
    auto words = text.trimmed().split(gaps, Qt::SkipEmptyParts);
    if (words.size() != 3) words = text.trimmed().split(',', Qt::SkipEmptyParts);
    if (words.size() != 3) return std::nullopt;
    Vec3 v = Vec3::Zero();
    for (int i = 0; i < 3; ++i) {
        const auto number = readLength(words[i]);
        if (!number) return std::nullopt;
        v[i] = *number;
    }
    return v;
}

QString vectorText(const Vec3 &v) {
    return QStringLiteral("%1, %2, %3").arg(numberText(v.x()), numberText(v.y()), numberText(v.z()));
}

std::optional<Shape> readShape(const QString &text) {
    QString plain = text.trimmed();
    const bool round = plain.startsWith('d', Qt::CaseInsensitive) || plain.startsWith(QChar(0x2300));
    if (round) plain = plain.mid(1);
    std::vector<double> numbers;
    for (const auto &word : timesSplit(plain)) {
        const auto number = readLength(word);
        if (!number) return std::nullopt;
        numbers.push_back(*number);
    }
    if (round && numbers.size() == 1) return Sphere{numbers[0]};
    if (round && numbers.size() == 2) return Cylinder{numbers[0], numbers[1]};
    if (!round && numbers.size() == 3) return Box{{numbers[0], numbers[1], numbers[2]}};
    return std::nullopt;
}

bool canBeTyped(const Shape &shape) {
    return !std::holds_alternative<Prism>(shape) && !std::holds_alternative<Mesh>(shape);
}

QString shapeText(const Shape &shape) {
    if (const auto *box = std::get_if<Box>(&shape))
        return QStringLiteral("%1 x %2 x %3")
            .arg(numberText(box->fullSize_mm.x()), numberText(box->fullSize_mm.y()), numberText(box->fullSize_mm.z()));
    if (const auto *cylinder = std::get_if<Cylinder>(&shape))
        return QStringLiteral("d %1 x %2").arg(numberText(cylinder->diameter_mm), numberText(cylinder->length_mm));
    if (const auto *sphere = std::get_if<Sphere>(&shape))
        return QStringLiteral("d %1").arg(numberText(sphere->diameter_mm));
    if (const auto *prism = std::get_if<Prism>(&shape))
        return QCoreApplication::translate("PartText", "outline of %1 corners, %2 mm thick")
            .arg(prism->polygon.outline.size())
            .arg(numberText(prism->thickness_mm));
    return QCoreApplication::translate("PartText", "mesh of %1 triangles").arg(std::get<Mesh>(shape).triangles.size());
}

std::optional<Vec3> readDirection(const QString &text) {
    for (const auto &[word, direction] : kDirections)
        if (text.trimmed().compare(QLatin1String(word), Qt::CaseInsensitive) == 0) return direction;
    const auto v = readVector(text);
    if (!v || !(v->norm() > 1e-9)) return std::nullopt;
    return Vec3(v->normalized());
}

QString directionText(const Vec3 &direction) {
    for (const auto &[word, known] : kDirections)
        if ((direction - known).norm() < 1e-9) return QString::fromLatin1(word);
    return vectorText(direction);
}

std::vector<Pin> readPins(const QString &text) {
    static const QRegularExpression gaps("[,;\\s]+");
    std::vector<Pin> pins;
    for (QString typed : text.split(gaps, Qt::SkipEmptyParts)) {
        Pin pin;
        pin.inverted = typed.size() > 1 && typed.startsWith('!');
        if (pin.inverted) typed.remove(0, 1);
        if (const auto at = typed.indexOf('@'); at > 0)
            if (const auto volts = readLength(typed.mid(at + 1)); volts && *volts >= 0) {
                pin.level_V = volts;
                typed.truncate(at);
            }
        if (const auto at = typed.indexOf('='); at > 0)
            if (const auto function = io::fromName<ChannelFunction>(typed.mid(at + 1).toLower().toStdString())) {
                pin.function = *function;
                typed.truncate(at);
            }
        if (const auto at = typed.indexOf(':'); at > 0)
            if (const auto kind = io::fromName<SignalKind>(typed.mid(at + 1).toLower().toStdString())) {
                pin.kind = kind;
                typed.truncate(at);
            }
        pin.signal = typed.toStdString();
        pins.push_back(std::move(pin));
    }
    return pins;
}

QString pinsText(const std::vector<Pin> &pins) {
    QStringList words;
    for (const auto &pin : pins)
        words << (pin.inverted ? "!" : "") + QString::fromStdString(pin.signal) +
                     (pin.kind ? ":" + word(io::nameOf(*pin.kind)) : QString()) +
                     (pin.function != ChannelFunction::none ? "=" + word(io::nameOf(pin.function)) : QString()) +
                     (pin.level_V ? "@" + numberText(*pin.level_V) : QString());
    return words.join(' ');
}

std::optional<std::vector<std::pair<QString, double>>> readNamedNumbers(const QString &text) {
    std::vector<std::pair<QString, double>> list;
    for (const auto &entry : text.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
        const auto at = entry.lastIndexOf(QLatin1Char('='));
        bool fine = false;
        const double value = entry.mid(at + 1).trimmed().toDouble(&fine);
        if (!fine || !std::isfinite(value)) return std::nullopt;
        list.emplace_back(at < 0 ? QString() : entry.left(at).trimmed(), value);
    }
    return list;
}

QString namedNumbersText(const std::vector<std::pair<QString, double>> &list) {
    QStringList entries;
    for (const auto &[name, value] : list)
        entries << (name.isEmpty() ? numberText(value) : QStringLiteral("%1=%2").arg(name, numberText(value)));
    return entries.join(QStringLiteral(", "));
}

} // namespace waxis::kit
