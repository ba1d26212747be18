#include "app/stages/place/type_columns.h"

#include "core/kit/kit.h"

#include <QCoreApplication>
#include <QLocale>
#include <cmath>

namespace waxis::place {

namespace {

QString say(const char *text) { return QCoreApplication::translate("TypeColumns", text); }

/// As few digits as say it: 4, 4.3, 0.35, 212.
QString brief(double value) {
    const int digits = std::abs(value) >= 100 ? 0 : std::abs(value) >= 1 || value == 0 ? 1 : 2;
    QString text = QLocale::c().toString(value, 'f', digits);
    if (text.contains('.')) {
        while (text.endsWith('0')) text.chop(1);
        if (text.endsWith('.')) text.chop(1);
    }
    return text;
}

QString brief(const std::optional<double> &value) { return value ? brief(*value) : QStringLiteral("–"); }

QString sizeOf(const PartType &type) {
    const auto size = overallSize_mm(type);
    return size ? QStringLiteral("%1×%2×%3")
                      .arg(std::lround(size->x()))
                      .arg(std::lround(size->y()))
                      .arg(std::lround(size->z()))
                : QStringLiteral("–");
}

TypeColumn grams() {
    return {say("g"), [](const PartType &t) { return brief(t.mass_g.value); }};
}
TypeColumn size() { return {say("mm"), sizeOf}; }
TypeColumn pattern() {
    return {say("holes"), [](const PartType &t) {
                if (!t.mounting) return QStringLiteral("–");
                return (t.mounting->shape == PatternShape::circle ? QStringLiteral("⌀") : QString()) +
                       brief(t.mounting->size_mm);
            }};
}

template <class Get>
TypeColumn electrical(const char *title, Get get) {
    return {say(title),
            [get](const PartType &t) { return t.electrical ? brief(get(*t.electrical)) : QStringLiteral("–"); }};
}

QString bandOf(const PartType &type) {
    double low = 0, high = 0;
    if (type.antenna) {
        low = type.antenna->low_MHz;
        high = type.antenna->high_MHz;
    } else if (!type.radio.empty()) {
        low = type.radio.front().low_MHz;
        high = type.radio.front().high_MHz;
    }
    if (!(high > 0)) return QStringLiteral("–");
    const double middle = (low + high) / 2;
    return middle >= 1000 ? say("%1 GHz").arg(middle / 1000, 0, 'f', 1) : say("%1 MHz").arg(std::lround(middle));
}

TypeColumn band() { return {say("band"), bandOf}; }

} // namespace

std::vector<TypeColumn> typeColumns(std::optional<PartKind> kind) {
    if (!kind) return {size(), grams()};
    switch (*kind) {
    case PartKind::flightController:
    case PartKind::distributionBoard: return {pattern(), grams()};
    case PartKind::fourInOneEsc:
        return {pattern(), electrical("A", [](const Electrical &e) { return e.continuous_A; }), grams()};
    case PartKind::esc: return {electrical("A", [](const Electrical &e) { return e.continuous_A; }), grams()};
    case PartKind::motor:
        return {pattern(), {say("g thrust"), [](const PartType &t) { return brief(t.maxThrust_gf.value); }}, grams()};
    case PartKind::propeller:
        return {{say("inch"),
                 [](const PartType &t) {
                     return t.propDiameter_mm ? brief(*t.propDiameter_mm / 25.4) : QStringLiteral("–");
                 }},
                grams()};
    case PartKind::battery:
        return {{say("cells"),
                 [](const PartType &t) {
                     return t.electrical && t.electrical->cells ? QStringLiteral("%1S").arg(*t.electrical->cells)
                                                                : QStringLiteral("–");
                 }},
                electrical("mAh", [](const Electrical &e) { return e.capacity_mAh; }),
                grams()};
    case PartKind::capacitor:
        return {electrical("µF", [](const Electrical &e) { return e.capacitance_uF; }),
                electrical("V", [](const Electrical &e) { return e.rated_V; }), grams()};
    case PartKind::regulator:
        return {{say("V"),
                 [](const PartType &t) {
                     return t.electrical && !t.electrical->outputs.empty()
                                ? brief(t.electrical->outputs.front().voltage_V)
                                : QStringLiteral("–");
                 }},
                {say("A"),
                 [](const PartType &t) {
                     return t.electrical && !t.electrical->outputs.empty()
                                ? brief(t.electrical->outputs.front().limit_A)
                                : QStringLiteral("–");
                 }},
                grams()};
    case PartKind::powerPlug: return {electrical("A", [](const Electrical &e) { return e.continuous_A; }), grams()};
    case PartKind::receiver: return {band(), size(), grams()};
    case PartKind::antenna:
        return {band(),
                {say("plug"),
                 [](const PartType &t) {
                     const QString plug = t.antenna ? QString::fromStdString(t.antenna->connector) : QString();
                     return plug.section(' ', 0, 0).isEmpty() ? QStringLiteral("–") : plug.section(' ', 0, 0);
                 }},
                grams()};
    case PartKind::videoTransmitter:
    case PartKind::digitalVideoUnit:
        return {pattern(),
                {say("mW"),
                 [](const PartType &t) {
                     return !t.radio.empty() && t.radio.front().power_dBm
                                ? QString::number(std::lround(std::pow(10, *t.radio.front().power_dBm / 10)))
                                : QStringLiteral("–");
                 }},
                grams()};
    case PartKind::fastener:
        return {{say("thread"),
                 [](const PartType &t) {
                     return t.fastener ? QString::fromStdString(t.fastener->thread) : QStringLiteral("–");
                 }},
                {say("long"),
                 [](const PartType &t) { return t.fastener ? brief(t.fastener->length_mm) : QStringLiteral("–"); }},
                grams()};
    case PartKind::gps:
    case PartKind::buzzer:
    case PartKind::lamp:
    case PartKind::flightCamera:
    case PartKind::payloadCamera:
    case PartKind::gimbal:
    case PartKind::servo:
    case PartKind::mount:
    case PartKind::damper:
    case PartKind::pad:
    case PartKind::strap:
    case PartKind::tube:
    case PartKind::landingFoot:
    case PartKind::inlinePart:
    case PartKind::currentSensor:
    case PartKind::powerSwitch:
    case PartKind::powerBank:
    case PartKind::overlayBoard:
    case PartKind::recorder:
    case PartKind::packAlarm:
    case PartKind::microphone:
    case PartKind::fan:
    case PartKind::heatSink:
    case PartKind::guard:
    case PartKind::other: return {size(), grams()};
    }
    return {size(), grams()};
}

QString typeInLine(const PartType &type) {
    QStringList facts;
    if (const auto size = overallSize_mm(type))
        facts << say("%1 × %2 × %3 mm").arg(brief(size->x()), brief(size->y()), brief(size->z()));
    facts << (type.mass_g.known() ? say("%1 g").arg(brief(*type.mass_g.value)) : say("not weighed"));
    if (type.mounting)
        facts << say("holes %1 mm apart, %2 mm")
                     .arg(brief(type.mounting->size_mm), brief(type.mounting->holeDiameter_mm));
    if (type.electrical && type.electrical->supplyMax_V)
        facts << say("%1 to %2 V").arg(brief(type.electrical->supplyMin_V), brief(type.electrical->supplyMax_V));
    QStringList plugs;
    for (const auto &port : type.ports)
        if (!port.connector.empty()) plugs << QString::fromStdString(port.connector);
    if (type.antenna && !type.antenna->connector.empty()) plugs << QString::fromStdString(type.antenna->connector);
    for (const auto &lead : type.leads)
        if (!lead.plug.empty()) plugs << QString::fromStdString(lead.plug);
    plugs.removeDuplicates();
    facts << plugs;
    return facts.join(QStringLiteral(", "));
}

} // namespace waxis::place
