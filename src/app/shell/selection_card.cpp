#include "app/shell/selection_card.h"

#include "app/shell/arm_rows.h"
#include "app/shell/quick_look_rows.h"
#include "app/shell/screw_rows.h"

#include "app/shell/group_tools.h"
#include "app/theme/metrics.h"
#include "app/widgets/typed_number.h"
#include "core/base/by_id.h"
#include "core/derived/all_up.h"
#include "core/edits/group_edits.h"
#include "core/layout/hand_edits.h"
#include "core/rules/wording.h"
#include "core/studies/arm_shake.h"

#include <QFormLayout>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>
#include <map>

namespace waxis::app {

SelectionCard::SelectionCard(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    title_ = new QLabel;
    title_->setObjectName("several");
    title_->setFont(theme.text(theme::kHeadPixels, true));
    sums_ = new QLabel;
    sums_->setWordWrap(true);
    column->addWidget(title_);
    column->addWidget(sums_);
    auto *grid = new QGridLayout;
    grid->setHorizontalSpacing(4);
    grid->setVerticalSpacing(4);
    QString lastRow;
    int row = -1, at = 0;
    for (const auto &tool : groupTools()) {
        if (tool.brief.isEmpty()) continue;
        if (tool.row != lastRow) {
            grid->addWidget(new QLabel(tool.row), ++row, 0);
            lastRow = tool.row;
            at = 1;
        }
        auto *button = new QToolButton;
        button->setText(tool.brief);
        button->setObjectName("tool-" + tool.id);
        button->setToolTip(tool.text);
        button->setAccessibleName(tool.text);
        button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        connect(button, &QToolButton::clicked, this, [this, tool] { tool.run(document_); });
        grid->addWidget(button, row, at++);
        buttons_.emplace_back(button, tool.least);
    }
    column->addLayout(grid);
}

void SelectionCard::refresh() {
    const auto parts = document_.selectedParts();
    title_->setText(tr("%n parts chosen", nullptr, int(parts.size())));
    const auto &derived = document_.analysis().derived;
    double mass = 0;
    int unknown = 0;
    QStringList names;
    for (const auto &id : parts) {
        const Part *part = findPart(document_.build(), id);
        const auto grams = gramsOf(derived, id);
        grams ? mass += *grams : ++unknown;
        if (names.size() < 4) names << QString::fromStdString(part->name);
    }
    if (int(parts.size()) > names.size()) names << tr("%1 more").arg(int(parts.size()) - int(names.size()));
    QString sums = tr("%1 g together").arg(mass, 0, 'f', 1);
    if (unknown) sums += tr(", %n without a weight", nullptr, unknown);
    sums_->setText(names.join(", ") + '\n' + sums + '\n' + tr("The first one chosen stays where it is."));
    for (const auto &[button, least] : buttons_) button->setEnabled(parts.size() >= least);
}

MemberCard::MemberCard(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    title_ = new QLabel;
    title_->setObjectName("member");
    title_->setFont(theme.text(theme::kHeadPixels, true));
    facts_ = new QLabel;
    facts_->setWordWrap(true);
    height_ = new QLineEdit;
    height_->setObjectName("plate-height");
    height_->setAccessibleName(tr("Height of the plate's underside in mm"));
    height_->setFont(theme.numbers(12));
    form_ = new QFormLayout;
    form_->addRow(tr("underside"), height_);
    gives_ = new QLineEdit;
    gives_->setObjectName("member-gives");
    gives_->setAccessibleName(tr("How far the soft plate sinks, or the bobbin gives, mm"));
    gives_->setFont(theme_.numbers(12));
    gives_->setPlaceholderText(tr("not measured"));
    form_->addRow(tr("sinks, gives"), gives_);
    connect(gives_, &QLineEdit::editingFinished, this, &MemberCard::applyGives);
    arm_ = new ArmRows(document_, theme_, *form_, this);
    screw_ = new ScrewRows(document_, *form_, this);
    column->addWidget(title_);
    column->addWidget(facts_);
    column->addLayout(form_);
    connect(height_, &QLineEdit::editingFinished, this, &MemberCard::applyHeight);
}

QString MemberCard::shakeInWords(const std::string &arm) const {
    const auto shake = armShake(document_.build(), document_.analysis(), arm, std::size_t(document_.loadCase()));
    if (!shake) return {};
    const auto band = [](const FrequencyBand &b) {
        return QStringLiteral("%1–%2").arg(b.least_Hz, 0, 'f', 0).arg(b.most_Hz, 0, 'f', 0);
    };
    QString text = tr("\nBends first at %1 Hz up, %2 aside").arg(band(shake->up), band(shake->inPlane));
    if (!shake->rotor) return text + '.';
    text += tr("; its propeller turns %1 times a second in hover, its blades pass %2 times")
                .arg(band(shake->rotor->turns), band(shake->rotor->pass));
    return text + (shake->meetsTurns()    ? tr(": it may sing with the turns.")
                   : shake->meetsBlades() ? tr(": it may sing with the blades.")
                                          : QStringLiteral("."));
}

bool MemberCard::refresh() {
    const std::string id = document_.selected().toStdString();
    const Frame &frame = *document_.build().frame;
    QString facts, weight;
    if (const auto grams = gramsOf(document_.analysis().derived, id)) weight = tr(", %1 g").arg(*grams, 0, 'f', 1);
    bool found = false, plate = false, soft = false;
    for (const auto &p : frame.plates)
        if (p.id == id) {
            found = plate = true;
            facts = tr("plate, %1 mm %2%3. Drag it, or type its height: what is fastened onto it comes along.")
                        .arg(p.thickness_mm)
                        .arg(QString::fromStdString(p.material), weight);
            putText(height_, tr("%1 mm").arg(QString::fromStdString(oneDecimal(p.z_mm))));
            soft = p.isolated;
            if (soft) putText(gives_, writtenWithDoubt(p.sag_mm, QStringLiteral("mm")));
            if (soft) facts += '\n' + softInWords(document_, id);
        }
    for (const auto &a : frame.arms)
        if (a.id == id) {
            found = true;
            facts = tr("arm, %1 mm long%2. Its length and direction are set in Frame (F2); what hangs on it comes "
                       "along.")
                        .arg((a.tip_mm - a.root_mm).norm(), 0, 'f', 1)
                        .arg(weight);
            facts += shakeInWords(id);
        }
    for (const auto &s : frame.standoffs)
        if (s.id == id) {
            found = true;
            const bool bobbin = s.role == StandoffRole::bobbin;
            soft |= bobbin;
            if (bobbin) putText(gives_, s.travel_mm ? tr("%1 mm").arg(*s.travel_mm) : QString());
            facts = (bobbin                            ? tr("bobbin %1, %2 mm high, %3 mm thick%4")
                     : s.role == StandoffRole::stopper ? tr("stopper %1, %2 mm high, %3 mm thick%4")
                                                       : tr("standoff %1, %2 mm high, %3 mm thick%4"))
                        .arg(QString::fromStdString(s.thread))
                        .arg(s.height_mm)
                        .arg(s.diameter_mm)
                        .arg(weight);
        }
    if (const QString screw = screw_->refresh(); !screw.isEmpty()) {
        found = true;
        facts = screw + (weight.isEmpty() ? QString() : tr("\nWith its nut%1.").arg(weight));
    }
    if (!found) return false;
    title_->setText(QString::fromStdString(displayName(document_.build(), id)));
    facts_->setText(facts);
    height_->setVisible(plate);
    form_->labelForField(height_)->setVisible(plate);
    gives_->setVisible(soft);
    form_->labelForField(gives_)->setVisible(soft);
    arm_->refresh();
    return true;
}

void MemberCard::applyGives() {
    if (!gives_->isModified()) return;
    gives_->setModified(false);
    const std::string id = document_.selected().toStdString();
    const QString text = gives_->text().trimmed();
    const Standoff *post = byId(document_.build().frame->standoffs, id);
    const auto gives = typedNumber(text, Measure::length);
    const auto sinks = typedWithDoubt(text, Measure::length);
    const QString what = tr("How far %1 gives").arg(QString::fromStdString(displayName(document_.build(), id)));
    if (!text.isEmpty() && !(post ? gives.has_value() : sinks.has_value()))
        emit document_.refused(notUnderstood(text, Measure::length));
    else if (post) {
        Standoff next = *post;
        next.travel_mm = gives;
        document_.edit(what, setStandoff(document_.build(), next));
    } else
        document_.edit(
            what, setPlateSag(document_.build(), id, sinks ? measuredValue(sinks->value, sinks->doubt) : Measured{}));
    refresh();
}

void MemberCard::applyHeight() {
    if (!height_->isModified()) return;
    height_->setModified(false);
    const std::string id = document_.selected().toStdString();
    const auto value = typedNumber(height_->text(), Measure::length);
    if (!value) {
        emit document_.refused(notUnderstood(height_->text(), Measure::length));
    } else {
        for (const auto &plate : document_.build().frame->plates)
            if (plate.id == id) {
                const Vec3 shift(0, 0, *value - plate.z_mm);
                document_.edit(tr("Move %1").arg(QString::fromStdString(displayName(document_.build(), id))),
                               shiftPlate(document_.build(), id, shift));
                break;
            }
    }
    refresh();
}

} // namespace waxis::app
