#include "app/stages/balance/grams_page.h"

#include "app/stages/balance/group_words.h"
#include "app/theme/metrics.h"
#include "app/widgets/file_dialogs.h"
#include "app/widgets/mat_table.h"
#include "app/widgets/texts.h"
#include "app/widgets/typed_number.h"
#include "core/balance/case_balance.h"
#include "core/edits/balance_edits.h"
#include "core/rules/wording.h"
#include "io/csv/mass_csv.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>
#include <map>

namespace waxis::balance {

namespace {

constexpr std::size_t kHeaviest = 20;

/// Moments in g m with one decimal and a sign, as plus is forward or left.
QString moment(double gmm) {
    const double value = std::round(gmm / 100) / 10;
    return value == 0 ? QStringLiteral("0.0")
                      : QStringLiteral("%1%2").arg(value > 0 ? QStringLiteral("+") : QStringLiteral("−"),
                                                   QString::number(std::abs(value), 'f', 1));
}

QString nameOfRow(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }

/// Rows of one kind together: four motors raise the inertia as one.
struct Alike {
    QString name;
    std::string first; ///< id of one of them
    int count = 0;
    GramGroup group = GramGroup::power;
    Vec3 inertia_gmm2 = Vec3::Zero();
};
std::vector<Alike> alikeTogether(const Build &build, const Breakdown &breakdown) {
    std::map<std::string, Alike> kinds;
    const auto kindOf = [&](const RowShare &row) -> std::pair<std::string, QString> {
        if (const Part *part = findPart(build, row.id)) {
            const PartType *type = typeOf(build, *part);
            return {"type " + part->type, QString::fromStdString(type ? type->name : part->name)};
        }
        const auto &arms = build.frame->arms;
        if (std::any_of(arms.begin(), arms.end(), [&](const Arm &a) { return a.id == row.id; }))
            return {"arms", GramsPage::tr("arms")};
        return {row.id, nameOfRow(build, row.id)};
    };
    for (const auto &row : breakdown.rows) {
        const auto [key, name] = kindOf(row);
        Alike &alike = kinds[key];
        if (alike.count++ == 0) {
            alike.name = nameOfRow(build, row.id);
            alike.first = row.id;
            alike.group = row.group;
        } else
            alike.name = GramsPage::tr("%1 × %2").arg(alike.count).arg(name);
        alike.inertia_gmm2 += row.inertia_gmm2;
    }
    std::vector<Alike> list;
    for (auto &[key, alike] : kinds) list.push_back(std::move(alike));
    return list;
}

} // namespace

GramsPage::GramsPage(app::Document &document, const theme::Theme &theme, StudyRunner &runner, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), runner_(runner) {
    auto *rows = new theme::Card(theme, tr("The heaviest twenty, and what they pull"));
    table_ = new theme::MatTable(theme, {tr("thing"), tr("g"), tr("±"), tr("source"), tr("fore g·m"), tr("left g·m")});
    table_->setObjectName("heaviest");
    table_->setAccessibleName(tr("Heaviest things aboard"));
    const QStringList tips{tr("A click chooses it"),
                           tr("Grams"),
                           tr("Plus or minus, two standard deviations"),
                           tr("Where the weight comes from"),
                           tr("Moment about the thrust centre: plus pulls the nose down, minus the tail"),
                           tr("Moment about the thrust centre: plus pulls the left side down")};
    for (int i = 0; i < tips.size(); ++i) table_->horizontalHeaderItem(i)->setToolTip(tips[i]);
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < table_->columnCount(); ++i)
        table_->horizontalHeader()->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    table_->verticalHeader()->setDefaultSectionSize(20);
    sum_ = new QLabel;
    sum_->setObjectName("note");
    sum_->setFont(theme.text(theme::kSmallPixels));
    sum_->setWordWrap(true);
    auto *save = new QToolButton;
    save->setObjectName("save-mass-table");
    save->setText(tr("Save as CSV…"));
    save->setToolTip(tr("Everything that weighs, with where and in which load case"));
    auto *copy = new QToolButton;
    copy->setText(tr("Copy"));
    copy->setToolTip(tr("The whole mass table as CSV"));
    auto *foot = new QHBoxLayout;
    foot->addWidget(sum_, 1);
    foot->addWidget(copy);
    foot->addWidget(save);
    rows->body().addWidget(table_, 1);
    rows->body().addLayout(foot);

    auto *turning = new theme::Card(theme, tr("Inertia, and what raises it most"));
    for (std::size_t i = 0; i < 3; ++i) {
        axis_[i] = turning->addNote();
        inertia_[i] = new BarList(theme, tr("What raises the inertia"));
        turning->body().addWidget(inertia_[i]);
        connect(inertia_[i], &BarList::chosen, this, [this](const QString &id) { document_.select(id); });
    }

