#include "core/build/others_stand.h"

#include <algorithm>

namespace waxis {

bool othersStand(const Build &before, const Build &after, const std::string &but) {
    return before.frame == after.frame && before.types == after.types && before.loadCases == after.loadCases &&
           std::equal(before.parts.begin(), before.parts.end(), after.parts.begin(), after.parts.end(),
                      [&](const Part &a, const Part &b) {
                          return a.id == b.id && (a.id == but || (a.type == b.type && a.placement == b.placement &&
                                                                  a.optional == b.optional));
                      });
}

} // namespace waxis
