// The try that runs or comes next, in figures that can be read from two metres.
#pragma once

#include "app/document/document.h"
#include "app/document/instruments.h"
#include "app/stages/log/try_runner.h"
#include "app/theme/theme.h"
#include "app/widgets/card.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace waxis::logbench {

/// A bar for each satellite that is heard, the used ones full.
class RatioBars : public QWidget {
    Q_OBJECT

public:
    explicit RatioBars(const theme::Theme &theme, QWidget *parent = nullptr);
    void show(const std::vector<SatelliteSeen> &satellites);

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    const theme::Theme &theme_;
    std::vector<SatelliteSeen> satellites_;
};

class TryCard : public theme::Card {
    Q_OBJECT

public:
    TryCard(app::Document &document, app::Instruments &instruments, TryRunner &runner, const theme::Theme &theme,
            QWidget *parent = nullptr);
    /// Which trial and way the buttons are for.
    void setNext(const std::string &trial, const std::string &setup, const std::string &session);

signals:
    void said(const QString &text, bool bad);

private:
    void refresh();
    void enterValue();

    app::Document &document_;
    app::Instruments &instruments_;
    TryRunner &runner_;
    std::string trial_, setup_, session_;
    QLabel *clock_ = nullptr, *since_ = nullptr, *used_ = nullptr, *of_ = nullptr, *ends_ = nullptr;
    RatioBars *bars_ = nullptr;
    QPushButton *arm_ = nullptr, *now_ = nullptr, *stop_ = nullptr;
    QLineEdit *value_ = nullptr;
    QTimer tick_;
};

} // namespace waxis::logbench