    auto *limits = new theme::Card(theme, tr("Weight limits"));
    limits_ = new theme::MatTable(theme, {tr("limit"), tr("g"), tr("left g")});
    limits_->setObjectName("weight-limits");
    limits_->setAccessibleName(tr("Weight limits"));
    limits_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    limits_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
    limitName_ = new QLineEdit;
    limitName_->setObjectName("limit-name");
    limitName_->setAccessibleName(tr("Name of the new weight limit"));
    limitName_->setPlaceholderText(tr("name"));
    limitGrams_ = new QLineEdit;
    limitGrams_->setObjectName("limit-grams");
    limitGrams_->setAccessibleName(tr("New weight limit in grams"));
    limitGrams_->setPlaceholderText(tr("grams"));
    limitGrams_->setFont(theme.numbers(12));
    limitGrams_->setFixedWidth(70);
    auto *add = new QToolButton;
    add->setObjectName("limit-add");
    add->setText(tr("Add"));
    removeLimit_ = new QToolButton;
    removeLimit_->setObjectName("limit-remove");
    removeLimit_->setText(tr("Remove"));
    auto *entry = new QHBoxLayout;
    entry->addWidget(limitName_, 1);
    entry->addWidget(limitGrams_);
    entry->addWidget(add);
    entry->addWidget(removeLimit_);
    limits->body().addWidget(limits_);
    limits->body().addLayout(entry);
    limitNote_ = limits->addNote();
    limitNote_->setText(tr("Weight classes and what they ask are set by local law; the program knows none of it."));

    auto *lose = new theme::Card(theme, tr("Grams to lose"));
    savings_ = new theme::MatTable(theme, {tr("what"), tr("g")});
    savings_->setObjectName("savings");
    savings_->setAccessibleName(tr("Grams to lose"));
    savings_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    savings_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
    savings_->verticalHeader()->setDefaultSectionSize(20);
    savingNote_ = lose->addNote();
    apply_ = new QToolButton;
    apply_->setObjectName("saving-apply");
    apply_->setText(tr("Do it"));
    lose->body().insertWidget(1, savings_, 1);
    auto *doIt = new QHBoxLayout;
    doIt->addWidget(savingNote_, 1);
    doIt->addWidget(apply_);
    lose->body().addLayout(doIt);

    auto *right = new QVBoxLayout;
    right->setSpacing(8);
    right->addWidget(turning);
    right->addWidget(limits);
    right->addWidget(lose, 1);
    auto *all = new QHBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 8);
    all->setSpacing(8);
    all->addWidget(rows, 58);
    all->addLayout(right, 42);

    connect(table_, &QTableWidget::cellClicked, this,
            [this](int row, int) { document_.select(table_->item(row, 0)->data(Qt::UserRole).toString()); });
    connect(save, &QToolButton::clicked, this, &GramsPage::saveCsv);
    connect(copy, &QToolButton::clicked, this, [this] {
        QGuiApplication::clipboard()->setText(asCsv());
        emit said(tr("Mass table copied as CSV."), false);
    });
    connect(add, &QToolButton::clicked, this, [this] {
        const auto grams = app::typedNumber(limitGrams_->text(), Measure::mass);
        if (!grams || !(*grams > 0)) {
            emit document_.refused(
                tr("\"%1\" is no weight: grams, more than zero, are wanted.").arg(limitGrams_->text()));
            return;
        }
        const QString name =
            limitName_->text().trimmed().isEmpty() ? tr("Under %1 g").arg(*grams) : limitName_->text().trimmed();
        if (document_.edit(tr("Weight limit %1").arg(name),
                           addWeightLimit(document_.build(), name.toStdString(), *grams))) {
            limitName_->clear();
            limitGrams_->clear();
        }
    });
    connect(limitGrams_, &QLineEdit::returnPressed, add, &QToolButton::click);
    connect(removeLimit_, &QToolButton::clicked, this, [this] {
        if (const auto *cell = limits_->item(limits_->currentRow(), 0))
            document_.edit(tr("Remove a weight limit"),
                           removeWeightLimit(document_.build(), cell->data(Qt::UserRole).toString().toStdString()));
    });
    connect(limits_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem *item) {
        if (filling_ || item->column() > 1) return;
        const std::string id = limits_->item(item->row(), 0)->data(Qt::UserRole).toString().toStdString();
        for (const auto &limit : document_.build().weightLimits) {
            if (limit.id != id) continue;
            WeightLimit next = limit;
            if (item->column() == 0)
                next.name = item->text().trimmed().toStdString();
            else if (const auto grams = app::typedNumber(item->text(), Measure::mass))
                next.most_g = *grams;
            else
                emit document_.refused(app::notUnderstood(item->text(), Measure::mass));
            if (!(next == limit)) document_.edit(tr("Change a weight limit"), editWeightLimit(document_.build(), next));
            break;
        }
        QMetaObject::invokeMethod(
            this, [this] { refreshLimits(); }, Qt::QueuedConnection);
    });
    connect(savings_, &QTableWidget::itemSelectionChanged, this, [this] {
        const auto *study = runner_.caseStudy(document_.loadCase());
        const int row = savings_->currentRow();
        apply_->setEnabled(study && row >= 0 && std::size_t(row) < study->savings.size() && !runner_.isStale() &&
                           study->savings[std::size_t(row)].canApply());
    });
    connect(apply_, &QToolButton::clicked, this, [this] {
        const auto *study = runner_.caseStudy(document_.loadCase());
        const int row = savings_->currentRow();
        if (!study || row < 0 || std::size_t(row) >= study->savings.size() || runner_.isStale()) return;
        const GramSaving saving = study->savings[std::size_t(row)];
        document_.edit(tr("Lose %1 g").arg(saving.saves_g, 0, 'f', 1),
                       applySaving(document_.build(), saving, document_.balance()->loadCase.id));
    });
    connect(&document_, &app::Document::changed, this, &GramsPage::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &GramsPage::refresh);
    connect(&runner_, &StudyRunner::ready, this, &GramsPage::refreshSavings);
    connect(&theme_, &theme::Theme::changed, this, &GramsPage::refresh);
}

void GramsPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

void GramsPage::refresh() {
    if (!isVisible()) return;
    refreshRows();
    refreshLimits();
    refreshSavings();
}

void GramsPage::refreshRows() {
    const auto &derived = document_.analysis().derived;
    const auto index = std::size_t(document_.loadCase());
    const auto &c = theme_.colors();
    Breakdown breakdown;
    if (index < derived.balance.size())
        breakdown =
            breakdownOf(document_.build(), derived.massRows, index, derived.balance[index], derived.thrustCentre_mm);
    const std::size_t shown = std::min(kHeaviest, breakdown.rows.size());
    table_->setRowCount(int(shown));
    const theme::Refill filling(*table_);
    for (std::size_t r = 0; r < shown; ++r) {
        const RowShare &row = breakdown.rows[r];
        const QString source = row.source == Source::measured    ? tr("weighed")
                               : row.source == Source::catalogue ? tr("catalogue")
                                                                 : tr("estimated");
        const QStringList texts{nameOfRow(document_.build(), row.id),
                                QString::number(row.mass_g, 'f', row.mass_g < 1000 ? 1 : 0),
                                QString::number(row.tolerance_g, 'f', 1),
                                source,
                                moment(row.moment_gmm.x()),
                                moment(row.moment_gmm.y())};
        for (int col = 0; col < texts.size(); ++col) {
            QTableWidgetItem *cell = table_->item(int(r), col);
            if (!cell) table_->setItem(int(r), col, cell = new QTableWidgetItem);
            cell->setText(texts[col]);
            cell->setToolTip(col == 0 ? groupWord(row.group) : QString());
            const bool words = col == 0 || col == 3;
            cell->setFont(words ? theme_.text(12) : theme_.numbers(12));
            cell->setTextAlignment(Qt::AlignVCenter | (words ? Qt::AlignLeft : Qt::AlignRight));
            cell->setForeground(col == 3 && row.source != Source::measured ? c.softChalk : c.chalk);
            cell->setData(Qt::UserRole, QString::fromStdString(row.id));
        }
    }
    double rest = 0;
    for (std::size_t r = shown; r < breakdown.rows.size(); ++r) rest += breakdown.rows[r].mass_g;
    sum_->setText(breakdown.rows.empty()
                      ? tr("Nothing aboard has a weight yet.")
                      : tr("All %1 things: %2 g·m fore-aft, %3 g·m left-right. The other %4 weigh %5 g.")
                            .arg(breakdown.rows.size())
                            .arg(moment(breakdown.moment_gmm.x()), moment(breakdown.moment_gmm.y()))
                            .arg(breakdown.rows.size() - shown)
                            .arg(rest, 0, 'f', 1));
    const std::array<QString, 3> names{tr("roll"), tr("pitch"), tr("yaw")};
    for (int axis = 0; axis < 3; ++axis) {
        auto rows = alikeTogether(document_.build(), breakdown);
        std::stable_sort(rows.begin(), rows.end(), [axis](const Alike &a, const Alike &b) {
            return a.inertia_gmm2[axis] > b.inertia_gmm2[axis];
        });
        const double all = breakdown.inertia_gmm2[axis];
        axis_[std::size_t(axis)]->setText(
            all > 0 ? tr("%1: %2 kg·cm²")
                          .arg(names[std::size_t(axis)], QString::number(all * 1e-5, 'f', all * 1e-5 < 100 ? 1 : 0))
                    : names[std::size_t(axis)]);
        std::vector<Bar> bars;
        for (std::size_t r = 0; r < std::min<std::size_t>(2, rows.size()) && all > 0; ++r)
            bars.push_back({rows[r].name,
                            tr("%1 %").arg(100 * rows[r].inertia_gmm2[axis] / all, 0, 'f', 0),
                            rows[r].inertia_gmm2[axis],
                            {},
                            groupColor(rows[r].group, theme_),
                            QString::fromStdString(rows[r].first),
                            {}});
        inertia_[std::size_t(axis)]->show(std::move(bars));
    }
}

