// How controls look: flat, lines of one pixel, and all colours from the palette, so that another palette is another
// look at once. (A style sheet would have to be matched anew against every widget.)
#pragma once

#include <QProxyStyle>

namespace waxis::theme {

/// Lines are QPalette::Mid, lit ones QPalette::Link, words that stand out QPalette::BrightText, quiet ones
/// QPalette::PlaceholderText.
class Look : public QProxyStyle {
public:
    Look();

    void polish(QWidget *widget) override;
    using QProxyStyle::polish;
    void drawPrimitive(PrimitiveElement element, const QStyleOption *option, QPainter *painter,
                       const QWidget *widget) const override;
    void drawControl(ControlElement element, const QStyleOption *option, QPainter *painter,
                     const QWidget *widget) const override;
    void drawComplexControl(ComplexControl control, const QStyleOptionComplex *option, QPainter *painter,
                            const QWidget *widget) const override;
    QRect subElementRect(SubElement element, const QStyleOption *option, const QWidget *widget) const override;
    QRect subControlRect(ComplexControl control, const QStyleOptionComplex *option, SubControl part,
                         const QWidget *widget) const override;
    QSize sizeFromContents(ContentsType type, const QStyleOption *option, const QSize &contents,
                           const QWidget *widget) const override;
    int pixelMetric(PixelMetric metric, const QStyleOption *option, const QWidget *widget) const override;
};

/// Properties by which single widgets ask for another look, set to true.
inline constexpr const char *kPage = "page";   ///< a tool button without a border, underlined while it is down
inline constexpr const char *kLeft = "left";   ///< a push button whose text stands left; flat, it reads as a link
inline constexpr const char *kRuled = "ruled"; ///< a table with a line under each row, and room beside the words
inline constexpr const char *kQuiet = "quiet"; ///< line edits in it have only a line below until they are used

/// A rounded box in the palette's Window, with a line round it.
void drawCard(QPainter &painter, const QWidget &widget);

} // namespace waxis::theme
