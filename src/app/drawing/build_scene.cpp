#include "app/drawing/build_scene.h"

#include "app/drawing/axis_item.h"
#include "app/drawing/mark_layer.h"
#include "core/build/frame_shapes.h"

#include <QGraphicsPathItem>
#include <algorithm>
#include <cmath>

namespace waxis::drawing {

BuildScene::BuildScene(View view, app::Document &document, const theme::Theme &theme, QObject *parent)
    : QGraphicsScene(parent), view_(view), document_(document), theme_(theme) {
    setItemIndexMethod(QGraphicsScene::NoIndex); // everything may move; an index would be rebuilt all the time
    setSceneRect(wholeScene());
    axis_ = new AxisItem(theme_);
    axis_->setZValue(1e6);
    addItem(axis_);
    marks_ = new MarkLayer(theme_);
    addItem(marks_);
    connect(&document_, &app::Document::changed, this, &BuildScene::update);
    connect(&document_, &app::Document::selectionChanged, this, &BuildScene::update);
    connect(&document_, &app::Document::highlightChanged, this, &BuildScene::update);
    connect(&theme_, &theme::Theme::changed, this, [this] {
        rebuildFrame();
        QGraphicsScene::update();
    });
    rebuildFrame();
    update();
}

void BuildScene::setView(View view) {
    if (view == view_) return;
    view_ = view;
    for (auto &[id, item] : parts_) {
        removeItem(item);
        delete item;
    }
    parts_.clear();
    rebuildFrame();
    update();
}

void BuildScene::setOverlays(const Overlays &overlays) {
    if (overlays == overlays_) return;
    overlays_ = overlays;
    rebuildFrame();
    update();
}

void BuildScene::rebuildFrame() {
    for (auto *item : frameItems_) {
        removeItem(item);
        delete item;
    }
    frameItems_.clear();
    drawnFrame_ = document_.build().frame;
    drawnPractice_ = document_.analysis().practice;
    const auto &c = theme_.colors();
    auto add = [&](const Shape &shape, const Pose &pose, const QColor &fill, const QColor &line) {
        auto *item = addPath(outline(view_, shape, pose));
        QPen pen(line, 1.0);
        pen.setCosmetic(true);
        item->setPen(pen);
        item->setBrush(fill);
        item->setZValue(nearness(view_, shape, pose));
        item->setAcceptedMouseButtons(Qt::NoButton);
        item->setCacheMode(QGraphicsItem::DeviceCoordinateCache);
        frameItems_.push_back(item);
        return item;
    };
    QColor plateFill = theme::familyColor(Family::structure), armFill = plateFill.darker(125);
    plateFill.setAlphaF(view_ == View::plan ? 0.34f : 0.85f);
    armFill.setAlphaF(view_ == View::plan ? 0.75f : 0.95f);
    for (const auto &arm : drawnFrame_->arms) add(armShape(arm), armPose(arm), armFill, c.softChalk);
    for (const auto &plate : drawnFrame_->plates) {
        if (view_ != View::plan) {
            add(plateShape(plate), platePose(plate), plateFill, c.softChalk);
            continue;
        }
        // The solid's holes are polygons; on the mat they are round.
        auto *item = add(Prism{{plate.outline_mm, plate.cutouts_mm}, plate.thickness_mm}, platePose(plate), plateFill,
                         c.softChalk);
        QPainterPath path = item->path();
        for (const auto &hole : plate.holes)
            path.addEllipse(project(view_, {hole.centre_mm.x(), hole.centre_mm.y(), 0}), hole.diameter_mm / 2,
                            hole.diameter_mm / 2);
        item->setPath(path);
    }
    for (const auto &standoff : drawnFrame_->standoffs)
        add(standoffShape(standoff), standoffPose(standoff), theme::familyColor(Family::structure), c.matBar);
    if (!overlays_.propellers) return;
    for (const auto &mount : drawnFrame_->motorMounts) {
        const double up = drawnPractice_[Limit::propFlexUp], down = drawnPractice_[Limit::propFlexDown];
        QColor veil = c.softChalk;
        veil.setAlphaF(0.10f);
        auto *disc = add(discShape(mount, up, down), discPose(mount, up, down), veil, c.softChalk);
        QPen pen = disc->pen();
        pen.setStyle(Qt::DashLine);
        disc->setPen(pen);
    }
}

PartItem *BuildScene::item(const QString &part) const {
    const auto at = parts_.find(part.toStdString());
    return at == parts_.end() ? nullptr : at->second;
}

void BuildScene::update() {
    const Build &build = document_.build();
    if (!drawnFrame_.sharesWith(build.frame) || !(drawnPractice_ == document_.analysis().practice)) rebuildFrame();
    std::map<std::string, PartItem *> present;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        const auto found = parts_.find(part.id);
        PartItem *item = found == parts_.end() ? new PartItem(view_, theme_) : found->second;
        if (found == parts_.end())
            addItem(item);
        else
            parts_.erase(found);
        item->show(build, part, *type);
        const auto id = QString::fromStdString(part.id);
        item->setMarks(id == document_.selected(), document_.highlighted().contains(id), document_.isAboardNow(part));
        present.emplace(part.id, item);
    }
    for (auto &[id, item] : parts_) { // what is left is no longer in the build
        removeItem(item);
        delete item;
    }
    parts_ = std::move(present);
    const auto *balance = document_.balance();
    axis_->show(view_, balance ? balance->mass.cg_mm : std::nullopt, document_.analysis().derived.thrustCentre_mm,
                balance ? balance->offset_mm : std::nullopt);
    updateMarks();
}

