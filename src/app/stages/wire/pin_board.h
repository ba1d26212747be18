// Two ports pin by pin: which core goes where, drawn as a cable between two housings.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/edits/wire_edits.h"

#include <QWidget>

namespace waxis::wire {

class PinBoard : public QWidget {
    Q_OBJECT

public:
    PinBoard(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    void show(const WireEnd &left, const WireEnd &right);
    const WireEnd &left() const { return left_; }
    const WireEnd &right() const { return right_; }
    /// Middle of a pin's contact in the widget; by its number from 0.
    QPointF pinPixel(bool onLeft, int pin) const;

    QSize minimumSizeHint() const override { return {420, 180}; }

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    struct Pick {
        bool onLeft = true;
        int pin = -1;
    };
    struct Joined {
        const Wire *wire;
        int core;
        int leftPin, rightPin;
        bool forward; ///< the wire's `from` is on the left
    };
    std::vector<Joined> joined() const;
    void paintHousing(QPainter &painter, const Port &port, bool onLeft, const std::vector<Joined> &list) const;
    void paintCore(QPainter &painter, const Joined &core) const;
    /// What to move, where both ends are housings.
    void paintFoot(QPainter &painter, const Port &left, const Port &right, const std::vector<Joined> &list) const;
    double rowHeight() const;
    Pick pickAt(const QPointF &at) const;
    void join(const Pick &from, const Pick &to);

    app::Document &document_;
    const theme::Theme &theme_;
    WireEnd left_, right_;
    Pick from_;
    QPointF now_;
    int chosenCore_ = -1;
    std::string chosenWire_;
};

} // namespace waxis::wire
