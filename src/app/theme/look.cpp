#include "app/theme/look.h"

#include "app/theme/metrics.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QComboBox>
#include <QLineEdit>
#include <QPainter>
#include <QPainterPath>
#include <QScrollBar>
#include <QStyleFactory>
#include <QStyleOption>

namespace waxis::theme {

namespace {

constexpr int kFieldSide = 7, kFieldTop = 3;    // border and room in a field
constexpr int kButtonSide = 13, kButtonTop = 5; // in a push button
constexpr int kToolSide = 7, kToolTop = 3;      // in a tool button
constexpr int kArrow = 20;                      // room for a combo box's mark
constexpr int kIndicator = 15, kScrollBar = 10, kRoomInRows = 4;

bool asks(const QWidget *widget, const char *property) { return widget && widget->property(property).toBool(); }

bool isFocused(const QStyleOption &option) {
    return option.state.testFlag(QStyle::State_HasFocus) && option.state.testFlag(QStyle::State_Enabled);
}

bool isHovered(const QStyleOption &option) {
    return option.state.testFlag(QStyle::State_MouseOver) && option.state.testFlag(QStyle::State_Enabled);
}

QColor lineOf(const QStyleOption &option, bool lit) {
    return option.palette.color(lit ? QPalette::Link : QPalette::Mid);
}

void drawBox(QPainter &painter, const QRect &rect, const QColor &fill, const QColor &line) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(line.alpha() ? QPen(line, 1) : QPen(Qt::NoPen));
    painter.setBrush(fill.alpha() ? QBrush(fill) : QBrush(Qt::NoBrush));
    painter.drawRoundedRect(QRectF(rect).adjusted(0.5, 0.5, -0.5, -0.5), kCorner, kCorner);
    painter.restore();
}

void drawField(QPainter &painter, const QStyleOption &option, const QWidget *widget) {
    const bool quiet = asks(widget, kQuiet), lit = isFocused(option);
    if (!quiet || lit || isHovered(option))
        drawBox(painter, option.rect, quiet && !lit ? Qt::transparent : option.palette.color(QPalette::Base),
                lineOf(option, lit));
    else
        painter.fillRect(QRect(option.rect.left(), option.rect.bottom(), option.rect.width(), 1),
                         lineOf(option, false));
}

/// A bent line through points given in eighths of a box.
void drawStroke(QPainter &painter, const QRectF &box, std::initializer_list<QPointF> points, const QColor &color) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(color, 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    QPolygonF line;
    for (const QPointF &p : points) line << box.topLeft() + QPointF(p.x() * box.width() / 8, p.y() * box.height() / 8);
    painter.drawPolyline(line);
    painter.restore();
}

void drawTick(QPainter &painter, const QStyleOption &option) {
    QRect box(0, 0, kIndicator, kIndicator);
    box.moveCenter(option.rect.center());
    const bool on = option.state.testFlag(QStyle::State_On), part = option.state.testFlag(QStyle::State_NoChange);
    QColor fill = option.palette.color(on || part ? QPalette::Link : QPalette::Base);
    if (!option.state.testFlag(QStyle::State_Enabled) && (on || part))
        fill = option.palette.color(QPalette::Disabled, QPalette::Text);
    drawBox(painter, box, fill,
            on || part ? fill : option.palette.color(isFocused(option) ? QPalette::Link : QPalette::PlaceholderText));
    if (on) drawStroke(painter, box, {{2, 4.2}, {3.5, 5.7}, {6.2, 2.6}}, option.palette.color(QPalette::Base));
    if (part) drawStroke(painter, box, {{2.2, 4}, {5.8, 4}}, option.palette.color(QPalette::Base));
    if (isFocused(option) && (on || part))
        drawBox(painter, box.adjusted(-2, -2, 2, 2), Qt::transparent, lineOf(option, true));
}

void drawToolPanel(QPainter &painter, const QStyleOption &option, const QWidget *widget) {
    const bool down = option.state & (QStyle::State_On | QStyle::State_Sunken);
    if (asks(widget, kPage)) {
        if (option.state.testFlag(QStyle::State_On))
            painter.fillRect(QRect(option.rect.left(), option.rect.bottom() - 1, option.rect.width(), 2),
                             option.palette.color(QPalette::BrightText));
        return;
    }
    const bool enabled = option.state.testFlag(QStyle::State_Enabled);
    const bool lit = isFocused(option) || isHovered(option);
    drawBox(painter, option.rect, down ? option.palette.color(QPalette::Mid) : QColor(Qt::transparent),
            enabled ? lineOf(option, lit) : QColor(Qt::transparent));
}

void drawButtonPanel(QPainter &painter, const QStyleOption &option) {
    const auto *button = qstyleoption_cast<const QStyleOptionButton *>(&option);
    if (button && button->features.testFlag(QStyleOptionButton::Flat)) return;
    const bool down = option.state & (QStyle::State_On | QStyle::State_Sunken);
    drawBox(painter, option.rect, option.palette.color(down ? QPalette::Mid : QPalette::Button),
            lineOf(option, isFocused(option) || isHovered(option)));
}

} // namespace

