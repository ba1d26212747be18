#include "app/stages/wire/rail_panel.h"

#include "app/theme/metrics.h"
#include "app/widgets/tips.h"
#include "core/edits/wire_edits.h"
#include "core/power/power_report.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace waxis::wire {

namespace {
constexpr double kTop = 30, kRow = 26, kBar = 20, kNameLeft = 12, kBarLeft = 250, kNumbers = 138;
constexpr std::size_t kMostRows = 8;

QString amps(double value) { return QString::number(value, 'f', value < 9.95 ? 2 : value < 99.5 ? 1 : 0); }

/// The names that fit a narrow row.
QString shortName(const Build &build, const Rail &rail) {
    QString name = QString::fromStdString(displayName(build, rail.part));
    const Part *part = findPart(build, rail.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (type && type->electrical && (type->electrical->outputs.size() > 1 || type->kind == PartKind::flightController))
        name = QStringLiteral("%1 V · %2").arg(rail.nominal_V).arg(name);
    return name;
}
} // namespace

RailTap RailPanel::tapFor(const std::string &railId) const {
    const PowerReport &power = *document_.analysis().derived.power;
    for (const auto &rail : power.rails)
        if (rail.id() == railId) return tapOf(document_.build(), power, rail);
    return {};
}

RailPanel::RailPanel(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("rails");
    setAccessibleName(tr("Rails: what each can carry and who draws on it"));
    setMouseTracking(true);
    setFocusPolicy(Qt::ClickFocus);
    auto renew = [this] {
        layOut();
        updateGeometry();
        update();
    };
    connect(&document_, &app::Document::changed, this, renew);
    connect(&document_, &app::Document::selectionChanged, this, [this] { update(); });
    connect(&document_, &app::Document::highlightChanged, this, [this] { update(); });
    connect(&document_, &app::Document::loadCaseChanged, this, renew);
    connect(&theme_, &theme::Theme::changed, this, [this] { update(); });
    layOut();
}

QSize RailPanel::sizeHint() const {
    return {600, int(kTop + kRow * double(std::max<std::size_t>(1, rows_.size())) + 8)};
}

QRectF RailPanel::blockOf(const std::string &load) const {
    for (const auto &row : rows_)
        for (const auto &block : row.blocks)
            if (block.load == load) return block.rect;
    return {};
}

QRectF RailPanel::rowOf(const std::string &rail) const {
    for (const auto &row : rows_)
        if (row.rail == rail) return row.bar;
    return {};
}

/// Whether two rails feed the same things: of regulators that are joined one speaks for all.
static bool isJoinedWith(const PowerReport &power, const std::string &a, const std::string &b) {
    const auto loads = [&](const std::string &id) -> const std::vector<RailLoad> * {
        for (const auto &rail : power.rails)
            if (rail.id() == id && !rail.loads.empty()) return &rail.loads;
        return nullptr;
    };
    const auto *one = loads(a), *other = loads(b);
    return one && other &&
           std::equal(one->begin(), one->end(), other->begin(), other->end(),
                      [](const RailLoad &x, const RailLoad &y) { return x.part == y.part; });
}

Severity RailPanel::verdictOn(const std::string &rail) const {
    Severity worst = Severity::pass;
    for (const auto &finding : document_.analysis().findings) {
        if (finding.accepted() || finding.subjects.empty()) continue;
        const std::string &part = finding.subjects.front();
        const PowerReport &power = document_.analysis().derived.power;
        const bool mine =
            (finding.rule == RuleId::pwrRail && isJoinedWith(power, rail, part + ":" + finding.variant)) ||
            (finding.rule == RuleId::pwrPack && rail == part + ":BAT");
        if (mine && finding.severity < worst) worst = finding.severity;
    }
    return worst;
}

void RailPanel::layOut() {
    rows_.clear();
    const Build &build = document_.build();
    const Derived &derived = document_.analysis().derived;
    const double width = std::max(80.0, this->width() - kBarLeft - kNumbers - 8);
    double y = kTop;
    for (const auto &rail : derived.power->rails) {
        // Of packs that take turns only the one that flies in this load case.
        const Part *source = findPart(build, rail.part);
        if (rail.output == "BAT" && source && !document_.isAboardNow(*source)) continue;
        if (rail.loads.empty() && rail.output != "BAT" && rows_.size() >= kMostRows) continue;
        if (rows_.size() >= kMostRows) break;
        Row row;
        row.rail = rail.id();
        row.name = shortName(build, rail);
        row.range = rail.most_V - rail.least_V > 0.05
                        ? tr("%1–%2 V").arg(rail.least_V, 0, 'f', 1).arg(rail.most_V, 0, 'f', 1)
                    : rail.feeds.empty() ? tr("not fed")
                                         : tr("from %1").arg(QString::fromStdString([&] {
                                               const auto colon = rail.feeds.find(':');
                                               return displayName(build, rail.feeds.substr(0, colon));
                                           }()));
        row.typical_A = rail.typical_A;
        row.peak_A = rail.peak_A;
        row.limit_A = rail.limit_A.value_or(0);
        row.bar = QRectF(kBarLeft, y + (kRow - kBar) / 2, width, kBar);
        // The limit stands at nine tenths unless the load runs far beyond it.
        const double most = std::max({row.limit_A / 0.9, row.peak_A, row.typical_A, 1e-9});
        const double scale = width / most;
        row.limitX = row.limit_A > 0 ? kBarLeft + row.limit_A * scale : 0;
        std::vector<const RailLoad *> loads;
        for (const auto &load : rail.loads) loads.push_back(&load);
        std::stable_sort(loads.begin(), loads.end(), [](auto *a, auto *b) { return a->typical_A > b->typical_A; });
        double x = kBarLeft;
        for (const auto *load : loads) {
            const Part *part = findPart(build, load->part);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            // Its typical current; what is beyond up to the peak is drawn behind all blocks together.
            const double w = std::max(3.0, load->typical_A * scale);
            row.blocks.push_back({load->part, QRectF(x, row.bar.top(), w, kBar), load->typical_A, load->peak_A,
                                  type ? theme::familyColor(familyOf(type->kind)) : QColor(Qt::gray)});
            x += w + 1;
        }
        rows_.push_back(std::move(row));
        y += kRow;
    }
}

void RailPanel::resizeEvent(QResizeEvent *) { layOut(); }

void RailPanel::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), theme_.colors().matBar);
    paintHead(painter);
    const Row *over = dragging_ ? rowAt(dragAt_) : nullptr;
    for (const auto &row : rows_) {
        paintNames(painter, row);
        paintBar(painter, row, &row == over);
        paintNumbers(painter, row);
    }
    if (dragging_) paintDragged(painter);
}

