// STEP and STL bodies against closed forms of what was modelled. The STEP files are made here with Open CASCADE's
// modeller, the STL files by hand.
#include "core/geometry/mesh_tools.h"
#include "io/process/child.h"
#include "io/solids/solid_reader.h"
#include "io/solids/solid_stream.h"
#include "support/builds.h"

#include <BRepAlgoAPI_Cut.hxx>
#include <BRepPrimAPI_MakeBox.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakeSphere.hxx>
#include <QElapsedTimer>
#include <QTemporaryDir>
#include <STEPControl_Writer.hxx>
#include <TopExp_Explorer.hxx>
#include <csignal>
#include <fstream>
#include <gp_Ax2.hxx>

using namespace waxis;

namespace {

QByteArray facet(const Vec3 &a, const Vec3 &b, const Vec3 &c) {
    QByteArray text = " facet normal 0 0 0\n  outer loop\n";
    for (const Vec3 *p : {&a, &b, &c})
        text += QString("   vertex %1 %2 %3\n")
                    .arg(p->x(), 0, 'g', 9)
                    .arg(p->y(), 0, 'g', 9)
                    .arg(p->z(), 0, 'g', 9)
                    .toLatin1();
    return text + "  endloop\n endfacet\n";
}

/// A sphere as rings of triangles.
Mesh sphere(double radius, int rings) {
    Mesh mesh;
    auto at = [&](int i, int j) {
        const double theta = M_PI * i / rings, phi = 2 * M_PI * j / (2 * rings);
        return Vec3(radius * std::sin(theta) * std::cos(phi), radius * std::sin(theta) * std::sin(phi),
                    radius * std::cos(theta));
    };
    for (int i = 0; i < rings; ++i)
        for (int j = 0; j < 2 * rings; ++j) {
            const int n = int(mesh.points_mm.size());
            for (const auto &[a, b] : {std::pair{i, j}, {i + 1, j}, {i + 1, j + 1}, {i, j + 1}})
                mesh.points_mm.push_back(at(a, b));
            mesh.triangles.push_back({n, n + 1, n + 2});
            mesh.triangles.push_back({n, n + 2, n + 3});
        }
    return mesh;
}

} // namespace

class TestSolids : public QObject {
    Q_OBJECT
    QTemporaryDir folder_;
    std::string path(const char *name) const { return folder_.filePath(name).toStdString(); }

    std::string write(const char *name, std::initializer_list<TopoDS_Shape> shapes) {
        STEPControl_Writer writer;
        for (const auto &shape : shapes) writer.Transfer(shape, STEPControl_AsIs);
        writer.Write(path(name).c_str());
        return path(name);
    }
    std::string writeStl(const char *name, const Mesh &mesh, std::size_t leaveOut = 0) {
        QByteArray text = "solid part\n";
        for (std::size_t i = leaveOut; i < mesh.triangles.size(); ++i) {
            const auto &[a, b, c] = mesh.triangles[i];
            text +=
                facet(mesh.points_mm[std::size_t(a)], mesh.points_mm[std::size_t(b)], mesh.points_mm[std::size_t(c)]);
        }
        std::ofstream(path(name), std::ios::binary) << (text + "endsolid part\n").toStdString();
        return path(name);
    }

