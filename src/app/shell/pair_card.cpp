#include "app/shell/pair_card.h"

#include "app/theme/look.h"
#include "app/theme/metrics.h"
#include "app/widgets/texts.h"
#include "core/radio/bands.h"
#include "core/radio/radio_report.h"
#include "core/remedies/radio_help.h"
#include "core/rules/cell_verdict.h"
#include "core/rules/wording.h"
#include "core/survey/at_hand.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace waxis::app {

namespace {

constexpr int kHelpWidth_px = 300;
constexpr std::size_t kMostHelps = 7;

/// "GPS with compass, L1 G1" for a radio of the report, else the thing's name.
QString nameOfEnd(const Build &build, const RadioReport &report, int radio, const std::string &id) {
    if (id == "currents") return PairCard::tr("Currents");
    if (radio < 0) return QString::fromStdString(displayName(build, id));
    const RadioUse &use = report.radios[std::size_t(radio)];
    QString name = QString::fromStdString(displayName(build, use.part));
    if (use.kind == PartKind::gps)
        if (const auto words = satelliteWords(use.low_MHz, use.high_MHz); !words.empty())
            name += QStringLiteral(", ") + QString::fromStdString(words);
    return name;
}

} // namespace

PairCard::PairCard(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("pair-card");
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    title_ = new QLabel;
    title_->setObjectName("pair-title");
    title_->setFont(theme_.text(theme::kHeadPixels, true));
    title_->setWordWrap(true);
    title_->setForegroundRole(QPalette::BrightText);
    where_ = new QLabel;
    where_->setWordWrap(true);
    sum_ = new QLabel;
    sum_->setObjectName("pair-sum");
    sum_->setTextFormat(Qt::RichText);
    note_ = new QLabel;
    note_->setWordWrap(true);
    note_->setFont(theme_.text(theme::kSmallPixels));
    helpTitle_ = new QLabel(tr("What helps"));
    helpTitle_->setFont(theme_.text(12, true));
    help_ = new QVBoxLayout;
    help_->setSpacing(1);
    for (QWidget *w : {title_, where_, sum_, note_, helpTitle_}) column->addWidget(w);
    column->addLayout(help_);
    // What helps comes with the survey, after the numbers.
    connect(&document_, &Document::judged, this, [this] {
        if (isVisible()) refresh();
    });
}

bool PairCard::refresh() {
    const auto &pair = document_.radioPair();
    if (pair.from.isEmpty()) return false;
    const RadioReport &report = *document_.analysis().derived.radio;
    for (std::size_t r = 0; r < report.rows.size(); ++r)
        for (std::size_t c = 0; c < report.columns.size(); ++c) {
            if (report.rows[r].id != pair.from.toStdString() || report.columns[c].id != pair.to.toStdString()) continue;
            const RadioCell &cell = report.cell(r, c);
            if (!cell.counts) continue;
            showTitle(report, r, c);
            const QString rows = sumOf(cell, report.columns[c].compass >= 0);
            sum_->setText(rows.isEmpty() ? QString() : QStringLiteral("<table cellspacing=1>%1</table>").arg(rows));
            sum_->setFont(theme_.numbers(12));
            sum_->setVisible(!rows.isEmpty());
            note_->setText(notesOn(report, r, c));
            const bool sender = report.rows[r].radio >= 0 && cell.coupling;
            fillHelp(sender ? report.rows[r].radio : -1, report.columns[c].radio);
            return true;
        }
    return false;
}

void PairCard::showTitle(const RadioReport &report, std::size_t r, std::size_t c) {
    const Build &build = document_.build();
    const RadioCell &cell = report.cell(r, c);
    const bool compass = report.columns[c].compass >= 0;
    title_->setText(QStringLiteral("%1 → %2").arg(
        nameOfEnd(build, report, report.rows[r].radio, report.rows[r].id),
        compass ? tr("compass of %1")
                      .arg(QString::fromStdString(withinSentence(
                          displayName(build, report.compasses[std::size_t(report.columns[c].compass)].part))))
                : nameOfEnd(build, report, report.columns[c].radio, report.columns[c].id)));
    where_->setText(
        cell.practice_mm
            ? tr("%1 mm apart; builders keep %2 mm").arg(cell.distance_mm, 0, 'f', 0).arg(*cell.practice_mm, 0, 'f', 0)
            : tr("%1 mm apart").arg(cell.distance_mm, 0, 'f', 0));
}

