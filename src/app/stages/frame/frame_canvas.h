// The frame on the mat, from above, with handles.
#pragma once

#include "app/document/document.h"
#include "app/drawing/mat.h"
#include "core/layout/handles.h"

namespace waxis::frame {

class FrameCanvas : public drawing::MatCanvas {
    Q_OBJECT

public:
    FrameCanvas(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// Where a handle stands, widget pixels; for tests and the keyboard.
    QPointF handlePixels(HandleKind kind, const QString &mount = {}) const;
    /// Where a post, place or pass-through stands, widget pixels; none without such a thing.
    std::optional<QPointF> thingPixels(const std::string &id) const;
    void removeChosen();

signals:
    void contextWanted(const QPoint &global); ///< the menu for what is chosen

protected:
    QRectF content() const override;
    QRectF chosenBox() const override;
    QStringList walkable() const override;
    QString walkedAt() const override { return document_.selected(); }
    void walkedTo(const QString &id) override { document_.select(id); }
    void paintContent(QPainter &painter) override;
    bool press(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void drag(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void release() override;
    void cancel() override;
    void hover(const QPointF &at) override;
    void keyPressEvent(QKeyEvent *event) override;
    void contextMenuEvent(QContextMenuEvent *event) override;

private:
    /// Posts, places and pass-throughs, which are moved and taken out by hand.
    struct Thing {
        std::string id;
        Vec2 at_mm = Vec2::Zero();
        double reach_mm = 0;
    };
    std::vector<Thing> things() const;
    std::optional<Thing> thingAt(const QPointF &at) const;
    void choosePlateUnder(const QPointF &at);
    void paintScrews(QPainter &painter);
    void paintThings(QPainter &painter);
    const FrameHandle *handleAt(const QPointF &at) const;
    QPointF pixels(const Vec3 &p) const { return toPixels(p.x(), p.y()); }
    void paintPlates(QPainter &painter);
    void paintMotors(QPainter &painter);
    void paintGaps(QPainter &painter);

    app::Document &document_;
    std::vector<FrameHandle> handles_;
    std::optional<FrameHandle> held_, hovered_;
    std::optional<Thing> heldThing_;
    QString refusal_; ///< why the held thing does not go where the pointer is
    Build startBuild_;
    Vec2 grip_ = Vec2::Zero(); ///< from the handle to where it was taken hold of
};

} // namespace waxis::frame
