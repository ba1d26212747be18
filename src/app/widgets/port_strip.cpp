#include "app/widgets/port_strip.h"

#include "app/widgets/file_dialogs.h"
#include "devices/ports.h"

#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::app {

QString receiverPart(const Document &document) {
    const auto isReceiver = [&](const Part &part) {
        const PartType *type = typeOf(document.build(), part);
        return type && type->kind == PartKind::gps;
    };
    if (const Part *chosen = document.selectedPart(); chosen && isReceiver(*chosen))
        return QString::fromStdString(chosen->id);
    for (const auto &part : document.build().parts)
        if (isReceiver(part)) return QString::fromStdString(part.id);
    return {};
}

PortStrip::PortStrip(InstrumentKind kind, Document &document, Instruments &instruments, const theme::Theme &theme,
                     QWidget *parent)
    : QWidget(parent), kind_(kind), document_(document), instruments_(instruments), theme_(theme) {
    const bool isScale = kind == InstrumentKind::scale;
    setObjectName(isScale ? "port-scale" : "port-receiver");
    choose_ = new QToolButton;
    choose_->setObjectName(isScale ? "choose-scale" : "choose-receiver");
    choose_->setText(isScale ? tr("Scale") : tr("Receiver"));
    choose_->setToolTip(isScale ? tr("Choose the scale's port, or a simulated one")
                                : tr("Choose the receiver's port, a recording, or a simulated one"));
    choose_->setPopupMode(QToolButton::InstantPopup);
    menu_ = new QMenu(this);
    choose_->setMenu(menu_);
    state_ = new QLabel;
    state_->setObjectName(isScale ? "scale-state" : "receiver-state");
    state_->setWordWrap(true);
    state_->setFont(theme_.text(11));
    state_->setForegroundRole(QPalette::PlaceholderText);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(14, 0, 0, 0);
    all->setSpacing(2);
    all->addWidget(choose_, 0, Qt::AlignLeft);
    all->addWidget(state_);
    connect(menu_, &QMenu::aboutToShow, this, &PortStrip::fillMenu);
    connect(&instruments_, &Instruments::changed, this, &PortStrip::refresh);
    connect(&instruments_.gnss(), &GnssLink::updated, this, &PortStrip::refresh);
    connect(&instruments_.scale(), &ScaleLink::read, this, &PortStrip::refresh);
    refresh();
}

bool PortStrip::isOpen() const {
    return kind_ == InstrumentKind::scale ? instruments_.scale().isOpen() : instruments_.gnss().isOpen();
}

void PortStrip::fillMenu() {
    menu_->clear();
    for (const auto &port : serialPorts())
        menu_->addAction(tr("%1 (%2)").arg(port.name, port.words), this, [this, port] { open(port.name); });
    menu_->addAction(tr("Type a path…"), this, &PortStrip::askPath);
    menu_->addSeparator();
    menu_->addAction(tr("Simulated one"), this, &PortStrip::simulate);
    if (kind_ == InstrumentKind::receiver)
        menu_->addAction(tr("Play a recording…"), this, [this] {
            const QString path = askOpenPath(this, tr("Play a recording"), tr("Recordings (*.nmea *.txt *.log)"));
            if (!path.isEmpty()) instruments_.replayReceiver(path);
        });
    if (kind_ == InstrumentKind::scale) {
        QMenu *forms = menu_->addMenu(tr("Form of its lines"));
        for (std::size_t i = 0; i < scalePatterns().size(); ++i) {
            QAction *form = forms->addAction(scalePatterns()[i].name, this, [this, i] { pattern_ = int(i); });
            form->setCheckable(true);
            form->setChecked(int(i) == pattern_);
        }
    }
    if (isOpen()) menu_->addAction(tr("Close"), this, &PortStrip::close);
}

void PortStrip::askPath() {
    const QString path = QInputDialog::getText(this, kind_ == InstrumentKind::scale ? tr("Scale") : tr("Receiver"),
                                               tr("Path of the port, as /dev/ttyUSB0:"));
    if (!path.trimmed().isEmpty()) open(path.trimmed());
}

void PortStrip::open(const QString &port) {
    constexpr int kScaleBaud = 9600;
    if (kind_ == InstrumentKind::scale)
        instruments_.openScale(port, kScaleBaud, scalePatterns()[std::size_t(pattern_)]);
    else
        instruments_.openReceiver(port);
}

void PortStrip::simulate() {
    if (kind_ == InstrumentKind::scale) {
        instruments_.simulateScale(document_.build());
        return;
    }
    const QString part = receiverPart(document_);
    if (part.isEmpty()) {
        emit instruments_.said(tr("There is no satellite receiver in this build to be simulated."), true);
        return;
    }
    instruments_.simulateReceiver(document_.build(), part);
}

void PortStrip::close() {
    if (kind_ == InstrumentKind::scale)
        instruments_.closeScale();
    else
        instruments_.closeReceiver();
}

void PortStrip::refresh() {
    const bool isScale = kind_ == InstrumentKind::scale;
    QString text = isScale ? instruments_.scale().summary() : instruments_.gnss().summary();
    const bool simulated = isScale ? instruments_.isScaleSimulated() : instruments_.isReceiverSimulated();
    if (simulated && isOpen()) text = tr("simulated, %1").arg(text);
    if (!isOpen()) text = tr("none at hand? Use the simulated one.");
    state_->setText(text);
    update();
}

void PortStrip::paintEvent(QPaintEvent *) {
    // Full when it is open, an outline else: not by colour alone.
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QColor colour = theme_.colors().thrustAxis;
    const QPointF centre(5, choose_->geometry().center().y() + 0.5);
    painter.setPen(QPen(isOpen() ? colour : theme_.colors().softChalk, 1.5));
    painter.setBrush(isOpen() ? QBrush(colour) : Qt::NoBrush);
    painter.drawEllipse(centre, 4, 4);
}

} // namespace waxis::app
