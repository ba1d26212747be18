// What the overlays on the mat mean, in its corner.
#pragma once

#include "app/drawing/overlays.h"
#include "app/theme/theme.h"

#include <QWidget>

namespace waxis::place {

class Legend : public QWidget {
    Q_OBJECT

public:
    Legend(const theme::Theme &theme, QWidget *parent);
    void show(const drawing::Overlays &overlays);
    QStringList lines() const;

protected:
    void paintEvent(QPaintEvent *) override;

private:
    const theme::Theme &theme_;
    drawing::Overlays overlays_;
};

} // namespace waxis::place
