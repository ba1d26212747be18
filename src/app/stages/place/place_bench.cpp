#include "app/stages/place/place_bench.h"

#include "app/stages/place/legend.h"
#include "app/stages/place/lens_view.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/outline_panel.h"
#include "app/stages/place/place_view.h"
#include "app/stages/place/seat_marks.h"
#include "app/stages/place/sky_panel.h"
#include "app/stages/place/solid_pane.h"
#include "app/theme/metrics.h"
#include "app/widgets/bench_bar.h"
#include "core/edits/hung_on.h"
#include "core/edits/part_edits.h"
#include "core/edits/perch_edits.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QSplitter>
#include <QStackedWidget>
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
    : app::Bench(parent), document_(document), theme_(theme), planScene_(View::plan, document, theme),
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
    solid_ = new SolidPane(document, theme);
    lens_ = new LensView(document, theme);
    sky_ = new SkyPanel(document, theme);
    stack_ = new QStackedWidget;
    for (QWidget *page : std::initializer_list<QWidget *>{elevation_, solid_, lens_, sky_}) stack_->addWidget(page);
    lowerLayout->addWidget(makeElevationBar());
    lowerLayout->addWidget(stack_, 1);
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
    constexpr int kDrawerWidth = 296;
    library_->setFixedWidth(kDrawerWidth);
    connect(library_, &LibraryDrawer::seatWanted, this, &PlaceBench::seat);
    connect(library_, &LibraryDrawer::looked, this, &PlaceBench::showOfferedSeats);
    connect(library_, &LibraryDrawer::replaceWanted, this, [this](const QString &part, const QString &type, bool all) {
        const Part *old = findPart(document_.build(), part.toStdString());
        if (!old) return;
        Build next = document_.build();
        const auto shipped = document_.library().find(type.toStdString());
        if (!next.types->contains(type.toStdString()) && shipped != document_.library().end())
            next.types.edit([&](TypeTable &table) { table.insert(*shipped); });
        const QString name = QString::fromStdString(old->name);
        const std::string was = old->type;
        EditResult changed = replaceType(next, old->id, type.toStdString());
        if (all)
            for (const auto &other : document_.build().parts)
                if (changed && other.type == was) changed = replaceType(*changed, other.id, type.toStdString());
        if (document_.edit(all ? tr("Replace all like %1").arg(name) : tr("Replace %1").arg(name), changed)) {
            library_->replace({});
            document_.select(part);
        }
    });
    library_->hide();
    auto *beside = new QHBoxLayout;
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(0);
    outline_ = new OutlinePanel(document, theme);
    outline_->setFixedWidth(kDrawerWidth);
    outline_->hide();
    connect(outline_, &OutlinePanel::hiddenChanged, this, [this](const QSet<QString> &ids) {
        for (auto *scene : {&planScene_, &elevationScene_}) scene->setHidden(ids);
        planScene_.layOutLabels(plan_->pixelsPerMm());
        elevationScene_.layOutLabels(elevation_->pixelsPerMm());
    });
    connect(outline_, &OutlinePanel::zoomWanted, this, &PlaceBench::zoomToChosen);
    beside->addWidget(library_);
    beside->addWidget(outline_);
    beside->addWidget(splitter_, 1);
    layout->addLayout(beside, 1);

    for (PlaceView *view : {plan_, elevation_}) {
        connect(view, &PlaceView::zoomed, this, [this, view](double scale, const QPointF &centre) {
            ownView_ = true;
            alignFrom(view, scale, centre);
        });
        connect(view, &PlaceView::fitWanted, this, &PlaceBench::fit);
        connect(view, &PlaceView::zoomWanted, this, &PlaceBench::zoomToChosen);
        connect(view, &PlaceView::overlayWanted, this, &PlaceBench::toggleOverlay);
        connect(view, &PlaceView::largerLowerWanted, this, [this] { enlargeLower(!larger_->isChecked()); });
        connect(view, &PlaceView::sectionMoved, this, &PlaceBench::setSectionAt);
        connect(view, &PlaceView::placeWanted, this, [this, view](const Vec3 &at) {
            showLower(Lower::sky);
            sky_->addPlace(view->buildScene().view(), at);
        });
    }
    connect(&document_, &app::Document::changed, this, &PlaceBench::drawPlaces);
    legend_ = new Legend(theme, plan_);
    legend_->show(planScene_.overlays());
    plan_->installEventFilter(this);
    connect(&document_, &app::Document::opened, this,
            [this] { QTimer::singleShot(0, this, &PlaceBench::fit); }); // another build: whole
    auto layOut = [this] {
        if (document_.isPreviewing()) return; // labels travel with their parts; they are laid out when the mouse is up
        planScene_.layOutLabels(plan_->pixelsPerMm());
        elevationScene_.layOutLabels(elevation_->pixelsPerMm());
    };
    connect(&document_, &app::Document::changed, this, layOut);
    connect(&document_, &app::Document::judged, this, layOut);
    connect(&document_, &app::Document::redrawn, this, layOut);
    theme_.dress(*splitter_, theme::Ground::mat);
}

