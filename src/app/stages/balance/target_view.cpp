#include "app/stages/balance/target_view.h"

#include "app/drawing/walk.h"
#include "app/theme/metrics.h"
#include "app/widgets/texts.h"
#include "app/widgets/tips.h"
#include "core/balance/case_balance.h"
#include "core/rules/wording.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

namespace waxis::balance {

namespace {

constexpr int kHeightWidth_px = 118, kMargin_px = 12;

QString millimetres(double value) { return QString::fromStdString(oneDecimal(std::abs(value))); }

/// "6.7 fore, 0.1 right"; nothing is said of what rounds to nothing.
QString inWords(const Vec2 &offset) {
    QStringList words;
    const auto take = [&](double value, const QString &high, const QString &low) {
        if (millimetres(value) != "0.0")
            words << TargetView::tr("%1 %2").arg(millimetres(value), value > 0 ? high : low);
    };
    take(offset.x(), TargetView::tr("fore"), TargetView::tr("aft"));
    take(offset.y(), TargetView::tr("left"), TargetView::tr("right"));
    return words.isEmpty() ? TargetView::tr("in the axis") : words.join(QStringLiteral(", "));
}

/// Labels that were placed already; a new one goes where it covers none of them.
class Labels {
public:
    Labels(QPainter &painter, const QRectF &room) : painter_(painter), room_(room) {}
    void block(const QRectF &box) { taken_.push_back(box); }
    void put(const QPointF &at, const QString &text, const QColor &ink, double clear = 9) {
        const QFontMetricsF metrics(painter_.font());
        const QSizeF size(metrics.horizontalAdvance(text) + 2, metrics.height());
        const QPointF places[] = {{clear, -size.height() / 2},
                                  {-clear - size.width(), -size.height() / 2},
                                  {-size.width() / 2, clear - 2},
                                  {-size.width() / 2, -clear - size.height() + 2},
                                  {clear, clear},
                                  {clear, -clear - size.height()},
                                  {-clear - size.width(), clear},
                                  {-clear - size.width(), -clear - size.height()}};
        QRectF best;
        double least = 1e9;
        for (int ring = 0; ring < 6; ++ring)
            for (const auto &place : places) {
                QRectF box(at + place * (1 + 0.8 * ring), size);
                // Never beyond the drawing: pushed in, it may cover its own mark, and then another place is better.
                box.moveLeft(
                    std::clamp(box.left(), room_.left(), std::max(room_.left(), room_.right() - size.width())));
                box.moveTop(std::clamp(box.top(), room_.top(), std::max(room_.top(), room_.bottom() - size.height())));
                double covers = 3.0 * ring;
                for (const auto &other : taken_) {
                    const QRectF both = other & box;
                    covers += both.width() * both.height();
                }
                if (covers < least) {
                    least = covers;
                    best = box;
                }
            }
        // A leader where the label is not beside its mark.
        const QPointF near(std::clamp(at.x(), best.left(), best.right()),
                           std::clamp(at.y(), best.top(), best.bottom()));
        const QLineF leader(at, near);
        constexpr double kBeside_px = 13, kMark_px = 6;
        if (leader.length() > kBeside_px) {
            QColor faint = ink;
            faint.setAlphaF(0.6f);
            painter_.setPen(QPen(faint, 1));
            painter_.drawLine(leader.pointAt(kMark_px / leader.length()), near);
        }
        painter_.setPen(ink);
        painter_.drawText(best, Qt::AlignCenter, text);
        taken_.push_back(best);
        written_.push_back(best);
    }
    /// Where the labels stand.
    const std::vector<QRectF> &written() const { return written_; }

private:
    QPainter &painter_;
    QRectF room_;
    std::vector<QRectF> taken_, written_;
};

} // namespace

TargetView::TargetView(app::Document &document, const theme::Theme &theme, const StudyRunner &runner, QWidget *parent)
    : CloserWidget(parent), document_(document), theme_(theme), runner_(runner) {
    setObjectName("target");
    setAccessibleName(tr("Plumb target: centre of gravity from the thrust centre"));
    setMouseTracking(true);
    connect(&document_, &app::Document::opened, this, &TargetView::fit);
    auto again = qOverload<>(&QWidget::update);
    connect(&document_, &app::Document::changed, this, again);
    connect(&document_, &app::Document::loadCaseChanged, this, again);
    connect(&theme_, &theme::Theme::changed, this, again);
    connect(&runner_, &StudyRunner::ready, this, again);
}

void TargetView::propose(std::optional<Vec2> after_mm, const QString &words) {
    after_mm_ = after_mm;
    afterWords_ = words;
    update();
}

void TargetView::showCloud(bool shown) {
    cloud_ = shown;
    update();
}

std::vector<TargetView::Point> TargetView::points() const {
    std::vector<Point> list;
    const auto &derived = document_.analysis().derived;
    for (std::size_t i = 0; i < derived.balance.size(); ++i) {
        const CaseBalance &balance = derived.balance[i];
        if (!balance.offset_mm) continue;
        list.push_back(
            {int(i), balance.loadCase.folded, *balance.offset_mm, QString::fromStdString(balance.loadCase.name)});
        if (int(i) == document_.loadCase() && balance.foldedCg_mm && !balance.loadCase.folded)
            list.push_back({int(i), true, *balance.foldedCg_mm - derived.thrustCentre_mm, tr("arms folded")});
    }
    return list;
}

QRectF TargetView::plan() const { return QRectF(rect()).adjusted(0, 0, -kHeightWidth_px, 0); }

TargetView::Look TargetView::look() const {
    // The ring and every case, flying ones in full; what hangs far away is let out of the picture.
    constexpr double kFar_mm = 200;
    const double ring = document_.analysis().derived.cgTolerance_mm;
    QRectF box(-ring, -ring, 2 * ring, 2 * ring);
    auto take = [&](const Vec2 &p) {
        if (p.norm() > kFar_mm) return;
        box.setLeft(std::min(box.left(), p.x() - ring * 0.3));
        box.setRight(std::max(box.right(), p.x() + ring * 0.3));
        box.setTop(std::min(box.top(), -p.y() - ring * 0.3));
        box.setBottom(std::max(box.bottom(), -p.y() + ring * 0.3));
    };
    for (const auto &point : points()) take(point.offset_mm.head<2>());
    if (after_mm_) take(*after_mm_);
    const QRectF room = plan().adjusted(0, 24, 0, -24);
    constexpr double kAir = 1.12;
    return {std::min(room.width() / box.width(), room.height() / box.height()) / kAir, box.center(), room.center()};
}

QPointF TargetView::toPixels(const Vec2 &offset) const {
    const Look view = look();
    return closer().seen(view.middle_px + (QPointF(offset.x(), -offset.y()) - view.middle_mm) * view.scale);
}

void TargetView::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    painter.setPen(QPen(c.matGridStrong, 1));
    painter.setBrush(c.mat);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
    if (!document_.balance() || !document_.balance()->offset_mm) {
        painter.setPen(c.softChalk);
        painter.setFont(theme_.text(theme::kTextPixels));
        painter.drawText(rect().adjusted(24, 0, -24, 0), Qt::AlignCenter | Qt::TextWordWrap,
                         document_.build().frame->motorMounts.empty()
                             ? tr("No motors yet: enter the frame in Frame (F2), then the weights hang here.")
                             : tr("Nothing has a weight yet: put parts on the mat in Place (F3), or weigh them in Kit "
                                  "(F1)."));
        return;
    }
    paintPlan(painter);
    paintHeight(painter);
    if (!hasFocus()) return;
    painter.setPen(QPen(c.thrustAxis, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
}

void TargetView::paintPlan(QPainter &painter) {
    const QRectF box = plan();
    painter.save();
    painter.setClipRect(box.adjusted(1, 1, -1, -1));
    const double step = paintGrid(painter);
    paintRing(painter);
    paintCloud(painter);
    const CaseBalance &balance = *document_.balance();
    const DoubtEllipse ellipse = ellipse95(balance.cgCovariance_mm2.topLeftCorner<2, 2>());
    paintDoubt(painter, ellipse);
    paintPlaces(painter, ellipse);
    painter.restore();
    paintLegend(painter, step);
}

double TargetView::pixelsPerMm() const { return toPixels({1, 0}).x() - toPixels({0, 0}).x(); }

double TargetView::paintGrid(QPainter &painter) const {
    const auto &c = theme_.colors();
    const QRectF box = plan();
    const double scale = pixelsPerMm();
    double step = 0.1; // the finest grid that does not close up
    for (double next : {0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0})
        if (step * scale < 7) step = next;
    const QPointF centre = toPixels({0, 0});
    const double apart = step * scale;
    const auto lines = [&](double from, double to, double middle, auto &&draw) {
        for (int i = int(std::ceil((from - middle) / apart)); middle + i * apart <= to; ++i) {
            painter.setPen(QPen(i % 5 == 0 ? c.matGridStrong : c.matGrid, 1));
            draw(middle + i * apart);
        }
    };
    lines(box.left(), box.right(), centre.x(),
          [&](double x) { painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom())); });
    lines(box.top(), box.bottom(), centre.y(),
          [&](double y) { painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y)); });
    return step;
}

