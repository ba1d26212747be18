#include "app/stages/place/sky_panel.h"

#include "app/drawing/magnifier.h"
#include "app/theme/metrics.h"
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/build/others_stand.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/radio_edits.h"
#include "core/rules/wording.h"
#include "core/scene/scene.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPainter>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::place {

using drawing::View;

/// The hemisphere as a map of true areas: zenith in the middle, horizon at the rim, nose to the right, left side up.
class SkyPanel::Dome : public drawing::CloserWidget {
public:
    Dome(const SkyPanel &panel, bool cruise) : panel_(panel), cruise_(cruise) {
        setMinimumSize(130, 150);
        setAccessibleName(cruise ? tr("Sky at cruise pitch") : tr("Sky when level"));
    }

protected:
    void paintEvent(QPaintEvent *) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const auto &c = panel_.theme_.colors();
        if (panel_.sites_.empty()) return;
        const int row = std::max(0, panel_.chosenSite());
        const Site &site = panel_.sites_[std::size_t(row)];
        const SkyView &view = cruise_ ? site.cruise : site.level;
        painter.translate(closer().seen({0, 0}));
        painter.scale(closer().factor(), closer().factor());
        constexpr int kWords_px = 32;
        const int size = std::min(width() - 12, height() - kWords_px - 6);
        const QRectF box((width() - size) / 2.0, 4, size, size);
        painter.drawImage(box, imageOf(view, int(size * devicePixelRatioF())));
        painter.setPen(QPen(c.softChalk, 1));
        painter.drawEllipse(box);
        const double mask = panel_.document_.analysis().practice[Limit::skyMask];
        const double ring = box.width() / 2 * std::sqrt(1 - std::sin(radiansFromDegrees(mask)));
        painter.setPen(QPen(c.chalk, 1, Qt::DotLine));
        painter.drawEllipse(box.center(), ring, ring);
        painter.setPen(c.chalk);
        painter.setFont(panel_.theme_.text(theme::kSmallPixels));
        painter.drawText(QRectF(box.right() - 34, box.top() - 3, 36, 14), Qt::AlignRight, tr("nose →"));
        const QRectF words(0, box.bottom() + 2, width(), kWords_px);
        const double pitch = cruise_ ? panel_.document_.analysis().practice[Limit::cruisePitch] : 0;
        painter.setFont(panel_.theme_.text(theme::kSmallPixels + 1, true));
        painter.drawText(
            words, Qt::AlignHCenter | Qt::AlignTop,
            (cruise_ ? tr("cruise: %1 % hidden") : tr("level: %1 % hidden")).arg(100 * view.hidden, 0, 'f', 1));
        painter.setFont(panel_.theme_.text(theme::kSmallPixels));
        painter.setPen(c.softChalk);
        const QString leans = tr("antenna leans %1°").arg(view.axisToZenith_deg, 0, 'f', 0);
        painter.drawText(words.adjusted(0, 16, 0, 0), Qt::AlignHCenter | Qt::AlignTop,
                         cruise_ ? tr("nose down %1°, %2").arg(pitch).arg(leans) : leans);
    }

