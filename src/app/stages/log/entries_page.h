// What was measured and seen in a session: a line to type into, a table, a scale's reading in large figures, a timer.
#pragma once

#include "app/document/document.h"
#include "app/document/instruments.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"
#include "core/build/log.h"

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QStringListModel;
class QToolButton;

namespace waxis::logbench {

class EntriesPage : public QWidget {
    Q_OBJECT

public:
    EntriesPage(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
                QWidget *parent = nullptr);
    void setSession(const std::string &id);
    theme::MatTable &table() { return *table_; }
    QLineEdit &line() { return *line_; }
    /// Reads a list of entries into the build; what could not be read is said.
    void importList(const QString &path);
    void chooseEntry(const std::string &id);

signals:
    void said(const QString &text, bool bad);
    /// An entry wants a session and there is none.
    void sessionWanted();

private:
    void enter();
    void fill();
    void fillSession();
    void saveSession();
    void edited(int row, int column);
    void showHint();
    void showReading();
    void takeReading();
    void toggleTimer();
    const Entry *current() const;
    void change(const QString &name, Entry entry);
    QWidget *makeSessionForm();
    QWidget *makeLive();

    app::Document &document_;
    app::Instruments &instruments_;
    const theme::Theme &theme_;
    std::string session_;
    std::vector<std::string> rows_; ///< entry ids
    QWidget *form_ = nullptr, *live_ = nullptr;
    QLineEdit *place_ = nullptr, *state_ = nullptr, *note_ = nullptr, *air_ = nullptr, *height_ = nullptr,
              *wind_ = nullptr;
    QComboBox *sky_ = nullptr, *case_ = nullptr;
    QLineEdit *line_ = nullptr;
    QStringListModel *offers_ = nullptr;
    QLabel *hint_ = nullptr, *figure_ = nullptr, *figureOf_ = nullptr, *clock_ = nullptr;
    theme::MatTable *table_ = nullptr;
    QToolButton *aside_ = nullptr, *cure_ = nullptr, *remove_ = nullptr, *blocks_ = nullptr;
    QPushButton *take_ = nullptr, *timer_ = nullptr;
    QTimer tick_;
    QElapsedTimer flown_;
};

} // namespace waxis::logbench
