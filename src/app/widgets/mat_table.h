// Tables in the mat's colours: no frame, no grid, rows chosen whole, a word where there are none.
#pragma once

#include "app/theme/theme.h"

#include <QSignalBlocker>
#include <QTableWidget>

namespace waxis::theme {

class MatTable : public QTableWidget {
    Q_OBJECT

public:
    /// The first column reads from the left, the others from the right; it follows the theme.
    MatTable(const Theme &theme, const QStringList &heads, QWidget *parent = nullptr);
    /// What stands in it while it has no rows.
    void setEmptyText(const QString &text);
    /// Heads with their explanations.
    void setTips(const QStringList &tips);
    /// The whole table with its heads; Ctrl+C puts it on the clipboard.
    QString asCsv() const;

protected:
    void paintEvent(QPaintEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    const Theme &theme() const { return theme_; }

private:
    const Theme &theme_;
    QString empty_;
};

/// While it lives, the cells of a table are filled unheard: it is measured and painted once, at the end, and not for
/// each font and colour of each cell. Rows and columns are there before.
class Refill {
public:
    explicit Refill(QTableWidget &table) : table_(table), quiet_(table.model()) {}
    ~Refill();
    Refill(const Refill &) = delete;
    Refill &operator=(const Refill &) = delete;

private:
    QTableWidget &table_;
    QSignalBlocker quiet_;
};

} // namespace waxis::theme
