// Where an instrument is plugged in: what it is, its state, and a menu to choose another.
#pragma once

#include "app/document/document.h"
#include "app/document/instruments.h"
#include "app/theme/theme.h"

#include <QWidget>

class QLabel;
class QMenu;
class QToolButton;

namespace waxis::app {

enum class InstrumentKind { receiver, scale };

class PortStrip : public QWidget {
    Q_OBJECT

public:
    PortStrip(InstrumentKind kind, Document &document, Instruments &instruments, const theme::Theme &theme,
              QWidget *parent = nullptr);
    /// Asks for a path: pseudo-terminals are in no list.
    void askPath();
    void simulate();
    void close();
    void open(const QString &port);

signals:
    /// Which part the stand-in is to be; empty when none of the build is a receiver.
    void simulationWanted();

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    void fillMenu();
    void refresh();
    bool isOpen() const;

    InstrumentKind kind_;
    Document &document_;
    Instruments &instruments_;
    const theme::Theme &theme_;
    QLabel *state_ = nullptr;
    QToolButton *choose_ = nullptr;
    QMenu *menu_ = nullptr;
    int pattern_ = 0;
};

/// The first part that can be under the sky: the chosen one, else the first satellite receiver; empty: there is none.
QString receiverPart(const Document &document);

} // namespace waxis::app
