#include "app/stages/radio/coverage_page.h"

#include "app/theme/metrics.h"
#include "app/widgets/tips.h"
#include "core/coverage/coverage.h"
#include "core/rules/wording.h"
#include "core/survey/at_hand.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <cmath>

namespace waxis::radio {

namespace {

/// Steps under the strongest direction, dB, and how bright they are drawn.
constexpr std::array<double, 4> kSteps_dB{3, 6, 10, 15};
constexpr std::array<int, 5> kBright{255, 200, 145, 95, 45};

/// Opaque, so that overlapping marks do not add up.
QColor mixed(const QColor &from, const QColor &to, int share) {
    const auto channel = [&](int a, int b) { return a + (b - a) * share / 255; };
    return QColor(channel(from.red(), to.red()), channel(from.green(), to.green()), channel(from.blue(), to.blue()));
}

std::size_t stepOf(double below_dB) {
    std::size_t step = 0;
    while (step < kSteps_dB.size() && below_dB > kSteps_dB[step]) ++step;
    return step;
}

} // namespace

CoverageGlobe::CoverageGlobe(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : CloserWidget(parent), document_(document), theme_(theme) {
    setObjectName("coverage-globe");
    setAccessibleName(tr("Gain less shadow in every direction"));
    setMouseTracking(true);
    connect(&document_, &app::Document::opened, this, &CoverageGlobe::fit);
    connect(&theme_, &theme::Theme::changed, this, [this] { update(); });
}

void CoverageGlobe::show(const std::string &radio, int antenna) {
    radio_ = radio;
    antenna_ = antenna;
    update();
}

CoverageGlobe::Disc CoverageGlobe::disc(bool upper) const {
    const double room = std::min(width() / 2.0 - 24, height() - 130.0) / 2;
    const double middle = 48 + (height() - 48 - 56) / 2.0; // between the titles and the legend
    return {closer().seen(QPointF(width() / 2.0 + (upper ? -1 : 1) * (room + 12), middle)),
            closer().factor() * std::max(20.0, room)};
}

QPointF CoverageGlobe::place(const Disc &disc, const Vec3 &direction) const {
    // Equal areas: straight up or down in the middle, level on the rim; seen from above in both, nose to the right.
    const double r = disc.radius * std::sqrt(std::max(0.0, 1 - std::abs(direction.z())));
    const double level = std::hypot(direction.x(), direction.y());
    if (level < 1e-9) return disc.centre;
    return disc.centre + QPointF(r * direction.x() / level, -r * direction.y() / level);
}

const RadioCoverage *CoverageGlobe::coverage() const {
    for (const auto &coverage : coveragesSeen(document_.analysis().derived))
        if (coverage.radio == radio_ && !coverage.antennas.empty()) return &coverage;
    return nullptr;
}

std::pair<double, int> CoverageGlobe::levelOf(const RadioCoverage &coverage, std::size_t direction) const {
    std::pair<double, int> best{-300, -1};
    for (std::size_t a = 0; a < coverage.antennas.size(); ++a) {
        if (antenna_ >= 0 && int(a) != antenna_) continue;
        const double level = coverage.antennas[a].level_dBi[direction];
        if (level > best.first) best = {level, coverage.antennas[a].owner[direction]};
    }
    return best;
}

void CoverageGlobe::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    painter.fillRect(rect(), c.mat);
    const RadioCoverage *shown = coverage();
    painter.setFont(theme_.text(theme::kTextPixels));
    painter.setPen(c.softChalk);
    if (hasFocus()) {
        painter.setPen(QPen(c.thrustAxis, 1));
        painter.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
        painter.setPen(c.softChalk);
    }
    if (!shown) {
        painter.drawText(rect().adjusted(12, 0, -12, 0), Qt::AlignCenter | Qt::TextWordWrap,
                         document_.analysis().derived.survey ? tr("No radio with an antenna is aboard yet.")
                                                             : tr("Looking around the craft..."));
        return;
    }
    double peak = -300;
    for (std::size_t i = 0; i < coverageDirections().size(); ++i) peak = std::max(peak, levelOf(*shown, i).first);
    for (const bool upper : {true, false}) {
        paintSky(painter, *shown, upper, peak);
        paintRim(painter, *shown, upper);
    }
    paintLegend(painter, peak);
}

void CoverageGlobe::paintSky(QPainter &painter, const RadioCoverage &shown, bool upper, double peak) const {
    const auto &c = theme_.colors();
    const auto &directions = coverageDirections();
    const QColor color = theme::familyColor(Family::radio);
    const Disc d = disc(upper);
    painter.setPen(QPen(c.matGridStrong, 1));
    painter.setBrush(c.matBar);
    painter.drawEllipse(d.centre, d.radius + 4, d.radius + 4);
    // Each direction stands for the same area of the disc; squares overlap a little, so that no seams show.
    const double size = d.radius * std::sqrt(M_PI / (kCoverageRays / 2.0)) * 1.5;
    painter.setPen(Qt::NoPen);
    painter.setRenderHint(QPainter::Antialiasing, false);
    QPainterPath round;
    round.addEllipse(d.centre, d.radius + 3, d.radius + 3);
    painter.setClipPath(round);
    std::vector<QPointF> hidden;
    for (std::size_t i = 0; i < directions.size(); ++i) {
        if ((directions[i].z() >= 0) != upper) continue;
        const auto [level, owner] = levelOf(shown, i);
        const QPointF at = place(d, directions[i]);
        painter.setBrush(mixed(c.matBar, color, kBright[stepOf(peak - level)]));
        painter.drawRect(QRectF(at.x() - size / 2, at.y() - size / 2, size, size));
        if (owner >= 0) hidden.push_back(at);
    }
    painter.setBrush(c.softChalk);
    for (const QPointF &at : hidden) painter.drawRect(QRectF(at.x() - 0.75, at.y() - 0.75, 1.5, 1.5));
    painter.setClipping(false);
    painter.setRenderHint(QPainter::Antialiasing);
}

void CoverageGlobe::paintRim(QPainter &painter, const RadioCoverage &shown, bool upper) const {
    const auto &c = theme_.colors();
    const Disc d = disc(upper);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(c.softChalk, 0.8, Qt::DotLine));
    for (const double elevation : {30.0, 60.0}) {
        const double r = d.radius * std::sqrt(1 - std::sin(elevation * M_PI / 180));
        painter.drawEllipse(d.centre, r, r);
    }
    painter.setFont(theme_.text(12, true));
    painter.setPen(c.chalk);
    painter.drawText(QRectF(d.centre.x() - d.radius, d.centre.y() - d.radius - 40, 2 * d.radius, 18), Qt::AlignCenter,
                     upper ? tr("above the craft") : tr("below it, seen through from above"));
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.mat); // on the bright rim
    painter.drawText(QRectF(d.centre.x() + d.radius - 34, d.centre.y() - 8, 32, 16), Qt::AlignRight | Qt::AlignVCenter,
                     tr("nose"));
    painter.setPen(c.softChalk);
    painter.drawText(QRectF(d.centre.x() - 20, d.centre.y() - d.radius - 20, 40, 14), Qt::AlignCenter, tr("left"));
    if ((shown.worstDirection.z() >= 0) == upper) {
        const QPointF at = place(d, shown.worstDirection);
        painter.setPen(QPen(theme::severityOnMat(Severity::watch), 2));
        painter.drawEllipse(at, 9, 9);
    }
}

