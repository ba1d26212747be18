// Parts on the clipboard: as a small build in the file format, so that they go from window to window.
#pragma once

#include "core/build/build.h"

#include <QString>
#include <optional>
#include <vector>

namespace waxis::app {

/// Puts the parts with their fastenings and the wires between them on the clipboard; beside it their names as text.
/// Empty, or what is wrong.
QString copyParts(const Build &build, const std::vector<std::string> &parts);

/// What lies on the clipboard; none when that is no parts, or damaged (then `problem` says where).
std::optional<Build> partsOnClipboard(QString &problem);
bool arePartsOnClipboard();

} // namespace waxis::app
