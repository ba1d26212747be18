// A serial port that may not be there, not be allowed, go and come back: bytes, and in which state it is.
#pragma once

#include <QByteArray>
#include <QObject>
#include <QSerialPort>
#include <QString>
#include <QTimer>

namespace waxis {

enum class LineState {
    closed, ///< nobody asked for it
    absent, ///< it is not there, or was taken away; looked for each second
    denied, ///< the system does not let this user open it
    taken,  ///< another program has it
    open,   ///< bytes come
    silent  ///< open, and nothing came for three seconds
};

/// Never blocks: opening is a system call, reading is what has come. A port that goes away is closed in a queued call
/// (errors would flood otherwise) and opened again as soon as it is back.
class SerialLine : public QObject {
    Q_OBJECT

public:
    explicit SerialLine(QObject *parent = nullptr);

    /// A device as "/dev/ttyUSB0" or "ttyUSB0", or the path of a pseudo-terminal.
    void open(const QString &port, int baud);
    void close();
    void setBaud(int baud);
    void write(const QByteArray &bytes);

    QString port() const { return name_; }
    int baud() const { return baud_; }
    LineState state() const { return state_; }
    /// One sentence for people: what is the matter and what helps; empty when all is well.
    QString advice() const;

signals:
    void received(const QByteArray &bytes);
    void stateChanged();

private:
    void tryToOpen();
    void setState(LineState state);
    void failed(QSerialPort::SerialPortError error);

    QSerialPort port_;
    QString name_;
    int baud_ = 38400;
    LineState state_ = LineState::closed;
    QTimer retry_, silence_;
    QString error_;
    bool isClosing_ = false;
};

} // namespace waxis
