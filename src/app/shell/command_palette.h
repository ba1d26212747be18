// Ctrl+K: type what you want to do, a part's name, or a calculation.
#pragma once

#include "app/theme/theme.h"

#include <QDialog>
#include <functional>

class QLineEdit;
class QListWidget;

namespace waxis::app {

struct PaletteEntry {
    QString text;
    QString hint; ///< what kind of thing, or its key
    std::function<void()> run;
};

class CommandPalette : public QDialog {
    Q_OBJECT

public:
    CommandPalette(const theme::Theme &theme, QWidget *parent);
    void open(std::vector<PaletteEntry> entries);

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void filter();
    void runCurrent();
    const theme::Theme &theme_;
    QLineEdit *query_;
    QListWidget *list_;
    std::vector<PaletteEntry> entries_;
};

/// How well the words of the query occur in the text, in any order; 0: not all do. Beginnings of words count more.
int matchScore(const QString &text, const QString &query);

} // namespace waxis::app
