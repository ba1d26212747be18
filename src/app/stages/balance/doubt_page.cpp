#include "app/stages/balance/doubt_page.h"

#include "app/widgets/mat_table.h"
#include "core/balance/case_balance.h"
#include "core/remedies/weigh_advice.h"
#include "core/rules/wording.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>

namespace waxis::balance {

DoubtPage::DoubtPage(app::Document &document, const theme::Theme &theme, StudyRunner &runner, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), runner_(runner) {
    target_ = new TargetView(document, theme, runner);
    target_->setObjectName("cloud");
    target_->setAccessibleName(tr("Drawn balances"));
    target_->showCloud(true);
    target_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    auto *sure = new theme::Card(theme, tr("How sure it is"));
    facts_ = new QLabel;
    facts_->setObjectName("doubt-facts");
    facts_->setTextFormat(Qt::RichText);
    facts_->setFont(theme.text(12));
    facts_->setWordWrap(true);
    sure->body().addWidget(facts_);
    auto *weigh = new theme::Card(theme, tr("Weigh next"));
    next_ = new theme::MatTable(theme, {tr("thing"), tr("g"), tr("±"), tr("share"), tr("then mm")});
    next_->setObjectName("weigh-next");
    next_->setAccessibleName(tr("What to weigh next"));
    next_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < next_->columnCount(); ++i)
        next_->horizontalHeader()->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    next_->horizontalHeaderItem(3)->setToolTip(tr("Share of the variance of the balance in plan"));
    next_->horizontalHeaderItem(4)->setToolTip(tr("Standard deviation in plan once it was weighed"));
    weigh->body().addWidget(next_, 1);
    advice_ = weigh->addNote();
    auto *right = new QVBoxLayout;
    right->setSpacing(8);
    right->addWidget(sure);
    right->addWidget(weigh, 1);
    auto *all = new QHBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 8);
    all->setSpacing(8);
    all->addWidget(target_, 52);
    all->addLayout(right, 48);
    connect(next_, &QTableWidget::cellClicked, this,
            [this](int row, int) { document_.select(next_->item(row, 0)->data(Qt::UserRole).toString()); });
    connect(&document_, &app::Document::changed, this, &DoubtPage::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &DoubtPage::refresh);
    connect(&runner_, &StudyRunner::ready, this, &DoubtPage::refresh);
    auto dress = [this] { refresh(); };
    connect(&theme_, &theme::Theme::changed, this, dress);
    dress();
}

QString DoubtPage::facts() const { return facts_->text(); }

void DoubtPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

void DoubtPage::refresh() {
    if (!isVisible()) return;
    const auto &c = theme_.colors();
    const CaseBalance *balance = document_.balance();
    const auto index = std::size_t(document_.loadCase());
    if (!balance || !balance->offset_mm) {
        facts_->setText(tr("Nothing to be sure of yet."));
        next_->setRowCount(0);
        advice_->clear();
        return;
    }
    const CaseStudy *study = runner_.caseStudy(document_.loadCase());
    const DrawnBalance *drawn = study && study->drawn.draws > 0 ? &study->drawn : nullptr;
    const auto chance = [](double share) {
        return share > 0.9995   ? tr("over 99.9 %")
               : share < 0.0005 ? tr("under 0.1 %")
                                : tr("%1 %").arg(100 * share, 0, 'f', 1);
    };
    QString text =
        QStringLiteral("<table cellspacing=3><tr><td></td><td align=right style='color:%1'>%2</td><td "
                       "align=right style='color:%1; padding-left:12px'>%3</td></tr>")
            .arg(c.softChalk.name(), tr("first order"), drawn ? tr("%1 draws").arg(drawn->draws) : tr("drawing..."));
    const auto line = [&](const QString &name, const QString &first, const QString &second) {
        text +=
            QStringLiteral("<tr><td style='color:%4; padding-right:10px'>%1</td><td align=right>%2</td><td align=right "
                           "style='padding-left:12px'>%3</td></tr>")
                .arg(name, first, second, c.softChalk.name());
    };
    const auto mm = [](double variance) {
        return tr("± %1 mm").arg(2 * std::sqrt(std::max(variance, 0.0)), 0, 'f', 2);
    };
    line(tr("all-up"), tr("± %1 g").arg(balance->tolerance_g, 0, 'f', 1),
         drawn ? tr("± %1 g").arg(2 * drawn->sigmaMass_g, 0, 'f', 1) : QString());
    line(tr("fore–aft"), mm(balance->cgCovariance_mm2(0, 0)), drawn ? mm(drawn->covariance_mm2(0, 0)) : QString());
    line(tr("left–right"), mm(balance->cgCovariance_mm2(1, 1)), drawn ? mm(drawn->covariance_mm2(1, 1)) : QString());
    line(tr("height"), mm(balance->cgCovariance_mm2(2, 2)), drawn ? mm(drawn->covariance_mm2(2, 2)) : QString());
    line(tr("inside %1 mm").arg(document_.analysis().derived.cgTolerance_mm, 0, 'g', 3),
         chance(balance->insideChance.value_or(0)), drawn ? chance(drawn->inside) : QString());
    text += QStringLiteral("</table>");
    text += QStringLiteral("<p style='color:%1'>%2</p>")
                .arg(c.softChalk.name(),
                     tr("Plus or minus two standard deviations. Where a weight or place states no doubt, "
                        "the practice's figure is taken."));
    facts_->setText(text);

    const WeighAdvice advice =
        weighAdvice(document_.analysis().derived.massRows, document_.analysis().derived.balance, index);
    const int rows = int(std::min<std::size_t>(12, advice.next.size()));
    next_->setRowCount(rows);
    for (int row = 0; row < rows; ++row) {
        const WeighNext &next = advice.next[std::size_t(row)];
        QString name = QString::fromStdString(displayName(document_.build(), next.id));
        if (next.pieces > 1) name = tr("%1 (one of %2 alike)").arg(name).arg(next.pieces);
        const QStringList texts{name, QString::number(next.mass_g, 'f', 1), QString::number(next.tolerance_g, 'f', 1),
                                tr("%1 %").arg(100 * next.share, 0, 'f', next.share < 0.095 ? 1 : 0),
                                QString::number(advice.sigma_mm * std::sqrt(std::max(0.0, 1 - next.share)), 'f', 2)};
        for (int col = 0; col < texts.size(); ++col) {
            QTableWidgetItem *cell = next_->item(row, col);
            if (!cell) next_->setItem(row, col, cell = new QTableWidgetItem);
            cell->setText(texts[col]);
            cell->setFont(col ? theme_.numbers(12) : theme_.text(12));
            cell->setTextAlignment(Qt::AlignVCenter | (col ? Qt::AlignRight : Qt::AlignLeft));
            cell->setForeground(c.chalk);
            cell->setData(Qt::UserRole, QString::fromStdString(next.id));
        }
    }
    advice_->setText(rows == 0
                         ? tr("Everything aboard was weighed.")
                         : tr("%1 g of %2 g were never weighed: they bring %3 % of the doubt (%4 mm in plan). The rest "
                              "is where things sit.")
                               .arg(advice.unweighed_g, 0, 'f', 0)
                               .arg(advice.total_g, 0, 'f', 0)
                               .arg(100 * advice.unweighedShare, 0, 'f', 0)
                               .arg(advice.sigma_mm, 0, 'f', 2));
}

} // namespace waxis::balance
