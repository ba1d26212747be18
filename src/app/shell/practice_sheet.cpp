#include "app/shell/practice_sheet.h"

#include "app/theme/metrics.h"
#include "app/widgets/file_dialogs.h"
#include "app/widgets/texts.h"
#include "app/widgets/typed_number.h"
#include "core/edits/part_edits.h"
#include "core/practice/practice.h"
#include "core/rules/rule.h"

#include <QComboBox>
#include <QFileInfo>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QTableWidget>
#include <QVBoxLayout>

namespace waxis::app {

namespace {

enum Column { kTitle, kValue, kUnit, kProfiles, kReadBy, kSource, kNote, kColumns };

QString numberText(double value) { return QString::number(value, 'g', 6); }

/// Rules that read a limit, by name.
QString readers(Limit limit) {
    QStringList names;
    for (const auto &rule : ruleBook())
        if (std::find(rule.limits.begin(), rule.limits.end(), limit) != rule.limits.end())
            names << fromView(ruleName(rule.id));
    return names.join(", ");
}

/// What would hold without this build's own value of the limit.
double profilesValue(PracticeSettings settings, Limit limit) {
    settings.limits.erase(std::string(definitionOf(limit).id));
    return practiceOf(settings)[limit];
}

const QString kAsItIs = QStringLiteral("as-it-is");

} // namespace

PracticeSheet::PracticeSheet(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme),
      comparing_(
          0, [this] { return comparison(); }, [this](PracticeComparison result) { showComparison(result); }) {
    setObjectName("practice-sheet");
    auto *title = new QLabel(tr("Practice"));
    title->setFont(theme_.text(theme::kHeadPixels + 3, true));
    profile_ = new QComboBox;
    profile_->setObjectName("sheet-profile");
    profile_->setAccessibleName(tr("Practice profile"));
    for (const auto &profile : profiles()) profile_->addItem(fromView(profile.name), fromView(profile.id));
    forWhom_ = new QLabel;
    forWhom_->setWordWrap(true);
    auto *save = new QPushButton(tr("Save as own profile…"));
    auto *read = new QPushButton(tr("Read own profile…"));
    auto *back = new QPushButton(tr("Back to the bench"));
    back->setObjectName("sheet-back");
    auto *head = new QHBoxLayout;
    head->addWidget(title);
    head->addSpacing(12);
    head->addWidget(profile_);
    head->addStretch();
    head->addWidget(read);
    head->addWidget(save);
    head->addWidget(back);

    limits_ = new QTableWidget(int(kLimitCount), kColumns);
    limits_->setObjectName("limits");
    limits_->setAccessibleName(tr("Limits in force"));
    limits_->setHorizontalHeaderLabels(
        {tr("limit"), tr("value"), tr("unit"), tr("profile's"), tr("read by"), tr("source"), tr("note")});
    limits_->verticalHeader()->hide();
    limits_->verticalHeader()->setDefaultSectionSize(24);
    limits_->horizontalHeader()->setStretchLastSection(true);
    limits_->setSelectionBehavior(QAbstractItemView::SelectRows);
    limits_->setSelectionMode(QAbstractItemView::SingleSelection);
    reset_ = new QPushButton(tr("Back to the profile's value"));
    reset_->setObjectName("limit-reset");
    auto *under = new QHBoxLayout;
    under->addWidget(forWhom_, 1);
    under->addWidget(reset_);

    auto *lower = new QHBoxLayout;
    lower->setSpacing(16);
    lower->addWidget(makeSchools(), 5);
    lower->addWidget(makeComparison(), 5);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(16, 12, 16, 12);
    all->setSpacing(8);
    all->addLayout(head);
    all->addWidget(limits_, 5);
    all->addLayout(under);
    all->addLayout(lower, 6);

    connect(back, &QPushButton::clicked, this, &PracticeSheet::finished);
    connect(save, &QPushButton::clicked, this, [this] { saveProfile(); });
    connect(read, &QPushButton::clicked, this, [this] { readProfile(); });
    connect(profile_, &QComboBox::activated, this, [this](int index) {
        const QString id = profile_->itemData(index).toString();
        document_.edit(tr("Practice %1").arg(id), chooseProfile(document_.build(), id.toStdString()));
    });
    connect(limits_, &QTableWidget::cellChanged, this, &PracticeSheet::cellEdited);
    connect(limits_, &QTableWidget::itemSelectionChanged, this, &PracticeSheet::refreshReset);
    connect(reset_, &QPushButton::clicked, this, [this] {
        const int row = limits_->currentRow();
        if (row < 0) return;
        const auto &definition = limitTable()[std::size_t(row)];
        document_.edit(tr("Reset \"%1\"").arg(fromView(definition.title)),
                       setLimit(document_.build(), std::string(definition.id), std::nullopt));
    });
    connect(&document_, &Document::changed, this, [this] {
        if (isVisible() && !document_.isPreviewing()) refresh();
    });
    forWhom_->setForegroundRole(QPalette::PlaceholderText);
    refresh();
}

QWidget *PracticeSheet::makeSchools() {
    auto *inside = new QWidget;
    auto *column = new QVBoxLayout(inside);
    column->setContentsMargins(0, 0, 8, 0);
    column->setSpacing(2);
    auto *heading = new QLabel(tr("Schools: where builders differ"));
    heading->setFont(theme_.text(theme::kTextPixels, true));
    column->addWidget(heading);
    for (const auto &school : schools()) {
        auto *choice = new QComboBox;
        choice->setObjectName("school-" + fromView(school.id));
        choice->setAccessibleName(fromView(school.title));
        for (const auto &option : school.options) {
            choice->addItem(fromView(option.name), fromView(option.id));
            choice->setItemData(choice->count() - 1, fromView(option.reason), Qt::ToolTipRole);
        }
        auto *row = new QHBoxLayout;
        row->addWidget(new QLabel(fromView(school.title)), 1);
        row->addWidget(choice);
        auto *reason = new QLabel;
        reason->setWordWrap(true);
        reason->setFont(theme_.text(theme::kSmallPixels));
        reason->setForegroundRole(QPalette::PlaceholderText);
        column->addLayout(row);
        column->addWidget(reason);
        column->addSpacing(4);
        schools_[std::string(school.id)] = {choice, reason};
        connect(choice, &QComboBox::activated, this, [this, id = std::string(school.id), choice](int index) {
            document_.edit(tr("School: %1").arg(choice->itemText(index)),
                           setSchool(document_.build(), id, choice->itemData(index).toString().toStdString()));
        });
    }
    column->addStretch();
    auto *area = new QScrollArea;
    area->setWidget(inside);
    area->setWidgetResizable(true);
    area->setFrameShape(QFrame::NoFrame);
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    return area;
}

QWidget *PracticeSheet::makeComparison() {
    auto *box = new QWidget;
    auto *column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto *heading = new QLabel(tr("What would change under another practice"));
    heading->setFont(theme_.text(theme::kTextPixels, true));
    column->addWidget(heading);
    first_ = new QComboBox;
    second_ = new QComboBox;
    first_->setObjectName("compare-first");
    second_->setObjectName("compare-second");
    first_->setAccessibleName(tr("Compare this practice"));
    second_->setAccessibleName(tr("with this one"));
    for (auto *choice : {first_, second_}) {
        choice->addItem(tr("as it is now"), kAsItIs);
        for (const auto &profile : profiles()) choice->addItem(fromView(profile.name), fromView(profile.id));
    }
    second_->setCurrentIndex(1);
    auto *go = new QPushButton(tr("Compare"));
    go->setObjectName("compare-go");
    auto *row = new QHBoxLayout;
    row->addWidget(first_);
    row->addWidget(new QLabel(tr("with")));
    row->addWidget(second_);
    row->addWidget(go);
    row->addStretch();
    column->addLayout(row);
    outcome_ = new QLabel(tr("Both judge the same build; what comes and what goes stands here."));
    outcome_->setObjectName("comparison");
    outcome_->setTextFormat(Qt::RichText);
    outcome_->setWordWrap(true);
    outcome_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    outcome_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto *area = new QScrollArea;
    area->setWidget(outcome_);
    area->setWidgetResizable(true);
    area->setFrameShape(QFrame::NoFrame);
    column->addWidget(area, 1);
    connect(go, &QPushButton::clicked, this, &PracticeSheet::compare);
    return box;
}

void PracticeSheet::refresh() {
    refreshing_ = true;
    const auto &settings = document_.build().practice;
    const Practice practice = practiceOf(settings);
    profile_->setCurrentIndex(profile_->findData(QString::fromStdString(settings.profile)));
    for (const auto &profile : profiles())
        if (profile.id == settings.profile)
            forWhom_->setText(tr("%1 – %2. Type over a value or a note; bold: this build's own.")
                                  .arg(fromView(profile.name), fromView(profile.forWhom)));
    const Practice plain = practiceOfProfile(settings.profile);
    for (auto &[id, row] : schools_) {
        const School &school = *findSchool(id);
        const std::string &now = practice.schools.at(id), &usual = plain.schools.at(id);
        row.choice->setCurrentIndex(row.choice->findData(QString::fromStdString(now)));
        QString reason = fromView(findOption(school, now)->reason);
        if (now != usual) reason += tr(" (The profile's: %1.)").arg(fromView(findOption(school, usual)->name));
        row.reason->setText(reason);
    }
    refreshLimits();
    refreshReset();
    refreshing_ = false;
}

void PracticeSheet::refreshLimits() {
    const auto &settings = document_.build().practice;
    const Practice practice = practiceOf(settings);
    auto put = [&](int row, int column, const QString &text, bool editable, bool strong) {
        auto *item = limits_->item(row, column);
        if (!item) limits_->setItem(row, column, item = new QTableWidgetItem);
        item->setText(text);
        item->setToolTip(text);
        item->setFlags(editable ? item->flags() | Qt::ItemIsEditable : item->flags() & ~Qt::ItemIsEditable);
        item->setFont(column == kValue || column == kProfiles ? theme_.numbers(theme::kTextPixels - 1, strong)
                                                              : theme_.text(theme::kTextPixels - 1, strong));
        if (column == kValue || column == kProfiles) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    };
    for (int row = 0; row < int(kLimitCount); ++row) {
        const auto &definition = limitTable()[std::size_t(row)];
        const std::string id(definition.id);
        const bool own = settings.limits.contains(id);
        const auto note = settings.notes.find(id);
        put(row, kTitle, fromView(definition.title), false, own);
        put(row, kValue, numberText(practice[definition.limit]), true, own);
        put(row, kUnit, fromView(definition.unit), false, false);
        put(row, kProfiles, numberText(profilesValue(settings, definition.limit)), false, false);
        put(row, kReadBy, readers(definition.limit), false, false);
        put(row, kSource, fromView(definition.source), false, false);
        put(row, kNote, note == settings.notes.end() ? QString() : QString::fromStdString(note->second), true, false);
    }
    limits_->setColumnWidth(kTitle, 240);
    limits_->setColumnWidth(kValue, 56);
    limits_->setColumnWidth(kUnit, 40);
    limits_->setColumnWidth(kProfiles, 66);
    limits_->setColumnWidth(kReadBy, 88);
    limits_->setColumnWidth(kSource, 90);
}

void PracticeSheet::refreshReset() {
    const int row = limits_->currentRow();
    reset_->setEnabled(row >= 0 &&
                       document_.build().practice.limits.contains(std::string(limitTable()[std::size_t(row)].id)));
}

void PracticeSheet::cellEdited(int row, int column) {
    if (refreshing_) return;
    const auto &definition = limitTable()[std::size_t(row)];
    const std::string id(definition.id);
    const QString text = limits_->item(row, column)->text().trimmed();
    const auto &settings = document_.build().practice;
    const auto note = settings.notes.find(id);
    const std::string kept = note == settings.notes.end() ? std::string() : note->second;
    if (column == kNote) { // a note makes the value this build's own
        document_.edit(tr("Note on \"%1\"").arg(fromView(definition.title)),
                       setLimit(document_.build(), id, practiceOf(settings)[definition.limit], text.toStdString()));
    } else if (column == kValue) {
        const Measure measure = measureOf(definition.unit);
        const auto value = typedNumber(text, measure);
        if (text.isEmpty())
            document_.edit(tr("Reset \"%1\"").arg(fromView(definition.title)),
                           setLimit(document_.build(), id, std::nullopt));
        else if (!value)
            emit said(tr("\"%1\" is no number: \"%2\" wants one in %3.")
                          .arg(text, fromView(definition.title), fromView(definition.unit)),
                      true);
        else
            document_.edit(tr("Limit \"%1\"").arg(fromView(definition.title)),
                           setLimit(document_.build(), id, *value, kept));
    }
    refresh();
}

bool PracticeSheet::saveProfile(const QString &given) {
    QString path = given.isEmpty() ? askSavePath(this, tr("Save the practice as an own profile"), {},
                                                 tr("Weightaxis practice (*.wpractice)"))
                                   : given;
    if (path.isEmpty()) return false;
    if (QFileInfo(path).suffix().isEmpty()) path += ".wpractice";
    const std::string problem = savePractice(
        path.toStdString(), {QFileInfo(path).completeBaseName().toStdString(), document_.build().practice});
    if (!problem.empty()) {
        emit said(tr("%1 was not written: %2.").arg(path, QString::fromStdString(problem)), true);
        return false;
    }
    emit said(tr("Saved as %1.").arg(path), false);
    return true;
}

bool PracticeSheet::readProfile(const QString &given) {
    const QString path =
        given.isEmpty() ? askOpenPath(this, tr("Read an own profile"), tr("Weightaxis practice (*.wpractice *.json)"))
                        : given;
    if (path.isEmpty()) return false;
    const auto practice = loadPractice(path.toStdString());
    if (!practice) {
        const auto &error = practice.error();
        emit said(tr("%1 was not read. At %2: expected %3, found %4. %5")
                      .arg(QFileInfo(path).fileName(), QString::fromStdString(error.where),
                           QString::fromStdString(error.expected), QString::fromStdString(error.found),
                           QString::fromStdString(error.suggestion))
                      .trimmed(),
                  true);
        return false;
    }
    return document_.edit(tr("Practice %1").arg(QString::fromStdString(practice->name)),
                          setPractice(document_.build(), practice->settings));
}

void PracticeSheet::compare() {
    outcome_->setText(tr("Judging…"));
    comparing_.ask();
}

Background<PracticeComparison>::Work PracticeSheet::comparison() {
    auto practice = [this](const QComboBox *choice) {
        const QString id = choice->currentData().toString();
        return id == kAsItIs ? practiceOf(document_.build().practice) : practiceOfProfile(id.toStdString());
    };
    return [build = document_.build(), a = practice(first_), b = practice(second_)](const std::atomic<bool> &) {
        return comparePractices(build, a, b);
    };
}

void PracticeSheet::showComparison(const PracticeComparison &result) {
    const Build &build = document_.build();
    const auto &c = theme_.colors();
    QString html;
    auto block = [&](const QString &title, const QStringList &lines) {
        html += QStringLiteral("<p style='margin:0 0 2px 0'><b>%1</b></p>").arg(title);
        if (lines.isEmpty())
            html += QStringLiteral("<p style='margin:0 0 8px 0;color:%1'>%2</p>").arg(c.muted.name(), tr("nothing"));
        for (const auto &line : lines) html += QStringLiteral("<p style='margin:0 0 3px 8px'>%1</p>").arg(line);
        html += QStringLiteral("<p style='margin:0;font-size:4px'>&nbsp;</p>");
    };
    auto line = [&](const Finding &finding) {
        return QStringLiteral("<span style='color:%1'>%2</span> %3")
            .arg(c.severity(finding.severity).name(), fromView(ruleName(finding.rule)),
                 QString::fromStdString(wordFinding(build, finding).headline.text()).toHtmlEscaped());
    };
    QStringList comes, goes, changes;
    for (const auto &finding : result.comes) comes << line(finding);
    for (const auto &finding : result.goes) goes << line(finding);
    for (const auto &change : result.changes) {
        QString text = line(change.after);
        if (change.before.limit && change.after.limit)
            text += tr(" (limit %1 instead of %2 %3)")
                        .arg(numberText(*change.after.limit), numberText(*change.before.limit),
                             fromView(change.after.unit));
        changes << text;
    }
    block(tr("Comes with %1").arg(second_->currentText()), comes);
    block(tr("Goes with it"), goes);
    if (!changes.isEmpty()) block(tr("Stays, judged otherwise"), changes);
    outcome_->setText(html);
}

void PracticeSheet::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
    compare(); // something to look at; it takes a moment in the background
}

} // namespace waxis::app
