// What comes together where: every pad, hole and contact with its wires, and how much heat it wants.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>

class QLabel;
namespace waxis::theme {
class MatTable;
}

namespace waxis::wire {

class JointsPage : public QWidget {
    Q_OBJECT

public:
    JointsPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();
    app::Document &document_;
    const theme::Theme &theme_;
    theme::MatTable *table_ = nullptr;
    QLabel *sum_ = nullptr;
};

} // namespace waxis::wire
