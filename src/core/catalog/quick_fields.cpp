#include "core/catalog/quick_fields.h"

#include "core/catalog/part_bounds.h"
#include "core/catalog/part_check.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

using Value = std::optional<double>;

/// Stretches a shape along the part's axes; exact for bodies set square, the mean for round ones across their axis.
void stretch(Solid &solid, const Vec3 &by) {
    const Mat3 turn = solid.X_PartSolid.rotation.toRotationMatrix();
    const Vec3 own = (turn.transpose().cwiseAbs2() * by); // the factor along each of the shape's own axes
    std::visit(
        [&](auto &shape) {
            using S = std::decay_t<decltype(shape)>;
            if constexpr (std::is_same_v<S, Box>) {
                shape.fullSize_mm = shape.fullSize_mm.cwiseProduct(own);
            } else if constexpr (std::is_same_v<S, Cylinder>) {
                shape.diameter_mm *= (own.x() + own.y()) / 2;
                shape.length_mm *= own.z();
            } else if constexpr (std::is_same_v<S, Sphere>) {
                shape.diameter_mm *= own.mean();
            } else if constexpr (std::is_same_v<S, Prism>) {
                auto ring = [&](Ring &r) {
                    for (auto &p : r) p = p.cwiseProduct(own.head<2>());
                };
                ring(shape.polygon.outline);
                for (auto &hole : shape.polygon.holes) ring(hole);
                shape.thickness_mm *= own.z();
            } else {
                for (auto &p : shape.points_mm) p = p.cwiseProduct(own);
                if (shape.exact) shape.exact.reset(); // it was the model's
            }
        },
        solid.shape);
    solid.X_PartSolid.position_mm = solid.X_PartSolid.position_mm.cwiseProduct(by);
}

void stretchAll(PartType &type, const Vec3 &by) {
    for (auto &solid : type.solids) stretch(solid, by);
    for (auto &port : type.ports) port.position_mm = port.position_mm.cwiseProduct(by);
    if (type.centreOfMass_mm) type.centreOfMass_mm = type.centreOfMass_mm->cwiseProduct(by);
    if (type.camera) type.camera->lens_mm = type.camera->lens_mm.cwiseProduct(by);
    if (type.antenna) type.antenna->phaseCentre_mm = type.antenna->phaseCentre_mm.cwiseProduct(by);
}

void stretchAll(PartType &type, int axis, double to_mm) {
    // Round bodies take only their share of a stretch across: a few rounds come to the wanted size.
    constexpr int kRounds = 40;
    for (int i = 0; i < kRounds; ++i) {
        const Aabb box = firmBounds(type);
        const double now = box.empty() ? 0 : box.size_mm()[axis];
        if (!(now > 0) || std::abs(now - to_mm) < 1e-9 * to_mm) return;
        Vec3 by = Vec3::Ones();
        by[axis] = to_mm / now;
        stretchAll(type, by);
    }
}

/// The board's own two faces; none without a board.
struct Faces {
    double low = 0, high = 0;
};
std::optional<Faces> boardFaces(const PartType &type) {
    for (const auto &solid : type.solids)
        if (solid.role == SolidRole::board) {
            const Aabb box = boundsOf(solid.shape, solid.X_PartSolid);
            return Faces{box.min_mm.z(), box.max_mm.z()};
        }
    return std::nullopt;
}

double overBoard_mm(const PartType &type, bool up) {
    const auto faces = boardFaces(type);
    const Aabb box = firmBounds(type);
    if (!faces || box.empty()) return 0;
    return std::max(0.0, up ? box.max_mm.z() - faces->high : faces->low - box.min_mm.z());
}

/// Stretches what lies on one side of the board away from it.
void setOverBoard(PartType &type, bool up, double to_mm) {
    const auto faces = boardFaces(type);
    const double now = overBoard_mm(type, up);
    if (!faces) return;
    const double face = up ? faces->high : faces->low;
    if (!(now > 0)) { // nothing there yet: a block over the middle half of the board
        if (!(to_mm > 0)) return;
        const Aabb box = firmBounds(type);
        Solid block;
        block.role = SolidRole::component;
        block.material = "glass-laminate";
        block.shape = Box{Vec3(box.size_mm().x() / 2, box.size_mm().y() / 2, to_mm)};
        block.X_PartSolid.position_mm = Vec3(0, 0, up ? face + to_mm / 2 : face - to_mm / 2);
        type.solids.push_back(block);
        return;
    }
    for (auto &solid : type.solids) {
        const Aabb box = boundsOf(solid.shape, solid.X_PartSolid);
        const bool there = up ? box.max_mm.z() > face + 1e-6 : box.min_mm.z() < face - 1e-6;
        if (!there || solid.role == SolidRole::board) continue;
        const double share = to_mm / now;
        solid.X_PartSolid.position_mm.z() -= face;
        stretch(solid, Vec3(1, 1, std::max(share, 1e-3)));
        solid.X_PartSolid.position_mm.z() += face;
    }
}

