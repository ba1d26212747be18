// Instruments that nobody has at hand: weightaxis-sim as a child, and the pseudo-terminal that it speaks through.
#pragma once

#include <QObject>
#include <QProcess>
#include <QString>
#include <QStringList>

namespace waxis {

/// Starts the program beside this one (or WEIGHTAXIS_SIM), waits for nothing: `ready` says the port's path. Ends with
/// its parent.
class Simulator : public QObject {
    Q_OBJECT

public:
    explicit Simulator(QObject *parent = nullptr);
    ~Simulator() override;

    void start(const QStringList &arguments);
    void stop();
    bool isRunning() const { return process_.state() != QProcess::NotRunning; }
    QString port() const { return port_; }
    /// A line that it understands while it runs: "restart", "put 12.4", "off", "place ID", "fault cut".
    void tell(const QString &line);
    QString error() const { return error_; }

    /// Where the program is; empty: not found.
    static QString program();

signals:
    void ready(const QString &port);
    void failed();

private:
    QProcess process_;
    QString port_, error_;
    QByteArray said_;
};

} // namespace waxis