void drawCard(QPainter &painter, const QWidget &widget) {
    drawBox(painter, widget.rect(), widget.palette().color(QPalette::Window), widget.palette().color(QPalette::Mid));
}

Look::Look() : QProxyStyle(QStyleFactory::create("Fusion")) {}

void Look::polish(QWidget *widget) {
    QProxyStyle::polish(widget);
    if (qobject_cast<QLineEdit *>(widget) || qobject_cast<QAbstractButton *>(widget) ||
        qobject_cast<QComboBox *>(widget))
        widget->setAttribute(Qt::WA_Hover);
    if (qobject_cast<QLineEdit *>(widget))
        for (const QWidget *over = widget->parentWidget(); over; over = over->parentWidget())
            if (asks(over, kQuiet)) widget->setProperty(kQuiet, true);
    if (qobject_cast<QScrollBar *>(widget)) widget->setAttribute(Qt::WA_OpaquePaintEvent, false);
}

void Look::drawPrimitive(PrimitiveElement element, const QStyleOption *option, QPainter *painter,
                         const QWidget *widget) const {
    switch (element) {
    case PE_FrameLineEdit: return; // the panel has it
    case PE_PanelLineEdit: {
        const auto *frame = qstyleoption_cast<const QStyleOptionFrame *>(option);
        if (frame && frame->lineWidth <= 0 && !asks(widget, kQuiet)) {
            if (!widget || !qobject_cast<QComboBox *>(widget->parentWidget()))
                painter->fillRect(option->rect, option->palette.base());
            return;
        }
        return drawField(*painter, *option, widget);
    }
    case PE_PanelButtonCommand: return drawButtonPanel(*painter, *option);
    case PE_PanelButtonTool: return drawToolPanel(*painter, *option, widget);
    case PE_IndicatorCheckBox:
    case PE_IndicatorItemViewItemCheck: return drawTick(*painter, *option);
    case PE_FrameFocusRect: // buttons and fields have a lit line instead
        if (asks(widget, kPage)) return drawBox(*painter, option->rect, Qt::transparent, lineOf(*option, true));
        if (qobject_cast<const QAbstractButton *>(widget) || qobject_cast<const QComboBox *>(widget)) return;
        break;
    case PE_PanelMenuBar: return;
    case PE_PanelMenu: painter->fillRect(option->rect, option->palette.button()); return;
    case PE_FrameMenu:
        painter->setPen(lineOf(*option, false));
        painter->drawRect(option->rect.adjusted(0, 0, -1, -1));
        return;
    case PE_PanelTipLabel:
        painter->fillRect(option->rect, option->palette.toolTipBase());
        painter->setPen(lineOf(*option, false));
        painter->drawRect(option->rect.adjusted(0, 0, -1, -1));
        return;
    default: break;
    }
    QProxyStyle::drawPrimitive(element, option, painter, widget);
}

