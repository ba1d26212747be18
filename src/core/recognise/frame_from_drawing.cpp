#include "core/base/units.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/layout/numbering.h"
#include "core/recognise/laying.h"

#include <algorithm>
#include <cctype>
#include <cstdlib>
#include <fmt/format.h>
#include <map>
#include <regex>
#include <set>

namespace waxis {

namespace {

std::string lowerCase(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return text;
}

bool names(const std::string &layer, std::initializer_list<const char *> words) {
    const std::string text = lowerCase(layer);
    return std::any_of(words.begin(), words.end(), [&](const char *w) { return text.find(w) != std::string::npos; });
}

int motorsIn(const FoundPlate &plate) {
    return int(std::count_if(plate.patterns.begin(), plate.patterns.end(),
                             [](const FoundPattern &p) { return p.use == PatternUse::motor; }));
}

/// Drawing axes to body axes: the nose goes to +x.
Vec2 turned(const Vec2 &p, NoseSide nose) {
    switch (nose) {
    case NoseSide::right: return p;
    case NoseSide::up: return {p.y(), -p.x()};
    case NoseSide::left: return -p;
    case NoseSide::down: return {-p.y(), p.x()};
    }
    return p;
}

double turn_deg(NoseSide nose) {
    switch (nose) {
    case NoseSide::right: return 0;
    case NoseSide::up: return -90;
    case NoseSide::left: return 180;
    case NoseSide::down: return 90;
    }
    return 0;
}

/// Fewer corners, none farther than `tolerance` from the ring (Douglas and Peucker 1973).
Ring thinned(const Ring &ring, double tolerance) {
    if (ring.size() < 8) return ring;
    std::vector<bool> keep(ring.size(), false);
    const std::size_t half = ring.size() / 2;
    keep[0] = keep[half] = true;
    std::vector<std::pair<std::size_t, std::size_t>> open{{0, half}, {half, ring.size()}};
    while (!open.empty()) {
        const auto [from, to] = open.back();
        open.pop_back();
        const Vec2 a = ring[from], d = ring[to % ring.size()] - a;
        double most = tolerance;
        std::size_t farthest = from;
        for (std::size_t i = from + 1; i < to; ++i) {
            const Vec2 p = ring[i] - a;
            const double off = d.norm() > 1e-12 ? std::abs(d.x() * p.y() - d.y() * p.x()) / d.norm() : p.norm();
            if (off > most) {
                most = off;
                farthest = i;
            }
        }
        if (farthest == from) continue;
        keep[farthest] = true;
        open.emplace_back(from, farthest);
        open.emplace_back(farthest, to);
    }
    Ring result;
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (keep[i]) result.push_back(ring[i]);
    return result.size() < 3 ? ring : result;
}

const char *roleWord(PlateRole role) {
    switch (role) {
    case PlateRole::main: return "main";
    case PlateRole::second: return "second";
    case PlateRole::top: return "top";
    case PlateRole::clean: return "clean";
    case PlateRole::arm: return "arm";
    case PlateRole::other:
    case PlateRole::ignore: return "extra";
    }
    return "extra";
}

std::string roleTitle(PlateRole role) {
    const std::string word = roleWord(role);
    return role == PlateRole::arm ? "Arm plate"
                                  : std::string(1, char(std::toupper(word[0]))) + word.substr(1) + " plate";
}

/// Which plate words speak of; none: of none in particular.
std::optional<PlateRole> roleIn(const std::string &words) {
    if (names(words, {"top", "upper", "roof"})) return PlateRole::top;
    if (names(words, {"clean", "soft"})) return PlateRole::clean;
    if (names(words, {"mid", "second", "sandwich"})) return PlateRole::second;
    if (names(words, {"arm"})) return PlateRole::arm;
    if (names(words, {"main", "bottom", "base", "lower"})) return PlateRole::main;
    return std::nullopt;
}

/// A caption in pieces, each of one plate: "main plate 5 mm, top plate 2 mm carbon" are two, "top plate, 2 mm" is one.
std::vector<std::string> captions(const std::string &text) {
    std::vector<std::string> pieces;
    std::string clause;
    bool roleSeen = false;
    for (const char c : text + ",") {
        if (c != ',' && c != ';') {
            clause += c;
            continue;
        }
        // "2,5 mm" is a number, not two clauses.
        const bool isRole = roleIn(clause).has_value();
        if (pieces.empty() || (isRole && roleSeen))
            pieces.push_back(clause);
        else
            pieces.back() += "," + clause;
        roleSeen |= isRole;
        clause.clear();
    }
    return pieces;
}

/// "Top plate, 2.5 mm carbon" says a name and a thickness; "t=2" only the latter.
void readWriting(const std::string &written, PlateChoice &choice) {
    static const std::regex thickness(R"((^|[^\d.,])(\d{1,2}(?:[.,]\d{1,2})?)\s*mm)", std::regex::icase);
    static const std::regex bare(R"((^|\s)t\s*=\s*(\d{1,2}(?:[.,]\d{1,2})?))", std::regex::icase);
    std::string name = written.substr(0, 200); // the library's search recurses
    std::smatch found;
    if (std::regex_search(name, found, thickness) || std::regex_search(name, found, bare)) {
        std::string digits = found[2];
        std::replace(digits.begin(), digits.end(), ',', '.');
        const double value = std::strtod(digits.c_str(), nullptr);
        constexpr double kThinnest_mm = 0.2, kThickest_mm = 20;
        if (value >= kThinnest_mm && value <= kThickest_mm) choice.thickness_mm = value;
        name = found.prefix().str(); // what follows is material and number of pieces
    }
    while (!name.empty() && std::string_view(" ,;:-_x(").find(name.back()) != std::string_view::npos) name.pop_back();
    const auto first = name.find_first_not_of(" \t");
    name = first == std::string::npos ? std::string() : name.substr(first);
    const bool letters = std::any_of(name.begin(), name.end(), [](unsigned char c) { return std::isalpha(c); });
    constexpr std::size_t kShortest = 3, kLongest = 60;
    if (!letters || name.size() < kShortest || name.size() > kLongest) return;
    name[0] = char(std::toupper(static_cast<unsigned char>(name[0])));
    choice.name = name;
}

/// base, base-2, base-3...
std::string freshName(std::set<std::string> &used, const std::string &base) {
    std::string id = base;
    for (int n = 2; !used.insert(id).second; ++n) id = fmt::format("{}-{}", base, n);
    return id;
}

} // namespace

void keepCorrections(const Recognition &before, const DrawingChoices &corrected, Recognition &now,
                     DrawingChoices &choices) {
    constexpr double kSame_mm = 0.1;
    const DrawingChoices guessed = guessChoices(before);
    if (corrected.propDiameter_mm != guessed.propDiameter_mm) choices.propDiameter_mm = corrected.propDiameter_mm;
    if (corrected.standoffHeight_mm != guessed.standoffHeight_mm)
        choices.standoffHeight_mm = corrected.standoffHeight_mm;
    const auto middle = [](const FoundPlate &plate) { return areaProperties({plate.outline_mm, {}}).centroid_mm; };
    const auto carry = [&](const auto &from, auto &to, auto &&take) {
        for (auto &own : to)
            for (const auto &old : from)
                if ((old.centre_mm - own.centre_mm).norm() < kSame_mm) {
                    take(old, own);
                    break;
                }
    };
    for (std::size_t i = 0; i < now.plates.size(); ++i)
        for (std::size_t k = 0; k < before.plates.size(); ++k) {
            const FoundPlate &old = before.plates[k];
            FoundPlate &own = now.plates[i];
            if (old.layer != own.layer || (middle(old) - middle(own)).norm() > kSame_mm) continue;
            if (k < corrected.plates.size()) turnPlate(now, choices, i, corrected.plates[k].turn_deg);
            if (k < corrected.plates.size() && !(corrected.plates[k] == guessed.plates[k]))
                choices.plates[i] = corrected.plates[k];
            carry(old.cutouts, own.cutouts, [](const FoundSlot &a, FoundSlot &b) { b.use = a.use; });
            carry(old.patterns, own.patterns, [](const FoundPattern &a, FoundPattern &b) { b.use = a.use; });
            carry(old.holes, own.holes, [](const FoundHole &a, FoundHole &b) { b.screw = a.screw; });
            break;
        }
}

DrawingChoices guessChoices(const Recognition &found) {
    DrawingChoices choices;
    choices.plates.resize(found.plates.size());
    bool mainSeen = false;
    auto set = [&](std::size_t i, PlateRole role) {
        choices.plates[i].role = role;
        choices.plates[i].name = roleTitle(role);
        mainSeen |= role == PlateRole::main;
    };
    for (std::size_t i = 0; i < found.plates.size(); ++i) {
        // The layer tells; where it does not, what is written beside the plate.
        auto role = roleIn(found.plates[i].layer);
        if (const auto said = captions(found.plates[i].text); !role && said.size() == 1) role = roleIn(said.front());
        if (role && (*role != PlateRole::main || !mainSeen)) set(i, *role);
    }
    // No layer told: the plate with the most motors, then the largest.
    if (!mainSeen) {
        std::size_t best = found.plates.size();
        for (std::size_t i = 0; i < found.plates.size(); ++i) {
            if (!choices.plates[i].name.empty()) continue;
            if (best == found.plates.size() || motorsIn(found.plates[i]) > motorsIn(found.plates[best]) ||
                (motorsIn(found.plates[i]) == motorsIn(found.plates[best]) &&
                 found.plates[i].area_mm2 > found.plates[best].area_mm2))
                best = i;
        }
        if (best < found.plates.size()) set(best, PlateRole::main);
    }
    for (std::size_t i = 0; i < found.plates.size(); ++i) {
        if (!choices.plates[i].name.empty()) continue;
        const auto &plate = found.plates[i];
        const bool bearsStack = std::any_of(plate.patterns.begin(), plate.patterns.end(),
                                            [](const FoundPattern &p) { return p.use == PatternUse::stack; });
        set(i, motorsIn(plate) == 1                    ? PlateRole::arm
               : bearsStack || plate.area_mm2 > 1500.0 ? PlateRole::top
                                                       : PlateRole::other);
    }
    double armThickness = 0;
    for (std::size_t i = 0; i < found.plates.size(); ++i) {
        auto &choice = choices.plates[i];
        const bool carriesMotors = motorsIn(found.plates[i]) > 0;
        choice.thickness_mm = carriesMotors ? 5 : 2;
        const auto own = captions(found.plates[i].text);
        if (own.size() == 1) readWriting(own.front(), choice);
        for (const auto &other : found.plates) // a caption for the whole sheet
            if (const auto said = captions(other.text); said.size() > 1)
                for (const auto &piece : said)
                    if (roleIn(piece) == choice.role) readWriting(piece, choice);
        if (choice.role == PlateRole::arm) armThickness = choice.thickness_mm;
    }
    choices.armThickness_mm = armThickness;
    // As large as the other motors and the plates beside them allow, in half inches.
    const auto shift = plateShifts(found, choices);
    constexpr double kInch_mm = 25.4, kTips_mm = 6, kBody_mm = 5;
    double diameter = 1e300;
    for (std::size_t i = 0; i < found.plates.size(); ++i)
        for (const auto &p : found.plates[i].patterns) {
            if (p.use != PatternUse::motor) continue;
            const Vec2 motor = p.centre_mm + shift[i];
            for (std::size_t k = 0; k < found.plates.size(); ++k) {
                for (const auto &other : found.plates[k].patterns)
                    if (const double d = (other.centre_mm + shift[k] - motor).norm();
                        other.use == PatternUse::motor && d > 20)
                        diameter = std::min(diameter, d - kTips_mm);
                const Ring &outline = found.plates[k].outline_mm;
                if (choices.plates[k].role == PlateRole::arm || contains({outline, {}}, motor - shift[k])) continue;
                for (const auto &corner : outline)
                    diameter = std::min(diameter, 2 * ((corner + shift[k] - motor).norm() - kBody_mm));
            }
        }
    if (diameter < 1e299) choices.propDiameter_mm = std::max(1.0, std::floor(diameter / (kInch_mm / 2)) / 2) * kInch_mm;
    return choices;
}

namespace {

/// Puts what was found in a drawing together, plate by plate.
class FrameMaker {
public:
    FrameMaker(const Recognition &found, const DrawingChoices &choices, std::size_t base)
        : found_(found), choices_(choices), shift_(plateShifts(found, choices)) {
        findDatum(base);
        // The main plate's top face is nought; arms on it, the second plate on them, standoffs, the top plate.
        secondTop_ = choices.armThickness_mm;
        for (std::size_t i = 0; i < found.plates.size(); ++i)
            if (isChosen(choices, i) && choices.plates[i].role == PlateRole::second)
                secondTop_ = std::max(secondTop_, choices.armThickness_mm + choices.plates[i].thickness_mm);
        frame_.name = "Frame from a drawing";
    }