void RailPanel::paintHead(QPainter &painter) const {
    const auto &c = theme_.colors();
    painter.setFont(theme_.text(theme::kTextPixels, true));
    painter.setPen(c.chalk);
    painter.drawText(QRectF(kNameLeft, 6, 80, 18), Qt::AlignVCenter, tr("Rails"));
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.softChalk);
    painter.drawText(QRectF(kNameLeft + 48, 6, width() - 60, 18), Qt::AlignVCenter,
                     rows_.empty() ? tr("no pack and no regulator aboard yet")
                                   : tr("what each can carry, and who draws on it; drag a block to another rail"));
    const auto &hovers = document_.analysis().derived.power->hover;
    if (const auto now = std::size_t(document_.loadCase()); now < hovers.size() && !hovers[now].pack.empty()) {
        const HoverReport &hover = hovers[now];
        painter.setFont(theme_.numbers(theme::kSmallPixels));
        painter.setPen(c.chalk);
        painter.drawText(QRectF(kNameLeft, 6, width() - 2 * kNameLeft, 18), Qt::AlignVCenter | Qt::AlignRight,
                         tr("hover %1 A · %2–%3 min")
                             .arg(amps(hover.current_A))
                             .arg(hover.least_min, 0, 'f', 1)
                             .arg(hover.most_min, 0, 'f', 1));
    }
}

void RailPanel::paintNames(QPainter &painter, const Row &row) const {
    const auto &c = theme_.colors();
    const QRectF &bar = row.bar;
    painter.setFont(theme_.text(12, true));
    painter.setPen(c.chalk);
    const QFontMetrics metrics(painter.font());
    painter.drawText(QRectF(kNameLeft, bar.top(), 138, kBar), Qt::AlignVCenter,
                     metrics.elidedText(row.name, Qt::ElideRight, 136));
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.softChalk);
    const QFontMetrics small(painter.font());
    painter.drawText(QRectF(kNameLeft + 142, bar.top(), 92, kBar), Qt::AlignVCenter,
                     small.elidedText(row.range, Qt::ElideRight, 90));
}

