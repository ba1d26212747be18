#include "app/stages/balance/weighings_page.h"

#include "app/theme/metrics.h"
#include "app/widgets/mat_table.h"
#include "app/widgets/texts.h"
#include "app/widgets/typed_number.h"
#include "core/balance/reconcile.h"
#include "core/edits/balance_edits.h"
#include "core/rules/wording.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::balance {

namespace {
QString one(double value) { return QString::fromStdString(oneDecimal(value)); }
} // namespace

WeighingsPage::WeighingsPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    auto *left = new theme::Card(theme, tr("What was measured of the whole craft"));
    auto *adds = new QHBoxLayout;
    const std::array<std::tuple<QString, const char *, QString, WeighingMethod>, 3> methods{
        {{tr("On a scale"), "add-total", tr("The whole craft on one scale"), WeighingMethod::total},
         {tr("On three scales"), "add-scales", tr("Level, on three scales: gives weight and centre of gravity"),
          WeighingMethod::scales},
         {tr("Balanced on a rod"), "add-lines", tr("Balanced on a rod across and along: gives the centre of gravity"),
          WeighingMethod::lines}}};
    for (const auto &[text, name, tip, method] : methods) {
        auto *button = new QToolButton;
        button->setText(text);
        button->setObjectName(name);
        button->setToolTip(tip);
        button->setFocusPolicy(Qt::TabFocus);
        connect(button, &QToolButton::clicked, this, [this, method = method] { add(method); });
        adds->addWidget(button);
    }
    adds->addStretch(1);
    remove_ = new QToolButton;
    remove_->setObjectName("weighing-remove");
    remove_->setText(tr("Remove"));
    adds->addWidget(remove_);
    left->body().addLayout(adds);
    list_ = new theme::MatTable(theme, {tr("weighing"), tr("measured"), tr("planned"), tr("apart")});
    list_->setObjectName("weighings");
    list_->setAccessibleName(tr("Weighings"));
    list_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < 4; ++i) list_->horizontalHeader()->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    left->body().addWidget(list_);

    form_ = new QWidget;
    auto *grid = new QGridLayout(form_);
    grid->setContentsMargins(0, 4, 0, 0);
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(4);
    const auto field = [&](const QString &label, const char *name, int row, const QString &spoken) {
        auto *words = new QLabel(label);
        words->setObjectName("note");
        auto *edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setAccessibleName(spoken);
        grid->addWidget(words, row, 0);
        grid->addWidget(edit, row, 1);
        return std::pair(words, edit);
    };
    name_ = field(tr("name"), "weighing-name", 0, tr("Name of the weighing")).second;
    auto *caseLabel = new QLabel(tr("load case"));
    caseLabel->setObjectName("note");
    loadCase_ = new QComboBox;
    loadCase_->setObjectName("weighing-case");
    loadCase_->setAccessibleName(tr("Load case that was weighed"));
    grid->addWidget(caseLabel, 1, 0);
    grid->addWidget(loadCase_, 1, 1);
    std::tie(totalLabel_, total_) =
        field(tr("the scale read"), "weighing-total", 2, tr("What the scale read in grams, with its doubt"));
    total_->setFont(theme.numbers(12));
    numbers_ = new theme::MatTable(theme, {QString(), QString(), QString()});
    numbers_->setObjectName("weighing-numbers");
    numbers_->setEditTriggers(QAbstractItemView::AllEditTriggers);
    numbers_->setSelectionBehavior(QAbstractItemView::SelectItems);
    numbers_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    grid->addWidget(numbers_, 3, 0, 1, 2);
    auto *buttons = new QHBoxLayout;
    more_ = new QToolButton;
    more_->setObjectName("weighing-more");
    more_->setText(tr("One more"));
    fewer_ = new QToolButton;
    fewer_->setObjectName("weighing-fewer");
    fewer_->setText(tr("One less"));
    buttons->addWidget(more_);
    buttons->addWidget(fewer_);
    buttons->addStretch(1);
    grid->addLayout(buttons, 4, 0, 1, 2);
    std::tie(scaleLabel_, scaleDoubt_) =
        field(tr("a scale is true to"), "weighing-scale-doubt", 5, tr("Doubt of a reading in grams"));
    std::tie(placeLabel_, placeDoubt_) =
        field(tr("places are true to"), "weighing-place-doubt", 6, tr("Doubt of places and lines in millimetres"));
    scaleDoubt_->setFont(theme.numbers(12));
    placeDoubt_->setFont(theme.numbers(12));
    hint_ = new QLabel;
    hint_->setObjectName("note");
    hint_->setFont(theme.text(theme::kSmallPixels));
    hint_->setWordWrap(true);
    grid->addWidget(hint_, 7, 0, 1, 2);
    result_ = new QLabel;
    result_->setObjectName("weighing-result");
    result_->setFont(theme.text(12));
    result_->setWordWrap(true);
    grid->addWidget(result_, 8, 0, 1, 2);
    left->body().addWidget(form_);
    left->body().addStretch(1);

    auto *right = new theme::Card(theme, tr("Against the sum of the parts"));
    verdict_ = new QLabel;
    verdict_->setObjectName("weighing-verdict");
    verdict_->setFont(theme.text(12));
    verdict_->setTextFormat(Qt::RichText);
    verdict_->setWordWrap(true);
    right->body().addWidget(verdict_);
    masses_ = new theme::MatTable(theme, {tr("thing"), tr("entered g"), tr("likely g"), tr("±"), tr("sigmas")});
    masses_->setObjectName("likely-masses");
    masses_->setAccessibleName(tr("Likely weights"));
    masses_->horizontalHeaderItem(2)->setToolTip(
        tr("What the weighings make likely, each entry bending as far as its doubt allows"));
    masses_->horizontalHeaderItem(4)->setToolTip(tr("How far that is from the entry, in its own standard deviations"));
    masses_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < 5; ++i) masses_->horizontalHeader()->setSectionResizeMode(i, QHeaderView::ResizeToContents);
    right->body().addWidget(masses_, 1);

    auto *all = new QHBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 8);
    all->setSpacing(8);
    all->addWidget(left, 52);
    all->addWidget(right, 48);

    connect(remove_, &QToolButton::clicked, this, [this] {
        if (const Weighing *w = chosen())
            document_.edit(tr("Remove %1").arg(QString::fromStdString(w->name)),
                           removeWeighing(document_.build(), w->id));
    });
    connect(list_, &QTableWidget::currentCellChanged, this, [this](int row, int, int, int) {
        if (filling_ || row < 0) return;
        id_ = list_->item(row, 0)->data(Qt::UserRole).toString();
        refreshForm();
    });
    connect(masses_, &QTableWidget::cellClicked, this,
            [this](int row, int) { document_.select(masses_->item(row, 0)->data(Qt::UserRole).toString()); });
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        if (!name_->isModified()) return;
        name_->setModified(false);
        if (const auto text = name_->text().trimmed(); !text.isEmpty())
            change(tr("Rename a weighing"), [&](Weighing &w) { w.name = text.toStdString(); });
    });
    connect(loadCase_, &QComboBox::activated, this, [this] {
        change(tr("Load case of a weighing"),
               [&](Weighing &w) { w.loadCase = loadCase_->currentData().toString().toStdString(); });
    });
    connect(total_, &QLineEdit::editingFinished, this, [this] {
        if (!total_->isModified()) return;
        total_->setModified(false);
        const auto typed = app::typedWithDoubt(total_->text());
        if (!typed)
            emit document_.refused(
                tr("\"%1\" is no weight: grams are wanted, as 1080 or 1080 ± 1.").arg(total_->text()));
        else
            change(tr("Weigh the craft"), [&](Weighing &w) { w.total_g = measuredValue(typed->value, typed->doubt); });
        refreshForm();
    });
    connect(scaleDoubt_, &QLineEdit::editingFinished, this,
            [this] { applyField(scaleDoubt_, Measure::mass, [](Weighing &w, double v) { w.scaleTolerance_g = v; }); });
    connect(placeDoubt_, &QLineEdit::editingFinished, this, [this] {
        applyField(placeDoubt_, Measure::length, [](Weighing &w, double v) { w.lineTolerance_mm = v; });
    });
    connect(numbers_, &QTableWidget::cellChanged, this, &WeighingsPage::applyCell);
    connect(more_, &QToolButton::clicked, this, [this] {
        change(tr("One more"), [](Weighing &w) {
            if (w.method == WeighingMethod::scales) {
                w.points_mm.push_back(Vec2(-60, w.points_mm.empty() ? 0 : 60));
                w.readings_g.push_back(0);
            } else
                w.lines.push_back({Vec2::Zero(), w.lines.empty() ? 90.0 : 0.0});
        });
    });
    connect(fewer_, &QToolButton::clicked, this, [this] {
        change(tr("One less"), [](Weighing &w) {
            if (w.method == WeighingMethod::scales && !w.points_mm.empty()) {
                w.points_mm.pop_back();
                w.readings_g.pop_back();
            } else if (!w.lines.empty())
                w.lines.pop_back();
        });
    });
    connect(&document_, &app::Document::changed, this, &WeighingsPage::refresh);
    connect(&theme_, &theme::Theme::changed, this, &WeighingsPage::refresh);
}