void BuildScene::updateMarks() {
    MarkLayer::Content content;
    const auto &analysis = document_.analysis();
    const auto &derived = analysis.derived;
    const auto *balance = document_.balance();
    auto aboard = [&](const std::string &id) {
        const Part *part = findPart(document_.build(), id);
        return !part || document_.isAboardNow(*part);
    };
    if (overlays_.marks)
        for (const auto &finding : analysis.findings) {
            if (finding.accepted() || !finding.from_mm || finding.rule == RuleId::balOffset) continue;
            if (!std::all_of(finding.subjects.begin(), finding.subjects.end(), aboard)) continue;
            content.marks.push_back({project(view_, *finding.from_mm),
                                     project(view_, finding.to_mm.value_or(*finding.from_mm)), finding.severity});
        }
    if (overlays_.grams && balance)
        for (std::size_t i = 0; i < derived.massRows.size(); ++i) {
            const MassRow &row = derived.massRows[i];
            if (!(row.cases >> document_.loadCase() & 1) || !(row.element.mass_g > 0)) continue;
            constexpr double kRadiusPerRootGram_mm = 1.0;
            content.grams.push_back(
                {project(view_, row.element.centroid_mm), kRadiusPerRootGram_mm * std::sqrt(row.element.mass_g)});
        }
    if (const Part *part = document_.selectedPart()) {
        const int owner = int(part - document_.build().parts.data());
        constexpr double kReach_mm = 60;
        const auto near = nearestThings(derived, owner, document_.loadCase(), kReach_mm, 3);
        if (const auto *own = item(document_.selected())) {
            content.distancesBeside = own->silhouette().boundingRect();
            content.distancesOnLeft =
                content.distancesBeside.center().x() < project(view_, derived.thrustCentre_mm).x();
        }
        for (const auto &gap : near)
            if (gap.distance_mm > 0.05)
                content.distances.push_back({project(view_, gap.onA_mm), project(view_, gap.onB_mm),
                                             tr("%1 mm").arg(gap.distance_mm, 0, 'f', 1)});
    }
    markPoints_.clear();
    for (const auto &mark : content.marks) markPoints_.push_back((mark.from + mark.to) / 2);
    if (balance && balance->mass.cg_mm) markPoints_.push_back(project(view_, *balance->mass.cg_mm));
    content.dragFrom = drag_.from;
    content.dragRaw = drag_.raw;
    content.guides = drag_.guides;
    content.dragText = drag_.text;
    if (!drag_.text.isEmpty()) content.dragAt = drag_.raw.boundingRect().bottomRight();
    marks_->show(std::move(content));
}

void BuildScene::showDrag(const DragMarks &marks) {
    drag_ = marks;
    updateMarks();
}

void BuildScene::clearDrag() {
    drag_ = {};
    updateMarks();
}

QRectF BuildScene::contentRect() const {
    QRectF rect;
    for (const auto *item : frameItems_) rect |= item->sceneBoundingRect();
    for (const auto &[id, item] : parts_)
        if (item->isVisible()) rect |= item->sceneBoundingRect();
    return rect;
}

QStringList BuildScene::partsAt(const QPointF &scenePoint) const {
    std::vector<const PartItem *> hit;
    for (const auto &[id, item] : parts_)
        if (item->isVisible() && item->silhouette().contains(scenePoint)) hit.push_back(item);
    std::sort(hit.begin(), hit.end(), [](const auto *a, const auto *b) { return a->zValue() > b->zValue(); });
    QStringList ids;
    for (const auto *item : hit) ids << item->id();
    return ids;
}

void BuildScene::layOutLabels(double pixelsPerMm) {
    axis_->setPixelsPerMm(pixelsPerMm);
    marks_->setPixelsPerMm(pixelsPerMm);
    std::vector<PartItem *> order;
    for (auto &[id, item] : parts_) order.push_back(item);
    std::stable_sort(order.begin(), order.end(),
                     [](const auto *a, const auto *b) { return a->zValue() > b->zValue(); });
    // Marks come first: a label makes room for them.
    constexpr double kMark_px = 9;
    const double room = kMark_px / pixelsPerMm;
    std::vector<QRectF> taken;
    for (const auto &at : markPoints_) taken.push_back(QRectF(at, at).adjusted(-room, -room, room, room));
    std::vector<QPainterPath> above; // silhouettes nearer to the viewer
    for (auto *item : order) {
        if (!item->isVisible()) continue;
        auto isFree = [&](const QRectF &rect) {
            return std::none_of(taken.begin(), taken.end(), [&](const QRectF &r) { return r.intersects(rect); }) &&
                   std::none_of(above.begin(), above.end(), [&](const auto &a) { return a.intersects(rect); });
        };
        const auto places = item->labelPlaces(pixelsPerMm);
        const auto place = std::find_if(places.begin(), places.end(), isFree);
        item->showLabelAt(place == places.end() ? std::nullopt : std::optional(place->center()));
        if (place != places.end()) taken.push_back(*place);
        if (item->covers()) above.push_back(item->silhouette());
    }
}

} // namespace waxis::drawing
