#include "io/solids/solid_stream.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

using nlohmann::json;

namespace {

json toJson(const ImportedBody &body) {
    json points = json::array(), triangles = json::array(), inertia = json::array();
    for (const auto &p : body.mesh.points_mm)
        for (int k = 0; k < 3; ++k) points.push_back(p[k]);
    for (const auto &t : body.mesh.triangles)
        for (const int corner : t) triangles.push_back(corner);
    const ShapeProperties exact = body.mesh.exact.value_or(ShapeProperties{});
    for (int i = 0; i < 9; ++i) inertia.push_back(exact.inertia_mm5(i / 3, i % 3));
    return {{"name", body.name},
            {"read", body.trianglesRead},
            {"points", std::move(points)},
            {"triangles", std::move(triangles)},
            {"volume", exact.volume_mm3},
            {"centroid", {exact.centroid_mm.x(), exact.centroid_mm.y(), exact.centroid_mm.z()}},
            {"inertia", std::move(inertia)}};
}

ImportedBody bodyFrom(const json &document) {
    ImportedBody body;
    body.name = document.at("name").get<std::string>();
    body.trianglesRead = document.at("read").get<std::size_t>();
    const auto points = document.at("points").get<std::vector<double>>();
    for (std::size_t i = 0; i + 2 < points.size(); i += 3)
        body.mesh.points_mm.emplace_back(points[i], points[i + 1], points[i + 2]);
    const auto corners = document.at("triangles").get<std::vector<int>>();
    for (std::size_t i = 0; i + 2 < corners.size(); i += 3) {
        for (std::size_t k = i; k < i + 3; ++k)
            if (corners[k] < 0 || std::size_t(corners[k]) >= body.mesh.points_mm.size())
                throw std::out_of_range("a triangle without its corners");
        body.mesh.triangles.push_back({corners[i], corners[i + 1], corners[i + 2]});
    }
    ShapeProperties exact;
    exact.volume_mm3 = document.at("volume").get<double>();
    const auto centroid = document.at("centroid").get<std::vector<double>>();
    const auto inertia = document.at("inertia").get<std::vector<double>>();
    exact.centroid_mm = {centroid.at(0), centroid.at(1), centroid.at(2)};
    for (int i = 0; i < 9; ++i) exact.inertia_mm5(i / 3, i % 3) = inertia.at(std::size_t(i));
    body.mesh.exact = exact;
    return body;
}

} // namespace

std::string encodeSolids(const Result<ImportedSolids, LoadError> &solids) {
    json document;
    if (solids) {
        document["bodies"] = json::array();
        for (const auto &body : solids->bodies) document["bodies"].push_back(toJson(body));
        document["faults"] = solids->faults;
    } else {
        const LoadError &error = solids.error();
        document["error"] = {error.where, error.expected, error.found, error.suggestion};
    }
    const auto bytes = json::to_cbor(document);
    return {bytes.begin(), bytes.end()};
}

Result<ImportedSolids, LoadError> decodeSolids(std::string_view bytes) {
    try {
        const json document = json::from_cbor(bytes);
        if (document.contains("error")) {
            const auto words = document.at("error").get<std::vector<std::string>>();
            return Failure{LoadError{words.at(0), words.at(1), words.at(2), words.at(3)}};
        }
        ImportedSolids solids;
        for (const auto &body : document.at("bodies")) solids.bodies.push_back(bodyFrom(body));
        solids.faults = document.at("faults").get<std::vector<std::string>>();
        return solids;
    } catch (const std::exception &error) {
        return Failure{LoadError{"the reader of solids", "its answer", error.what(), ""}};
    }
}

} // namespace waxis::io
