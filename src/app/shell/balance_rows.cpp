#include "app/shell/balance_rows.h"

#include "app/widgets/form_rows.h"
#include "app/widgets/texts.h"
#include "app/widgets/typed_number.h"
#include "core/balance/doubt_share.h"
#include "core/balance/mass_rows.h"
#include "core/edits/balance_edits.h"
#include "core/rules/wording.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QRegularExpression>
#include <QSignalBlocker>
#include <cmath>

namespace waxis::app {

namespace {

const std::array<Vec3, 3> kAxes{Vec3::UnitX(), Vec3::UnitY(), Vec3::UnitZ()};
constexpr int kOther = 4;

/// Index in the combo box: 0 not at all, 1 to 3 an axis, 4 another direction.
int indexOf(const std::optional<SlideRange> &slide) {
    if (!slide) return 0;
    for (std::size_t i = 0; i < kAxes.size(); ++i)
        if ((slide->direction - kAxes[i]).norm() < 1e-6) return int(i) + 1;
    return kOther;
}

QString one(double value) { return QString::fromStdString(oneDecimal(value)); }

} // namespace

BalanceRows::BalanceRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), form_(form) {
    axis_ = new QComboBox;
    axis_->setObjectName("slide-axis");
    axis_->setAccessibleName(tr("Along what it may slide"));
    axis_->addItems({tr("not at all"), tr("fore and aft"), tr("left and right"), tr("up and down")});
    form.addRow(tr("may slide"), axis_);
    range_ = new QLineEdit;
    range_->setObjectName("slide-range");
    range_->setFont(theme.numbers(12));
    range_->setAccessibleName(tr("How far it may slide, from and to, in millimetres"));
    range_->setToolTip(tr("From where it is: aft, right or down is negative. As -15 to 8."));
    form.addRow(tr("by"), range_);
    pulls_ = new QLabel;
    pulls_->setObjectName("balance-pulls");
    form.addRow(tr("pulls"), pulls_);
    doubt_ = new QLabel;
    doubt_->setObjectName("balance-doubt");
    form.addRow(tr("of the doubt"), doubt_);
    connect(axis_, &QComboBox::activated, this, &BalanceRows::applyAxis);
    connect(range_, &QLineEdit::editingFinished, this, &BalanceRows::applyRange);
}

void BalanceRows::setShown(bool shown) {
    shown_ = shown;
    refresh();
}

void BalanceRows::refresh() {
    const Part *part = document_.selectedPart();
    const bool slides = part && part->slide;
    for (QWidget *field :
         {static_cast<QWidget *>(axis_), static_cast<QWidget *>(pulls_), static_cast<QWidget *>(doubt_)})
        showRow(form_, field, shown_ && part);
    showRow(form_, range_, shown_ && slides);
    if (!part || !shown_) return;
    {
        const QSignalBlocker quiet(axis_);
        const int index = indexOf(part->slide);
        if (index == kOther && axis_->count() == kOther) axis_->addItem(tr("along a line of its own"));
        if (index != kOther && axis_->count() > kOther) axis_->removeItem(kOther);
        axis_->setCurrentIndex(index);
    }
    if (slides) putText(range_, tr("%1 to %2 mm").arg(one(part->slide->min_mm), one(part->slide->max_mm)));
    const auto &derived = document_.analysis().derived;
    const CaseBalance *balance = document_.balance();
    const MassRow &row = derived.massRows[std::size_t(part - document_.build().parts.data())];
    if (!row.known || !balance || !document_.offset_mm() || !isAboard(*part, *document_.activeCase())) {
        pulls_->setText(!row.known ? tr("not known: no weight") : tr("nothing: not aboard"));
        doubt_->setText(QStringLiteral("–"));
        return;
    }
    const Vec3 from = row.element.centroid_mm - derived.thrustCentre_mm;
    const auto pull = [&](double gmm, const QString &high, const QString &low) {
        const QString number = one(std::abs(gmm) / 1000);
        return number == "0.0" ? QString() : tr("%1 g·m %2").arg(number, gmm > 0 ? high : low);
    };
    QStringList words{pull(row.element.mass_g * from.x(), tr("fore"), tr("aft")),
                      pull(row.element.mass_g * from.y(), tr("left"), tr("right"))};
    words.removeAll(QString());
    pulls_->setText(words.isEmpty() ? tr("nothing: it hangs in the axis") : words.join(QStringLiteral(", ")));
    const auto &rows = derived.massRows;
    DoubtShare doubt;
    const auto shares = doubtSharesOf(*balance, *rows, std::size_t(document_.loadCase()));
    for (std::size_t r = 0; r < shares.size(); ++r)
        if ((*rows)[r].id == row.id) doubt = shares[r];
    doubt_->setText(doubt.sum() > 0 ? tr("%1 % (weight %2 %, place %3 %)")
                                          .arg(100 * doubt.sum(), 0, 'f', 0)
                                          .arg(100 * doubt.byMass, 0, 'f', 0)
                                          .arg(100 * doubt.byPlace, 0, 'f', 0)
                                    : QStringLiteral("–"));
}

void BalanceRows::applyAxis(int index) {
    const Part *part = document_.selectedPart();
    if (!part || index == kOther || index == indexOf(part->slide)) return;
    std::optional<SlideRange> slide;
    if (index > 0) {
        constexpr double kFirst_mm = 10; // to begin with; the range is typed beside it
        slide = part->slide.value_or(SlideRange{Vec3::UnitX(), -kFirst_mm, kFirst_mm});
        slide->direction = kAxes[std::size_t(index - 1)];
    }
    document_.edit(tr("How %1 may slide").arg(QString::fromStdString(part->name)),
                   setSlide(document_.build(), part->id, slide));
    refresh();
}

void BalanceRows::applyRange() {
    if (!range_->isModified()) return;
    range_->setModified(false);
    const Part *part = document_.selectedPart();
    if (!part || !part->slide) return;
    static const QRegularExpression two(QStringLiteral("^\\s*([+\\-\\x{2212}]?[0-9.,]+)\\s*(?:mm)?\\s*(?:to|\\.\\.+|;|/"
                                                       ")\\s*([+\\-\\x{2212}]?[0-9.,]+)\\s*(?:mm)?\\s*$"));
    const auto match = two.match(range_->text());
    const auto number = [](QString text) { return typedNumber(text, Measure::length); };
    constexpr double kNone = 1e300; // optionals here make g++ 12 see ghosts
    const double from = match.hasMatch() ? number(match.captured(1)).value_or(kNone) : kNone;
    const double to = match.hasMatch() ? number(match.captured(2)).value_or(-kNone) : -kNone;
    if (!(from <= 0 && to >= 0))
        emit document_.refused(tr("\"%1\" is no range: from 0 or less to 0 or more, as -15 to 8.").arg(range_->text()));
    else
        document_.edit(tr("How far %1 may slide").arg(QString::fromStdString(part->name)),
                       setSlide(document_.build(), part->id, SlideRange{part->slide->direction, from, to}));
    refresh();
}

} // namespace waxis::app
