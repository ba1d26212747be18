// A stage as the window knows it.
#pragma once

#include "core/findings/rule_id.h"

#include <QStringList>
#include <QWidget>

namespace waxis::app {

class Bench : public QWidget {
    Q_OBJECT

public:
    using QWidget::QWidget;
    /// Shows the things that a finding is about, as far as this stage has them; false: another had better.
    virtual bool reveal(const QStringList &ids, RuleId rule);
    /// The whole of its drawing; what is chosen, close up. Nothing where there is no drawing.
    virtual void fit() {}
    virtual void zoomToChosen() {}

signals:
    /// Something to tell, in the notice above the bench.
    void said(const QString &text, bool bad);
};

} // namespace waxis::app
