#include "app/shell/wire_card.h"

#include "app/shell/wire_extras.h"
#include "app/theme/metrics.h"
#include "app/widgets/typed_number.h"
#include "core/edits/wire_edits.h"
#include "core/power/power_report.h"
#include "core/remedies/gauge_advice.h"
#include "core/wiring/wire_report.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::app {

WireCard::WireCard(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("wire-card");
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    name_ = new QLineEdit;
    name_->setObjectName("wire-name");
    name_->setAccessibleName(tr("Name of the wire"));
    name_->setFont(theme_.text(theme::kHeadPixels, true));
    name_->setFrame(false);
    ends_ = new QLabel;
    ends_->setWordWrap(true);
    sum_ = new QLabel;
    sum_->setObjectName("wire-sum");
    sum_->setTextFormat(Qt::RichText);
    power_ = new QLabel;
    power_->setWordWrap(true);
    power_->setFont(theme_.numbers(11));
    hint_ = new QLabel(tr("Drag a point of its route to pin it there; a double click frees it again."));
    hint_->setWordWrap(true);
    gauge_ = new QComboBox;
    gauge_->setObjectName("wire-gauge");
    gauge_->setAccessibleName(tr("Gauge"));
    gauge_->addItem(tr("as usual"), -1);
    for (const auto &stock : wireStock())
        gauge_->addItem(tr("AWG %1, %2 A").arg(stock.awg).arg(stock.carries_A), stock.awg);
    lay_ = new QComboBox;
    lay_->setObjectName("wire-lay");
    lay_->setAccessibleName(tr("How its cores lie"));
    lay_->addItems({tr("loose"), tr("twisted"), tr("shielded"), tr("flat cable"), tr("coax")});
    make_ = new QComboBox;
    make_->setObjectName("wire-make");
    make_->setAccessibleName(tr("From what it is made"));
    make_->addItems({tr("supplied lead, else cut"), tr("cut from stock"), tr("ready-made cable")});
    bundle_ = new QLineEdit;
    bundle_->setObjectName("wire-bundle");
    bundle_->setAccessibleName(tr("Bundle"));
    bundle_->setPlaceholderText(tr("led alone"));
    auto *form = new QFormLayout;
    form->setVerticalSpacing(3);
    form->addRow(tr("gauge"), gauge_);
    form->addRow(tr("lay"), lay_);
    form->addRow(tr("made from"), make_);
    form->addRow(tr("bundle"), bundle_);
    column->addWidget(name_);
    column->addWidget(ends_);
    column->addWidget(sum_);
    column->addWidget(power_);
    column->addLayout(form);
    more_ = new QToolButton;
    more_->setObjectName("wire-more");
    more_->setText(tr("Sleeve, plugs, what sits in it"));
    more_->setCheckable(true);
    more_->setArrowType(Qt::RightArrow);
    more_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    more_->setAutoRaise(true);
    extras_ = new WireExtras(
        document_, [this](const QString &what, const std::function<void(Wire &)> &how) { change(what, how); });
    extras_->hide();
    column->addWidget(more_);
    column->addWidget(extras_);
    column->addWidget(hint_);
    connect(more_, &QToolButton::toggled, this, [this](bool open) {
        more_->setArrowType(open ? Qt::DownArrow : Qt::RightArrow);
        extras_->setVisible(open);
    });
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        if (name_->isModified() && !name_->text().trimmed().isEmpty())
            change(tr("Rename a wire"), [&](Wire &w) { w.name = name_->text().trimmed().toStdString(); });
        name_->setModified(false);
    });
    connect(gauge_, &QComboBox::activated, this, [this](int index) {
        if (const Wire *w = wire()) {
            const int awg = gauge_->itemData(index).toInt();
            document_.edit(tr("Gauge of %1").arg(QString::fromStdString(w->name)),
                           setGauge(document_.build(), w->id, awg < 0 ? std::nullopt : std::optional(awg)));
        }
    });
    connect(lay_, &QComboBox::activated, this,
            [this](int index) { change(tr("Lay of a wire"), [&](Wire &w) { w.lay = WireLay(index); }); });
    connect(make_, &QComboBox::activated, this,
            [this](int index) { change(tr("Make of a wire"), [&](Wire &w) { w.make = WireMake(index); }); });
    connect(bundle_, &QLineEdit::editingFinished, this, [this] {
        if (bundle_->isModified())
            change(tr("Bundle of a wire"), [&](Wire &w) { w.bundle = bundle_->text().trimmed().toStdString(); });
        bundle_->setModified(false);
    });
}

