// dxflib calls back for each entity; blocks are kept as they come and put in place at the end, because a block may be
// used before it is complete and its parts must be flattened at the scale at which they stand.
#include "io/drawing/dxf_reader.h"

#include "core/base/units.h"
#include "io/drawing/curve.h"
#include "io/drawing/dxf_text.h"
#include "io/file_bytes.h"
#include "io/text_encoding.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <fmt/format.h>
#include <map>
#include <set>
#include <sstream>

namespace waxis {

using io::Affine;
using io::Curve;

namespace {

constexpr std::size_t kMostPaths = 100'000;
constexpr std::size_t kMostPoints = 4'000'000;
constexpr int kDeepestBlock = 12;
constexpr std::size_t kMostVisits = 200'000; ///< blocks put in place, those that leave nothing counted too
constexpr std::size_t kMostLayers = 4'000;
/// Finer than promised: what an outline weighs hangs on it.
constexpr double kChord_mm = kFlattening_mm / 4;

struct Entity {
    std::string layer, kind;
    std::vector<Curve> curves; ///< end to end
    bool closed = false;
    std::optional<DrawnCircle> circle; ///< in its own coordinates and units
};

/// A block, once or in a grid; the grid is only laid out when it is put in place.
struct Insert {
    std::string layer, block;
    Affine map; ///< of the first copy, up to its own scale
    int columns = 1, rows = 1;
    double columnStep = 0, rowStep = 0;
    Vec2 scale = Vec2::Ones();
    Affine copy(int column, int row) const {
        return map * Eigen::Translation2d(column * columnStep, row * rowStep) * Eigen::Scaling(scale.x(), scale.y());
    }
};

struct Writing {
    std::string layer, text;
    Vec2 at;
};

struct Block {
    Vec2 base = Vec2::Zero();
    std::vector<Entity> entities;
    std::vector<Insert> inserts;
    std::vector<Writing> writing = {};
};

/// $INSUNITS values that are lengths of this world.
const DrawingUnit *unitOfHeader(int code) {
    switch (code) {
    case 1: return findDrawingUnit("in");
    case 2: return findDrawingUnit("ft");
    case 4: return findDrawingUnit("mm");
    case 5: return findDrawingUnit("cm");
    case 6: return findDrawingUnit("m");
    case 9: return findDrawingUnit("mil");
    case 13: return findDrawingUnit("um");
    default: return nullptr; // none, miles, light years
    }
}

/// Thrown out of the parser, which asks nobody whether to go on.
struct GivenUp {};

class Collector : public DL_CreationAdapter {
public:
    std::stop_token stop;
    std::map<std::string, Block> blocks;
    Block model;
    std::map<std::pair<std::string, std::string>, int> left; ///< what (with why) by count, per layer
    std::optional<int> headerUnits;
    bool tooMuch = false;
    std::size_t entityCount = 0;

    void setVariableInt(const std::string &key, int value, int) override {
        if (key == "$INSUNITS") headerUnits = value;
    }

    void addBlock(const DL_BlockData &data) override {
        finish();
        auto [at, isNew] = blocks.try_emplace(data.name);
        block_ = &at->second;
        block_->base = {data.bpx, data.bpy};
        // The model and paper spaces are blocks too; their entities stand in the ENTITIES section.
        if (!isNew) *block_ = Block{block_->base, {}, {}, {}};
    }
    void endBlock() override {
        finish();
        block_ = nullptr;
    }
    /// Comes between the corners of an old polyline too: whatever follows next ends the entity.
    void endEntity() override {}
    void end() { finish(); }
    void endSequence() override { finish(); }

