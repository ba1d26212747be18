// The free places of a part type, drawn on the mat while it is dragged or chosen in the drawer.
#pragma once

#include "app/drawing/pictures.h"
#include "core/placing/perch.h"

#include <vector>

namespace waxis::place {

/// A ring round each place that is made for such a part; broken where the holes do not meet, strong on `chosen`.
std::vector<drawing::Picture> seatPictures(drawing::View view, const Build &build, const PartType &type,
                                           const std::vector<Perch> &places, const std::vector<Perch> &chosen,
                                           const theme::Theme &theme);

/// "on the front right arm", "screwed to main stack": where a place is, in words.
QString placeWords(const Build &build, const Perch &perch);
/// Of several alike: "on all four motors".
QString placesWords(const Build &build, const std::vector<Perch> &alike);

} // namespace waxis::place
