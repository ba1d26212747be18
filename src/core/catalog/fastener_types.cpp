#include "core/catalog/fastener_types.h"

#include "core/base/units.h"
#include "core/catalog/material.h"
#include "core/fasteners/screw.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<TypeError> refuse(std::string message) { return Failure{TypeError{std::move(message)}}; }

std::string idWord(std::string_view text) {
    std::string word;
    for (char c : text)
        if (c != '.') word += char(std::tolower(static_cast<unsigned char>(c)));
    return word;
}

Solid upright(const Shape &shape, double middle_mm, const std::string &material) {
    Solid solid;
    solid.shape = shape;
    solid.X_PartSolid.position_mm.z() = middle_mm;
    solid.material = material;
    return solid;
}

/// A tube standing on z = 0; plain polygons, so that the screw is seen in its hole.
Solid tube(Ring outline, double bore_mm, double height_mm, const std::string &material) {
    Solid solid;
    Prism prism{{std::move(outline), {circleRing(Vec2::Zero(), bore_mm, 16)}}, height_mm};
    solid.shape = prism;
    solid.material = material;
    return solid;
}

Ring hexagon(double flats_mm) {
    Ring ring;
    const double corner = flats_mm / std::sqrt(3.0);
    for (int i = 0; i < 6; ++i) {
        const double angle = radiansFromDegrees(60.0 * i);
        ring.emplace_back(corner * std::cos(angle), corner * std::sin(angle));
    }
    return ring;
}

std::string idOf(const FastenerData &f, const std::string &material) {
    const std::string thread = idWord(f.thread);
    std::string id;
    switch (f.form) {
    case FastenerForm::screw:
        id = fmt::format("screw-{}x{:g}", thread, f.length_mm);
        if (f.head != HeadStyle::cap) id += fmt::format("-{}", headWord(f.head));
        break;
    case FastenerForm::nut: id = fmt::format("nut-{}", thread); break;
    case FastenerForm::lockNut: id = fmt::format("nut-{}-lock", thread); break;
    case FastenerForm::thinLockNut: id = fmt::format("nut-{}-thin-lock", thread); break;
    case FastenerForm::pressNut: id = fmt::format("pressnut-{}", thread); break;
    case FastenerForm::washer: id = fmt::format("washer-{}", thread); break;
    case FastenerForm::shim: id = fmt::format("shim-{}-{:g}", thread, f.length_mm); break;
    case FastenerForm::spacer: id = fmt::format("spacer-{}-{:g}", thread, f.length_mm); break;
    case FastenerForm::standoff:
        id = fmt::format("standoff-{}-{:g}", thread, f.length_mm);
        if (f.stud_mm > 0) id += fmt::format("-stud{:g}", f.stud_mm);
        break;
    }
    const std::string usual = f.form == FastenerForm::spacer || f.form == FastenerForm::standoff ? "nylon" : "steel";
    return material == usual ? id : id + "-" + material;
}

} // namespace

std::string materialOf(const PartType &type) { return type.solids.empty() ? std::string() : type.solids[0].material; }

