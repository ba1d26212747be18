#include "app/stages/log/entries_page.h"

#include "app/stages/log/session_column.h"
#include "app/widgets/card.h"
#include "app/widgets/file_dialogs.h"
#include "app/widgets/typed_number.h"
#include "core/base/by_id.h"
#include "core/edits/log_edits.h"
#include "core/kit/kit.h"
#include "core/log/entry_text.h"
#include "io/csv/log_csv.h"
#include "io/file_bytes.h"
#include "io/json/parse.h"

#include <QAbstractItemView>
#include <QComboBox>
#include <QCompleter>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStringListModel>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::logbench {

namespace {

enum Column { kWhat, kOf, kValue, kDoubt, kWords, kState, kColumns };

QString subjectName(const Build &build, const std::string &id) {
    const std::string kind = kitItemName(build, id);
    return QString::fromStdString(kind.empty() || findPart(build, id) ? displayName(build, id) : kind);
}

QString stateOf(const Entry &entry) {
    if (entry.setAside) return EntriesPage::tr("set aside");
    const bool opens =
        entry.quantity == Quantity::openEnd || entry.quantity == Quantity::fault || entry.quantity == Quantity::damage;
    if (!opens) return entry.instrument.empty() ? QString() : QString::fromStdString(entry.instrument);
    if (!entry.cure.empty()) return EntriesPage::tr("mended: %1").arg(QString::fromStdString(entry.cure));
    return entry.blocks ? EntriesPage::tr("open, no flight before") : EntriesPage::tr("open");
}

} // namespace

