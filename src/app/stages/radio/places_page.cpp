#include "app/stages/radio/places_page.h"

#include "app/theme/look.h"
#include "core/edits/radio_edits.h"
#include "core/magnetics/compass_place.h"
#include "core/rules/wording.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::radio {

namespace {

struct Column {
    const char *title, *tip;
    bool lessIsBetter;
    int digits;
    std::optional<double> (*value)(const PlaceReport &);
};

const std::array<Column, 14> &columns() {
    static const std::array<Column, 14> table{{
        {QT_TRANSLATE_NOOP("Places", "sky hidden\nlevel, %"),
         QT_TRANSLATE_NOOP("Places", "Share of the sky that the craft hides"), true, 0,
         [](const PlaceReport &r) { return r.skyLevel ? std::optional(100 * *r.skyLevel) : std::nullopt; }},
        {QT_TRANSLATE_NOOP("Places", "nose down\n%"), QT_TRANSLATE_NOOP("Places", "The same in fast flight"), true, 0,
         [](const PlaceReport &r) { return r.skyCruise ? std::optional(100 * *r.skyCruise) : std::nullopt; }},
        {QT_TRANSLATE_NOOP("Places", "leans\n°"),
         QT_TRANSLATE_NOOP("Places", "Antenna off the zenith when the craft is level"), true, 0,
         [](const PlaceReport &r) { return r.lean_deg; }},
        {QT_TRANSLATE_NOOP("Places", "sender\nmm"), QT_TRANSLATE_NOOP("Places", "Nearest antenna that sends"), false, 0,
         [](const PlaceReport &r) { return r.sender_mm; }},
        {QT_TRANSLATE_NOOP("Places", "noise\ndB"), QT_TRANSLATE_NOOP("Places", "Worst rise of its noise floor"), true,
         1, [](const PlaceReport &r) { return r.rise_dB; }},
        {QT_TRANSLATE_NOOP("Places", "magnets\n°"),
         QT_TRANSLATE_NOOP("Places", "Heading error by magnets, worst heading"), true, 1,
         [](const PlaceReport &r) { return r.constant_deg; }},
        {QT_TRANSLATE_NOOP("Places", "hover\n°"), QT_TRANSLATE_NOOP("Places", "Heading error by currents in hover"),
         true, 1, [](const PlaceReport &r) { return r.hover_deg; }},
        {QT_TRANSLATE_NOOP("Places", "full\n°"),
         QT_TRANSLATE_NOOP("Places", "Heading error by currents at full throttle"), true, 1,
         [](const PlaceReport &r) { return r.full_deg; }},
        {QT_TRANSLATE_NOOP("Places", "loud\nmm"),
         QT_TRANSLATE_NOOP("Places", "Nearest sender, camera, regulator or speed controller, body to body"), false, 0,
         [](const PlaceReport &r) { return r.loud_mm; }},
        {QT_TRANSLATE_NOOP("Places", "magnet\nmm"), QT_TRANSLATE_NOOP("Places", "Nearest magnet to the compass"), false,
         0, [](const PlaceReport &r) { return r.magnet_mm; }},
        {QT_TRANSLATE_NOOP("Places", "steel\nmm"),
         QT_TRANSLATE_NOOP("Places", "Nearest steel to the compass; none within twice what the practice keeps"), false,
         0, [](const PlaceReport &r) { return r.steel_mm; }},
        {QT_TRANSLATE_NOOP("Places", "lead\nspare"),
         QT_TRANSLATE_NOOP("Places",
                           "How much longer the supplied lead is than it has to be; negative: it does not reach"),
         false, 0, [](const PlaceReport &r) { return r.leadSpare_mm; }},
        {QT_TRANSLATE_NOOP("Places", "wire\nmm"), QT_TRANSLATE_NOOP("Places", "All wires to it, as they would be led"),
         true, 0, [](const PlaceReport &r) { return r.wired ? std::optional(r.wire_mm) : std::nullopt; }},
        {QT_TRANSLATE_NOOP("Places", "stops,\nwatches"),
         QT_TRANSLATE_NOOP("Places", "Findings that name it: stops / watches"), true, 0,
         [](const PlaceReport &r) { return std::optional(double(r.stop * 1000 + r.watch)); }},
    }};
    return table;
}

QString placesText(const char *text) { return QCoreApplication::translate("Places", text); }

QString shown(const PlaceReport &report, std::size_t column) {
    if (column + 1 == columns().size()) return PlacesPage::tr("%1 / %2").arg(report.stop).arg(report.watch);
    const auto value = columns()[column].value(report);
    if (!value) return QStringLiteral("–");
    if (column >= 5 && column <= 7 && *value >= 180) return PlacesPage::tr("any");
    return QString::number(*value, 'f', columns()[column].digits);
}

} // namespace

