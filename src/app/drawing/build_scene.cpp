#include "app/drawing/build_scene.h"

#include "app/drawing/axis_item.h"
#include "app/drawing/mark_layer.h"
#include "app/drawing/picture_layer.h"
#include "app/drawing/tag_board.h"
#include "app/theme/metrics.h"
#include "core/balance/mass_rows.h"
#include "core/build/chain.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/practice/blade_room.h"

#include <QEvent>
#include <QFontMetricsF>
#include <QGraphicsPathItem>
#include <QGraphicsView>
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
    layer_ = new PictureLayer(theme_, false);
    layer_->setZValue(1e5);
    addItem(layer_);
    cuts_ = new PictureLayer(theme_, true);
    cuts_->setZValue(9e4);
    addItem(cuts_);
    connect(&document_, &app::Document::changed, this, &BuildScene::follow);
    connect(&document_, &app::Document::judged, this, &BuildScene::follow);
    connect(&document_, &app::Document::redrawn, this, &BuildScene::follow);
    connect(&document_, &app::Document::selectionChanged, this, &BuildScene::follow);
    connect(&document_, &app::Document::highlightChanged, this, &BuildScene::follow);
    connect(&theme_, &theme::Theme::changed, this, [this] {
        rebuildFrame();
        updateMarks();
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

void BuildScene::setHidden(const QSet<QString> &ids) {
    if (ids == hidden_) return;
    hidden_ = ids;
    rebuildFrame();
    update();
}

QStringList BuildScene::drawnParts() const {
    QStringList ids;
    for (const auto &part : document_.drawnBuild().parts)
        if (const auto *drawn = item(QString::fromStdString(part.id)); drawn && drawn->isVisible())
            ids << QString::fromStdString(part.id);
    return ids;
}

void BuildScene::rebuildFrame() {
    for (const auto &member : frameItems_) {
        removeItem(member.item);
        delete member.item;
    }
    frameItems_.clear();
    drawnFrame_ = document_.drawnBuild().frame;
    drawnSection_ = section_;
    drawnPractice_ = document_.analysis().practice;
    const auto &c = theme_.colors();
    auto add = [&](const std::string &id, const Shape &shape, const Pose &pose, const QColor &fill, const QColor &line,
                   bool disc = false) {
        auto *item = addPath(outline(view_, shape, pose));
        const Cut cut = cutOf(shape, pose);
        item->setVisible((cut != Cut::before || disc) && !hidden_.contains(QString::fromStdString(id)));
        constexpr double kFaint = 0.45;
        if (cut == Cut::through) item->setOpacity(kFaint);
        QPen pen(line, 1.0);
        pen.setCosmetic(true);
        item->setPen(pen);
        item->setBrush(fill);
        item->setZValue(nearness(view_, shape, pose));
        item->setAcceptedMouseButtons(Qt::NoButton);
        item->setCacheMode(QGraphicsItem::DeviceCoordinateCache);
        frameItems_.push_back({id, item, disc});
        return item;
    };
    QColor plateFill = theme::familyColor(Family::structure), armFill = plateFill.darker(125);
    plateFill.setAlphaF(view_ == View::plan ? 0.34f : 0.85f);
    armFill.setAlphaF(view_ == View::plan ? 0.75f : 0.95f);
    for (const auto &arm : drawnFrame_->arms) {
        add(arm.id, armShape(arm), armPose(arm), armFill, c.softChalk);
        for (const auto &mouth : armMouths(arm)) add(arm.id, mouth.first, mouth.second, c.mat, c.softChalk);
    }
    for (const auto &plate : drawnFrame_->plates) {
        if (view_ != View::plan) {
            add(plate.id, plateShape(plate), platePose(plate), plateFill, c.softChalk);
            continue;
        }
        // The solid's holes are polygons; on the mat they are round.
        auto *item = add(plate.id, Prism{{plate.outline_mm, plate.cutouts_mm}, plate.thickness_mm}, platePose(plate),
                         plateFill, c.softChalk);
        QPainterPath path = item->path();
        for (const auto &hole : plate.holes)
            path.addEllipse(project(view_, {hole.centre_mm.x(), hole.centre_mm.y(), 0}), hole.diameter_mm / 2,
                            hole.diameter_mm / 2);
        item->setPath(path);
    }
    for (const auto &standoff : drawnFrame_->standoffs)
        add(standoff.id, standoffShape(standoff), standoffPose(standoff), theme::familyColor(Family::structure),
            c.matBar);
    const Brackets brackets = bracketsOf(document_.drawnBuild());
    for (const auto &screw : drawnFrame_->screws)
        for (const auto &[shape, pose] : bodiesOf(*drawnFrame_, screw, brackets))
            add(screw.id, shape, pose, theme::familyColor(Family::structure).lighter(130), c.matBar);
    if (!overlays_.propellers || document_.foldedShare() > 0) return; // what is folded does not turn
    for (const auto &mount : drawnFrame_->motorMounts) {
        const BladeRoom room = bladeRoomOf(drawnPractice_);
        QColor veil = c.softChalk;
        veil.setAlphaF(0.10f);
        auto *disc = add(mount.id, discShape(mount, room), discPose(mount, room), veil, c.softChalk, true);
        QPen pen = disc->pen();
        pen.setStyle(Qt::DashLine);
        disc->setPen(pen);
    }
}

PartItem *BuildScene::item(const QString &part) const {
    const auto at = parts_.find(part.toStdString());
    return at == parts_.end() ? nullptr : at->second;
}

void BuildScene::follow() {
    const auto seenBy = views();
    if (seenBy.isEmpty() || std::any_of(seenBy.begin(), seenBy.end(), [](auto *view) { return view->isVisible(); }))
        return update();
    stale_ = true;
}

void BuildScene::catchUp() {
    if (stale_) update();
}

void BuildScene::showIn(QGraphicsView &view) {
    view.setScene(this);
    view.installEventFilter(this);
}

bool BuildScene::eventFilter(QObject *watched, QEvent *event) {
    if (event->type() == QEvent::Show) catchUp();
    return QGraphicsScene::eventFilter(watched, event);
}

void BuildScene::update() {
    stale_ = false;
    const Build &build = document_.drawnBuild();
    if (!drawnFrame_.sharesWith(build.frame) || !(drawnPractice_ == document_.analysis().practice) ||
        drawnSection_ != section_)
        rebuildFrame();
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
        PartType squeezed;
        const PartType &drawn = placedType(build, part, *type, squeezed);
        item->show(build, part, drawn);
        const auto id = QString::fromStdString(part.id);
        const Cut cut = section_ ? cutOf(framePose(build, part), drawn) : Cut::behind;
        item->setMarks(document_.selection().contains(id), document_.highlighted().contains(id),
                       document_.isAboardNow(part) && cut != Cut::before && !hidden_.contains(id));
        item->setOpacity(cut == Cut::through ? 0.45 : 1.0);
        present.emplace(part.id, item);
    }
    for (auto &[id, item] : parts_) { // what is left is no longer in the build
        removeItem(item);
        delete item;
    }
    parts_ = std::move(present);
    const auto cg = document_.drawnCg_mm();
    const Vec3 thrust = document_.analysis().derived.thrustCentre_mm;
    auto offset = document_.offset_mm();
    if (offset && cg && document_.foldedShare() > 0) offset->head<2>() = (*cg - thrust).head<2>();
    axis_->show(view_, cg, thrust, offset);
    updateMarks();
}

BuildScene::Cut BuildScene::cutOf(const Shape &shape, const Pose &pose) const {
    if (!section_ || view_ == View::plan) return Cut::behind;
    const Vec3 eye = towardsViewer(view_);
    const double plane = eye.dot(eye.cwiseAbs() * *section_);
    const double nearest = nearness(view_, shape, pose);
    const double farthest = eye.dot(pose * supportPoint(shape, pose.rotation.conjugate() * -eye));
    return farthest >= plane ? Cut::before : nearest > plane ? Cut::through : Cut::behind;
}

BuildScene::Cut BuildScene::cutOf(const Pose &pose, const PartType &type) const {
    bool before = false, behind = false;
    for (const auto &solid : type.solids) {
        const Cut cut = cutOf(solid.shape, pose * solid.X_PartSolid);
        before |= cut != Cut::behind;
        behind |= cut != Cut::before;
    }
    return before && behind ? Cut::through : before ? Cut::before : Cut::behind;
}

void BuildScene::setSection(std::optional<double> at_mm) {
    if (at_mm == section_) return;
    section_ = at_mm;
    update();
}

void BuildScene::setExtra(const std::string &name, std::vector<Picture> pictures) {
    auto &kept = extra_[name];
    if (kept == pictures) return;
    kept = std::move(pictures);
    updateMarks();
}

const std::vector<Picture> &BuildScene::pictures() const { return layer_->pictures(); }

void BuildScene::updatePictures() {
    std::vector<Picture> pictures = picturesOf(view_, document_, overlays_, theme_, hidden_);
    for (const auto &id : document_.selection()) {
        if (findPart(document_.build(), id.toStdString())) continue; // parts draw their own frame
        if (const auto path = silhouetteOf(id); !path.isEmpty())
            pictures.push_back({path, theme_.colors().chalk, {}, Qt::SolidLine, 2, {}, {}});
    }
    for (const auto &[name, more] : extra_) pictures.insert(pictures.end(), more.begin(), more.end());
    tags_ = layOutTags(pictures);
    layer_->show(std::move(pictures));
    cuts_->show(section_ ? sectionPictures(view_, *section_, document_) : std::vector<Picture>{});
}

std::vector<QRectF> BuildScene::layOutTags(std::vector<Picture> &pictures) const {
    const double px = 1 / pixelsPerMm_;
    constexpr double kLabel_px = 60;
    TagBoard board(kLabel_px * px);
    constexpr double kMark_px = 9;
    for (const auto &at : markPoints_)
        board.keepClear(QRectF(at, at).adjusted(-kMark_px * px, -kMark_px * px, kMark_px * px, kMark_px * px));
    for (const auto &[id, item] : parts_)
        if (item->isVisible())
            if (const QRectF label = item->shownLabel(pixelsPerMm_); !label.isNull()) board.keepClear(label);
    if (const QRectF words = axis_->wordsRect(); !words.isNull()) board.keepClear(words);
    const std::size_t before = board.taken().size();
    const QFontMetricsF metrics(theme_.numbers(theme::kSmallPixels));
    for (auto &picture : pictures) {
        if (picture.tag.isEmpty()) continue;
        const QSizeF size((metrics.horizontalAdvance(picture.tag) + 10) * px, (metrics.height() + 4) * px);
        picture.tagAt = board.place(picture.tagAt, size).center();
    }
    return {board.taken().begin() + std::ptrdiff_t(before), board.taken().end()};
}

QStringList BuildScene::frameAt(const QPointF &scenePoint) const {
    std::vector<const FrameItem *> hit;
    for (const auto &member : frameItems_)
        if (!member.disc && member.item->isVisible() && member.item->path().contains(scenePoint))
            hit.push_back(&member);
    std::sort(hit.begin(), hit.end(),
              [](const auto *a, const auto *b) { return a->item->zValue() > b->item->zValue(); });
    QStringList ids;
    for (const auto *member : hit) ids << QString::fromStdString(member->id);
    return ids;
}

QPainterPath BuildScene::silhouetteOf(const QString &id) const {
    if (const auto *part = item(id)) return part->silhouette();
    for (const auto &member : frameItems_)
        if (!member.disc && member.id == id.toStdString()) return member.item->path();
    return {};
}

void BuildScene::updateMarks() {
    MarkLayer::Content content;
    const auto &analysis = document_.analysis();
    const auto &derived = analysis.derived;
    auto aboard = [&](const std::string &id) {
        const Part *part = findPart(document_.build(), id);
        return !part || document_.isAboardNow(*part);
    };
    if (overlays_.marks)
        for (const auto &finding : analysis.findings) {
            if (finding.accepted() || !finding.from_mm || finding.rule == RuleId::balOffset) continue;
            if (document_.foldedShare() > 0 && finding.rule != RuleId::fitFolding) continue; // it stands elsewhere now
            if (!std::all_of(finding.subjects.begin(), finding.subjects.end(), aboard)) continue;
            content.marks.push_back({project(view_, *finding.from_mm),
                                     project(view_, finding.to_mm.value_or(*finding.from_mm)), finding.severity});
        }
    if (overlays_.grams)
        for (std::size_t i = 0; i < derived.massRows.size(); ++i) {
            const MassRow &row = derived.massRows[i];
            if (!(row.cases >> document_.loadCase() & 1) || !(row.element.mass_g > 0)) continue;
            constexpr double kRadiusPerRootGram_mm = 1.0;
            content.grams.push_back(
                {project(view_, row.element.centroid_mm), kRadiusPerRootGram_mm * std::sqrt(row.element.mass_g)});
        }
    if (const Part *part = document_.selectedPart(); part && overlays_.chosen && document_.foldedShare() == 0) {
        const int owner = int(part - document_.build().parts.data());
        constexpr double kReach_mm = 60;
        const auto near = nearestThings(derived.scene, owner, document_.loadCase(), kReach_mm, 3);
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
    if (const auto *mass = document_.mass(); mass && mass->cg_mm) markPoints_.push_back(project(view_, *mass->cg_mm));
    updatePictures();
    content.keepClear = tags_;
    if (const QRectF words = axis_->wordsRect(); !words.isNull()) content.keepClear.push_back(words);
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

QRectF BuildScene::contentRect() {
    catchUp();
    QRectF rect;
    for (const auto &member : frameItems_) rect |= member.item->sceneBoundingRect();
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
    const bool rescaled = pixelsPerMm != pixelsPerMm_;
    pixelsPerMm_ = pixelsPerMm;
    axis_->setPixelsPerMm(pixelsPerMm);
    marks_->setPixelsPerMm(pixelsPerMm);
    layer_->setPixelsPerMm(pixelsPerMm);
    cuts_->setPixelsPerMm(pixelsPerMm);
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
    if (rescaled) updateMarks(); // tags keep their size on screen
}

} // namespace waxis::drawing
