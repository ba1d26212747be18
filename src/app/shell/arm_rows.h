// The chosen arm: what it is across, of what, where and how it folds, what it weighs.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/base/quantity.h"

#include <functional>

class QCheckBox;
class QComboBox;
class QFormLayout;
class QLineEdit;

namespace waxis::app {

class ArmRows : public QObject {
    Q_OBJECT

public:
    ArmRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent);
    void refresh();

private:
    const Arm *arm() const;
    /// Changes the chosen arm, and all that are like it where that is wished.
    void apply(const QString &what, const std::function<void(Arm &)> &change);
    /// A field of the form for a number; `empty`: it may be left out.
    QLineEdit *number(const QString &label, const char *name, const QString &spoken, Measure measure, bool empty,
                      std::function<void(Arm &, std::optional<double>)> put);

    Document &document_;
    const theme::Theme &theme_;
    QFormLayout &form_;
    QComboBox *section_ = nullptr, *material_ = nullptr, *folds_ = nullptr;
    QLineEdit *width_ = nullptr, *thickness_ = nullptr, *wall_ = nullptr, *holes_ = nullptr, *joint_ = nullptr,
              *angle_ = nullptr, *hinge_ = nullptr, *mass_ = nullptr;
    QCheckBox *alike_ = nullptr;
};

} // namespace waxis::app