EntriesPage::EntriesPage(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
                         QWidget *parent)
    : QWidget(parent), document_(document), instruments_(instruments), theme_(theme) {
    line_ = new QLineEdit;
    line_->setObjectName("entry-line");
    line_->setAccessibleName(tr("A measurement, as: weight gps 12.4 g"));
    line_->setPlaceholderText(tr("weight gps 12.4 g · flight 9:40 1850 mAh · hover 12.5 A · seen jello 2 · open ..."));
    line_->setFont(theme_.text(15));
    line_->setMinimumHeight(34);
    offers_ = new QStringListModel(this);
    auto *completer = new QCompleter(offers_, this);
    completer->setCompletionMode(QCompleter::UnfilteredPopupCompletion);
    line_->setCompleter(completer);
    hint_ = new QLabel;
    hint_->setObjectName("entry-hint");
    hint_->setFont(theme_.text(11));
    hint_->setWordWrap(true);
    hint_->setForegroundRole(QPalette::PlaceholderText);

    table_ = new theme::MatTable(theme_, {tr("what"), tr("of"), tr("value"), tr("±"), tr("words"), tr("state")});
    table_->setObjectName("log-entries");
    table_->setAccessibleName(tr("Entries of the session"));
    table_->setEmptyText(tr("Nothing in this session yet: type above, one measurement a line."));
    table_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
    constexpr std::array<int, kColumns> kWidths{124, 118, 156, 40, 0, 112};
    for (int i = 0; i < kColumns; ++i) {
        table_->horizontalHeaderItem(i)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
        if (kWidths[std::size_t(i)] > 0) table_->horizontalHeader()->resizeSection(i, kWidths[std::size_t(i)]);
    }
    table_->horizontalHeader()->setSectionResizeMode(kWords, QHeaderView::Stretch);

    auto *tools = new QHBoxLayout;
    const auto tool = [&](const char *name, const QString &text, const QString &tip, auto act) {
        auto *made = new QToolButton;
        made->setObjectName(name);
        made->setText(text);
        made->setToolTip(tip);
        connect(made, &QToolButton::clicked, this, act);
        tools->addWidget(made);
        return made;
    };
    aside_ = tool("entry-aside", tr("Set aside"), tr("Kept, and not counted; again to count it"), [this] {
        if (const Entry *entry = current()) {
            Entry next = *entry;
            next.setAside = !next.setAside;
            change(next.setAside ? tr("Set aside") : tr("Count again"), next);
        }
    });
    blocks_ = tool("entry-blocks", tr("No flight before"), tr("It has to be mended before the craft flies"), [this] {
        if (const Entry *entry = current()) {
            Entry next = *entry;
            next.blocks = !next.blocks;
            change(tr("No flight before"), next);
        }
    });
    cure_ = tool("entry-cure", tr("Mended by…"), tr("What mended it; empty opens it again"), [this] {
        const Entry *entry = current();
        if (!entry) return;
        bool ok = false;
        const QString cure = QInputDialog::getText(this, tr("Mended by"), tr("What mended it:"), QLineEdit::Normal,
                                                   QString::fromStdString(entry->cure), &ok);
        if (!ok) return;
        Entry next = *entry;
        next.cure = cure.trimmed().toStdString();
        change(tr("Mended"), next);
    });
    remove_ = tool("entry-remove", tr("Remove"), tr("Takes the entry out of the log"), [this] {
        if (const Entry *entry = current())
            document_.edit(tr("Remove entry"), removeEntry(document_.build(), entry->id));
    });
    tools->addStretch(1);
    tool("entries-in", tr("Read CSV…"), tr("Entries from a list; columns: quantity, of, values, time ..."), [this] {
        const QString path = app::askOpenPath(this, tr("Read entries"), tr("Lists (*.csv)"));
        if (!path.isEmpty()) importList(path);
    });
    tool("entries-out", tr("Save CSV…"), tr("All entries of all sessions"), [this] {
        const auto saved = app::saveTextAsking(this, tr("Save entries"), tr("entries.csv"), tr("Lists (*.csv)"),
                                               writeEntries(document_.build()));
        if (saved) emit said(saved->said, saved->bad);
    });

    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->addWidget(form_ = makeSessionForm());
    all->addWidget(line_);
    all->addWidget(hint_);
    all->addWidget(table_, 1);
    all->addLayout(tools);
    all->addWidget(live_ = makeLive());

    connect(line_, &QLineEdit::textEdited, this, &EntriesPage::showHint);
    connect(line_, &QLineEdit::returnPressed, this, &EntriesPage::enter);
    connect(table_, &QTableWidget::cellChanged, this, &EntriesPage::edited);
    connect(table_, &QTableWidget::currentCellChanged, this, [this] {
        const Entry *entry = current();
        const bool opens = entry && (entry->quantity == Quantity::openEnd || entry->quantity == Quantity::fault ||
                                     entry->quantity == Quantity::damage);
        aside_->setEnabled(entry);
        remove_->setEnabled(entry);
        cure_->setEnabled(opens);
        blocks_->setEnabled(opens);
        if (entry && !entry->subjects.empty() && findPart(document_.build(), entry->subjects.front()))
            document_.select(QString::fromStdString(entry->subjects.front()));
    });
    connect(&document_, &app::Document::changed, this, &EntriesPage::fill);
    connect(&document_, &app::Document::selectionChanged, this, &EntriesPage::showReading);
    connect(&instruments_.scale(), &ScaleLink::read, this, &EntriesPage::showReading);
    connect(&instruments_, &app::Instruments::changed, this, &EntriesPage::showReading);
    constexpr int kTick_ms = 200;
    tick_.setInterval(kTick_ms);
    connect(&tick_, &QTimer::timeout, this, [this] {
        const qint64 seconds = flown_.elapsed() / 1000;
        clock_->setText(tr("%1:%2").arg(seconds / 60).arg(seconds % 60, 2, 10, QChar('0')));
    });
    fill();
    showReading();
}

