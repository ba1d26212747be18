// The cut list: every core with its length and ends, and what stock it takes.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>

class QLabel;
namespace waxis::theme {
class MatTable;
}

namespace waxis::wire {

class CutPage : public QWidget {
    Q_OBJECT

public:
    CutPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    theme::MatTable &table() { return *table_; }
    QString asCsv() const;

signals:
    void said(const QString &text, bool bad);

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();
    void save();
    app::Document &document_;
    const theme::Theme &theme_;
    theme::MatTable *table_ = nullptr;
    QLabel *stock_ = nullptr;
};

} // namespace waxis::wire
