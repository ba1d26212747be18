// Trials: ways that are compared, their tries, and what those tell.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/document/instruments.h"
#include "app/stages/log/heard_sky.h"
#include "app/stages/log/trial_dots.h"
#include "app/stages/log/try_card.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QMenu;
class QSpinBox;
class QStackedWidget;
class QToolButton;

namespace waxis::logbench {

class TrialsPage : public QWidget {
    Q_OBJECT

public:
    TrialsPage(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
               QWidget *parent = nullptr);
    void setSession(const std::string &id);
    void choose(const std::string &trial);
    void chooseSetup(const std::string &setup);
    /// A new trial of the chosen part, with the place it has as its first way.
    void begin();
    TryRunner &runner() { return *runner_; }
    theme::MatTable &ways() { return *ways_; }
    theme::MatTable &tries() { return *tries_; }
    bool isSettled() const { return sky_work_.isSettled(); }

signals:
    void said(const QString &text, bool bad);

protected:
    void showEvent(QShowEvent *event) override;

private:
    struct Proof {
        SkyView view;
        SkyProof proof;
        std::string setup;
    };
    const Trial *trial() const;
    void fill();
    void fillWays(const Trial &trial);
    void fillTries(const Trial &trial);
    void fillAddMenu();
    void saveHead();
    void editedWay(int row, int column);
    void editedTry(int row, int column);
    void addWay(const QString &name, const std::optional<Pose> &pose);
    void change(const QString &name, const Trial &trial);
    void tellProof(const Proof &proof);
    QWidget *makeHead();

    app::Document &document_;
    app::Instruments &instruments_;
    const theme::Theme &theme_;
    TryRunner *runner_ = nullptr;
    std::string session_, setup_;
    QComboBox *trials_ = nullptr, *part_ = nullptr, *quantity_ = nullptr;
    QLineEdit *question_ = nullptr;
    QSpinBox *satellites_ = nullptr, *longest_ = nullptr;
    QLabel *verdict_ = nullptr, *proofText_ = nullptr;
    QToolButton *add_ = nullptr, *removeWay_ = nullptr, *toTries_ = nullptr, *aside_ = nullptr, *removeTry_ = nullptr;
    QMenu *addMenu_ = nullptr;
    TrialDots *dots_ = nullptr;
    QStackedWidget *tables_ = nullptr;
    theme::MatTable *ways_ = nullptr, *tries_ = nullptr;
    HeardSky *sky_ = nullptr;
    TryCard *card_ = nullptr;
    std::vector<std::string> tryIds_;
    app::Background<Proof> sky_work_;
};

} // namespace waxis::logbench