QWidget *EntriesPage::makeSessionForm() {
    auto *card = new theme::Card(theme_, {});
    auto *grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(4);
    const auto field = [&](int row, int column, const QString &label, const char *name, const QString &hint,
                           int span = 1) {
        auto *edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setPlaceholderText(hint);
        edit->setAccessibleName(label);
        auto *words = new QLabel(label);
        words->setForegroundRole(QPalette::PlaceholderText);
        words->setFont(theme_.text(11));
        grid->addWidget(words, row, 2 * column);
        grid->addWidget(edit, row, 2 * column + 1, 1, span);
        connect(edit, &QLineEdit::editingFinished, this, &EntriesPage::saveSession);
        return edit;
    };
    place_ = field(0, 0, tr("Place"), "session-place", tr("North dyke"));
    height_ = field(0, 1, tr("height"), "session-height", tr("12 m"));
    air_ = field(0, 2, tr("air"), "session-air", tr("18 °C"));
    wind_ = field(0, 3, tr("wind"), "session-wind", tr("light"));
    state_ = field(1, 0, tr("Craft"), "session-state", tr("as first flown"));
    const auto combo = [&](int row, int column, const QString &label, const char *name) {
        auto *box = new QComboBox;
        box->setObjectName(name);
        box->setAccessibleName(label);
        auto *words = new QLabel(label);
        words->setForegroundRole(QPalette::PlaceholderText);
        words->setFont(theme_.text(11));
        grid->addWidget(words, row, 2 * column);
        grid->addWidget(box, row, 2 * column + 1);
        connect(box, &QComboBox::activated, this, &EntriesPage::saveSession);
        return box;
    };
    case_ = combo(1, 1, tr("load case"), "session-case");
    sky_ = combo(1, 2, tr("sky"), "session-sky");
    sky_->addItems({tr("not said"), tr("open"), tr("trees"), tr("houses")});
    note_ = field(1, 3, tr("note"), "session-note", {});
    grid->setColumnStretch(1, 3);
    grid->setColumnStretch(3, 2);
    grid->setColumnStretch(5, 2);
    grid->setColumnStretch(7, 3);
    card->body().addLayout(grid);
    return card;
}

QWidget *EntriesPage::makeLive() {
    auto *card = new theme::Card(theme_, {});
    auto *line = new QHBoxLayout;
    constexpr int kFigure_px = 52; // read from two metres
    figure_ = new QLabel;
    figure_->setObjectName("scale-figure");
    figure_->setFont(theme_.numbers(kFigure_px, true));
    figureOf_ = new QLabel;
    figureOf_->setObjectName("scale-of");
    figureOf_->setWordWrap(true);
    figureOf_->setFont(theme_.text(12));
    take_ = new QPushButton(tr("Take"));
    take_->setObjectName("scale-take");
    take_->setToolTip(tr("Enters what the scale shows: for the chosen part, or for the craft"));
    clock_ = new QLabel(tr("0:00"));
    clock_->setObjectName("flight-clock");
    clock_->setFont(theme_.numbers(kFigure_px, true));
    timer_ = new QPushButton(tr("Take off"));
    timer_->setObjectName("flight-timer");
    timer_->setMinimumHeight(44);
    timer_->setToolTip(tr("Starts the flight's clock; again enters the flight"));
    line->addWidget(figure_);
    line->addWidget(figureOf_, 1);
    line->addWidget(take_);
    line->addSpacing(24);
    line->addWidget(clock_);
    line->addWidget(timer_);
    card->body().addLayout(line);
    connect(take_, &QPushButton::clicked, this, &EntriesPage::takeReading);
    connect(timer_, &QPushButton::clicked, this, &EntriesPage::toggleTimer);
    return card;
}

void EntriesPage::setSession(const std::string &id) {
    session_ = id;
    fill();
}

const Entry *EntriesPage::current() const {
    const int row = table_->currentRow();
    return row >= 0 && row < int(rows_.size()) ? byId(document_.build().log->entries, rows_[std::size_t(row)])
                                               : nullptr;
}

void EntriesPage::change(const QString &name, Entry entry) {
    document_.edit(name, changeEntry(document_.build(), entry));
}

