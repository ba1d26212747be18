// The field study: a wire-grid model of two antennas and the plates, solved by nec2c in the background.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/field_study/deck.h"

#include <QElapsedTimer>
#include <QProcess>
#include <QTemporaryDir>
#include <QTimer>
#include <QWidget>

class QComboBox;
class QLabel;
class QProgressBar;
class QToolButton;

namespace waxis::radio {

class FieldPage : public QWidget {
    Q_OBJECT

public:
    FieldPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    ~FieldPage() override;
    bool isRunning() const { return program_.state() != QProcess::NotRunning; }
    const std::optional<FieldResult> &result() const { return result_; }
    QString facts() const;
    /// Path of the solver; empty when it is not installed. Tests may name another.
    void setProgram(const QString &path);

public slots:
    void run();
    void cancel();

protected:
    void showEvent(QShowEvent *event) override;

private:
    const RadioUse *sender() const;
    const RadioUse *listener() const;
    void listRadios();
    void makeDeck();
    void finished(int code, QProcess::ExitStatus status);
    void saveDeck();
    void fill();
    QString sumText() const;     ///< the coupling beside the quick model's
    QString patternText() const; ///< the sender's gain by direction
    QString deckText() const;    ///< what the model is made of

    app::Document &document_;
    const theme::Theme &theme_;
    QString path_;
    QComboBox *from_ = nullptr, *to_ = nullptr, *most_ = nullptr;
    QToolButton *run_ = nullptr, *cancel_ = nullptr, *save_ = nullptr;
    QProgressBar *progress_ = nullptr;
    QLabel *facts_ = nullptr, *state_ = nullptr;
    std::optional<FieldDeck> deck_;
    QString why_; ///< why there is no deck
    std::optional<FieldResult> result_;
    FieldDeck asked_; ///< what the result is of
    double quick_dB_ = 0, quickFar_dB_ = 0;
    QProcess program_;
    std::unique_ptr<QTemporaryDir> folder_;
    QElapsedTimer clock_;
    QTimer tick_;
    bool cancelled_ = false;
};

} // namespace waxis::radio