void RailPanel::paintBar(QPainter &painter, const Row &row, bool wouldTake) const {
    const auto &c = theme_.colors();
    const QRectF &bar = row.bar;
    painter.setPen(QPen(wouldTake ? c.thrustAxis : c.matGridStrong.lighter(130), wouldTake ? 2 : 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(bar);
    const double most = row.limit_A > 0 ? (row.limitX - bar.left()) / row.limit_A : 0;
    const double scale = most > 0 ? most : bar.width() / std::max(1e-9, row.peak_A);
    if (row.peak_A > 0) {
        painter.setPen(Qt::NoPen);
        QColor peak = theme::familyColor(Family::power);
        peak.setAlpha(70);
        painter.setBrush(peak);
        painter.drawRect(QRectF(bar.left(), bar.top() + 2, std::min(bar.width(), row.peak_A * scale), kBar - 4));
    }
    painter.setFont(theme_.text(theme::kSmallPixels));
    const QFontMetrics blockMetrics(painter.font());
    for (const auto &block : row.blocks) {
        const QString id = QString::fromStdString(block.load);
        const bool lit = document_.selection().contains(id) || document_.highlighted().contains(id);
        painter.setPen(lit ? QPen(Qt::white, 1.6) : QPen(Qt::NoPen));
        QColor fill = block.color;
        if (dragging_ && block.load == dragged_) fill.setAlpha(110);
        painter.setBrush(fill);
        const QRectF shown = block.rect.intersected(bar.adjusted(0, 1, 0, -1));
        painter.drawRect(shown);
        const QString name = QString::fromStdString(displayName(document_.build(), block.load));
        if (shown.width() > 30) {
            painter.setPen(QColor("#22282B"));
            painter.drawText(shown.adjusted(4, 0, -2, 0), Qt::AlignVCenter,
                             blockMetrics.elidedText(name, Qt::ElideRight, int(shown.width()) - 6));
        }
    }
    if (row.peak_A * scale > 0) { // the word stands where the light part is wide enough
        const double from = row.blocks.empty() ? bar.left() : row.blocks.back().rect.right();
        const double to = std::min(bar.right(), bar.left() + row.peak_A * scale);
        if (to - from > 34) {
            painter.setPen(c.softChalk);
            painter.drawText(QRectF(from + 6, bar.top(), to - from - 8, kBar), Qt::AlignVCenter, tr("peak"));
        }
    }
    if (row.limit_A > 0) {
        painter.setPen(QPen(c.chalk, 2));
        painter.drawLine(QPointF(row.limitX, bar.top() - 3), QPointF(row.limitX, bar.bottom() + 3));
    }
}

void RailPanel::paintNumbers(QPainter &painter, const Row &row) const {
    const auto &c = theme_.colors();
    const QRectF &bar = row.bar;
    painter.setFont(theme_.numbers(12));
    painter.setPen(c.chalk);
    if (row.limit_A > 0) {
        const double share = std::max(row.typical_A, row.peak_A) / row.limit_A * 100;
        painter.drawText(QRectF(bar.right() + 8, bar.top(), 56, kBar), Qt::AlignVCenter | Qt::AlignRight,
                         tr("%1 A").arg(amps(row.limit_A)));
        if (const Severity severity = verdictOn(row.rail); severity <= Severity::watch) {
            painter.setPen(theme::severityOnMat(severity));
            theme::drawSeverityMark(painter, QPointF(bar.right() + kNumbers - 10, bar.center().y()), 5, severity,
                                    theme::severityOnMat(severity));
        }
        painter.drawText(QRectF(bar.right() + 64, bar.top(), 52, kBar), Qt::AlignVCenter | Qt::AlignRight,
                         tr("%1 %").arg(share, 0, 'f', 0));
    } else
        painter.drawText(QRectF(bar.right() + 8, bar.top(), 120, kBar), Qt::AlignVCenter,
                         tr("%1 A").arg(amps(row.typical_A)));
}

void RailPanel::paintDragged(QPainter &painter) const {
    painter.setOpacity(0.9);
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme_.colors().chalk);
    painter.drawRoundedRect(QRectF(dragAt_ + QPointF(8, 6), QSizeF(120, 20)), 3, 3);
    painter.setPen(QColor("#22282B"));
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.drawText(
        QRectF(dragAt_ + QPointF(12, 6), QSizeF(114, 20)), Qt::AlignVCenter,
        QFontMetrics(painter.font())
            .elidedText(QString::fromStdString(displayName(document_.build(), dragged_)), Qt::ElideRight, 112));
}

const RailPanel::Block *RailPanel::blockAt(const QPointF &at) const {
    for (const auto &row : rows_)
        for (const auto &block : row.blocks)
            if (block.rect.adjusted(-1, -1, 1, 1).contains(at)) return &block;
    return nullptr;
}

const RailPanel::Row *RailPanel::rowAt(const QPointF &at) const {
    for (const auto &row : rows_)
        if (std::abs(at.y() - row.bar.center().y()) <= kRow / 2) return &row;
    return nullptr;
}

QString RailPanel::tipFor(const QPointF &at) const {
    const Build &build = document_.build();
    if (const Block *block = blockAt(at)) {
        QString tip = tr("%1: %2 A, at most %3 A")
                          .arg(QString::fromStdString(displayName(build, block->load)), amps(block->typical_A),
                               amps(block->peak_A));
        for (const auto &rail : document_.analysis().derived.power->rails)
            for (const auto &load : rail.loads)
                if (load.part == block->load && load.least_V && load.most_V)
                    tip += tr("\ntakes %1 to %2 V").arg(*load.least_V).arg(*load.most_V);
        return tip;
    }
    if (const Row *row = rowAt(at))
        return row->limit_A > 0
                   ? tr("%1: %2 A typical, %3 A at peak, good for %4 A")
                         .arg(row->name, amps(row->typical_A), amps(row->peak_A), amps(row->limit_A))
                   : tr("%1: %2 A typical, %3 A at peak").arg(row->name, amps(row->typical_A), amps(row->peak_A));
    return {};
}

void RailPanel::mousePressEvent(QMouseEvent *event) {
    if (event->button() != Qt::LeftButton) return;
    const Block *block = blockAt(event->position());
    dragged_ = block ? block->load : std::string();
    pressAt_ = dragAt_ = event->position();
    if (block) document_.select(QString::fromStdString(block->load));
}

void RailPanel::mouseMoveEvent(QMouseEvent *event) {
    if (dragged_.empty() || !(event->buttons() & Qt::LeftButton)) {
        setCursor(blockAt(event->position()) ? Qt::OpenHandCursor : Qt::ArrowCursor);
        return;
    }
    dragAt_ = event->position();
    if (!dragging_ && (dragAt_ - pressAt_).manhattanLength() < 6) return;
    if (!dragging_) over_.clear();
    dragging_ = true;
    setCursor(Qt::ClosedHandCursor);
    const Row *row = rowAt(dragAt_);
    // What it would do is judged while the mouse is down, once for each rail that it comes over.
    const std::string over = row ? row->rail : std::string();
    if (over != over_) {
        over_ = over;
        document_.cancelPreview();
    } else
        row = nullptr;
    if (row) {
        const auto [part, supply] = tapFor(row->rail);
        if (!part.empty()) document_.preview(moveSupply(document_.build(), dragged_, part, supply));
    }
    update();
}

void RailPanel::mouseReleaseEvent(QMouseEvent *) {
    if (dragging_) {
        document_.cancelPreview();
        if (const Row *row = rowAt(dragAt_)) {
            const auto [part, supply] = tapFor(row->rail);
            const QString load = QString::fromStdString(displayName(document_.build(), dragged_));
            if (!part.empty())
                document_.edit(tr("Feed %1 from %2").arg(load, row->name),
                               moveSupply(document_.build(), dragged_, part, supply));
        }
    }
    dragging_ = false;
    dragged_.clear();
    setCursor(Qt::ArrowCursor);
    update();
}

void RailPanel::keyPressEvent(QKeyEvent *event) {
    if (event->key() == Qt::Key_Escape && dragging_) {
        document_.cancelPreview();
        dragging_ = false;
        dragged_.clear();
        update();
        return;
    }
    QWidget::keyPressEvent(event);
}

bool RailPanel::event(QEvent *event) {
    if (theme::showTip(event, this, [this](const QPointF &at) { return tipFor(at); })) return true;
    return QWidget::event(event);
}

} // namespace waxis::wire
