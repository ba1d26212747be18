#include "devices/simulator.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>

namespace waxis {

Simulator::Simulator(QObject *parent) : QObject(parent) {
    connect(&process_, &QProcess::readyReadStandardOutput, this, [this] {
        said_ += process_.readAllStandardOutput();
        const auto end = said_.indexOf('\n');
        if (!port_.isEmpty() || end < 0) return;
        port_ = QString::fromLocal8Bit(said_.left(end)).trimmed();
        emit ready(port_);
    });
    const auto gone = [this] {
        if (error_.isEmpty()) error_ = QString::fromLocal8Bit(process_.readAllStandardError()).trimmed();
        port_.clear();
        emit failed();
    };
    connect(&process_, &QProcess::errorOccurred, this, [this, gone](QProcess::ProcessError error) {
        if (error != QProcess::FailedToStart) return;
        error_ = tr("The simulator could not be started: %1").arg(process_.errorString());
        gone();
    });
    connect(&process_, &QProcess::finished, this, gone);
}

Simulator::~Simulator() { stop(); }

QString Simulator::program() {
    const QString named = qEnvironmentVariable("WEIGHTAXIS_SIM");
    if (!named.isEmpty()) return QFileInfo(named).isExecutable() ? named : QString();
    const QDir beside(QCoreApplication::applicationDirPath());
    for (const char *place : {"weightaxis-sim", "../sim/weightaxis-sim", "../src/sim/weightaxis-sim"})
        if (const QFileInfo found(beside.filePath(place)); found.isExecutable()) return found.absoluteFilePath();
    return {};
}

void Simulator::start(const QStringList &arguments) {
    stop();
    said_.clear();
    error_.clear();
    const QString path = program();
    if (path.isEmpty()) {
        error_ = tr("weightaxis-sim is not beside this program.");
        emit failed();
        return;
    }
    process_.start(path, arguments);
}

void Simulator::stop() {
    port_.clear();
    if (!isRunning()) return;
    process_.blockSignals(true);
    process_.closeWriteChannel(); // it ends with its input
    constexpr int kEnds_ms = 500;
    if (!process_.waitForFinished(kEnds_ms)) {
        process_.kill();
        process_.waitForFinished(kEnds_ms);
    }
    process_.blockSignals(false);
}

void Simulator::tell(const QString &line) {
    if (isRunning()) process_.write(line.toUtf8() + '\n');
}

} // namespace waxis