void CoverageGlobe::paintLegend(QPainter &painter, double peak) const {
    const auto &c = theme_.colors();
    const QColor color = theme::familyColor(Family::radio);
    double x = 14;
    const double y = height() - 44;
    painter.fillRect(QRectF(0, y - 8, width(), height() - y + 8), c.mat); // over discs that are looked at closely
    painter.setFont(theme_.text(theme::kSmallPixels));
    for (std::size_t step = 0; step < kBright.size(); ++step) {
        painter.setPen(QPen(c.matGridStrong, 1));
        painter.setBrush(mixed(c.matBar, color, kBright[step]));
        painter.drawRect(QRectF(x, y, 14, 12));
        const QString text = step == 0                 ? tr("within 3 dB of %1 dBi").arg(peak, 0, 'f', 1)
                             : step < kSteps_dB.size() ? tr("to −%1").arg(kSteps_dB[step])
                                                       : tr("less");
        painter.setPen(c.softChalk);
        const double w = QFontMetrics(painter.font()).horizontalAdvance(text);
        painter.drawText(QRectF(x + 18, y - 2, w + 4, 16), Qt::AlignVCenter, text);
        x += w + 34;
    }
    painter.drawText(QRectF(14, y + 18, width() - 28, 16), Qt::AlignVCenter,
                     tr("dotted: hidden behind the craft · ring: the weakest sector"));
}

