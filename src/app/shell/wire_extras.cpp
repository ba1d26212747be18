#include "app/shell/wire_extras.h"

#include "app/widgets/typed_number.h"
#include "core/edits/insert_edits.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace waxis::app {

WireExtras::WireExtras(Document &document, Change change, QWidget *parent)
    : QWidget(parent), document_(document), change_(std::move(change)) {
    setObjectName("wire-extras");
    auto *form = new QFormLayout(this);
    form->setContentsMargins(0, 6, 0, 0);
    form->setVerticalSpacing(3);
    makeNumbers();
    makeEnd(from_, tr("plug, first end"), "wire-plug-from", &Wire::fromPlug);
    makeEnd(to_, tr("plug, far end"), "wire-plug-to", &Wire::toPlug);
    makeInserts();
}

QLineEdit *WireExtras::typed(const QString &label, const char *name, std::function<bool(Wire &, const QString &)> put) {
    auto *edit = new QLineEdit;
    edit->setObjectName(name);
    edit->setAccessibleName(label);
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, label, put = std::move(put)] {
        if (!edit->isModified() || filling_) return;
        edit->setModified(false);
        const QString text = edit->text().trimmed();
        Wire trial; // what cannot be read changes nothing: the field goes back to what is there
        if (put(trial, text))
            change_(tr("%1 of a wire").arg(label), [&](Wire &w) { put(w, text); });
        else
            emit document_.refused(tr("%1: \"%2\" cannot be read").arg(label, text));
    });
    return edit;
}

/// A whole number from 0 to `most`; empty is 0.
static std::optional<int> countIn(const QString &text, int most) {
    if (text.isEmpty()) return 0;
    const auto value = typedNumber(text);
    if (!value || *value < 0 || *value > most || *value != std::floor(*value)) return std::nullopt;
    return int(*value);
}

/// A length in mm that is not negative; empty is none.
static bool lengthIn(const QString &text, std::optional<double> &length_mm) {
    if (text.isEmpty()) {
        length_mm.reset();
        return true;
    }
    const auto value = typedNumber(text, Measure::length);
    if (!value || !(*value >= 0)) return false;
    length_mm = value;
    return true;
}

void WireExtras::makeNumbers() {
    auto *form = static_cast<QFormLayout *>(layout());
    sleeved_ = new QCheckBox(tr("in a sleeve"));
    sleeved_->setObjectName("wire-sleeved");
    taped_ = new QCheckBox(tr("edges under it taped"));
    taped_->setObjectName("wire-taped");
    connect(sleeved_, &QCheckBox::clicked, this,
            [this](bool on) { change_(tr("Sleeve of a wire"), [&](Wire &w) { w.sleeved = on; }); });
    connect(taped_, &QCheckBox::clicked, this,
            [this](bool on) { change_(tr("Tape under a wire"), [&](Wire &w) { w.edgesTaped = on; }); });
    form->addRow(sleeved_);
    form->addRow(taped_);
    splices_ = typed(tr("splices"), "wire-splices", [](Wire &w, const QString &text) {
        const auto count = countIn(text, 100);
        if (count) w.splices = *count;
        return count.has_value();
    });
    pitch_ = typed(tr("one turn of twist, mm"), "wire-pitch", [](Wire &w, const QString &text) {
        std::optional<double> pitch;
        if (!lengthIn(text, pitch)) return false;
        w.twistPitch_mm = pitch.value_or(0);
        return true;
    });
    pitch_->setPlaceholderText(tr("as usual"));
    readyMade_ = typed(tr("ready-made length, mm"), "wire-ready-made",
                       [](Wire &w, const QString &text) { return lengthIn(text, w.readyMade_mm); });
    readyMade_->setPlaceholderText(tr("the shortest that reaches"));
    form->addRow(tr("splices"), splices_);
    form->addRow(tr("one turn, mm"), pitch_);
    form->addRow(tr("ready made, mm"), readyMade_);
}