void TargetView::paintRing(QPainter &painter) const {
    const auto &c = theme_.colors();
    const QPointF centre = toPixels({0, 0});
    const double radius = document_.analysis().derived.cgTolerance_mm * pixelsPerMm();
    QColor fill = c.thrustAxis;
    fill.setAlphaF(0.10f);
    painter.setBrush(fill);
    painter.setPen(QPen(c.thrustAxis, 1.5));
    painter.drawEllipse(centre, radius, radius);
    painter.drawLine(centre - QPointF(9, 0), centre + QPointF(9, 0));
    painter.drawLine(centre - QPointF(0, 9), centre + QPointF(0, 9));
}

void TargetView::paintCloud(QPainter &painter) const {
    const CaseStudy *study = runner_.caseStudy(document_.loadCase());
    if (!cloud_ || !study || document_.isPreviewing()) return;
    QColor dot = theme_.colors().plumb;
    dot.setAlphaF(0.35f);
    painter.setPen(Qt::NoPen);
    painter.setBrush(dot);
    const Vec2 axis = document_.analysis().derived.thrustCentre_mm.head<2>();
    for (const auto &p : study->drawn.cloud_mm) painter.drawEllipse(toPixels(p - axis), 1.2, 1.2);
}

void TargetView::paintDoubt(QPainter &painter, const DoubtEllipse &ellipse) const {
    const auto &c = theme_.colors();
    const double scale = pixelsPerMm();
    const QPointF here = toPixels(document_.balance()->offset_mm->head<2>());
    QColor doubt = c.plumb;
    doubt.setAlphaF(0.22f);
    painter.save();
    painter.translate(here);
    painter.rotate(-ellipse.turn_deg);
    painter.setBrush(cloud_ ? QBrush(Qt::NoBrush) : QBrush(doubt));
    painter.setPen(QPen(c.plumb, 1.2));
    painter.drawEllipse(QPointF(0, 0), ellipse.semiMajor_mm * scale, ellipse.semiMinor_mm * scale);
    painter.restore();
}