QString CoverageGlobe::tipAt(const QPointF &at) const {
    const RadioCoverage *shown = coverage();
    if (!shown) return {};
    const auto &directions = coverageDirections();
    std::size_t best = directions.size();
    double least = 12;
    for (std::size_t i = 0; i < directions.size(); ++i) {
        const QPointF p = place(disc(directions[i].z() >= 0), directions[i]) - at;
        if (const double away = std::hypot(p.x(), p.y()); away < least) {
            least = away;
            best = i;
        }
    }
    if (best == directions.size()) return {};
    const auto [level, owner] = levelOf(*shown, best);
    QString text =
        tr("%1: %2 dBi").arg(QString::fromStdString(directionInWords(directions[best]))).arg(level, 0, 'f', 1);
    const auto &owners = document_.analysis().derived.scene.owners;
    if (owner >= 0 && std::size_t(owner) < owners.size())
        text += tr(", behind %1")
                    .arg(QString::fromStdString(
                        withinSentence(displayName(document_.build(), owners[std::size_t(owner)].id))));
    return text;
}

void CoverageGlobe::zoomToChosen() {
    const RadioCoverage *shown = coverage();
    if (!shown) return;
    constexpr double kSector_px = 60;
    closer().fit();
    const QPointF at = place(disc(shown->worstDirection.z() >= 0), shown->worstDirection);
    closer().show(QRectF(at - QPointF(kSector_px, kSector_px), QSizeF(2 * kSector_px, 2 * kSector_px)), rect());
    update();
}

bool CoverageGlobe::focusNextPrevChild(bool next) {
    bool taken = false;
    emit walked(next, &taken);
    return taken || QWidget::focusNextPrevChild(next);
}

bool CoverageGlobe::event(QEvent *event) {
    if (theme::showTip(event, this, [this](const QPointF &at) { return tipAt(at); })) return true;
    return QWidget::event(event);
}

CoveragePage::CoveragePage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("coverage-page");
    globe_ = new CoverageGlobe(document_, theme_);
    which_ = new QComboBox;
    which_->setObjectName("coverage-of");
    which_->setAccessibleName(tr("Which antenna"));
    facts_ = new QLabel;
    facts_->setObjectName("coverage-facts");
    facts_->setTextFormat(Qt::RichText);
    facts_->setWordWrap(true);
    facts_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    auto *side = new QWidget;
    side->setObjectName("coverage-side");
    side->setFixedWidth(250);
    auto *column = new QVBoxLayout(side);
    column->setContentsMargins(10, 8, 10, 8);
    column->addWidget(which_);
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(facts_);
    column->addWidget(scroll, 1);
    auto *all = new QHBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(globe_, 1);
    all->addWidget(side);
    connect(which_, &QComboBox::activated, this, &CoveragePage::refresh);
    connect(globe_, &CoverageGlobe::walked, this, [this](bool next, bool *taken) { *taken = walk(next); });
    connect(&document_, &app::Document::judged, this, &CoveragePage::refresh);
    connect(&document_, &app::Document::opened, this, &CoveragePage::refresh);
    scroll->setObjectName("side-scroll");
    theme_.dress(*side, theme::Ground::panel);
    connect(&theme_, &theme::Theme::changed, this, &CoveragePage::refresh);
    refresh();
}

bool CoveragePage::walk(bool next) {
    const int to = which_->currentIndex() + (next ? 1 : -1);
    if (to < 0 || to >= which_->count()) return false;
    which_->setCurrentIndex(to);
    refresh();
    return true;
}

QString CoveragePage::facts() const { return facts_->text(); }

