#include "app/stages/log/changes_page.h"

#include "app/stages/log/planned_page.h"
#include "app/stages/log/session_column.h"
#include "core/base/by_id.h"
#include "core/build/log.h"
#include "core/edits/log_edits.h"
#include "core/log/fingerprint.h"
#include "core/rules/wording.h"
#include "io/project/states.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace waxis::logbench {

namespace {
constexpr int kRest_ms = 80;
QString nameOf(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }
} // namespace

ChangesPage::ChangesPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme),
      working_(
          kRest_ms,
          [this]() -> app::Background<Compared>::Work {
              auto before = stateOf(from_->currentData().toString()), after = stateOf(to_->currentData().toString());
              if (!before || !after || from_->currentIndex() < 0) return {};
              return [before = std::move(*before), after = std::move(*after)](const std::atomic<bool> &) {
                  return Compared{before, after, differenceBetween(before, after)};
              };
          },
          [this](const Compared &compared) { show(compared); }) {
    auto *head = new QHBoxLayout;
    from_ = new QComboBox;
    from_->setObjectName("changes-from");
    from_->setAccessibleName(tr("State before"));
    to_ = new QComboBox;
    to_->setObjectName("changes-to");
    to_->setAccessibleName(tr("State after"));
    auto *keep = new QPushButton(tr("Keep this state…"));
    keep->setObjectName("state-keep");
    keep->setToolTip(tr("Keeps the build as it is now under a name, in its file"));
    back_ = new QPushButton(tr("Go back to it"));
    back_->setObjectName("state-back");
    back_->setToolTip(tr("The build becomes what it was in the state on the left; the log stays. Undo takes it back"));
    remove_ = new QPushButton(tr("Forget it"));
    remove_->setObjectName("state-remove");
    head->addWidget(from_, 1);
    head->addWidget(new QLabel(tr("→")));
    head->addWidget(to_, 1);
    head->addWidget(keep);
    head->addWidget(back_);
    head->addWidget(remove_);
    summary_ = new QLabel;
    summary_->setObjectName("changes-summary");
    summary_->setWordWrap(true);
    summary_->setFont(theme_.text(12));
    table_ = new theme::MatTable(theme_, {tr("what"), tr("change")});
    table_->setObjectName("log-changes");
    table_->setAccessibleName(tr("What differs between the two states"));
    table_->setEmptyText(
        tr("Keep a state before you change something: what moved, what it weighs and what the rules say "
           "can then be compared, and gone back to."));
    for (int i = 0; i < 2; ++i) table_->horizontalHeaderItem(i)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    constexpr int kWhat_px = 190;
    table_->horizontalHeader()->resizeSection(0, kWhat_px);
    table_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->addLayout(head);
    all->addWidget(summary_);
    all->addWidget(table_, 1);
    connect(keep, &QPushButton::clicked, this, [this] { this->keep(); });
    connect(back_, &QPushButton::clicked, this, &ChangesPage::goBack);
    connect(remove_, &QPushButton::clicked, this, [this] {
        const std::string id = from_->currentData().toString().toStdString();
        if (!id.empty()) document_.edit(tr("Forget a state"), removeSnapshot(document_.build(), id));
    });
    for (QComboBox *box : {from_, to_}) connect(box, &QComboBox::currentIndexChanged, this, [this] { working_.ask(); });
    connect(&document_, &app::Document::changed, this, &ChangesPage::fill);
}

void ChangesPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    fill();
}

/// An empty id is the build as it is.
std::optional<Build> ChangesPage::stateOf(const QString &id) const {
    if (id.isEmpty()) return document_.build();
    const Snapshot *state = byId(document_.build().log->snapshots, id.toStdString());
    if (!state) return std::nullopt;
    auto build = buildOfState(*state);
    if (!build) return std::nullopt;
    build->log = document_.build().log; // what was measured is no change of the craft
    return std::move(*build);
}

