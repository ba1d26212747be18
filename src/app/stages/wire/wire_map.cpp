#include "app/stages/wire/wire_map.h"

#include "app/drawing/mat.h"
#include "app/drawing/walk.h"
#include "app/drawing/wires.h"
#include "core/edits/wire_edits.h"
#include "core/links/link_report.h"
#include "core/rules/rule.h"
#include "core/wiring/routing.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QScrollBar>
#include <QToolTip>
#include <algorithm>
#include <cmath>

namespace waxis::wire {

namespace {

constexpr double kPortReach_px = 8, kGripReach_px = 8, kWireReach_px = 6;

double away(const QPointF &a, const QPointF &b) { return std::hypot(a.x() - b.x(), a.y() - b.y()); }

} // namespace

bool takesWires(const Port &port) {
    switch (port.kind) {
    case PortKind::pads:
    case PortKind::plug:
    case PortKind::socket:
    case PortKind::coax: return true;
    case PortKind::usb:
    case PortKind::lens:
    case PortKind::card:
    case PortKind::button:
    case PortKind::lamp: return false;
    }
    return false;
}

WireMap::WireMap(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QGraphicsView(parent), document_(document), theme_(theme), scene_(drawing::View::plan, document, theme) {
    setObjectName("wire-map");
    setAccessibleName(tr("Routes of the wires"));
    scene_.showIn(*this);
    drawing::prepareMapView(*this);
    setMouseTracking(true);
    drawing::Overlays overlays;
    overlays.marks = false;
    scene_.setOverlays(overlays);
    connect(&document_, &app::Document::changed, this, &WireMap::refresh);
    connect(&document_, &app::Document::opened, this, [this] { fitted_ = false; });
    connect(&document_, &app::Document::selectionChanged, this, &WireMap::refresh);
    connect(&document_, &app::Document::highlightChanged, this, &WireMap::refresh);
    connect(&theme_, &theme::Theme::changed, this, [this] {
        resetCachedContent();
        viewport()->update();
    });
    refresh();
}

void WireMap::setView(drawing::View view) {
    scene_.setView(view);
    refresh();
    fit();
}

void WireMap::refresh() {
    if (!isVisible()) return;
    auto pictures = drawing::wirePictures(view(), document_);
    pictures.insert(pictures.begin(), drawing::veilPicture(theme_));
    scene_.setExtra("wires", std::move(pictures));
    viewport()->update();
}

void WireMap::showEvent(QShowEvent *event) {
    QGraphicsView::showEvent(event);
    refresh();
    if (!fitted_) fit();
}

void WireMap::resizeEvent(QResizeEvent *event) {
    QGraphicsView::resizeEvent(event);
    if (isVisible() && !ownView_) fit();
}

void WireMap::fit() {
    ownView_ = false;
    // Where the wires are: arms and discs may run out of the picture, as far as their wires do not.
    QRectF content;
    for (const auto &route : document_.analysis().derived.routes)
        for (const Vec3 &p : route.points_mm) {
            const QPointF q = drawing::project(view(), p);
            content |= QRectF(q - QPointF(1, 1), QSizeF(2, 2));
        }
    if (content.isEmpty()) content = scene_.contentRect();
    content.adjust(-14, -12, 14, 12);
    if (content.width() < 1 || content.height() < 1) return;
    const double scale =
        std::clamp(std::min(viewport()->width() / content.width(), viewport()->height() / content.height()), 0.2, 6.0);
    setTransform(QTransform::fromScale(scale, scale));
    centerOn(content.center());
    scene_.layOutLabels(scale);
    fitted_ = true;
}

void WireMap::zoomToChosen() {
    const std::string id = document_.selected().toStdString();
    const auto &derived = document_.analysis().derived;
    QRectF box;
    for (std::size_t w = 0; w < document_.build().wires.size() && w < derived.routes.size(); ++w)
        if (document_.build().wires[w].id == id)
            for (const Vec3 &p : derived.routes[w].points_mm) {
                const QPointF q = drawing::project(view(), p);
                box |= QRectF(q - QPointF(1, 1), QSizeF(2, 2));
            }
    if (!box.isValid()) box = scene_.silhouetteOf(document_.selected()).boundingRect();
    if (!box.isValid()) return;
    ownView_ = true;
    constexpr double kShare = 0.7, kLargest = 40;
    const double scale = std::min(kLargest, kShare * std::min(viewport()->width() / std::max(box.width(), 4.0),
                                                              viewport()->height() / std::max(box.height(), 4.0)));
    setTransform(QTransform::fromScale(scale, scale));
    centerOn(box.center());
    scene_.layOutLabels(scale);
}

bool WireMap::focusNextPrevChild(bool next) {
    QStringList wires;
    for (const auto &wire : document_.build().wires) wires << QString::fromStdString(wire.id);
    if (const auto to = drawing::walkTo(wires, document_.selected(), next)) {
        document_.select(*to);
        return true;
    }
    return QGraphicsView::focusNextPrevChild(next);
}

std::optional<QPointF> WireMap::portPixel(const WireEnd &end) const {
    for (const auto &dot : ports())
        if (dot.end == end) return pixel(dot.at_mm);
    return std::nullopt;
}

std::vector<WireMap::PortDot> WireMap::ports() const {
    std::vector<PortDot> dots;
    const Build &build = document_.build();
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->ports.empty() || !document_.isAboardNow(part)) continue;
        const Pose pose = framePose(build, part);
        for (const auto &port : type->ports)
            if (takesWires(port)) dots.push_back({{part.id, port.id}, pose * port.position_mm, false});
    }
    for (auto &dot : dots)
        for (const auto &wire : build.wires) dot.used |= wire.from == dot.end || wire.to == dot.end;
    return dots;
}

