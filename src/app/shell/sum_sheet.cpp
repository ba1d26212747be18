#include "app/shell/sum_sheet.h"

#include "app/theme/metrics.h"
#include "app/widgets/typed_number.h"
#include "io/report_json/sum_json.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace waxis::app {

namespace {
constexpr int kDigits = 4; // as many as inputs at a bench deserve
}

SumSheet::SumSheet(const Sum &sum, const theme::Theme &theme, QWidget *parent)
    : QDialog(parent), sum_(sum), error_(new QLabel) {
    setWindowTitle(QString::fromStdString(sum.title));
    setAttribute(Qt::WA_DeleteOnClose);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(20, 16, 20, 16);
    layout->setSpacing(8);
    auto *title = new QLabel(QString::fromStdString(sum.title));
    title->setFont(theme.text(theme::kHeadPixels, true));
    layout->addWidget(title);
    auto *form = new QFormLayout;
    form->setVerticalSpacing(6);
    for (const auto &input : sum.inputs) {
        auto *field = new QLineEdit(QString::fromStdString(input.example));
        field->setObjectName(QString::fromStdString(input.key));
        field->setFont(theme.numbers(12));
        field->setMinimumWidth(300);
        fields_.push_back(field);
        const QString unit = QString::fromStdString(input.unit);
        form->addRow(QString::fromStdString(input.title) + (unit.isEmpty() ? "" : ", " + unit), field);
        connect(field, &QLineEdit::textChanged, this, &SumSheet::recompute);
    }
    auto *rule = new QFrame;
    rule->setFrameShape(QFrame::HLine);
    form->addRow(rule);
    for (const auto &output : sum.outputs) {
        auto *value = new QLabel;
        value->setObjectName("out-" + QString::fromStdString(output.key));
        value->setFont(theme.numbers(13, true));
        value->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
        value->setWordWrap(true);
        results_.push_back(value);
        form->addRow(QString::fromStdString(output.title), value);
    }
    layout->addLayout(form);
    error_->setObjectName("sum-error");
    QPalette wrong;
    wrong.setColor(QPalette::WindowText, theme.colors().stop);
    error_->setPalette(wrong);
    error_->setWordWrap(true);
    layout->addWidget(error_);
    auto *formula =
        new QLabel(tr("%1\nSource: %2").arg(QString::fromStdString(sum.formula), QString::fromStdString(sum.source)));
    formula->setWordWrap(true);
    formula->setForegroundRole(QPalette::PlaceholderText);
    layout->addWidget(formula);
    recompute();
}

void SumSheet::recompute() {
    SumObject inputs;
    for (std::size_t i = 0; i < fields_.size(); ++i) {
        const QString text = fields_[i]->text().trimmed();
        if (text.isEmpty() && sum_.inputs[i].standard) continue;
        const auto &input = sum_.inputs[i];
        const auto quantity =
            input.kind == SumInputKind::number ? typedNumber(text, measureOf(input.unit)) : std::optional<double>();
        inputs.emplace_back(input.key, input.kind == SumInputKind::text ? SumValue(text.toStdString())
                                       : quantity                       ? SumValue(*quantity)
                                                                        : io::sumValueFromText(text.toStdString()));
    }
    const auto outputs = calculate(sum_, inputs);
    error_->setText(outputs ? QString() : QString::fromStdString(outputs.error().text()));
    for (std::size_t i = 0; i < results_.size(); ++i) {
        QString text = QStringLiteral("–");
        if (outputs) {
            const auto &output = sum_.outputs[i];
            QStringList values;
            if (const auto *value = findKey(*outputs, output.key))
                values << QString::fromStdString(io::sumValueText(*value, kDigits));
            if (output.key == "T1") // as many thrusts as motors
                for (std::size_t k = 2; const auto *more = findKey(*outputs, "T" + std::to_string(k)); ++k)
                    values << QString::fromStdString(io::sumValueText(*more, kDigits));
            text = values.join(", ");
            if (!output.unit.empty() && text != "none") text += " " + QString::fromStdString(output.unit);
        }
        results_[i]->setText(text);
    }
}

} // namespace waxis::app
