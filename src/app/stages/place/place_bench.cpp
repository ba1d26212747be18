#include "app/stages/place/place_bench.h"

#include "app/theme/bench_bar.h"
#include "app/theme/metrics.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QSplitter>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

namespace waxis::place {

using drawing::View;

namespace {

QToolButton *chip(const QString &text, const QString &tip, bool checked) {
    auto *button = new QToolButton;
    button->setText(text);
    button->setToolTip(tip);
    button->setCheckable(true);
    button->setChecked(checked);
    button->setFocusPolicy(Qt::TabFocus);
    button->setAccessibleName(text);
    return button;
}

} // namespace

PlaceBench::PlaceBench(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), planScene_(View::plan, document, theme),
      elevationScene_(View::side, document, theme) {
    plan_ = new PlaceView(planScene_, document, theme);
    plan_->setObjectName("plan");
    plan_->setAccessibleName(tr("Plan drawing"));
    elevation_ = new PlaceView(elevationScene_, document, theme);
    elevation_->setObjectName("elevation");
    elevation_->setAccessibleName(tr("Elevation drawing"));

    auto *lower = new QWidget;
    auto *lowerLayout = new QVBoxLayout(lower);
    lowerLayout->setContentsMargins(0, 0, 0, 0);
    lowerLayout->setSpacing(0);
    lowerLayout->addWidget(makeElevationBar());
    lowerLayout->addWidget(elevation_);
    splitter_ = new QSplitter(Qt::Vertical);
    splitter_->addWidget(plan_);
    splitter_->addWidget(lower);
    splitter_->setStretchFactor(0, 62);
    splitter_->setStretchFactor(1, 38);
    splitter_->setHandleWidth(1);
    splitter_->setChildrenCollapsible(false);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(makeChipBar());
    library_ = new LibraryDrawer(document, theme);
    library_->setFixedWidth(220);
    library_->hide();
    auto *beside = new QHBoxLayout;
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(0);
    beside->addWidget(library_);
    beside->addWidget(splitter_, 1);
    layout->addLayout(beside, 1);

    for (PlaceView *view : {plan_, elevation_}) {
        connect(view, &PlaceView::zoomed, this,
                [this, view](double scale, const QPointF &centre) { alignFrom(view, scale, centre); });
        connect(view, &PlaceView::fitWanted, this, &PlaceBench::fit);
    }
    connect(&document_, &app::Document::opened, this, [this] { QTimer::singleShot(0, this, &PlaceBench::fit); });
    connect(&document_, &app::Document::changed, this, [this] {
        if (document_.isPreviewing()) return; // labels travel with their parts; they are laid out when the mouse is up
        planScene_.layOutLabels(plan_->pixelsPerMm());
        elevationScene_.layOutLabels(elevation_->pixelsPerMm());
    });
    auto dress = [this] {
        splitter_->setStyleSheet(
            QStringLiteral("QSplitter::handle { background: %1; }").arg(theme_.colors().matGridStrong.name()));
    };
    dress();
    connect(&theme_, &theme::Theme::changed, this, dress);
}

QWidget *PlaceBench::makeChipBar() {
    auto *bar = theme::makeBenchBar(theme_, this, theme::kChipBarHeight);
    auto *row = static_cast<QHBoxLayout *>(bar->layout());
    libraryChip_ = chip(tr("Parts"), tr("The part library: search it, and drag onto the mat (Ctrl+L)"), false);
    libraryChip_->setObjectName("library-chip");
    connect(libraryChip_, &QToolButton::toggled, this, &PlaceBench::showLibrary);
    row->addWidget(libraryChip_);
    auto add = [&](const QString &text, const QString &tip, bool on, auto &&set) {
        auto *button = chip(text, tip, on);
        overlayChips_.push_back(button);
        connect(button, &QToolButton::toggled, this, [this, set](bool checked) {
            auto overlays = planScene_.overlays();
            set(overlays, checked);
            planScene_.setOverlays(overlays);
            elevationScene_.setOverlays(overlays);
        });
        row->addWidget(button);
    };
    add(tr("Propellers"), tr("Propeller discs with the room that the blades need"), true,
        [](drawing::Overlays &o, bool on) { o.propellers = on; });
    add(tr("Findings"), tr("Where things touch, strike or come too near"), true,
        [](drawing::Overlays &o, bool on) { o.marks = on; });
    add(tr("Grams"), tr("A dot for each mass, its area in step with the grams"), false,
        [](drawing::Overlays &o, bool on) { o.grams = on; });
    row->addStretch();
    row->addWidget(new QLabel(tr("plan, 10 mm grid")));
    row->addSpacing(16);
    row->addWidget(new QLabel(tr("nose →")));
    return bar;
}

QWidget *PlaceBench::makeElevationBar() {
    auto *bar = theme::makeBenchBar(theme_, this, 28);
    auto *row = static_cast<QHBoxLayout *>(bar->layout());
    auto add = [&](const QString &text, const QString &tip, std::optional<View> view) {
        auto *button = chip(text, tip, view == View::side);
        button->setEnabled(view.has_value());
        if (view) connect(button, &QToolButton::clicked, this, [this, view] { setElevation(*view); });
        elevationTabs_.push_back(button);
        row->addWidget(button);
    };
    add(tr("Side"), tr("From the right-hand side, nose to the right"), View::side);
    add(tr("Front"), tr("Looking at the nose"), View::front);
    add(tr("Solid"), tr("Three-dimensional view: not built yet"), std::nullopt);
    add(tr("Lens"), tr("What the flight camera sees: not built yet"), std::nullopt);
    row->addStretch();
    return bar;
}

void PlaceBench::showLibrary(bool shown) {
    library_->setVisible(shown);
    libraryChip_->setChecked(shown);
    if (shown) {
        library_->refresh();
        library_->words().setFocus();
    }
}

void PlaceBench::setElevation(View view) {
    elevationScene_.setView(view);
    elevationTabs_[0]->setChecked(view == View::side);
    elevationTabs_[1]->setChecked(view == View::front);
    const QPointF middle = elevationScene_.contentRect().center();
    const double x = view == View::side ? plan_->centre().x() : middle.x();
    elevation_->look(plan_->pixelsPerMm(), {x, middle.y()});
    elevationScene_.layOutLabels(elevation_->pixelsPerMm());
}

void PlaceBench::setOverlays(const drawing::Overlays &overlays) {
    overlayChips_[0]->setChecked(overlays.propellers);
    overlayChips_[1]->setChecked(overlays.marks);
    overlayChips_[2]->setChecked(overlays.grams);
}

void PlaceBench::alignFrom(PlaceView *source, double scale, const QPointF &centre) {
    PlaceView *other = source == plan_ ? elevation_ : plan_;
    const bool sharedX = elevationScene_.view() == View::side;
    const double otherX = sharedX ? centre.x() : other->centre().x();
    const double otherY = other->centre().y();
    source->look(scale, centre);
    other->look(scale, {otherX, otherY});
}

void PlaceBench::fit() {
    const QRectF plan = planScene_.contentRect(), side = elevationScene_.contentRect();
    if (plan.isEmpty() || plan_->viewport()->width() < 10) return;
    // The body of the craft fills the plan; propellers may run out of the picture above and below.
    const auto &frame = *document_.build().frame;
    QRectF core;
    for (const auto &mount : frame.motorMounts)
        core |= QRectF(mount.position_mm.x() - 8, -mount.position_mm.y() - 8, 16, 16);
    if (core.isEmpty()) core = plan;
    const double byWidth = plan_->viewport()->width() / (std::max(core.width(), side.width() * 0.9) + 24);
    const double byHeight = plan_->viewport()->height() / (core.height() + 4);
    const double bySide = elevation_->viewport()->height() / (side.height() + 10);
    const double scale = std::min({byWidth, byHeight, bySide});
    plan_->look(scale, core.center());
    elevation_->look(scale,
                     {elevationScene_.view() == View::side ? core.center().x() : side.center().x(), side.center().y()});
    planScene_.layOutLabels(scale);
    elevationScene_.layOutLabels(scale);
}

void PlaceBench::reveal(const QStringList &ids) {
    document_.highlight(ids);
    QRectF rect;
    for (const auto &id : ids)
        if (auto *item = planScene_.item(id)) rect |= item->sceneBoundingRect();
    if (rect.isEmpty()) return;
    const QRectF seen = plan_->mapToScene(plan_->viewport()->rect()).boundingRect();
    if (!seen.contains(rect)) alignFrom(plan_, plan_->pixelsPerMm(), rect.center());
}

void PlaceBench::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    if (!fitted_)
        QTimer::singleShot(0, this, [this] {
            fitted_ = true;
            fit();
        });
}

void PlaceBench::resizeEvent(QResizeEvent *event) {
    QWidget::resizeEvent(event);
    if (fitted_) QTimer::singleShot(0, this, &PlaceBench::fit);
}

} // namespace waxis::place