const Wire *WireCard::wire() const { return findWire(document_.build(), document_.selected().toStdString()); }

void WireCard::change(const QString &name, const std::function<void(Wire &)> &how) {
    const Wire *w = wire();
    if (!w || filling_) return;
    Wire next = *w;
    how(next);
    document_.edit(name, changeWire(document_.build(), w->id, next));
}

bool WireCard::refresh() {
    const Wire *w = wire();
    if (!w) return false;
    filling_ = true;
    const Build &build = document_.build();
    const Derived &derived = document_.analysis().derived;
    const std::size_t index = std::size_t(w - build.wires.data());
    putText(name_, QString::fromStdString(w->name));
    ends_->setText(
        tr("%1, %2 → %3, %4")
            .arg(QString::fromStdString(displayName(build, w->from.part)), QString::fromStdString(w->from.port),
                 QString::fromStdString(displayName(build, w->to.part)), QString::fromStdString(w->to.port)));
    gauge_->setCurrentIndex(std::max(0, gauge_->findData(w->gauge_AWG.value_or(-1))));
    lay_->setCurrentIndex(int(w->lay));
    make_->setCurrentIndex(int(w->make));
    putText(bundle_, QString::fromStdString(w->bundle));
    extras_->show(*w);
    if (index < derived.wiring->wires.size()) {
        const WireReport &r = derived.wiring->wires[index];
        const auto &c = theme_.colors();
        QString rows;
        auto row = [&](const QString &label, const QString &value, bool strong = false) {
            rows += QStringLiteral(
                        "<tr><td style='color:%1; padding-right:24px'>%2</td><td style='color:%3'>%4%5%6</td></tr>")
                        .arg(c.muted.name(), label, c.ink.name(), strong ? "<b>" : "", value, strong ? "</b>" : "");
        };
        auto mm = [](double v) { return tr("%1 mm").arg(v, 0, 'f', std::abs(v) < 10 && v != 0 ? 1 : 0); };
        row(tr("route"), mm(r.route_mm));
        if (std::abs(r.corners_mm) >= 0.05) row(tr("corners"), mm(r.corners_mm));
        if (r.twist > 1) row(tr("twist"), tr("× %1").arg(r.twist, 0, 'f', 3));
        row(tr("ends"), mm(r.ends_mm));
        if (r.resolder_mm > 0) row(tr("to solder once more"), mm(r.resolder_mm));
        if (r.slack_mm > 0)
            row(r.slackFor.size() == 1 && r.slackFor[0] == "open" ? tr("to open the top") : tr("slack"),
                mm(r.slack_mm));
        row(tr("needed"), mm(r.needed_mm), true);
        if (r.supplied_mm) {
            row(r.verdict == LeadVerdict::readyMade ? tr("ready made") : tr("supplied"), mm(*r.supplied_mm));
            row(r.spare_mm < 0 ? tr("short by") : tr("spare"), mm(std::abs(r.spare_mm)), r.spare_mm < 0);
        } else
            row(tr("cut"), mm(r.cut_mm), true);
        sum_->setText("<table cellspacing='0' cellpadding='1'>" + rows + "</table>");
        const WireCurrent &current = derived.power->wires[index];
        QStringList facts{
            tr("AWG %1, %2 mm thick, %3 g").arg(r.gauge_AWG).arg(r.bundle_mm, 0, 'f', 1).arg(r.mass_g, 0, 'f', 1)};
        if (current.known) {
            facts << tr("%1 A, at most %2 A").arg(current.typical_A, 0, 'f', 2).arg(current.peak_A, 0, 'f', 1);
            if (const LoopDrop drop = dropOf(r, current); drop.drop_V > 0)
                facts << tr("loses %1 mV, %2 W").arg(drop.drop_V * 1e3, 0, 'f', 1).arg(drop.loss_W, 0, 'f', 2);
            if (const auto lighter = lighterGauge(*w, r, current, document_.analysis().practice))
                facts << tr("AWG %1 would do: %2 g lighter").arg(lighter->gauge_AWG).arg(lighter->saves_g, 0, 'f', 1);
        }
        power_->setText(facts.join('\n'));
    }
    filling_ = false;
    return true;
}

} // namespace waxis::app
