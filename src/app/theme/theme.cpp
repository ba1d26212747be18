#include "app/theme/theme.h"

#include "app/theme/metrics.h"

#include <QApplication>
#include <QFile>
#include <QFontDatabase>
#include <QPainter>
#include <QPainterPath>
#include <QPalette>
#include <QStyleFactory>
#include <QSvgRenderer>
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

void Theme::apply() {
    const Palette &c = colors();
    // Each of these dresses every widget anew: what does not change with the colours is done once.
    static bool dressed = false;
    if (!std::exchange(dressed, true)) {
        QApplication::setStyle(QStyleFactory::create("Fusion"));
        QApplication::setFont(text());
    }
    QPalette p;
    p.setColor(QPalette::Window, c.paper);
    p.setColor(QPalette::WindowText, c.ink);
    p.setColor(QPalette::Base, c.field);
    p.setColor(QPalette::AlternateBase, c.paper);
    p.setColor(QPalette::Text, c.ink);
    p.setColor(QPalette::Button, c.panel);
    p.setColor(QPalette::ButtonText, c.ink);
    p.setColor(QPalette::ToolTipBase, c.panel);
    p.setColor(QPalette::ToolTipText, c.ink);
    p.setColor(QPalette::Highlight, c.mat);
    p.setColor(QPalette::HighlightedText, c.chalk);
    p.setColor(QPalette::PlaceholderText, c.muted);
    p.setColor(QPalette::Link, c.link);
    for (auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, c.muted);
    QApplication::setPalette(p);
    const QString sheet =
        QStringLiteral(R"(
        QMenuBar { background: %1; padding: 4px 8px; }
        QMenuBar::item { padding: 4px 8px; background: transparent; }
        QMenuBar::item:selected, QMenu::item:selected { background: %5; color: %6; }
        QMenu { background: %1; border: 1px solid %3; }
        QMenu::item { padding: 4px 24px 4px 16px; }
        QMenu::item:disabled { color: %4; }
        QLineEdit, QComboBox, QPlainTextEdit { background: %7; border: 1px solid %3; border-radius: 3px; padding: 2px 6px; }
        QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus { border-color: %8; }
        QComboBox::drop-down { border: none; width: 20px; }
        QComboBox::down-arrow { image: url(:/icons/chevron.svg); width: 12px; height: 12px; }
        QPushButton { background: %1; border: 1px solid %3; border-radius: 3px; padding: 4px 12px; }
        QPushButton:hover, QPushButton:focus { border-color: %8; }
        QCheckBox::indicator, QAbstractItemView::indicator { width: 13px; height: 13px; border: 1px solid %4; border-radius: 3px; background: %7; }
        QCheckBox::indicator:checked, QAbstractItemView::indicator:checked { background: %8; border-color: %8; image: url(:/icons/tick-%9.svg); }
        QCheckBox::indicator:focus { border-color: %8; }
        QToolTip { background: %1; color: %2; border: 1px solid %3; padding: 4px; }
        QScrollBar:vertical { background: transparent; width: 10px; margin: 0; }
        QScrollBar::handle:vertical { background: %3; border-radius: 3px; min-height: 24px; }
        QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
    )")
            .arg(c.panel.name(), c.ink.name(), c.rule.name(), c.muted.name(), c.mat.name(), c.chalk.name(),
                 c.field.name(), c.link.name(), mode_ == Mode::light ? "light" : "dark");
    qApp->setStyleSheet(sheet);
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