QString WeighingsPage::verdict() const { return verdict_->text(); }

bool WeighingsPage::reveal(const QString &id) {
    for (const auto &w : document_.build().weighings)
        if (QString::fromStdString(w.id) == id) {
            id_ = id;
            refresh();
            return true;
        }
    return false;
}

void WeighingsPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

const Weighing *WeighingsPage::chosen() const {
    for (const auto &w : document_.build().weighings)
        if (QString::fromStdString(w.id) == id_) return &w;
    return document_.build().weighings.empty() ? nullptr : &document_.build().weighings.front();
}

void WeighingsPage::add(WeighingMethod method) {
    const LoadCase *loadCase = document_.activeCase();
    if (!loadCase) return;
    const std::size_t before = document_.build().weighings.size();
    if (document_.edit(tr("A weighing"), addWeighing(document_.build(), method, loadCase->id)) &&
        document_.build().weighings.size() > before) {
        id_ = QString::fromStdString(document_.build().weighings.back().id);
        refresh();
        (method == WeighingMethod::total ? static_cast<QWidget *>(total_) : numbers_)->setFocus();
    }
}

void WeighingsPage::change(const QString &name, const std::function<void(Weighing &)> &how) {
    const Weighing *w = chosen();
    if (!w) return;
    Weighing next = *w;
    how(next);
    if (!(next == *w)) document_.edit(name, editWeighing(document_.build(), next));
}

