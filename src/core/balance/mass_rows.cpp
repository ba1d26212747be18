#include "core/balance/mass_rows.h"

#include "core/base/units.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/kit/holding.h"
#include "core/kit/kit.h"

#include <array>
#include <cmath>

namespace waxis {

namespace {

double statedOrDefaultTolerance(const Measured &mass, const Practice &practice) {
    if (mass.tolerance) return *mass.tolerance;
    switch (mass.source) {
    case Source::measured: return practice[Limit::measuredMassTolerance];
    case Source::catalogue: return *mass.value * practice[Limit::catalogueMassShare] / 100;
    case Source::estimated: return *mass.value * practice[Limit::estimatedMassShare] / 100;
    }
    return 0;
}

/// Centroid and inertia per gram of the solids, in the part's axes.
struct UnitMass {
    Vec3 centroid_mm = Vec3::Zero();
    Mat3 inertiaPerGram_mm2 = Mat3::Zero();
};

UnitMass unitMassOf(const std::vector<Solid> &solids, const std::vector<Material> &materials) {
    bool allDensitiesKnown = true;
    for (const auto &solid : solids) allDensitiesKnown &= findMaterial(solid.material, materials) != nullptr;
    std::vector<MassElement> elements;
    for (const auto &solid : solids) {
        const ShapeProperties shape = shapeProperties(solid.shape);
        const double density =
            allDensitiesKnown ? gramsPerCubicMillimetre(findMaterial(solid.material, materials)->density_g_cm3) : 1.0;
        const Mat3 turn = solid.X_PartSolid.rotation.toRotationMatrix();
        elements.push_back({density * shape.volume_mm3, solid.X_PartSolid * shape.centroid_mm,
                            density * turn * shape.inertia_mm5 * turn.transpose()});
    }
    const CompoundMass sum = rollUp(elements);
    if (!sum.cg_mm) return {};
    return {*sum.cg_mm, sum.inertia_gmm2 / sum.mass_g};
}

/// A structural piece: weighed, or computed from its shape and material.
MassRow structureRow(const std::string &id, MassKind kind, const ShapeProperties &properties, const Pose &X_FrameShape,
                     const std::string &material, const Measured &weighed, const Frame &frame, const Practice &practice,
                     CaseMask cases) {
    MassRow row;
    row.id = id;
    row.kind = kind;
    row.cases = cases;
    const Material *stuff = findMaterial(material, frame.materials);
    Measured mass = weighed;
    if (!mass.known() && stuff)
        mass = catalogueValue(properties.volume_mm3 * gramsPerCubicMillimetre(stuff->density_g_cm3));
    row.known = mass.known();
    row.source = mass.source;
    row.element.centroid_mm = X_FrameShape * properties.centroid_mm;
    if (!mass.known()) return row;
    row.tolerance_g = statedOrDefaultTolerance(mass, practice);
    row.element.mass_g = *mass.value;
    const Mat3 turn = X_FrameShape.rotation.toRotationMatrix();
    if (properties.volume_mm3 > 0)
        row.element.inertia_gmm2 =
            turn * properties.inertia_mm5 * turn.transpose() * (*mass.value / properties.volume_mm3);
    return row;
}

/// A weighed arm has its joint in it; to a computed one it comes as a point.
void addHinge(const Arm &arm, const Practice &practice, MassRow &row) {
    if (!(jointMass_g(arm) > 0) || !row.known || row.source != Source::catalogue) return;
    const Vec3 outwards = (arm.tip_mm - arm.root_mm).normalized();
    const Vec3 joint = arm.root_mm + *arm.foldJoint_mm * outwards - Vec3(0, 0, arm.thickness_mm / 2);
    const std::array both{row.element, MassElement{jointMass_g(arm), joint, Mat3::Zero()}};
    const CompoundMass sum = rollUp(both);
    row.element = {sum.mass_g, *sum.cg_mm, sum.inertia_gmm2};
    row.tolerance_g = statedOrDefaultTolerance(catalogueValue(sum.mass_g), practice);
}

/// One row for each screw of the frame with its nut, one for the nuts of each bobbin.
void addFrameHardware(const Build &build, const Practice &practice, CaseMask cases, std::vector<MassRow> &rows) {
    for (const auto &[member, id, piece, at_mm] : frameHardware(build, practice)) {
        const KitEntry *inBox = findKitEntry(build, piece.item);
        const bool weighed = inBox && inBox->mass_g.known();
        MassElement element{weighed ? *inBox->mass_g.value : piece.piece_g, at_mm, Mat3::Zero()};
        const double doubt = weighed ? inBox->mass_g.tolerance.value_or(0.05) : piece.tolerance_g;
        if (!rows.empty() && rows.back().id == id) { // screw and nut
            MassRow &row = rows.back();
            const std::array both{row.element, element};
            const CompoundMass sum = rollUp(both);
            row.element = {sum.mass_g, *sum.cg_mm, sum.inertia_gmm2};
            row.tolerance_g += doubt;
            if (weighed) row.source = Source::measured;
            continue;
        }
        MassRow row;
        row.id = id;
        row.kind = MassKind::fastening;
        row.known = true;
        row.source = weighed ? Source::measured : Source::estimated;
        row.cases = cases;
        row.element = element;
        row.tolerance_g = doubt;
        rows.push_back(std::move(row));
    }
}

} // namespace

MassRow massRowOf(const Build &build, const Part &part, const Practice &practice, CaseMask cases) {
    return massRowOf(build, part, practice, cases, stackSeatOf(build, part));
}

MassRow massRowOf(const Build &build, const Part &part, const Practice &practice, CaseMask cases,
                  const std::optional<StackSeat> &seat) {
    MassRow row;
    row.id = part.id;
    row.cases = cases;
    row.sigmaPosition_mm = part.placement.tolerance_mm / 2;
    const Pose X_FramePart = framePoseAt(build, part, seat);
    const PartType *type = typeOf(build, part);
    row.element.centroid_mm = X_FramePart.position_mm;
    if (!type) return row;
    row.family = familyOf(type->kind);
    const bool drawnOut = seat && seat->stretch != 1;
    const UnitMass unit = drawnOut ? unitMassOf(solidsAt(*type, seat), build.frame->materials)
                                   : unitMassOf(type->solids, build.frame->materials);
    row.element.centroid_mm = X_FramePart * type->centreOfMass_mm.value_or(unit.centroid_mm);
    const KitEntry *inBox = findKitEntry(build, part.type);
    const Measured &mass = part.mass_g.known()              ? part.mass_g
                           : inBox && inBox->mass_g.known() ? inBox->mass_g
                                                            : type->mass_g;
    row.known = mass.known();
    row.source = mass.source;
    if (!mass.known()) return row;
    row.tolerance_g = statedOrDefaultTolerance(mass, practice);
    if (!part.mass_g.known()) row.alike = part.type;              // one figure for all of them
    row.element.mass_g = *mass.value * (seat ? seat->kept : 1.0); // a damper that was cut down weighs less
    const Mat3 turn = X_FramePart.rotation.toRotationMatrix();
    row.element.inertia_gmm2 = turn * unit.inertiaPerGram_mm2 * turn.transpose() * row.element.mass_g;
    return row;
}

std::optional<MassRow> fasteningRowOf(const Build &build, const Part &part, const Practice &practice,
                                      const MassRow &partRow) {
    const auto hardware = holdingOf(build, part, practice).pieces;
    if (hardware.empty()) return std::nullopt;
    MassRow row;
    row.id = part.id + "/fastening";
    row.kind = MassKind::fastening;
    row.known = true;
    row.source = Source::estimated;
    row.cases = partRow.cases;
    row.sigmaPosition_mm = partRow.sigmaPosition_mm;
    row.element.centroid_mm = partRow.element.centroid_mm;
    for (const auto &piece : hardware) {
        const KitEntry *inBox = findKitEntry(build, piece.item);
        const bool weighed = inBox && inBox->mass_g.known();
        row.element.mass_g += piece.pieces * (weighed ? *inBox->mass_g.value : piece.piece_g);
        row.tolerance_g += piece.pieces * (weighed ? inBox->mass_g.tolerance.value_or(0.05) : piece.tolerance_g);
        if (weighed) row.source = Source::measured;
    }
    return row;
}

std::vector<MassRow> structureMassRows(const Build &build, const Practice &practice, CaseMask allCases) {
    const Frame &frame = *build.frame;
    std::vector<MassRow> rows;
    // What was weighed as this very piece, else as one of its kind in the box.
    auto weighed = [&](const Measured &own, const std::string &item) {
        const KitEntry *inBox = own.known() ? nullptr : findKitEntry(build, item);
        return inBox ? inBox->mass_g : own;
    };
    for (const auto &plate : frame.plates)
        rows.push_back(structureRow(plate.id, MassKind::plate, shapeProperties(plateShape(plate)), platePose(plate),
                                    plate.material, weighed(plate.mass_g, plate.id), frame, practice, allCases));
    for (const auto &arm : frame.arms) {
        ShapeProperties bare = shapeProperties(armShape(arm));
        const double left = 1 - armHoles_mm3(arm) / bare.volume_mm3; // what its holes leave, as if spread over it
        bare.volume_mm3 *= left;
        bare.inertia_mm5 *= left;
        rows.push_back(structureRow(arm.id, MassKind::arm, bare, armPose(arm), arm.material,
                                    weighed(arm.mass_g, kitItemOf(arm)), frame, practice, allCases));
        addHinge(arm, practice, rows.back());
        if (!arm.mass_g.known()) rows.back().alike = kitItemOf(arm);
    }
    for (const auto &standoff : frame.standoffs) {
        ShapeProperties tube = shapeProperties(standoffShape(standoff));
        const ShapeProperties bore = shapeProperties(Cylinder{standoff.bore_mm, standoff.height_mm});
        tube.volume_mm3 -= bore.volume_mm3;
        tube.inertia_mm5 -= bore.inertia_mm5;
        rows.push_back(structureRow(standoff.id, MassKind::standoff, tube, standoffPose(standoff), standoff.material,
                                    weighed(standoff.mass_g, kitItemOf(standoff)), frame, practice, allCases));
        if (!standoff.mass_g.known()) rows.back().alike = kitItemOf(standoff);
    }
    addFrameHardware(build, practice, allCases, rows);
    for (const auto &allowance : build.allowances) {
        MassRow row;
        row.id = allowance.id;
        row.kind = MassKind::allowance;
        row.cases = allCases;
        row.known = allowance.mass_g.known();
        row.source = allowance.mass_g.source;
        row.element.centroid_mm = allowance.position_mm;
        if (row.known) {
            row.element.mass_g = *allowance.mass_g.value;
            row.tolerance_g = statedOrDefaultTolerance(allowance.mass_g, practice);
        }
        rows.push_back(std::move(row));
    }
    return rows;
}

} // namespace waxis
