// Lengths, places, directions and lists of a part type as a person types them.
#pragma once

#include "core/catalog/part_type.h"

#include <QString>
#include <optional>

namespace waxis::kit {

/// Plain numbers with point or comma; empty text is no number.
std::optional<double> readLength(const QString &text);
QString numberText(double value);
QString numberText(const std::optional<double> &value);

/// "10, 0, 2.5" or "10 0 2.5"; none for anything but three numbers.
std::optional<Vec3> readVector(const QString &text);
QString vectorText(const Vec3 &v);

/// "37 x 37 x 1.6" is a box, "d 28 x 18" a cylinder, "d 6" a sphere. Prisms and meshes are shown in words and cannot be
/// typed.
std::optional<Shape> readShape(const QString &text);
QString shapeText(const Shape &shape);
bool canBeTyped(const Shape &shape);

/// "forward", "left", "up", "aft", "right", "down", or a vector.
std::optional<Vec3> readDirection(const QString &text);
QString directionText(const Vec3 &direction);

/// "5V GND TX:one-wire@3.3 !RX CH1=roll": what the pin is for behind a colon, its channel's function behind =, the
/// level in volts behind @, ! for a line that is inverted.
std::vector<Pin> readPins(const QString &text);
QString pinsText(const std::vector<Pin> &pins);

/// "1=5660, 2=5700": names and numbers; a number alone has no name. None for anything else.
std::optional<std::vector<std::pair<QString, double>>> readNamedNumbers(const QString &text);
QString namedNumbersText(const std::vector<std::pair<QString, double>> &list);

} // namespace waxis::kit
