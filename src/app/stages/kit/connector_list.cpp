#include "app/stages/kit/connector_list.h"

#include "core/catalog/connectors.h"

#include <QComboBox>
#include <QEvent>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>
#include <array>

namespace waxis::kit {

namespace {

constexpr const char *kPort = "port"; ///< property: which of the type's ports a field belongs to

QString view(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

QStringList sideWords() {
    return {ConnectorList::tr("fore"),  ConnectorList::tr("aft"), ConnectorList::tr("left"),
            ConnectorList::tr("right"), ConnectorList::tr("top"), ConnectorList::tr("under")};
}

/// What a port is, where it has no pins to type.
QString kindWords(PortKind kind) {
    switch (kind) {
    case PortKind::usb: return ConnectorList::tr("USB");
    case PortKind::lens: return ConnectorList::tr("lens");
    case PortKind::card: return ConnectorList::tr("memory card");
    case PortKind::button: return ConnectorList::tr("button");
    case PortKind::lamp: return ConnectorList::tr("status lamp");
    case PortKind::pads:
    case PortKind::plug:
    case PortKind::socket:
    case PortKind::coax: break;
    }
    return {};
}

} // namespace

ConnectorList::ConnectorList(QWidget *parent) : QWidget(parent) {
    setObjectName("own-connectors");
    auto *title = new QLabel(tr("Connectors: pins, and the side they sit on"));
    add_ = new QToolButton;
    add_->setObjectName("own-add-connector");
    add_->setText(tr("Add…"));
    add_->setAccessibleName(tr("Add a connector"));
    add_->setPopupMode(QToolButton::InstantPopup);
    menu_ = new QMenu(add_);
    menu_->setObjectName("own-connector-menu");
    add_->setMenu(menu_);
    auto *head = new QHBoxLayout;
    head->addWidget(title, 1);
    head->addWidget(add_);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 4, 0, 0);
    column->setSpacing(4);
    column->addLayout(head);
}

void ConnectorList::show(PartType &type) {
    type_ = &type;
    problem_.clear();
    fillMenu();
    fill();
}

void ConnectorList::fillMenu() {
    menu_->clear();
    const auto offer = [this](QMenu *menu, const PinSet &set) {
        const QString pins = view(set.pins);
        menu->addAction(pins.isEmpty() || set.kind == PortKind::coax ? view(set.title)
                                                                     : tr("%1: %2").arg(view(set.title), pins),
                        this, [this, id = view(set.id)] { add(id); });
    };
    for (const auto *set : usualPinSets(type_->kind)) offer(menu_, *set);
    menu_->addSeparator();
    QMenu *others = menu_->addMenu(tr("All connectors"));
    for (const auto &set : pinSets()) offer(others, set);
}

void ConnectorList::fill() {
    delete holder_; // made anew: rows come and go
    holder_ = new QWidget;
    rows_ = new QGridLayout(holder_);
    rows_->setContentsMargins(0, 0, 0, 0);
    rows_->setHorizontalSpacing(6);
    rows_->setVerticalSpacing(3);
    rows_->setColumnStretch(0, 1);
    for (std::size_t i = 0; i < type_->ports.size(); ++i) {
        const Port &port = type_->ports[i];
        const int row = int(i);
        const QString name = QString::fromStdString(port.id);
        const QString words = kindWords(port.kind);
        if (words.isEmpty()) {
            auto *pins = new QLineEdit(QString::fromStdString(pinsText(port)));
            pins->setObjectName(QStringLiteral("own-pins-%1").arg(i));
            pins->setAccessibleName(port.kind == PortKind::coax ? tr("Connector of %1").arg(name)
                                                                : tr("Pins of %1").arg(name));
            pins->setToolTip(port.kind == PortKind::coax ? tr("Coaxial: SMA, RP-SMA, micro-coax snap plug…")
                                                         : tr("%1: signals with blanks between").arg(name));
            pins->setProperty(kPort, row);
            pins->installEventFilter(this);
            connect(pins, &QLineEdit::textEdited, this, [this, i, name](const QString &text) {
                problem_ = setPins(type_->ports[i], text.trimmed().toStdString())
                               ? QString()
                               : tr("%1: pins are signals with blanks between, like 5V GND TX RX.").arg(name);
                emit changed();
            });
            rows_->addWidget(pins, row, 0);
        } else {
            rows_->addWidget(new QLabel(words), row, 0);
        }
        auto *side = new QComboBox;
        side->setObjectName(QStringLiteral("own-side-%1").arg(i));
        side->setAccessibleName(tr("Side of %1").arg(name));
        side->addItems(sideWords());
        side->setCurrentIndex(int(sideOf(port)));
        side->setProperty(kPort, row);
        side->installEventFilter(this);
        connect(side, &QComboBox::activated, this, [this, i](int chosen) {
            Port &moved = type_->ports[i];
            if (sideOf(moved) != Side(chosen)) putOnSide(moved, Side(chosen), *type_);
            emit changed();
        });
        rows_->addWidget(side, row, 1);
        auto *gone = new QToolButton;
        gone->setText(QStringLiteral("✕"));
        gone->setAutoRaise(true);
        gone->setObjectName(QStringLiteral("own-remove-%1").arg(i));
        gone->setAccessibleName(tr("Take out %1").arg(name));
        gone->setToolTip(gone->accessibleName());
        // After the click: the row is taken away with its button.
        connect(
            gone, &QToolButton::clicked, this, [this, i] { remove(i); }, Qt::QueuedConnection);
        rows_->addWidget(gone, row, 2);
    }
    layout()->addWidget(holder_);
}

void ConnectorList::add(const QString &set) {
    const PinSet *wanted = findPinSet(set.toStdString());
    if (!wanted) return;
    type_->ports.push_back(connectorFor(*wanted, *type_));
    fill();
    emit changed();
}

void ConnectorList::remove(std::size_t port) {
    if (port >= type_->ports.size()) return;
    type_->ports.erase(type_->ports.begin() + std::ptrdiff_t(port));
    mendReferences(*type_);
    problem_.clear();
    fill();
    emit changed();
}

bool ConnectorList::eventFilter(QObject *watched, QEvent *event) {
    if (event->type() == QEvent::FocusIn) emit looked(watched->property(kPort).toInt());
    if (event->type() == QEvent::FocusOut) emit looked(-1);
    return QWidget::eventFilter(watched, event);
}

} // namespace waxis::kit