std::optional<WireMap::PortDot> WireMap::portAt(const QPointF &at) const {
    std::optional<PortDot> best;
    double least = kPortReach_px;
    const std::string chosen = document_.selected().toStdString();
    for (const auto &dot : ports()) {
        // Of ports that lie over one another, those of the chosen part come first.
        const double d = away(pixel(dot.at_mm), at) - (dot.end.part == chosen ? 3 : 0);
        if (d < least) {
            least = d;
            best = dot;
        }
    }
    return best;
}

const Wire *WireMap::chosenWire(int *index) const {
    const std::string id = document_.selected().toStdString();
    const auto &wires = document_.build().wires;
    for (std::size_t w = 0; w < wires.size(); ++w)
        if (wires[w].id == id) {
            if (index) *index = int(w);
            return &wires[w];
        }
    return nullptr;
}

std::vector<WireMap::Grip> WireMap::grips() const {
    std::vector<Grip> grips;
    const Build &build = document_.build();
    for (const auto &tie : build.ties) grips.push_back({Grip::Kind::tie, 0, tie.id, tie.position_mm});
    int index = -1;
    const Wire *wire = chosenWire(&index);
    if (!wire) return grips;
    for (std::size_t s = 0; s < wire->stops.size(); ++s)
        if (wire->stops[s].at.empty()) grips.push_back({Grip::Kind::stop, int(s), {}, wire->stops[s].point_mm});
    const auto &points = document_.analysis().derived.routes[std::size_t(index)].points_mm;
    for (std::size_t p = 2; p + 2 < points.size(); ++p) {
        const bool pinned = std::any_of(grips.begin(), grips.end(), [&](const Grip &g) {
            return g.kind == Grip::Kind::stop && (g.at_mm - points[p]).norm() < 1;
        });
        if (!pinned) grips.push_back({Grip::Kind::bend, int(p), {}, points[p]});
    }
    return grips;
}

std::optional<WireMap::Grip> WireMap::gripAt(const QPointF &at) const {
    std::optional<Grip> best;
    double least = kGripReach_px;
    for (const auto &grip : grips())
        if (const double d = away(pixel(grip.at_mm), at); d < least) {
            least = d;
            best = grip;
        }
    return best;
}

int WireMap::wireAt(const QPointF &at, Vec3 *at_mm) const {
    int best = -1;
    double least = kWireReach_px;
    const auto &routes = document_.analysis().derived.routes;
    for (std::size_t w = 0; w < routes.size(); ++w) {
        const auto &points = routes[w].points_mm;
        for (std::size_t i = 0; i + 1 < points.size(); ++i) {
            const QPointF a = pixel(points[i]), b = pixel(points[i + 1]), edge = b - a;
            const double length2 = edge.x() * edge.x() + edge.y() * edge.y();
            const double t = length2 > 0 ? std::clamp(QPointF::dotProduct(at - a, edge) / length2, 0.0, 1.0) : 0.0;
            const double d = away(a + t * edge, at);
            if (d >= least) continue;
            least = d;
            best = int(w);
            if (at_mm) *at_mm = points[i] + t * (points[i + 1] - points[i]);
        }
    }
    return best;
}

Vec3 WireMap::movedTo(const Vec3 &start, const QPointF &at) const {
    const QPointF from = drawing::project(view(), start), to = mapToScene(at.toPoint());
    return start + drawing::unproject(view(), to - from);
}