void CoveragePage::refresh() {
    const auto coverages = coveragesSeen(document_.analysis().derived);
    const Build &build = document_.build();
    const QString before = which_->currentData().toString();
    {
        const QSignalBlocker quiet(which_);
        which_->clear();
        for (const auto &coverage : coverages) {
            if (coverage.antennas.empty() || !findPart(build, coverage.radio.substr(0, coverage.radio.find('/'))))
                continue;
            const QString id = QString::fromStdString(coverage.radio);
            const QString name =
                QString::fromStdString(displayName(build, coverage.radio.substr(0, coverage.radio.find('/'))));
            which_->addItem(coverage.antennas.size() > 1 ? tr("%1, the better antenna").arg(name) : name,
                            id + QStringLiteral("|-1"));
            if (coverage.antennas.size() > 1)
                for (std::size_t a = 0; a < coverage.antennas.size(); ++a)
                    which_->addItem(QString::fromStdString(displayName(build, coverage.antennas[a].part)),
                                    id + QStringLiteral("|%1").arg(a));
        }
        which_->setCurrentIndex(std::max(0, which_->findData(before)));
    }
    const QStringList chosen = which_->currentData().toString().split(QLatin1Char('|'));
    if (chosen.size() != 2) {
        globe_->show({}, -1);
        facts_->setText(tr("Put a receiver or transmitter with an antenna on the mat in Place."));
        return;
    }
    globe_->show(chosen[0].toStdString(), chosen[1].toInt());
    const auto &c = theme_.colors();
    QString text;
    for (const auto &coverage : coverages) {
        if (coverage.radio != chosen[0].toStdString()) continue;
        text += tr("<p><b>Weakest: %1</b>, %2 dBi<br>")
                    .arg(QString::fromStdString(coverage.worst))
                    .arg(coverage.worst_dBi, 0, 'f', 1);
        text += tr("Nine tenths of all directions have at least %1 dBi.").arg(coverage.tenth_dBi, 0, 'f', 1);
        if (coverage.antennas.size() > 1)
            text +=
                tr(" Two antennas gain %1 dB there over the better one alone.").arg(coverage.diversity_dB, 0, 'f', 1);
        text += QStringLiteral("</p>");
        for (std::size_t a = 0; a < coverage.antennas.size(); ++a) {
            if (chosen[1].toInt() >= 0 && int(a) != chosen[1].toInt()) continue;
            const auto &antenna = coverage.antennas[a];
            text += tr("<p><b>%1</b><br>hidden in %2 % of all directions")
                        .arg(QString::fromStdString(displayName(build, antenna.part)))
                        .arg(100 * antenna.lost, 0, 'f', 0);
            QStringList by;
            for (const auto &share : antenna.by)
                if (by.size() < 3)
                    by << tr("%1 %2 %")
                              .arg(QString::fromStdString(withinSentence(displayName(build, share.id))))
                              .arg(100 * share.share, 0, 'f', 0);
            if (!by.isEmpty()) text += tr(": %1").arg(by.join(QStringLiteral(", ")));
            text += QStringLiteral("</p><table cellspacing=2>");
            for (auto belt = antenna.belts.rbegin(); belt != antenna.belts.rend(); ++belt)
                text += tr("<tr><td style='color:%5'>%1° to %2°</td><td align=right>&nbsp;%3 dBi</td><td "
                           "align=right>&nbsp;%4 % "
                           "hidden</td></tr>")
                            .arg(belt->from_deg)
                            .arg(belt->to_deg)
                            .arg(belt->mean_dBi, 0, 'f', 1)
                            .arg(100 * belt->lost, 0, 'f', 0)
                            .arg(c.muted.name());
            text += QStringLiteral("</table>");
        }
    }
    text += QStringLiteral("<p style='color:%1'>%2</p>")
                .arg(c.muted.name(),
                     tr("Pattern of the antenna's kind, %1 dB less where the craft's own conductors stand in "
                        "the way. Waves bend round things smaller than half a wavelength: those are left out.")
                         .arg(kShadowLoss_dB));
    facts_->setText(text);
    facts_->setFont(theme_.text(12));
}

} // namespace waxis::radio
