#include "app/shell/screw_rows.h"

#include "app/widgets/form_rows.h"
#include "core/fasteners/all_threads.h"
#include "core/fasteners/screw.h"
#include "core/layout/screw_edits.h"
#include "core/rules/wording.h"
#include "core/stack/frame_screws.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <algorithm>

namespace waxis::app {

namespace {

constexpr FastenerForm kNuts[] = {FastenerForm::lockNut, FastenerForm::thinLockNut, FastenerForm::nut,
                                  FastenerForm::pressNut};

QString words(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

} // namespace

ScrewRows::ScrewRows(Document &document, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), form_(form) {
    length_ = choice(tr("length"), "frame-screw-length", tr("Length of the screw as sold"),
                     [](FrameScrew &screw, const QVariant &value) {
                         screw.length_mm = value.isValid() ? std::optional(value.toDouble()) : std::nullopt;
                     });
    head_ = choice(tr("head"), "frame-screw-head", tr("Head of the screw"),
                   [](FrameScrew &screw, const QVariant &value) { screw.head = HeadStyle(value.toInt()); });
    for (const auto head : {HeadStyle::button, HeadStyle::cap, HeadStyle::countersunk})
        head_->addItem(words(headWord(head)), int(head));
    thread_ = choice(tr("thread"), "frame-screw-thread", tr("Thread of the screw"),
                     [](FrameScrew &screw, const QVariant &value) {
                         screw.thread = allThreads()[std::size_t(value.toInt())].name;
                         screw.length_mm.reset();
                     });
    for (std::size_t i = 0; i < allThreads().size(); ++i) thread_->addItem(words(allThreads()[i].name), int(i));
    end_ = choice(tr("turns into"), "frame-screw-end", tr("What the screw turns into"),
                  [](FrameScrew &screw, const QVariant &value) { screw.nut = FastenerForm(value.toInt()); });
    for (const auto nut : kNuts) end_->addItem(words(formWord(nut)), int(nut));
    side_ = choice(tr("put in"), "frame-screw-side", tr("From which side the screw is put in"),
                   [](FrameScrew &screw, const QVariant &value) { screw.fromAbove = value.toBool(); });
    side_->addItem(tr("from below"), 0);
    side_->addItem(tr("from above"), 1);
    shared_ = new QComboBox;
    shared_->setObjectName("frame-screw-shared");
    shared_->setAccessibleName(tr("Part whose bracket shares the screw"));
    form.addRow(tr("shared with"), shared_);
    connect(shared_, &QComboBox::activated, this, [this](int index) {
        const FrameScrew *chosen = screw();
        if (!chosen) return;
        const std::string id = chosen->id, part = shared_->itemData(index).toString().toStdString();
        EditResult next = document_.build();
        for (const auto &other : std::vector<std::string>(chosen->through))
            if (next && findPart(document_.build(), other) && other != part)
                next = shareFrameScrew(*next, id, other, false);
        if (next && !part.empty()) next = shareFrameScrew(*next, id, part, true);
        document_.edit(tr("Frame screw shared with %1").arg(shared_->itemText(index)), next);
        refresh();
    });
    alike_ = new QCheckBox(tr("all screws like this one"));
    alike_->setObjectName("frame-screws-alike");
    alike_->setChecked(true);
    alike_->setToolTip(
        tr("What is changed here is changed for all screws of this size that hold the same kind of things"));
    form.addRow(QString(), alike_);
}

QComboBox *ScrewRows::choice(const QString &label, const char *name, const QString &spoken,
                             std::function<void(FrameScrew &, const QVariant &)> put) {
    auto *box = new QComboBox;
    box->setObjectName(name);
    box->setAccessibleName(spoken);
    form_.addRow(label, box);
    connect(box, &QComboBox::activated, this, [this, box, label, put = std::move(put)](int index) {
        const QVariant value = box->itemData(index);
        apply(tr("Frame screw: %1 %2").arg(label, box->itemText(index)), [&](FrameScrew &screw) { put(screw, value); });
    });
    return box;
}

const FrameScrew *ScrewRows::screw() const {
    const std::string id = document_.selected().toStdString();
    for (const auto &screw : document_.build().frame->screws)
        if (screw.id == id) return &screw;
    return nullptr;
}

void ScrewRows::apply(const QString &what, const std::function<void(FrameScrew &)> &change) {
    if (const FrameScrew *chosen = screw()) {
        EditResult next = document_.build();
        const auto ids =
            alike_->isChecked() ? likeScrews(*document_.build().frame, *chosen) : std::vector<std::string>{chosen->id};
        for (const auto &one : document_.build().frame->screws) {
            if (!next || std::find(ids.begin(), ids.end(), one.id) == ids.end()) continue;
            FrameScrew changed = one;
            change(changed);
            next = setFrameScrew(*next, changed);
        }
        document_.edit(what, next);
    }
    refresh();
}

void ScrewRows::fillLengths(const FrameScrew &screw) {
    length_->clear();
    length_->addItem(tr("the shortest that holds"));
    for (const double length : kStockLengths_mm) length_->addItem(tr("%1 mm").arg(length), length);
    if (screw.length_mm && length_->findData(*screw.length_mm) < 0) // none that is sold
        length_->addItem(tr("%1 mm").arg(*screw.length_mm), *screw.length_mm);
    length_->setCurrentIndex(screw.length_mm ? length_->findData(*screw.length_mm) : 0);
}

QString ScrewRows::refresh() {
    const FrameScrew *chosen = screw();
    for (auto *box : {length_, head_, thread_, end_, side_, shared_}) showRow(form_, box, chosen);
    alike_->setVisible(chosen);
    if (!chosen) return {};
    const Build &build = document_.build();
    showRow(form_, end_, chosen->into.empty());
    fillLengths(*chosen);
    head_->setCurrentIndex(head_->findData(int(chosen->head)));
    thread_->setCurrentText(QString::fromStdString(chosen->thread));
    end_->setCurrentIndex(end_->findData(int(chosen->nut)));
    side_->setCurrentIndex(chosen->fromAbove ? 1 : 0);
    shared_->clear();
    shared_->addItem(tr("nothing"), QString());
    for (const auto &id : mayShare(build, *chosen)) {
        shared_->addItem(QString::fromStdString(displayName(build, id)), QString::fromStdString(id));
        if (std::find(chosen->through.begin(), chosen->through.end(), id) != chosen->through.end())
            shared_->setCurrentIndex(shared_->count() - 1);
    }
    showRow(form_, shared_, shared_->count() > 1);
    QStringList held;
    for (const auto &id : chosen->through) held << QString::fromStdString(nameWithin(build, id));
    const QString end =
        chosen->into.empty() ? words(formWord(chosen->nut)) : QString::fromStdString(nameWithin(build, chosen->into));
    QString text = tr("screw of the frame: through %1 into %2").arg(held.join(", "), end);
    const auto reports = frameScrewReports(*build.frame, document_.analysis().practice, bracketsOf(build));
    for (const auto &report : reports) {
        if (report.screw != chosen->id) continue;
        text += tr("; %1 mm clamped").arg(report.column.grip_mm, 0, 'f', 1);
        if (report.length_mm)
            text += tr(", %1 x %2").arg(QString::fromStdString(chosen->thread)).arg(*report.length_mm);
    }
    const ThreadSize *thread = findThread(chosen->thread);
    if (const auto key = thread ? driveKey_mm(*thread, chosen->head) : std::nullopt)
        text += tr(", hexagon key %1 mm").arg(*key);
    return text + '.';
}

} // namespace waxis::app
