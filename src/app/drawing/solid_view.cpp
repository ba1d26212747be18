#include "app/drawing/solid_view.h"

#include "app/drawing/walk.h"
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/edits/group_edits.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"

#include <QKeyEvent>
#include <QMatrix4x4>
#include <QMouseEvent>
#include <QOpenGLShaderProgram>
#include <algorithm>
#include <cmath>
#include <utility>

namespace waxis::drawing {

namespace {

constexpr const char *kVertexShader = R"(#version 330 core
layout(location = 0) in vec3 place;
layout(location = 1) in vec3 normal;
layout(location = 2) in vec4 color;
uniform mat4 toClip;
out vec3 at;
out vec3 facing;
out vec4 paint;
void main() {
    at = place;
    facing = normal;
    paint = color;
    gl_Position = toClip * vec4(place, 1.0);
}
)";

constexpr const char *kFragmentShader = R"(#version 330 core
in vec3 at;
in vec3 facing;
in vec4 paint;
uniform vec3 eye;
uniform vec4 cut; // normal and offset; a zero normal cuts nothing
out vec4 result;
void main() {
    if (dot(cut.xyz, at) > cut.w) discard;
    if (dot(facing, facing) < 0.5) { // an edge: ink, no light
        result = paint;
        return;
    }
    vec3 toEye = normalize(eye - at);
    vec3 lamp = normalize(vec3(0.25, -0.35, 0.9));
    float seen = dot(facing, toEye);
    vec3 normal = seen < 0.0 ? -facing : facing;
    float light = 0.45 + 0.30 * max(dot(normal, lamp), 0.0) + 0.30 * abs(seen);
    // The inside of what is cut open is seen from behind: darker, so that the cut shows.
    if (seen < 0.0 && paint.a > 0.99) light *= 0.55;
    result = vec4(paint.rgb * light, paint.a);
}
)";

QVector3D toQt(const Vec3 &v) { return {float(v.x()), float(v.y()), float(v.z())}; }

} // namespace

