#include "app/stages/place/lens_view.h"

#include "app/drawing/magnifier.h"
#include "app/theme/metrics.h"
#include "core/build/others_stand.h"
#include "core/edits/part_edits.h"
#include "core/rules/wording.h"
#include "core/survey/at_hand.h"
#include "core/survey/views.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QSlider>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <map>

namespace waxis::place {

namespace {

constexpr double kSteps_per_deg = 2; // the slider's half degrees
constexpr double kLiveRays = 10000, kFineRays = 90000;

/// Columns with which a picture has about that many rays.
int columnsFor(const Camera &camera, double rays) {
    const double aspect = std::max(0.2, camera.horizontalView_deg / std::max(1.0, camera.verticalView_deg));
    return std::max(16, int(std::sqrt(rays * aspect)));
}

QString nameOf(const app::Document &document, const std::string &id) {
    return QString::fromStdString(displayName(document.build(), id));
}

} // namespace

/// The picture itself, on the mat.
class LensView::PictureBox : public drawing::CloserWidget {
public:
    PictureBox(const LensView &lens) : lens_(lens) {
        setMinimumSize(200, 120);
        setAccessibleName(tr("What the camera sees"));
    }

protected:
    void paintEvent(QPaintEvent *) override {
        QPainter painter(this);
        const auto &c = lens_.theme_.colors();
        painter.fillRect(rect(), c.mat);
        if (lens_.image_.isNull()) return;
        const QSize size = lens_.image_.size().scaled(this->size() - QSize(16, 12), Qt::KeepAspectRatio);
        const QRect frame(QPoint((width() - size.width()) / 2, (height() - size.height()) / 2), size);
        painter.translate(closer().seen({0, 0}));
        painter.scale(closer().factor(), closer().factor());
        painter.drawImage(frame, lens_.image_);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(QPen(c.softChalk, 1));
        painter.drawRect(frame);
        // The middle of the picture, and thirds as small ticks.
        painter.setPen(QPen(c.chalk, 1));
        const QPointF m = QRectF(frame).center();
        painter.drawLine(m - QPointF(7, 0), m + QPointF(7, 0));
        painter.drawLine(m - QPointF(0, 7), m + QPointF(0, 7));
    }

private:
    const LensView &lens_;
};

/// Share hidden over the tilt allowed, with the best run.
class LensView::TiltChart : public QWidget {
public:
    TiltChart(const LensView &lens) : lens_(lens) { setFixedHeight(64); }

protected:
    void paintEvent(QPaintEvent *) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const auto &c = lens_.theme_.colors();
        const CameraSurvey *camera = nullptr;
        for (const auto &one : camerasSeen(lens_.document_.analysis().derived))
            if (one.part == lens_.camera_) camera = &one;
        painter.setFont(lens_.theme_.numbers(theme::kSmallPixels));
        if (!camera || camera->tilts.size() < 2) {
            painter.setPen(c.softChalk);
            painter.drawText(rect(), Qt::AlignCenter,
                             camera ? tr("this camera does not tilt") : tr("looking at every tilt…"));
            return;
        }
        constexpr double kGroove_px = 7; // the slider's handle travels between these
        const QRectF box = QRectF(rect()).adjusted(kGroove_px, 6, -kGroove_px, -16);
        const double low = camera->tilts.front().tilt_deg, high = camera->tilts.back().tilt_deg;
        double most = 0.02;
        for (const auto &step : camera->tilts) most = std::max(most, step.hidden + step.propellers);
        auto at = [&](double tilt, double share) {
            return QPointF(box.left() + (tilt - low) / (high - low) * box.width(),
                           box.bottom() - share / most * box.height());
        };
        if (camera->bestFrom_deg) {
            QColor good = c.thrustAxis;
            good.setAlphaF(0.25f);
            painter.fillRect(QRectF(QPointF(at(*camera->bestFrom_deg, 0).x() - 2, box.top()),
                                    QPointF(at(*camera->bestTo_deg, 0).x() + 2, box.bottom())),
                             good);
        }
        auto curve = [&](auto share) {
            QPainterPath path(at(low, 0));
            for (const auto &step : camera->tilts) path.lineTo(at(step.tilt_deg, share(step)));
            path.lineTo(at(high, 0));
            return path;
        };
        QColor disc = c.softChalk, craft = theme::familyColor(Family::imaging);
        disc.setAlphaF(0.45f);
        painter.setPen(Qt::NoPen);
        painter.setBrush(disc);
        painter.drawPath(curve([](const TiltStep &s) { return s.hidden + s.propellers; }));
        painter.setBrush(craft);
        painter.drawPath(curve([](const TiltStep &s) { return s.hidden; }));
        painter.setPen(QPen(c.chalk, 1.5));
        const double now = std::clamp(lens_.view_.tilt_deg, low, high);
        painter.drawLine(at(now, 0), QPointF(at(now, 0).x(), box.top()));
        painter.setPen(c.softChalk);
        const QRectF foot(box.left(), box.bottom() + 1, box.width(), 15);
        painter.drawText(foot, Qt::AlignLeft, tr("%1°").arg(low, 0, 'f', 0));
        painter.drawText(foot, Qt::AlignRight, tr("%1°").arg(high, 0, 'f', 0));
        painter.drawText(foot, Qt::AlignHCenter,
                         camera->bestFrom_deg ? tr("within the practice from %1° to %2°")
                                                    .arg(*camera->bestFrom_deg, 0, 'f', 0)
                                                    .arg(*camera->bestTo_deg, 0, 'f', 0)
                                              : tr("no tilt is within the practice's %1 %")
                                                    .arg(lens_.document_.analysis().practice[Limit::cameraHidden]));
    }

private:
    const LensView &lens_;
};