void ChangesPage::keep(const QString &given) {
    QString name = given;
    if (name.isEmpty()) {
        bool ok = false;
        name = QInputDialog::getText(this, tr("Keep this state"), tr("Its name, as \"as first flown\":"),
                                     QLineEdit::Normal, {}, &ok)
                   .trimmed();
        if (!ok || name.isEmpty()) return;
    }
    const Build &build = document_.build();
    document_.edit(tr("Keep a state"), addSnapshot(build, stateFrom(build, name.toStdString(), timeNow())));
}

void ChangesPage::goBack() {
    const Snapshot *state = byId(document_.build().log->snapshots, from_->currentData().toString().toStdString());
    if (!state) return;
    const auto next = backToState(document_.build(), *state);
    if (!next) return emit said(QString::fromStdString(next.error().message), true);
    document_.edit(tr("Go back to \"%1\"").arg(QString::fromStdString(state->name)), next);
}

void ChangesPage::fill() {
    if (!isVisible()) return;
    const auto &states = document_.build().log->snapshots;
    const std::array<QString, 2> before{from_->currentData().toString(), to_->currentData().toString()};
    {
        const QSignalBlocker quietFrom(from_), quietTo(to_);
        for (QComboBox *box : {from_, to_}) {
            box->clear();
            for (const auto &state : states)
                box->addItem(tr("%1 (%2)").arg(QString::fromStdString(state.name), dayOf(state.at)),
                             QString::fromStdString(state.id));
        }
        to_->addItem(tr("as it is now"), QString());
        const int at = from_->findData(before[0]);
        from_->setCurrentIndex(at >= 0 ? at : from_->count() - 1);
        const int to = to_->findData(before[1]);
        to_->setCurrentIndex(to >= 0 ? to : to_->count() - 1);
    }
    back_->setEnabled(!states.empty());
    remove_->setEnabled(!states.empty());
    if (states.empty()) {
        table_->setRowCount(0);
        summary_->clear();
    }
    working_.ask();
}

void ChangesPage::show(const Compared &compared) {
    const StateDifference &difference = compared.difference;
    const Build &before = compared.before, &after = compared.after;
    std::vector<std::array<QString, 2>> rows;
    const auto list = [&](const std::vector<std::string> &ids, const Build &of, const QString &what) {
        for (const auto &id : ids) rows.push_back({nameOf(of, id), what});
    };
    list(difference.gone, before, tr("came out"));
    list(difference.came, after, tr("went in"));
    list(difference.otherType, after, tr("is of another kind, or another size"));
    for (const auto &move : difference.moved) {
        QStringList how;
        if (move.by_mm.norm() >= 0.05) how << QString::fromStdString(shiftInWords(move.by_mm));
        if (move.turned_deg > 0.1) how << tr("turned by %1°").arg(move.turned_deg, 0, 'f', 1);
        rows.push_back({nameOf(after, move.part), how.join(QStringLiteral(", "))});
    }
    list(difference.wiresGone, before, tr("wire taken out"));
    list(difference.wiresCame, after, tr("wire led"));
    list(difference.wiresOther, after, tr("wire changed"));
    if (difference.frame > 0) rows.push_back({tr("Frame"), tr("%n pieces changed", nullptr, difference.frame)});
    for (const auto &id : difference.limits) rows.push_back({tr("Practice"), QString::fromStdString(id)});
    for (const auto &finding : difference.findingsGone)
        rows.push_back({tr("Finding gone"), QString::fromStdString(wordFinding(before, finding).headline.text())});
    for (const auto &finding : difference.findingsCame)
        rows.push_back({tr("Finding came"), QString::fromStdString(wordFinding(after, finding).headline.text())});
    table_->setRowCount(int(rows.size()));
    {
        const theme::Refill filling(*table_);
        for (int row = 0; row < table_->rowCount(); ++row)
            for (int column = 0; column < 2; ++column) {
                QTableWidgetItem *cell = table_->item(row, column);
                if (!cell) table_->setItem(row, column, cell = new QTableWidgetItem);
                cell->setText(rows[std::size_t(row)][std::size_t(column)]);
                cell->setToolTip(cell->text());
                cell->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
            }
    }
    summary_->setText(difference.isSame() ? tr("The two are the same.")
                                          : differenceInWords(before, after, difference) + ".");
}

} // namespace waxis::logbench