void WeighingsPage::applyField(QLineEdit *field, Measure measure, const std::function<void(Weighing &, double)> &set) {
    if (!field->isModified()) return;
    field->setModified(false);
    const auto value = app::typedNumber(field->text(), measure);
    if (!value)
        emit document_.refused(app::notUnderstood(field->text(), measure));
    else if (*value < 0)
        emit document_.refused(tr("\"%1\" is no doubt: a number from 0 is wanted.").arg(field->text()));
    else
        change(tr("Doubt of a weighing"), [&](Weighing &w) { set(w, *value); });
    refreshForm();
}

void WeighingsPage::applyCell(int row, int column) {
    if (filling_) return;
    const auto value = app::typedNumber(numbers_->item(row, column)->text());
    const QString typed = numbers_->item(row, column)->text();
    if (!value) {
        emit document_.refused(tr("\"%1\" is no number.").arg(typed));
        QMetaObject::invokeMethod(
            this, [this] { refreshForm(); }, Qt::QueuedConnection);
        return;
    }
    // After the editor has closed: the table is filled anew by the change.
    QMetaObject::invokeMethod(
        this,
        [this, row, column, v = *value] {
            change(tr("Enter a weighing"), [&](Weighing &w) {
                const auto r = std::size_t(row);
                if (w.method == WeighingMethod::scales && r < w.points_mm.size()) {
                    if (column < 2)
                        w.points_mm[r][column] = v;
                    else
                        w.readings_g[r] = v;
                } else if (w.method == WeighingMethod::lines && r < w.lines.size()) {
                    if (column < 2)
                        w.lines[r].through_mm[column] = v;
                    else
                        w.lines[r].direction_deg = v;
                }
            });
            refreshForm();
        },
        Qt::QueuedConnection);
}