EditResult WireMap::withGripAt(const Build &build, const Vec3 &at_mm) const {
    if (held_.kind == Grip::Kind::tie) return moveTie(build, held_.tie, at_mm);
    const Wire *wire = findWire(build, document_.selected().toStdString());
    if (!wire) return Failure{EditError{"Choose a wire first."}};
    auto stops = wire->stops;
    if (held_.kind == Grip::Kind::stop) {
        stops[std::size_t(held_.index)].point_mm = at_mm;
        return setStops(build, wire->id, std::move(stops));
    }
    // A bend becomes a pinned point, between the arms or stops that the wire is led by already.
    if (stops.empty()) stops = impliedStops(build, *wire);
    const auto &route = document_.analysis().derived.routes;
    std::size_t index = 0;
    for (; index < build.wires.size(); ++index)
        if (build.wires[index].id == wire->id) break;
    const auto &points = route[index].points_mm;
    double along = 0;
    for (int p = 0; p < held_.index && p + 1 < int(points.size()); ++p)
        along += (points[std::size_t(p) + 1] - points[std::size_t(p)]).norm();
    std::size_t before = 0;
    for (std::size_t s = 0; s < stops.size(); ++s) {
        // A stop's place along the route: the nearest point of the route to it; arms by their middle.
        Vec3 place = stops[s].point_mm;
        for (const auto &arm : build.frame->arms)
            if (arm.id == stops[s].at) place = (arm.root_mm + arm.tip_mm) / 2;
        for (const auto &tie : build.ties)
            if (tie.id == stops[s].at) place = tie.position_mm;
        double best = 1e300, at = 0, walked = 0;
        for (std::size_t p = 0; p < points.size(); ++p) {
            if (p > 0) walked += (points[p] - points[p - 1]).norm();
            if (const double d = (points[p] - place).norm(); d < best) {
                best = d;
                at = walked;
            }
        }
        if (at <= along) before = s + 1;
    }
    stops.insert(stops.begin() + std::ptrdiff_t(before), {std::string(), at_mm});
    return setStops(build, wire->id, std::move(stops));
}

void WireMap::mousePressEvent(QMouseEvent *event) {
    pressAt_ = now_ = event->position();
    lastPan_ = event->pos();
    moved_ = false;
    if (event->button() == Qt::MiddleButton) {
        mode_ = Mode::panning;
        return;
    }
    if (event->button() != Qt::LeftButton) return;
    // A tie or bend beside a port: whichever the pointer is nearer to.
    const auto grip = gripAt(now_);
    const auto port = portAt(now_);
    if (grip && (!port || away(pixel(grip->at_mm), now_) <= away(pixel(port->at_mm), now_))) {
        held_ = *grip;
        startBuild_ = document_.build();
        mode_ = Mode::moving;
        return;
    }
    if (port) {
        joinFrom_ = port;
        mode_ = Mode::joining;
        takers_.clear();
        for (const auto &dot : ports())
            if (dot.end.part != port->end.part && !proposeCores(document_.build(), port->end, dot.end).empty())
                takers_.push_back(dot.end);
        emit portChosen(port->end);
        return;
    }
    mode_ = Mode::panning;
    if (const int wire = wireAt(now_); wire >= 0) {
        document_.select(QString::fromStdString(document_.build().wires[std::size_t(wire)].id));
        mode_ = Mode::idle;
    } else if (const auto parts = scene_.partsAt(mapToScene(event->pos())); !parts.isEmpty()) {
        document_.select(parts.first());
        mode_ = Mode::idle;
    }
}

void WireMap::mouseMoveEvent(QMouseEvent *event) {
    now_ = event->position();
    moved_ |= away(now_, pressAt_) > 4;
    switch (mode_) {
    case Mode::panning: {
        const QPoint step = event->pos() - lastPan_;
        lastPan_ = event->pos();
        horizontalScrollBar()->setValue(horizontalScrollBar()->value() - step.x());
        verticalScrollBar()->setValue(verticalScrollBar()->value() - step.y());
        return;
    }
    case Mode::joining: viewport()->update(); return;
    case Mode::moving:
        if (moved_) document_.preview(withGripAt(startBuild_, movedTo(held_.at_mm, now_)));
        return;
    case Mode::idle:
        viewport()->setCursor(gripAt(now_) ? Qt::SizeAllCursor : portAt(now_) ? Qt::CrossCursor : Qt::ArrowCursor);
        return;
    }
}

void WireMap::connectTo(const QPointF &at) {
    const Build &build = document_.build();
    std::optional<WireEnd> to;
    if (const auto port = portAt(at); port && port->end.part != joinFrom_->end.part)
        to = port->end;
    else
        for (const QString &part : scene_.partsAt(mapToScene(at.toPoint())))
            if (part.toStdString() != joinFrom_->end.part && !to)
                to = proposePort(build, joinFrom_->end, part.toStdString());
    if (!to) {
        const auto parts = scene_.partsAt(mapToScene(at.toPoint()));
        const bool onPart = !parts.isEmpty() && parts.first().toStdString() != joinFrom_->end.part;
        emit document_.refused(onPart
                                   ? tr("%1 has no free port for that: the rings that are lit take the wire.")
                                         .arg(QString::fromStdString(displayName(build, parts.first().toStdString())))
                                   : tr("There is no port: drop the wire on a ring that is lit, or on a part."));
        return;
    }
    const auto result = connectPorts(build, joinFrom_->end, *to);
    const QString name = tr("Connect %1 with %2")
                             .arg(QString::fromStdString(displayName(build, joinFrom_->end.part)),
                                  QString::fromStdString(displayName(build, to->part)));
    if (document_.edit(name, result)) document_.select(QString::fromStdString(document_.build().wires.back().id));
}