QWidget *PlaceBench::makeChipBar() {
    auto *bar = theme::makeBenchBar(theme_, this, theme::kChipBarHeight);
    auto *row = static_cast<QHBoxLayout *>(bar->layout());
    row->setSpacing(4); // many chips: all stand side by side in a small window too
    libraryChip_ = chip(tr("Parts"), tr("The part library: search it, and drag onto the mat (Ctrl+L)"), false);
    libraryChip_->setObjectName("library-chip");
    connect(libraryChip_, &QToolButton::toggled, this, &PlaceBench::showLibrary);
    row->addWidget(libraryChip_);
    for (const auto &overlay : drawing::kOverlays) {
        auto *button = chip(drawing::overlayText(overlay.title),
                            tr("%1 (%2)").arg(drawing::overlayText(overlay.says)).arg(overlay.key),
                            planScene_.overlays().*overlay.shown);
        button->setObjectName(QStringLiteral("overlay-%1").arg(overlay.key));
        overlayChips_.push_back(button);
        connect(button, &QToolButton::toggled, this, [this, shown = overlay.shown](bool checked) {
            auto overlays = planScene_.overlays();
            overlays.*shown = checked;
            planScene_.setOverlays(overlays);
            elevationScene_.setOverlays(overlays);
            legend_->show(overlays);
            placeLegend();
            const bool elevation = lowerShown_ == Lower::side || lowerShown_ == Lower::front;
            if (checked && shown == &drawing::Overlays::section && !elevation)
                showLower(Lower::side); // only an elevation can be cut
            else
                applySection();
        });
        row->addWidget(button);
    }
    row->addStretch();
    nose_ = new QLabel(tr("nose →"));
    row->addWidget(nose_);
    return bar;
}

QWidget *PlaceBench::makeElevationBar() {
    auto *bar = theme::makeBenchBar(theme_, this, 28);
    auto *row = static_cast<QHBoxLayout *>(bar->layout());
    tabs_ = new QButtonGroup(this);
    auto add = [&](const QString &text, const QString &name, const QString &tip, Lower which) {
        auto *button = chip(text, tip, which == Lower::side);
        button->setObjectName(name);
        tabs_->addButton(button, int(which));
        row->addWidget(button);
    };
    add(tr("Side"), "tab-side", tr("From the right-hand side, nose to the right"), Lower::side);
    add(tr("Front"), "tab-front", tr("Looking at the nose"), Lower::front);
    add(tr("Solid"), "tab-solid",
        tr("In three dimensions: drag turns, Shift drags across, the wheel zooms, a click chooses"), Lower::solid);
    add(tr("Lens"), "tab-lens", tr("What the flight camera sees, and at which tilt it sees most"), Lower::lens);
    add(tr("Sky"), "tab-sky", tr("The sky over the GPS antenna, and other places compared"), Lower::sky);
    connect(tabs_, &QButtonGroup::idClicked, this, [this](int which) { showLower(Lower(which)); });
    row->addSpacing(12);
    solidTools_ = solid_->makeTools();
    solidTools_->hide();
    row->addWidget(solidTools_);
    row->addStretch();
    larger_ = chip(tr("Larger"), tr("Gives this view most of the bench (L)"), false);
    larger_->setObjectName("lower-larger");
    connect(larger_, &QToolButton::toggled, this, &PlaceBench::enlargeLower);
    row->addWidget(larger_);
    return bar;
}