void Look::drawControl(ControlElement element, const QStyleOption *option, QPainter *painter,
                       const QWidget *widget) const {
    switch (element) {
    case CE_ComboBoxLabel:
        if (const auto *box = qstyleoption_cast<const QStyleOptionComboBox *>(option)) {
            if (box->editable) break;
            QRect rect = subControlRect(CC_ComboBox, box, SC_ComboBoxEditField, widget);
            if (!box->currentIcon.isNull()) {
                QRect icon(rect.topLeft(), box->iconSize);
                icon.moveCenter(QPoint(icon.center().x(), rect.center().y()));
                box->currentIcon.paint(painter, icon);
                rect.setLeft(icon.right() + 5);
            }
            const bool enabled = box->state.testFlag(State_Enabled);
            drawItemText(painter, rect, Qt::AlignLeft | Qt::AlignVCenter, box->palette, enabled,
                         box->fontMetrics.elidedText(box->currentText, Qt::ElideRight, rect.width()), QPalette::Text);
            return;
        }
        break;
    case CE_PushButtonLabel:
        if (const auto *button = qstyleoption_cast<const QStyleOptionButton *>(option); button && asks(widget, kLeft)) {
            const bool flat = button->features.testFlag(QStyleOptionButton::Flat);
            QRect rect = button->rect.adjusted(flat ? 0 : kButtonSide, 0, flat ? 0 : -4, 0);
            if (!button->icon.isNull()) {
                QRect icon(rect.topLeft(), button->iconSize);
                icon.moveCenter(QPoint(icon.center().x(), rect.center().y()));
                button->icon.paint(painter, icon);
                rect.setLeft(icon.right() + 10);
            }
            QFont font = painter->font();
            font.setUnderline(flat && isFocused(*button));
            painter->setFont(font);
            drawItemText(painter, rect, Qt::AlignLeft | Qt::AlignVCenter | Qt::TextShowMnemonic, button->palette,
                         button->state.testFlag(State_Enabled), button->text,
                         flat ? QPalette::Link : QPalette::ButtonText);
            return;
        }
        break;
    case CE_ToolButtonLabel:
        if (const auto *tool = qstyleoption_cast<const QStyleOptionToolButton *>(option)) {
            QStyleOptionToolButton lit(*tool);
            const bool enabled = tool->state.testFlag(State_Enabled);
            const bool page = asks(widget, kPage), on = tool->state.testFlag(State_On);
            if (enabled && page)
                lit.palette.setColor(QPalette::ButtonText,
                                     tool->palette.color(on                 ? QPalette::BrightText
                                                         : isFocused(*tool) ? QPalette::Link
                                                                            : QPalette::PlaceholderText));
            else if (enabled && on)
                lit.palette.setColor(QPalette::ButtonText, tool->palette.color(QPalette::BrightText));
            lit.state &= ~State_Sunken; // words do not move when pressed
            return QProxyStyle::drawControl(element, &lit, painter, widget);
        }
        break;
    case CE_MenuBarEmptyArea: painter->fillRect(option->rect, option->palette.button()); return;
    case CE_MenuEmptyArea: return;
    case CE_MenuBarItem:
        if (const auto *item = qstyleoption_cast<const QStyleOptionMenuItem *>(option)) {
            const bool on = item->state.testFlag(State_Selected);
            painter->fillRect(item->rect, on ? item->palette.highlight() : item->palette.button());
            drawItemText(painter, item->rect, Qt::AlignCenter | Qt::TextShowMnemonic | Qt::TextSingleLine,
                         item->palette, item->state.testFlag(State_Enabled), item->text,
                         on ? QPalette::HighlightedText : QPalette::ButtonText);
            return;
        }
        break;
    case CE_HeaderSection:
    case CE_HeaderEmptyArea:
        painter->fillRect(option->rect, option->palette.window());
        painter->fillRect(QRect(option->rect.left(), option->rect.bottom(), option->rect.width(), 1),
                          lineOf(*option, false));
        return;
    case CE_HeaderLabel:
        if (const auto *head = qstyleoption_cast<const QStyleOptionHeader *>(option);
            head && widget && asks(widget->parentWidget(), kRuled)) {
            QStyleOptionHeader inner(*head);
            inner.rect.adjust(kRoomInRows, 0, -kRoomInRows, 0);
            return QProxyStyle::drawControl(element, &inner, painter, widget);
        }
        break;
    case CE_ItemViewItem:
        if (const auto *item = qstyleoption_cast<const QStyleOptionViewItem *>(option);
            item && asks(item->widget, kRuled)) {
            proxy()->drawPrimitive(PE_PanelItemViewItem, item, painter, widget);
            QStyleOptionViewItem inner(*item);
            inner.rect.adjust(kRoomInRows, 0, -kRoomInRows, -1);
            QProxyStyle::drawControl(element, &inner, painter, widget);
            painter->fillRect(QRect(item->rect.left(), item->rect.bottom(), item->rect.width(), 1),
                              lineOf(*item, false));
            return;
        }
        break;
    case CE_Splitter: { // a line along its middle, lit under the pointer
        const QRect &r = option->rect;
        const bool lit = isHovered(*option) || option->state.testFlag(State_Sunken);
        painter->fillRect(r.width() > r.height() ? QRect(r.left(), r.center().y(), r.width(), 1)
                                                 : QRect(r.center().x(), r.top(), 1, r.height()),
                          lineOf(*option, lit));
        return;
    }
    default: break;
    }
    QProxyStyle::drawControl(element, option, painter, widget);
}

