#include "devices/serial_line.h"

#include <QFileInfo>
#include <QMetaObject>
#include <unistd.h>

namespace waxis {

namespace {
constexpr int kRetry_ms = 1000, kSilence_ms = 3000;

QString pathOf(const QString &name) { return name.startsWith('/') ? name : "/dev/" + name; }
} // namespace

SerialLine::SerialLine(QObject *parent) : QObject(parent) {
    retry_.setInterval(kRetry_ms);
    silence_.setInterval(kSilence_ms);
    silence_.setSingleShot(true);
    connect(&retry_, &QTimer::timeout, this, &SerialLine::tryToOpen);
    connect(&silence_, &QTimer::timeout, this, [this] { setState(LineState::silent); });
    connect(&port_, &QSerialPort::readyRead, this, [this] {
        const QByteArray bytes = port_.readAll();
        if (bytes.isEmpty()) return;
        silence_.start();
        setState(LineState::open);
        emit received(bytes);
    });
    connect(&port_, &QSerialPort::errorOccurred, this, &SerialLine::failed);
}

void SerialLine::open(const QString &port, int baud) {
    close();
    name_ = port.trimmed();
    baud_ = baud;
    if (name_.isEmpty()) return;
    tryToOpen();
}

void SerialLine::close() {
    retry_.stop();
    silence_.stop();
    isClosing_ = true;
    if (port_.isOpen()) port_.close();
    isClosing_ = false;
    setState(LineState::closed);
}

void SerialLine::setBaud(int baud) {
    baud_ = baud;
    if (port_.isOpen()) port_.setBaudRate(baud);
}

void SerialLine::write(const QByteArray &bytes) {
    if (port_.isOpen()) port_.write(bytes);
}

void SerialLine::tryToOpen() {
    if (port_.isOpen()) return;
    const QString path = pathOf(name_);
    if (!QFileInfo::exists(path)) {
        retry_.start();
        setState(LineState::absent);
        return;
    }
    port_.setPortName(path);
    port_.setBaudRate(baud_);
    port_.setDataBits(QSerialPort::Data8);
    port_.setParity(QSerialPort::NoParity);
    port_.setStopBits(QSerialPort::OneStop);
    port_.setFlowControl(QSerialPort::NoFlowControl);
    const bool allowed = ::access(path.toLocal8Bit().constData(), R_OK | W_OK) == 0;
    isClosing_ = true; // what opening itself says is looked at here
    const bool opened = port_.open(QIODevice::ReadWrite);
    isClosing_ = false;
    if (opened) {
        retry_.stop();
        silence_.start();
        setState(LineState::open);
        return;
    }
    error_ = port_.errorString();
    retry_.start();
    setState(!allowed || port_.error() == QSerialPort::PermissionError
                 ? (allowed ? LineState::taken : LineState::denied)
                 : LineState::absent);
}

void SerialLine::failed(QSerialPort::SerialPortError error) {
    if (isClosing_ || error == QSerialPort::NoError || error == QSerialPort::TimeoutError) return;
    // Unplugged, or the other side of a pseudo-terminal went.
    QMetaObject::invokeMethod(
        this,
        [this] {
            if (!port_.isOpen()) return;
            isClosing_ = true;
            port_.close();
            isClosing_ = false;
            silence_.stop();
            retry_.start();
            setState(LineState::absent);
        },
        Qt::QueuedConnection);
}

void SerialLine::setState(LineState state) {
    if (state_ == state) return;
    state_ = state;
    emit stateChanged();
}

QString SerialLine::advice() const {
    switch (state_) {
    case LineState::closed:
    case LineState::open: return {};
    case LineState::absent: return tr("%1 is not there: plug it in, it is looked for each second.").arg(name_);
    case LineState::denied:
        return tr("%1 may not be opened by you. Once: sudo usermod -aG dialout %2, then log in again.")
            .arg(name_, qEnvironmentVariable("USER", "$USER"));
    case LineState::taken: return tr("%1 is in use by another program: close that one.").arg(name_);
    case LineState::silent:
        return tr("%1 is open, and nothing comes: is it switched on, and is the rate right?").arg(name_);
    }
    return {};
}

} // namespace waxis
