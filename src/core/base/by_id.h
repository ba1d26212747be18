// The thing of a list that has an id.
#pragma once

#include <algorithm>
#include <string>

namespace waxis {

/// Null when there is none; of a list that may be changed, a thing that may be.
template <class List>
auto *byId(List &list, const std::string &id) {
    const auto at = std::find_if(list.begin(), list.end(), [&](const auto &thing) { return thing.id == id; });
    return at == list.end() ? nullptr : &*at;
}

} // namespace waxis
