// Tables in the mat's colours: no frame, no grid, rows chosen whole, a word where there are none.
#pragma once

#include "app/theme/theme.h"

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

} // namespace waxis::theme