PlacesPage::PlacesPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), working_(
                                                               250, [this] { return prepare(); },
                                                               [this](std::vector<PlaceReport> reports) {
                                                                   reports_ = std::move(reports);
                                                                   fill();
                                                               }) {
    setObjectName("places-page");
    which_ = new QComboBox;
    which_->setObjectName("places-of");
    which_->setAccessibleName(tr("Part whose places are compared"));
    const auto button = [&](const QString &text, const char *name, const QString &tip) {
        auto *b = new QToolButton;
        b->setText(text);
        b->setObjectName(name);
        b->setToolTip(tip);
        return b;
    };
    add_ = button(tr("Add a place"), "place-add", tr("20 mm over where it is; drag it in Compass or in Place"));
    take_ = button(tr("Move it there"), "place-take", tr("The part goes there; where it stood is kept as a place"));
    remove_ = button(tr("Remove"), "place-remove", tr("Forgets the place"));
    auto *bar = new QHBoxLayout;
    bar->addWidget(new QLabel(tr("Places for")));
    bar->addWidget(which_);
    bar->addSpacing(12);
    bar->addWidget(add_);
    bar->addWidget(take_);
    bar->addWidget(remove_);
    bar->addStretch(1);
    table_ = new QTableWidget;
    table_->setObjectName("places-table");
    table_->setAccessibleName(tr("Places compared"));
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setShowGrid(false);
    table_->setFrameShape(QFrame::NoFrame);
    table_->setProperty(theme::kRuled, true);
    table_->viewport()->setBackgroundRole(QPalette::Window);
    table_->verticalHeader()->hide();
    table_->setColumnCount(int(columns().size()) + 1);
    QStringList titles{tr("place")};
    for (const auto &column : columns()) titles << placesText(column.title);
    table_->setHorizontalHeaderLabels(titles);
    for (std::size_t i = 0; i < columns().size(); ++i)
        table_->horizontalHeaderItem(int(i) + 1)->setToolTip(placesText(columns()[i].tip));
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignCenter);
    note_ = new QLabel;
    note_->setWordWrap(true);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(12, 10, 12, 10);
    all->addLayout(bar);
    all->addWidget(table_, 1);
    all->addWidget(note_);
    connect(&document_, &app::Document::changed, this, [this] { wait(); });
    connect(&document_, &app::Document::opened, this, [this] {
        reports_.clear();
        listParts();
        fill();
        wait();
    });
    connect(which_, &QComboBox::activated, this, [this] {
        reports_.clear();
        fill();
        wait();
    });
    connect(table_, &QTableWidget::itemSelectionChanged, this, [this] {
        const bool trial = !chosenTrial().empty();
        take_->setEnabled(trial);
        remove_->setEnabled(trial);
    });
    connect(add_, &QToolButton::clicked, this, [this] {
        const Part *found = findPart(document_.build(), part());
        if (!found) return;
        Pose pose = framePose(document_.build(), *found);
        pose.position_mm.z() += 20;
        document_.edit(tr("A place to compare for %1").arg(QString::fromStdString(found->name)),
                       addTrial(document_.build(), found->id, pose));
    });
    connect(take_, &QToolButton::clicked, this, [this] {
        if (const auto trial = chosenTrial(); !trial.empty())
            document_.edit(
                tr("Move %1 to another place").arg(QString::fromStdString(displayName(document_.build(), part()))),
                takeTrial(document_.build(), trial));
    });
    connect(remove_, &QToolButton::clicked, this, [this] {
        if (const auto trial = chosenTrial(); !trial.empty())
            document_.edit(tr("Forget a place"), removeTrial(document_.build(), trial));
    });
    theme_.dress(*this, theme::Ground::panel);
    connect(&theme_, &theme::Theme::changed, this, &PlacesPage::fill);
    listParts();
    fill();
}

