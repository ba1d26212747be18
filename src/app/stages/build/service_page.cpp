#include "app/stages/build/service_page.h"

#include "core/pins/signal.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QVBoxLayout>

namespace waxis::assembly {

namespace {
constexpr int kRest_ms = 60;
QString nameOf(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }
} // namespace

ServicePage::ServicePage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme),
      working_(
          kRest_ms,
          [this]() -> app::Background<std::optional<ServiceWay>>::Work {
              const std::string part = parts_->currentData().toString().toStdString();
              const auto &analysis = document_.analysis();
              if (part.empty() || std::size_t(document_.loadCase()) >= analysis.derived.loadCases->size()) return {};
              return [build = document_.build(), practice = analysis.practice, derived = analysis.derived,
                      loadCase = document_.loadCase(),
                      part](const std::atomic<bool> &) { return serviceOf(build, practice, derived, loadCase, part); };
          },
          [this](const std::optional<ServiceWay> &way) { show(way); }) {
    parts_ = new QComboBox;
    parts_->setObjectName("service-part");
    parts_->setAccessibleName(tr("Part to be taken off"));
    verdict_ = new QLabel;
    verdict_->setObjectName("service-verdict");
    verdict_->setWordWrap(true);
    verdict_->setFont(theme_.text(12));
    table_ = new theme::MatTable(theme, {tr("comes off"), tr("with it"), tr("undo first")});
    table_->setObjectName("build-service");
    table_->setAccessibleName(tr("What comes off, in order"));
    table_->setEmptyText(tr("Choose a part: what comes off before it stands here, in order."));
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setWordWrap(true);
    for (int i = 0; i < 3; ++i) table_->horizontalHeaderItem(i)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    for (int i = 0; i < 3; ++i) table_->horizontalHeader()->setSectionResizeMode(i, QHeaderView::Stretch);
    auto *head = new QHBoxLayout;
    head->addWidget(parts_);
    head->addWidget(verdict_, 1);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(10, 8, 10, 8);
    all->addLayout(head);
    all->addWidget(table_, 1);
    connect(parts_, &QComboBox::currentIndexChanged, this, [this] {
        document_.select(parts_->currentData().toString());
        working_.ask();
    });
    connect(&document_, &app::Document::changed, this, [this] {
        fillParts();
        if (isVisible()) working_.ask();
    });
    connect(&document_, &app::Document::loadCaseChanged, this, [this] {
        if (isVisible()) working_.ask();
    });
    connect(&document_, &app::Document::selectionChanged, this, [this] {
        if (const Part *part = document_.selectedPart(); part && isVisible()) choose(part->id);
    });
}

void ServicePage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    fillParts();
    if (const Part *part = document_.selectedPart())
        choose(part->id);
    else
        working_.ask();
}

void ServicePage::choose(const std::string &part) {
    const int at = parts_->findData(QString::fromStdString(part));
    if (at < 0) return;
    const QSignalBlocker quiet(parts_);
    parts_->setCurrentIndex(at);
    working_.ask();
}

void ServicePage::fillParts() {
    if (!isVisible()) return;
    const QString chosen = parts_->currentData().toString();
    const QSignalBlocker quiet(parts_);
    parts_->clear();
    for (const auto &part : document_.build().parts) {
        const PartType *type = typeOf(document_.build(), part);
        if (!document_.isAboardNow(part) || !type || holdsOthers(type->kind)) continue;
        parts_->addItem(nameOf(document_.build(), part.id), QString::fromStdString(part.id));
    }
    parts_->setCurrentIndex(std::max(0, parts_->findData(chosen)));
}

void ServicePage::show(const std::optional<ServiceWay> &way) {
    const Build &build = document_.build();
    table_->setRowCount(way ? int(way->off.size()) : 0);
    const theme::Refill filling(*table_);
    for (int row = 0; row < table_->rowCount(); ++row) {
        const TakenOff &off = way->off[std::size_t(row)];
        QStringList along, undo;
        for (std::size_t i = 1; i < off.things.size(); ++i) along << nameOf(build, off.things[i]);
        for (const auto &joint : off.undo) {
            const Port *port = portOf(build, {joint.part, joint.port});
            undo << (port && port->kind == PortKind::pads ? tr("unsolder %1 at %2") : tr("unplug %1 at %2"))
                        .arg(nameOf(build, joint.wire), nameOf(build, joint.part));
        }
        const std::array<QString, 3> shown{tr("%1. %2").arg(row + 1).arg(nameOf(build, off.things.front())),
                                           along.join(QStringLiteral(", ")), undo.join(QStringLiteral("; "))};
        for (int column = 0; column < 3; ++column) {
            QTableWidgetItem *cell = table_->item(row, column);
            if (!cell) table_->setItem(row, column, cell = new QTableWidgetItem);
            cell->setText(shown[std::size_t(column)]);
            cell->setToolTip(shown[std::size_t(column)]);
            cell->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
            cell->setForeground(off.fastener ? theme_.colors().softChalk : theme_.colors().chalk);
        }
    }
    table_->resizeRowsToContents();
    verdict_->setText(
        !way ? tr("It cannot be taken off, or it is not aboard now.")
        : way->depth == 0
            ? tr("Nothing but its own fasteners comes off before it.")
            : tr("What comes off before it, fasteners not counted: %1. Read upwards it goes back on.").arg(way->depth));
}

} // namespace waxis::assembly
