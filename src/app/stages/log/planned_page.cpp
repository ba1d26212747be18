#include "app/stages/log/planned_page.h"

#include "core/base/by_id.h"
#include "core/instructions/log_words.h"
#include "core/measured/log_report.h"
#include "core/rules/wording.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::logbench {

namespace {

enum Column { kWhat, kPlanned, kMeasured, kApart, kVerdict, kColumns };
constexpr int kSigmas = Qt::UserRole + 1, kLimitRole = Qt::UserRole + 2;
constexpr int kRest_ms = 120;

/// A bar from the middle: the difference in standard deviations, with the practice's limit as two marks.
class ApartBar : public QStyledItemDelegate {
public:
    ApartBar(const theme::Theme &theme, QObject *parent) : QStyledItemDelegate(parent), theme_(theme) {}
    void paint(QPainter *painter, const QStyleOptionViewItem &option, const QModelIndex &index) const override {
        QStyledItemDelegate::paint(painter, option, index);
        const QVariant value = index.data(kSigmas);
        if (!value.isValid()) return;
        constexpr double kWidest = 6; // standard deviations at the edge
        const double sigmas = value.toDouble(), limit = index.data(kLimitRole).toDouble();
        const QRectF box = QRectF(option.rect).adjusted(6, 6, -6, -6);
        const double middle = box.center().x(), scale = box.width() / 2 / kWidest;
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        painter->setPen(QPen(theme_.colors().softChalk, 1));
        painter->drawLine(QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y()));
        for (const double at : {-limit, 0.0, limit})
            painter->drawLine(QPointF(middle + at * scale, box.top()), QPointF(middle + at * scale, box.bottom()));
        const double end = std::clamp(sigmas, -kWidest, kWidest);
        const bool apart = std::abs(sigmas) > limit;
        const QColor colour = apart ? theme::severityOnMat(Severity::watch) : theme_.colors().thrustAxis;
        painter->fillRect(QRectF(QPointF(middle + std::min(0.0, end) * scale, box.center().y() - 3),
                                 QSizeF(std::abs(end) * scale, 6)),
                          colour);
        if (std::abs(sigmas) > kWidest) { // farther than the scale: an arrow at its end
            const double x = middle + end * scale, way = sigmas > 0 ? -5 : 5;
            QPolygonF arrow{QPointF(x, box.center().y()), QPointF(x + way, box.top()), QPointF(x + way, box.bottom())};
            painter->setBrush(colour);
            painter->setPen(Qt::NoPen);
            painter->drawPolygon(arrow);
        }
        painter->restore();
    }

private:
    const theme::Theme &theme_;
};

QString withDoubt(double value, double sigma) {
    return sigma > 0 ? PlannedPage::tr("%1 ± %2").arg(QString::fromStdString(threeDigits(value)),
                                                      QString::fromStdString(threeDigits(2 * sigma)))
                     : QString::fromStdString(threeDigits(value));
}

QString headlines(const Build &build, const std::vector<Finding> &findings) {
    constexpr std::size_t kShown = 3;
    QStringList words;
    for (std::size_t i = 0; i < findings.size() && i < kShown; ++i)
        words << QString::fromStdString(wordFinding(build, findings[i]).headline.text());
    if (findings.size() > kShown) words << PlannedPage::tr("%n more", nullptr, int(findings.size() - kShown));
    return words.join(QStringLiteral("; "));
}

} // namespace

QString differenceInWords(const Build &before, const Build &after, const StateDifference &difference) {
    QStringList words;
    for (const auto &one : difference.cases) {
        const auto cases = effectiveLoadCases(after);
        const LoadCase *loadCase = byId(cases, one.loadCase);
        QStringList changes;
        if (std::abs(one.after_g - one.before_g) >= 0.05)
            changes << PlannedPage::tr("%1 to %2 g").arg(one.before_g, 0, 'f', 1).arg(one.after_g, 0, 'f', 1);
        if (one.before_mm && one.after_mm && (*one.after_mm - *one.before_mm).norm() >= 0.05)
            changes << PlannedPage::tr("balance %1 mm off to %2 mm")
                           .arg(one.before_mm->head<2>().norm(), 0, 'f', 1)
                           .arg(one.after_mm->head<2>().norm(), 0, 'f', 1);
        if (one.before_s && one.after_s && std::abs(*one.after_s - *one.before_s) >= 0.5)
            changes << PlannedPage::tr("%1 s of flight").arg(*one.after_s - *one.before_s, 0, 'f', 0);
        if (!changes.isEmpty() && loadCase)
            words << QString::fromStdString(loadCase->name) + ": " + changes.join(QStringLiteral(", "));
        if (words.size() >= 2) break;
    }
    if (!difference.findingsGone.empty())
        words << PlannedPage::tr("Mends: %1").arg(headlines(before, difference.findingsGone));
    if (!difference.findingsCame.empty())
        words << PlannedPage::tr("Brings: %1").arg(headlines(after, difference.findingsCame));
    return words.isEmpty() ? PlannedPage::tr("No finding comes or goes") : words.join(QStringLiteral(". "));
}