    void addLine(const DL_LineData &d) override {
        finish();
        put("line", {io::lineCurve({d.x1, d.y1}, {d.x2, d.y2})}, false, {d.x1, d.y1, d.x2, d.y2});
    }
    void addArc(const DL_ArcData &d) override {
        finish();
        const double from = radiansFromDegrees(d.angle1);
        double to = radiansFromDegrees(d.angle2);
        if (!std::isfinite(from) || !std::isfinite(to)) return drop("arc", "its numbers are not finite");
        to = from + std::fmod(std::fmod(to - from, 2 * kPi) + 2 * kPi, 2 * kPi);
        if (to <= from + 1e-12) to = from + 2 * kPi;
        if (!(d.radius > 0)) return drop("arc", "it has no radius");
        put("arc", {io::arcCurve({d.cx, d.cy}, d.radius, from, to)}, false, {d.cx, d.cy, d.radius});
    }
    void addCircle(const DL_CircleData &d) override {
        finish();
        if (!(d.radius > 0)) return drop("circle", "it has no radius");
        put("circle", {io::arcCurve({d.cx, d.cy}, d.radius, 0, 2 * kPi)}, true, {d.cx, d.cy, d.radius},
            DrawnCircle{{d.cx, d.cy}, 2 * d.radius});
    }
    void addEllipse(const DL_EllipseData &d) override {
        finish();
        double to = d.angle2;
        if (!std::isfinite(d.angle1) || !std::isfinite(to) || std::abs(d.angle1) > 1e6 || std::abs(to) > 1e6)
            return drop("ellipse", "its numbers are not finite");
        while (to <= d.angle1 + 1e-12) to += 2 * kPi;
        const bool whole = to - d.angle1 > 2 * kPi - 1e-6;
        put("ellipse",
            {io::ellipseCurve({d.cx, d.cy}, {d.mx, d.my}, d.ratio, d.angle1, std::min(to, d.angle1 + 2 * kPi))}, whole,
            {d.cx, d.cy, d.mx, d.my, d.ratio});
    }
    void addPolyline(const DL_PolylineData &d) override {
        finish();
        if (d.flags & 0x50) return drop("polygon mesh", "meshes are no outlines");
        begin(Pending::polyline);
        closed_ = d.flags & 1;
    }
    void addVertex(const DL_VertexData &d) override {
        if (pending_ == Pending::polyline) vertices_.push_back({{d.x, d.y}, d.bulge});
    }
    void addSpline(const DL_SplineData &d) override {
        finish();
        begin(Pending::spline);
        spline_ = {};
        spline_.degree = int(std::min(d.degree, 100u));
        spline_.closed = d.flags & 1;
    }
    void addControlPoint(const DL_ControlPointData &d) override {
        if (pending_ != Pending::spline) return;
        spline_.controls.emplace_back(d.x, d.y);
        spline_.weights.push_back(d.w);
    }
    void addFitPoint(const DL_FitPointData &d) override {
        if (pending_ == Pending::spline) spline_.fits.emplace_back(d.x, d.y);
    }
    void addKnot(const DL_KnotData &d) override {
        if (pending_ == Pending::spline) spline_.knots.push_back(d.k);
    }
    void addInsert(const DL_InsertData &insert) override {
        finish();
        const auto &[name, x, y, z, scaleX, scaleY, scaleZ, angle, across, up, columnStep, rowStep] = insert;
        constexpr int kMostCopies = 10'000;
        const int columns = std::max(across, 1), rows = std::max(up, 1);
        if (columns > kMostCopies || rows > kMostCopies || columns * rows > kMostCopies)
            return drop("block " + readableName(name), "more than 10,000 copies in a grid");
        for (double value : {x, y, scaleX, scaleY, angle, columnStep, rowStep})
            if (!(std::abs(value) < 1e9)) return drop("block " + readableName(name), "its numbers are not finite");
        Affine map = mirror();
        map = map * Eigen::Translation2d(x, y) * Eigen::Rotation2Dd(radiansFromDegrees(angle));
        target().inserts.push_back({layer(), name, map, columns, rows, columnStep, rowStep, Vec2(scaleX, scaleY)});
    }