void WireExtras::makeEnd(End &end, const QString &label, const char *name, std::optional<WirePlug> Wire::*plug) {
    const auto edit = [plug](Wire &w, const std::function<void(WirePlug &)> &how) {
        WirePlug next = (w.*plug).value_or(WirePlug{});
        how(next);
        if (next == WirePlug{})
            (w.*plug).reset();
        else
            w.*plug = next;
    };
    end.family = typed(label, name, [edit](Wire &w, const QString &text) {
        edit(w, [&](WirePlug &p) { p.family = text.toStdString(); });
        return text.size() <= 200;
    });
    end.family->setPlaceholderText(tr("as it comes"));
    end.family->setToolTip(tr("The family that is put on, as the port names it: 1.25 mm lock plug"));
    end.ways = typed(tr("%1, ways").arg(label), QByteArray(QByteArray(name) + "-ways").constData(),
                     [edit](Wire &w, const QString &text) {
                         const auto count = countIn(text, 200);
                         if (count) edit(w, [&](WirePlug &p) { p.ways = *count; });
                         return count.has_value();
                     });
    end.ways->setPlaceholderText(tr("ways"));
    end.ways->setMaximumWidth(52);
    end.size = typed(tr("%1, size in mm").arg(label), QByteArray(QByteArray(name) + "-size").constData(),
                     [edit](Wire &w, const QString &text) {
                         std::optional<Vec3> size;
                         if (!text.isEmpty()) {
                             const auto sides = QString(text).replace(QChar(0x00D7), 'x').split('x');
                             if (sides.size() != 3) return false;
                             size = Vec3::Zero();
                             for (int k = 0; k < 3; ++k) {
                                 const auto side = typedNumber(sides[k].trimmed(), Measure::length);
                                 if (!side || !(*side >= 0)) return false;
                                 (*size)[k] = *side;
                             }
                         }
                         edit(w, [&](WirePlug &p) { p.size_mm = size; });
                         return true;
                     });
    end.size->setPlaceholderText(tr("14 x 8 x 3"));
    end.turned = new QCheckBox(tr("turned"));
    end.turned->setObjectName(QString::fromLatin1(name) + "-turned");
    end.turned->setToolTip(tr("Put on the other way round"));
    connect(end.turned, &QCheckBox::clicked, this, [this, edit, label](bool on) {
        change_(tr("%1 of a wire").arg(label), [&](Wire &w) { edit(w, [on](WirePlug &p) { p.turned = on; }); });
    });
    auto *row = new QHBoxLayout;
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(end.ways);
    row->addWidget(end.size, 1);
    row->addWidget(end.turned);
    auto *form = static_cast<QFormLayout *>(layout());
    form->addRow(label, end.family);
    form->addRow(QString(), row);
}

void WireExtras::makeInserts() {
    inserts_ = new QListWidget;
    inserts_->setObjectName("wire-inserts");
    inserts_->setAccessibleName(tr("What sits in its cores"));
    inserts_->setMaximumHeight(64);
    const auto button = [](const QString &text, const char *name) {
        auto *tool = new QToolButton;
        tool->setText(text);
        tool->setObjectName(name);
        return tool;
    };
    add_ = button(tr("Put in…"), "wire-insert-add");
    add_->setPopupMode(QToolButton::InstantPopup);
    add_->setMenu(new QMenu(add_));
    turn_ = button(tr("Turn"), "wire-insert-turn");
    remove_ = button(tr("Take out"), "wire-insert-remove");
    core_ = new QComboBox;
    core_->setObjectName("wire-insert-core");
    core_->setAccessibleName(tr("In which core"));
    at_ = new QLineEdit;
    at_->setObjectName("wire-insert-at");
    at_->setAccessibleName(tr("Where, % of the way"));
    at_->setPlaceholderText(tr("% of the way"));
    auto *tools = new QHBoxLayout;
    tools->setContentsMargins(0, 0, 0, 0);
    tools->addWidget(add_);
    tools->addWidget(turn_);
    tools->addWidget(remove_);
    tools->addStretch();
    auto *form = static_cast<QFormLayout *>(layout());
    form->addRow(new QLabel(tr("In its cores: fuses, diodes, capacitors, ferrites")));
    form->addRow(inserts_);
    form->addRow(tools);
    form->addRow(tr("core"), core_);
    form->addRow(tr("% of the way"), at_);
    const auto shape = [this](const QString &what, auto how) {
        const Wire *wire = findWire(document_.build(), document_.selected().toStdString());
        const int row = chosen();
        if (!wire || row < 0 || row >= int(wire->inserts.size()) || filling_) return;
        WireInsert next = wire->inserts[std::size_t(row)];
        how(next);
        document_.edit(what, setInsert(document_.build(), wire->id, std::size_t(row), next));
    };
    connect(turn_, &QToolButton::clicked, this,
            [shape] { shape(tr("Turn what sits in a wire"), [](WireInsert &i) { i.turned = !i.turned; }); });
    connect(core_, &QComboBox::activated, this, [this, shape](int index) {
        shape(tr("Core of what sits in a wire"), [&](WireInsert &i) { i.core = core_->itemData(index).toInt(); });
    });
    connect(at_, &QLineEdit::editingFinished, this, [this, shape] {
        if (!at_->isModified()) return;
        at_->setModified(false);
        const auto share = typedNumber(at_->text());
        if (!share || *share < 0 || *share > 100)
            return emit document_.refused(tr("A place from 0 to 100 % of the way expected."));
        shape(tr("Place of what sits in a wire"), [&](WireInsert &i) { i.at = *share / 100; });
    });
    connect(remove_, &QToolButton::clicked, this, [this] {
        if (const int row = chosen(); row >= 0)
            document_.edit(tr("Take something out of a wire"),
                           removeInsert(document_.build(), document_.selected().toStdString(), std::size_t(row)));
    });
    connect(inserts_, &QListWidget::currentRowChanged, this, [this] {
        if (const Wire *wire = findWire(document_.build(), document_.selected().toStdString()); wire && !filling_)
            show(*wire);
    });
}