void PlaceBench::showLibrary(bool shown) {
    const bool changes = library_->isVisible() != shown;
    if (shown) outline_->hide(); // one list beside the mat
    library_->setVisible(shown);
    libraryChip_->setChecked(shown);
    if (shown) {
        library_->refresh();
        library_->words().setFocus();
        library_->words().selectAll();
    } else {
        planScene_.setExtra("seats", {});
        elevationScene_.setExtra("seats", {});
    }
    if (changes) QTimer::singleShot(0, this, &PlaceBench::fit); // once: the mat became narrower or wider
}

void PlaceBench::showOutline(bool shown) {
    if (shown) showLibrary(false);
    const bool changes = outline_->isVisible() != shown;
    outline_->setVisible(shown);
    if (shown) outline_->begin();
    if (changes) QTimer::singleShot(0, this, &PlaceBench::fit);
}

void PlaceBench::zoomToChosen() {
    if (lowerShown_ == Lower::solid && solid_->view()) solid_->view()->zoomToChosen();
    QRectF box;
    for (const auto &id : document_.selection()) {
        QPainterPath path = planScene_.silhouetteOf(id);
        if (const auto *item = planScene_.item(id); item && path.isEmpty()) path = item->silhouette();
        box |= path.boundingRect();
    }
    if (!box.isValid()) return;
    constexpr double kShare = 0.5, kLeast_mm = 4, kLargest = 40;
    const double scale = kShare * std::min(plan_->viewport()->width() / std::max(box.width(), kLeast_mm),
                                           plan_->viewport()->height() / std::max(box.height(), kLeast_mm));
    ownView_ = true;
    alignFrom(plan_, std::min(scale, kLargest), box.center());
}

/// The places that are compared stand in the plan while the sky over them is looked at.
void PlaceBench::drawPlaces() {
    planScene_.setExtra("places", lower() == Lower::sky ? sky_->placePictures(planScene_.view())
                                                        : std::vector<drawing::Picture>{});
}

void PlaceBench::showLower(Lower which) {
    lowerShown_ = which;
    tabs_->button(int(which))->setChecked(true);
    solidTools_->setVisible(which == Lower::solid);
    QWidget *const pages[] = {elevation_, elevation_, solid_, lens_, sky_};
    stack_->setCurrentWidget(pages[int(which)]);
    drawPlaces();
    if (which != Lower::side && which != Lower::front) {
        applySection();
        return;
    }
    const View view = which == Lower::side ? View::side : View::front;
    elevationScene_.setView(view);
    applySection();
    const QPointF middle = elevationScene_.contentRect().center();
    const double x = view == View::side ? plan_->centre().x() : middle.x();
    elevation_->look(plan_->pixelsPerMm(), {x, middle.y()});
    elevationScene_.layOutLabels(elevation_->pixelsPerMm());
}

void PlaceBench::enlargeLower(bool large) {
    larger_->setChecked(large);
    const int height = splitter_->height();
    const int plan = large ? height * 26 / 100 : height * 62 / 100;
    splitter_->setSizes({plan, height - plan});
    QTimer::singleShot(0, this, &PlaceBench::fit);
}

void PlaceBench::toggleOverlay(int key) {
    for (std::size_t i = 0; i < drawing::kOverlays.size(); ++i)
        if (drawing::kOverlays[i].key == key) overlayChips_[i]->toggle();
}

void PlaceBench::setSectionAt(double at_mm) {
    (elevationScene_.view() == View::front ? sectionFore_mm_ : sectionAside_mm_) = at_mm;
    applySection();
}

void PlaceBench::applySection() {
    const bool on = planScene_.overlays().section && (lowerShown_ == Lower::side || lowerShown_ == Lower::front);
    const bool front = elevationScene_.view() == View::front;
    const auto at = on ? std::optional(front ? sectionFore_mm_ : sectionAside_mm_) : std::nullopt;
    plan_->setSectionLine(at, front);
    elevationScene_.setSection(at);
    elevationScene_.layOutLabels(elevation_->pixelsPerMm());
}

