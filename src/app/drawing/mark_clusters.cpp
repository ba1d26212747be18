#include "app/drawing/mark_clusters.h"

#include "app/theme/metrics.h"

#include <QFontMetricsF>
#include <QLineF>
#include <QPainter>
#include <algorithm>

namespace waxis::drawing {

std::vector<MarkCluster> clusterMarks(const std::vector<std::pair<QPointF, Severity>> &marks, double apart) {
    auto order = marks;
    std::stable_sort(order.begin(), order.end(), [](const auto &a, const auto &b) { return a.second < b.second; });
    std::vector<MarkCluster> drawn;
    for (const auto &[at, severity] : order) {
        MarkCluster *nearest = nullptr;
        double least = apart;
        for (auto &cluster : drawn)
            if (const double away = QLineF(at, cluster.at).length(); away < least) {
                least = away;
                nearest = &cluster;
            }
        if (nearest)
            ++nearest->count;
        else
            drawn.push_back({at, severity, 1});
    }
    return drawn;
}

void paintMarkCluster(QPainter &painter, const MarkCluster &cluster, const theme::Theme &theme) {
    const auto &c = theme.colors();
    painter.setPen(Qt::NoPen);
    painter.setBrush(c.matBar); // a rim, so that it stands out on any fill
    painter.drawEllipse(cluster.at, kMark_px, kMark_px);
    theme::drawSeverityMark(painter, cluster.at, 5, cluster.worst, theme::severityOnMat(cluster.worst));
    if (cluster.count < 2) return;
    const QString count = QString::number(cluster.count);
    painter.setFont(theme.numbers(theme::kSmallPixels));
    const QFontMetricsF metrics(painter.font());
    const QRectF box(cluster.at + QPointF(kMark_px - 3, -kMark_px - 8),
                     QSizeF(metrics.horizontalAdvance(count) + 6, metrics.height()));
    painter.drawRoundedRect(box, theme::kCorner, theme::kCorner);
    painter.setPen(c.chalk);
    painter.drawText(box, Qt::AlignCenter, count);
}

} // namespace waxis::drawing