void EntriesPage::enter() {
    const std::string text = line_->text().toStdString();
    const auto entry = readEntry(document_.build(), text);
    if (!entry) {
        QString why = QString::fromStdString(entry.error().message);
        if (!entry.error().suggestion.empty())
            why += tr("; did you mean \"%1\"?").arg(QString::fromStdString(entry.error().suggestion));
        hint_->setText(why);
        line_->setCursorPosition(int(QString::fromUtf8(text.data(), qsizetype(entry.error().at)).size()));
        return;
    }
    if (session_.empty()) emit sessionWanted();
    Entry made = *entry;
    made.session = session_;
    made.at = timeNow();
    if (!document_.edit(tr("Enter a measurement"), addEntry(document_.build(), made))) return;
    line_->clear();
    hint_->clear();
    table_->setCurrentCell(table_->rowCount() - 1, kWhat);
    line_->setFocus();
}

void EntriesPage::showHint() {
    QStringList offers;
    const std::string text = line_->text().toStdString();
    const auto space = text.rfind(' ');
    const std::string before = space == std::string::npos ? "" : text.substr(0, space + 1);
    for (const auto &offer : entryCompletions(document_.build(), text))
        offers << QString::fromStdString(before + offer);
    offers_->setStringList(offers);
    const std::string first = text.substr(0, text.find(' '));
    hint_->clear();
    for (const auto &info : quantityBook())
        if (!first.empty() && info.key.starts_with(first)) {
            hint_->setText(tr("%1, as: %2")
                               .arg(QString::fromUtf8(info.title.data(), qsizetype(info.title.size())),
                                    QString::fromUtf8(info.example.data(), qsizetype(info.example.size()))));
            break;
        }
}

void EntriesPage::fill() {
    const Build &build = document_.build();
    fillSession();
    std::vector<const Entry *> entries;
    for (const auto &entry : build.log->entries)
        if (entry.session == session_) entries.push_back(&entry);
    const int current = table_->currentRow();
    rows_.clear();
    for (const Entry *entry : entries) rows_.push_back(entry->id);
    table_->setRowCount(int(entries.size()));
    {
        const QSignalBlocker unheard(table_); // the end of filling is told as well
        const theme::Refill filling(*table_);
        for (int row = 0; row < table_->rowCount(); ++row) {
            const Entry &entry = *entries[std::size_t(row)];
            const auto &info = quantityInfo(entry.quantity);
            QStringList of;
            for (const auto &subject : entry.subjects) of << subjectName(build, subject);
            QString words = QString::fromStdString(entry.text);
            if (!entry.word.empty()) {
                QString word = QString::fromStdString(entry.word);
                for (const auto &seen : seenWords())
                    if (seen.id == entry.word)
                        word = QString::fromUtf8(seen.title.data(), qsizetype(seen.title.size()));
                words = words.isEmpty() ? word : word + ": " + words;
            }
            const std::array<QString, kColumns> shown{
                QString::fromUtf8(info.title.data(), qsizetype(info.title.size())),
                of.join(QStringLiteral(", ")),
                QString::fromStdString(valuesInWords(entry)),
                info.values.empty() || entry.values.empty() ? QString() : QString::number(doubtOf(entry), 'g', 2),
                words,
                stateOf(entry)};
            const bool isOpen = stateOf(entry).startsWith(tr("open"));
            for (int column = 0; column < kColumns; ++column) {
                QTableWidgetItem *cell = table_->item(row, column);
                if (!cell) table_->setItem(row, column, cell = new QTableWidgetItem);
                cell->setText(shown[std::size_t(column)]);
                cell->setToolTip(shown[std::size_t(column)]);
                cell->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
                const bool editable = column == kValue || column == kDoubt || column == kWords;
                cell->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable |
                               (editable ? Qt::ItemIsEditable : Qt::NoItemFlags));
                cell->setForeground(entry.setAside               ? theme_.colors().softChalk
                                    : isOpen && column == kState ? theme::severityOnMat(Severity::watch)
                                                                 : theme_.colors().chalk);
                QFont font = cell->font();
                font.setStrikeOut(entry.setAside && column == kValue);
                cell->setFont(font);
            }
        }
    }
    if (current >= 0 && current < table_->rowCount()) table_->setCurrentCell(current, kWhat);
    const bool any = this->current() != nullptr;
    for (QToolButton *button : {aside_, remove_}) button->setEnabled(any);
    if (!any)
        for (QToolButton *button : {cure_, blocks_}) button->setEnabled(false);
}