/// Who stands in the picture, largest first.
class LensView::Shares : public QWidget {
public:
    Shares(const LensView &lens) : lens_(lens) { setMinimumHeight(40); }

protected:
    void paintEvent(QPaintEvent *) override {
        QPainter painter(this);
        const auto &c = lens_.theme_.colors();
        const auto &by = lens_.view_.by;
        constexpr int kRow = 18, kNarrow = 150;
        const int rows = std::max(1, height() / kRow);
        const int columns = std::clamp((int(by.size()) + rows - 1) / rows, 1, std::max(1, width() / kNarrow));
        const int kColumn = width() / columns;
        painter.setFont(lens_.theme_.text(theme::kSmallPixels + 1));
        if (by.empty()) {
            painter.setPen(c.softChalk);
            painter.drawText(rect(), Qt::AlignLeft | Qt::AlignTop, tr("Nothing of the craft stands in the picture."));
            return;
        }
        for (int i = 0; i < int(by.size()) && i < rows * columns; ++i) {
            const QRect row(i / rows * kColumn, i % rows * kRow, kColumn - 12, kRow);
            painter.fillRect(QRect(row.left(), row.top() + 4, 10, 10), lens_.colorOfOwner(by[std::size_t(i)].id));
            painter.setPen(c.chalk);
            painter.setFont(lens_.theme_.numbers(theme::kSmallPixels));
            painter.drawText(row.adjusted(16, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft,
                             tr("%1 %").arg(100 * by[std::size_t(i)].share, 5, 'f', 1));
            painter.setFont(lens_.theme_.text(theme::kSmallPixels + 1));
            painter.drawText(row.adjusted(72, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft,
                             painter.fontMetrics().elidedText(lens_.nameOfOwner(by[std::size_t(i)].id), Qt::ElideRight,
                                                              row.width() - 72));
        }
    }

private:
    const LensView &lens_;
};

LensView::LensView(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    empty_ =
        new QLabel(tr("There is no camera aboard. Drag one from Parts onto the mat; its picture then stands here."));
    empty_->setAlignment(Qt::AlignCenter);
    body_ = new QWidget;
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(empty_, 1);
    layout->addWidget(body_, 1);
    box_ = new PictureBox(*this);
    head_ = new QLabel;
    head_->setWordWrap(true);
    head_->setObjectName("lens-head");
    shares_ = new Shares(*this);
    chart_ = new TiltChart(*this);
    tilt_ = new QSlider(Qt::Horizontal);
    tilt_->setObjectName("tilt");
    tilt_->setAccessibleName(tr("Tilt of the camera, degrees upwards"));
    tilt_->setToolTip(tr("Tilt of the camera upwards"));
    auto *beside = new QVBoxLayout;
    beside->setContentsMargins(4, 8, 12, 8);
    beside->setSpacing(4);
    beside->addWidget(head_);
    beside->addWidget(shares_, 1);
    beside->addWidget(chart_);
    beside->addWidget(tilt_);
    auto *row = new QHBoxLayout(body_);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(box_, 5);
    row->addLayout(beside, 5);

    refine_.setSingleShot(true);
    refine_.setInterval(180);
    connect(&refine_, &QTimer::timeout, this, &LensView::refine);
    connect(tilt_, &QSlider::valueChanged, this, [this](int value) {
        if (!settingSlider_) setTilt(value / kSteps_per_deg, !tilt_->isSliderDown());
    });
    connect(tilt_, &QSlider::sliderReleased, this, [this] { setTilt(tilt_->value() / kSteps_per_deg, true); });
    auto look = [this] {
        if (isVisible()) refresh();
    };
    connect(&document_, &app::Document::changed, this, look);
    connect(&document_, &app::Document::judged, this, look); // the curve over all tilts
    connect(&document_, &app::Document::selectionChanged, this, look);
    head_->setForegroundRole(QPalette::BrightText);
    theme_.dress(*this, theme::Ground::mat);
    connect(&theme_, &theme::Theme::changed, this, look);
    look();
}

const Part *LensView::pickCamera() const {
    const Build &build = document_.build();
    auto looks = [&](const Part *part) {
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        return type && type->camera && document_.isAboardNow(*part);
    };
    if (looks(document_.selectedPart())) return document_.selectedPart();
    if (const Part *before = findPart(build, camera_); looks(before)) return before;
    const Part *any = nullptr;
    for (const auto &part : build.parts)
        if (looks(&part)) {
            if (typeOf(build, part)->kind == PartKind::flightCamera) return &part;
            if (!any) any = &part;
        }
    return any;
}

QColor LensView::colorOfOwner(const std::string &id) const {
    for (const auto &mount : document_.build().frame->motorMounts)
        if (mount.id == id) return theme_.colors().softChalk; // its propeller
    const Part *part = findPart(document_.build(), id);
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    return theme::familyColor(type ? familyOf(type->kind) : Family::structure);
}

QString LensView::nameOfOwner(const std::string &id) const { return nameOf(document_, id); }

const CameraWorld &LensView::world(int self) {
    const Build &build = document_.build();
    const std::string &id = build.parts[std::size_t(self)].id;
    if (!world_ || id != worldPart_ || worldCase_ != document_.loadCase() || !othersStand(worldOf_, build, id)) {
        world_ = cameraWorld(build, document_.analysis().derived.scene, document_.loadCase(), self);
        worldOf_ = build;
        worldPart_ = id;
        worldCase_ = document_.loadCase();
    }
    return *world_;
}

void LensView::refresh() {
    const Part *part = pickCamera();
    empty_->setVisible(!part);
    body_->setVisible(part != nullptr);
    camera_ = part ? part->id : std::string();
    view_ = {};
    if (!part) return;
    const Build &build = document_.build();
    const PartType &type = *typeOf(build, *part);
    const auto &derived = document_.analysis().derived;
    const int self = int(part - build.parts.data());
    const Picture picture =
        pictureOf(type.camera->horizontalView_deg, type.camera->verticalView_deg, columnsFor(*type.camera, kLiveRays));
    const Pose pose = framePose(build, *part);
    view_ = cameraView(world(self), derived.scene, picture, cameraPose(type, pose));
    view_.tilt_deg = tiltOf(type, pose);
    image_ = imageOf(view_, picture);
    head_->setText(tr("<b>%1</b>, tilt %2°: the craft hides <b>%3 %</b> of the picture, propellers turn in <b>%4 %</b>")
                       .arg(QString::fromStdString(part->name).toHtmlEscaped(),
                            QString::fromStdString(oneDecimal(view_.tilt_deg)),
                            QString::fromStdString(oneDecimal(100 * view_.hidden)),
                            QString::fromStdString(oneDecimal(100 * view_.propellers))));
    settingSlider_ = true;
    tilt_->setRange(int(std::lround(type.camera->tiltMin_deg * kSteps_per_deg)),
                    int(std::lround(type.camera->tiltMax_deg * kSteps_per_deg)));
    tilt_->setEnabled(type.camera->tiltMax_deg > type.camera->tiltMin_deg);
    if (!tilt_->isSliderDown()) tilt_->setValue(int(std::lround(view_.tilt_deg * kSteps_per_deg)));
    settingSlider_ = false;
    box_->update();
    chart_->update();
    shares_->update();
    refine_.start(); // a finer picture once the hands rest
}

void LensView::refine() {
    const Part *part = findPart(document_.build(), camera_);
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    if (!type || !type->camera || !isVisible()) return;
    const Picture picture = pictureOf(type->camera->horizontalView_deg, type->camera->verticalView_deg,
                                      columnsFor(*type->camera, kFineRays));
    image_ = imageOf(cameraView(world(int(part - document_.build().parts.data())), document_.analysis().derived.scene,
                                picture, cameraPose(*type, framePose(document_.build(), *part))),
                     picture);
    box_->update();
}

QImage LensView::imageOf(const CameraView &view, const Picture &picture) const {
    QImage image(picture.columns, picture.rows, QImage::Format_RGB32);
    const auto &derived = document_.analysis().derived;
    std::map<int, QRgb> colors;
    const QRgb sky = theme_.colors().matGridStrong.lighter(150).rgb(), ground = theme_.colors().matGridStrong.rgb();
    auto colorOf = [&](int owner) {
        const auto known = colors.find(owner);
        if (known != colors.end()) return known->second;
        const std::string &id = derived.scene.owners[std::size_t(owner)].id;
        return colors.emplace(owner, colorOfOwner(id).rgb()).first->second;
    };
    const Part *part = findPart(document_.build(), camera_);
    const CameraPose pose = cameraPose(*typeOf(document_.build(), *part), framePose(document_.build(), *part));
    for (int y = 0; y < picture.rows; ++y) {
        auto *line = reinterpret_cast<QRgb *>(image.scanLine(y));
        for (int x = 0; x < picture.columns; ++x) {
            const std::size_t i = std::size_t(y) * std::size_t(picture.columns) + std::size_t(x);
            const int owner = view.owner[i];
            if (owner < 0) { // free: sky above the horizon of the level craft, ground below
                line[x] = (pose.R_FrameCamera * picture.directions[i]).z() > 0 ? sky : ground;
                continue;
            }
            QRgb color = colorOf(owner);
            // An edge where another thing begins.
            const bool edge = (x > 0 && view.owner[i - 1] != owner) ||
                              (y > 0 && view.owner[i - std::size_t(picture.columns)] != owner);
            line[x] = edge ? QColor(color).darker(170).rgb() : color;
        }
    }
    return image;
}

void LensView::setTilt(double tilt_deg, bool keep) {
    const Part *part = findPart(document_.build(), camera_);
    if (!part) return;
    const EditResult tiltedBuild = tiltCamera(document_.build(), camera_, tilt_deg);
    const QString name = tr("Tilt %1 to %2°").arg(QString::fromStdString(part->name)).arg(tilt_deg, 0, 'f', 1);
    if (keep)
        document_.edit(name, tiltedBuild, "tilt/" + QString::fromStdString(camera_));
    else
        document_.preview(tiltedBuild);
}

void LensView::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

} // namespace waxis::place
