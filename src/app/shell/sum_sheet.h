// One quick sum on a small sheet: inputs, units, result, formula and source.
#pragma once

#include "app/theme/theme.h"
#include "core/sums/sum.h"

#include <QDialog>

class QLabel;
class QLineEdit;

namespace waxis::app {

class SumSheet : public QDialog {
    Q_OBJECT

public:
    SumSheet(const Sum &sum, const theme::Theme &theme, QWidget *parent);

private:
    void recompute();
    const Sum &sum_;
    std::vector<QLineEdit *> fields_;
    std::vector<QLabel *> results_;
    QLabel *error_;
};

} // namespace waxis::app
