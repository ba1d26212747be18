// The rows that the part editor's form is made of.
#include "app/stages/kit/part_editor.h"

#include "app/stages/kit/part_fields.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>

namespace waxis::kit {

void PartEditor::heading(const QString &text) {
    auto *label = new QLabel(text);
    label->setFont(theme_.text(13, true));
    label->setContentsMargins(0, 10, 0, 0);
    column_->addWidget(label);
    auto *holder = new QWidget;
    form_ = new QFormLayout(holder);
    form_->setContentsMargins(0, 0, 0, 0);
    form_->setVerticalSpacing(3);
    form_->setLabelAlignment(Qt::AlignLeft);
    column_->addWidget(holder);
}

QLineEdit *PartEditor::line(const QString &label, const QString &name, std::function<QString()> get,
                            std::function<bool(const QString &)> set, const QString &tip) {
    auto *edit = new QLineEdit;
    edit->setObjectName(name);
    edit->setAccessibleName(label);
    edit->setToolTip(tip);
    auto *caption = new QLabel(label);
    caption->setFixedWidth(150);
    caption->setBuddy(edit);
    form_->addRow(caption, edit);
    connect(edit, &QLineEdit::textEdited, this, [this, label, set](const QString &text) {
        if (!filling_) changed(set(text) ? QString() : tr("%1: \"%2\" cannot be read").arg(label, text));
    });
    fillers_.push_back([edit, get] {
        if (!edit->hasFocus()) edit->setText(get());
    });
    return edit;
}

QLineEdit *PartEditor::number(const QString &label, const QString &name,
                              std::function<std::optional<double> *()> field) {
    return line(
        label, name, [field] { return numberText(*field()); },
        [field](const QString &text) { return setMaybe(*field(), text); });
}

void PartEditor::choice(const QString &label, const QString &name, const QStringList &words, std::function<int()> get,
                        std::function<void(int)> set) {
    auto *box = new QComboBox;
    box->setObjectName(name);
    box->setAccessibleName(label);
    box->addItems(words);
    auto *caption = new QLabel(label);
    caption->setFixedWidth(150);
    form_->addRow(caption, box);
    connect(box, &QComboBox::activated, this, [this, set](int index) {
        set(index);
        changed();
        refill();
    });
    fillers_.push_back([box, get] { box->setCurrentIndex(get()); });
}

void PartEditor::flag(const QString &label, const QString &name, std::function<bool *()> field) {
    auto *box = new QCheckBox(label);
    box->setObjectName(name);
    form_->addRow(box);
    connect(box, &QCheckBox::toggled, this, [this, field](bool on) {
        if (filling_) return;
        *field() = on;
        changed();
    });
    fillers_.push_back([box, field] { box->setChecked(*field()); });
}

void PartEditor::measured(const QString &label, const QString &name, std::function<Measured *()> field) {
    line(
        label, name,
        [field] {
            const Measured &m = *field();
            return m.tolerance ? tr("%1 ± %2").arg(numberText(m.value), numberText(*m.tolerance)) : numberText(m.value);
        },
        [field](const QString &text) {
            const auto words = text.split(QChar(0x00B1));
            Measured &m = *field();
            std::optional<double> value, tolerance;
            if (!setMaybe(value, words[0]) || (words.size() > 1 && !setMaybe(tolerance, words[1]))) return false;
            m.value = value;
            m.tolerance = tolerance;
            return true;
        },
        tr("As 8.6 or 8.6 ± 0.2"));
}

void PartEditor::pattern(const QString &label, const QString &name, std::optional<HolePattern> PartType::*field) {
    line(
        label, name,
        [this, field] {
            const auto &p = type_.*field;
            if (!p) return QString();
            QString text = numberText(p->size_mm);
            if (p->shape == PatternShape::rectangle) text += " x " + numberText(p->width_mm);
            if (p->shape == PatternShape::circle) text = "d " + text;
            return text + tr(", holes %1").arg(numberText(p->holeDiameter_mm)) +
                   (p->holes != 4 ? tr(" x %1").arg(p->holes) : QString());
        },
        [this, field](const QString &text) {
            if (text.trimmed().isEmpty()) {
                (type_.*field).reset();
                return true;
            }
            // "30.5, holes 3.2", "d 16, holes 3.2 x 4", "30 x 20, holes 2.2"
            QString plain = text;
            plain.replace(tr("holes"), "", Qt::CaseInsensitive);
            const auto parts = plain.split(QRegularExpression(",\\s+|;"));
            if (parts.size() != 2) return false;
            HolePattern p;
            QString size = parts[0].trimmed();
            if (size.startsWith('d', Qt::CaseInsensitive)) {
                p.shape = PatternShape::circle;
                size = size.mid(1);
            }
            const auto sides = size.split('x');
            const auto holes = parts[1].split('x');
            const auto first = readLength(sides[0]), hole = readLength(holes[0]);
            if (!first || !hole || sides.size() > 2 || holes.size() > 2) return false;
            p.size_mm = *first;
            p.holeDiameter_mm = *hole;
            if (sides.size() == 2) {
                const auto second = readLength(sides[1]);
                if (!second || p.shape == PatternShape::circle) return false;
                p.shape = PatternShape::rectangle;
                p.width_mm = *second;
            }
            if (holes.size() == 2) {
                const auto count = readLength(holes[1]);
                if (!count || *count < 1 || *count > 64) return false;
                p.holes = int(*count);
            }
            type_.*field = p;
            return true;
        },
        tr("Squares by their side: 30.5, holes 3.2. Circles by their diameter: d 16, holes 3.2. Rectangles: 30 x 20, "
           "holes 2.2"));
}

void PartEditor::tableWithButtons(QWidget *records, const QString &addText, std::function<void()> addOne,
                                  std::function<void()> removeOne) {
    column_->addWidget(records);
    auto *row = new QHBoxLayout;
    auto *add = new QPushButton(addText);
    add->setObjectName(records->objectName() + "-add");
    auto *remove = new QPushButton(tr("Remove"));
    row->addWidget(add);
    row->addWidget(remove);
    row->addStretch();
    column_->addLayout(row);
    connect(add, &QPushButton::clicked, this, std::move(addOne));
    connect(remove, &QPushButton::clicked, this, std::move(removeOne));
}

std::function<void(const QString &)> PartEditor::unreadable() {
    return [this](const QString &problem) {
        changed(problem.isEmpty() ? QString() : tr("%1 cannot be read").arg(problem));
    };
}

} // namespace waxis::kit