private:
    /// The direction that each pixel looks in: -1 outside the sky. Lambert's projection: areas are true.
    static const std::vector<int> &pixelsOf(int size) {
        static int madeFor = 0;
        static std::vector<int> pixels;
        if (madeFor == size) return pixels;
        madeFor = size;
        pixels.assign(std::size_t(size) * std::size_t(size), -1);
        const auto &directions = skyDirections();
        const double half = size / 2.0;
        const int dot = std::max(2, int(std::ceil(size / 75.0)));
        for (std::size_t i = 0; i < directions.size(); ++i) {
            const Vec3 &d = directions[i];
            const double flat = std::hypot(d.x(), d.y()), r = half * std::sqrt(std::max(0.0, 1 - d.z()));
            const int x = int(half + (flat > 0 ? d.x() / flat * r : 0)),
                      y = int(half - (flat > 0 ? d.y() / flat * r : 0));
            for (int py = y; py < std::min(y + dot, size); ++py)
                for (int px = x; px < std::min(x + dot, size); ++px)
                    if (std::hypot(px + 0.5 - half, py + 0.5 - half) <= half)
                        pixels[std::size_t(py) * std::size_t(size) + std::size_t(px)] = int(i);
        }
        return pixels;
    }

    QImage imageOf(const SkyView &view, int size) const {
        QImage image(size, size, QImage::Format_ARGB32_Premultiplied);
        const Build &build = panel_.document_.build();
        const auto &owners = panel_.document_.analysis().derived.scene.owners;
        const QRgb open = panel_.theme_.colors().matGridStrong.lighter(170).rgb();
        std::vector<QRgb> colors(owners.size(), 0);
        auto colorOf = [&](int owner) {
            if (std::size_t(owner) >= colors.size()) return QRgb(0); // a view of the build before this one
            QRgb &color = colors[std::size_t(owner)];
            if (color) return color;
            const Part *part = findPart(build, owners[std::size_t(owner)].id);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            return color = theme::familyColor(type ? familyOf(type->kind) : Family::structure).rgb();
        };
        const auto &pixels = pixelsOf(size);
        for (int y = 0; y < size; ++y) {
            auto *line = reinterpret_cast<QRgb *>(image.scanLine(y));
            for (int x = 0; x < size; ++x) {
                const int i = pixels[std::size_t(y) * std::size_t(size) + std::size_t(x)];
                if (i < 0 || std::size_t(i) >= view.owner.size())
                    line[x] = 0;
                else
                    line[x] = view.owner[std::size_t(i)] < 0 ? open : colorOf(view.owner[std::size_t(i)]);
            }
        }
        return image;
    }

    const SkyPanel &panel_;
    bool cruise_;
};

SkyPanel::SkyPanel(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    empty_ = new QLabel(tr("There is no GPS aboard. Drag one from Parts onto the mat; its sky then stands here."));
    empty_->setAlignment(Qt::AlignCenter);
    body_ = new QWidget;
    auto *all = new QHBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->addWidget(empty_, 1);
    all->addWidget(body_, 1);
    auto *row = new QHBoxLayout(body_);
    row->setContentsMargins(4, 4, 12, 8);
    row->setSpacing(4);
    for (int i = 0; i < 2; ++i) {
        domes_[std::size_t(i)] = new Dome(*this, i == 1);
        row->addWidget(domes_[std::size_t(i)], 2);
    }
    head_ = new QLabel;
    head_->setWordWrap(true);
    table_ = new QTableWidget(0, 4);
    table_->setObjectName("sky-sites");
    table_->setAccessibleName(tr("Places compared"));
    table_->setHorizontalHeaderLabels({tr("place"), tr("level"), tr("cruise"), tr("mostly by")});
    table_->verticalHeader()->hide();
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setFrameShape(QFrame::NoFrame);
    table_->setShowGrid(false);
    auto button = [&](const QString &text, const QString &name, const QString &tip) {
        auto *b = new QToolButton;
        b->setText(text);
        b->setObjectName(name);
        b->setToolTip(tip);
        b->setAccessibleName(text);
        return b;
    };
    add_ = button(tr("Remember this place"), "place-here",
                  tr("To compare it, here and in Radio; G over a drawing remembers the place at the pointer"));
    move_ = button(tr("Move it there"), "place-move",
                   tr("Puts the receiver at the chosen place; where it stood is kept as a place"));
    remove_ = button(tr("Forget it"), "place-forget", tr("Forgets the chosen place"));
    auto *buttons = new QHBoxLayout;
    buttons->setSpacing(4);
    for (auto *b : {add_, move_, remove_}) buttons->addWidget(b);
    buttons->addStretch();
    auto *beside = new QVBoxLayout;
    beside->setSpacing(4);
    beside->addWidget(head_);
    beside->addWidget(table_, 1);
    beside->addLayout(buttons);
    row->addLayout(beside, 5);

    connect(add_, &QToolButton::clicked, this, &SkyPanel::addPlaceHere);
    connect(move_, &QToolButton::clicked, this, &SkyPanel::moveToChosen);
    connect(remove_, &QToolButton::clicked, this, &SkyPanel::removeChosen);
    connect(table_, &QTableWidget::itemSelectionChanged, this, [this] {
        for (auto *dome : domes_) dome->update();
        move_->setEnabled(chosenSite() > 0);
        remove_->setEnabled(chosenSite() > 0);
    });
    auto follow = [this] {
        if (isVisible()) refresh();
    };
    connect(&document_, &app::Document::changed, this, follow);
    connect(&document_, &app::Document::selectionChanged, this, follow);
    head_->setForegroundRole(QPalette::BrightText);
    table_->viewport()->setBackgroundRole(QPalette::Window);
    theme_.dress(*this, theme::Ground::mat);
    connect(&theme_, &theme::Theme::changed, this, follow);
    follow();
}

