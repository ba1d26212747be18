#include "app/theme/theme.h"

#include "app/theme/look.h"
#include "app/theme/metrics.h"

#include <QApplication>
#include <QFile>
#include <QFontDatabase>
#include <QPainter>
#include <QPainterPath>
#include <QPalette>
#include <QPixmapCache>
#include <QSvgRenderer>
#include <QToolTip>
#include <QWidget>
#include <QtMath>
#include <utility>

static void loadResources() { Q_INIT_RESOURCE(weightaxis_data); }

namespace waxis::theme {

namespace {
QString load(const QString &file) {
    const int id = QFontDatabase::addApplicationFont(":/fonts/" + file);
    const auto families = QFontDatabase::applicationFontFamilies(id);
    return families.isEmpty() ? QString() : families.first();
}
} // namespace

Theme::Theme(Mode mode, QObject *parent) : QObject(parent), mode_(mode) {
    loadResources();
    textFamily_ = load("OpenSans-Regular.ttf");
    load("OpenSans-Semibold.ttf");
    numberFamily_ = load("FiraCode-Regular.ttf");
    load("FiraCode-Medium.ttf");
    apply();
}

void Theme::setMode(Mode mode) {
    if (mode == mode_) return;
    mode_ = mode;
    apply();
    emit changed();
}

QFont Theme::text(int pixels, bool strong) const {
    QFont font(textFamily_);
    font.setPixelSize(pixels);
    font.setWeight(strong ? QFont::DemiBold : QFont::Normal);
    return font;
}

QFont Theme::numbers(int pixels, bool strong) const {
    QFont font(numberFamily_);
    font.setPixelSize(pixels);
    font.setWeight(strong ? QFont::Medium : QFont::Normal);
    return font;
}

QPalette Theme::controls(Ground ground) const {
    const Palette &c = colors();
    const bool dark = ground == Ground::mat || ground == Ground::matBar || ground == Ground::card;
    const bool panel = ground == Ground::panel || ground == Ground::form;
    const QColor window = dark ? (ground == Ground::mat ? c.mat : c.matBar) : panel ? c.panel : c.paper;
    const QColor strong = dark ? c.chalk : c.ink, quiet = dark ? c.softChalk : c.muted;
    const bool quietWords = ground == Ground::form || ground == Ground::mat || ground == Ground::matBar;
    QPalette p;
    p.setColor(QPalette::Window, window);
    p.setColor(QPalette::WindowText, quietWords ? quiet : strong);
    p.setColor(QPalette::Base, dark ? (ground == Ground::mat ? c.matBar : c.mat) : c.field);
    p.setColor(QPalette::AlternateBase, dark ? window : c.paper);
    p.setColor(QPalette::Text, strong);
    p.setColor(QPalette::Button, dark ? window : c.panel);
    p.setColor(QPalette::ButtonText, dark ? quiet : strong);
    p.setColor(QPalette::BrightText, strong);
    p.setColor(QPalette::PlaceholderText, quiet);
    p.setColor(QPalette::Mid, dark ? c.matGridStrong : c.rule);
    p.setColor(QPalette::Highlight, dark ? c.matGridStrong : c.mat);
    p.setColor(QPalette::HighlightedText, c.chalk);
    p.setColor(QPalette::Link, dark ? c.thrustAxis : c.link);
    p.setColor(QPalette::ToolTipBase, c.panel);
    p.setColor(QPalette::ToolTipText, c.ink);
    for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, dark ? c.matFaint : c.muted);
    return p;
}

void Theme::dress(QWidget &widget, Ground ground) const {
    const auto wear = [this, &widget, ground] { widget.setPalette(controls(ground)); };
    widget.setAutoFillBackground(true);
    wear();
    connect(this, &Theme::changed, &widget, wear);
}

void Theme::apply() {
    static bool dressed = false; // what does not change with the colours is done once
    if (!std::exchange(dressed, true)) {
        QApplication::setStyle(new Look);
        QApplication::setFont(text());
    }
    const QPalette paper = controls(Ground::paper);
    QApplication::setPalette(paper);
    QToolTip::setPalette(paper);
}

QPixmap Theme::icon(const QString &name, const QColor &color, int pixels, double ratio) const {
    QFile file(":/icons/" + name + ".svg");
    if (!file.open(QIODevice::ReadOnly)) return {};
    QByteArray svg = file.readAll();
    svg.replace("#000000", color.name().toLatin1());
    QSvgRenderer renderer(svg);
    QPixmap pixmap(QSize(pixels, pixels) * ratio);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    renderer.render(&painter);
    painter.end();
    pixmap.setDevicePixelRatio(ratio);
    return pixmap;
}

QPixmap kept(const QString &key, int side_px, double ratio, const std::function<void(QPainter &)> &paint) {
    const QString whole = QStringLiteral("%1 %2 %3").arg(key).arg(side_px).arg(ratio);
    QPixmap pixmap;
    if (QPixmapCache::find(whole, &pixmap)) return pixmap;
    pixmap = QPixmap(int(side_px * ratio), int(side_px * ratio));
    pixmap.setDevicePixelRatio(ratio);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    paint(painter);
    painter.end();
    QPixmapCache::insert(whole, pixmap);
    return pixmap;
}

QPixmap swatch(const QColor &color) {
    return kept(QStringLiteral("swatch ") + color.name(QColor::HexArgb), 12, 1, [&](QPainter &painter) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(color);
        painter.drawRoundedRect(1, 1, 10, 10, 2, 2);
    });
}

void drawSeverityMark(QPainter &painter, const QPointF &centre, double radius, Severity severity, const QColor &color) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(color);
    auto corners = [&](int n, double turn, double r) {
        QPolygonF polygon;
        for (int i = 0; i < n; ++i) {
            const double angle = turn + 2 * M_PI * i / n;
            polygon << centre + r * QPointF(std::cos(angle), std::sin(angle));
        }
        painter.drawPolygon(polygon);
    };
    switch (severity) {
    case Severity::stop: corners(8, M_PI / 8, radius * 1.05); break;
    case Severity::watch: corners(4, 0, radius * 1.2); break;
    case Severity::note: // clearly smaller than the octagon, which is nearly round
        painter.drawEllipse(centre, radius * 0.72, radius * 0.72);
        break;
    case Severity::unknown:
    case Severity::pass: {
        QPen pen(color, radius * 0.4);
        pen.setDashPattern({1.6, 1.2});
        pen.setCapStyle(Qt::FlatCap);
        painter.setPen(pen);
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(centre, radius * 0.85, radius * 0.85);
        break;
    }
    }
    painter.restore();
}

} // namespace waxis::theme
