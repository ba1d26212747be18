// The weighing walk: put a piece on, the row is filled, the next one is asked for, until nothing is left.
#pragma once

#include "app/document/document.h"
#include "app/document/instruments.h"
#include "app/theme/theme.h"

#include <QTimer>
#include <QWidget>
#include <deque>

class QLabel;
class QPushButton;

namespace waxis::kit {

class WeighingWalk : public QWidget {
    Q_OBJECT

public:
    WeighingWalk(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
                 QWidget *parent = nullptr);
    /// From the chosen item on, else from the first that has no weight of its own.
    void start(const std::string &from = {});
    void stop();
    void skip();
    bool isRunning() const { return running_; }
    std::string item() const { return running_ && !left_.empty() ? left_.front() : std::string(); }

signals:
    void asksFor(const QString &item);
    void said(const QString &text, bool bad);

private:
    void settled(double mass_g, const QString &raw);
    void ask();
    void refresh();

    app::Document &document_;
    app::Instruments &instruments_;
    std::deque<std::string> left_;
    bool running_ = false;
    int done_ = 0;
    QLabel *figure_ = nullptr, *words_ = nullptr;
    QPushButton *start_ = nullptr, *skip_ = nullptr;
    QTimer next_; ///< a simulated piece is put on by nobody
};

} // namespace waxis::kit