    /// The letter stands in a number: the body that comes of it is another one, and as sound as it was drawn.
    static bool isShape(const std::string &bad, const std::string &good) {
        const auto at = std::size_t(std::mismatch(bad.begin(), bad.end(), good.begin()).first - bad.begin());
        return at < good.size() && std::isdigit(static_cast<unsigned char>(good[at])) &&
               std::isdigit(static_cast<unsigned char>(bad[at]));
    }

private slots:
    void stepBodiesHaveTheVolumeCentroidAndInertiaOfTheSolid() {
        // A block of 40 x 30 x 10 with a bore of 8 through it at (10, 15), and a cylinder beside it.
        const TopoDS_Shape block =
            BRepAlgoAPI_Cut(BRepPrimAPI_MakeBox(40, 30, 10).Shape(),
                            BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(10, 15, -1), gp_Dir(0, 0, 1)), 4, 12).Shape())
                .Shape();
        const TopoDS_Shape pin = BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(100, 0, 0), gp_Dir(1, 0, 0)), 5, 20).Shape();
        const auto bodies = readSolids(write("two.step", {block, pin}));
        QVERIFY2(bool(bodies), bodies ? "" : bodies.error().text().c_str());
        QCOMPARE(bodies->bodies.size(), std::size_t(2));
        const ShapeProperties found = *bodies->bodies[0].mesh.exact;
        const double bore = M_PI * 16 * 10, volume = 12000 - bore;
        QVERIFY(std::abs(found.volume_mm3 - volume) < 1e-6 * volume);
        QVERIFY((found.centroid_mm - Vec3((12000 * 20 - bore * 10) / volume, 15, 5)).norm() < 1e-6);
        // About its own centroid: block less bore, both moved there (Steiner).
        const double cx = found.centroid_mm.x();
        const double zz = 12000.0 / 12 * (1600 + 900) + 12000 * (20 - cx) * (20 - cx) -
                          (bore * 16 / 2 + bore * (10 - cx) * (10 - cx));
        QVERIFY(std::abs(found.inertia_mm5(2, 2) - zz) < 1e-6 * zz);
        const ShapeProperties cylinder = *bodies->bodies[1].mesh.exact;
        QVERIFY(std::abs(cylinder.volume_mm3 - M_PI * 25 * 20) < 1e-6 * cylinder.volume_mm3);
        QVERIFY(std::abs(cylinder.inertia_mm5(0, 0) - cylinder.volume_mm3 * 25 / 2) <
                1e-6 * cylinder.inertia_mm5(0, 0));
        for (const auto &body : bodies->bodies) {
            QVERIFY(body.mesh.triangles.size() <= 600);
            QCOMPARE(openEdges(body.mesh), std::size_t(0));
            Mesh triangles = body.mesh;
            triangles.exact.reset(); // the mesh stands for the body: chords within 0.15 mm
            QVERIFY(std::abs(shapeProperties(triangles).volume_mm3 - body.mesh.exact->volume_mm3) <
                    0.03 * body.mesh.exact->volume_mm3);
        }
    }
    void stlBodiesAreMeasuredAndThinned() {
        const auto bodies = readSolids(writeStl("ball.stl", sphere(15, 40)));
        QVERIFY2(bool(bodies), bodies ? "" : bodies.error().text().c_str());
        const ImportedBody &ball = bodies->bodies.at(0);
        QVERIFY(ball.trianglesRead > 3000);
        QVERIFY(ball.mesh.triangles.size() <= 600 && ball.mesh.triangles.size() > 100);
        QCOMPARE(openEdges(ball.mesh), std::size_t(0));
        const double volume = 4.0 / 3 * M_PI * 15 * 15 * 15;
        QVERIFY(std::abs(ball.mesh.exact->volume_mm3 - volume) < 0.005 * volume); // of the mesh as it came: 40 rings
        QVERIFY(std::abs(ball.mesh.exact->inertia_mm5(1, 1) - 0.4 * volume * 225) < 0.01 * 0.4 * volume * 225);
        for (const auto &p : ball.mesh.points_mm) QVERIFY(p.norm() < 15.01 && p.norm() > 13);
    }
    void insideOutMeshesAreTurned() {
        Mesh inside = sphere(10, 12);
        for (auto &t : inside.triangles) std::swap(t[0], t[1]);
        const auto bodies = readSolids(writeStl("inside.stl", inside));
        QVERIFY2(bool(bodies), bodies ? "" : bodies.error().text().c_str());
        QVERIFY(bodies->bodies.at(0).mesh.exact->volume_mm3 > 3900);
    }
    void binaryStlIsReadToo() {
        const Mesh mesh = sphere(10, 12);
        QByteArray bytes(80, 'x');
        auto put = [&](auto value) { bytes.append(reinterpret_cast<const char *>(&value), sizeof(value)); };
        put(quint32(mesh.triangles.size()));
        for (const auto &t : mesh.triangles) {
            for (int k = 0; k < 3; ++k) put(0.0f);
            for (int corner : t)
                for (int k = 0; k < 3; ++k) put(float(mesh.points_mm[std::size_t(corner)][k]));
            put(quint16(0));
        }
        std::ofstream(path("ball-binary.stl"), std::ios::binary) << bytes.toStdString();
        const auto bodies = readSolids(path("ball-binary.stl"));
        QVERIFY2(bool(bodies), bodies ? "" : bodies.error().text().c_str());
        QCOMPARE(openEdges(bodies->bodies.at(0).mesh), std::size_t(0));
    }
    void openMeshesAreRefusedWithTheirOpenEdges() {
        const auto bodies = readSolids(writeStl("open.stl", sphere(10, 12), 60));
        QVERIFY(!bodies);
        QVERIFY2(bodies.error().text().find("open edges") != std::string::npos, bodies.error().text().c_str());
        QVERIFY(!bodies.error().suggestion.empty());
    }
    void surfacesWithoutASolidAndOtherFilesAreRefused() {
        const TopoDS_Shape box = BRepPrimAPI_MakeBox(10, 10, 10).Shape();
        const auto faces = readSolids(write("face.step", {TopExp_Explorer(box, TopAbs_FACE).Current()}));
        QVERIFY(!faces);
        QVERIFY2(faces.error().found.find("surfaces") != std::string::npos, faces.error().text().c_str());
        for (const char *name : {"rubbish.step", "rubbish.stl", "empty.stl"}) {
            std::ofstream(path(name)) << (std::string(name) == "empty.stl" ? "" : "this is a letter\nand no body\n");
            const auto bodies = readSolids(path(name));
            QVERIFY2(!bodies, name);
            QVERIFY(!bodies.error().expected.empty() && !bodies.error().found.empty());
        }
        QVERIFY(!readSolids(path("missing.step")));
        QVERIFY(!readSolids(path("two.obj")));
        QVERIFY(!readSolids(folder_.path().toStdString() + "/"));
    }
    void damagedFilesHarmNobodyAndSayWhatIsMissing() {
        const TopoDS_Shape block = BRepPrimAPI_MakeBox(40, 30, 10).Shape();
        const TopoDS_Shape pin = BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(100, 0, 0), gp_Dir(1, 0, 0)), 5, 20).Shape();
        const auto whole = readSolids(write("whole.step", {block, pin}));
        QVERIFY2(bool(whole), whole ? "" : whole.error().text().c_str());
        QVERIFY2(whole->faults.empty(), whole->faults.empty() ? "" : whole->faults.front().c_str());
        const double volume = 12000 + M_PI * 25 * 20;
        std::ifstream in(path("whole.step"), std::ios::binary);
        const std::string text((std::istreambuf_iterator<char>(in)), {});
        const std::size_t data = text.find("DATA;");
        std::mt19937 random(7);
        int refused = 0, inPart = 0, untouched = 0;
        for (int i = 0; i < 60; ++i) { // one letter of the data is another
            std::string bad = text;
            const std::size_t at = data + random() % (bad.size() - data - 30);
            bad[at] = char('!' + random() % 90);
            std::ofstream(path("bad.step"), std::ios::binary) << bad;
            const auto read = readSolids(path("bad.step"));
            if (!read) {
                QVERIFY(!read.error().found.empty() && !read.error().where.empty());
                ++refused;
                continue;
            }
            double sum = 0;
            for (const auto &body : read->bodies) sum += body.mesh.exact->volume_mm3;
            const bool right = read->bodies.size() == 2 && std::abs(sum - volume) < 0.001 * volume;
            if (read->faults.empty() && !right)
                qInfo() << "silently other:" << QByteArray::fromStdString(bad.substr(at - 40, 80));
            (read->faults.empty() ? untouched : inPart)++;
            QVERIFY2(right || !read->faults.empty() || isShape(bad, text),
                     "part of the file is missing, and nothing is said");
        }
        qInfo("60 damages: %d refused, %d told, %d without effect", refused, inPart, untouched);
        QVERIFY(refused + inPart > 5);
    }
    void aReaderThatIsGivenUpOrTakesTooLongEnds() {
        const auto file = write("two.step", {BRepPrimAPI_MakeBox(40, 30, 10).Shape()});
        const auto given = readSolids(file, [] { return false; });
        QVERIFY(!given);
        QVERIFY2(given.error().found.find("given up") != std::string::npos, given.error().text().c_str());
        io::ChildLimits limits;
        limits.seconds = 0.3;
        const auto slow = io::runChild("/bin/sleep", {"20"}, limits);
        QCOMPARE(slow.end, io::ChildEnd::tooLong);
        limits.seconds = 10;
        limits.output_bytes = 1000;
        QCOMPARE(io::runChild("/usr/bin/yes", {}, limits).end, io::ChildEnd::tooMuch);
        const auto died = io::runChild("/bin/sh", {"-c", "kill -SEGV $$"}, {});
        QCOMPARE(died.end, io::ChildEnd::died);
        QCOMPARE(died.code, SIGSEGV);
        const auto told = io::runChild("/bin/sh", {"-c", "echo yes; exit 3"}, {});
        QCOMPARE(told.end, io::ChildEnd::exited);
        QCOMPARE(told.code, 3);
        QCOMPARE(told.output, std::string("yes\n"));
        QVERIFY(!io::runChild("/no/such/program", {}, {}).problem.empty());
    }
    void anStlThatCannotBeThinnedIsRefused() {
        // Ten thousand shells: no thinning keeps them closed and few.
        QByteArray text = "solid many\n";
        const Vec3 corners[] = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
        const int faces[][3] = {{0, 2, 1}, {0, 1, 3}, {0, 3, 2}, {1, 2, 3}};
        for (int i = 0; i < 10000; ++i) {
            const Vec3 at(i % 100 * 2, i / 100 * 2, 0);
            for (const auto &f : faces) text += facet(at + corners[f[0]], at + corners[f[1]], at + corners[f[2]]);
        }
        std::ofstream(path("many.stl"), std::ios::binary) << (text + "endsolid many\n").toStdString();
        QElapsedTimer clock;
        clock.start();
        const auto read = readSolids(path("many.stl"));
        QVERIFY(!read);
        QVERIFY2(read.error().found.find("cannot be thinned") != std::string::npos, read.error().text().c_str());
        QVERIFY(clock.elapsed() < 30000);
    }
    void answersThatAreNoneAreRefused() {
        for (const char *bytes : {"", "rubbish",
                                  "\xa1\x66"
                                  "bodies\x01"})
            QVERIFY(!io::decodeSolids(bytes));
        // What it says comes back as it was.
        ImportedSolids solids;
        ImportedBody body;
        body.name = "größe";
        body.mesh.points_mm = {{0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
        body.mesh.triangles = {{0, 2, 1}, {0, 1, 3}, {0, 3, 2}, {1, 2, 3}};
        body.mesh.exact = shapeProperties(body.mesh);
        body.trianglesRead = 4;
        solids.bodies = {body};
        solids.faults = {"one is missing"};
        const auto back = io::decodeSolids(io::encodeSolids(solids));
        QVERIFY(bool(back));
        QVERIFY(back->bodies[0].mesh == body.mesh && back->bodies[0].name == body.name &&
                back->faults == solids.faults);
        const auto error = io::decodeSolids(io::encodeSolids(Failure{LoadError{"f", "a", "b", "c"}}));
        QVERIFY(!error && error.error().found == "b");
    }
    void thinningKeepsMeshesClosed() {
        std::mt19937 random(99);
        for (int rings : {10, 25, 60})
            for (std::size_t most : {60u, 200u, 600u}) {
                Mesh mesh = welded(sphere(20, rings));
                for (auto &p : mesh.points_mm) p *= 1 + 0.02 * std::sin(p.x()) * std::cos(p.y());
                const Mesh fewer = thinned(mesh, most);
                QVERIFY(fewer.triangles.size() <= std::max<std::size_t>(most, 8));
                QCOMPARE(openEdges(fewer), std::size_t(0));
                for (const auto &t : fewer.triangles)
                    for (int corner : t) QVERIFY(corner >= 0 && corner < int(fewer.points_mm.size()));
            }
    }
};

QTEST_GUILESS_MAIN(TestSolids)
#include "test_solids.moc"