void EntriesPage::edited(int row, int column) {
    if (row < 0 || row >= int(rows_.size())) return;
    const Entry *entry = byId(document_.build().log->entries, rows_[std::size_t(row)]);
    if (!entry) return;
    Entry next = *entry;
    const QString typed = table_->item(row, column)->text().trimmed();
    if (column == kWords) {
        next.text = typed.toStdString();
        if (!next.word.empty()) // the word from the list stands before the colon
            next.text = typed.section(':', 1).trimmed().toStdString();
    }
    if (column == kDoubt) {
        next.tolerance.reset();
        if (!typed.isEmpty()) {
            next.tolerance = app::typedNumber(typed);
            if (!next.tolerance) {
                emit said(tr("\"%1\" is no number.").arg(typed), true);
                return fill();
            }
        }
    }
    if (column == kValue) {
        // The same reader as of the line above, with the rest of the entry put before it.
        const QString head = QString::fromUtf8(quantityInfo(next.quantity).key.data(),
                                               qsizetype(quantityInfo(next.quantity).key.size()));
        const QString of =
            next.subjects.empty() ? QString() : QString(" %1").arg(QString::fromStdString(next.subjects[0]));
        const QString word = next.word.empty() ? QString() : QString(" %1").arg(QString::fromStdString(next.word));
        const auto again = readEntry(document_.build(), (head + of + word + " " + typed).toStdString());
        if (!again) {
            emit said(QString::fromStdString(again.error().message), true);
            return fill();
        }
        next.values = again->values;
        if (again->tolerance) next.tolerance = again->tolerance;
    }
    if (next == *entry || !document_.edit(tr("Change entry"), changeEntry(document_.build(), next))) fill();
}

void EntriesPage::fillSession() {
    const Session *session = byId(document_.build().log->sessions, session_);
    form_->setVisible(session != nullptr);
    line_->setEnabled(true);
    if (!session) return;
    app::putText(place_, QString::fromStdString(session->place));
    app::putText(height_, session->height_m ? tr("%1 m").arg(*session->height_m) : QString());
    app::putText(air_, session->air_C ? tr("%1 °C").arg(*session->air_C) : QString());
    app::putText(wind_, QString::fromStdString(session->wind));
    app::putText(state_, QString::fromStdString(session->state));
    app::putText(note_, QString::fromStdString(session->note));
    sky_->setCurrentIndex(session->sky ? 1 + int(*session->sky) : 0);
    const QSignalBlocker quiet(case_);
    case_->clear();
    for (const auto &loadCase : *document_.analysis().derived.loadCases)
        case_->addItem(QString::fromStdString(loadCase.name), QString::fromStdString(loadCase.id));
    case_->setCurrentIndex(std::max(0, case_->findData(QString::fromStdString(session->loadCase))));
}

void EntriesPage::saveSession() {
    const Session *session = byId(document_.build().log->sessions, session_);
    if (!session) return;
    Session next = *session;
    next.place = place_->text().trimmed().toStdString();
    next.wind = wind_->text().trimmed().toStdString();
    next.state = state_->text().trimmed().toStdString();
    next.note = note_->text().trimmed().toStdString();
    const auto number = [&](QLineEdit *field, Measure measure, std::optional<double> &value) {
        const QString typed = field->text().trimmed();
        if (typed.isEmpty()) {
            value.reset();
        } else if (const auto read = app::typedNumber(typed, measure)) {
            value = read;
        } else {
            emit said(app::notUnderstood(typed, measure), true);
        }
    };
    number(height_, Measure::distance, next.height_m);
    number(air_, Measure::heat, next.air_C);
    next.sky.reset();
    if (sky_->currentIndex() > 0) next.sky = SkyAround(sky_->currentIndex() - 1);
    if (case_->currentIndex() >= 0) {
        const std::string id = case_->currentData().toString().toStdString();
        const bool standard = next.loadCase.empty() && case_->currentIndex() == 0;
        if (!standard) next.loadCase = id;
    }
    if (!(next == *session)) document_.edit(tr("Change session"), changeSession(document_.build(), next));
}

