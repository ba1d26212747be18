// Inside the writer: pieces of JSON that every chapter writes alike.
#pragma once

#include "io/json/write_model.h"
#include "io/names.h"

namespace waxis::io {

// Declared before the templates below, which look them up.
OrderedJson toJson(const Solid &);
OrderedJson toJson(const Pin &);
OrderedJson toJson(const Port &);
OrderedJson toJson(const PowerOutput &);
OrderedJson toJson(const Electrical &);
OrderedJson toJson(const RadioBand &);
OrderedJson toJson(const Antenna &);
OrderedJson toJson(const Camera &);
OrderedJson toJson(const SuppliedLead &);
OrderedJson toJson(const FastenerData &);
OrderedJson toJson(const RadioChannel &);
OrderedJson toJson(const PatternPoint &);
OrderedJson toJson(const Clock &);
OrderedJson toJson(const MotorMount &);
OrderedJson toJson(const Arm &);
OrderedJson toJson(const RoundHole &);
OrderedJson toJson(const Plate &);
OrderedJson toJson(const Standoff &);
OrderedJson toJson(const Site &);
OrderedJson toJson(const PassThrough &);
OrderedJson toJson(const Material &);
OrderedJson toJson(const Allowance &);
OrderedJson toJson(const LoadCase &);
OrderedJson toJson(const Acceptance &);
OrderedJson toJson(const KitEntry &);
OrderedJson toJson(const StackLayer &);
OrderedJson toJson(const Stack &);
OrderedJson toJson(const Wire &);
OrderedJson toJson(const WireCore &);
OrderedJson toJson(const RouteStop &);
OrderedJson toJson(const TiePoint &);
OrderedJson toJson(const RadioSetting &);
OrderedJson toJson(const GroundStation &);
OrderedJson toJson(const TrialPlace &);
OrderedJson toJson(const Weighing &);
OrderedJson toJson(const BalanceLine &);
OrderedJson toJson(const WeightLimit &);

/// No "-0.0" in files.
inline double tidy(double value) { return value == 0 ? 0.0 : value; }

inline OrderedJson rotationJson(const Quat &q) { return {tidy(q.w()), tidy(q.x()), tidy(q.y()), tidy(q.z())}; }

inline OrderedJson ringJson(const Ring &ring) {
    auto list = OrderedJson::array();
    for (const auto &p : ring) list.push_back(toJson(p));
    return list;
}

template <class List>
OrderedJson listJson(const List &list) {
    auto result = OrderedJson::array();
    for (const auto &item : list) result.push_back(toJson(item));
    return result;
}

inline void putPose(OrderedJson &out, const Pose &pose) {
    out["position_mm"] = toJson(pose.position_mm);
    if (!(pose.rotation.coeffs() == Quat::Identity().coeffs())) out["rotation"] = rotationJson(pose.rotation);
}

inline void putMeasured(OrderedJson &out, const char *key, const Measured &measured) {
    if (!(measured == Measured{})) out[key] = toJson(measured);
}

inline void putText(OrderedJson &out, const char *key, const std::string &text) {
    if (!text.empty()) out[key] = text;
}

inline void putFlag(OrderedJson &out, const char *key, bool flag) {
    if (flag) out[key] = true;
}

template <class Number>
void putMaybe(OrderedJson &out, const char *key, const std::optional<Number> &value) {
    if (value) out[key] = *value;
}

inline void putSpin(OrderedJson &out, const char *key, const std::optional<Spin> &spin) {
    if (spin) out[key] = nameOf(*spin);
}

template <class List>
void putList(OrderedJson &out, const char *key, const List &list) {
    if (!list.empty()) out[key] = listJson(list);
}

template <class Map>
OrderedJson mapJson(const Map &map) {
    auto out = OrderedJson::object();
    for (const auto &[key, value] : map) out[key] = value;
    return out;
}

} // namespace waxis::io
