#include "app/stages/build/step_drawing.h"

#include "app/drawing/mat.h"
#include "app/drawing/wires.h"
#include "app/stages/build/step_sight.h"
#include "core/build/build.h"
#include "core/catalog/part_type.h"
#include "core/pins/signal.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace waxis::assembly {

using drawing::Picture;
using drawing::View;

StepDrawing::StepDrawing(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QGraphicsView(parent), document_(document), theme_(theme), scene_(View::plan, document, theme) {
    setObjectName("step-drawing");
    setAccessibleName(tr("Drawing of the step"));
    scene_.showIn(*this);
    drawing::prepareMapView(*this);
    drawing::Overlays overlays;
    overlays.marks = false;
    overlays.propellers = false;
    overlays.chosen = false;
    scene_.setOverlays(overlays);
    connect(&theme_, &theme::Theme::changed, this, [this] {
        resetCachedContent();
        viewport()->update();
    });
}

void StepDrawing::setView(View view) {
    chosenView_ = true;
    scene_.setView(view);
    if (step_) scene_.setExtra("step", picturesOf(*step_));
    closeUp();
    emit viewChanged();
}

View StepDrawing::betterView(const Step &step) const {
    // The way in lies in the picture, unless things are seen from above and nothing hides them.
    if (step.kind != OperationKind::fit) return View::plan;
    return std::abs(step.from.z()) > 0.5 && step.things.size() < 3 ? View::side : View::plan;
}

void StepDrawing::show(const AssemblyPlan &plan, int at) {
    if (at < 0 || at >= int(plan.steps.size())) {
        step_.reset();
        scene_.setExtra("step", {});
        scene_.setHidden({});
        return;
    }
    step_ = plan.steps[std::size_t(at)];
    const StepSight sight = sightOf(document_.build(), plan, std::size_t(at));
    fresh_ = sight.fresh;
    QSet<QString> hidden;
    for (const auto &id : sight.hidden) hidden.insert(QString::fromStdString(id));
    if (!chosenView_) scene_.setView(betterView(*step_));
    scene_.setHidden(hidden);
    scene_.setExtra("step", picturesOf(*step_));
    closeUp();
    emit viewChanged();
}

std::vector<Picture> StepDrawing::picturesOf(const Step &step) {
    const Build &build = document_.build();
    const auto &c = theme_.colors();
    std::vector<Picture> pictures{drawing::veilPicture(theme_)};
    QRectF news;
    for (const auto &id : fresh_) {
        if (step.kind == OperationKind::tie) break;
        Picture picture;
        picture.path = scene_.silhouetteOf(QString::fromStdString(id));
        if (picture.path.isEmpty()) continue; // a wire
        const Part *part = findPart(build, id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        picture.fill = theme::familyColor(type ? familyOf(type->kind) : Family::structure);
        picture.line = c.chalk;
        picture.width_px = 1.6;
        news |= picture.path.boundingRect();
        pictures.push_back(std::move(picture));
    }
    const auto &derived = document_.analysis().derived;
    for (const auto &joint : step.joints)
        for (std::size_t w = 0; w < build.wires.size() && w < derived.routes->size(); ++w) {
            const Wire &wire = build.wires[w];
            if (wire.id != joint.wire) continue;
            Picture picture;
            picture.path = drawing::wirePath(scene_.view(), (*derived.routes)[w].points_mm, 1, 1);
            picture.line = drawing::wireColor(derived.wiring->wires[w].role);
            picture.width_px = 3;
            news |= picture.path.boundingRect();
            pictures.push_back(std::move(picture));
            const bool atFrom = wire.from.part == joint.part && wire.from.port == joint.port;
            const auto exit = joint.part.empty() ? std::nullopt : portExit(build, atFrom ? wire.from : wire.to);
            if (!exit) continue;
            Picture ring;
            const QPointF at = drawing::project(scene_.view(), exit->position_mm);
            ring.path.addEllipse(at, 2.5, 2.5);
            ring.line = c.plumb;
            ring.width_px = 2.4;
            pictures.push_back(std::move(ring));
        }
    if (step.kind == OperationKind::tie)
        for (const auto &tie : build.ties)
            if (std::find(step.things.begin(), step.things.end(), tie.id) != step.things.end()) {
                Picture ring;
                ring.path.addEllipse(drawing::project(scene_.view(), tie.position_mm), 3, 3);
                ring.line = c.plumb;
                ring.width_px = 2.4;
                pictures.push_back(std::move(ring));
            }
    news_ = news;
    // The way in, where it is seen from here.
    const QPointF way = drawing::project(scene_.view(), step.from);
    if (step.kind == OperationKind::fit && !step.base && news.isValid() && std::hypot(way.x(), way.y()) > 0.3) {
        Picture arrow;
        constexpr double kLong_mm = 26, kHead_mm = 6;
        const double half = std::abs(way.x()) * news.width() / 2 + std::abs(way.y()) * news.height() / 2;
        const QPointF end = news.center() + way * (half + 3);
        arrow.path = drawing::arrowPath(end + way * kLong_mm, end, kHead_mm);
        arrow.line = c.plumb;
        arrow.width_px = 2.4;
        pictures.push_back(std::move(arrow));
    }
    return pictures;
}

void StepDrawing::look(QRectF content) {
    if (content.width() < 1 || content.height() < 1) return;
    content.adjust(-20, -34, 20, 34);
    constexpr double kLeast = 0.2, kMost = 8;
    const double scale = std::clamp(
        std::min(viewport()->width() / content.width(), viewport()->height() / content.height()), kLeast, kMost);
    setTransform(QTransform::fromScale(scale, scale));
    centerOn(content.center());
    scene_.layOutLabels(scale);
}

void StepDrawing::fit() {
    whole_ = true;
    look(scene_.contentRect());
}

void StepDrawing::closeUp() {
    const QRectF all = scene_.contentRect();
    if (whole_ || !news_.isValid() || news_.isEmpty()) return look(all);
    // With as much again on each side, and never nearer than a hand works.
    constexpr double kLeast_mm = 70;
    QRectF near = news_;
    const double across = std::max(kLeast_mm, std::max(near.width(), near.height()));
    near.adjust(-across / 2, -across / 3, across / 2, across / 3);
    look(near.intersected(all.adjusted(-30, -40, 30, 40)));
}

void StepDrawing::showEvent(QShowEvent *event) {
    QGraphicsView::showEvent(event);
    closeUp();
}

void StepDrawing::resizeEvent(QResizeEvent *event) {
    QGraphicsView::resizeEvent(event);
    if (isVisible()) closeUp();
}

} // namespace waxis::assembly
