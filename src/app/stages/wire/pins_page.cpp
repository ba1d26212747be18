#include "app/stages/wire/pins_page.h"

#include "app/widgets/card.h"
#include "core/edits/wire_edits.h"
#include "core/links/channels.h"
#include "core/links/link_report.h"
#include "core/pins/signal.h"
#include "core/rules/wording.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::wire {

namespace {
QString named(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }

/// "channel rx/CH1, roll → fc/CH1, which takes pitch".
QString channelLine(const ChannelLink &channel) {
    const auto word = [](ChannelFunction f) { return QString::fromStdString(std::string(functionWord(f))); };
    const QString from = QString::fromStdString(channel.from), to = QString::fromStdString(channel.to);
    if (channel.sent == ChannelFunction::none && channel.wanted == ChannelFunction::none)
        return PinsPage::tr("channel %1 → %2").arg(from, to);
    if (channel.isCrossed())
        return PinsPage::tr("channel %1, %3 → %2, which takes %4: crossed")
            .arg(from, to, word(channel.sent), word(channel.wanted));
    return PinsPage::tr("channel %1 → %2: %3")
        .arg(from, to, word(channel.sent == ChannelFunction::none ? channel.wanted : channel.sent));
}
} // namespace

PinsPage::PinsPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("pins-page");
    auto box = [&](const char *name, const QString &says) {
        auto *combo = new QComboBox;
        combo->setObjectName(name);
        combo->setAccessibleName(says);
        combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        combo->setMinimumContentsLength(16);
        return combo;
    };
    left_ = box("left-port", tr("Port on the left"));
    right_ = box("right-port", tr("Port on the right"));
    wish_ = box("wish", tr("A part that you think of fitting"));
    propose_ = new QToolButton;
    propose_->setObjectName("propose");
    propose_->setText(tr("Join what fits"));
    propose_->setToolTip(tr("Transmit to receive, ground to ground, supply to the same supply; pins that are free"));
    suggest_ = new QToolButton;
    suggest_->setObjectName("suggest-port");
    suggest_->setText(tr("Free port there"));
    suggest_->setToolTip(tr("The port of the part on the right that suits best and is free"));
    board_ = new PinBoard(document_, theme_);
    auto *top = new QHBoxLayout;
    top->addWidget(left_, 1);
    top->addWidget(propose_);
    top->addWidget(suggest_);
    top->addWidget(right_, 1);
    auto card = [&](const QString &title, QWidget *extra) {
        auto *frame = new theme::Card(theme_, title);
        if (extra) frame->body().addWidget(extra);
        auto *body = new QLabel;
        body->setWordWrap(true);
        body->setAlignment(Qt::AlignTop | Qt::AlignLeft);
        body->setFont(theme_.text(12));
        body->setForegroundRole(QPalette::PlaceholderText);
        body->setTextInteractionFlags(Qt::TextSelectableByMouse);
        frame->body().addWidget(body, 1);
        return std::pair(frame, body);
    };
    const auto [portsCard, ports] = card(tr("Serial ports"), nullptr);
    const auto [motorsCard, motors] = card(tr("Motor outputs"), nullptr);
    const auto [needsCard, needs] = card(tr("Would it fit?"), wish_);
    ports_ = ports;
    ports_->setObjectName("serial-ports");
    motors_ = motors;
    motors_->setObjectName("motor-outputs");
    needs_ = needs;
    needs_->setObjectName("needs");
    auto *cards = new QHBoxLayout;
    cards->setSpacing(8);
    cards->addWidget(portsCard, 1);
    cards->addWidget(motorsCard, 1);
    cards->addWidget(needsCard, 1);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 12);
    column->addLayout(top);
    column->addWidget(board_, 3);
    column->addLayout(cards, 2);
    for (QComboBox *combo : {left_, right_})
        connect(combo, &QComboBox::activated, this, [this] {
            board_->show(endOf(*left_), endOf(*right_));
            refresh();
        });
    connect(wish_, &QComboBox::activated, this, &PinsPage::refresh);
    connect(propose_, &QToolButton::clicked, this, [this] {
        const WireEnd from = endOf(*left_), to = endOf(*right_);
        if (document_.edit(
                tr("Connect %1 with %2").arg(named(document_.build(), from.part), named(document_.build(), to.part)),
                connectPorts(document_.build(), from, to)))
            refresh();
    });
    connect(suggest_, &QToolButton::clicked, this, [this] {
        const WireEnd from = endOf(*left_), to = endOf(*right_);
        if (const auto port = proposePort(document_.build(), from, to.part)) {
            filling_ = true;
            fillPorts(*right_, *port);
            filling_ = false;
            board_->show(from, *port);
            refresh();
        } else
            emit document_.refused(tr("%1 has no free port that suits.").arg(named(document_.build(), to.part)));
    });
    connect(&document_, &app::Document::changed, this, &PinsPage::refresh);
    connect(&document_, &app::Document::selectionChanged, this, &PinsPage::followSelection);
    theme_.dress(*this, theme::Ground::mat);
}