void PlaceBench::nameChips() {
    constexpr int kBetween_px = 4, kEdges_px = 24;
    const auto name = [this](bool words) {
        for (std::size_t i = 0; i < overlayChips_.size(); ++i)
            overlayChips_[i]->setText(words ? drawing::overlayText(drawing::kOverlays[i].title)
                                            : QString::number(drawing::kOverlays[i].key));
    };
    name(true);
    int wanted = kEdges_px + libraryChip_->sizeHint().width();
    for (const auto *chip : overlayChips_) wanted += kBetween_px + chip->sizeHint().width();
    name(wanted <= width());
    nose_->setVisible(wanted + kBetween_px + nose_->sizeHint().width() <= width());
}

void PlaceBench::placeLegend() {
    constexpr int kEdge_px = 8;
    legend_->move(kEdge_px, plan_->height() - legend_->height() - kEdge_px);
    legend_->raise();
}

void PlaceBench::setOverlays(const drawing::Overlays &overlays) {
    for (std::size_t i = 0; i < drawing::kOverlays.size(); ++i)
        overlayChips_[i]->setChecked(overlays.*drawing::kOverlays[i].shown);
}

void PlaceBench::alignFrom(PlaceView *source, double scale, const QPointF &centre) {
    PlaceView *other = source == plan_ ? elevation_ : plan_;
    const bool sharedX = elevationScene_.view() == View::side;
    const double otherX = sharedX ? centre.x() : other->centre().x();
    const double otherY = other->centre().y();
    source->look(scale, centre);
    other->look(scale, {otherX, otherY});
}

void PlaceBench::seat(const QString &type, const std::vector<Perch> &places) {
    const auto own = document_.build().types->find(type.toStdString());
    const auto shipped = document_.library().find(type.toStdString());
    const bool embedded = own != document_.build().types->end();
    if (!embedded && shipped == document_.library().end()) return;
    const PartType wanted = embedded ? own->second : shipped->second;
    std::vector<std::string> added;
    const QString name = QString::fromStdString(wanted.name);
    if (!document_.edit(places.size() > 1 ? tr("Seat %1 × %2").arg(places.size()).arg(name) : tr("Seat %1").arg(name),
                        addPerched(document_.build(), wanted, places, document_.library(), &added)))
        return;
    QStringList ids;
    for (const auto &id : added) ids << QString::fromStdString(id);
    document_.selectAll(ids);
    library_->words().selectAll(); // the next part can be typed at once
}

void PlaceBench::showOfferedSeats() {
    const auto chosen = library_->chosenPlaces();
    const std::string id = library_->chosenType().toStdString();
    const auto own = document_.build().types->find(id);
    const auto shipped = document_.library().find(id);
    const PartType *type = own != document_.build().types->end()  ? &own->second
                           : shipped != document_.library().end() ? &shipped->second
                                                                  : nullptr;
    for (auto *scene : {&planScene_, &elevationScene_})
        scene->setExtra("seats", type && !chosen.empty()
                                     ? seatPictures(scene->view(), document_.build(), *type, chosen, chosen, theme_)
                                     : std::vector<drawing::Picture>{});
}

void PlaceBench::fit() {
    ownView_ = false;
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

bool PlaceBench::reveal(const QStringList &ids, RuleId) {
    document_.highlight(ids);
    QRectF rect;
    for (const auto &id : ids)
        if (auto *item = planScene_.item(id)) rect |= item->sceneBoundingRect();
    if (rect.isEmpty()) return true;
    const QRectF seen = plan_->mapToScene(plan_->viewport()->rect()).boundingRect();
    if (!seen.contains(rect)) alignFrom(plan_, plan_->pixelsPerMm(), rect.center());
    return true;
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
    nameChips();
    if (fitted_ && !ownView_) QTimer::singleShot(0, this, &PlaceBench::fit);
}

bool PlaceBench::eventFilter(QObject *watched, QEvent *event) {
    if (watched == plan_ && event->type() == QEvent::Resize) QTimer::singleShot(0, this, &PlaceBench::placeLegend);
    return QWidget::eventFilter(watched, event);
}

} // namespace waxis::place