const Part *SkyPanel::pickReceiver() const {
    const Build &build = document_.build();
    auto listens = [&](const Part *part) {
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        return type && (type->kind == PartKind::gps || type->mustSeeSky) && document_.isAboardNow(*part);
    };
    if (listens(document_.selectedPart())) return document_.selectedPart();
    if (const Part *before = findPart(build, receiver_); listens(before)) return before;
    for (const auto &part : build.parts)
        if (listens(&part)) return &part;
    return nullptr;
}

void SkyPanel::look(Site &site, const RayWorld &world) const {
    const auto &analysis = document_.analysis();
    const Part *part = findPart(document_.build(), receiver_);
    const AntennaPlace place = antennaPlace(*typeOf(document_.build(), *part), site.X_FramePart);
    const double mask = analysis.practice[Limit::skyMask];
    site.level = skyView(world, analysis.derived.scene, place.position_mm, place.axis, mask, 0);
    site.cruise = skyView(world, analysis.derived.scene, place.position_mm, place.axis, mask,
                          analysis.practice[Limit::cruisePitch]);
}

const RayWorld &SkyPanel::world(const Part &part) {
    const Build &build = document_.build();
    const auto &analysis = document_.analysis();
    if (!world_ || worldPart_ != part.id || worldCase_ != document_.loadCase() ||
        !(worldPractice_ == analysis.practice) || !othersStand(worldOf_, build, part.id)) {
        world_ = skyWorld(build, analysis.derived.scene, document_.loadCase(), int(&part - build.parts.data()),
                          analysis.practice[Limit::skyThick]);
        ++worldsMade_;
        worldOf_ = build;
        worldPart_ = part.id;
        worldPractice_ = analysis.practice;
        worldCase_ = document_.loadCase();
    }
    return *world_;
}

void SkyPanel::refresh() {
    const Part *part = pickReceiver();
    empty_->setVisible(!part);
    body_->setVisible(part != nullptr);
    receiver_ = part ? part->id : std::string();
    if (!part) {
        sites_.clear();
        return;
    }
    const auto &analysis = document_.analysis();
    const int made = worldsMade_;
    const RayWorld &rays = world(*part);
    const bool sameSky = made == worldsMade_;
    std::vector<Site> sites;
    sites.push_back({{}, {}, framePose(document_.build(), *part), {}, {}});
    look(sites.front(), rays);
    for (const auto &trial : document_.build().trials) {
        if (trial.part != receiver_) continue;
        // While only the receiver itself moves nothing changes over its other places.
        const auto known = std::find_if(sites_.begin(), sites_.end(), [&](const Site &s) {
            return s.trial == trial.id && s.X_FramePart == trial.X_FramePart;
        });
        if (sameSky && known != sites_.end()) {
            sites.push_back(std::move(*known));
            sites.back().name = trial.name;
            continue;
        }
        sites.push_back({trial.id, trial.name, trial.X_FramePart, {}, {}});
        look(sites.back(), rays);
    }
    sites_ = std::move(sites);
    head_->setText(tr("<b>%1</b>: share of the sky hidden, low sky counting less; most allowed %2 %")
                       .arg(QString::fromStdString(part->name).toHtmlEscaped())
                       .arg(analysis.practice[Limit::skyHidden]));
    refreshTable();
    for (auto *dome : domes_) dome->update();
}

void SkyPanel::refreshTable() {
    const int chosen = std::max(0, chosenSite());
    const QSignalBlocker quiet(table_);
    table_->setRowCount(int(sites_.size()));
    for (int r = 0; r < int(sites_.size()); ++r) {
        const Site &site = sites_[std::size_t(r)];
        const auto &by = site.level.by.empty() ? site.cruise.by : site.level.by;
        const Vec3 p = site.X_FramePart.position_mm;
        const QString place = site.trial.empty() ? tr("as it stands") : QString::fromStdString(site.name);
        const QString cells[] = {place, tr("%1 %").arg(100 * site.level.hidden, 0, 'f', 1),
                                 tr("%1 %").arg(100 * site.cruise.hidden, 0, 'f', 1),
                                 by.empty() ? tr("nothing")
                                            : QString::fromStdString(displayName(document_.build(), by.front().id))};
        for (int column = 0; column < 4; ++column) {
            auto *item = table_->item(r, column);
            if (!item) table_->setItem(r, column, item = new QTableWidgetItem);
            item->setText(cells[column]);
            if (column == 1 || column == 2) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            item->setToolTip(tr("%1 mm fore, %2 mm left, %3 mm high")
                                 .arg(p.x(), 0, 'f', 1)
                                 .arg(p.y(), 0, 'f', 1)
                                 .arg(p.z(), 0, 'f', 1));
        }
    }
    table_->resizeColumnsToContents();
    table_->selectRow(std::min(chosen, table_->rowCount() - 1));
    move_->setEnabled(chosenSite() > 0);
    remove_->setEnabled(chosenSite() > 0);
}

