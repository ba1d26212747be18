#include "app/document/instruments.h"

#include "io/file_bytes.h"
#include "io/project/project_file.h"

namespace waxis::app {

Instruments::Instruments(QObject *parent) : QObject(parent) {
    connect(&gnss_, &GnssLink::stateChanged, this, &Instruments::changed);
    connect(&scale_, &ScaleLink::stateChanged, this, &Instruments::changed);
    connect(&gnssSimulator_, &Simulator::ready, this, [this](const QString &port) {
        gnss_.countByRounds(true);
        gnss_.open(port, 38400);
        gnssSimulator_.tell("go"); // its cold start begins when somebody listens
    });
    connect(&scaleSimulator_, &Simulator::ready, this, [this](const QString &port) {
        scale_.open(port, 9600, scalePatterns().front());
        scaleSimulator_.tell("go");
    });
    for (Simulator *simulator : {&gnssSimulator_, &scaleSimulator_})
        connect(simulator, &Simulator::failed, this, [this, simulator] {
            if (!simulator->error().isEmpty()) emit said(simulator->error(), true);
            emit changed();
        });
}

void Instruments::openReceiver(const QString &port, int baud) {
    gnssSimulator_.stop();
    gnss_.countByRounds(false);
    gnss_.open(port, baud);
}

bool Instruments::replayReceiver(const QString &file, double speed) {
    gnssSimulator_.stop();
    if (gnss_.replay(file, speed)) return true;
    emit said(gnss_.error(), true);
    return false;
}

void Instruments::closeReceiver() {
    gnss_.close();
    gnssSimulator_.stop();
    emit changed();
}

void Instruments::openScale(const QString &port, int baud, const ScalePattern &pattern) {
    scaleSimulator_.stop();
    scale_.open(port, baud, pattern);
}

void Instruments::closeScale() {
    scale_.close();
    scaleSimulator_.stop();
    emit changed();
}

QString Instruments::keep(const Build &build, const char *name) {
    if (!folder_.isValid()) {
        emit said(tr("There is no folder for temporary files: %1").arg(folder_.errorString()), true);
        return {};
    }
    const QString path = folder_.filePath(name);
    if (const auto problem = io::replaceFile(path.toStdString(), writeBuild(build)); !problem.empty()) {
        emit said(tr("%1 cannot be written: %2").arg(path, QString::fromStdString(problem)), true);
        return {};
    }
    return path;
}

void Instruments::simulateReceiver(const Build &build, const QString &part) {
    gnss_.close();
    const QString file = keep(build, "receiver.waxis");
    if (file.isEmpty()) return;
    gnssSimulator_.start({"gnss", "--wait", "--build", file, "--place", part, "--hour", QString::number(hour_),
                          "--nose", QString::number(nose_deg_), "--speed", QString::number(speed_), "--seed",
                          QString::number(seed_++)});
}

void Instruments::simulateScale(const Build &build) {
    scale_.close();
    const QString file = keep(build, "scale.waxis");
    if (file.isEmpty()) return;
    scaleSimulator_.start(
        {"scale", "--wait", "--build", file, "--speed", QString::number(speed_), "--seed", QString::number(seed_++)});
}

} // namespace waxis::app