void TargetView::paintPlaces(QPainter &painter, const DoubtEllipse &ellipse) {
    const auto &c = theme_.colors();
    const QRectF box = plan();
    const CaseBalance &balance = *document_.balance();
    const QPointF centre = toPixels({0, 0}), here = toPixels(balance.offset_mm->head<2>());
    painter.setFont(theme_.text(theme::kSmallPixels));
    Labels labels(painter, box.adjusted(4, 22, -4, -22));
    const double round = std::max(8.0, 0.8 * ellipse.semiMajor_mm * pixelsPerMm());
    labels.block(QRectF(here - QPointF(round, round), QSizeF(2 * round, 2 * round)));
    labels.block(QRectF(centre - QPointF(10, 10), QSizeF(20, 20)));
    for (const auto &point : points())
        labels.block(QRectF(toPixels(point.offset_mm.head<2>()) - QPointF(6, 6), QSizeF(12, 12)));
    if (after_mm_) {
        const QPointF there = toPixels(*after_mm_);
        for (int i = 1; i < 20; ++i)
            labels.block(QRectF(here + (there - here) * i / 20.0 - QPointF(4, 4), QSizeF(8, 8)));
        labels.block(QRectF(there - QPointF(7, 7), QSizeF(14, 14)));
    }
    painter.setFont(theme_.numbers(theme::kSmallPixels, true)); // the one that is looked at has the first choice
    labels.put(here, inWords(balance.offset_mm->head<2>()), c.plumb, 12);
    painter.setFont(theme_.text(theme::kSmallPixels));
    if (after_mm_) {
        const QPointF there = toPixels(*after_mm_);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(c.plumb, 1.3, Qt::DashLine));
        painter.drawLine(here, there);
        painter.setPen(QPen(c.plumb, 1.5, Qt::DotLine));
        painter.drawEllipse(there, 6, 6);
        labels.put(there, afterWords_, c.plumb);
    }
    for (const auto &point : points()) {
        const QPointF at = toPixels(point.offset_mm.head<2>());
        if (point.loadCase == document_.loadCase() && !point.folded) continue;
        if (!box.contains(at)) continue; // far outside: its row in the table says where
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(point.folded ? c.softChalk : c.chalk, 1.4, point.folded ? Qt::DotLine : Qt::SolidLine));
        painter.drawEllipse(at, 4.5, 4.5);
        labels.put(at, point.name, point.folded ? c.softChalk : c.chalk);
    }
    painter.setPen(Qt::NoPen);
    painter.setBrush(c.plumb);
    painter.drawEllipse(here, 5, 5);
    labelBoxes_ = labels.written();
}

