#include "core/links/joint.h"

#include <array>
#include <utility>

namespace waxis {

namespace {

using K = SignalKind;

bool isPair(const Signal &a, const Signal &b, K x, K y) {
    return (a.kind == x && b.kind == y) || (a.kind == y && b.kind == x);
}

/// Two ends of one kind.
Joint amongLikes(const Signal &a, const Signal &b) {
    switch (a.kind) {
    case K::serialTx:
    case K::serialRx:
    case K::videoIn:
    case K::videoOut:
    case K::audioIn:
    case K::audioOut:
    case K::servo:
    case K::pulse: return Joint::sameWay;
    case K::boot: return Joint::boot;
    case K::videoLink:
    case K::usb:
    case K::other: return a.plain == b.plain ? Joint::right : Joint::mismatch;
    case K::cell:
    case K::motor: return a.number == b.number ? Joint::right : Joint::mismatch;
    default: return Joint::right;
    }
}

} // namespace

Joint jointOf(const Signal &a, const Signal &b) {
    if (a.kind == b.kind) return amongLikes(a, b);
    if (isPair(a, b, K::supply, K::ground)) return Joint::shortCircuit;
    if (a.kind == K::cell || b.kind == K::cell) {
        const K other = a.kind == K::cell ? b.kind : a.kind;
        if (other == K::sense) return Joint::right;
        return carriesPower(other) ? Joint::cellTap : Joint::mismatch;
    }
    if (a.kind == K::boot || b.kind == K::boot) return Joint::boot;
    constexpr std::array<std::pair<K, K>, 12> kMates{{{K::serialTx, K::serialRx},
                                                      {K::motor, K::pulse},
                                                      {K::servo, K::pulse},
                                                      {K::channel, K::pulse},
                                                      {K::telemetry, K::serialRx},
                                                      {K::buzzer, K::ground},
                                                      {K::videoOut, K::videoIn},
                                                      {K::video, K::videoIn},
                                                      {K::video, K::videoOut},
                                                      {K::audioOut, K::audioIn},
                                                      {K::oneWire, K::serialTx},
                                                      {K::sense, K::supply}}};
    for (const auto &[x, y] : kMates)
        if (isPair(a, b, x, y)) return Joint::right;
    if (isPair(a, b, K::oneWire, K::serialRx)) return Joint::cannotAnswer;
    if (isPair(a, b, K::busData, K::busClock)) return Joint::sameWay;
    return Joint::mismatch;
}

bool takesOneWire(SignalKind kind) {
    switch (kind) {
    case K::ground:
    case K::supply:
    case K::sense:
    case K::busData:
    case K::busClock:
    case K::lampData:
    case K::telemetry: return false;
    default: return true;
    }
}

} // namespace waxis
