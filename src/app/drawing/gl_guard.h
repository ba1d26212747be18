// Whether a three-dimensional view can be had here.
#pragma once

#include <QString>

namespace waxis::drawing {

/// Empty when OpenGL 3.3 can be used in a widget; else why not. Tried once: a QOpenGLWidget must not be made before
/// this has passed, since grabbing one without a context crashes.
const QString &whyNoSolidView();

} // namespace waxis::drawing