    void addPoint(const DL_PointData &) override { drop("point", "points are no outlines"); }
    void addText(const DL_TextData &data) override {
        const auto &[x, y, z, alignX, alignY, alignZ, high, wide, flags, across, upwards, words, style, angle] = data;
        write(words, x, y);
    }
    void addMText(const DL_MTextData &data) override {
        const auto &[x, y, z, wayX, wayY, wayZ, high, wide, attached, way, spacing, factor, words, style, angle] = data;
        write(words, x, y);
    }
    void addArcAlignedText(const DL_ArcAlignedTextData &) override { drop("text", "writing is not cut"); }
    void addAttribute(const DL_AttributeData &) override { drop("text", "writing is not cut"); }
    void addSolid(const DL_SolidData &) override { drop("filled area", "fillings are no outlines"); }
    void addTrace(const DL_TraceData &) override { drop("filled area", "fillings are no outlines"); }
    void add3dFace(const DL_3dFaceData &) override { drop("face in space", "only flat outlines are read"); }
    void addXLine(const DL_XLineData &) override { drop("construction line", "endless lines are no outlines"); }
    void addRay(const DL_RayData &) override { drop("construction line", "endless lines are no outlines"); }
    void addLeader(const DL_LeaderData &) override { drop("leader", "notes are not cut"); }
    void addHatch(const DL_HatchData &) override { drop("hatch", "fillings are no outlines; draw their border"); }
    void addImage(const DL_ImageData &) override { drop("picture", "pictures cannot be read"); }
    void addDimAlign(const DL_DimensionData &, const DL_DimAlignedData &) override { dropDimension(); }
    void addDimLinear(const DL_DimensionData &, const DL_DimLinearData &) override { dropDimension(); }
    void addDimRadial(const DL_DimensionData &, const DL_DimRadialData &) override { dropDimension(); }
    void addDimDiametric(const DL_DimensionData &, const DL_DimDiametricData &) override { dropDimension(); }
    void addDimAngular(const DL_DimensionData &, const DL_DimAngular2LData &) override { dropDimension(); }
    void addDimAngular3P(const DL_DimensionData &, const DL_DimAngular3PData &) override { dropDimension(); }
    void addDimOrdinate(const DL_DimensionData &, const DL_DimOrdinateData &) override { dropDimension(); }

private:
    enum class Pending { none, polyline, spline };
    struct Vertex {
        Vec2 at;
        double bulge;
    };

    Block &target() { return block_ ? *block_ : model; }
    std::string layer() { return readableName(getAttributes().getLayer()); }
    /// Entities whose own axes look down are mirrored.
    Affine mirror() {
        Affine map = Affine::Identity();
        double direction[3] = {0, 0, 1};
        if (getExtrusion()) getExtrusion()->getDirection(direction);
        if (direction[2] < 0) map.linear()(0, 0) = -1;
        return map;
    }
    /// Writing is not cut; a plate may take its name from it.
    void write(const std::string &words, double x, double y) {
        finish();
        drop("text", "writing is not cut");
        constexpr std::size_t kMostWriting = 2000;
        if (target().writing.size() >= kMostWriting || !(std::abs(x) < 1e9) || !(std::abs(y) < 1e9)) return;
        const Vec2 at = mirror() * Vec2(x, y);
        if (std::string text = plainText(words); !text.empty())
            target().writing.push_back({layer(), std::move(text), at});
    }
    void drop(const std::string &what, const std::string &why) { dropFrom(layer(), what, why); }
    void dropFrom(const std::string &on, const std::string &what, const std::string &why) {
        ++left[{fmt::format("{}|{}", what, why), block_ ? std::string() : on}];
    }
    void dropDimension() { drop("dimension", "dimensions are not cut"); }