Electrical &electrical(PartType &type) {
    if (!type.electrical) type.electrical.emplace();
    return *type.electrical;
}

class Fields {
public:
    explicit Fields(const PartType &model) : model_(model) {}

    void size(std::string_view id, std::string_view title, int axis) {
        add(
            id, title, Measure::length, 0.1, 3000,
            [axis](const PartType &t) {
                const Aabb box = firmBounds(t);
                return box.empty() ? Value() : Value(box.size_mm()[axis]);
            },
            [axis](PartType &t, double v) { stretchAll(t, axis, v); });
    }
    /// A can, a puck or a rod that stands upright: one figure across says it all.
    bool isRound() const {
        const Aabb whole = firmBounds(model_);
        return std::any_of(model_.solids.begin(), model_.solids.end(), [&](const Solid &solid) {
            if (!std::holds_alternative<Cylinder>(solid.shape) && !std::holds_alternative<Sphere>(solid.shape))
                return false;
            const Vec3 own = boundsOf(solid.shape, solid.X_PartSolid).size_mm();
            return std::abs(own.x() - own.y()) < 1e-6 && std::abs(own.x() - whole.size_mm().x()) < 1e-6;
        });
    }
    void box() {
        if (isRound()) return round("diameter");
        size("length", "length, fore and aft", 0);
        size("width", "width", 1);
        size("height", "height over all", 2);
    }
    /// Round ones: one figure across.
    void round(std::string_view title) {
        add(
            "diameter", title, Measure::length, 0.1, 3000,
            [](const PartType &t) {
                const Aabb b = firmBounds(t);
                return b.empty() ? Value() : Value(std::max(b.size_mm().x(), b.size_mm().y()));
            },
            [](PartType &t, double v) {
                const Aabb b = firmBounds(t);
                const double now = std::max(b.size_mm().x(), b.size_mm().y());
                if (now > 0) stretchAll(t, Vec3(v / now, v / now, 1)); // both at once: a circle stays one
            });
        size("height", "height over all", 2);
    }
    void grams() {
        add(
            "mass", "weight", Measure::mass, 0.01, 1e5, [](const PartType &t) { return t.mass_g.value; },
            [](PartType &t, double v) { t.mass_g = measuredValue(v); });
    }
    void pattern() {
        if (!model_.mounting) return;
        const bool circle = model_.mounting->shape == PatternShape::circle;
        add(
            "pattern", circle ? "hole circle" : "holes apart", Measure::length, 1, 500,
            [](const PartType &t) { return t.mounting ? Value(t.mounting->size_mm) : Value(); },
            [](PartType &t, double v) { t.mounting->size_mm = v; });
        add(
            "hole", "holes wide", Measure::length, 0.5, 20,
            [](const PartType &t) { return t.mounting ? Value(t.mounting->holeDiameter_mm) : Value(); },
            [](PartType &t, double v) { t.mounting->holeDiameter_mm = v; });
    }
    void components() {
        if (!boardFaces(model_)) return;
        add(
            "stands-up", "stands up over the board", Measure::length, 0, 100,
            [](const PartType &t) { return Value(overBoard_mm(t, true)); },
            [](PartType &t, double v) { setOverBoard(t, true, v); });
        add(
            "hangs-down", "hangs down under it", Measure::length, 0, 100,
            [](const PartType &t) { return Value(overBoard_mm(t, false)); },
            [](PartType &t, double v) { setOverBoard(t, false, v); });
    }
    template <class Member>
    void electric(std::string_view id, std::string_view title, Measure measure, Member member, double most) {
        add(
            id, title, measure, 0, most,
            [member](const PartType &t) { return t.electrical ? Value((*t.electrical).*member) : Value(); },
            [member](PartType &t, double v) { electrical(t).*member = v; });
    }
    void supply() {
        electric("supply-from", "supply from", Measure::voltage, &Electrical::supplyMin_V, 200);
        electric("supply-to", "supply to", Measure::voltage, &Electrical::supplyMax_V, 200);
        add(
            "draws", "draws", Measure::current, 0, 500,
            [](const PartType &t) { return t.electrical ? t.electrical->typical_A.value : Value(); },
            [](PartType &t, double v) { electrical(t).typical_A = measuredValue(v); });
    }
    void band() {
        const auto middle = [](double low, double high) { return (low + high) / 2; };
        if (model_.antenna)
            add(
                "band", "band, middle", Measure::frequency, 1, 1e5,
                [middle](const PartType &t) { return Value(middle(t.antenna->low_MHz, t.antenna->high_MHz)); },
                [](PartType &t, double v) {
                    const double half = (t.antenna->high_MHz - t.antenna->low_MHz) / 2;
                    t.antenna->low_MHz = std::max(0.1, v - half);
                    t.antenna->high_MHz = v + half;
                });
        else if (!model_.radio.empty())
            add(
                "band", "band, middle", Measure::frequency, 1, 1e5,
                [middle](const PartType &t) {
                    return Value(middle(t.radio.front().low_MHz, t.radio.front().high_MHz));
                },
                [](PartType &t, double v) {
                    auto &band = t.radio.front();
                    const double half = (band.high_MHz - band.low_MHz) / 2;
                    if (band.low_MHz <= v && v <= band.high_MHz) return;
                    band.low_MHz = std::max(0.1, v - half);
                    band.high_MHz = v + half;
                    band.channels.clear(); // those of another band
                });
    }
    void sends() {
        if (model_.radio.empty() || !model_.radio.front().power_dBm) return;
        add(
            "power", "sends with", Measure::power, 0.01, 1e5,
            [](const PartType &t) {
                const auto level = t.radio.front().power_dBm;
                return level ? Value(std::pow(10, *level / 10)) : Value();
            },
            [](PartType &t, double v) { t.radio.front().power_dBm = 10 * std::log10(v); });
    }
    void output() {
        if (!model_.electrical || model_.electrical->outputs.empty()) return;
        add(
            "volts-out", "gives", Measure::voltage, 0.5, 60,
            [](const PartType &t) { return Value(t.electrical->outputs.front().voltage_V); },
            [](PartType &t, double v) { t.electrical->outputs.front().voltage_V = v; });
        add(
            "amps-out", "up to", Measure::current, 0.01, 200,
            [](const PartType &t) { return Value(t.electrical->outputs.front().limit_A); },
            [](PartType &t, double v) { t.electrical->outputs.front().limit_A = v; });
    }
    void add(std::string_view id, std::string_view title, Measure measure, double least, double most,
             std::function<Value(const PartType &)> get, std::function<void(PartType &, double)> set) {
        fields_.push_back({id, title, measure, least, most, std::move(get), std::move(set)});
    }
    std::vector<QuickField> take() { return std::move(fields_); }

private:
    const PartType &model_;
    std::vector<QuickField> fields_;
};

} // namespace