std::string PlacesPage::part() const { return which_->currentData().toString().toStdString(); }

std::string PlacesPage::chosenTrial() const {
    const auto rows = table_->selectionModel() ? table_->selectionModel()->selectedRows() : QModelIndexList{};
    if (rows.isEmpty() || std::size_t(rows.first().row()) >= reports_.size()) return {};
    return reports_[std::size_t(rows.first().row())].trial;
}

void PlacesPage::listParts() {
    const QSignalBlocker quiet(which_);
    const QString before = which_->currentData().toString();
    which_->clear();
    for (const auto &part : document_.build().parts) {
        const PartType *type = typeOf(document_.build(), part);
        if (type && (type->kind == PartKind::gps || compassPlace(*type)))
            which_->addItem(QString::fromStdString(displayName(document_.build(), part.id)),
                            QString::fromStdString(part.id));
    }
    which_->setCurrentIndex(std::max(0, which_->findData(before)));
}

void PlacesPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    listParts();
    wait();
}

void PlacesPage::wait() {
    if (!isVisible() || document_.isPreviewing()) return;
    listParts();
    working_.ask();
}

app::Background<std::vector<PlaceReport>>::Work PlacesPage::prepare() {
    if (part().empty() || (asked_ == document_.build() && !reports_.empty())) {
        fill();
        return {};
    }
    asked_ = document_.build();
    note_->setText(tr("Working out each place..."));
    return [build = asked_, id = part()](const std::atomic<bool> &stop) {
        return comparePlaces(build, id, [&stop] { return stop.load(); });
    };
}

void PlacesPage::fill() {
    add_->setEnabled(!part().empty());
    take_->setEnabled(false);
    remove_->setEnabled(false);
    if (part().empty()) {
        table_->setRowCount(0);
        note_->setText(tr("No GPS and no compass is aboard yet: put one on the mat in Place."));
        return;
    }
    table_->setRowCount(int(reports_.size()));
    for (std::size_t r = 0; r < reports_.size(); ++r) {
        const PlaceReport &report = reports_[r];
        auto *name = new QTableWidgetItem(
            report.trial.empty()
                ? tr("where it is")
                : QString::fromStdString(report.name) +
                      (report.meets.empty() ? QString()
                                            : tr(" (in %1)")
                                                  .arg(QString::fromStdString(
                                                      withinSentence(displayName(document_.build(), report.meets))))));
        name->setFont(theme_.text(12, report.trial.empty()));
        table_->setItem(int(r), 0, name);
        for (std::size_t c = 0; c < columns().size(); ++c) {
            auto *item = new QTableWidgetItem(shown(report, c));
            item->setTextAlignment(Qt::AlignCenter);
            // The best of each column stands out.
            const auto mine = columns()[c].value(report);
            bool best = mine && reports_.size() > 1, differs = false;
            for (const auto &other : reports_)
                if (const auto theirs = columns()[c].value(other); theirs && mine) {
                    differs |= std::abs(*theirs - *mine) > 1e-6;
                    if (columns()[c].lessIsBetter ? *theirs < *mine - 1e-9 : *theirs > *mine + 1e-9) best = false;
                }
            item->setFont(theme_.numbers(12, best && differs));
            if (best && differs) item->setForeground(theme_.colors().link);
            table_->setItem(int(r), int(c) + 1, item);
        }
    }
    // The names are whole, in a narrow window too: what is right of them can be scrolled to.
    auto *heads = table_->horizontalHeader();
    heads->setSectionResizeMode(0, QHeaderView::Interactive);
    table_->resizeColumnsToContents();
    if (heads->length() < table_->viewport()->width()) heads->setSectionResizeMode(0, QHeaderView::Stretch);
    note_->setText(
        reports_.empty() ? tr("Working out each place...")
        : reports_.size() < 2
            ? tr("Add a place, or click one in Compass: everything is worked out for the part standing there, its "
                 "wires led there.")
            : tr("Each place is a whole analysis with the part standing there and its wires led there. The best "
                 "of each column stands out."));
}

} // namespace waxis::radio
