#include "app/drawing/wires.h"

#include "app/theme/palette.h"
#include "core/kit/kit.h"
#include "core/pins/signal.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <cmath>

namespace waxis::drawing {

QColor wireColor(WireRole role) {
    switch (role) {
    case WireRole::power: return theme::familyColor(Family::power);
    case WireRole::ground: return theme::familyColor(Family::structure);
    case WireRole::phase: return theme::familyColor(Family::power).lighter(140);
    case WireRole::signal: return theme::familyColor(Family::sensing);
    case WireRole::servo: return theme::familyColor(Family::control);
    case WireRole::video: return theme::familyColor(Family::imaging);
    case WireRole::coax: return theme::familyColor(Family::radio);
    case WireRole::balance: return theme::familyColor(Family::load);
    }
    return theme::familyColor(Family::sensing);
}

namespace {

QPointF unit(const QPointF &v) {
    const double length = std::hypot(v.x(), v.y());
    return length > 1e-9 ? v / length : QPointF(1, 0);
}

/// The polyline moved aside by `offset`, with the corners cut by curves.
void addLine(QPainterPath &path, const std::vector<QPointF> &points, double offset) {
    std::vector<QPointF> moved;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const QPointF in = unit(i > 0 ? points[i] - points[i - 1] : points[1] - points[0]);
        const QPointF out = unit(i + 1 < points.size() ? points[i + 1] - points[i] : points[i] - points[i - 1]);
        const QPointF along = unit(in + out);
        moved.push_back(points[i] + offset * QPointF(-along.y(), along.x()));
    }
    path.moveTo(moved.front());
    constexpr double kRound_mm = 6;
    for (std::size_t i = 1; i + 1 < moved.size(); ++i) {
        const QPointF in = moved[i] - moved[i - 1], out = moved[i + 1] - moved[i];
        const double before = std::min(kRound_mm, std::hypot(in.x(), in.y()) / 2);
        const double after = std::min(kRound_mm, std::hypot(out.x(), out.y()) / 2);
        path.lineTo(moved[i] - before * unit(in));
        path.quadTo(moved[i], moved[i] + after * unit(out));
    }
    path.lineTo(moved.back());
}

/// What sits in a wire, as long and wide as it is, along its way; a bar across it shows a diode's end.
QPainterPath insertPath(View view, const std::vector<Vec3> &points_mm, const WireInsert &insert, const PartType &type) {
    constexpr double kStep_mm = 2, kLeast_mm = 4;
    const double length = lengthOf(points_mm), at = insert.at * length;
    const QPointF here = project(view, pointAlong(points_mm, at));
    const QPointF before = project(view, pointAlong(points_mm, std::max(0.0, at - kStep_mm))),
                  behind = project(view, pointAlong(points_mm, std::min(length, at + kStep_mm)));
    const QPointF way = unit(behind - before) * (insert.turned ? -1 : 1), aside(-way.y(), way.x());
    const auto size = overallSize_mm(type).value_or(Vec3(kLeast_mm, kLeast_mm / 2, kLeast_mm / 2));
    const double along = std::max(kLeast_mm, size.maxCoeff()) / 2,
                 across = std::max(kLeast_mm / 2, size.minCoeff()) / 2;
    QPainterPath path;
    path.addPolygon(QPolygonF{here - along * way - across * aside, here + along * way - across * aside,
                              here + along * way + across * aside, here - along * way + across * aside,
                              here - along * way - across * aside});
    if (type.electrical && type.electrical->forward_V) {
        path.moveTo(here + 0.6 * along * way - across * aside);
        path.lineTo(here + 0.6 * along * way + across * aside);
    }
    return path;
}

} // namespace

QPainterPath wirePath(View view, const std::vector<Vec3> &points_mm, int cores, double apart_mm) {
    QPainterPath path;
    std::vector<QPointF> flat;
    for (const Vec3 &p : points_mm) {
        const QPointF q = project(view, p);
        if (flat.empty() || std::hypot(q.x() - flat.back().x(), q.y() - flat.back().y()) > 0.05) flat.push_back(q);
    }
    if (flat.size() < 2) return path;
    const int lines = std::clamp(cores, 1, 3);
    for (int i = 0; i < lines; ++i) addLine(path, flat, (i - (lines - 1) / 2.0) * apart_mm);
    return path;
}

Picture veilPicture(const theme::Theme &theme) {
    Picture veil;
    veil.path.addRect(wholeScene());
    veil.fill = theme.colors().mat;
    veil.fill.setAlpha(120);
    return veil;
}

std::vector<Picture> wirePictures(View view, const app::Document &document, const QSet<QString> &hidden) {
    std::vector<Picture> pictures;
    const Build &build = document.build();
    const Derived &derived = document.analysis().derived;
    std::vector<Picture> strong;
    for (std::size_t w = 0; w < build.wires.size() && w < derived.routes.size(); ++w) {
        const Wire &wire = build.wires[w];
        const QString id = QString::fromStdString(wire.id);
        const auto &points = derived.routes[w].points_mm;
        if (points.size() < 2 || hidden.contains(id)) continue;
        const WireReport &report = derived.wiring->wires[w];
        const bool lit = document.selection().contains(id) || document.highlighted().contains(id);
        Picture picture;
        // A few millimetres apart reads better than their true, overlapping width.
        picture.path = wirePath(view, points, wire.lay == WireLay::coax ? 1 : int(wire.cores.size()), 1.6);
        picture.line = lit ? QColor(Qt::white) : wireColor(report.role);
        picture.style = derived.routes[w].found ? Qt::SolidLine : Qt::DashLine;
        picture.width_px = lit ? 2.6 : report.gauge_AWG <= 16 ? 2.4 : 1.5;
        auto &list = lit ? strong : pictures;
        list.push_back(picture);
        for (const auto &insert : wire.inserts) {
            const auto type = build.types->find(insert.type);
            if (type == build.types->end()) continue;
            Picture thing = picture;
            thing.path = insertPath(view, points, insert, type->second);
            thing.style = Qt::SolidLine;
            thing.fill = QColor(60, 60, 60, 200);
            list.push_back(std::move(thing));
        }
    }
    pictures.insert(pictures.end(), strong.begin(), strong.end());
    return pictures;
}

} // namespace waxis::drawing