SolidView::SolidView(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QOpenGLWidget(parent), document_(document), theme_(theme) {
    QSurfaceFormat format = QSurfaceFormat::defaultFormat();
    format.setVersion(3, 3);
    format.setProfile(QSurfaceFormat::CoreProfile);
    format.setDepthBufferSize(24);
    format.setSamples(4);
    setFormat(format);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(200, 120);
    setObjectName("solid");
    setAccessibleName(tr("Three-dimensional view"));
    auto renew = [this] {
        stale_ = true;
        if (isVisible()) update();
    };
    connect(&document_, &app::Document::changed, this, renew);
    connect(&document_, &app::Document::redrawn, this, renew);
    connect(&document_, &app::Document::selectionChanged, this, renew);
    connect(&document_, &app::Document::highlightChanged, this, renew);
    connect(&document_, &app::Document::opened, this, [this] { fitted_ = false; });
    connect(&theme_, &theme::Theme::changed, this, renew);
}

SolidView::~SolidView() {
    makeCurrent();
    release();
    doneCurrent();
}

void SolidView::release() {
    corners_.destroy();
    layout_.destroy();
    program_.reset();
}

void SolidView::setOrbit(const Orbit &orbit) {
    turned_ = true;
    orbit_ = orbit;
    constexpr double kNearest_mm = 15, kFarthest_mm = 8000, kSteepest_deg = 89.5;
    orbit_.distance_mm = std::clamp(orbit_.distance_mm, kNearest_mm, kFarthest_mm);
    orbit_.elevation_deg = std::clamp(orbit_.elevation_deg, -kSteepest_deg, kSteepest_deg);
    update();
}

void SolidView::setLooks(const SolidLooks &looks) {
    if (looks == looks_) return;
    looks_ = looks;
    stale_ = true;
    update();
}

void SolidView::setCut(const std::optional<CutAway> &cut) {
    if (cut == cut_) return;
    cut_ = cut;
    update();
}

void SolidView::fit() {
    remake();
    if (scene_.bounds.empty()) return;
    Orbit next = orbit_;
    next.target_mm = (scene_.bounds.min_mm + scene_.bounds.max_mm) / 2;
    const double radius = scene_.bounds.size_mm().norm() / 2;
    const double aspect = double(width()) / std::max(1, height());
    constexpr double kRoom = 0.68; // the corners of the box are empty
    next.distance_mm = kRoom * radius / std::sin(radiansFromDegrees(Orbit::kView_deg) / 2) / std::min(1.0, aspect);
    setOrbit(next);
    fitted_ = true;
    turned_ = false;
}

void SolidView::closeUp() {
    fit();
    if (scene_.fresh.empty()) return;
    Orbit next = orbit_;
    next.target_mm = (scene_.fresh.min_mm + scene_.fresh.max_mm) / 2;
    constexpr double kLeast_mm = 60; // never nearer than a hand works
    const double radius = std::max(kLeast_mm, scene_.fresh.size_mm().norm());
    next.distance_mm = std::min(orbit_.distance_mm, radius / std::sin(radiansFromDegrees(Orbit::kView_deg) / 2));
    setOrbit(next);
    turned_ = false;
}

void SolidView::remake() {
    if (!stale_) return;
    scene_ = solidSceneOf(document_, looks_, theme_);
    stale_ = false;
    uploaded_ = false;
}

void SolidView::initializeGL() {
    initializeOpenGLFunctions();
    connect(context(), &QOpenGLContext::aboutToBeDestroyed, this, [this] {
        makeCurrent();
        release();
        doneCurrent();
    });
    program_ = std::make_unique<QOpenGLShaderProgram>();
    program_->addShaderFromSourceCode(QOpenGLShader::Vertex, kVertexShader);
    program_->addShaderFromSourceCode(QOpenGLShader::Fragment, kFragmentShader);
    program_->link();
    layout_.create();
    corners_.create();
    corners_.setUsagePattern(QOpenGLBuffer::DynamicDraw);
    uploaded_ = false;
}

QMatrix4x4 SolidView::projection() const {
    QMatrix4x4 m;
    const double near = std::max(1.0, orbit_.distance_mm * 0.02);
    m.perspective(float(Orbit::kView_deg), float(width()) / float(std::max(1, height())), float(near),
                  float(orbit_.distance_mm + 4000));
    return m;
}

QMatrix4x4 SolidView::camera() const {
    QMatrix4x4 m;
    m.lookAt(toQt(orbit_.eye_mm()), toQt(orbit_.target_mm), toQt(orbit_.up()));
    return m;
}

void SolidView::paintGL() {
    remake();
    const QColor ground = theme_.colors().mat;
    glClearColor(float(ground.redF()), float(ground.greenF()), float(ground.blueF()), 1);
    glClear(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);
    if (scene_.corners.empty() || !program_ || !program_->isLinked()) return;
    QOpenGLVertexArrayObject::Binder binder(&layout_);
    corners_.bind();
    if (!uploaded_) {
        corners_.allocate(scene_.corners.data(), int(scene_.corners.size() * sizeof(SolidCorner)));
        const int sizes[] = {3, 3, 4};
        std::size_t offset = 0;
        for (GLuint i = 0; i < 3; ++i) {
            glEnableVertexAttribArray(i);
            glVertexAttribPointer(i, sizes[i], GL_FLOAT, GL_FALSE, sizeof(SolidCorner),
                                  reinterpret_cast<const void *>(offset));
            offset += std::size_t(sizes[i]) * sizeof(float);
        }
        uploaded_ = true;
    }
    program_->bind();
    program_->setUniformValue("toClip", projection() * camera());
    program_->setUniformValue("eye", toQt(orbit_.eye_mm()));
    QVector4D plane(0, 0, 0, 1);
    if (cut_) {
        plane[cut_->axis] = 1;
        plane.setW(float(cut_->at_mm));
    }
    program_->setUniformValue("cut", plane);
    glEnable(GL_DEPTH_TEST);
    glDisable(GL_CULL_FACE); // what is cut open is seen from inside
    glDisable(GL_BLEND);
    glEnable(GL_POLYGON_OFFSET_FILL); // edges lie on their faces
    glPolygonOffset(1.0f, 1.0f);
    glDrawArrays(GL_TRIANGLES, 0, scene_.firm);
    glDisable(GL_POLYGON_OFFSET_FILL);
    glEnable(GL_BLEND);
    glBlendFunc(GL_SRC_ALPHA, GL_ONE_MINUS_SRC_ALPHA);
    glDepthMask(GL_FALSE);
    glDrawArrays(GL_LINES, scene_.firm + scene_.clear, scene_.edges);
    glDrawArrays(GL_TRIANGLES, scene_.firm, scene_.clear);
    glDepthMask(GL_TRUE);
    program_->release();
    corners_.release();
}

QPointF SolidView::toPixels(const Vec3 &point_mm) const {
    const QVector3D p = (projection() * camera()).map(toQt(point_mm));
    return {double(p.x() + 1) / 2 * width(), double(1 - p.y()) / 2 * height()};
}

QString SolidView::thingAt(const QPointF &pixels) const {
    const double half = height() / 2.0;
    const Vec3 d = orbit_.rayThrough((pixels.x() - width() / 2.0) / half, (half - pixels.y()) / half);
    return QString::fromStdString(pickedAlong(document_, looks_, cut_, orbit_.eye_mm(), d));
}

const Part *SolidView::heldAt(const QPointF &pixels) const {
    const Part *part = handsOff_ ? nullptr : document_.selectedPart();
    return part && document_.foldedShare() == 0 && thingAt(pixels).toStdString() == part->id ? part : nullptr;
}

Vec3 SolidView::draggedBy(const QPointF &pixels) const {
    const Part *part = findPart(document_.build(), held_);
    if (!part) return Vec3::Zero();
    const double depth_mm = (framePose(document_.build(), *part).position_mm - orbit_.eye_mm()).dot(orbit_.ahead());
    const double mm_per_px = 2 * depth_mm * std::tan(radiansFromDegrees(Orbit::kView_deg) / 2) / std::max(1, height());
    const QPointF by = pixels - pressAt_;
    const Vec3 shift = mm_per_px * (by.x() * orbit_.right() - by.y() * orbit_.up());
    constexpr double kStep_mm = 0.1;
    return (shift / kStep_mm).array().round().matrix() * kStep_mm;
}

bool SolidView::turnChosen(int key) {
    const Part *part = handsOff_ ? nullptr : document_.selectedPart();
    if (!part || (key != Qt::Key_Q && key != Qt::Key_E && key != Qt::Key_V)) return false;
    // About the frame's axis that points most at the viewer.
    Vec3 axis = Vec3::UnitX();
    if (key != Qt::Key_V) {
        int nearest = 0;
        const Vec3 eye = -orbit_.ahead();
        eye.cwiseAbs().maxCoeff(&nearest);
        axis = Vec3::Unit(nearest) * (eye[nearest] < 0 ? -1 : 1);
    }
    const QString name = key == Qt::Key_Q   ? tr("Turn %1 left")
                         : key == Qt::Key_E ? tr("Turn %1 right")
                                            : tr("Turn %1 upside down");
    document_.edit(name.arg(QString::fromStdString(part->name)),
                   bringAlong(document_.build(),
                              key == Qt::Key_V
                                  ? overturnPart(document_.build(), part->id)
                                  : turnPart(document_.build(), part->id, axis, key == Qt::Key_Q ? 90 : -90),
                              part->id));
    return true;
}

void SolidView::mousePressEvent(QMouseEvent *event) {
    pressAt_ = lastAt_ = event->position();
    held_.clear();
    moved_ = false;
    if (event->button() != Qt::LeftButton || event->modifiers() & Qt::ShiftModifier) return;
    if (const Part *part = heldAt(event->position())) {
        if (part->pinned)
            emit document_.refused(tr("%1 is pinned; Space unpins it.").arg(QString::fromStdString(part->name)));
        else
            held_ = part->id;
    }
}

void SolidView::mouseMoveEvent(QMouseEvent *event) {
    if (!held_.empty() && event->buttons() & Qt::LeftButton) { // a chosen part goes with the pointer
        if (!moved_ && (event->position() - pressAt_).manhattanLength() < 3) return;
        if (!moved_) start_ = document_.build();
        moved_ = true;
        document_.preview(bringAlong(start_, shiftPart(start_, held_, draggedBy(event->position())), held_));
        return;
    }
    const QPointF moved = event->position() - lastAt_;
    lastAt_ = event->position();
    Orbit next = orbit_;
    const bool pan = event->buttons() & (Qt::MiddleButton | Qt::RightButton) || event->modifiers() & Qt::ShiftModifier;
    if (pan) {
        const double mm_per_px =
            2 * orbit_.distance_mm * std::tan(radiansFromDegrees(Orbit::kView_deg) / 2) / std::max(1, height());
        next.target_mm += mm_per_px * (-moved.x() * orbit_.right() + moved.y() * orbit_.up());
    } else if (event->buttons() & Qt::LeftButton) {
        constexpr double kTurn_deg_per_px = 0.4;
        next.azimuth_deg -= kTurn_deg_per_px * moved.x();
        next.elevation_deg += kTurn_deg_per_px * moved.y();
    } else {
        return;
    }
    setOrbit(next);
}

void SolidView::mouseReleaseEvent(QMouseEvent *event) {
    const std::string held = std::exchange(held_, {});
    if (moved_) {
        moved_ = false;
        document_.commitPreview(tr("Move %1").arg(QString::fromStdString(displayName(document_.build(), held))));
        return;
    }
    if (event->button() != Qt::LeftButton || (event->position() - pressAt_).manhattanLength() >= 3) return;
    const QString id = thingAt(event->position());
    if (event->modifiers() & Qt::ShiftModifier)
        document_.toggleSelected(id);
    else
        document_.select(id);
}

void SolidView::wheelEvent(QWheelEvent *event) {
    Orbit next = orbit_;
    next.distance_mm *= std::pow(0.9985, event->angleDelta().y());
    setOrbit(next);
    event->accept();
}

void SolidView::keyPressEvent(QKeyEvent *event) {
    Orbit next = orbit_;
    constexpr double kStep_deg = 10, kZoom = 1.15;
    switch (event->key()) {
    case Qt::Key_Left: next.azimuth_deg -= kStep_deg; break;
    case Qt::Key_Right: next.azimuth_deg += kStep_deg; break;
    case Qt::Key_Up: next.elevation_deg += kStep_deg; break;
    case Qt::Key_Down: next.elevation_deg -= kStep_deg; break;
    case Qt::Key_Plus: next.distance_mm /= kZoom; break;
    case Qt::Key_Minus: next.distance_mm *= kZoom; break;
    case Qt::Key_0: fit(); return;
    case Qt::Key_Z:
        if (event->modifiers() & ~Qt::KeypadModifier) return QOpenGLWidget::keyPressEvent(event);
        zoomToChosen();
        return;
    case Qt::Key_Escape:
        if (moved_) {
            moved_ = false;
            held_.clear();
            document_.cancelPreview();
        } else
            document_.select({});
        return;
    default:
        if (event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier) ||
            !turnChosen(event->key()))
            QOpenGLWidget::keyPressEvent(event); // with Ctrl they are the window's
        return;
    }
    setOrbit(next);
}