void WeighingsPage::refresh() {
    if (!isVisible()) return;
    const Build &build = document_.build();
    const auto &report = *document_.analysis().derived.reconciled;
    const auto &c = theme_.colors();
    filling_ = true;
    list_->setRowCount(int(report.weighings.size()));
    int current = -1;
    const theme::Refill filling(*list_);
    for (int row = 0; row < list_->rowCount(); ++row) {
        const WeighingResult &r = report.weighings[std::size_t(row)];
        const QString none = QStringLiteral("–");
        QString measured = none, planned = none, apart = none;
        if (!r.problem.empty())
            measured = tr("not usable");
        else if (r.measured_g) {
            measured = tr("%1 g").arg(one(*r.measured_g));
            planned = tr("%1 g").arg(one(*r.predicted_g));
            apart = tr("%1 g").arg(one(*r.measured_g - *r.predicted_g));
        } else if (r.measured_mm && r.predicted_mm) {
            measured = tr("%1, %2 mm").arg(one(r.measured_mm->x()), one(r.measured_mm->y()));
            planned = tr("%1, %2").arg(one(r.predicted_mm->x()), one(r.predicted_mm->y()));
            apart = tr("%1 mm").arg(one((*r.measured_mm - *r.predicted_mm).norm()));
        } else if (!r.beside_mm.empty()) {
            measured = tr("one line");
            apart = tr("%1 mm").arg(one(std::abs(r.beside_mm.front())));
        }
        const QStringList texts{QString::fromStdString(displayName(build, r.id)), measured, planned, apart};
        for (int col = 0; col < 4; ++col) {
            QTableWidgetItem *cell = list_->item(row, col);
            if (!cell) list_->setItem(row, col, cell = new QTableWidgetItem);
            cell->setText(texts[col]);
            cell->setFont(col ? theme_.numbers(12) : theme_.text(12));
            cell->setTextAlignment(Qt::AlignVCenter | (col ? Qt::AlignRight : Qt::AlignLeft));
            cell->setForeground(r.problem.empty() ? c.chalk : theme::severityOnMat(Severity::watch));
            cell->setData(Qt::UserRole, QString::fromStdString(r.id));
        }
        if (chosen() && r.id == chosen()->id) current = row;
    }
    if (current >= 0 && list_->currentRow() != current) list_->setCurrentCell(current, 0);
    list_->setFixedHeight(list_->horizontalHeader()->sizeHint().height() + 22 * std::clamp(list_->rowCount(), 1, 6) +
                          4);
    filling_ = false;
    refreshForm();
    refreshResults();
}

void WeighingsPage::refreshForm() {
    const Weighing *w = chosen();
    form_->setVisible(w);
    remove_->setEnabled(w);
    if (!w) return;
    id_ = QString::fromStdString(w->id);
    app::putText(name_, QString::fromStdString(w->name));
    {
        const QSignalBlocker quiet(loadCase_);
        loadCase_->clear();
        for (const auto &loadCase : document_.analysis().derived.loadCases)
            loadCase_->addItem(QString::fromStdString(loadCase.name), QString::fromStdString(loadCase.id));
        loadCase_->setCurrentIndex(std::max(0, loadCase_->findData(QString::fromStdString(w->loadCase))));
    }
    const bool total = w->method == WeighingMethod::total, scales = w->method == WeighingMethod::scales;
    totalLabel_->setVisible(total);
    total_->setVisible(total);
    app::putText(total_, app::writtenWithDoubt(w->total_g, QStringLiteral("g")));
    total_->setPlaceholderText(tr("grams, as 1080 ± 1"));
    numbers_->setVisible(!total);
    more_->setVisible(!total);
    fewer_->setVisible(!total);
    scaleLabel_->setVisible(scales);
    scaleDoubt_->setVisible(scales);
    placeLabel_->setVisible(!total);
    placeDoubt_->setVisible(!total);
    app::putText(scaleDoubt_, tr("%1 g").arg(w->scaleTolerance_g));
    app::putText(placeDoubt_, tr("%1 mm").arg(w->lineTolerance_mm));
    more_->setEnabled(scales ? w->points_mm.size() < 6 : w->lines.size() < 2);
    fewer_->setEnabled(scales ? w->points_mm.size() > 3 : w->lines.size() > 1);
    if (!total) {
        filling_ = true;
        numbers_->setAccessibleName(scales ? tr("Scales: place and reading")
                                           : tr("Balance lines: a point and a direction"));
        numbers_->setHorizontalHeaderLabels(
            scales ? QStringList{tr("fore mm"), tr("left mm"), tr("reads g")}
                   : QStringList{tr("through fore mm"), tr("through left mm"), tr("turned °")});
        const int rows = int(scales ? w->points_mm.size() : w->lines.size());
        numbers_->setRowCount(rows);
        for (int row = 0; row < rows; ++row)
            for (int col = 0; col < 3; ++col) {
                const auto r = std::size_t(row);
                const double value = scales ? (col < 2 ? w->points_mm[r][col] : w->readings_g[r])
                                            : (col < 2 ? w->lines[r].through_mm[col] : w->lines[r].direction_deg);
                QTableWidgetItem *cell = numbers_->item(row, col);
                if (!cell) numbers_->setItem(row, col, cell = new QTableWidgetItem);
                cell->setText(QString::number(value, 'g', 8));
                cell->setFont(theme_.numbers(12));
                cell->setTextAlignment(Qt::AlignVCenter | Qt::AlignRight);
                cell->setForeground(theme_.colors().chalk);
            }
        numbers_->setFixedHeight(numbers_->horizontalHeader()->sizeHint().height() + 22 * rows + 4);
        filling_ = false;
    }
    hint_->setText(total ? tr("Everything that flies in this case, packs and propellers included. Propellers off the "
                              "motors would be missing in the sum: lay them on the scale too.")
                   : scales
                       ? tr("The craft stands level; places from the frame datum, forward and to the left.")
                       : tr("A rod across the craft is turned 90°, one along it 0°. The point is any on the rod, from "
                            "the frame datum."));
    QString said;
    for (const auto &r : document_.analysis().derived.reconciled->weighings) {
        if (r.id != w->id) continue;
        if (!r.problem.empty())
            said = tr("Cannot be used: %1.").arg(QString::fromStdString(r.problem));
        else if (r.measured_mm)
            said = tr("Centre of gravity as measured: %1 mm fore, %2 mm left of the frame datum%3.")
                       .arg(one(r.measured_mm->x()), one(r.measured_mm->y()),
                            r.measured_g ? tr("; %1 g").arg(one(*r.measured_g)) : QString());
    }
    result_->setText(said);
}

