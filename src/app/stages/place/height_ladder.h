// The ladder of faces under the pointer: at which height a dragged part would sit.
#pragma once

#include "app/theme/theme.h"
#include "core/placing/faces.h"

#include <QWidget>

namespace waxis::place {

class HeightLadder : public QWidget {
    Q_OBJECT

public:
    HeightLadder(const theme::Theme &theme, QWidget *parent);

    /// Shows the rungs from the highest down, `rung` marked, beside the point; hides without any.
    void show(const QString &title, const QStringList &rungs, int rung, const QPoint &beside);
    int rung() const { return rung_; }
    const QStringList &rungs() const { return rungs_; }

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    const theme::Theme &theme_;
    QString title_;
    QStringList rungs_;
    int rung_ = -1;
};

} // namespace waxis::place