void EntriesPage::showReading() {
    ScaleLink &scale = instruments_.scale();
    const bool open = scale.isOpen();
    for (QWidget *widget :
         {static_cast<QWidget *>(figure_), static_cast<QWidget *>(figureOf_), static_cast<QWidget *>(take_)})
        widget->setVisible(open);
    if (!open) return;
    const auto reading = scale.reading();
    figure_->setText(reading ? tr("%1 g").arg(reading->mass_g, 0, 'f', 1) : tr("— g"));
    const Part *part = document_.selectedPart();
    const QString of = part ? QString::fromStdString(displayName(document_.build(), part->id)) : tr("the craft");
    figureOf_->setText(reading && reading->isStable ? tr("settled, for %1").arg(of) : tr("settling, for %1").arg(of));
    take_->setEnabled(reading && reading->isStable && reading->mass_g > 0);
}

void EntriesPage::takeReading() {
    const auto reading = instruments_.scale().reading();
    if (!reading) return;
    if (session_.empty()) emit sessionWanted();
    Entry entry;
    entry.session = session_;
    entry.at = timeNow();
    const Part *part = document_.selectedPart();
    entry.quantity = part ? Quantity::partWeight : Quantity::craftWeight;
    if (part) entry.subjects = {part->id};
    entry.values = {reading->mass_g};
    entry.instrument = instruments_.isScaleSimulated() ? "simulated scale" : "scale";
    entry.raw = reading->raw.toStdString();
    document_.edit(tr("Take the scale's reading"), addEntry(document_.build(), entry));
}

void EntriesPage::toggleTimer() {
    if (!tick_.isActive()) {
        flown_.start();
        tick_.start();
        timer_->setText(tr("Landed"));
        return;
    }
    tick_.stop();
    timer_->setText(tr("Take off"));
    if (session_.empty()) emit sessionWanted();
    Entry entry;
    entry.session = session_;
    entry.at = timeNow();
    entry.quantity = Quantity::flight;
    entry.values = {double(flown_.elapsed()) / 60000};
    entry.instrument = "timer";
    if (document_.edit(tr("Enter a flight"), addEntry(document_.build(), entry)))
        emit said(tr("Flight entered: type what the charger put back behind it, as \"9:40 1850 mAh\"."), false);
}

void EntriesPage::importList(const QString &path) {
    const auto bytes = io::readFile(path.toStdString(), io::kLargestFile);
    if (!bytes) return emit said(QString::fromStdString(bytes.error()), true);
    const EntryList list = readEntryList(parseCsv(*bytes), document_.build());
    const bool took =
        !list.entries.empty() && document_.edit(tr("Read entries"), takeEntryList(document_.build(), list));
    QString text = took ? tr("%n entries read", nullptr, int(list.entries.size())) : tr("Nothing was read");
    if (!list.problems.empty())
        text += tr("; line %1: %2").arg(list.problems[0].line).arg(QString::fromStdString(list.problems[0].reason));
    if (list.problems.size() > 1) text += tr(" (and %n more)", nullptr, int(list.problems.size()) - 1);
    emit said(text, !list.problems.empty());
}

void EntriesPage::chooseEntry(const std::string &id) {
    for (int row = 0; row < int(rows_.size()); ++row)
        if (rows_[std::size_t(row)] == id) table_->setCurrentCell(row, kWhat);
}

} // namespace waxis::logbench