WireEnd PinsPage::endOf(const QComboBox &box) {
    const QStringList words = box.currentData().toStringList();
    return words.size() == 2 ? WireEnd{words[0].toStdString(), words[1].toStdString()} : WireEnd{};
}

void PinsPage::fillPorts(QComboBox &box, const WireEnd &keep) {
    const Build &build = document_.build();
    box.clear();
    int chosen = -1;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        for (const auto &port : type->ports) {
            if (port.pins.empty() || port.kind == PortKind::usb) continue;
            const WireEnd end{part.id, port.id};
            if (end == keep) chosen = box.count();
            box.addItem(tr("%1 · %2").arg(QString::fromStdString(part.name), QString::fromStdString(port.id)),
                        QStringList{QString::fromStdString(part.id), QString::fromStdString(port.id)});
        }
    }
    box.setCurrentIndex(chosen);
}

void PinsPage::showPort(const WireEnd &end) {
    WireEnd other = board_->right();
    for (const auto &wire : document_.build().wires) {
        if (wire.from == end) other = wire.to;
        if (wire.to == end) other = wire.from;
    }
    board_->show(end, other);
    refresh();
}

void PinsPage::followSelection() {
    if (!isVisible()) return;
    if (const Wire *wire = findWire(document_.build(), document_.selected().toStdString());
        wire && wire->lay != WireLay::coax)
        board_->show(wire->from, wire->to);
    refresh();
}

void PinsPage::refresh() {
    if (!isVisible() || filling_) return;
    filling_ = true;
    const Build &build = document_.build();
    if (!portOf(build, board_->left())) // something to look at: the first wire with pins
        for (const auto &wire : build.wires)
            if (wire.lay != WireLay::coax && portOf(build, wire.from) && portOf(build, wire.to)) {
                board_->show(wire.from, wire.to);
                break;
            }
    fillPorts(*left_, board_->left());
    fillPorts(*right_, board_->right());
    const bool both = left_->currentIndex() >= 0 && right_->currentIndex() >= 0;
    propose_->setEnabled(both && !proposeCores(build, endOf(*left_), endOf(*right_)).empty() &&
                         std::none_of(build.wires.begin(), build.wires.end(), [&](const Wire &w) {
                             return (w.from == endOf(*left_) && w.to == endOf(*right_)) ||
                                    (w.to == endOf(*left_) && w.from == endOf(*right_));
                         }));
    suggest_->setEnabled(both);
    tellPorts();
    tellMotors();
    fillWishes();
    const auto wished = document_.library().find(wish_->currentData().toString().toStdString());
    if (wished == document_.library().end())
        needs_->setText(tr("Converting to another unit? Choose it, and see what it needs and what is free."));
    else
        tellNeeds(wished->second);
    filling_ = false;
}

