// A bench scale on a serial port: what it shows, and when that has settled.
#pragma once

#include "devices/serial_line.h"

#include <QObject>
#include <QRegularExpression>
#include <QString>
#include <optional>
#include <vector>

namespace waxis {

/// How a scale writes its lines: a regular expression with the named groups value, unit and stable. Without unit grams,
/// without stable it is settled when three lines say the same.
struct ScalePattern {
    QString name, pattern;
    QString stableWord; ///< what the group `stable` holds when it is; empty: the group being there is enough
};
const std::vector<ScalePattern> &scalePatterns();

struct ScaleReading {
    double mass_g = 0;
    bool isStable = false;
    QString raw;
};
/// None: the line is none of the pattern's, or its unit is not g, mg, kg, oz or lb.
std::optional<ScaleReading> readScaleLine(const QString &line, const ScalePattern &pattern);

/// Says each reading, and once per piece that was put on what it settled at. Lifted means back under half a gram, or
/// under a tenth of what lay on it.
class ScaleLink : public QObject {
    Q_OBJECT

public:
    explicit ScaleLink(QObject *parent = nullptr);

    void open(const QString &port, int baud, const ScalePattern &pattern);
    void close();
    const SerialLine &line() const { return line_; }
    bool isOpen() const { return line_.state() != LineState::closed; }
    std::optional<ScaleReading> reading() const { return reading_; }
    /// Lines that came and were none of the pattern's, since it was opened.
    int notUnderstood() const { return notUnderstood_; }
    QString summary() const;

signals:
    void read();
    void settled(double mass_g, const QString &raw);
    void stateChanged();

private:
    void take(const QByteArray &bytes);
    void takeLine(const QString &line);

    SerialLine line_;
    ScalePattern pattern_;
    QRegularExpression expression_;
    QByteArray partial_;
    std::optional<ScaleReading> reading_;
    int notUnderstood_ = 0, same_ = 0;
    bool isTaken_ = false;   ///< what lies on it was said
    bool wasPulled_ = false; ///< since then the line was away
    double taken_g_ = 0;
};

} // namespace waxis