std::vector<QuickField> quickFields(const PartType &model) {
    Fields f(model);
    switch (model.kind) {
    case PartKind::motor:
        f.round("diameter of the bell");
        f.grams();
        f.pattern();
        f.add(
            "thread-depth", "depth of the threads", Measure::length, 0.5, 50,
            [](const PartType &t) { return t.threadDepth_mm.value; },
            [](PartType &t, double v) { t.threadDepth_mm = measuredValue(v); });
        f.add(
            "thrust", "full thrust", Measure::thrust, 1, 1e5, [](const PartType &t) { return t.maxThrust_gf.value; },
            [](PartType &t, double v) { t.maxThrust_gf = measuredValue(v); });
        f.add(
            "shaft", "shaft that takes the propeller", Measure::length, 0.5, 30,
            [](const PartType &t) { return t.shaft_mm; }, [](PartType &t, double v) { t.shaft_mm = v; });
        break;
    case PartKind::propeller:
        f.add(
            "diameter", "tip to tip", Measure::length, 10, 2000, [](const PartType &t) { return t.propDiameter_mm; },
            [](PartType &t, double v) { t.propDiameter_mm = v; });
        f.add(
            "pitch", "way in one turn", Measure::length, 5, 1000, [](const PartType &t) { return t.propPitch_mm; },
            [](PartType &t, double v) { t.propPitch_mm = v; });
        f.add(
            "bore", "hole of the hub", Measure::length, 0.5, 30, [](const PartType &t) { return t.bore_mm; },
            [](PartType &t, double v) { t.bore_mm = v; });
        f.grams();
        f.size("height", "thickness of the hub", 2);
        break;
    case PartKind::battery:
        f.box();
        f.grams();
        f.add(
            "cells", "cells in series", Measure::number, 1, 24,
            [](const PartType &t) {
                return t.electrical && t.electrical->cells ? Value(*t.electrical->cells) : Value();
            },
            [](PartType &t, double v) {
                electrical(t).cells = int(std::lround(v));
                // The balance plug has a pin for each cell and one more.
                for (auto &port : t.ports)
                    if (!port.pins.empty() && port.pins.front().signal == "C0") {
                        port.pins.clear();
                        for (int i = 0; i <= int(std::lround(v)); ++i)
                            port.pins.push_back({fmt::format("C{}", i), {}, false});
                    }
            });
        f.electric("capacity", "capacity", Measure::capacity, &Electrical::capacity_mAh, 1e6);
        f.electric("current", "gives continuously", Measure::current, &Electrical::continuous_A, 2000);
        break;
    case PartKind::capacitor:
        f.round("diameter");
        f.grams();
        f.electric("capacitance", "capacitance, µF", Measure::number, &Electrical::capacitance_uF, 1e6);
        f.electric("rated", "rated for", Measure::voltage, &Electrical::rated_V, 1000);
        break;
    case PartKind::esc:
    case PartKind::fourInOneEsc:
    case PartKind::powerPlug:
    case PartKind::inlinePart:
    case PartKind::currentSensor:
    case PartKind::powerSwitch:
        f.box();
        f.grams();
        f.pattern();
        f.components();
        f.electric("current", "carries continuously", Measure::current, &Electrical::continuous_A, 2000);
        if (model.kind == PartKind::esc || model.kind == PartKind::fourInOneEsc)
            f.electric("supply-to", "supply to", Measure::voltage, &Electrical::supplyMax_V, 200);
        break;
    case PartKind::regulator:
        f.box();
        f.grams();
        f.output();
        f.electric("supply-to", "supply to", Measure::voltage, &Electrical::supplyMax_V, 200);
        break;
    case PartKind::flightController:
    case PartKind::distributionBoard:
        f.box();
        f.grams();
        f.pattern();
        f.components();
        f.supply();
        break;
    case PartKind::receiver:
    case PartKind::videoTransmitter:
    case PartKind::digitalVideoUnit:
        f.box();
        f.grams();
        f.pattern();
        f.components();
        f.band();
        f.sends();
        f.supply();
        break;
    case PartKind::antenna:
        f.size("height", "length of the element", 2);
        f.grams();
        f.band();
        f.add(
            "gain", "gain", Measure::decibel, -20, 40,
            [](const PartType &t) { return t.antenna ? Value(t.antenna->gain_dBi) : Value(); },
            [](PartType &t, double v) {
                if (t.antenna) t.antenna->gain_dBi = v;
            });
        break;
    case PartKind::flightCamera:
    case PartKind::payloadCamera:
        f.box();
        f.grams();
        if (model.camera)
            f.add(
                "view", "sees across", Measure::angle, 5, 220,
                [](const PartType &t) { return t.camera ? Value(t.camera->horizontalView_deg) : Value(); },
                [](PartType &t, double v) { t.camera->horizontalView_deg = v; });
        f.supply();
        break;
    case PartKind::tube:
        f.size("height", "length", 2);
        f.round("diameter");
        f.grams();
        break;
    case PartKind::gps:
    case PartKind::buzzer:
    case PartKind::lamp:
    case PartKind::gimbal:
    case PartKind::servo:
    case PartKind::powerBank:
    case PartKind::overlayBoard:
    case PartKind::recorder:
    case PartKind::packAlarm:
    case PartKind::microphone:
    case PartKind::fan:
        f.box();
        f.grams();
        f.supply();
        break;
    case PartKind::fastener: f.grams(); break; // what it measures, its thread and length say
    case PartKind::strap:
        f.box();
        f.grams();
        f.add(
            "strap", "length as sold", Measure::length, 20, 2000, [](const PartType &t) { return t.strapLength_mm; },
            [](PartType &t, double v) { t.strapLength_mm = v; });
        break;
    case PartKind::mount:
    case PartKind::damper:
    case PartKind::pad:
    case PartKind::landingFoot:
    case PartKind::heatSink:
    case PartKind::guard:
    case PartKind::other:
        f.box();
        f.grams();
        break;
    }
    auto fields = f.take();
    // A tube asked for its length twice has one of them.
    std::vector<QuickField> once;
    for (auto &field : fields)
        if (std::none_of(once.begin(), once.end(), [&](const QuickField &o) { return o.id == field.id; }))
            once.push_back(std::move(field));
    return once;
}

PartType ownTypeLike(const PartType &model, const std::string &name, const TypeTable &taken) {
    PartType own = model;
    own.name = name;
    own.maker.clear();
    const std::string base = "own-" + idFromName(name);
    own.id = base;
    for (int n = 2; taken.contains(own.id); ++n) own.id = fmt::format("{}-{}", base, n);
    return own;
}

} // namespace waxis
