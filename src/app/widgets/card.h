// Cards in the mat's colours, and the rows that can be chosen in them.
#pragma once

#include "app/theme/theme.h"

#include <QAbstractButton>
#include <QFrame>
#include <optional>

class QLabel;
class QVBoxLayout;

namespace waxis::theme {

/// A titled panel in the mat's colours; an empty title takes no room.
class Card : public QFrame {
    Q_OBJECT

public:
    Card(const theme::Theme &theme, const QString &title, QWidget *parent = nullptr);
    QVBoxLayout &body() { return *body_; }
    void setTitle(const QString &title);
    /// A line of small text in the card; wraps.
    QLabel *addNote();

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    const theme::Theme &theme_;
    QLabel *title_ = nullptr;
    QVBoxLayout *body_ = nullptr;
};

/// One line: a value in figures, what it means, a mark, a word that says what a click does.
class ChoiceRow : public QAbstractButton {
    Q_OBJECT

public:
    explicit ChoiceRow(const theme::Theme &theme, QWidget *parent = nullptr);
    struct Look {
        QString lead, text, act;
        std::optional<Severity> mark;
        bool chosen = false;
        bool operator==(const Look &) const = default;
    };
    void show(const Look &look);
    const Look &look() const { return look_; }
    QSize sizeHint() const override;
    void setLeadWidth(int pixels) { lead_ = pixels; }

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;

private:
    QRect textBox(int width) const;
    int heightFor(int width) const;
    const theme::Theme &theme_;
    Look look_;
    int lead_ = 70;
};

} // namespace waxis::theme