void PinsPage::tellPorts() {
    const Build &build = document_.build();
    const LinkReport &links = *document_.analysis().derived.links;
    QStringList lines;
    for (const auto &serial : links.serial)
        lines << tr("%1: %2").arg(QString::fromStdString(serial.port),
                                  serial.usedBy.empty() ? tr("free") : named(build, serial.usedBy));
    if (!lines.isEmpty()) lines << tr("%1 of %2 left").arg(links.freeSerial).arg(links.serial.size());
    for (const auto &part : build.parts) { // what else a controller has to offer
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::flightController) continue;
        QStringList unused;
        for (const auto &port : type->ports) {
            const WireEnd end{part.id, port.id};
            const bool serial = std::any_of(links.serial.begin(), links.serial.end(), [&](const SerialPort &s) {
                return s.part == part.id && s.port == port.id;
            });
            if (!serial && !port.pins.empty() && port.kind != PortKind::usb && usedPins(build, end).empty())
                unused << QString::fromStdString(port.id);
        }
        if (!unused.isEmpty()) lines << tr("other ports left: %1").arg(unused.join(", "));
    }
    for (const auto &channel : links.channels) lines << channelLine(channel);
    ports_->setText(lines.isEmpty() ? tr("No controller aboard yet.") : lines.join('\n'));
}

void PinsPage::tellMotors() {
    const Build &build = document_.build();
    const LinkReport &links = *document_.analysis().derived.links;
    QStringList lines;
    for (const auto &motor : links.motors) {
        const QString name = QString::fromStdString(motorName(build, motor.mount));
        const bool right = motor.output.empty() || signalOf(motor.output).number == motor.number;
        lines << tr("%1, number %2: %3%4")
                     .arg(name)
                     .arg(motor.number)
                     .arg(motor.output.empty() ? tr("no signal") : QString::fromStdString(motor.output),
                          right ? QString() : tr("  ✕"));
    }
    motors_->setText(lines.isEmpty() ? tr("No motors yet.") : lines.join('\n'));
}

void PinsPage::fillWishes() {
    const QString kept = wish_->currentData().toString();
    wish_->clear();
    wish_->addItem(tr("choose a part from the library"), QString());
    for (const auto &[id, type] : document_.library()) {
        const bool talks = type.kind == PartKind::receiver || type.kind == PartKind::gps ||
                           type.kind == PartKind::digitalVideoUnit || type.kind == PartKind::videoTransmitter ||
                           type.kind == PartKind::flightCamera || type.kind == PartKind::lamp ||
                           type.kind == PartKind::gimbal;
        if (talks) wish_->addItem(QString::fromStdString(type.name), QString::fromStdString(id));
    }
    wish_->setCurrentIndex(std::max(0, wish_->findData(kept)));
}

void PinsPage::tellNeeds(const PartType &wished) {
    const PortNeeds needs = needsOf(document_.build(), wished);
    QStringList wants, have;
    if (needs.serial > 0) wants << tr("%n free serial port(s)", nullptr, needs.serial);
    if (needs.bus) wants << tr("the bus (SDA, SCL)");
    if (needs.video) wants << tr("a video pin");
    if (needs.least_V && needs.most_V)
        wants << tr("%1 to %2 V, %3 A").arg(*needs.least_V).arg(*needs.most_V).arg(needs.peak_A, 0, 'f', 2);
    QStringList serial, supplies;
    for (const auto &port : needs.freeSerial) serial << QString::fromStdString(port);
    for (const auto &supply : needs.supplies) supplies << QString::fromStdString(supply);
    if (needs.serial > 0)
        have << (serial.isEmpty() ? tr("no serial port is free") : tr("serial: %1").arg(serial.join(", ")));
    have << (supplies.isEmpty() ? tr("no supply suits") : tr("supply: %1").arg(supplies.join(", ")));
    needs_->setText(tr("It needs %1.\n\nHere is what is free: %2.")
                        .arg(wants.isEmpty() ? tr("nothing that is stated") : wants.join(", "), have.join("; ")));
}

void PinsPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    followSelection();
}

} // namespace waxis::wire