void TargetView::paintLegend(QPainter &painter, double step_mm) const {
    const auto &c = theme_.colors();
    const QRectF box = plan();
    const CaseBalance &balance = *document_.balance();
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.softChalk);
    painter.drawText(box.adjusted(10, 6, -10, -6), Qt::AlignTop | Qt::AlignLeft,
                     tr("plan, nose to the right; a square is %1 mm").arg(step_mm));
    painter.drawText(box.adjusted(10, 6, -10, -6), Qt::AlignBottom | Qt::AlignLeft,
                     tr("ring %1 mm · ellipse 95 %").arg(document_.analysis().derived.cgTolerance_mm, 0, 'g', 3));
    if (balance.insideChance) {
        const double chance = 100 * *balance.insideChance;
        painter.drawText(box.adjusted(10, 6, -10, -6), Qt::AlignBottom | Qt::AlignRight,
                         chance >= 99.5  ? tr("surely inside")
                         : chance <= 0.5 ? tr("surely outside")
                                         : tr("inside with %1 %").arg(chance, 0, 'f', 0));
    }
}

void TargetView::paintHeight(QPainter &painter) const {
    const auto &c = theme_.colors();
    const QRectF box(rect().right() - kHeightWidth_px + 1, 0, kHeightWidth_px - 1, height());
    painter.setPen(QPen(c.matGridStrong, 1));
    painter.drawLine(box.topLeft() + QPointF(0, 1), box.bottomLeft() - QPointF(0, 1));
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.softChalk);
    painter.drawText(box.adjusted(8, 6, -6, 0), Qt::AlignTop | Qt::AlignLeft | Qt::TextWordWrap,
                     tr("height over the\npropeller plane"));
    // From the side: the propellers' plane, and each case's plumb bob under or over it.
    double reach = 12;
    for (const auto &point : points())
        if (!point.folded) reach = std::max(reach, 1.25 * std::abs(point.offset_mm.z()));
    const double middle = box.center().y() + 10, scale = (box.height() - 110) / 2 / reach;
    const double left = box.left() + 14, right = box.right() - 10;
    painter.setPen(QPen(c.thrustAxis, 1.5));
    painter.drawLine(QPointF(left, middle), QPointF(right, middle));
    for (double x : {left + 8, right - 8}) // two propellers seen from the side
        painter.drawLine(QPointF(x, middle), QPointF(x, middle + 6));
    painter.setPen(QPen(c.matGridStrong, 1, Qt::DashLine));
    painter.drawLine(QPointF(box.center().x(), box.top() + 40), QPointF(box.center().x(), box.bottom() - 24));
    const int active = document_.loadCase();
    Labels labels(painter, box.adjusted(2, 36, -2, -22));
    for (const bool chosen : {false, true})
        for (const auto &point : points()) {
            if (point.folded || (point.loadCase == active) != chosen) continue;
            const QPointF at(box.center().x(), middle - point.offset_mm.z() * scale);
            painter.setBrush(chosen ? QBrush(c.plumb) : QBrush(Qt::NoBrush));
            painter.setPen(chosen ? QPen(Qt::NoPen) : QPen(c.chalk, 1.4));
            painter.drawEllipse(at, chosen ? 5 : 4, chosen ? 5 : 4);
            labels.block(QRectF(at - QPointF(6, 6), QSizeF(12, 12)));
            if (!chosen) continue;
            painter.setFont(theme_.numbers(theme::kSmallPixels, true));
            labels.put(
                at,
                tr("%1 %2").arg(millimetres(point.offset_mm.z()), point.offset_mm.z() >= 0 ? tr("above") : tr("below")),
                c.plumb, 10);
        }
}

