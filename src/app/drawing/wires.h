// Wires as they are drawn, the same in every view.
#pragma once

#include "app/drawing/pictures.h"

#include "core/pins/signal.h"

#include <QColor>
#include <QSet>

namespace waxis::drawing {

/// One colour per use: power, phases, signals, video, coax.
QColor wireColor(WireRole role);

/// The route as it is seen, corners rounded; cores lie beside each other, at most three of them.
QPainterPath wirePath(View view, const std::vector<Vec3> &points_mm, int cores, double apart_mm);

/// All routes of the document but the hidden ones, the chosen and lit-up ones strong.
std::vector<Picture> wirePictures(View view, const app::Document &document, const QSet<QString> &hidden = {});

/// A veil over everything that is drawn so far, so that wires stand out.
Picture veilPicture(const theme::Theme &theme);

} // namespace waxis::drawing
