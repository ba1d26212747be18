// Links: a cable pin by pin, ports that are left, motor outputs, and what a part would need.
#pragma once

#include "app/stages/wire/pin_board.h"

class QComboBox;
class QLabel;
class QToolButton;

namespace waxis::wire {

class PinsPage : public QWidget {
    Q_OBJECT

public:
    PinsPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    PinBoard &board() { return *board_; }
    QComboBox &leftPort() { return *left_; }
    QComboBox &rightPort() { return *right_; }
    /// Shows a port on the left; the right side is what a wire from there leads to, if there is one.
    void showPort(const WireEnd &end);

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();
    void tellPorts();  ///< what each serial port is used for, and what else a controller has to offer
    void tellMotors(); ///< which output drives which motor
    void fillWishes();
    /// What a part that somebody thinks of fitting needs, and what is free for it.
    void tellNeeds(const PartType &wished);
    void followSelection();
    void fillPorts(QComboBox &box, const WireEnd &keep);
    static WireEnd endOf(const QComboBox &box);

    app::Document &document_;
    const theme::Theme &theme_;
    QComboBox *left_ = nullptr, *right_ = nullptr, *wish_ = nullptr;
    QToolButton *propose_ = nullptr, *suggest_ = nullptr;
    PinBoard *board_ = nullptr;
    QLabel *ports_ = nullptr, *motors_ = nullptr, *needs_ = nullptr;
    bool filling_ = false;
};

} // namespace waxis::wire