    Result<Frame, std::string> make() {
        for (std::size_t i = 0; i < found_.plates.size(); ++i) {
            if (!isChosen(choices_, i)) continue;
            Plate plate = plateOf(i);
            if (const auto fault = faultOf(platePolygon(plate)); !fault.empty())
                return Failure{fmt::format("{} (layer {}): {}", plate.name, found_.plates[i].layer, fault)};
            addPatterns(i, plate);
            addSlots(i, plate);
            frame_.plates.push_back(std::move(plate));
        }
        turnMotors();
        addStandoffs();
        frame_.screws = missingScrews(frame_);
        return std::move(frame_);
    }

private:
    /// The middle of the motors, or of the base plate where there are fewer than two.
    void findDatum(std::size_t base) {
        int motors = 0;
        for (std::size_t i = 0; i < found_.plates.size(); ++i)
            if (isChosen(choices_, i))
                for (const auto &p : found_.plates[i].patterns)
                    if (p.use == PatternUse::motor) {
                        datum_ += p.centre_mm + shift_[i];
                        ++motors;
                    }
        datum_ = motors >= 2 ? Vec2(datum_ / motors) : anchorOf(found_.plates[base]);
    }
    Vec2 place(std::size_t plate, const Vec2 &p) const { return turned(p + shift_[plate] - datum_, choices_.nose); }
    Ring placeRing(std::size_t plate, const Ring &ring) const {
        Ring result;
        for (const auto &p : ring) result.push_back(place(plate, p));
        return thinned(result, kFlattening_mm / 2);
    }

