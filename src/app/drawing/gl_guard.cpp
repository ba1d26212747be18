#include "app/drawing/gl_guard.h"

#include <QCoreApplication>
#include <QGuiApplication>
#include <QOffscreenSurface>
#include <QOpenGLContext>

namespace waxis::drawing {

namespace {

QString tryIt() {
    auto tr = [](const char *text) { return QCoreApplication::translate("Solid", text); };
    if (qEnvironmentVariableIsSet("WEIGHTAXIS_NO_OPENGL")) return tr("it was switched off by WEIGHTAXIS_NO_OPENGL");
    const QString platform = QGuiApplication::platformName();
    if (platform != "xcb" && !platform.startsWith("wayland"))
        return tr("the window system \"%1\" has no OpenGL widgets").arg(platform);
    QOpenGLContext context;
    if (!context.create()) return tr("no OpenGL context can be made");
    QOffscreenSurface surface;
    surface.setFormat(context.format());
    surface.create();
    if (!surface.isValid() || !context.makeCurrent(&surface)) return tr("the OpenGL context cannot be used");
    const auto version = context.format().version();
    context.doneCurrent();
    if (version < qMakePair(3, 3))
        return tr("OpenGL %1.%2 is here, 3.3 is needed").arg(version.first).arg(version.second);
    return {};
}

} // namespace

const QString &whyNoSolidView() {
    static const QString reason = tryIt();
    return reason;
}

} // namespace waxis::drawing
