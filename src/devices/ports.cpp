#include "devices/ports.h"

#include <QSerialPortInfo>

namespace waxis {

std::vector<PortOffer> serialPorts() {
    std::vector<PortOffer> offers;
    for (const auto &info : QSerialPortInfo::availablePorts())
        offers.push_back({info.systemLocation(), info.description().isEmpty() ? info.portName() : info.description()});
    return offers;
}

} // namespace waxis
