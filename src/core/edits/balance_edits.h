// Changes of the Balance bench, each a function Build -> Build.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// Slides a part along its own line; what is left of its range goes with it, since slots and straps stay where they
/// are. Refused beyond the range, for pinned parts and for parts that have no line. mm.
EditResult slidePart(const Build &build, const std::string &part, double travel_mm);

/// Along what a part may slide and how far from where it is; none: not at all. The direction is made a unit vector;
/// the range must hold 0.
EditResult setSlide(const Build &build, const std::string &part, const std::optional<SlideRange> &slide);

/// Another model of pack in the same place: the face towards what it is fastened onto stays where it is. Puts the type
/// into the build.
EditResult swapPack(const Build &build, const std::string &part, const PartType &type);

/// Another propeller on every motor mount that has one; mounts are drawn for its diameter, and each keeps the hand that
/// its motor turns. Puts the type into the build. Errors: no propeller, made for one direction only, none fitted.
EditResult swapPropellers(const Build &build, const PartType &type);

/// Leaves an optional part out of a load case.
EditResult leaveOut(const Build &build, const std::string &loadCase, const std::string &part);

/// Weight stuck on as an allowance, centre in the frame's axes.
EditResult addBallast(const Build &build, const Vec3 &position_mm, double mass_g);

/// A weighing with usual figures for a load case: three scales under the three outermost motors or feet, two lines
/// through the thrust centre.
EditResult addWeighing(const Build &build, WeighingMethod method, const std::string &loadCase);
/// Refused where the load case is not there or a number is none.
EditResult editWeighing(const Build &build, const Weighing &changed);
EditResult removeWeighing(const Build &build, const std::string &id);

EditResult addWeightLimit(const Build &build, const std::string &name, double most_g);
EditResult editWeightLimit(const Build &build, const WeightLimit &changed);
EditResult removeWeightLimit(const Build &build, const std::string &id);

/// Sets what every motor aboard can push with its propeller, gram-force, as measured; for all motor types in the
/// build. None goes back to not known.
EditResult setMotorThrust(const Build &build, std::optional<double> thrust_gf);

} // namespace waxis
