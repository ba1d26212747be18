// STEP and STL through Open CASCADE: solids as triangles, with the volume, centroid and inertia of the exact body.
#include "solids_reader/read_solids.h"

#include <BRepCheck_Analyzer.hxx>
#include <BRepGProp.hxx>
#include <BRepMesh_IncrementalMesh.hxx>
#include <BRep_Tool.hxx>
#include <GProp_GProps.hxx>
#include <Interface_Check.hxx>
#include <Interface_CheckIterator.hxx>
#include <Poly_Triangulation.hxx>
#include <RWStl.hxx>
#include <STEPCAFControl_Reader.hxx>
#include <Standard_Failure.hxx>
#include <TCollection_AsciiString.hxx>
#include <TDF_LabelSequence.hxx>
#include <TDataStd_Name.hxx>
#include <TDocStd_Document.hxx>
#include <TopExp_Explorer.hxx>
#include <TopTools_MapOfShape.hxx>
#include <TopoDS.hxx>
#include <TopoDS_Solid.hxx>
#include <XCAFApp_Application.hxx>
#include <XCAFDoc_DocumentTool.hxx>
#include <XCAFDoc_ShapeTool.hxx>
#include <XSControl_WorkSession.hxx>
#include <fmt/format.h>
#include <fstream>
#include <regex>

namespace waxis {

namespace {

constexpr double kDeflection_mm = 0.15, kAngle_rad = 0.4;

void addTriangles(const Handle(Poly_Triangulation) & triangles, const TopLoc_Location &place, bool reversed,
                  Mesh &mesh) {
    const int base = int(mesh.points_mm.size());
    for (int i = 1; i <= triangles->NbNodes(); ++i) {
        const gp_Pnt p = triangles->Node(i).Transformed(place.Transformation());
        mesh.points_mm.emplace_back(p.X(), p.Y(), p.Z());
    }
    for (int i = 1; i <= triangles->NbTriangles(); ++i) {
        int a = 0, b = 0, c = 0;
        triangles->Triangle(i).Get(a, b, c);
        if (reversed) std::swap(b, c);
        mesh.triangles.push_back({base + a - 1, base + b - 1, base + c - 1});
    }
}

RawBody bodyOf(const TopoDS_Shape &solid, const std::string &name) {
    RawBody body;
    body.name = name;
    GProp_GProps properties;
    BRepGProp::VolumeProperties(solid, properties);
    ShapeProperties exact;
    exact.volume_mm3 = properties.Mass();
    const gp_Pnt centre = properties.CentreOfMass();
    exact.centroid_mm = {centre.X(), centre.Y(), centre.Z()};
    const gp_Mat inertia = properties.MatrixOfInertia(); // about the centroid
    for (int i = 0; i < 3; ++i)
        for (int j = 0; j < 3; ++j) exact.inertia_mm5(i, j) = inertia(i + 1, j + 1);
    BRepMesh_IncrementalMesh(solid, kDeflection_mm, false, kAngle_rad);
    for (TopExp_Explorer face(solid, TopAbs_FACE); face.More(); face.Next()) {
        TopLoc_Location place;
        const auto triangles = BRep_Tool::Triangulation(TopoDS::Face(face.Current()), place);
        if (!triangles.IsNull())
            addTriangles(triangles, place, face.Current().Orientation() == TopAbs_REVERSED, body.mesh);
    }
    if (exact.volume_mm3 > 0) body.mesh.exact = exact;
    return body;
}

/// Names of the solids that the text of a STEP file (ISO 10303-21) speaks of, whatever becomes of them.
std::vector<std::string> solidsNamedIn(const char *path) {
    std::ifstream in(path, std::ios::binary);
    static const std::regex solid(R"((MANIFOLD_SOLID_BREP|BREP_WITH_VOIDS|FACETED_BREP)\s*\(\s*'([^']{0,80}))");
    std::vector<std::string> names;
    std::string line;
    while (std::getline(in, line)) {
        constexpr std::size_t kLongest = 2000; // the library's search recurses
        std::smatch found;
        const std::string head = line.substr(0, kLongest);
        if (std::regex_search(head, found, solid)) names.push_back(found[2]);
    }
    return names;
}

} // namespace

bool readStep(const char *path, std::vector<RawBody> &bodies, std::vector<std::string> &faults, std::string &problem) {
    Handle(TDocStd_Document) document;
    XCAFApp_Application::GetApplication()->NewDocument("BinXCAF", document);
    STEPCAFControl_Reader reader;
    reader.SetNameMode(true);
    if (reader.ReadFile(path) != IFSelect_RetDone) {
        problem = "something that is no STEP file";
        return false;
    }
    if (!reader.Transfer(document)) {
        problem = "a STEP file without bodies";
        return false;
    }
    int failed = 0;
    Interface_CheckIterator checks = reader.Reader().WS()->ModelCheckList(true);
    for (checks.Start(); checks.More(); checks.Next()) failed += checks.Value()->NbFails();
    if (failed > 0)
        faults.push_back(fmt::format("{} {} of the file cannot be understood", failed, failed == 1 ? "line" : "lines"));
    TopTools_MapOfShape different; // one solid may stand in several places
    TDF_LabelSequence roots;
    XCAFDoc_DocumentTool::ShapeTool(document->Main())->GetFreeShapes(roots);
    for (int i = 1; i <= roots.Length(); ++i) {
        std::string name = "body";
        Handle(TDataStd_Name) label;
        if (roots.Value(i).FindAttribute(TDataStd_Name::GetID(), label))
            name = TCollection_AsciiString(label->Get()).ToCString();
        const TopoDS_Shape shape = XCAFDoc_ShapeTool::GetShape(roots.Value(i));
        for (TopExp_Explorer solid(shape, TopAbs_SOLID); solid.More(); solid.Next()) {
            constexpr std::size_t kMostBodies = 200;
            if (bodies.size() >= kMostBodies) {
                problem = "more than 200 solids; export the part alone";
                return false;
            }
            bodies.push_back(bodyOf(solid.Current(), name));
            different.Add(solid.Current().Located(TopLoc_Location()));
            if (!BRepCheck_Analyzer(solid.Current()).IsValid())
                faults.push_back(fmt::format("the body \"{}\" is damaged: faces are missing or do not meet", name));
        }
    }
    const auto named = solidsNamedIn(path);
    if (const auto came = std::size_t(different.Extent()); came < named.size())
        faults.push_back(
            fmt::format("{} of the {} bodies in the file did not come", named.size() - came, named.size()));
    if (bodies.empty()) problem = "surfaces or wires only; export a solid";
    return !bodies.empty();
}

bool readStl(const char *path, std::vector<RawBody> &bodies, std::string &problem) {
    const Handle(Poly_Triangulation) triangles = RWStl::ReadFile(path);
    if (triangles.IsNull() || triangles->NbTriangles() == 0) {
        problem = "something that is no STL mesh";
        return false;
    }
    constexpr int kMostTriangles = 2'000'000;
    if (triangles->NbTriangles() > kMostTriangles) {
        problem = "more than two million triangles";
        return false;
    }
    RawBody body;
    body.name = "body";
    addTriangles(triangles, TopLoc_Location(), false, body.mesh);
    bodies.push_back(std::move(body));
    return true;
}

} // namespace waxis
