#include "app/stages/kit/part_editor.h"

#include "app/document/background.h"
#include "app/document/data_files.h"
#include "app/stages/kit/part_fields.h"
#include "core/edits/kit_edits.h"
#include "core/edits/part_edits.h"

#include <QFileInfo>
#include <QFutureWatcher>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressDialog>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <atomic>
#include <memory>

namespace waxis::kit {

PartEditor::PartEditor(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    canvas_ = new PartCanvas(theme);
    canvas_->setObjectName("type-canvas");
    auto *inner = new QWidget;
    column_ = new QVBoxLayout(inner);
    column_->setContentsMargins(12, 8, 12, 12);
    column_->setSpacing(4);
    title_ = new QLabel;
    title_->setFont(theme.text(15, true));
    column_->addWidget(title_);
    makeForm();
    column_->addStretch();
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(inner);
    faultText_ = new QLabel;
    faultText_->setObjectName("type-faults");
    faultText_->setWordWrap(true);
    faultText_->setContentsMargins(12, 6, 12, 0);
    auto *cancel = new QPushButton(tr("Leave it"));
    keepOwn_ = new QPushButton(tr("Keep in my parts"));
    keepOwn_->setObjectName("keep-own");
    keepOwn_->setToolTip(tr("In the build and in your own part library"));
    keep_ = new QPushButton(tr("Keep in this build"));
    keep_->setObjectName("keep");
    auto *buttons = new QHBoxLayout;
    buttons->setContentsMargins(12, 6, 12, 8);
    buttons->addWidget(cancel);
    buttons->addStretch();
    buttons->addWidget(keepOwn_);
    buttons->addWidget(keep_);
    auto *side = new QVBoxLayout;
    side->setContentsMargins(0, 0, 0, 0);
    side->setSpacing(0);
    side->addWidget(scroll, 1);
    side->addWidget(faultText_);
    side->addLayout(buttons);
    auto *holder = new QWidget;
    holder->setMinimumWidth(430);
    holder->setMaximumWidth(520);
    holder->setLayout(side);
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(canvas_, 10);
    row->addWidget(holder, 14);
    connect(cancel, &QPushButton::clicked, this, [this] { emit finished(false); });
    connect(keep_, &QPushButton::clicked, this, [this] { keep(false); });
    connect(keepOwn_, &QPushButton::clicked, this, [this] { keep(true); });
}

Electrical &PartEditor::electrical() {
    if (!type_.electrical) type_.electrical.emplace();
    return *type_.electrical;
}

void PartEditor::open(const PartType &type, const std::string &replaces) {
    type_ = type;
    replaces_ = replaces;
    idFollowsName_ = replaces.empty();
    problem_.clear();
    title_->setText(replaces.empty() ? tr("New part type") : tr("Part type %1").arg(QString::fromStdString(type.name)));
    if (auto *focus = focusWidget()) focus->clearFocus();
    refill();
    changed();
    canvas_->fit();
}

void PartEditor::refill() {
    filling_ = true;
    for (const auto &fill : fillers_) fill();
    filling_ = false;
}

void PartEditor::changed(const QString &problem) {
    problem_ = problem;
    if (type_.electrical && *type_.electrical == Electrical{})
        type_.electrical.reset(); // looking at the fields is no statement
    faults_ = faultsOf(type_, document_.build().frame->materials);
    if (type_.id != replaces_ && document_.build().types->contains(type_.id))
        faults_.insert(faults_.begin(), {"id", tr("the build has a part type of this id").toStdString(), true});
    canvas_->show(type_, bodies_->widget()->hasFocus() ? bodies_->current() : -1,
                  ports_->widget()->hasFocus() ? ports_->current() : -1);
    QStringList lines;
    const auto &c = theme_.colors();
    auto add = [&](const QString &text, Severity severity) {
        lines << QStringLiteral("<span style='color:%1'>%2</span>")
                     .arg(c.severity(severity).name(), text.toHtmlEscaped());
    };
    if (!problem_.isEmpty()) add(problem_, Severity::stop);
    for (const auto &fault : faults_)
        add(QString::fromStdString(fault.where + ": " + fault.what), fault.stops ? Severity::stop : Severity::watch);
    constexpr int kShown = 5;
    if (lines.size() > kShown) lines = lines.mid(0, kShown) << tr("and %1 more").arg(lines.size() - kShown);
    faultText_->setText(lines.isEmpty() ? tr("Nothing is wrong with it.") : lines.join("<br>"));
    const bool good =
        problem_.isEmpty() && std::none_of(faults_.begin(), faults_.end(), [](const PartFault &f) { return f.stops; });
    keep_->setEnabled(good);
    keepOwn_->setEnabled(good);
    if (idFollowsName_)
        if (auto *id = findChild<QLineEdit *>("type-id"); id && !id->hasFocus())
            id->setText(QString::fromStdString(type_.id));
}

void PartEditor::readBodies(const QString &path) {
    using Read = Result<ImportedSolids, LoadError>;
    auto goesOn = std::make_shared<std::atomic<bool>>(true);
    auto *waiting = new QProgressDialog(tr("Reading %1…").arg(QFileInfo(path).fileName()), tr("Give up"), 0, 0, this);
    waiting->setObjectName("reading-bodies");
    waiting->setWindowModality(Qt::WindowModal);
    constexpr int kPatience_ms = 400;
    waiting->setMinimumDuration(kPatience_ms);
    waiting->setValue(0);
    connect(waiting, &QProgressDialog::canceled, this, [goesOn] { *goesOn = false; });
    auto *watcher = new QFutureWatcher<std::shared_ptr<Read>>(this);
    connect(watcher, &QFutureWatcherBase::finished, this, [this, watcher, waiting] {
        waiting->deleteLater();
        watcher->deleteLater();
        takeBodies(*watcher->result());
    });
    connect(this, &QObject::destroyed, [goesOn] { *goesOn = false; }); // nobody waits for it any more
    watcher->setFuture(app::inBackground([path, goesOn] {
        return std::make_shared<Read>(readSolids(path.toStdString(), [goesOn] { return goesOn->load(); }));
    }));
}

void PartEditor::takeBodies(const Result<ImportedSolids, LoadError> &solids) {
    if (!solids) {
        changed(tr("Not read: expected %1, found %2. %3")
                    .arg(QString::fromStdString(solids.error().expected), QString::fromStdString(solids.error().found),
                         QString::fromStdString(solids.error().suggestion)));
        return;
    }
    double volume = 0;
    for (const auto &body : solids->bodies) {
        Solid solid;
        solid.shape = body.mesh;
        type_.solids.push_back(solid);
        volume += body.mesh.exact->volume_mm3;
    }
    refill();
    changed();
    canvas_->fit();
    const QString weight = type_.mass_g.known()
                               ? tr(", %1 g/cm³ at its mass").arg(*type_.mass_g.value / volume * 1000, 0, 'f', 2)
                               : QString();
    QString text = tr("%n body(ies) read: %1 cm³%2. Give them a material, or the part its weighed mass.", nullptr,
                      int(solids->bodies.size()))
                       .arg(volume / 1000, 0, 'f', 2)
                       .arg(weight);
    QStringList faults;
    for (const auto &fault : solids->faults) faults << QString::fromStdString(fault);
    if (!faults.isEmpty()) text = tr("Read in part: %1. ").arg(faults.mid(0, 3).join("; ")) + text;
    emit said(text, !faults.isEmpty());
}

bool PartEditor::keep(bool inOwnLibrary) {
    if (!document_.edit(tr("Part type %1").arg(QString::fromStdString(type_.name)),
                        putType(document_.build(), type_, replaces_)))
        return false;
    if (replaces_.empty() && std::none_of(document_.build().parts.begin(), document_.build().parts.end(),
                                          [&](const Part &p) { return p.type == type_.id; }))
        if (!findKitEntry(document_.build(), type_.id))
            document_.edit(tr("Kit"), addToKit(document_.build(), type_, 1));
    if (inOwnLibrary) {
        QString problem;
        if (!app::keepInOwnLibrary(type_, problem)) {
            emit said(tr("Kept in the build, but not in your parts: %1").arg(problem), true);
            emit finished(true);
            return true;
        }
        document_.addOwnType(type_);
    }
    emit finished(true);
    return true;
}

} // namespace waxis::kit