QString TargetView::tipAt(const QPointF &at) const {
    for (const auto &point : points())
        if (QLineF(at, toPixels(point.offset_mm.head<2>())).length() < 8)
            return tr("%1: %2 mm").arg(point.name, inWords(point.offset_mm.head<2>()));
    return {};
}

void TargetView::zoomToChosen() {
    const auto *balance = document_.balance();
    if (!balance || !balance->offset_mm) return;
    const DoubtEllipse ellipse = ellipse95(balance->cgCovariance_mm2.topLeftCorner<2, 2>());
    constexpr double kLeast_mm = 1, kOfRing = 0.25; // closer than the whole ring in any case
    const double most = std::max(kLeast_mm, kOfRing * document_.analysis().derived.cgTolerance_mm);
    const double reach = std::clamp(ellipse.semiMajor_mm, kLeast_mm, most);
    const Vec2 at = balance->offset_mm->head<2>();
    closer().fit();
    closer().show(QRectF(toPixels(at + Vec2(-reach, reach)), toPixels(at + Vec2(reach, -reach))), plan());
    update();
}

bool TargetView::takesPress(QMouseEvent *event) {
    for (const auto &point : points())
        if (QLineF(event->position(), toPixels(point.offset_mm.head<2>())).length() < 9) {
            document_.setLoadCase(point.loadCase);
            return true;
        }
    return false;
}

bool TargetView::focusNextPrevChild(bool next) {
    QStringList cases;
    for (const auto &point : points())
        if (const QString key = QString::number(point.loadCase); !cases.contains(key)) cases << key;
    const auto to = drawing::walkTo(cases, QString::number(document_.loadCase()), next);
    if (!to) return QWidget::focusNextPrevChild(next);
    document_.setLoadCase(to->toInt());
    return true;
}

bool TargetView::event(QEvent *event) {
    return theme::showTip(event, this, [this](const QPointF &at) { return tipAt(at); }) || QWidget::event(event);
}

} // namespace waxis::balance