PlannedPage::PlannedPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme),
      outcome_(
          kRest_ms,
          [this]() -> app::Background<StateDifference>::Work {
              const Row *row = current();
              if (!row || row->feedback.empty()) return {};
              const auto next = taken(*row);
              if (!next) return {};
              return [before = document_.build(), after = *next](const std::atomic<bool> &) {
                  return differenceBetween(before, after);
              };
          },
          [this](const StateDifference &difference) {
              const Row *row = current();
              const auto next = row ? taken(*row) : EditResult(Failure{EditError{}});
              if (next)
                  would_->setText(tr("Taken over: %1.").arg(differenceInWords(document_.build(), *next, difference)));
          }) {
    table_ =
        new theme::MatTable(theme_, {tr("what"), tr("planned"), tr("measured"), tr("apart, in doubts"), tr("verdict")});
    table_->setObjectName("log-planned");
    table_->setAccessibleName(tr("Planned against measured"));
    table_->setEmptyText(
        tr("Nothing was measured yet. Entries of weights, lengths, currents and flights stand here beside "
           "what was planned."));
    table_->setItemDelegateForColumn(kApart, new ApartBar(theme_, this));
    table_->setTips({tr("What both are known of"), tr("By the model, ± two standard deviations"),
                     tr("The median where it was measured several times"),
                     tr("Difference in standard deviations of both together; the marks are the practice's limit"),
                     tr("Whether plan and measurement can both be right")});
    constexpr std::array<int, kColumns> kWidths{0, 104, 130, 126, 66};
    table_->horizontalHeader()->setSectionResizeMode(kWhat, QHeaderView::Stretch);
    for (int i = 1; i < kColumns; ++i) table_->horizontalHeader()->resizeSection(i, kWidths[std::size_t(i)]);
    for (const int left : {int(kWhat), int(kVerdict)})
        table_->horizontalHeaderItem(left)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    detail_ = new QLabel;
    detail_->setObjectName("planned-detail");
    would_ = new QLabel;
    would_->setObjectName("planned-would");
    for (QLabel *label : {detail_, would_}) {
        label->setWordWrap(true);
        label->setFont(theme_.text(12));
    }
    // Room for what it says, so that the rows above do not move under the pointer.
    constexpr int kSaid_px = 74;
    would_->setMinimumHeight(kSaid_px);
    would_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    take_ = new QPushButton(tr("Take it over"));
    take_->setObjectName("planned-take");
    take_->setToolTip(tr("What was measured becomes what is planned; Undo takes it back"));
    auto *words = new QVBoxLayout;
    words->addWidget(detail_);
    words->addWidget(would_);
    auto *line = new QHBoxLayout;
    line->addLayout(words, 1);
    line->addWidget(take_, 0, Qt::AlignTop);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->addWidget(table_, 1);
    all->addLayout(line);
    connect(table_, &QTableWidget::currentCellChanged, this, [this] { tell(); });
    connect(take_, &QPushButton::clicked, this, &PlannedPage::take);
    connect(&document_, &app::Document::changed, this, &PlannedPage::fill);
}

void PlannedPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    fill();
}

const PlannedPage::Row *PlannedPage::current() const {
    const int row = table_->currentRow();
    return row >= 0 && row < int(rows_.size()) ? &rows_[std::size_t(row)] : nullptr;
}

EditResult PlannedPage::taken(const Row &row) const {
    EditResult next = document_.build();
    for (const auto &feedback : row.feedback)
        if (next) next = takeFeedback(*next, feedback);
    return next;
}

