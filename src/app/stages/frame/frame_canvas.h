// The frame on the mat, from above, with handles.
#pragma once

#include "app/drawing/mat.h"
#include "app/shell/document.h"
#include "core/layout/handles.h"

namespace waxis::frame {

class FrameCanvas : public drawing::MatCanvas {
    Q_OBJECT

public:
    FrameCanvas(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// Where a handle stands, widget pixels; for tests and the keyboard.
    QPointF handlePixels(HandleKind kind, const QString &mount = {}) const;

protected:
    QRectF content() const override;
    void paintContent(QPainter &painter) override;
    bool press(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void drag(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void release() override;
    void cancel() override;
    void hover(const QPointF &at) override;

private:
    const FrameHandle *handleAt(const QPointF &at) const;
    QPointF pixels(const Vec3 &p) const { return toPixels(p.x(), p.y()); }
    void paintPlates(QPainter &painter);
    void paintMotors(QPainter &painter);
    void paintGaps(QPainter &painter);

    app::Document &document_;
    std::vector<FrameHandle> handles_;
    std::optional<FrameHandle> held_, hovered_;
    Build startBuild_;
    Vec2 grip_ = Vec2::Zero(); ///< from the handle to where it was taken hold of
};

} // namespace waxis::frame