void Look::drawComplexControl(ComplexControl control, const QStyleOptionComplex *option, QPainter *painter,
                              const QWidget *widget) const {
    if (control == CC_ComboBox) {
        if (const auto *box = qstyleoption_cast<const QStyleOptionComboBox *>(option)) {
            if (box->frame) drawField(*painter, *box, nullptr);
            QRectF arrow(0, 0, 8, 8);
            arrow.moveCenter(QRectF(subControlRect(CC_ComboBox, box, SC_ComboBoxArrow, widget)).center());
            drawStroke(*painter, arrow, {{1, 2.6}, {4, 5.6}, {7, 2.6}},
                       box->palette.color(isFocused(*box) ? QPalette::Link : QPalette::PlaceholderText));
            return;
        }
    }
    if (control == CC_ToolButton) {
        if (const auto *tool = qstyleoption_cast<const QStyleOptionToolButton *>(option)) {
            QStyleOptionToolButton plain(*tool); // the words say that there is a menu
            plain.features &= ~QStyleOptionToolButton::HasMenu;
            return QProxyStyle::drawComplexControl(control, &plain, painter, widget);
        }
    }
    if (control == CC_ScrollBar) {
        QRect slider = subControlRect(control, option, SC_ScrollBarSlider, widget).adjusted(2, 2, -2, -2);
        const bool used = option->state.testFlag(State_Sunken) || isHovered(*option);
        if (option->state.testFlag(State_Enabled))
            drawBox(*painter, slider, option->palette.color(used ? QPalette::PlaceholderText : QPalette::Mid),
                    Qt::transparent);
        return;
    }
    QProxyStyle::drawComplexControl(control, option, painter, widget);
}

QRect Look::subElementRect(SubElement element, const QStyleOption *option, const QWidget *widget) const {
    if (element == SE_LineEditContents) {
        const auto *frame = qstyleoption_cast<const QStyleOptionFrame *>(option);
        if (frame && frame->lineWidth <= 0) return option->rect;
        const int side = asks(widget, kQuiet) ? 1 : kFieldSide - 2;
        return option->rect.adjusted(side, 1, -side, -1);
    }
    return QProxyStyle::subElementRect(element, option, widget);
}