void PlannedPage::fill() {
    if (!isVisible()) return;
    const Build &build = document_.build();
    const LogReport &report = *document_.analysis().derived.log;
    const double limit = document_.analysis().practice[Limit::measuredApart];
    const int current = table_->currentRow();
    rows_.clear();
    struct Shown {
        std::array<QString, kColumns> cells;
        std::optional<double> sigmas;
        bool apart = false;
    };
    std::vector<Shown> shown;
    for (const auto &row : report.rows) {
        const QString unit = QString::fromUtf8(row.unit.data(), qsizetype(row.unit.size()));
        Shown one;
        one.cells[kWhat] = QString::fromStdString(wordRow(build, row).text());
        one.cells[kPlanned] = row.planned ? withDoubt(*row.planned, row.plannedSigma) + " " + unit : tr("not planned");
        one.cells[kMeasured] = withDoubt(row.measured, row.measuredSigma) + " " + unit;
        if (row.entries > 1) one.cells[kMeasured] += tr(" (%1×)").arg(row.entries);
        if (row.planned) one.sigmas = row.sigmas;
        one.apart = row.agreement == Agreement::apart;
        one.cells[kVerdict] = one.apart ? tr("apart") : row.agreement == Agreement::agrees ? tr("agrees") : QString();
        rows_.push_back({row.feedback, one.cells[kWhat]});
        shown.push_back(std::move(one));
    }
    if (!report.leads.wires.empty()) {
        Shown one;
        one.cells[kWhat] = tr("Leads cut, against the cut list");
        one.cells[kPlanned] = tr("%1 leads").arg(report.leads.wires.size());
        one.cells[kMeasured] = tr("%1 mm (%2 to %3)")
                                   .arg(report.leads.median_mm, 0, 'f', 0)
                                   .arg(report.leads.low_mm, 0, 'f', 0)
                                   .arg(report.leads.high_mm, 0, 'f', 0);
        one.apart = report.slack.has_value();
        one.cells[kVerdict] = one.apart ? tr("a habit") : tr("no habit");
        rows_.push_back(
            {report.slack ? std::vector<Feedback>{*report.slack} : std::vector<Feedback>{}, one.cells[kWhat]});
        shown.push_back(std::move(one));
    }
    table_->setRowCount(int(shown.size()));
    {
        const theme::Refill filling(*table_);
        for (int row = 0; row < table_->rowCount(); ++row)
            for (int column = 0; column < kColumns; ++column) {
                const Shown &one = shown[std::size_t(row)];
                QTableWidgetItem *cell = table_->item(row, column);
                if (!cell) table_->setItem(row, column, cell = new QTableWidgetItem);
                cell->setText(one.cells[std::size_t(column)]);
                cell->setToolTip(one.cells[std::size_t(column)]);
                cell->setTextAlignment((column == kWhat || column == kVerdict ? Qt::AlignLeft : Qt::AlignRight) |
                                       Qt::AlignVCenter);
                cell->setForeground(one.apart && column == kVerdict ? theme::severityOnMat(Severity::watch)
                                                                    : theme_.colors().chalk);
                if (column == kApart) {
                    cell->setData(kSigmas, one.sigmas ? QVariant(*one.sigmas) : QVariant());
                    cell->setData(kLimitRole, limit);
                }
            }
    }
    if (current >= 0 && current < table_->rowCount()) table_->setCurrentCell(current, kWhat);
    tell();
}

void PlannedPage::tell() {
    const Row *row = current();
    detail_->clear();
    would_->clear();
    take_->setVisible(row && !row->feedback.empty());
    const int at = table_->currentRow();
    const LogReport &report = *document_.analysis().derived.log;
    if (row && at < int(report.rows.size())) {
        const PlannedMeasured &one = report.rows[std::size_t(at)];
        if (one.planned)
            detail_->setText(tr("%1 standard deviations of both together; %2 is what the practice lets pass.")
                                 .arg(std::abs(one.sigmas), 0, 'f', 1)
                                 .arg(document_.analysis().practice[Limit::measuredApart]));
        if (!one.subject.empty() && findPart(document_.build(), one.subject))
            document_.select(QString::fromStdString(one.subject));
    } else if (row) {
        detail_->setText(tr("%1 of %2 were cut longer; by chance alone they would lie so in %3 % of cases.")
                             .arg(report.leads.longer)
                             .arg(report.leads.wires.size())
                             .arg(100 * report.leads.chance, 0, 'f', 1));
    }
    if (row && !row->feedback.empty()) {
        QStringList words;
        for (const auto &feedback : row->feedback)
            words << QString::fromStdString(wordFix(document_.build(), Fix{{}, feedback}).text());
        would_->setText(tr("%1: looking what that changes…").arg(words.join(QStringLiteral(", "))));
        outcome_.ask();
    } else {
        outcome_.cancel();
    }
}

void PlannedPage::take() {
    const Row *row = current();
    if (row && !row->feedback.empty()) document_.edit(tr("Take over what was measured"), taken(*row));
}

} // namespace waxis::logbench
