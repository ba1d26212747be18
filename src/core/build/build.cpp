#include "core/build/build.h"

#include "core/base/by_id.h"
#include "core/build/log.h"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace waxis {

namespace {
/// "Front left", "Rear", "Left": where a point lies as seen from the datum.
std::string quarterInWords(const Vec3 &p) {
    constexpr double kMiddle_mm = 1.0;
    std::string words = p.x() > kMiddle_mm ? "Front" : p.x() < -kMiddle_mm ? "Rear" : "";
    const std::string side = p.y() > kMiddle_mm ? "left" : p.y() < -kMiddle_mm ? "right" : "";
    if (words.empty()) return side.empty() ? "Middle" : side == "left" ? "Left" : "Right";
    return side.empty() ? words : words + " " + side;
}

} // namespace

const Part *findPart(const Build &build, const std::string &id) { return byId(build.parts, id); }

const Wire *findWire(const Build &build, const std::string &id) { return byId(build.wires, id); }

const KitEntry *findKitEntry(const Build &build, const std::string &item) {
    const auto at =
        std::find_if(build.kit.begin(), build.kit.end(), [&](const KitEntry &entry) { return entry.item == item; });
    return at == build.kit.end() ? nullptr : &*at;
}

const PartType *typeOf(const Build &build, const Part &part) {
    const auto at = build.types->find(part.type);
    return at == build.types->end() ? nullptr : &at->second;
}

std::optional<Pose> sitePose(const Frame &frame, const std::string &id) {
    if (const auto *site = byId(frame.sites, id)) return site->X_FrameSite;
    if (const auto *mount = byId(frame.motorMounts, id))
        return Pose{mount->position_mm, Quat::FromTwoVectors(Vec3::UnitZ(), mount->axis)};
    return std::nullopt;
}

bool isAboard(const Part &part, const LoadCase &loadCase) {
    return !part.optional || part.id == loadCase.battery ||
           std::find(loadCase.aboard.begin(), loadCase.aboard.end(), part.id) != loadCase.aboard.end();
}

bool isSwitchedOn(const Part &part, const LoadCase &loadCase) {
    return isAboard(part, loadCase) && loadCase.kind != LoadCaseKind::carried &&
           std::find(loadCase.off.begin(), loadCase.off.end(), part.id) == loadCase.off.end();
}

std::vector<LoadCase> effectiveLoadCases(const Build &build) {
    if (!build.loadCases.empty()) return build.loadCases;
    LoadCase as_drawn;
    as_drawn.id = "as-drawn";
    as_drawn.name = "As drawn";
    // The one pack that is fitted flies; of several nobody can tell which.
    std::vector<std::string> packs;
    for (const auto &part : build.parts)
        if (const PartType *type = typeOf(build, part); type && type->kind == PartKind::battery && !part.optional)
            packs.push_back(part.id);
    if (packs.size() == 1) as_drawn.battery = packs.front();
    return {as_drawn};
}

namespace {

template <class Is>
CaseMask casesWhere(const std::vector<LoadCase> &loadCases, Is &&is) {
    CaseMask mask = 0;
    for (std::size_t i = 0; i < loadCases.size() && i < kMostLoadCases; ++i)
        if (is(loadCases[i])) mask |= CaseMask(1) << i;
    return mask;
}

} // namespace

CaseMask casesAboard(const Part &part, const std::vector<LoadCase> &loadCases) {
    return casesWhere(loadCases, [&](const LoadCase &loadCase) { return isAboard(part, loadCase); });
}

CaseMask casesSwitchedOn(const Part &part, const std::vector<LoadCase> &loadCases) {
    return casesWhere(loadCases, [&](const LoadCase &loadCase) { return isSwitchedOn(part, loadCase); });
}

std::vector<std::string> allIds(const Build &build) {
    std::vector<std::string> ids;
    auto take = [&](const auto &list) {
        for (const auto &thing : list) ids.push_back(thing.id);
    };
    take(build.frame->motorMounts);
    take(build.frame->arms);
    take(build.frame->plates);
    take(build.frame->standoffs);
    take(build.frame->screws);
    take(build.frame->sites);
    take(build.frame->passThroughs);
    take(build.parts);
    take(build.stacks);
    take(build.wires);
    take(build.ties);
    take(build.groundStations);
    take(build.trials);
    take(build.allowances);
    take(build.loadCases);
    take(build.weighings);
    take(build.weightLimits);
    take(build.ownSteps);
    take(build.log->sessions);
    take(build.log->entries);
    take(build.log->trials);
    for (const auto &trial : build.log->trials) {
        take(trial.setups);
        take(trial.tries);
    }
    take(build.log->snapshots);
    return ids;
}

std::string freshId(const Build &build, const std::string &base) {
    const auto ids = allIds(build);
    auto taken = [&](const std::string &id) { return std::find(ids.begin(), ids.end(), id) != ids.end(); };
    if (!taken(base)) return base;
    for (int n = 2;; ++n)
        if (auto id = fmt::format("{}-{}", base, n); !taken(id)) return id;
}

std::string displayName(const Build &build, const std::string &id) {
    if (const auto *part = findPart(build, id)) return part->name.empty() ? id : part->name;
    if (const auto *plate = byId(build.frame->plates, id)) return plate->name.empty() ? id : plate->name;
    if (const auto *site = byId(build.frame->sites, id)) return site->name.empty() ? id : site->name;
    if (const auto *stack = byId(build.stacks, id)) return stack->name.empty() ? id : stack->name;
    if (const auto *ground = byId(build.groundStations, id)) return ground->name.empty() ? id : ground->name;
    if (const auto *trial = byId(build.trials, id)) return trial->name.empty() ? id : trial->name;
    if (const auto *wire = byId(build.wires, id)) return wire->name.empty() ? id : wire->name;
    if (const auto *allowance = byId(build.allowances, id)) return allowance->name;
    if (const auto *weighing = byId(build.weighings, id)) return weighing->name;
    if (const auto *limit = byId(build.weightLimits, id)) return limit->name;
    if (const auto *trial = byId(build.log->trials, id)) return trial->question;
    if (const auto *session = byId(build.log->sessions, id)) return session->name.empty() ? session->at : session->name;
    if (const auto *state = byId(build.log->snapshots, id)) return state->name;
    const auto loadCases = effectiveLoadCases(build);
    if (const auto *loadCase = byId(loadCases, id)) return loadCase->name;
    if (const auto *arm = byId(build.frame->arms, id)) return quarterInWords(arm->tip_mm) + " arm";
    if (byId(build.frame->standoffs, id)) return "Standoff " + id;
    if (const auto *screw = byId(build.frame->screws, id))
        return fmt::format("{} screw {}", screw->thread, id.starts_with("screw-") ? id.substr(6) : id);
    if (const auto *mount = byId(build.frame->motorMounts, id))
        return quarterInWords(mount->position_mm) + " propeller disc";
    // Mass rows of what holds a part without being drawn.
    constexpr std::string_view kFastening = "/fastening";
    if (id.ends_with(kFastening)) {
        std::string held = displayName(build, id.substr(0, id.size() - kFastening.size()));
        if (held.size() > 1 && std::islower(static_cast<unsigned char>(held[1])))
            held[0] = char(std::tolower(static_cast<unsigned char>(held[0])));
        return "What holds " + held;
    }
    return id;
}

} // namespace waxis
