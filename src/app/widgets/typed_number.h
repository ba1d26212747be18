// Numbers as a person types them.
#pragma once

#include "core/base/measured.h"
#include "core/base/quantity.h"

#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QString>
#include <optional>

namespace waxis::app {

/// A number with a unit of its measure behind it, or none (see readQuantity). None for anything else.
std::optional<double> typedNumber(const QString &text, Measure measure = Measure::number);

/// The measure of a quantity by its unit as tables name it ("mm", "deg", "%", "uT" ...); plain numbers else.
Measure measureOf(std::string_view unit);

/// What is wrong with it, for the notice: "7 g" is no length: ...
QString notUnderstood(const QString &text, Measure measure);

struct TypedWithDoubt {
    double value = 0;
    std::optional<double> doubt;
};
/// A quantity that cannot be negative, with its doubt behind it where one is given: "9.8", "9.8 ± 0.2 g", "9,8 +- 0,2".
std::optional<TypedWithDoubt> typedWithDoubt(QString text, Measure measure = Measure::mass);

/// The same way round, with its unit: "9.8 ± 0.2 g", "9.8 g"; empty for what is not known.
QString writtenWithDoubt(const Measured &measured, const QString &unit);

/// Puts text into a field unless somebody is typing there.
void putText(QLineEdit *field, const QString &text);

/// A spin box that understands units: "7 in" in a millimetre box is 177.8. What it does not understand is said by
/// `refused` when the typing ends, and the value stays.
class QuantitySpin : public QDoubleSpinBox {
    Q_OBJECT

public:
    explicit QuantitySpin(Measure measure, QWidget *parent = nullptr);

signals:
    void refused(const QString &reason);

protected:
    QValidator::State validate(QString &text, int &position) const override;
    double valueFromText(const QString &text) const override;
    void fixup(QString &text) const override;

private:
    std::optional<double> read(const QString &text) const;
    Measure measure_;
};

} // namespace waxis::app
