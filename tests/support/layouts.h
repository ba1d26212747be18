// Frames of a layout, and builds on them.
#pragma once

#include "core/build/build.h"
#include "core/layout/layout.h"

#include <QTest>

namespace waxis::test {

inline Frame frameOf(LayoutKind kind, const LayoutValues &values = {}) {
    auto frame = generateFrame(kind, values);
    if (!frame) qFatal("%s", frame.error().text().c_str());
    return *frame;
}

inline Build buildOn(const Frame &frame) {
    Build build;
    build.name = "Layout";
    build.frame = frame;
    return build;
}

} // namespace waxis::test