    void put(const char *kind, std::vector<Curve> curves, bool closed, std::initializer_list<double> numbers,
             std::optional<DrawnCircle> circle = {}) {
        putOn(layer(), mirror(), kind, std::move(curves), closed, numbers, circle);
    }
    void putOn(const std::string &on, const Affine &map, const char *kind, std::vector<Curve> curves, bool closed,
               std::initializer_list<double> numbers, std::optional<DrawnCircle> circle = {}) {
        for (double number : numbers)
            if (!(std::abs(number) < 1e9)) return drop(kind, "its numbers are not finite");
        if (stop.stop_requested()) throw GivenUp();
        if (++entityCount > kMostPaths) {
            tooMuch = true;
            return;
        }
        if (map.linear()(0, 0) < 0) {
            for (auto &curve : curves)
                curve.at = [inner = std::move(curve.at)](double t) {
                    const Vec2 p = inner(t);
                    return Vec2(-p.x(), p.y());
                };
            if (circle) circle->centre_mm.x() = -circle->centre_mm.x();
        }
        target().entities.push_back({on, kind, std::move(curves), closed, circle});
    }

    /// Layer and mirroring are known now; corners follow.
    void begin(Pending what) {
        pending_ = what;
        pendingLayer_ = layer();
        pendingMap_ = mirror();
    }

    void finish() {
        const Pending was = pending_;
        pending_ = Pending::none;
        if (was == Pending::polyline) {
            std::vector<Curve> curves;
            bool finite = true;
            for (std::size_t i = 0; i < vertices_.size(); ++i) {
                finite &= std::abs(vertices_[i].at.x()) < 1e9 && std::abs(vertices_[i].at.y()) < 1e9 &&
                          std::abs(vertices_[i].bulge) < 1e6;
                if (i + 1 == vertices_.size() && !closed_) break;
                const auto &next = vertices_[(i + 1) % vertices_.size()];
                curves.push_back(io::bulgeCurve(vertices_[i].at, next.at, vertices_[i].bulge));
            }
            if (!finite)
                dropFrom(pendingLayer_, "polyline", "its numbers are not finite");
            else if (vertices_.size() < 2)
                dropFrom(pendingLayer_, "polyline", "it has fewer than two corners");
            else
                putOn(pendingLayer_, pendingMap_, "polyline", std::move(curves), closed_, {});
        } else if (was == Pending::spline) {
            const bool finite = std::all_of(spline_.controls.begin(), spline_.controls.end(),
                                            [](const Vec2 &p) { return p.cwiseAbs().maxCoeff() < 1e9; }) &&
                                std::all_of(spline_.fits.begin(), spline_.fits.end(),
                                            [](const Vec2 &p) { return p.cwiseAbs().maxCoeff() < 1e9; });
            const bool ownControls = !spline_.controls.empty() && !spline_.knots.empty();
            auto curve = finite ? io::splineCurve(spline_) : std::nullopt;
            if (!curve) {
                dropFrom(pendingLayer_, "spline", "its knots and control points do not fit together");
            } else {
                if (!ownControls)
                    dropFrom(pendingLayer_, "spline through fit points", "kept, drawn smoothly through its points");
                const bool closed = spline_.closed || (curve->at(0) - curve->at(1)).norm() < 1e-9;
                putOn(pendingLayer_, pendingMap_, "spline", {*curve}, closed, {});
            }
        }
        vertices_.clear();
    }

    Block *block_ = nullptr;
    Pending pending_ = Pending::none;
    std::string pendingLayer_;
    Affine pendingMap_ = Affine::Identity();
    bool closed_ = false;
    std::vector<Vertex> vertices_;
    io::SplineData spline_;
};

Failure<DrawingError> refuse(std::string where, std::string expected, std::string found, std::string suggestion = {}) {
    return Failure{DrawingError{{std::move(where), std::move(expected), std::move(found), std::move(suggestion)}}};
}

class Placer {
public:
    Placer(const Collector &collected, FlatDrawing &out, std::stop_token stop)
        : collected_(collected), out_(out), stop_(std::move(stop)) {}

