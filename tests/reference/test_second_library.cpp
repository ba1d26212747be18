// Masses, centres of gravity and inertia tensors of random compounds against the Open Dynamics Engine's dMass (double
// precision).
#include "core/analysis/analysis.h"
#include "core/derived/all_up.h"
#include "support/builds.h"

#include <ode/ode.h>

using namespace waxis;

namespace {

struct Compound {
    Build build;
    dMass mass;
};

/// The same bodies as parts of a build and as an ODE mass.
Compound randomCompound(std::mt19937 &random) {
    std::uniform_real_distribution<double> size(1, 80), place(-150, 150), angle(-180, 180), grams(0.1, 400);
    Compound compound;
    dMassSetZero(&compound.mass);
    const int count = 1 + int(random() % 40);
    for (int i = 0; i < count; ++i) {
        const Vec3 full(size(random), size(random), size(random)), at(place(random), place(random), place(random));
        const RollPitchYaw turn{angle(random), angle(random) / 2.01, angle(random)};
        const double mass_g = grams(random);
        Shape shape;
        dMass piece;
        switch (random() % 3) {
        case 0:
            shape = Box{full};
            dMassSetBoxTotal(&piece, mass_g, full.x(), full.y(), full.z());
            break;
        case 1:
            shape = Cylinder{full.x(), full.y()};
            dMassSetCylinderTotal(&piece, mass_g, 3, full.x() / 2, full.y());
            break;
        default:
            shape = Sphere{full.x()};
            dMassSetSphereTotal(&piece, mass_g, full.x() / 2);
            break;
        }
        dMatrix3 rotation;
        const Mat3 r = quaternionFrom(turn).toRotationMatrix();
        for (int row = 0; row < 3; ++row)
            for (int column = 0; column < 4; ++column) rotation[row * 4 + column] = column < 3 ? r(row, column) : 0.0;
        dMassRotate(&piece, rotation);
        dMassTranslate(&piece, at.x(), at.y(), at.z());
        dMassAdd(&compound.mass, &piece);

        Part &part = test::addBox(compound.build, "p" + std::to_string(i), {1, 1, 1}, at, mass_g);
        part.placement.pose.rotation = quaternionFrom(turn);
        compound.build.types.edit([&](TypeTable &types) { test::typeIn(types, part.id).solids[0].shape = shape; });
    }
    return compound;
}

} // namespace

class TestSecondLibrary : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { dInitODE(); }
    void cleanupTestCase() { dCloseODE(); }
    void compoundsAgreeWithDMass() {
        // Both work in double precision on up to 40 bodies: 1e-9 relative leaves room for rounding only.
        std::mt19937 random(2468);
        for (int run = 0; run < 200; ++run) {
            const Compound compound = randomCompound(random);
            Analyser analyser;
            const CompoundMass &ours = allUp(analyser.update(compound.build).derived);
            dMass theirs = compound.mass;
            const Vec3 cg(theirs.c[0], theirs.c[1], theirs.c[2]);
            QVERIFY2(std::abs(ours.mass_g - theirs.mass) < 1e-9 * theirs.mass, "seed 2468");
            QVERIFY2((*ours.cg_mm - cg).norm() < 1e-9 * 150, "seed 2468");
            dMassTranslate(&theirs, -cg.x(), -cg.y(), -cg.z());
            Mat3 inertia;
            for (int row = 0; row < 3; ++row)
                for (int column = 0; column < 3; ++column) inertia(row, column) = theirs.I[row * 4 + column];
            QVERIFY2((ours.inertia_gmm2 - inertia).norm() < 1e-9 * inertia.norm(), "seed 2468");
        }
    }
};

QTEST_APPLESS_MAIN(TestSecondLibrary)
#include "test_second_library.moc"