    double heightOf(const PlateChoice &choice) const {
        if (choice.z_mm) return *choice.z_mm;
        switch (choice.role) {
        case PlateRole::main: return -choice.thickness_mm;
        case PlateRole::arm: return 0;
        case PlateRole::second: return choices_.armThickness_mm;
        case PlateRole::clean: return secondTop_ + 8;
        case PlateRole::top: return secondTop_ + choices_.standoffHeight_mm;
        case PlateRole::other:
        case PlateRole::ignore: return secondTop_;
        }
        return 0;
    }

    Plate plateOf(std::size_t i) {
        const PlateChoice &choice = choices_.plates[i];
        const FoundPlate &drawn = found_.plates[i];
        Plate plate;
        plate.id = freshName(ids_, fmt::format("plate-{}", roleWord(choice.role)));
        plate.name = choice.name.empty() ? roleTitle(choice.role) : choice.name;
        plate.thickness_mm = choice.thickness_mm;
        plate.material = choice.material;
        plate.isolated = choice.role == PlateRole::clean;
        plate.z_mm = heightOf(choice);
        plate.outline_mm = placeRing(i, drawn.outline_mm);
        for (const auto &hole : drawn.holes) {
            plate.holes.push_back({place(i, hole.centre_mm), hole.diameter_mm});
            screws_[plate.id].push_back(hole.screw);
        }
        for (const auto &slot : drawn.cutouts) plate.cutouts_mm.push_back(placeRing(i, slot.ring));
        return plate;
    }

