#include "app/stages/kit/own_part_card.h"

#include "app/document/data_files.h"
#include "app/stages/kit/part_text.h"
#include "app/theme/metrics.h"
#include "app/widgets/typed_number.h"
#include "core/catalog/fresh_types.h"
#include "core/catalog/kind_words.h"
#include "core/catalog/part_check.h"
#include "core/edits/part_edits.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScreen>
#include <QScrollArea>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::kit {

namespace {

/// As many digits as one would read off calipers or a data sheet.
QString sensible(const std::optional<double> &value) {
    if (!value) return {};
    constexpr double kWhole = 1000;
    return std::abs(*value) >= kWhole ? QString::number(*value, 'f', 0) : QString::number(*value, 'g', 4);
}

QString view(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

} // namespace

OwnPartCard::OwnPartCard(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QDialog(parent), document_(document), theme_(theme) {
    setObjectName("own-part-card");
    setWindowTitle(tr("A part of your own"));
    constexpr QSize kWanted(880, 660), kEdges(40, 60); // of the smallest screens a little is left
    resize(kWanted.boundedTo(screen()->availableSize() - kEdges));
    model_ = new QLabel;
    model_->setWordWrap(true);
    kind_ = new QComboBox;
    kind_->setObjectName("own-kind");
    kind_->setAccessibleName(tr("Kind of part"));
    for (int k = 0; k <= int(PartKind::other); ++k) kind_->addItem(view(kindName(PartKind(k))), k);
    name_ = new QLineEdit;
    name_->setObjectName("own-name");
    name_->setAccessibleName(tr("Name of the part"));
    name_->setPlaceholderText(tr("Name, as you will look for it"));
    name_->setFont(theme_.text(theme::kHeadPixels, true));
    form_ = new QFormLayout;
    form_->setVerticalSpacing(5);
    form_->setHorizontalSpacing(12);
    problem_ = new QLabel;
    problem_->setObjectName("own-problem");
    problem_->setWordWrap(true);
    canvas_ = new PartCanvas(theme_);
    canvas_->setMinimumWidth(320);
    keep_ = new QPushButton(tr("Keep in my parts"));
    keep_->setObjectName("own-keep");
    keep_->setDefault(true);
    auto *cancel = new QPushButton(tr("Leave it"));
    auto *buttons = new QHBoxLayout;
    buttons->addWidget(cancel);
    buttons->addStretch();
    buttons->addWidget(keep_);
    auto *side = new QVBoxLayout;
    side->setContentsMargins(16, 14, 16, 12);
    side->setSpacing(8);
    side->addWidget(name_);
    side->addWidget(kind_);
    side->addWidget(model_);
    connectors_ = new ConnectorList;
    auto *inner = new QWidget;
    auto *numbers = new QVBoxLayout(inner);
    numbers->setContentsMargins(0, 0, 8, 0);
    numbers->setSpacing(8);
    numbers->addLayout(form_);
    numbers->addWidget(connectors_);
    numbers->addStretch();
    auto *scroll = new QScrollArea; // a controller has a dozen connectors
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(inner);
    side->addWidget(scroll, 1);
    side->addWidget(problem_);
    side->addLayout(buttons);
    connect(connectors_, &ConnectorList::changed, this, &OwnPartCard::refresh);
    connect(canvas_, &PartCanvas::walked, this, [this](int, int port) { lit_ = port; });
    connect(connectors_, &ConnectorList::looked, this, [this](int port) {
        lit_ = port;
        canvas_->show(type_, -1, lit_);
    });
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(canvas_, 5);
    row->addLayout(side, 4);
    connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
    connect(keep_, &QPushButton::clicked, this, &OwnPartCard::keep);
    connect(name_, &QLineEdit::textChanged, this, &OwnPartCard::refresh);
    connect(kind_, &QComboBox::activated, this, [this](int index) {
        const QString name = name_->text();
        fresh(PartKind(kind_->itemData(index).toInt()));
        name_->setText(name);
    });
}

void OwnPartCard::like(const PartType &model) {
    type_ = model;
    kind_->hide();
    model_->setText(tr("Like %1, but with the numbers of the one in your hand. What is not asked here stays as it is "
                       "there.")
                        .arg(QString::fromStdString(model.name)));
    name_->clear();
    makeFields();
    name_->setFocus();
}

void OwnPartCard::fresh(PartKind kind) {
    type_ = freshType(kind, {});
    kind_->show();
    kind_->setCurrentIndex(kind_->findData(int(kind)));
    model_->setText(tr("A plain part of its kind: type over what is otherwise. The part editor has the rest."));
    makeFields();
    name_->setFocus();
}

void OwnPartCard::makeFields() {
    while (form_->rowCount() > 0) form_->removeRow(0);
    edits_.clear();
    fields_ = quickFields(type_);
    wrong_.assign(fields_.size(), false);
    for (std::size_t i = 0; i < fields_.size(); ++i) {
        auto *edit = new QLineEdit;
        edit->setObjectName("own-" + view(fields_[i].id));
        const QString unit = view(unitOf(fields_[i].measure));
        edit->setAccessibleName(unit.isEmpty() ? view(fields_[i].title)
                                               : tr("%1 in %2").arg(view(fields_[i].title), unit));
        edit->setFont(theme_.numbers(12));
        edit->setMaximumWidth(120);
        form_->addRow(unit.isEmpty() ? view(fields_[i].title) : tr("%1, %2").arg(view(fields_[i].title), unit), edit);
        connect(edit, &QLineEdit::textEdited, this, [this, i] { typed(i); });
        edits_.push_back(edit);
    }
    lit_ = -1;
    connectors_->show(type_);
    refresh();
}

void OwnPartCard::typed(std::size_t index) {
    const QuickField &field = fields_[index];
    const QString text = edits_[index]->text();
    const auto value = app::typedNumber(text, field.measure);
    wrong_[index] = !text.trimmed().isEmpty() && !(value && *value >= field.least && *value <= field.most);
    if (value && !wrong_[index]) field.set(type_, *value);
    refresh();
}

void OwnPartCard::refresh() {
    for (std::size_t i = 0; i < fields_.size(); ++i) {
        if (edits_[i]->hasFocus() && edits_[i]->isModified()) continue; // never under the typing hand
        if (!wrong_[i]) edits_[i]->setText(sensible(fields_[i].get(type_)));
    }
    canvas_->show(type_, -1, lit_);
    QStringList problems;
    if (!connectors_->problem().isEmpty()) problems << connectors_->problem();
    for (std::size_t i = 0; i < fields_.size(); ++i)
        if (wrong_[i]) {
            const auto value = app::typedNumber(edits_[i]->text(), fields_[i].measure);
            problems << (value
                             ? tr("%1: %2 to %3").arg(view(fields_[i].title)).arg(fields_[i].least).arg(fields_[i].most)
                             : app::notUnderstood(edits_[i]->text(), fields_[i].measure));
        }
    if (name_->text().trimmed().isEmpty())
        problems << tr("Give it a name.");
    else {
        PartType named = type_;
        named.name = name_->text().trimmed().toStdString();
        named.id = "own-" + idFromName(named.name);
        for (const auto &fault : faultsOf(named, document_.build().frame->materials))
            if (fault.stops)
                problems << tr("%1: %2").arg(QString::fromStdString(fault.where), QString::fromStdString(fault.what));
    }
    problem_->setText(problems.join('\n'));
    keep_->setEnabled(problems.isEmpty());
}

void OwnPartCard::keep() {
    TypeTable taken = document_.library();
    for (const auto &[id, type] : *document_.build().types) taken.emplace(id, type);
    const PartType own = ownTypeLike(type_, name_->text().trimmed().toStdString(), taken);
    QString problem;
    if (!app::keepInOwnLibrary(own, problem)) {
        emit said(tr("Not kept in your parts: %1").arg(problem), true);
        return;
    }
    document_.addOwnType(own);
    emit said(tr("%1 is in your parts.").arg(QString::fromStdString(own.name)), false);
    accept();
    emit kept(QString::fromStdString(own.id));
}

} // namespace waxis::kit