void SolidView::zoomToChosen() {
    Aabb box;
    for (const auto &id : document_.selectedParts())
        if (const Part *part = findPart(document_.build(), id)) box.include(partBounds(document_.build(), *part));
    if (box.empty()) return;
    constexpr double kLeast_mm = 8, kRoom = 2; // it fills about half of the picture
    Orbit next = orbit_;
    next.target_mm = (box.min_mm + box.max_mm) / 2;
    next.distance_mm =
        kRoom * std::max(kLeast_mm, box.size_mm().norm() / 2) / std::sin(radiansFromDegrees(Orbit::kView_deg) / 2);
    setOrbit(next);
}

bool SolidView::focusNextPrevChild(bool next) {
    QStringList parts;
    for (const auto &part : document_.build().parts)
        if (document_.isAboardNow(part)) parts << QString::fromStdString(part.id);
    const auto to = walkTo(parts, document_.selected(), next);
    if (!to) return QOpenGLWidget::focusNextPrevChild(next);
    document_.select(*to);
    return true;
}

void SolidView::resizeGL(int, int) {
    if (fitted_ && !turned_) QMetaObject::invokeMethod(this, &SolidView::closeUp, Qt::QueuedConnection);
}

void SolidView::showEvent(QShowEvent *event) {
    QOpenGLWidget::showEvent(event);
    if (!fitted_) QMetaObject::invokeMethod(this, &SolidView::closeUp, Qt::QueuedConnection);
}

} // namespace waxis::drawing
