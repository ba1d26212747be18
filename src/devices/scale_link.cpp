#include "devices/scale_link.h"

#include "core/base/quantity.h"

#include <cmath>

namespace waxis {

const std::vector<ScalePattern> &scalePatterns() {
    // Forms that scales in use send (from memory); a pattern of one's own can be typed.
    static const std::vector<ScalePattern> patterns{
        {"ST,GS,+  12.4 g",
         R"(^\s*(?<stable>ST|US),\s*(?:GS|NT),\s*(?<value>[+-]?\s*\d+(?:[.,]\d+)?)\s*(?<unit>[a-z]*)\s*$)", "ST"},
        {"12.4 g", R"(^\s*(?<value>[+-]?\s*\d+(?:[.,]\d+)?)\s*(?<unit>[a-z]+)?\s*$)", ""},
        {"S S  12.4 g", R"(^\s*S\s+(?<stable>[SD])\s+(?<value>[+-]?\s*\d+(?:[.,]\d+)?)\s*(?<unit>[a-z]*)\s*$)", "S"},
        {"+ 12.4 g  S", R"(^\s*(?<value>[+-]?\s*\d+(?:[.,]\d+)?)\s*(?<unit>[a-z]+)\s*(?<stable>S|M|\?)?\s*$)", "S"},
    };
    return patterns;
}

std::optional<ScaleReading> readScaleLine(const QString &line, const ScalePattern &pattern) {
    static thread_local QRegularExpression expression;
    static thread_local QString made;
    if (made != pattern.pattern) {
        expression = QRegularExpression(pattern.pattern, QRegularExpression::CaseInsensitiveOption);
        made = pattern.pattern;
    }
    const auto match = expression.match(line);
    if (!match.hasMatch()) return std::nullopt;
    QString value = match.captured("value").remove(' ');
    const QString unit = match.captured("unit");
    const auto mass = readQuantity((value + (unit.isEmpty() ? "" : " " + unit)).toStdString(), Measure::mass);
    if (!mass) return std::nullopt;
    ScaleReading reading;
    reading.mass_g = *mass;
    reading.raw = line.trimmed();
    const QString stable = match.captured("stable");
    reading.isStable =
        pattern.stableWord.isEmpty() ? !stable.isEmpty() : stable.compare(pattern.stableWord, Qt::CaseInsensitive) == 0;
    return reading;
}

ScaleLink::ScaleLink(QObject *parent) : QObject(parent) {
    connect(&line_, &SerialLine::received, this, &ScaleLink::take);
    connect(&line_, &SerialLine::stateChanged, this, [this] {
        wasPulled_ |= line_.state() == LineState::absent;
        emit stateChanged();
    });
}

void ScaleLink::open(const QString &port, int baud, const ScalePattern &pattern) {
    pattern_ = pattern;
    partial_.clear();
    reading_.reset();
    notUnderstood_ = same_ = 0;
    isTaken_ = false;
    line_.open(port, baud);
}

void ScaleLink::close() {
    reading_.reset();
    line_.close();
}

void ScaleLink::take(const QByteArray &bytes) {
    partial_ += bytes;
    for (qsizetype end = partial_.indexOf('\n'); end >= 0; end = partial_.indexOf('\n')) {
        takeLine(QString::fromLatin1(partial_.left(end)));
        partial_.remove(0, end + 1);
    }
    constexpr qsizetype kLongest = 256;
    if (partial_.size() > kLongest) partial_.clear(); // no line is so long
}

void ScaleLink::takeLine(const QString &line) {
    if (line.trimmed().isEmpty()) return;
    auto now = readScaleLine(line, pattern_);
    if (!now) {
        ++notUnderstood_;
        emit read();
        return;
    }
    constexpr double kSame_g = 0.05;
    same_ = reading_ && std::abs(reading_->mass_g - now->mass_g) < kSame_g ? same_ + 1 : 0;
    const bool saysNothingOfIt = !pattern_.pattern.contains("?<stable>");
    constexpr int kSameLines = 3;
    if (saysNothingOfIt) now->isStable = same_ >= kSameLines;
    reading_ = now;
    // While it was unplugged one piece may have gone and another come.
    constexpr double kSamePiece_g = 0.3;
    if (wasPulled_ && now->isStable) {
        if (std::abs(now->mass_g - taken_g_) > kSamePiece_g) isTaken_ = false;
        wasPulled_ = false;
    }
    // Lifted: another piece may come.
    constexpr double kNothing_g = 0.5, kShare = 0.1;
    if (isTaken_ && now->mass_g < std::max(kNothing_g, kShare * taken_g_)) isTaken_ = false;
    emit read();
    if (now->isStable && !isTaken_ && now->mass_g >= kNothing_g) {
        isTaken_ = true;
        taken_g_ = now->mass_g;
        emit settled(now->mass_g, now->raw);
    }
}

QString ScaleLink::summary() const {
    if (!isOpen()) return tr("none");
    const QString advice = line_.advice();
    if (!advice.isEmpty()) return advice;
    if (!reading_) return notUnderstood_ > 0 ? tr("sends lines of another form") : tr("open, nothing read yet");
    return tr("%1 g%2").arg(reading_->mass_g, 0, 'f', 1).arg(reading_->isStable ? QString() : tr(", settling"));
}

} // namespace waxis
