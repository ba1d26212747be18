// Every family of rules ends in a table of its own; here they come together.
#include "core/rules/rule.h"

#include <algorithm>
#include <array>

namespace waxis {

std::span<const Rule> kitRules();
std::span<const Rule> fitRules();
std::span<const Rule> mountingRules();
std::span<const Rule> accessRules();
std::span<const Rule> sightRules();
std::span<const Rule> batteryRules();
std::span<const Rule> foldingRules();
std::span<const Rule> heldRules();
std::span<const Rule> frameRules();
std::span<const Rule> linksRules();
std::span<const Rule> navRules();
std::span<const Rule> stackRules();
std::span<const Rule> stackScrewsRules();
std::span<const Rule> stackBoardsRules();
std::span<const Rule> wiresRules();
std::span<const Rule> wireRunsRules();
std::span<const Rule> wireEdgesRules();
std::span<const Rule> packsRules();
std::span<const Rule> powerRules();
std::span<const Rule> signalsRules();
std::span<const Rule> controllerLinksRules();
std::span<const Rule> suppliesRules();
std::span<const Rule> jointsRules();
std::span<const Rule> radioRules();
std::span<const Rule> radioProductsRules();
std::span<const Rule> radioAntennasRules();
std::span<const Rule> navCompassRules();
std::span<const Rule> balanceRules();
std::span<const Rule> balanceWeightRules();
std::span<const Rule> schoolRules();
std::span<const Rule> sequenceRules();
std::span<const Rule> logRules();

std::span<const Rule> ruleBook() {
    static const std::vector<Rule> book = [] {
        std::vector<Rule> rules;
        for (const auto family : {kitRules,
                                  fitRules,
                                  mountingRules,
                                  accessRules,
                                  sightRules,
                                  batteryRules,
                                  foldingRules,
                                  heldRules,
                                  frameRules,
                                  linksRules,
                                  navRules,
                                  stackRules,
                                  stackScrewsRules,
                                  stackBoardsRules,
                                  wiresRules,
                                  wireRunsRules,
                                  packsRules,
                                  powerRules,
                                  signalsRules,
                                  radioRules,
                                  controllerLinksRules,
                                  suppliesRules,
                                  jointsRules,
                                  wireEdgesRules,
                                  radioProductsRules,
                                  radioAntennasRules,
                                  navCompassRules,
                                  balanceRules,
                                  balanceWeightRules,
                                  schoolRules,
                                  sequenceRules,
                                  logRules})
            for (const auto &rule : family()) rules.push_back(rule);
        std::sort(rules.begin(), rules.end(), [](const Rule &a, const Rule &b) { return a.id < b.id; });
        return rules;
    }();
    return book;
}

const Rule &ruleOf(RuleId id) { return ruleBook()[std::size_t(id)]; }

} // namespace waxis
