// The instruments of the bench: a satellite receiver and a scale, or their stand-ins. One for the whole window.
#pragma once

#include "core/build/build.h"
#include "devices/gnss_link.h"
#include "devices/scale_link.h"
#include "devices/simulator.h"

#include <QObject>
#include <QTemporaryDir>

namespace waxis::app {

class Instruments : public QObject {
    Q_OBJECT

public:
    explicit Instruments(QObject *parent = nullptr);

    GnssLink &gnss() { return gnss_; }
    ScaleLink &scale() { return scale_; }

    void openReceiver(const QString &port, int baud = 0);
    bool replayReceiver(const QString &file, double speed = 1);
    void closeReceiver();
    void openScale(const QString &port, int baud, const ScalePattern &pattern);
    void closeScale();

    /// A stand-in that sits where `part` does in this build; each call is another cold start with another seed.
    void simulateReceiver(const Build &build, const QString &part);
    void simulateScale(const Build &build);
    bool isReceiverSimulated() const { return gnssSimulator_.isRunning(); }
    bool isScaleSimulated() const { return scaleSimulator_.isRunning(); }
    /// To a stand-in: "put gps", "off", "fault cut".
    void tellScale(const QString &line) { scaleSimulator_.tell(line); }
    void tellReceiver(const QString &line) { gnssSimulator_.tell(line); }

    /// Of the stand-ins, from their next start on.
    double speed() const { return speed_; }
    void setSpeed(double speed) { speed_ = speed; }
    void setSeed(unsigned seed) { seed_ = seed; }
    double hour() const { return hour_; }
    void setHour(double hour) { hour_ = hour; }
    double nose_deg() const { return nose_deg_; }
    void setNose(double nose_deg) { nose_deg_ = nose_deg; }

signals:
    void changed(); ///< something was opened, closed, plugged, pulled
    void said(const QString &text, bool bad);

private:
    QString keep(const Build &build, const char *name);

    GnssLink gnss_;
    ScaleLink scale_;
    Simulator gnssSimulator_, scaleSimulator_;
    QTemporaryDir folder_;
    double speed_ = 1, hour_ = 14, nose_deg_ = 0;
    unsigned seed_ = 1;
};

} // namespace waxis::app