    /// Motor mounts and stack sites on a plate's upper face.
    void addPatterns(std::size_t i, const Plate &plate) {
        const double top = plate.z_mm + plate.thickness_mm;
        for (const auto &p : found_.plates[i].patterns) {
            const Vec2 centre = place(i, p.centre_mm);
            const double angle = p.angle_deg + turn_deg(choices_.nose);
            if (p.use == PatternUse::motor) {
                MotorMount mount;
                mount.id = freshName(ids_, "mount");
                mount.position_mm = {centre.x(), centre.y(), top};
                mount.pattern = p.pattern;
                mount.propDiameter_mm = choices_.propDiameter_mm;
                mount.propPlane_mm = choices_.propPlane_mm;
                frame_.motorMounts.push_back(mount);
            } else if (p.use == PatternUse::stack) {
                Site site;
                site.id = freshName(ids_, "site-stack");
                site.name = fmt::format("{:g} mm pattern, {}", p.pattern.size_mm, lowerCase(plate.name));
                site.kind = SiteKind::pattern;
                site.on = plate.id;
                site.pattern = p.pattern;
                site.isolated = plate.isolated;
                const double quarter =
                    angle - 90 * std::round(angle / 90); // a square looks the same after a quarter turn
                site.X_FrameSite = {{centre.x(), centre.y(), top},
                                    quaternionFrom({0, 0, std::abs(quarter) < 0.3 ? 0.0 : quarter})};
                frame_.sites.push_back(site);
            }
        }
    }

