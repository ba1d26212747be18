// The pictures of what is computed: camera cones, open sky, room for plugs, freeing moves, sliding range, folding
// sweep, ground. Plain shapes in scene coordinates, made anew whenever the build changes.
#pragma once

#include "app/document/document.h"
#include "app/drawing/overlays.h"
#include "app/drawing/projection.h"
#include "app/theme/theme.h"

#include <QColor>
#include <QPen>
#include <QSet>
#include <vector>

namespace waxis::drawing {

struct Picture {
    QPainterPath path;
    QColor line, fill; ///< invalid: none
    Qt::PenStyle style = Qt::SolidLine;
    double width_px = 1.2;
    QString tag; ///< stands at tagAt; empty: none
    QPointF tagAt;
    bool operator==(const Picture &) const = default;
};

/// What the overlays ask for, without the wires that are hidden, and what belongs to the chosen and the lit-up things.
std::vector<Picture> picturesOf(View view, const app::Document &document, const Overlays &overlays,
                                const theme::Theme &theme, const QSet<QString> &hidden = {});

/// Where the lower view is cut: what the plane cuts, as it looks in that view.
std::vector<Picture> sectionPictures(View view, double at_mm, const app::Document &document);

/// An arrow from one point to another with a head of that size.
QPainterPath arrowPath(const QPointF &from, const QPointF &to, double head_mm);

} // namespace waxis::drawing