void WireMap::mouseReleaseEvent(QMouseEvent *event) {
    now_ = event->position();
    const Mode mode = mode_;
    mode_ = Mode::idle;
    if (mode == Mode::joining) {
        if (moved_)
            connectTo(now_);
        else if (joinFrom_) {
            // A click on a port chooses the wire that ends there, else the part.
            QString chosen = QString::fromStdString(joinFrom_->end.part);
            for (const auto &wire : document_.build().wires)
                if (wire.from == joinFrom_->end || wire.to == joinFrom_->end) chosen = QString::fromStdString(wire.id);
            document_.select(chosen);
        }
        joinFrom_.reset();
    }
    if (mode == Mode::moving && moved_)
        document_.commitPreview(held_.kind == Grip::Kind::tie ? tr("Move tie")
                                                              : tr("Pin %1").arg(document_.selected()));
    viewport()->update();
}

void WireMap::mouseDoubleClickEvent(QMouseEvent *event) {
    const auto grip = gripAt(event->position());
    const Wire *wire = chosenWire();
    if (grip && grip->kind == Grip::Kind::stop && wire) {
        auto stops = wire->stops;
        stops.erase(stops.begin() + grip->index);
        if (stops == impliedStops(document_.build(), *wire)) stops.clear();
        document_.edit(tr("Free a point of %1").arg(QString::fromStdString(wire->name)),
                       setStops(document_.build(), wire->id, stops));
        return;
    }
    if (grip && grip->kind == Grip::Kind::tie)
        document_.edit(tr("Take tie off"), removeTie(document_.build(), grip->tie));
}

void WireMap::wheelEvent(QWheelEvent *event) {
    ownView_ = true;
    const double factor = std::pow(1.0015, event->angleDelta().y());
    const double scale = std::clamp(pixelsPerMm() * factor, 0.2, 40.0);
    const QPointF under = mapToScene(event->position().toPoint());
    setTransform(QTransform::fromScale(scale, scale));
    const QPointF fromCentre = event->position() - QRectF(viewport()->rect()).center();
    centerOn(under - fromCentre / scale);
    scene_.layOutLabels(scale);
    event->accept();
}

void WireMap::keyPressEvent(QKeyEvent *event) {
    const Wire *wire = chosenWire();
    switch (event->key()) {
    case Qt::Key_0: fit(); return;
    case Qt::Key_Z:
        if (event->modifiers() & ~Qt::KeypadModifier) break;
        zoomToChosen();
        return;
    case Qt::Key_Escape:
        if (mode_ == Mode::moving) document_.cancelPreview();
        mode_ = Mode::idle;
        joinFrom_.reset();
        viewport()->update();
        return;
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
        if (wire)
            document_.edit(tr("Take %1 out").arg(QString::fromStdString(wire->name)),
                           removeWire(document_.build(), wire->id));
        return;
    case Qt::Key_T: {
        Vec3 at;
        if (wireAt(now_, &at) >= 0) document_.edit(tr("Tie a wire down"), addTie(document_.build(), at));
        return;
    }
    default: QGraphicsView::keyPressEvent(event);
    }
}

bool WireMap::viewportEvent(QEvent *event) {
    if (event->type() == QEvent::ToolTip) {
        auto *help = static_cast<QHelpEvent *>(event);
        const Build &build = document_.build();
        QString tip;
        if (const auto port = portAt(help->pos())) {
            QStringList pins;
            if (const Port *found = portOf(build, port->end))
                for (const auto &pin : found->pins) pins << QString::fromStdString(pin.signal);
            tip = tr("%1, %2: %3")
                      .arg(QString::fromStdString(displayName(build, port->end.part)),
                           QString::fromStdString(port->end.port), pins.isEmpty() ? tr("coax") : pins.join(" "));
        } else if (const int wire = wireAt(help->pos()); wire >= 0)
            tip = QString::fromStdString(build.wires[std::size_t(wire)].name);
        tip.isEmpty() ? QToolTip::hideText() : QToolTip::showText(help->globalPos(), tip, this);
        return true;
    }
    return QGraphicsView::viewportEvent(event);
}

} // namespace waxis::wire
