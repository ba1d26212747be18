// Serial ports that this machine has.
#pragma once

#include <QString>
#include <vector>

namespace waxis {

struct PortOffer {
    QString name;  ///< "/dev/ttyUSB0"
    QString words; ///< "USB serial converter"
};
/// Pseudo-terminals are not among them: their paths are typed.
std::vector<PortOffer> serialPorts();

} // namespace waxis
