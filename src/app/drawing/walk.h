// Tab from thing to thing in a drawing.
#pragma once

#include <QStringList>
#include <optional>

namespace waxis::drawing {

/// The thing after (or before) the present one; the first (or last) when none is chosen. None beyond either end: the
/// keyboard leaves the drawing there.
inline std::optional<QString> walkTo(const QStringList &things, const QString &now, bool next) {
    if (things.isEmpty()) return std::nullopt;
    const qsizetype at = things.indexOf(now);
    if (at < 0) return next ? things.front() : things.back();
    const qsizetype to = at + (next ? 1 : -1);
    if (to < 0 || to >= things.size()) return std::nullopt;
    return things[to];
}

} // namespace waxis::drawing