void GramsPage::refreshLimits() {
    filling_ = true;
    const Build &build = document_.build();
    const CaseBalance *balance = document_.balance();
    const auto &c = theme_.colors();
    limits_->setRowCount(int(build.weightLimits.size()));
    for (int row = 0; row < limits_->rowCount(); ++row) {
        const WeightLimit &limit = build.weightLimits[std::size_t(row)];
        const bool counts =
            balance && !balance->loadCase.folded && (limit.loadCase.empty() || limit.loadCase == balance->loadCase.id);
        const double left = counts ? limit.most_g - balance->mass.mass_g : 0;
        const QStringList texts{QString::fromStdString(limit.name), QString::number(limit.most_g),
                                counts ? QString::fromStdString(oneDecimal(left)) : QStringLiteral("–")};
        for (int col = 0; col < 3; ++col) {
            auto *cell = new QTableWidgetItem(texts[col]);
            cell->setFont(col ? theme_.numbers(12) : theme_.text(12));
            cell->setTextAlignment(Qt::AlignVCenter | (col ? Qt::AlignRight : Qt::AlignLeft));
            if (col == 2) cell->setFlags(cell->flags() & ~Qt::ItemIsEditable);
            cell->setForeground(col == 2 && left < 0 ? theme::severityOnMat(Severity::watch) : c.chalk);
            cell->setData(Qt::UserRole, QString::fromStdString(limit.id));
            limits_->setItem(row, col, cell);
        }
    }
    limits_->setVisible(limits_->rowCount() > 0);
    limits_->setFixedHeight(limits_->horizontalHeader()->sizeHint().height() +
                            22 * std::clamp(limits_->rowCount(), 1, 3) + 4);
    removeLimit_->setEnabled(limits_->rowCount() > 0);
    filling_ = false;
}

void GramsPage::refreshSavings() {
    if (!isVisible()) return;
    const auto *study = runner_.caseStudy(document_.loadCase());
    const auto &c = theme_.colors();
    const std::size_t count = study ? study->savings.size() : 0;
    savings_->setRowCount(int(count));
    for (std::size_t r = 0; r < count; ++r) {
        const GramSaving &saving = study->savings[r];
        const QStringList texts{app::say(wordSaving(document_.build(), saving)),
                                QString::number(saving.saves_g, 'f', 1)};
        for (int col = 0; col < 2; ++col) {
            QTableWidgetItem *cell = savings_->item(int(r), col);
            if (!cell) savings_->setItem(int(r), col, cell = new QTableWidgetItem);
            cell->setText(texts[col]);
            cell->setToolTip(texts[0]);
            cell->setFont(col ? theme_.numbers(12) : theme_.text(12));
            cell->setTextAlignment(Qt::AlignVCenter | (col ? Qt::AlignRight : Qt::AlignLeft));
            cell->setForeground(saving.canApply() ? c.chalk : c.softChalk);
        }
    }
    apply_->setEnabled(false);
    savingNote_->setText(!study       ? tr("Looking for grams...")
                         : count == 0 ? tr("Nothing that the program knows of.")
                                      : tr("Only what the program knows of. Pale rows are work for the hands."));
}

QString GramsPage::asCsv() const {
    return QString::fromStdString(writeMassTable(document_.build(), document_.analysis().derived));
}

void GramsPage::saveCsv() {
    if (const auto saved = app::saveTextAsking(this, tr("Save the mass table"), document_.title() + "-mass-table.csv",
                                               tr("CSV (*.csv)"), asCsv().toStdString()))
        emit said(saved->said, saved->bad);
}

} // namespace waxis::balance
