#include "app/stages/log/heard_sky.h"

#include "core/sky/sky_lookup.h"

#include <QPainter>
#include <cmath>

namespace waxis::logbench {

namespace {
constexpr int kMargin_px = 14;

/// Elevation as distance from the middle: the zenith in the centre, the horizon on the rim; the nose is up.
QPointF onDisc(const Vec3 &direction, double radius) {
    const double flat = std::hypot(direction.x(), direction.y());
    const double away = radius * std::atan2(flat, direction.z()) / (M_PI / 2);
    if (flat < 1e-9) return {};
    return {-direction.y() / flat * away, -direction.x() / flat * away};
}
} // namespace

HeardSky::HeardSky(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    setObjectName("heard-sky");
    setAccessibleName(tr("Sky over the chosen way, predicted and heard"));
    setMinimumSize(150, 150);
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

void HeardSky::show(const SkyView &view, const SkyProof &proof) {
    view_ = view;
    proof_ = proof;
    hidden_ = QImage();
    update();
}

void HeardSky::clear() {
    view_ = SkyView();
    proof_ = SkyProof();
    hidden_ = QImage();
    update();
}

void HeardSky::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double radius = std::min(width(), height()) / 2.0 - kMargin_px;
    const QPointF centre(width() / 2.0, height() / 2.0);
    if (radius < 20) return;
    painter.setPen(QPen(theme_.colors().softChalk, 1));
    painter.setBrush(theme_.colors().matGrid);
    painter.drawEllipse(centre, radius, radius);
    if (!view_.owner.empty()) {
        if (hidden_.isNull()) {
            constexpr int kSide = 180;
            hidden_ = QImage(kSide, kSide, QImage::Format_ARGB32_Premultiplied);
            hidden_.fill(Qt::transparent);
            QColor shade = theme::familyColor(Family::load);
            shade.setAlphaF(0.55f);
            for (int row = 0; row < kSide; ++row)
                for (int column = 0; column < kSide; ++column) {
                    const double x = (column + 0.5) / kSide * 2 - 1, y = (row + 0.5) / kSide * 2 - 1;
                    const double away = std::hypot(x, y);
                    if (away > 1) continue;
                    const double down = away * M_PI / 2;
                    const Vec3 way = away < 1e-9
                                         ? Vec3::UnitZ()
                                         : Vec3(-y / away * std::sin(down), -x / away * std::sin(down), std::cos(down));
                    if (ownerAt(view_, way) >= 0) hidden_.setPixelColor(column, row, shade);
                }
        }
        painter.drawImage(QRectF(centre.x() - radius, centre.y() - radius, 2 * radius, 2 * radius), hidden_);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme_.colors().softChalk, 1, Qt::DashLine));
    for (const double share : {1.0 / 3, 2.0 / 3}) painter.drawEllipse(centre, radius * share, radius * share);
    painter.setFont(theme_.text(11));
    painter.setPen(theme_.colors().softChalk);
    painter.drawText(QRectF(centre.x() - 30, centre.y() - radius - 14, 60, 14), Qt::AlignCenter, tr("nose"));
    // Stronger is larger; what is hidden by the model has a ring besides.
    for (const auto &one : proof_.satellites) {
        const QPointF at = centre + onDisc(one.way, radius);
        if (!one.heard.ratio_dBHz) {
            painter.setPen(QPen(theme_.colors().chalk, 1.2));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(at, 2.5, 2.5);
            continue;
        }
        const double size = std::clamp((*one.heard.ratio_dBHz - 18) / 4.5, 1.5, 7.0);
        painter.setPen(QPen(theme_.colors().mat, 1));
        painter.setBrush(theme_.colors().chalk);
        painter.drawEllipse(at, size, size);
    }
}

} // namespace waxis::logbench
