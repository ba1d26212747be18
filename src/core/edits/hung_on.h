// What goes along when a part is moved: things that only it holds.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// Parts that hang on nothing but `part`, directly or through one another, and not pinned: a GPS on its mast, the
/// antenna on a tail mount. An antenna and the tube it is tied into go together whatever else they are tied to.
std::vector<std::string> hungOn(const Build &build, const std::string &part);

/// The part to move when `part` shall go elsewhere: the mast or mount that holds nothing else, else itself.
std::string carrierOf(const Build &build, const std::string &part);

/// `after` is `before` with `part` elsewhere: what hangs on it comes along as if it were glued. Where the part has
/// changed its site, so does what sat on the same one.
EditResult bringAlong(const Build &before, const EditResult &after, const std::string &part);

/// changeType, and what stands on the part stands on the other one then: a GPS goes up when its pedestal becomes a
/// mast.
EditResult replaceType(const Build &build, const std::string &part, const std::string &type);

} // namespace waxis
