#include "core/sums/read.h"

#include <cmath>

namespace waxis::sums {

std::vector<Sum> attitudeSums() {
    Sum attitude;
    attitude.name = "attitude";
    attitude.title = "Mounting turn from roll, pitch and yaw";
    attitude.formula =
        "R = Rz(yaw) Ry(pitch) Rx(roll), intrinsic z-y'-x''; v_body = R v_board; q = (w, x, y, z), w >= 0";
    attitude.source = "Euler-angle conventions, Diebel 2006; ISO 8855 axes (x forward, y left, z up)";
    attitude.inputs = {{"roll_deg", "roll, right side down", "deg", SumInputKind::number, SumValue(0.0), "0"},
                       {"pitch_deg", "pitch, nose down", "deg", SumInputKind::number, SumValue(0.0), "-20"},
                       {"yaw_deg", "yaw, turn left", "deg", SumInputKind::number, SumValue(0.0), "90"}};
    attitude.outputs = {{"q_w", "quaternion w", ""},
                        {"q_x", "quaternion x", ""},
                        {"q_y", "quaternion y", ""},
                        {"q_z", "quaternion z", ""},
                        {"matrix", "rotation matrix, rows", ""},
                        {"arrow_in_body", "the arrow points to", ""},
                        {"top_in_body", "the top points to", ""},
                        {"rpy_from_matrix_deg", "roll, pitch, yaw read back", "deg"},
                        {"gimbal_lock", "roll and yaw not separable", ""},
                        {"in_words", "in words", ""}};
    attitude.compute = [](const SumObject &in) -> SumResult {
        const Quat q = quaternionFrom({number(in, "roll_deg"), number(in, "pitch_deg"), number(in, "yaw_deg")});
        constexpr double kRounding = 1e-15; // entries of a rotation that small are nought
        const Mat3 r = q.toRotationMatrix().unaryExpr([](double x) { return std::abs(x) < kRounding ? 0.0 : x; });
        const RollPitchYaw back = rollPitchYawFrom(q);
        SumObject out;
        out.emplace_back("q_w", q.w());
        out.emplace_back("q_x", q.x());
        out.emplace_back("q_y", q.y());
        out.emplace_back("q_z", q.z());
        out.emplace_back("matrix", matrix(r));
        out.emplace_back("arrow_in_body", SumList{r(0, 0), r(1, 0), r(2, 0)});
        out.emplace_back("top_in_body", SumList{r(0, 2), r(1, 2), r(2, 2)});
        out.emplace_back("rpy_from_matrix_deg", SumList{back.roll_deg, back.pitch_deg, back.yaw_deg});
        out.emplace_back("gimbal_lock", isGimbalLocked(q));
        out.emplace_back("in_words", turnInWords(q));
        return out;
    };
    return {attitude};
}

} // namespace waxis::sums