QString PairCard::sumOf(const RadioCell &cell, bool compass) const {
    const Practice &practice = document_.analysis().practice;
    const auto &colors = theme_.colors();
    QString rows;
    const auto line = [&](const QString &name, double value, const char *unit, const QString &tip, bool lit = false) {
        rows += QStringLiteral("<tr><td title=\"%4\" style='color:%5; padding-right:14px'>%1</td>"
                               "<td align=right style='color:%6'>%2</td><td style='color:%5'>&nbsp;%3</td></tr>")
                    .arg(name, QString::number(value, 'f', 1), QString::fromLatin1(unit), tip.toHtmlEscaped(),
                         colors.muted.name(), (lit ? colors.stop : colors.ink).name());
    };
    if (cell.coupling) {
        const Coupling &k = *cell.coupling;
        line(tr("at %1 wavelengths").arg(k.distance_mm / k.lambda_mm, 0, 'f', 2), k.f_MHz, "MHz",
             tr("middle of the sender's channel; wavelength %1 mm").arg(k.lambda_mm, 0, 'f', 1));
        line(tr("free-space form"), k.far_dB, "dB", tr("gains less 20 log10(4 pi d/lambda): Friis 1946, ITU-R P.525"));
        line(k.exact ? tr("induced-EMF form") : tr("near-field form"), k.near_dB, "dB",
             tr("mutual impedance of two thin elements as they lie (Balanis); others: free space less what that "
                "formula overstates so near"));
        if (!k.exact) line(tr("polarisation"), -k.polarisation_dB, "dB", tr("mismatch of the two ellipses"));
        line(tr("shadow"), -k.shadow_dB, "dB", tr("edge in the way, ITU-R P.526; beyond one wavelength"));
        line(tr("cables, connectors"), -k.cable_dB, "dB", tr("coax by kind and length, 0.15 dB a connector"));
        if (k.offBand_dB > 0) line(tr("antenna out of band"), -k.offBand_dB, "dB", tr("common practice, no source"));
        line(tr("coupling"), k.total_dB, "dB",
             k.nearUsed ? tr("by the near-field form") : tr("by the free-space form"));
        line(tr("arrives"), cell.arrives_dBm, "dBm", tr("power sent plus coupling"));
        if (!cell.inBand)
            line(tr("rejected"), -cell.rejection_dB, "dB",
                 tr("selectivity of the listener and its slope for each octave"));
        line(tr("heard"), cell.heard_dBm, "dBm", tr("arrives less rejection"));
        if (!cell.inBand)
            line(tr("spilled into its band"), cell.spilled_dBm, "dBm", tr("the sender's own noise there"));
        if (cell.products_dBm)
            line(tr("products"), *cell.products_dBm, "dBm", tr("harmonics and mixing that land in its band"), true);
        line(tr("noise floor"), cell.floor_dBm, "dBm", tr("-174 + 10 log10 B + NF"));
        line(tr("floor rises by"), cell.rise_dB, "dB", tr("10 log10(1 + 10^((I - N)/10))"),
             cell.rise_dB > practice[Limit::desenseWatch]);
        line(tr("to overload"), cell.blockingMargin_dB, "dB", tr("blocking level less what arrives"),
             cell.blockingMargin_dB < practice[Limit::blockingReserve]);
    } else if (compass) {
        line(tr("field, level"), cell.field_uT, "µT", tr("Biot and Savart; dipoles for magnets"));
        line(tr("earth's field, level"), practice[Limit::earthField], "µT", tr("a limit of the practice: enter yours"));
        line(tr("heading turns by"), cell.heading_deg, "°", tr("asin(field / earth's field), the worst heading"),
             cell.heading_deg > practice[Limit::headingWatch]);
    }
    return rows;
}

QString PairCard::notesOn(const RadioReport &report, std::size_t r, std::size_t c) const {
    const Build &build = document_.build();
    const bool sender = report.rows[r].radio >= 0 && report.cell(r, c).coupling,
               compass = report.columns[c].compass >= 0;
    QStringList notes;
    if (sender) {
        const RadioUse &from = report.radios[std::size_t(report.rows[r].radio)],
                       &to = report.radios[std::size_t(report.columns[c].radio)];
        QStringList assumed;
        for (const RadioUse *use : {&from, &to})
            for (const auto &key : use->assumed)
                assumed << tr("%1 of %2")
                               .arg(QString::fromStdString(key),
                                    QString::fromStdString(withinSentence(displayName(build, use->part))));
        if (!assumed.isEmpty()) notes << tr("Not stated, assumed: %1.").arg(assumed.join(QStringLiteral(", ")));
    } else if (!compass) {
        notes << tr("Its noise is nobody's figure: the distance is what builders go by.");
    }
    notes << tr("Point at a line for its formula and source.");
    return notes.join(QLatin1Char(' '));
}

void PairCard::fillHelp(int sender, int listener) {
    while (QLayoutItem *item = help_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    const Derived &derived = document_.analysis().derived;
    std::vector<const RadioHelp *> helps;
    if (sender >= 0 && !document_.isPreviewing())
        for (const auto &pair : radioHelpFound(derived))
            if (pair.sender == derived.radio->radios[std::size_t(sender)].id() &&
                pair.listener == derived.radio->radios[std::size_t(listener)].id())
                for (const auto &help : pair.helps)
                    if (helps.size() < kMostHelps) helps.push_back(&help);
    helpTitle_->setVisible(!helps.empty());
    for (const RadioHelp *help : helps) {
        auto *button = new QPushButton;
        const QString what = QString::fromStdString(wordFix(document_.build(), help->fix).text());
        const bool aside = !help->cures && help->fix.as<SwitchOff>(); // a case of its own; those that are stay
        const QString then = help->silent ? tr("then silent")
                             : aside      ? tr("the receiver finds itself first")
                                     : (help->cures ? tr("then %1 dB, %2 mm") : tr("then %1 dB, %2 mm: not enough"))
                                           .arg(help->margin_dB, 0, 'f', 1)
                                           .arg(help->distance_mm, 0, 'f', 0);
        button->setFlat(true);
        button->setFont(theme_.text(theme::kSmallPixels));
        button->setText(brokenAt(what + QStringLiteral(" · ") + then, button->fontMetrics(), kHelpWidth_px));
        button->setToolTip(help->cures ? tr("Distance, noise and overload are inside the practice then")
                                       : tr("Better, but not inside the practice"));
        button->setProperty(theme::kLeft, true);
        const Fix fix = help->fix;
        connect(button, &QPushButton::clicked, this, [this, fix] {
            const auto keep = document_.radioPair();
            document_.edit(QString::fromStdString(wordFix(document_.build(), fix).text()),
                           applyFix(document_.build(), fix));
            document_.lookAtPair(keep);
        });
        help_->addWidget(button);
    }
}

} // namespace waxis::app