    /// Pass-throughs, and one site between all slots for straps.
    void addSlots(std::size_t i, const Plate &plate) {
        const FoundPlate &drawn = found_.plates[i];
        const double top = plate.z_mm + plate.thickness_mm;
        std::vector<Vec2> straps;
        for (const auto &slot : drawn.cutouts) {
            if (slot.use == SlotUse::passThrough)
                frame_.passThroughs.push_back(
                    {freshName(ids_, "pass"), plate.id, placeRing(i, slot.ring), HoleEdge::bare});
            if (slot.use == SlotUse::strap) straps.push_back(place(i, slot.centre_mm));
        }
        if (!straps.empty()) {
            Vec2 middle = Vec2::Zero();
            for (const auto &p : straps) middle += p / double(straps.size());
            Site site;
            site.id = freshName(ids_, "site-pack");
            site.name = "Strap slots, " + lowerCase(plate.name);
            site.kind = SiteKind::strap;
            site.on = plate.id;
            site.X_FrameSite.position_mm = {middle.x(), middle.y(), top};
            frame_.sites.push_back(site);
        }
    }

    void turnMotors() {
        const auto spins = alternatingSpins(frame_.motorMounts, Spin::counterClockwise);
        const auto numbers = motorNumbers(frame_.motorMounts, Numbering::rearRightFirst);
        for (std::size_t i = 0; i < frame_.motorMounts.size(); ++i) {
            frame_.motorMounts[i].spin = spins[i];
            frame_.motorMounts[i].number = numbers[i];
        }
        if (!frame_.motorMounts.empty()) frame_.numbering = "rear-right-first";
    }

    /// Holes that the main or second plate and the top plate share, outside the stack patterns, are where standoffs
    /// stand.
    void addStandoffs() {
        const Plate *roof = nullptr;
        const Plate *floor = nullptr;
        for (const auto &plate : frame_.plates) {
            if (plate.id == "plate-top") roof = &plate;
            if (plate.id == "plate-second" || (plate.id == "plate-main" && !floor)) floor = &plate;
        }
        if (roof && floor && roof->z_mm > floor->z_mm + floor->thickness_mm) {
            auto inStack = [&](const Vec2 &p) {
                return std::any_of(frame_.sites.begin(), frame_.sites.end(), [&](const Site &site) {
                    if (!site.pattern) return false;
                    for (const auto &c : holeCentres(*site.pattern))
                        if (((site.X_FrameSite * Vec3(c.x(), c.y(), 0)).head<2>() - p).norm() < 0.5) return true;
                    return false;
                });
            };
            for (std::size_t r = 0; r < roof->holes.size(); ++r)
                for (const auto &below : floor->holes) {
                    const RoundHole &hole = roof->holes[r];
                    const auto &screw = screws_[roof->id][r];
                    if ((hole.centre_mm - below.centre_mm).norm() > 0.3 || !screw || inStack(hole.centre_mm)) continue;
                    Standoff standoff;
                    standoff.id = freshName(ids_, "standoff");
                    const double z = floor->z_mm + floor->thickness_mm;
                    standoff.base_mm = {below.centre_mm.x(), below.centre_mm.y(), z};
                    standoff.height_mm = roof->z_mm - z;
                    standoff.thread = screw->thread->name;
                    standoff.diameter_mm = screw->thread->nominal_mm < 2.4 ? 3.5 : 5.0;
                    standoff.bore_mm = screw->thread->nominal_mm * 0.83;
                    frame_.standoffs.push_back(standoff);
                    break;
                }
        }
    }

    const Recognition &found_;
    const DrawingChoices &choices_;
    std::vector<Vec2> shift_;
    Vec2 datum_ = Vec2::Zero();
    double secondTop_ = 0;
    Frame frame_;
    std::set<std::string> ids_;
    std::map<std::string, std::vector<std::optional<ScrewHole>>> screws_; ///< of each plate's holes, in their order
};

} // namespace

Result<Frame, std::string> frameFromDrawing(const Recognition &found, const DrawingChoices &choices) {
    const std::size_t base = basePlate(found, choices);
    if (base == found.plates.size()) return Failure{std::string("No plate is chosen.")};
    return FrameMaker(found, choices, base).make();
}

} // namespace waxis