Result<PartType, TypeError> fastenerType(const FastenerData &f, const std::string &material) {
    const ThreadSize *thread = findThread(f.thread);
    if (!thread) return refuse(fmt::format("There is no thread \"{}\" in the tables (M1.4 to M5).", f.thread));
    const Material *stuff = findMaterial(material, {});
    if (!stuff) return refuse(fmt::format("There is no material \"{}\".", material));
    FastenerData data = f;
    PartType type;
    type.kind = PartKind::fastener;
    double volume = 0;
    switch (f.form) {
    case FastenerForm::screw: {
        const auto head = headOf(*thread, f.head);
        if (!head) return refuse(fmt::format("{} {} screws are not made.", f.thread, headWord(f.head)));
        if (!(f.length_mm >= 1 && f.length_mm <= 200)) return refuse("A screw is 1 to 200 mm long.");
        volume = *screwVolume_mm3(*thread, f.length_mm, f.head);
        if (f.head == HeadStyle::countersunk) {
            if (f.length_mm <= head->height_mm) return refuse("A countersunk screw is longer than its head.");
            type.solids = {upright(Cylinder{thread->nominal_mm, f.length_mm}, f.length_mm / 2, material),
                           upright(Cylinder{head->diameter_mm, head->height_mm / 2}, head->height_mm / 4, material),
                           upright(Cylinder{(head->diameter_mm + thread->nominal_mm) / 2, head->height_mm / 2},
                                   head->height_mm * 3 / 4, material)};
        } else
            type.solids = {upright(Cylinder{thread->nominal_mm, f.length_mm}, f.length_mm / 2, material),
                           upright(Cylinder{head->diameter_mm, head->height_mm}, -head->height_mm / 2, material)};
        break;
    }
    case FastenerForm::nut:
    case FastenerForm::lockNut:
    case FastenerForm::thinLockNut: {
        const auto height = nutHeight_mm(*thread, f.form);
        if (!height) return refuse(fmt::format("{} {}s are not made.", f.thread, formWord(f.form)));
        data.length_mm = *height;
        volume = nutVolume_mm3(*thread, *height);
        type.solids = {tube(hexagon(thread->nutFlats_mm), thread->nominal_mm, *height, material)};
        break;
    }
    case FastenerForm::pressNut:
        if (!(f.length_mm > 0)) data.length_mm = thread->nutHeight_mm;
        volume = nutVolume_mm3(*thread, data.length_mm);
        type.solids = {tube(hexagon(thread->nutFlats_mm), thread->nominal_mm, data.length_mm, material)};
        break;
    case FastenerForm::washer:
        data.length_mm = thread->washerHeight_mm;
        volume = washerVolume_mm3(*thread, data.length_mm);
        type.solids = {
            tube(circleRing(Vec2::Zero(), thread->washerOuter_mm, 20), thread->fineHole_mm, data.length_mm, material)};
        break;
    case FastenerForm::shim:
        if (!(f.length_mm >= 0.05 && f.length_mm <= 3)) return refuse("A shim is 0.05 to 3 mm thick.");
        volume = washerVolume_mm3(*thread, f.length_mm);
        type.solids = {
            tube(circleRing(Vec2::Zero(), thread->washerOuter_mm, 20), thread->fineHole_mm, f.length_mm, material)};
        break;
    case FastenerForm::spacer:
    case FastenerForm::standoff: {
        if (!(f.length_mm >= 0.5 && f.length_mm <= 100)) return refuse("A spacer is 0.5 to 100 mm high.");
        if (!(f.stud_mm >= 0 && f.stud_mm <= 50)) return refuse("A male end is 0 to 50 mm long.");
        const double outer = thread->nutFlats_mm;
        const double bore = f.form == FastenerForm::spacer ? thread->fineHole_mm : thread->nominal_mm;
        const Ring outline = f.form == FastenerForm::spacer ? circleRing(Vec2::Zero(), outer, 20) : hexagon(outer);
        type.solids = {tube(outline, bore, f.length_mm, material)};
        volume = shapeProperties(type.solids[0].shape).volume_mm3;
        if (f.stud_mm > 0) {
            type.solids.push_back(upright(Cylinder{thread->nominal_mm, f.stud_mm}, -f.stud_mm / 2, material));
            volume += meanThreadArea_mm2(thread->nominal_mm, thread->pitch_mm) * f.stud_mm;
        }
        break;
    }
    }
    type.id = idOf(data, material);
    type.name = fastenerName(data, material);
    const double mass = volume * gramsPerCubicMillimetre(stuff->density_g_cm3);
    type.mass_g = catalogueValue(mass, mass * 0.1);
    data.pieces = 1;
    type.fastener = data;
    return type;
}

Result<PartType, TypeError> damperType(const std::string &name, double height_mm) {
    const ThreadSize *thread = findThread(name);
    if (!thread) return refuse(fmt::format("There is no thread \"{}\" in the tables (M1.4 to M5).", name));
    if (!(height_mm >= 0.5 && height_mm <= 30)) return refuse("A damper is 0.5 to 30 mm high.");
    PartType type;
    type.kind = PartKind::damper;
    type.id = fmt::format("damper-{}-{:g}", idWord(name), height_mm);
    type.name = fmt::format("Soft damper {}, {:g} mm", name, height_mm);
    Solid solid = tube(circleRing(Vec2::Zero(), 2 * thread->nominal_mm, 20), thread->nominal_mm, height_mm, "silicone");
    solid.role = SolidRole::soft;
    const double mass = shapeProperties(solid.shape).volume_mm3 * gramsPerCubicMillimetre(1.2);
    type.mass_g = catalogueValue(mass, mass * 0.1);
    type.solids = {solid};
    return type;
}

} // namespace waxis
