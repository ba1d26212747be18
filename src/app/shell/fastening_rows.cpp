#include "app/shell/fastening_rows.h"

#include "app/widgets/texts.h"

#include "core/build/chain.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/group_edits.h"
#include "core/kit/holding.h"
#include "core/scene/scene.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QSpinBox>
#include <array>

namespace waxis::app {

namespace {

QString nameIn(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }

} // namespace

FasteningRows::FasteningRows(Document &document, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document) {
    const std::array<std::pair<FasteningMethod, QString>, 10> methods{{
        {FasteningMethod::none, tr("not yet")},
        {FasteningMethod::screws, tr("screws")},
        {FasteningMethod::tape, tr("tape")},
        {FasteningMethod::hookAndLoop, tr("hook and loop")},
        {FasteningMethod::ties, tr("ties")},
        {FasteningMethod::strap, tr("strap")},
        {FasteningMethod::glue, tr("glue")},
        {FasteningMethod::stack, tr("the stack")},
        {FasteningMethod::pressed, tr("press fit")},
        {FasteningMethod::soldered, tr("solder")},
    }};
    method_ = new QComboBox;
    method_->setObjectName("fastening");
    method_->setAccessibleName(tr("Held by"));
    for (const auto &[method, text] : methods) method_->addItem(text, int(method));
    pieces_ = new QSpinBox;
    pieces_->setObjectName("fastening-pieces");
    pieces_->setAccessibleName(tr("How many"));
    pieces_->setToolTip(tr("How many screws, ties or straps; usual: as the part and method want"));
    pieces_->setRange(0, 99);
    pieces_->setSpecialValueText(tr("usual"));
    pieces_->setFixedWidth(72);
    auto *row = new QHBoxLayout;
    row->setSpacing(4);
    row->addWidget(method_, 1);
    row->addWidget(pieces_);
    form.addRow(tr("held by"), row);
    onto_ = new OntoBox(document_);
    onto_->setObjectName("fastening-onto");
    onto_->setAccessibleName(tr("Fastened onto"));
    onto_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    form.addRow(tr("onto"), onto_);
    takes_ = new QLabel;
    takes_->setObjectName("fastening-takes");
    // Broken by hand (see brokenAt): labels that wrap must not stand in a form whose rows hide.
    form.addRow({}, takes_);

    connect(method_, &QComboBox::activated, this, [this] {
        if (const Part *part = document_.selectedPart()) {
            Fastening fastening = part->fastening;
            fastening.method = FasteningMethod(method_->currentData().toInt());
            fastening.pieces.reset();
            apply(fastening);
        }
    });
    connect(pieces_, &QSpinBox::valueChanged, this, [this](int count) {
        if (const Part *part = document_.selectedPart()) {
            Fastening fastening = part->fastening;
            fastening.pieces = count > 0 ? std::optional(count) : std::nullopt;
            apply(fastening);
        }
    });
    connect(onto_, &QComboBox::activated, this, [this] {
        const Part *part = document_.selectedPart();
        if (!part || onto_->currentData().toString().isEmpty()) return;
        Fastening fastening = part->fastening;
        fastening.onto = {onto_->currentData().toString().toStdString()};
        apply(fastening);
    });
}

void FasteningRows::OntoBox::showPopup() {
    const Part *part = document_.selectedPart();
    if (part) {
        const auto &derived = document_.analysis().derived;
        const int owner = int(part - document_.build().parts.data());
        constexpr double kNear_mm = 4;
        constexpr std::size_t kMost = 10;
        const auto near = derived.scene.world->nearest(owner, kNear_mm, kMost, [&](int body) {
            const auto &other = derived.scene.owners[std::size_t(derived.scene.traits[std::size_t(body)].owner)];
            return other.kind != OwnerKind::disc && (other.cases >> document_.loadCase() & 1);
        });
        while (count() > 1) removeItem(1);
        for (const auto &gap : near) {
            const auto &other = derived.scene.owners[std::size_t(derived.scene.traits[std::size_t(gap.b)].owner)];
            addItem(nameIn(document_.build(), other.id), QString::fromStdString(other.id));
        }
        if (near.empty()) addItem(tr("nothing within %1 mm").arg(kNear_mm));
    }
    QComboBox::showPopup();
}

void FasteningRows::apply(const Fastening &fastening) {
    const Part *part = document_.selectedPart();
    document_.edit(tr("Fasten %1").arg(QString::fromStdString(part->name)),
                   fastenPart(document_.build(), part->id, fastening), "fasten/" + document_.selected());
}

void FasteningRows::refresh() {
    const Part *part = document_.selectedPart();
    if (!part) return;
    if (document_.isPreviewing() && part->id == shownPart_ && part->fastening == shown_) return;
    shownPart_ = part->id;
    shown_ = part->fastening;
    const QSignalBlocker quiet(pieces_);
    method_->setCurrentIndex(method_->findData(int(part->fastening.method)));
    const bool counted = part->fastening.method == FasteningMethod::screws ||
                         part->fastening.method == FasteningMethod::ties ||
                         part->fastening.method == FasteningMethod::strap;
    pieces_->setVisible(counted);
    pieces_->setValue(part->fastening.pieces.value_or(0));
    QStringList names;
    for (const auto &id : part->fastening.onto) names << nameIn(document_.build(), id);
    onto_->clear();
    const bool stacked = stackPlaceOf(document_.build(), *part).has_value();
    onto_->addItem(stacked           ? tr("its neighbours in the stack")
                   : names.isEmpty() ? tr("nothing yet")
                                     : names.join(", "));
    onto_->setEnabled(!stacked);
    onto_->setToolTip(onto_->itemText(0));
    QStringList takes;
    const Holding holding = holdingOf(document_.build(), *part, document_.analysis().practice);
    if (!holding.unknown.empty()) takes << tr("not counted: %1").arg(QString::fromStdString(holding.unknown));
    for (const auto &hardware : holding.pieces)
        takes << tr("%1 × %2, %3 g")
                     .arg(hardware.pieces)
                     .arg(QString::fromStdString(hardware.name))
                     .arg(hardware.pieces * hardware.piece_g, 0, 'f', hardware.pieces * hardware.piece_g < 0.1 ? 2 : 1);
    for (auto &line : takes) line = brokenAt(line, takes_->fontMetrics(), kFieldWidth_px);
    takes_->setText(takes.join('\n'));
    takes_->setVisible(!takes.isEmpty());
}

} // namespace waxis::app