QRect Look::subControlRect(ComplexControl control, const QStyleOptionComplex *option, SubControl part,
                           const QWidget *widget) const {
    const QRect r = option->rect;
    if (control == CC_ComboBox) {
        const auto *box = qstyleoption_cast<const QStyleOptionComboBox *>(option);
        const int side = box && !box->frame ? 2 : kFieldSide;
        QRect found = r;
        if (part == SC_ComboBoxArrow) found.setLeft(r.right() - kArrow + 1);
        if (part == SC_ComboBoxEditField) found.adjust(side, 1, -kArrow, -1);
        if (part == SC_ComboBoxArrow || part == SC_ComboBoxEditField) return visualRect(option->direction, r, found);
        if (part == SC_ComboBoxFrame) return r;
    }
    if (const auto *bar = qstyleoption_cast<const QStyleOptionSlider *>(option); bar && control == CC_ScrollBar) {
        const bool upright = bar->orientation == Qt::Vertical;
        const int room = upright ? r.height() : r.width();
        const int range = bar->maximum - bar->minimum;
        constexpr int kLeast = 24;
        const int length = range > 0 ? std::clamp(int(qint64(bar->pageStep) * room / (range + bar->pageStep)),
                                                  std::min(kLeast, room), room)
                                     : room;
        const int start =
            sliderPositionFromValue(bar->minimum, bar->maximum, bar->sliderPosition, room - length, bar->upsideDown);
        const auto along = [&](int from, int to) {
            return upright ? QRect(r.left(), r.top() + from, r.width(), to - from)
                           : QRect(r.left() + from, r.top(), to - from, r.height());
        };
        switch (part) {
        case SC_ScrollBarSlider: return along(start, start + length);
        case SC_ScrollBarSubPage: return along(0, start);
        case SC_ScrollBarAddPage: return along(start + length, room);
        case SC_ScrollBarGroove: return r;
        case SC_ScrollBarAddLine:
        case SC_ScrollBarSubLine: return {};
        default: break;
        }
    }
    return QProxyStyle::subControlRect(control, option, part, widget);
}

QSize Look::sizeFromContents(ContentsType type, const QStyleOption *option, const QSize &contents,
                             const QWidget *widget) const {
    switch (type) {
    case CT_LineEdit: return contents + QSize(2 * kFieldSide, asks(widget, kQuiet) ? 2 : 2 * kFieldTop);
    case CT_ComboBox: {
        const auto *box = qstyleoption_cast<const QStyleOptionComboBox *>(option);
        const bool frame = !box || box->frame;
        return contents + QSize((frame ? kFieldSide : 2) + kArrow + 6, frame ? 2 * kFieldTop : 2);
    }
    case CT_PushButton: {
        const auto *button = qstyleoption_cast<const QStyleOptionButton *>(option);
        if (button && button->features.testFlag(QStyleOptionButton::Flat)) return contents + QSize(0, 2);
        return contents + QSize(2 * kButtonSide, 2 * kButtonTop);
    }
    case CT_ToolButton: return contents + QSize(2 * kToolSide, 2 * kToolTop);
    case CT_MenuBarItem: return contents + QSize(16, 8);
    case CT_HeaderSection: {
        const QSize size = QProxyStyle::sizeFromContents(type, option, contents, widget);
        return widget && asks(widget->parentWidget(), kRuled) ? size + QSize(2 * kRoomInRows, 0) : size;
    }
    case CT_ItemViewItem: {
        const QSize size = QProxyStyle::sizeFromContents(type, option, contents, widget);
        const auto *item = qstyleoption_cast<const QStyleOptionViewItem *>(option);
        return item && asks(item->widget, kRuled) ? size + QSize(2 * kRoomInRows, 1) : size;
    }
    default: return QProxyStyle::sizeFromContents(type, option, contents, widget);
    }
}

int Look::pixelMetric(PixelMetric metric, const QStyleOption *option, const QWidget *widget) const {
    switch (metric) {
    case PM_ScrollBarExtent: return kScrollBar;
    case PM_IndicatorWidth:
    case PM_IndicatorHeight: return kIndicator;
    case PM_MenuBarPanelWidth:
    case PM_MenuBarItemSpacing: return 0;
    case PM_MenuBarHMargin: return 8;
    case PM_MenuBarVMargin: return 4;
    case PM_ToolTipLabelFrameWidth: return 5;
    default: return QProxyStyle::pixelMetric(metric, option, widget);
    }
}

} // namespace waxis::theme
