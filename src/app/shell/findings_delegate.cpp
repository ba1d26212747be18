#include "app/shell/findings_panel.h"
#include "app/theme/metrics.h"
#include "app/widgets/texts.h"

#include <QMouseEvent>
#include <QPainter>

namespace waxis::app {

namespace {
constexpr int kLeft = 40, kRight = 16, kTop = 8;

QRect wrapped(const QFont &font, const QString &text, int x, int y, int width) {
    // Drawn in the width that it was wrapped in: a box as narrow as the longest line might wrap once more.
    const int height = QFontMetrics(font).boundingRect(QRect(x, y, width, 1000), Qt::TextWordWrap, text).height();
    return {x, y, width, height};
}
} // namespace

FindingDelegate::FindingDelegate(FindingsModel &model, Document &document, const theme::Theme &theme, QObject *parent)
    : QStyledItemDelegate(parent), model_(model), document_(document), theme_(theme) {}

FindingDelegate::Layout FindingDelegate::layOut(const QRect &row, const QModelIndex &index) const {
    const Finding &finding = model_.finding(index.row());
    const FindingText text = wordFinding(document_.build(), finding);
    const QString headline = say(text.headline);
    const QString detail =
        finding.accepted() ? tr("Accepted: %1").arg(QString::fromStdString(finding.acceptedReason)) : say(text.detail);
    QStringList fixes;
    if (const auto *cures = model_.cures(index.row()); cures && !finding.accepted())
        for (const auto &cure : *cures) fixes << say(cure.words);
    const QString key = QString::fromStdString(finding.key());
    if (key == model_.openedKey() || key == model_.toldKey()) return layOutAt(row, finding, headline, detail, fixes);
    // Wrapping words takes most of the time, and while a part is dragged the same words come again and again.
    const QString words = headline + '\n' + detail + '\n' + fixes.join('\n') + '\n' + QString::number(row.width()) +
                          (finding.accepted() ? '-' : '+');
    constexpr qsizetype kMost = 400;
    if (laidOut_.size() > kMost) laidOut_.clear();
    auto known = laidOut_.constFind(words);
    if (known == laidOut_.constEnd())
        known = laidOut_.insert(words, layOutAt(QRect(0, 0, row.width(), 0), finding, headline, detail, fixes));
    Layout layout = *known;
    layout.headlineBox.translate(row.topLeft());
    layout.detailBox.translate(row.topLeft());
    for (auto &link : layout.links) link.rect.translate(row.topLeft());
    return layout;
}

FindingDelegate::Layout FindingDelegate::layOutAt(const QRect &row, const Finding &finding, const QString &headline,
                                                  const QString &detail, const QStringList &fixes) const {
    Layout layout;
    const int width = row.width() - kLeft - kRight;
    layout.headline = headline;
    layout.headlineBox = wrapped(theme_.text(13, true), layout.headline, row.left() + kLeft, row.top() + kTop, width);
    int y = layout.headlineBox.bottom() + 2;
    // One line of the reason; all of it in the row that is looked at.
    const QString key = QString::fromStdString(finding.key());
    const QFontMetrics small(theme_.text(12));
    if (key == model_.openedKey() || key == model_.toldKey()) {
        layout.detail = detail;
        layout.detailBox = wrapped(theme_.text(12), detail, row.left() + kLeft, y, width);
    } else {
        layout.detail = small.elidedText(detail, Qt::ElideRight, width);
        layout.detailBox = QRect(row.left() + kLeft, y, width, small.height());
    }
    y = layout.detailBox.bottom() + 2;

    struct Offered {
        FindingAction action;
        int cure;
        QString words;
    };
    std::vector<Offered> offered{{FindingAction::show, 0, tr("Show")}, {FindingAction::why, 0, tr("Why")}};
    if (finding.accepted())
        offered.push_back({FindingAction::withdraw, 0, tr("Withdraw")});
    else
        offered.push_back({FindingAction::accept, 0, tr("Accept…")});
    for (qsizetype i = 0; i < fixes.size(); ++i) offered.push_back({FindingAction::fix, int(i), fixes[i]});
    const QFontMetrics &metrics = small;
    int x = row.left() + kLeft;
    for (const auto &[action, cure, words] : offered) {
        const int room = row.right() - kRight - x;
        int w = metrics.horizontalAdvance(words) + 2;
        if (w > room && x > row.left() + kLeft) { // next line
            x = row.left() + kLeft;
            y += 18;
        }
        const int most = row.right() - kRight - x;
        if (w > most) { // a long one has lines of its own
            const QRect box = wrapped(theme_.text(12), words, x, y, most);
            layout.links.push_back({action, cure, words, box});
            y += std::max(0, box.height() - 18);
            x = row.right();
            continue;
        }
        layout.links.push_back({action, cure, words, QRect(x, y, w, 18)});
        x += w + 14;
    }
    y += 20;
    if (key == model_.openedKey()) {
        const Rule &rule = ruleOf(finding.rule);
        QStringList lines{tr("%1 %2. %3").arg(fromView(ruleName(rule.id)), fromView(rule.title), fromView(rule.why))};
        if (finding.practiceLimit) {
            const auto &limit = definitionOf(*finding.practiceLimit);
            lines << tr("Limit %1 %2 from the practice %3: %4.")
                         .arg(document_.analysis().practice[*finding.practiceLimit])
                         .arg(fromView(limit.unit), QString::fromStdString(document_.analysis().practice.profile),
                              fromView(limit.title).toLower());
        }
        lines << tr("Source: %1.").arg(fromView(rule.source));
        for (const auto &input : finding.inputs)
            lines << QStringLiteral("%1  %2 %3")
                         .arg(fromView(input.name))
                         .arg(input.value, 0, 'f', 2)
                         .arg(fromView(input.unit));
        y += 4;
        for (const auto &line : lines) {
            const QRect box = wrapped(theme_.text(12), line, row.left() + kLeft, y, width);
            layout.opened.emplace_back(line, box);
            y = box.bottom() + 3;
        }
    }
    layout.height = y + 6 - row.top();
    return layout;
}

QSize FindingDelegate::sizeHint(const QStyleOptionViewItem &option, const QModelIndex &index) const {
    // The scroll bar may come only after the sizes are known: texts are laid out as if it were there.
    constexpr int kScrollBar = 12;
    const int beside = theme::kLedgerWidth - kScrollBar;
    const int width = option.rect.width() > 0 ? std::min(option.rect.width(), beside) : beside;
    return {width, layOut(QRect(0, 0, width, 0), index).height};
}

void FindingDelegate::paint(QPainter *painter, const QStyleOptionViewItem &option, const QModelIndex &index) const {
    const auto &c = theme_.colors();
    const Finding &finding = model_.finding(index.row());
    const Layout layout = layOut(option.rect, index);
    painter->save();
    painter->setRenderHint(QPainter::Antialiasing);
    if (option.state & (QStyle::State_MouseOver | QStyle::State_Selected)) painter->fillRect(option.rect, c.paper);
    if (option.state & QStyle::State_HasFocus)
        painter->fillRect(QRect(option.rect.left(), option.rect.top(), 3, option.rect.height()), c.link);
    theme::drawSeverityMark(*painter, QPointF(option.rect.left() + 23, layout.headlineBox.top() + 9), 6.5,
                            finding.severity, finding.accepted() ? c.muted : c.severity(finding.severity));
    painter->setPen(finding.accepted() ? c.muted : c.ink);
    painter->setFont(theme_.text(13, true));
    painter->drawText(layout.headlineBox, Qt::TextWordWrap, layout.headline);
    painter->setPen(c.muted);
    painter->setFont(theme_.text(12));
    painter->drawText(layout.detailBox, Qt::TextWordWrap, layout.detail);
    painter->setPen(c.link);
    for (const auto &link : layout.links) painter->drawText(link.rect, Qt::AlignVCenter | Qt::TextWordWrap, link.text);
    painter->setPen(c.ink);
    for (const auto &[line, box] : layout.opened) painter->drawText(box, Qt::TextWordWrap, line);
    painter->setPen(c.rule);
    painter->drawLine(option.rect.left() + kLeft, option.rect.bottom(), option.rect.right() - kRight,
                      option.rect.bottom());
    painter->restore();
}

QRect FindingDelegate::linkRect(const QRect &row, const QModelIndex &index, FindingAction action, int cure) const {
    for (const auto &link : layOut(row, index).links)
        if (link.action == action && link.cure == cure) return link.rect;
    return {};
}

bool FindingDelegate::editorEvent(QEvent *event, QAbstractItemModel *, const QStyleOptionViewItem &option,
                                  const QModelIndex &index) {
    if (event->type() != QEvent::MouseButtonRelease) return false;
    const auto *mouse = static_cast<QMouseEvent *>(event);
    for (const auto &link : layOut(option.rect, index).links)
        if (link.rect.contains(mouse->pos())) {
            emit actionChosen(index.row(), link.action, link.cure);
            return true;
        }
    return false;
}

} // namespace waxis::app
