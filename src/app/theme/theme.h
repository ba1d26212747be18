// Fonts, colours and style of the running program.
#pragma once

#include "app/theme/palette.h"

#include <QFont>
#include <QIcon>
#include <QObject>
#include <functional>

class QPainter;
class QPalette;
class QPointF;
class QWidget;

namespace waxis::theme {

/// What a widget and all that is in it stand on: the window; a panel beside the bench, or a form in it whose words are
/// quieter than the values; the mat, a bar or a card on it.
enum class Ground { paper, panel, form, mat, matBar, card };

/// Holds the mode and tells when it changes. One lives in main(); widgets get it by constructor.
class Theme : public QObject {
    Q_OBJECT

public:
    explicit Theme(Mode mode, QObject *parent = nullptr);

    Mode mode() const { return mode_; }
    void setMode(Mode mode);
    const Palette &colors() const { return palette(mode_); }

    /// The controls' palette on a ground; which role means what stands in app/theme/look.h.
    QPalette controls(Ground ground) const;
    /// Gives a widget and all in it the colours of its ground, now and whenever the mode changes.
    void dress(QWidget &widget, Ground ground) const;

    QFont text(int pixels = 13, bool strong = false) const;
    QFont numbers(int pixels = 13, bool strong = false) const;

    /// An own icon in the given colour; crisp at any scale.
    QPixmap icon(const QString &name, const QColor &color, int pixels, double devicePixelRatio) const;

signals:
    void changed();

private:
    void apply();
    Mode mode_;
    QString textFamily_, numberFamily_;
};

/// A small picture for lists, painted once for each key: pictures made anew at each refresh fill Qt's cache with
/// thousands of copies that nobody asks for again. `ratio`: device pixels per pixel.
QPixmap kept(const QString &key, int side_px, double ratio, const std::function<void(QPainter &)> &paint);

/// A small square in a colour, for lists.
QPixmap swatch(const QColor &color);

/// Octagon, diamond, disc, broken ring: one shape per severity besides the colour.
void drawSeverityMark(QPainter &painter, const QPointF &centre, double radius, Severity severity, const QColor &color);

} // namespace waxis::theme