int SkyPanel::chosenSite() const {
    const auto rows = table_->selectionModel()->selectedRows();
    return rows.isEmpty() ? -1 : std::min(rows.first().row(), int(sites_.size()) - 1);
}

void SkyPanel::addPlaceHere() {
    if (const Part *part = pickReceiver()) addPlaceAt(framePose(document_.build(), *part));
}

void SkyPanel::addPlace(View view, const Vec3 &at_mm) {
    const Part *part = pickReceiver();
    if (!part) {
        emit document_.refused(tr("There is no GPS aboard whose sky could be compared."));
        return;
    }
    Pose pose = framePose(document_.build(), *part);
    const Vec3 stood = pose.position_mm;
    const auto &derived = document_.analysis().derived;
    const int self = int(part - document_.build().parts.data());
    if (view != View::plan) {
        for (int axis : {view == View::side ? 0 : 1, 2}) pose.position_mm[axis] = at_mm[axis];
    } else {
        pose.position_mm.head<2>() = at_mm.head<2>();
        // Down from above onto what lies highest there.
        const RayWorld world(derived.scene.world->bodies(), [&](int body) {
            const auto &traits = derived.scene.traits[std::size_t(body)];
            const auto &owner = derived.scene.owners[std::size_t(traits.owner)];
            return traits.owner != self && owner.kind != OwnerKind::disc && !traits.soft && !owner.flexible &&
                   (owner.cases >> document_.loadCase() & 1);
        });
        constexpr double kAbove_mm = 2000;
        const auto hit = world.first({at_mm.x(), at_mm.y(), kAbove_mm}, -Vec3::UnitZ());
        const double below = stood.z() - partBounds(document_.build(), *part).min_mm.z();
        if (hit.body >= 0) pose.position_mm.z() = kAbove_mm - hit.distance_mm + below;
    }
    addPlaceAt(pose);
}

void SkyPanel::addPlaceAt(const Pose &pose) {
    const Part *part = pickReceiver();
    if (!part) return;
    receiver_ = part->id;
    if (document_.edit(tr("A place to compare for %1").arg(QString::fromStdString(part->name)),
                       addTrial(document_.build(), part->id, pose))) {
        refresh();
        table_->selectRow(table_->rowCount() - 1);
    }
}

void SkyPanel::moveToChosen() {
    const int row = chosenSite();
    const Part *part = findPart(document_.build(), receiver_);
    if (row <= 0 || !part) return;
    document_.edit(tr("Move %1 to another place").arg(QString::fromStdString(part->name)),
                   takeTrial(document_.build(), sites_[std::size_t(row)].trial));
}

void SkyPanel::removeChosen() {
    const int row = chosenSite();
    if (row <= 0) return;
    document_.edit(tr("Forget a place"), removeTrial(document_.build(), sites_[std::size_t(row)].trial));
}

std::vector<drawing::Picture> SkyPanel::placePictures(View view) const {
    std::vector<drawing::Picture> pictures;
    const Part *part = pickReceiver();
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    if (!type) return pictures;
    for (const auto &trial : document_.build().trials) {
        if (trial.part != part->id) continue;
        QPainterPath path;
        path.setFillRule(Qt::WindingFill);
        for (const auto &solid : type->solids)
            path.addPath(drawing::outline(view, solid.shape, trial.X_FramePart * solid.X_PartSolid));
        QColor veil = theme::familyColor(Family::sensing);
        veil.setAlphaF(0.25f);
        pictures.push_back({path.simplified(), theme_.colors().chalk, veil, Qt::DashLine, 1.2,
                            QString::fromStdString(trial.name),
                            drawing::project(view, trial.X_FramePart.position_mm) + QPointF(0, -14)});
    }
    return pictures;
}

void SkyPanel::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    refresh();
}

} // namespace waxis::place
