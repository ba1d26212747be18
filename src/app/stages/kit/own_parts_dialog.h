// One's own parts: which there are, new ones out of a pasted table, and files of them to pass on and to take in.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/catalog/pasted_types.h"

#include <QDialog>

class QLabel;
class QPlainTextEdit;
class QPushButton;
class QTabWidget;
class QTableWidget;

namespace waxis::kit {

class OwnPartsDialog : public QDialog {
    Q_OBJECT

public:
    OwnPartsDialog(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// Shows the page for a pasted table, with what lies on the clipboard where it is one.
    void paste();
    /// The same with the text of a table file (CSV, tabs, semicolons). False with a sentence in `problem`.
    bool readTable(const QString &path, QString &problem);
    /// Writes the parts to a file; `ids` empty: all of one's own. False with a sentence in `problem`.
    bool passOn(const QString &path, const QStringList &ids, QString &problem) const;
    /// Takes the parts of a file among one's own; how many, or -1 with a sentence in `problem`.
    int takeIn(const QString &path, QString &problem);
    /// Takes parts out of one's own library, and back in again.
    void takeOut(const QStringList &ids);
    void putBack();

signals:
    void said(const QString &text, bool bad);
    void likeWanted(const QString &type);

private:
    void fill();
    void readPasted();
    void keepPasted();
    void showMenu(const QPoint &at);
    QStringList chosen() const;

    app::Document &document_;
    const theme::Theme &theme_;
    PastedTable pasted_;
    QTableWidget *own_ = nullptr, *rows_ = nullptr;
    QLabel *count_ = nullptr, *problem_ = nullptr;
    QPlainTextEdit *text_ = nullptr;
    QPushButton *keep_ = nullptr, *out_ = nullptr, *back_ = nullptr;
    std::vector<PartType> takenOut_; ///< last
    QTabWidget *pages_ = nullptr;
};

} // namespace waxis::kit
