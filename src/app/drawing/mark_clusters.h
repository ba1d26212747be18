// Findings' marks that would cover one another, drawn as one with their number.
#pragma once

#include "app/theme/theme.h"
#include "core/findings/finding.h"

#include <QPointF>
#include <vector>

namespace waxis::drawing {

struct MarkCluster {
    QPointF at; ///< of its worst mark
    Severity worst = Severity::note;
    int count = 1;
};

/// Gathers marks nearer to one another than `apart` (in the same unit as the points): each goes to the nearest worse
/// mark that is already drawn, else it is drawn itself. The worst come first.
std::vector<MarkCluster> clusterMarks(const std::vector<std::pair<QPointF, Severity>> &marks, double apart);

/// Half the room that a mark takes on the screen, with its rim.
inline constexpr double kMark_px = 7.5;

/// The worst mark at the cluster's place in pixels, with the number beside it where there are several.
void paintMarkCluster(QPainter &painter, const MarkCluster &cluster, const theme::Theme &theme);

} // namespace waxis::drawing