void WeighingsPage::refreshResults() {
    const Build &build = document_.build();
    const auto &report = *document_.analysis().derived.reconciled;
    const auto &c = theme_.colors();
    QString text;
    const auto p = [&](const QString &words, const QColor &ink) {
        text += QStringLiteral("<p style='color:%1; margin-top:2px; margin-bottom:4px'>%2</p>").arg(ink.name(), words);
    };
    const auto name = [&](const std::string &id) {
        return QString::fromStdString(displayName(build, id)).toHtmlEscaped();
    };
    if (report.conditions == 0)
        p(tr("Nothing measured yet. Put the finished craft on a scale, or balance it on a rod, and enter what it says: "
             "the "
             "program then says which entry does not fit."),
          c.softChalk);
    else if (!report.contradicts())
        p(tr("What was measured agrees with the parts: differences as large as these come about in %1 % of all crafts "
             "by the "
             "stated doubts alone.")
              .arg(100 * report.chance, 0, 'f', report.chance < 0.1 ? 1 : 0),
          c.chalk);
    else {
        p(tr("<b>What was measured is not the sum of the parts.</b> By the stated doubts alone that would happen once "
             "in %1 "
             "crafts.")
              .arg(1 / std::max(report.chance, 1e-6), 0, 'f', 0),
          theme::severityOnMat(Severity::watch));
        if (report.suspects.empty())
            p(tr("No single entry explains it: something may be missing from the build, or several are wrong."),
              c.chalk);
        else if (report.decided)
            p(tr("Suspicious: <b>%1</b>. Entered %2 g; %3 g would explain %4 % of it. Weigh it.")
                  .arg(name(report.suspects[0].id), one(report.suspects[0].entered_g),
                       one(report.suspects[0].wouldBe_g))
                  .arg(100 * report.suspects[0].explains, 0, 'f', 0),
              c.chalk);
        else {
            QStringList names;
            for (const auto &s : report.suspects)
                names << tr("%1 (%2 instead of %3 g)").arg(name(s.id), one(s.wouldBe_g), one(s.entered_g));
            p((report.conditions > 1
                   ? tr("Any of these could explain it alone: %1. Weigh them.")
                   : tr("Any of these could explain it alone: %1. Balance the craft as well, to tell which."))
                  .arg(names.join(QStringLiteral(", "))),
              c.chalk);
        }
    }
    verdict_->setText(text);
    masses_->setRowCount(int(std::min<std::size_t>(15, report.masses.size())));
    const theme::Refill filling(*masses_);
    for (int row = 0; row < masses_->rowCount(); ++row) {
        const ReconciledMass &m = report.masses[std::size_t(row)];
        const QStringList texts{QString::fromStdString(displayName(build, m.id)),
                                m.known ? QString::number(m.entered_g, 'f', 1) : tr("unknown"),
                                QString::number(m.likely_g, 'f', 1), QString::number(2 * m.likelySigma_g, 'f', 1),
                                m.known && m.sigma_g > 0
                                    ? QString::number((m.likely_g - m.entered_g) / m.sigma_g, 'f', 1)
                                    : QStringLiteral("–")};
        for (int col = 0; col < 5; ++col) {
            QTableWidgetItem *cell = masses_->item(row, col);
            if (!cell) masses_->setItem(row, col, cell = new QTableWidgetItem);
            cell->setText(texts[col]);
            cell->setFont(col ? theme_.numbers(12) : theme_.text(12));
            cell->setTextAlignment(Qt::AlignVCenter | (col ? Qt::AlignRight : Qt::AlignLeft));
            cell->setForeground(c.chalk);
            cell->setData(Qt::UserRole, QString::fromStdString(m.id));
        }
    }
}

} // namespace waxis::balance
