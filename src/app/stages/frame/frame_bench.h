// The Frame stage: drawing with handles, numbers beside it; frame drawings in and out.
#pragma once

#include "app/document/document.h"
#include "app/stages/bench.h"
#include "app/stages/frame/frame_canvas.h"
#include "app/stages/frame/import_page.h"
#include "app/stages/frame/parameter_panel.h"

class QStackedLayout;

namespace waxis::frame {

class FrameBench : public app::Bench {
    Q_OBJECT

public:
    FrameBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    void fit() override { canvas().fit(); }
    void zoomToChosen() override { canvas().zoomToChosen(); }

    FrameCanvas &canvas() { return *canvas_; }
    ParameterPanel &panel() { return *panel_; }
    ImportPage &importPage() { return *import_; }
    /// Shows a drawing for looking over; the frame changes when it is applied.
    void readDrawing(const QString &path);
    bool isReadingDrawing() const;
    void browseDrawing();

protected:
    void resizeEvent(QResizeEvent *event) override;

private:
    QWidget *makeBar();
    void exportAs(const QString &format);

    app::Document &document_;
    const theme::Theme &theme_;
    QWidget *bar_ = nullptr;
    QStackedLayout *pages_ = nullptr;
    FrameCanvas *canvas_ = nullptr;
    ParameterPanel *panel_ = nullptr;
    ImportPage *import_ = nullptr;
};

} // namespace waxis::frame
