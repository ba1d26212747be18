// The inspector for several parts, and for a plate, arm or standoff.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QFormLayout;
class QToolButton;

namespace waxis::app {

class ArmRows;
class ScrewRows;

/// Several parts: what they weigh together, and what can be done with them at once.
class SelectionCard : public QWidget {
    Q_OBJECT

public:
    SelectionCard(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    void refresh();

private:
    Document &document_;
    const theme::Theme &theme_;
    QLabel *title_ = nullptr;
    QLabel *sums_ = nullptr;
    std::vector<std::pair<QToolButton *, std::size_t>> buttons_; ///< with the parts that each needs
};

/// A plate, arm or standoff.
class MemberCard : public QWidget {
    Q_OBJECT

public:
    MemberCard(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    /// False: nothing of the frame is chosen.
    bool refresh();

private:
    void applyHeight();
    void applyGives();
    /// When the arm bends and its propeller turns; empty: not known.
    QString shakeInWords(const std::string &arm) const;
    Document &document_;
    const theme::Theme &theme_;
    QLabel *title_ = nullptr;
    QLabel *facts_ = nullptr;
    QFormLayout *form_ = nullptr;
    QLineEdit *height_ = nullptr, *gives_ = nullptr;
    ArmRows *arm_ = nullptr;
    ScrewRows *screw_ = nullptr;
};

} // namespace waxis::app
