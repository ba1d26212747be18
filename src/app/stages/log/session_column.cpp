#include "app/stages/log/session_column.h"

#include "app/widgets/card.h"
#include "app/widgets/port_strip.h"
#include "core/base/by_id.h"
#include "core/build/log.h"
#include "core/edits/log_edits.h"
#include "core/log/fingerprint.h"

#include <QDateTime>
#include <QListWidget>
#include <QLocale>
#include <QPushButton>
#include <QVBoxLayout>

namespace waxis::logbench {

std::string timeNow() {
    const QDateTime now = QDateTime::currentDateTime();
    return now.toOffsetFromUtc(now.offsetFromUtc()).toString(Qt::ISODate).toStdString();
}

QString dayOf(const std::string &at) {
    const QDate day = QDate::fromString(QString::fromStdString(at).left(10), Qt::ISODate);
    if (!day.isValid()) return QString::fromStdString(at);
    const bool thisYear = day.year() == QDate::currentDate().year();
    return QLocale(QLocale::English).toString(day, thisYear ? QStringLiteral("d MMM") : QStringLiteral("d MMM yyyy"));
}

SessionColumn::SessionColumn(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
                             QWidget *parent)
    : QWidget(parent), document_(document) {
    constexpr int kWidth = 176;
    setFixedWidth(kWidth);
    auto *card = new theme::Card(theme, tr("Sessions"));
    list_ = new QListWidget;
    list_->setObjectName("sessions");
    list_->setAccessibleName(tr("Sessions by date"));
    list_->setFrameShape(QFrame::NoFrame);
    list_->setWordWrap(true);
    list_->setSpacing(3);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setFont(theme.text(12));
    list_->viewport()->setBackgroundRole(QPalette::Window);
    auto *fresh = new QPushButton(tr("New session"));
    fresh->setObjectName("new-session");
    fresh->setToolTip(tr("Begin a session now: weighings, flights and tries of a day belong together"));
    card->body().addWidget(list_, 1);
    auto *remove = new QPushButton(tr("Remove session"));
    remove->setObjectName("remove-session");
    remove->setToolTip(
        tr("Takes the chosen session out with its entries; its tries stay with their trials. Undo brings it back"));
    card->body().addWidget(fresh);
    card->body().addWidget(remove);
    connect(remove, &QPushButton::clicked, this, [this] {
        if (!session().empty()) document_.edit(tr("Remove session"), removeSession(document_.build(), session()));
    });
    auto *tools = new theme::Card(theme, tr("Instruments"));
    tools->body().addWidget(new app::PortStrip(app::InstrumentKind::receiver, document, instruments, theme));
    tools->body().addWidget(new app::PortStrip(app::InstrumentKind::scale, document, instruments, theme));
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->addWidget(card, 1);
    all->addWidget(tools);
    connect(fresh, &QPushButton::clicked, this, &SessionColumn::begin);
    connect(list_, &QListWidget::currentRowChanged, this, &SessionColumn::chosen);
    connect(&document_, &app::Document::changed, this, &SessionColumn::fill);
    fill();
}

std::string SessionColumn::session() const {
    const QListWidgetItem *item = list_->currentItem();
    return item ? item->data(Qt::UserRole).toString().toStdString() : std::string();
}

void SessionColumn::choose(const std::string &id) {
    for (int row = 0; row < list_->count(); ++row)
        if (list_->item(row)->data(Qt::UserRole).toString().toStdString() == id) list_->setCurrentRow(row);
}

void SessionColumn::begin() {
    const Build &build = document_.build();
    Session session;
    session.id = freshId(build, "session");
    session.at = timeNow();
    session.fingerprint = fingerprintOf(build);
    if (const Session *last = latestSession(build)) {
        session.place = last->place;
        session.height_m = last->height_m;
        session.field_uT = last->field_uT;
        session.sky = last->sky;
    }
    if (const LoadCase *now = document_.activeCase()) session.loadCase = now->id;
    if (document_.edit(tr("New session"), addSession(build, session))) choose(session.id);
}

void SessionColumn::fill() {
    const Log &log = *document_.build().log;
    const std::string before = session();
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (auto at = log.sessions.rbegin(); at != log.sessions.rend(); ++at) { // the last on top
        int entries = 0, flights = 0, tries = 0;
        for (const auto &entry : log.entries)
            if (entry.session == at->id) ++(entry.quantity == Quantity::flight ? flights : entries);
        for (const auto &trial : log.trials)
            for (const auto &one : trial.tries) tries += one.session == at->id;
        QStringList words;
        if (entries > 0) words << tr("%n entries", nullptr, entries);
        if (flights > 0) words << tr("%n flights", nullptr, flights);
        if (tries > 0) words << tr("%n tries", nullptr, tries);
        const QString place = QString::fromStdString(at->place.empty() ? at->name : at->place);
        QString text = dayOf(at->at);
        if (!place.isEmpty()) text += "\n" + place;
        text += "\n" + (words.isEmpty() ? tr("nothing yet") : words.join(QStringLiteral(", ")));
        auto *item = new QListWidgetItem(text, list_);
        item->setData(Qt::UserRole, QString::fromStdString(at->id));
    }
    if (list_->count() > 0) list_->setCurrentRow(0);
    choose(before);
    if (session() != before) QMetaObject::invokeMethod(this, &SessionColumn::chosen, Qt::QueuedConnection);
}

} // namespace waxis::logbench
