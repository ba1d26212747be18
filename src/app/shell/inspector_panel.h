// The selected thing: what it is, its numbers, editable in place, and what is near it.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>
#include <array>

class QFormLayout;
class QLabel;
class QLineEdit;

namespace waxis::app {

class FasteningRows;
class MemberCard;
class MountingRows;
class BalanceRows;
class PairCard;
class QuickLookRows;
class ChannelRows;
class RadioRows;
class StackRows;
class SelectionCard;
class WireCard;

class TypeChoice;

class InspectorPanel : public QWidget {
    Q_OBJECT

public:
    InspectorPanel(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    /// Some rows belong to one stage.
    void setStage(Stage stage);

private:
    QLineEdit *addNumber(const QString &label, const QString &name, const QString &unit);
    void refresh();
    void applyPosition();
    void applyTurn();
    void applyMass();

    Document &document_;
    const theme::Theme &theme_;
    QFormLayout *form_ = nullptr;
    QLineEdit *name_ = nullptr, *note_ = nullptr;
    QLabel *where_ = nullptr;
    QLabel *turn_ = nullptr;
    QLabel *massSource_ = nullptr;
    QLabel *empty_ = nullptr;
    QLabel *near_ = nullptr;
    QWidget *body_ = nullptr;
    TypeChoice *type_ = nullptr;
    std::array<QLineEdit *, 3> position_{};
    std::array<QLineEdit *, 3> angles_{};
    QLineEdit *mass_ = nullptr;
    FasteningRows *fastening_ = nullptr;
    StackRows *stacked_ = nullptr;
    MountingRows *mounting_ = nullptr;
    SelectionCard *several_ = nullptr;
    MemberCard *member_ = nullptr;
    WireCard *wire_ = nullptr;
    PairCard *pair_ = nullptr;
    RadioRows *radio_ = nullptr;
    ChannelRows *channels_ = nullptr;
    QuickLookRows *looks_ = nullptr;
    BalanceRows *balance_ = nullptr;
};

} // namespace waxis::app
