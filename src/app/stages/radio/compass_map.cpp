#include "app/stages/radio/compass_map.h"

#include "app/drawing/mat.h"
#include "app/drawing/walk.h"
#include "app/drawing/wires.h"
#include "app/theme/metrics.h"
#include "core/magnetics/biot_savart.h"
#include "core/magnetics/compass_place.h"
#include "core/magnetics/current_paths.h"
#include "core/radio/radio_report.h"
#include "core/rules/wording.h"

#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <cmath>

namespace waxis::radio {

namespace {

constexpr double kMargin_mm = 40, kStep_mm = 6;
constexpr int kFine = 6; ///< picture points for each step

QString degreesText(double value) {
    return value >= 180 ? CompassMap::tr("any heading") : CompassMap::tr("%1°").arg(value, 0, 'f', 1);
}

} // namespace

CompassMap::CompassMap(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QGraphicsView(parent), document_(document), theme_(theme), scene_(drawing::View::plan, document, theme),
      working_(
          150, [this] { return prepare(); },
          [this](FieldMap map) {
              map_ = std::move(map);
              paintMap();
          }) {
    setObjectName("compass-map");
    setAccessibleName(tr("Magnetic field over the craft"));
    scene_.showIn(*this);
    drawing::prepareMapView(*this);
    drawing::Overlays overlays;
    overlays.marks = false;
    scene_.setOverlays(overlays);
    connect(&document_, &app::Document::changed, this, &CompassMap::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &CompassMap::refresh);
    connect(&document_, &app::Document::opened, this, [this] {
        fitted_ = heightChosen_ = false;
        setGhost(std::nullopt);
    });
    connect(&document_, &app::Document::selectionChanged, this, [this] { viewport()->update(); });
    connect(&theme_, &theme::Theme::changed, this, [this] {
        resetCachedContent();
        paintMap();
    });
}

void CompassMap::setPart(FieldPart part) {
    part_ = part;
    paintMap();
}

void CompassMap::setHeight(double z_mm) {
    heightChosen_ = true;
    z_mm_ = z_mm;
    if (ghost_) ghost_->z() = z_mm;
    refresh();
    emit ghostChanged();
}

void CompassMap::setGhost(std::optional<Vec3> at_mm) {
    ghost_ = at_mm;
    viewport()->update();
    emit ghostChanged();
}

std::optional<CompassReport> CompassMap::ghostReport() const {
    if (!ghost_) return std::nullopt;
    const Derived &derived = document_.analysis().derived;
    return compassAt(document_.build(), document_.analysis().practice, derived.loadCases, derived.scene,
                     derived.radio->sources, {}, *ghost_);
}

void CompassMap::refresh() {
    if (!isVisible()) return;
    if (!heightChosen_) {
        const auto &compasses = document_.analysis().derived.radio->compasses;
        double top = 0;
        for (const auto &plate : document_.build().frame->plates) top = std::max(top, plate.z_mm + plate.thickness_mm);
        z_mm_ = compasses.empty() ? top + 10 : compasses.front().position_mm.z();
        emit ghostChanged();
    }
    auto pictures = drawing::wirePictures(drawing::View::plan, document_);
    pictures.insert(pictures.begin(), drawing::veilPicture(theme_));
    scene_.setExtra("wires", std::move(pictures));
    working_.ask();
}

app::Background<FieldMap>::Work CompassMap::prepare() {
    const QRectF content = scene_.contentRect().adjusted(-kMargin_mm, -kMargin_mm, kMargin_mm, kMargin_mm);
    const Vec3 a = drawing::unproject(drawing::View::plan, content.topLeft()),
               b = drawing::unproject(drawing::View::plan, content.bottomRight());
    const Vec2 low(std::min(a.x(), b.x()), std::min(a.y(), b.y())),
        high(std::max(a.x(), b.x()), std::max(a.y(), b.y()));
    const double step = std::max(kStep_mm, (high - low).maxCoeff() / 90);
    return [sources = document_.analysis().derived.radio->sources, loadCase = std::size_t(document_.loadCase()), low,
            high, z = z_mm_, step, lean = document_.analysis().practice[Limit::cruisePitch]](
               const std::atomic<bool> &) { return fieldMap(sources, loadCase, low, high, z, step, lean); };
}

double CompassMap::level_uT(double x, double y) const {
    if (map_.columns < 2 || map_.rows < 2) return 0;
    const auto &values = part_ == FieldPart::full    ? map_.full_uT
                         : part_ == FieldPart::hover ? map_.hover_uT
                                                     : map_.constant_uT;
    const double u = std::clamp((x - map_.corner_mm.x()) / map_.step_mm, 0.0, map_.columns - 1.001),
                 v = std::clamp((y - map_.corner_mm.y()) / map_.step_mm, 0.0, map_.rows - 1.001);
    const int i = int(u), j = int(v);
    const auto value = [&](int column, int row) { return double(values[std::size_t(row * map_.columns + column)]); };
    const double s = u - i, t = v - j;
    return (1 - s) * (1 - t) * value(i, j) + s * (1 - t) * value(i + 1, j) + (1 - s) * t * value(i, j + 1) +
           s * t * value(i + 1, j + 1);
}

void CompassMap::paintMap() {
    if (map_.columns >= 2 && map_.rows >= 2) {
        const int w = (map_.columns - 1) * kFine, h = (map_.rows - 1) * kFine;
        picture_ = QImage(w, h, QImage::Format_ARGB32_Premultiplied);
        const Practice &practice = document_.analysis().practice;
        const double earth = practice[Limit::earthField];
        const auto field = [&](Limit limit) { return earth * std::sin(practice[limit] * M_PI / 180); };
        const std::array<double, 3> edges{field(Limit::headingNote), field(Limit::headingWatch),
                                          field(Limit::headingStop)};
        const std::array<QRgb, 4> colors = [] {
            std::array<QRgb, 4> list{};
            const std::array<Severity, 3> severities{Severity::note, Severity::watch, Severity::stop};
            for (std::size_t i = 0; i < 3; ++i) {
                QColor color = theme::severityOnMat(severities[i]);
                color.setAlpha(95);
                list[i + 1] = qPremultiply(color.rgba());
            }
            return list;
        }();
        const double fine = map_.step_mm / kFine;
        for (int r = 0; r < h; ++r) {
            auto *line = reinterpret_cast<QRgb *>(picture_.scanLine(r));
            for (int c = 0; c < w; ++c) {
                const double level =
                    level_uT(map_.corner_mm.x() + (c + 0.5) * fine, map_.corner_mm.y() + (r + 0.5) * fine);
                line[c] = colors[std::size_t((level > edges[0]) + (level > edges[1]) + (level > edges[2]))];
            }
        }
    }
    viewport()->update();
}

void CompassMap::drawBackground(QPainter *painter, const QRectF &rect) {
    drawing::paintMat(*painter, rect, transform().m11(), theme_.colors());
}

void CompassMap::drawForeground(QPainter *painter, const QRectF &) {
    if (!picture_.isNull()) {
        const QPointF a = drawing::project(drawing::View::plan, Vec3(map_.corner_mm.x(), map_.corner_mm.y(), 0));
        const Vec3 far(map_.corner_mm.x() + (map_.columns - 1) * map_.step_mm,
                       map_.corner_mm.y() + (map_.rows - 1) * map_.step_mm, 0);
        const QPointF b = drawing::project(drawing::View::plan, far);
        painter->save(); // the picture's rows go up in y, the drawing's down
        painter->translate(a);
        painter->scale((b.x() - a.x()) / picture_.width(), (b.y() - a.y()) / picture_.height());
        painter->setRenderHint(QPainter::SmoothPixmapTransform);
        painter->drawImage(QPointF(0, 0), picture_);
        painter->restore();
    }
    painter->save();
    painter->resetTransform();
    painter->setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    for (const auto &trial : document_.build().trials) {
        const Part *part = findPart(document_.build(), trial.part);
        const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
        const auto place = type ? compassPlace(*type) : std::nullopt;
        if (place) drawCompass(*painter, trial.X_FramePart * *place, QString::fromStdString(trial.name), c.softChalk);
    }
    for (const auto &compass : document_.analysis().derived.radio->compasses) {
        const double error = part_ == FieldPart::full    ? compass.full_deg
                             : part_ == FieldPart::hover ? compass.hover_deg
                                                         : compass.constant_deg;
        drawCompass(*painter, compass.position_mm, tr("compass: %1").arg(degreesText(error)), c.chalk);
    }
    if (const auto ghost = ghostReport()) {
        const double error = part_ == FieldPart::full    ? ghost->full_deg
                             : part_ == FieldPart::hover ? ghost->hover_deg
                                                         : ghost->constant_deg;
        drawCompass(*painter, *ghost_, tr("here: %1").arg(degreesText(error)), Qt::white);
    }
    painter->restore();
}

void CompassMap::drawCompass(QPainter &painter, const Vec3 &at_mm, const QString &words, const QColor &color) const {
    const QPointF at = pixel(at_mm);
    painter.setPen(QPen(color, 1.6));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(at, 7, 7);
    painter.drawLine(at - QPointF(11, 0), at + QPointF(11, 0));
    painter.drawLine(at - QPointF(0, 11), at + QPointF(0, 11));
    painter.setFont(theme_.text(theme::kSmallPixels, true));
    const QFontMetrics metrics(painter.font());
    QRectF box(at.x() + 12, at.y() - 20, metrics.horizontalAdvance(words) + 10, 18);
    if (box.right() > viewport()->width()) box.moveRight(at.x() - 12);
    QColor behind = theme_.colors().matBar;
    behind.setAlpha(225);
    painter.setPen(Qt::NoPen);
    painter.setBrush(behind);
    painter.drawRoundedRect(box, 3, 3);
    painter.setPen(color);
    painter.drawText(box, Qt::AlignCenter, words);
}

void CompassMap::fit() {
    const QRectF content = scene_.contentRect().adjusted(-20, -20, 20, 20);
    if (content.width() < 1 || viewport()->width() < 10) return;
    const double scale =
        std::clamp(std::min(viewport()->width() / content.width(), viewport()->height() / content.height()), 0.2, 6.0);
    setTransform(QTransform::fromScale(scale, scale));
    centerOn(content.center());
    scene_.layOutLabels(scale);
    fitted_ = true;
}

std::vector<Vec3> CompassMap::places() const {
    std::vector<Vec3> list;
    for (const auto &compass : document_.analysis().derived.radio->compasses) list.push_back(compass.position_mm);
    for (const auto &trial : document_.build().trials) {
        const Part *part = findPart(document_.build(), trial.part);
        const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
        if (const auto place = type ? compassPlace(*type) : std::nullopt) list.push_back(trial.X_FramePart * *place);
    }
    return list;
}

bool CompassMap::focusNextPrevChild(bool next) {
    const auto all = places();
    QStringList keys;
    QString now;
    for (std::size_t i = 0; i < all.size(); ++i) {
        keys << QString::number(i);
        if (ghost_ && (*ghost_ - all[i]).norm() < 1e-6) now = keys.last();
    }
    const auto to = drawing::walkTo(keys, now, next);
    if (!to) return QGraphicsView::focusNextPrevChild(next);
    setGhost(all[to->toULongLong()]);
    return true;
}

void CompassMap::zoomToChosen() {
    const auto all = places();
    if (!ghost_ && all.empty()) return;
    constexpr double kAcross_mm = 120;
    const double scale = std::min(viewport()->width(), viewport()->height()) / kAcross_mm;
    setTransform(QTransform::fromScale(scale, scale));
    centerOn(drawing::project(drawing::View::plan, ghost_ ? *ghost_ : all.front()));
    scene_.layOutLabels(scale);
    fitted_ = true;
}

void CompassMap::resizeEvent(QResizeEvent *event) {
    QGraphicsView::resizeEvent(event);
    if (isVisible()) fit();
}

void CompassMap::showEvent(QShowEvent *event) {
    QGraphicsView::showEvent(event);
    refresh();
    if (!fitted_) fit();
}

void CompassMap::mousePressEvent(QMouseEvent *event) {
    if (event->button() == Qt::LeftButton) {
        dragging_ = true;
        Vec3 at = drawing::unproject(drawing::View::plan, mapToScene(event->position().toPoint()));
        at.z() = z_mm_;
        setGhost(at);
    } else if (event->button() == Qt::MiddleButton || event->button() == Qt::RightButton) {
        panning_ = true;
        lastPan_ = event->position().toPoint();
    }
}

void CompassMap::mouseMoveEvent(QMouseEvent *event) {
    if (dragging_) {
        Vec3 at = drawing::unproject(drawing::View::plan, mapToScene(event->position().toPoint()));
        at.z() = z_mm_;
        setGhost(at);
    } else if (panning_) {
        const QPoint by = event->position().toPoint() - lastPan_;
        lastPan_ = event->position().toPoint();
        horizontalScrollBar()->setValue(horizontalScrollBar()->value() - by.x());
        verticalScrollBar()->setValue(verticalScrollBar()->value() - by.y());
    }
}

void CompassMap::mouseReleaseEvent(QMouseEvent *) { dragging_ = panning_ = false; }

void CompassMap::wheelEvent(QWheelEvent *event) {
    const double factor = std::pow(1.0015, event->angleDelta().y());
    const QPointF before = mapToScene(event->position().toPoint());
    const double scale = std::clamp(transform().m11() * factor, 0.2, 20.0);
    setTransform(QTransform::fromScale(scale, scale));
    const QPointF after = mapToScene(event->position().toPoint());
    const QPointF middle = mapToScene(viewport()->rect().center());
    centerOn(middle + before - after);
    scene_.layOutLabels(scale);
}

void CompassMap::keyPressEvent(QKeyEvent *event) {
    const double step = event->modifiers() & Qt::ControlModifier ? 5 : event->modifiers() & Qt::ShiftModifier ? 0.1 : 1;
    Vec3 by = Vec3::Zero();
    switch (event->key()) {
    case Qt::Key_Right: by.x() = step; break;
    case Qt::Key_Left: by.x() = -step; break;
    case Qt::Key_Up: by.y() = step; break;
    case Qt::Key_Down: by.y() = -step; break;
    case Qt::Key_0: fit(); return;
    case Qt::Key_Z:
        if (event->modifiers() & ~Qt::KeypadModifier) break;
        zoomToChosen();
        return;
    case Qt::Key_Escape: setGhost(std::nullopt); return;
    default: break;
    }
    if (by.isZero()) return QGraphicsView::keyPressEvent(event);
    const auto &compasses = document_.analysis().derived.radio->compasses;
    const Vec3 from = ghost_ ? *ghost_ : compasses.empty() ? Vec3(0, 0, z_mm_) : compasses.front().position_mm;
    setGhost(Vec3(from.x() + by.x(), from.y() + by.y(), z_mm_));
}

} // namespace waxis::radio
