#include "app/widgets/typed_number.h"

#include <cmath>

namespace waxis::app {

std::optional<double> typedNumber(const QString &text, Measure measure) {
    return readQuantity(text.toStdString(), measure);
}

Measure measureOf(std::string_view unit) {
    constexpr std::pair<std::string_view, Measure> kUnits[] = {
        {"mm", Measure::length},     {"g", Measure::mass},      {"deg", Measure::angle}, {"°", Measure::angle},
        {"A", Measure::current},     {"V", Measure::voltage},   {"dBm", Measure::level}, {"mW", Measure::power},
        {"MHz", Measure::frequency}, {"m", Measure::distance},  {"AWG", Measure::gauge}, {"min", Measure::minutes},
        {"s", Measure::seconds},     {"%", Measure::percent},   {"gf", Measure::thrust}, {"mAh", Measure::capacity},
        {"dB", Measure::decibel},    {"dBi", Measure::decibel}, {"uT", Measure::field},  {"µT", Measure::field}};
    for (const auto &[name, measure] : kUnits)
        if (name == unit) return measure;
    return Measure::number;
}

QString notUnderstood(const QString &text, Measure measure) {
    return QString::fromStdString(wrongQuantity(text.trimmed().toStdString(), measure));
}

std::optional<TypedWithDoubt> typedWithDoubt(QString text, Measure measure) {
    text.replace(QStringLiteral("+/-"), QStringLiteral("±")).replace(QStringLiteral("+-"), QStringLiteral("±"));
    auto pieces = text.split(QStringLiteral("±"));
    if (pieces.size() > 2) return std::nullopt;
    // "9.8 ± 0.2 oz": the unit behind the doubt is that of both.
    if (pieces.size() == 2 && typedNumber(pieces[0]) && !typedNumber(pieces[1])) {
        const QString doubt = pieces[1].trimmed();
        qsizetype digits = 0;
        while (digits < doubt.size() && (doubt[digits].isDigit() || QStringLiteral(".,").contains(doubt[digits])))
            ++digits;
        pieces[0] += doubt.mid(digits);
    }
    const auto value = typedNumber(pieces.first(), measure);
    if (!value || *value < 0) return std::nullopt;
    TypedWithDoubt typed{*value, {}};
    if (pieces.size() == 2) {
        typed.doubt = typedNumber(pieces[1], measure);
        if (!typed.doubt || *typed.doubt < 0) return std::nullopt;
    }
    return typed;
}

QString writtenWithDoubt(const Measured &measured, const QString &unit) {
    if (!measured.known()) return {};
    const QString value = QString::number(*measured.value);
    return measured.tolerance ? QStringLiteral("%1 ± %2 %3").arg(value).arg(*measured.tolerance).arg(unit)
                              : QStringLiteral("%1 %2").arg(value, unit);
}

void putText(QLineEdit *field, const QString &text) {
    if (!field->hasFocus() || !field->isModified()) field->setText(text); // never under the typing hand
}

QuantitySpin::QuantitySpin(Measure measure, QWidget *parent) : QDoubleSpinBox(parent), measure_(measure) {
    setKeyboardTracking(false);
}

std::optional<double> QuantitySpin::read(const QString &text) const {
    if (const auto value = typedNumber(text, measure_)) return value;
    QString without = text;
    if (!suffix().isEmpty() && without.endsWith(suffix())) without.chop(suffix().size()); // "7 in mm"
    return typedNumber(without, measure_);
}

QValidator::State QuantitySpin::validate(QString &text, int &) const {
    const auto value = read(text);
    // Whatever else may be a unit half typed: it is judged when the typing ends.
    return value && *value >= minimum() && *value <= maximum() ? QValidator::Acceptable : QValidator::Intermediate;
}

double QuantitySpin::valueFromText(const QString &text) const { return read(text).value_or(value()); }

void QuantitySpin::fixup(QString &text) const {
    const auto typed = read(text);
    auto *self = const_cast<QuantitySpin *>(this); // Qt asks for the repair in a const function
    if (!typed)
        emit self->refused(notUnderstood(text, measure_));
    else
        emit self->refused(tr("%1 is out of range: %2 to %3%4.")
                               .arg(text.trimmed(), textFromValue(minimum()), textFromValue(maximum()), suffix()));
    text = textFromValue(value()) + suffix();
}

} // namespace waxis::app