int WireExtras::chosen() const { return inserts_->currentRow(); }

void WireExtras::insert(const QString &id) {
    const Build &build = document_.build();
    const auto own = build.types->find(id.toStdString());
    const auto shelf = document_.library().find(id.toStdString());
    const PartType *type = own != build.types->end()            ? &own->second
                           : shelf != document_.library().end() ? &shelf->second
                                                                : nullptr;
    if (!type) return;
    const bool round = QString::fromStdString(type->name).contains("ferrite", Qt::CaseInsensitive);
    document_.edit(tr("Put %1 into a wire").arg(QString::fromStdString(type->name)),
                   addInsert(build, document_.selected().toStdString(), *type, round ? -1 : 0));
}

void WireExtras::fillMenu(const Wire &) {
    QMenu *menu = add_->menu();
    menu->clear();
    std::map<std::string, const PartType *> offered;
    for (const TypeTable *table : {&document_.library(), &*document_.build().types})
        for (const auto &[id, type] : *table)
            if (goesIntoWires(type)) offered[id] = &type;
    for (const auto &[id, type] : offered)
        menu->addAction(QString::fromStdString(type->name), this,
                        [this, id = QString::fromStdString(id)] { insert(id); });
    add_->setEnabled(!offered.empty());
}

void WireExtras::show(const Wire &wire) {
    filling_ = true;
    const Build &build = document_.build();
    sleeved_->setChecked(wire.sleeved);
    taped_->setChecked(wire.edgesTaped);
    putText(splices_, wire.splices > 0 ? QString::number(wire.splices) : QString());
    putText(pitch_, wire.twistPitch_mm > 0 ? QString::number(wire.twistPitch_mm) : QString());
    putText(readyMade_, wire.readyMade_mm ? QString::number(*wire.readyMade_mm) : QString());
    pitch_->setEnabled(wire.lay == WireLay::twisted);
    readyMade_->setEnabled(wire.make == WireMake::readyMade);
    const auto end = [](const End &fields, const std::optional<WirePlug> &plug) {
        putText(fields.family, plug ? QString::fromStdString(plug->family) : QString());
        putText(fields.ways, plug && plug->ways > 0 ? QString::number(plug->ways) : QString());
        putText(
            fields.size,
            plug && plug->size_mm
                ? QStringLiteral("%1 x %2 x %3").arg(plug->size_mm->x()).arg(plug->size_mm->y()).arg(plug->size_mm->z())
                : QString());
        fields.turned->setChecked(plug && plug->turned);
    };
    end(from_, wire.fromPlug);
    end(to_, wire.toPlug);
    const int kept = std::max(0, chosen());
    inserts_->clear();
    for (const auto &insert : wire.inserts) {
        const auto type = build.types->find(insert.type);
        const QString name = QString::fromStdString(type == build.types->end() ? insert.type : type->second.name);
        const QString core = insert.core < 0 ? tr("round all")
                             : std::size_t(insert.core) < wire.cores.size()
                                 ? QString::fromStdString(wire.cores[std::size_t(insert.core)].fromPin)
                                 : tr("no core");
        inserts_->addItem(tr("%1, %2, %3 %%4")
                              .arg(name, core)
                              .arg(insert.at * 100, 0, 'f', 0)
                              .arg(insert.turned ? tr(", turned") : QString()));
    }
    inserts_->setCurrentRow(std::min(kept, int(wire.inserts.size()) - 1));
    core_->clear();
    for (std::size_t c = 0; c < wire.cores.size(); ++c)
        core_->addItem(QString::fromStdString(wire.cores[c].fromPin), int(c));
    core_->addItem(tr("round all of them"), -1);
    const int row = chosen();
    const bool any = row >= 0 && row < int(wire.inserts.size());
    if (any) {
        core_->setCurrentIndex(std::max(0, core_->findData(wire.inserts[std::size_t(row)].core)));
        putText(at_, QString::number(wire.inserts[std::size_t(row)].at * 100));
    } else
        putText(at_, QString());
    for (QWidget *widget : std::initializer_list<QWidget *>{turn_, remove_, core_, at_}) widget->setEnabled(any);
    fillMenu(wire);
    filling_ = false;
}

} // namespace waxis::app