    bool place(const Block &block, const Affine &map, const std::string &insertLayer, int depth) {
        for (const auto &entity : block.entities) {
            // Layer 0 inside a block means the layer that the block is put on.
            const std::string &layer = depth > 0 && entity.layer == "0" ? insertLayer : entity.layer;
            if (stop_.stop_requested()) throw GivenUp();
            if (out_.paths.size() >= kMostPaths || points_ > kMostPoints) return false;
            DrawnPath path;
            path.layer = layer;
            path.source = entity.kind;
            path.closed = entity.closed;
            for (const auto &curve : entity.curves) io::flatten(curve, map, kChord_mm, path.points_mm);
            points_ += path.points_mm.size();
            if (entity.circle) {
                const double scaleX = map.linear().col(0).norm(), scaleY = map.linear().col(1).norm();
                const double square = std::abs(map.linear().col(0).dot(map.linear().col(1)));
                if (std::abs(scaleX - scaleY) <= 1e-9 * scaleX && square <= 1e-9 * scaleX * scaleY)
                    path.circle = DrawnCircle{map * entity.circle->centre_mm, entity.circle->diameter_mm * scaleX};
            }
            if (path.points_mm.size() < 2) continue;
            if (layers_.insert(layer).second) out_.layers.push_back(layer);
            if (layers_.size() > kMostLayers) return false;
            out_.paths.push_back(std::move(path));
        }
        for (const auto &writing : block.writing) {
            constexpr std::size_t kMostTexts = 2000;
            if (out_.texts.size() >= kMostTexts) break;
            out_.texts.push_back(
                {map * writing.at, writing.text, depth > 0 && writing.layer == "0" ? insertLayer : writing.layer});
        }
        for (const auto &insert : block.inserts) {
            if (stop_.stop_requested()) throw GivenUp();
            if (++visits_ > kMostVisits) return false;
            const auto named = collected_.blocks.find(insert.block);
            const std::string &layer = depth > 0 && insert.layer == "0" ? insertLayer : insert.layer;
            if (named == collected_.blocks.end()) {
                note("block " + readableName(insert.block), layer, "the drawing does not hold it");
                continue;
            }
            if (depth >= kDeepestBlock || opened_.contains(insert.block)) {
                note("block " + readableName(insert.block), layer,
                     "blocks lie in one another too deep, or in themselves");
                continue;
            }
            if (std::abs((map * insert.copy(0, 0)).linear().determinant()) < 1e-18) {
                note("block " + readableName(insert.block), layer, "it is scaled to nothing");
                continue;
            }
            opened_.insert(insert.block);
            for (int column = 0; column < insert.columns; ++column)
                for (int row = 0; row < insert.rows; ++row) {
                    const Affine inner = map * insert.copy(column, row) * Eigen::Translation2d(-named->second.base);
                    if (++visits_ > kMostVisits || !place(named->second, inner, layer, depth + 1)) return false;
                }
            opened_.erase(insert.block);
        }
        return true;
    }
    /// What there was too much of, when placing gave up.
    std::string limit() const {
        return layers_.size() > kMostLayers ? fmt::format("at most {} layers", kMostLayers)
               : visits_ > kMostVisits      ? fmt::format("at most {} blocks in place", kMostVisits)
                                            : fmt::format("at most {} paths", kMostPaths);
    }

private:
    void note(const std::string &what, const std::string &layer, const std::string &why) {
        constexpr std::size_t kMostSaid = 200; // of a thousand missing blocks the first ones tell enough
        if (said_.size() < kMostSaid && said_.insert({what, layer, why}).second)
            out_.skipped.push_back({what, layer, why, {}});
    }
    const Collector &collected_;
    FlatDrawing &out_;
    std::stop_token stop_;
    std::size_t points_ = 0, visits_ = 0;
    std::set<std::string> layers_;
    std::set<std::string> opened_; ///< blocks that are being put in place, one in the other
    std::set<std::array<std::string, 3>> said_;
};

Result<FlatDrawing, DrawingError> readWhole(std::string_view bytes, const DrawingUnit *unit,
                                            const std::stop_token &stop) {
    std::map<std::string, int> unknownKinds;
    if (const auto fault = faultOfText(bytes, unknownKinds)) return Failure{DrawingError{*fault}};
    Collector collected;
    collected.stop = stop;
    std::string text(bytes);
    if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
    std::istringstream stream(text);
    DL_Dxf parser;
    if (!parser.in(stream, &collected)) return refuse("the file", "a DXF drawing", "something that cannot be parsed");
    collected.end();
    if (collected.tooMuch) return refuse("the drawing", fmt::format("at most {} paths", kMostPaths), "more");

    FlatDrawing out;
    const DrawingUnit *header = collected.headerUnits ? unitOfHeader(*collected.headerUnits) : nullptr;
    const DrawingUnit *taken = unit ? unit : header;
    const Affine scale(Eigen::Scaling(taken ? taken->mm : 1.0));
    Placer placer(collected, out, stop);
    if (!placer.place(collected.model, scale, "0", 0)) return refuse("the drawing", placer.limit(), "more");
    if (!taken) {
        Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
        for (const auto &path : out.paths)
            for (const auto &p : path.points_mm) {
                low = low.cwiseMin(p);
                high = high.cwiseMax(p);
            }
        DrawingError error;
        error.unitsMissing = true;
        error.size = out.paths.empty() ? Vec2(Vec2::Zero()) : Vec2(high - low);
        error.error = {
            "the header", "the units of the drawing ($INSUNITS)",
            collected.headerUnits ? fmt::format("unit number {}", *collected.headerUnits) : "none",
            fmt::format("say whether it is mm or in; it measures {:.4g} x {:.4g}", error.size.x(), error.size.y())};
        return Failure{error};
    }
    out.units = taken->name;
    if (unit && header && header != unit)
        out.skipped.push_back(
            {"units of the header", "", fmt::format("it says {}, read as {}", header->name, unit->name), {}});
    for (const auto &[key, count] : collected.left) {
        const auto bar = key.first.find('|');
        const std::string what = key.first.substr(0, bar);
        out.skipped.push_back({count == 1 ? fmt::format("1 {}", what) : fmt::format("{} times {}", count, what),
                               key.second,
                               key.first.substr(bar + 1),
                               {}});
    }
    for (const auto &[kind, count] : unknownKinds)
        out.skipped.push_back(
            {fmt::format("{} {}", count, readableName(kind)), "", "this kind of entity is not read", {}});
    return out;
}

} // namespace

const DrawingUnit *findDrawingUnit(std::string_view name) {
    static constexpr std::array<DrawingUnit, 7> units{
        {{"mm", 1}, {"in", 25.4}, {"cm", 10}, {"m", 1000}, {"ft", 304.8}, {"mil", 0.0254}, {"um", 0.001}}};
    const auto at = std::find_if(units.begin(), units.end(), [&](const auto &unit) { return unit.name == name; });
    return at == units.end() ? nullptr : &*at;
}

Result<FlatDrawing, DrawingError> readDxf(std::string_view bytes, const DrawingUnit *unit,
                                          const std::stop_token &stop) {
    try {
        return readWhole(bytes, unit, stop);
    } catch (const GivenUp &) {
        return refuse("the drawing", "to be read to its end", "somebody gave up waiting");
    }
}

Result<FlatDrawing, DrawingError> loadDxf(const std::filesystem::path &path, const DrawingUnit *unit,
                                          const std::stop_token &stop) {
    constexpr std::size_t kLargest = 64u << 20;
    const auto bytes = io::readFile(path, kLargest);
    if (!bytes) return refuse(path.string(), "a DXF drawing", bytes.error());
    return readDxf(*bytes, unit, stop);
}

} // namespace waxis
