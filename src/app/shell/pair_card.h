// The inspector's page of two radios: the sum that leads from one to the other, and what would help.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>

class QLabel;
class QVBoxLayout;

namespace waxis {
struct RadioCell;
struct RadioReport;
} // namespace waxis

namespace waxis::app {

class PairCard : public QWidget {
    Q_OBJECT

public:
    PairCard(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    /// False: no pair is looked at.
    bool refresh();

private:
    // Of a cell of the matrix, by row and column.
    void showTitle(const RadioReport &report, std::size_t row, std::size_t column);
    QString sumOf(const RadioCell &cell, bool compass) const; ///< rows of a table
    QString notesOn(const RadioReport &report, std::size_t row, std::size_t column) const;
    void fillHelp(int sender, int listener);
    Document &document_;
    const theme::Theme &theme_;
    QLabel *title_ = nullptr, *where_ = nullptr, *sum_ = nullptr, *note_ = nullptr, *helpTitle_ = nullptr;
    QVBoxLayout *help_ = nullptr;
};

} // namespace waxis::app
