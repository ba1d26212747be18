// How the power report is worked out: sources, copper and loads of one build, one load case after the other.
#pragma once

#include "core/balance/case_balance.h"
#include "core/pins/signal.h"
#include "core/power/power_report.h"

#include <map>
#include <set>

namespace waxis {

/// What a source has to give: amperes at its own voltage.
struct Drawn {
    double typical_A = 0, peak_A = 0;
};

class Circuit {
public:
    Circuit(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
            const std::vector<CaseBalance> &balance, const std::vector<double> &cut_mm, const PowerNets *nets);
    PowerReport work();

private:
    struct Came {
        int node = -1, wire = -1, core = -1;
    };

    // motors
    double electric_W(double thrust_N, double diameter_mm, double merit) const;
    double merit() const { return practice_[Limit::figureOfMerit] / 100; }
    void findMotors(double nominal_V);
    void tellPhases();
    bool motorsComplete() const;
    void workHover();

    // sources
    void findSources();
    void addRail(int node, Rail rail);
    bool isHere(int part) const { return on_[std::size_t(part)] >> case_ & 1; }
    bool gives(int rail);
    bool isFed(int part, double output_V);
    std::map<int, Came> reached(int node, std::vector<int> &order) const;
    bool sharesGround(int part, int sourceNode) const;

    // loads
    void drawInAllCases();
    void drawOneCase();
    Drawn draw(int rail);
    void fillLoad(int part, const Rail &rail, RailLoad &load);
    void pass(int node, const RailLoad &load);
    void shareBetweenPacks();
    void finishRails();
    void findHeat(Rail &rail);
    bool wantsSupply(int part) const;
    void findUnfed();
    void tellCase();

    const PartType &typeAt(int part) const { return *types_[std::size_t(part)]; }
    const std::string &idAt(int part) const { return build_.parts[std::size_t(part)].id; }

    const Build &build_;
    const Practice &practice_;
    const std::vector<LoadCase> &loadCases_;
    const std::vector<CaseBalance> &balance_;
    const std::vector<double> &cut_mm_;
    PowerReport report_;
    std::vector<const PartType *> types_;
    std::vector<WireRole> roles_; ///< by Build::wires
    std::map<std::string, int, std::less<>> partIndex_;
    std::map<int, std::vector<std::size_t>> motorsOfEsc_; ///< part index of ESC: indices in report_.motors
    std::map<int, int> sourceRail_;                       ///< node: rail
    std::vector<int> sourceNode_;                         ///< by rail
    std::vector<CaseMask> on_;                            ///< by part
    std::size_t case_ = 0;                                ///< that is worked out
    std::set<int> onTheWay_;                              ///< rails being worked out: guards against circles
    std::map<int, Drawn> drawn_;                          ///< by rail, worked out
    std::map<int, bool> gives_;                           ///< by rail, asked already
};

/// Parts that hand a supply on and draw nothing of their own.
bool drawsNothing(const PartType &type);

} // namespace waxis
