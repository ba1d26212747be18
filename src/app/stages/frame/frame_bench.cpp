#include "app/stages/frame/frame_bench.h"

#include "app/document/data_files.h"
#include "app/widgets/bench_bar.h"
#include "app/widgets/file_dialogs.h"
#include "core/layout/relayout.h"
#include "io/drawing/plate_writer.h"
#include "io/file_bytes.h"

#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QStackedLayout>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::frame {

FrameBench::FrameBench(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : app::Bench(parent), document_(document), theme_(theme) {
    canvas_ = new FrameCanvas(document, theme);
    canvas_->setObjectName("frame-canvas");
    panel_ = new ParameterPanel(document, theme);
    import_ = new ImportPage(document, theme);
    connect(canvas_, &FrameCanvas::contextWanted, this, [this](const QPoint &at) {
        QMenu menu(this);
        menu.addAction(tr("Take out\tDel"), canvas_, &FrameCanvas::removeChosen);
        menu.addAction(tr("Zoom to it\tZ"), canvas_, [this] { canvas_->zoomToChosen(); });
        menu.addAction(tr("Fit the drawing\t0"), canvas_, [this] { canvas_->fit(); });
        menu.addSeparator();
        QMenu *add = panel_->things().addMenu();
        add->setTitle(tr("Add to the frame"));
        menu.addMenu(add);
        menu.exec(at);
    });
    auto *own = new QWidget;
    auto *row = new QHBoxLayout(own);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(canvas_, 1);
    row->addWidget(panel_);
    auto *stack = new QWidget;
    pages_ = new QStackedLayout(stack);
    pages_->addWidget(own);
    pages_->addWidget(import_);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(bar_ = makeBar());
    column->addWidget(stack, 1);
    connect(import_, &ImportPage::finished, this, [this](bool applied) {
        pages_->setCurrentIndex(0);
        canvas_->fit();
        if (applied)
            emit said(tr("The drawing is the frame now. Check the motors' numbers and turns beside it."), false);
    });
}

void FrameBench::resizeEvent(QResizeEvent *event) {
    QWidget::resizeEvent(event);
    // Places and plate names in full where there is room; the drawing comes first where there is little.
    constexpr int kRoomy_px = 800, kWide_px = 360, kNarrow_px = 316;
    panel_->setFixedWidth(width() < kRoomy_px ? kNarrow_px : kWide_px);
}

QWidget *FrameBench::makeBar() {
    auto *bar = theme::makeBenchBar(theme_, this);
    auto *line = static_cast<QHBoxLayout *>(bar->layout());
    auto button = [&](const QString &text, const QString &tip) {
        auto *tool = new QToolButton;
        tool->setText(text);
        tool->setToolTip(tip);
        tool->setFocusPolicy(Qt::TabFocus);
        line->addWidget(tool);
        return tool;
    };
    auto *read = button(tr("Read a drawing…"), tr("Plates from a DXF drawing"));
    read->setObjectName("read-drawing");
    connect(read, &QToolButton::clicked, this, &FrameBench::browseDrawing);
    auto *write = button(tr("Write plates"), tr("Plates and drill template at 1:1"));
    auto *menu = new QMenu(write);
    for (const auto &[text, format] : {std::pair{tr("Plates as DXF…"), QString("plates-dxf")},
                                       {tr("Plates as SVG…"), QString("plates-svg")},
                                       {tr("Drill template as DXF…"), QString("drill-dxf")},
                                       {tr("Drill template as SVG…"), QString("drill-svg")}})
        menu->addAction(text, this, [this, wanted = format] { exportAs(wanted); });
    write->setMenu(menu);
    write->setPopupMode(QToolButton::InstantPopup);
    auto *longer = button(tr("Arms +5 mm"), tr("Makes every arm longer; what hangs on it goes along"));
    auto *shorter = button(tr("Arms −5 mm"), tr("Makes every arm shorter"));
    connect(longer, &QToolButton::clicked, this,
            [this] { document_.edit(tr("Longer arms"), extendArms(document_.build(), 5)); });
    connect(shorter, &QToolButton::clicked, this,
            [this] { document_.edit(tr("Shorter arms"), extendArms(document_.build(), -5)); });
    auto *below = button(tr("From below"), tr("Motors, turns and heads as they are seen from under the craft"));
    below->setObjectName("frame-from-below");
    below->setCheckable(true);
    connect(below, &QToolButton::toggled, canvas_, &FrameCanvas::setMirrored);
    auto *hint = new QLabel(tr("pull numbers, rims and squares"));
    hint->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    hint->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    line->addWidget(hint, 10);
    return bar;
}

void FrameBench::browseDrawing() {
    const QString path = app::askOpenPath(this, tr("Read a frame drawing"), tr("Drawings (*.dxf)"));
    if (!path.isEmpty()) readDrawing(path);
}

void FrameBench::readDrawing(const QString &path) {
    import_->open(path);
    pages_->setCurrentIndex(1);
    import_->canvas().fit();
}

bool FrameBench::isReadingDrawing() const { return pages_->currentIndex() == 1; }

void FrameBench::exportAs(const QString &format) {
    const bool svg = format.endsWith("svg");
    const QString path = app::askSavePath(this, tr("Write at 1:1"), document_.title() + (svg ? ".svg" : ".dxf"),
                                          svg ? tr("SVG (*.svg)") : tr("DXF (*.dxf)"));
    if (path.isEmpty()) return;
    const PlateSheet sheet = format.startsWith("drill") ? PlateSheet::drillTemplate : PlateSheet::outlines;
    const Frame &frame = *document_.build().frame;
    const auto problem =
        io::replaceFile(path.toStdString(), svg ? platesAsSvg(frame, sheet) : platesAsDxf(frame, sheet), false);
    if (problem.empty())
        emit said(tr("Written to %1 at 1:1. Cut carbon wet, with a mask: its dust harms the lungs.").arg(path), false);
    else
        emit said(tr("Not written: %1").arg(QString::fromStdString(problem)), true);
}

} // namespace waxis::frame
