#include "app/stages/frame/frame_things.h"

#include "app/widgets/typed_number.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/layout/screw_edits.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QInputDialog>
#include <QMenu>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::frame {

namespace {

enum Column { kWhat, kX, kY, kZ, kSize, kColumns };

QString number(double value) {
    const double rounded = std::round(value * 100) / 100;
    return QString::number(rounded == 0 ? 0.0 : rounded, 'g', 6);
}

Vec2 middleOf(const Ring &ring) {
    Aabb box;
    for (const auto &p : ring) box.include(Vec3(p.x(), p.y(), 0));
    return ((box.min_mm + box.max_mm) / 2).head<2>();
}

QString wordOf(const Standoff &post) {
    switch (post.role) {
    case StandoffRole::standoff: return FrameThings::tr("post");
    case StandoffRole::bobbin: return FrameThings::tr("bobbin");
    case StandoffRole::foot: return FrameThings::tr("foot");
    case StandoffRole::stopper: return FrameThings::tr("stopper");
    }
    return {};
}

QString wordOf(const Site &site) {
    switch (site.kind) {
    case SiteKind::pattern: return FrameThings::tr("holes");
    case SiteKind::strap: return FrameThings::tr("strap");
    case SiteKind::mast: return FrameThings::tr("mast");
    case SiteKind::face:
    case SiteKind::edge:
    case SiteKind::arm: return FrameThings::tr("place");
    }
    return {};
}

} // namespace

FrameThings::FrameThings(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    table_ = new QTableWidget(0, kColumns);
    table_->setObjectName("frame-things");
    table_->setAccessibleName(tr("Posts, places and openings"));
    table_->setHorizontalHeaderLabels({tr("What"), tr("fore"), tr("left"), tr("height"), tr("size")});
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setShowGrid(false);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    table_->horizontalHeader()->setSectionResizeMode(kWhat, QHeaderView::Stretch);
    for (int c = kX; c < kColumns; ++c) table_->setColumnWidth(c, 52);
    table_->setMinimumHeight(180);
    add_ = new QToolButton;
    add_->setObjectName("add-to-frame");
    add_->setText(tr("+ add"));
    add_->setToolTip(tr("A post, hole pattern, slot, pass-through, strap place, mast, plate or camera cage"));
    add_->setPopupMode(QToolButton::InstantPopup);
    add_->setMenu(new QMenu(add_));
    fillAddMenu();
    remove_ = new QToolButton;
    remove_->setObjectName("remove-from-frame");
    remove_->setText(tr("Take out"));
    auto *row = new QHBoxLayout;
    row->addWidget(add_);
    row->addWidget(remove_);
    row->addStretch();
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    column->addLayout(row);
    column->addWidget(table_);
    connect(table_, &QTableWidget::cellChanged, this, &FrameThings::typed);
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int r) {
        if (!filling_ && r >= 0 && r < int(rows_.size()))
            document_.select(QString::fromStdString(rows_[std::size_t(r)].id));
    });
    connect(remove_, &QToolButton::clicked, this, [this] {
        const int r = table_->currentRow();
        if (r >= 0 && r < int(rows_.size()))
            document_.edit(tr("Take out %1").arg(table_->item(r, kWhat)->text()),
                           removeFromFrame(document_.build(), rows_[std::size_t(r)].id));
    });
    connect(&document_, &app::Document::changed, this, &FrameThings::refresh);
    connect(&document_, &app::Document::selectionChanged, this, [this] {
        const std::string chosen = document_.selected().toStdString();
        for (std::size_t r = 0; r < rows_.size(); ++r)
            if (rows_[r].id == chosen && table_->currentRow() != int(r)) {
                filling_ = true;
                table_->setCurrentCell(int(r), kWhat);
                filling_ = false;
            }
    });
    refresh();
}

void FrameThings::fillAddMenu() {
    const std::pair<FrameThing, QString> things[] = {{FrameThing::screw, tr("Screw, through what lies there")},
                                                     {FrameThing::post, tr("Post, through to the plate above")},
                                                     {FrameThing::bobbin, tr("Bobbin, soft")},
                                                     {FrameThing::stopper, tr("Stopper under a soft plate")},
                                                     {FrameThing::foot, tr("Landing foot")},
                                                     {FrameThing::pattern, tr("Hole pattern…")},
                                                     {FrameThing::strapPlace, tr("Strap place with its two slots")},
                                                     {FrameThing::facePlace, tr("Place for a part")},
                                                     {FrameThing::mast, tr("Mast")},
                                                     {FrameThing::slot, tr("Slot")},
                                                     {FrameThing::passThrough, tr("Pass-through for wires")},
                                                     {FrameThing::plate, tr("Plate above the chosen one")},
                                                     {FrameThing::cameraCage, tr("Camera cage")}};
    add_->menu()->addAction(tr("All screws that the frame lacks"), this, [this] {
        document_.edit(tr("Draw the frame's screws"), addMissingScrews(document_.build()));
    });
    for (const auto &[thing, text] : things)
        add_->menu()->addAction(text, this, [this, wanted = thing] { add(wanted); });
}

QMenu *FrameThings::addMenu() const { return add_->menu(); }

std::string FrameThings::plateForNew() const {
    const auto &plates = document_.build().frame->plates;
    const std::string chosen = document_.selected().toStdString();
    for (const auto &plate : plates)
        if (plate.id == chosen) return plate.id;
    // What carries the chosen thing.
    for (const auto &site : document_.build().frame->sites)
        if (site.id == chosen) return site.on;
    const Plate *highest = nullptr;
    for (const auto &plate : plates)
        if (!highest || plate.z_mm > highest->z_mm) highest = &plate;
    return highest ? highest->id : std::string();
}

void FrameThings::add(FrameThing thing) {
    FrameWish wish;
    wish.thing = thing;
    wish.plate = plateForNew();
    const Frame &frame = *document_.build().frame;
    if (thing == FrameThing::pattern) {
        bool ok = false;
        const QStringList usual{tr("30.5 mm, M3"), tr("25.5 mm, M2"), tr("20 mm, M2"), tr("16 mm, M2")};
        const QString chosen = QInputDialog::getItem(this, tr("Hole pattern"), tr("Square of"), usual, 0, false, &ok);
        if (!ok) return;
        const auto side = readQuantity(chosen.section(',', 0, 0).toStdString(), Measure::length);
        wish.pattern = {PatternShape::square, side.value_or(30.5), 0, chosen.endsWith("M3") ? 3.2 : 2.2, 4};
    }
    // The nearest spot to the middle of the plate where it goes in.
    Vec2 middle = Vec2::Zero();
    double reach = 0;
    for (const auto &plate : frame.plates)
        if (plate.id == wish.plate) {
            middle = middleOf(plate.outline_mm);
            const Aabb box = boundsOf(plateShape(plate), platePose(plate));
            reach = box.size_mm().head<2>().norm() / 2;
        }
    std::string id;
    EditResult done = addToFrame(
        document_.build(),
        [&] {
            wish.at_mm = middle;
            return wish;
        }(),
        &id);
    constexpr double kStep_mm = 3;
    for (double r = kStep_mm; !done && r < reach; r += kStep_mm) {
        const int spots = std::max(8, int(2 * M_PI * r / kStep_mm));
        for (int i = 0; i < spots && !done; ++i) {
            const double angle = 2 * M_PI * i / spots;
            wish.at_mm = middle + r * Vec2(std::cos(angle), std::sin(angle));
            done = addToFrame(document_.build(), wish, &id);
        }
    }
    if (document_.edit(tr("Add to the frame"), done)) document_.select(QString::fromStdString(id));
}

void FrameThings::refresh() {
    if (document_.isPreviewing()) return;
    filling_ = true;
    const Frame &frame = *document_.build().frame;
    rows_.clear();
    table_->setRowCount(
        int(frame.standoffs.size() + frame.sites.size() + frame.passThroughs.size() + frame.screws.size()));
    int r = 0;
    auto put = [&](int column, const QString &text, bool editable) {
        auto *item = new QTableWidgetItem(text);
        if (!editable) item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        if (column != kWhat) {
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            item->setFont(theme_.numbers(11));
        }
        table_->setItem(r, column, item);
    };
    auto line = [&](const std::string &id, Row::Kind kind, const QString &what, const Vec3 &at, bool heightToo,
                    const QString &size, bool sizeToo) {
        rows_.push_back({id, kind});
        put(kWhat, what, false);
        put(kX, number(at.x()), true);
        put(kY, number(at.y()), true);
        put(kZ, number(at.z()), heightToo);
        put(kSize, size, sizeToo);
        ++r;
    };
    for (const auto &post : frame.standoffs)
        line(post.id, Row::Kind::post,
             tr("%1 %2 × %3").arg(wordOf(post)).arg(post.diameter_mm).arg(QString::fromStdString(post.thread)),
             post.base_mm, true, number(post.height_mm), true);
    for (const auto &site : frame.sites)
        line(site.id, Row::Kind::site,
             tr("%1: %2").arg(wordOf(site), QString::fromStdString(site.name.empty() ? site.id : site.name)),
             site.X_FrameSite.position_mm, true, site.pattern ? number(site.pattern->size_mm) : QString(), false);
    for (const auto &pass : frame.passThroughs) {
        Aabb box;
        for (const auto &p : pass.outline_mm) box.include(Vec3(p.x(), p.y(), 0));
        const Vec2 at = middleOf(pass.outline_mm);
        line(pass.id, Row::Kind::opening,
             tr("pass-through%1").arg(pass.edge == HoleEdge::grommet ? tr(", grommet") : QString()),
             Vec3(at.x(), at.y(), 0), false,
             QStringLiteral("%1×%2").arg(number(box.size_mm().x()), number(box.size_mm().y())), false);
    }
    for (const auto &screw : frame.screws)
        line(screw.id, Row::Kind::screw,
             tr("screw %1, %2")
                 .arg(QString::fromStdString(screw.thread), screw.fromAbove ? tr("from above") : tr("from below")),
             Vec3(screw.at_mm.x(), screw.at_mm.y(), columnOf(frame, screw, bracketsOf(document_.build())).headFace_mm),
             false, screw.length_mm ? number(*screw.length_mm) : tr("auto"), true);
    filling_ = false;
}

void FrameThings::typed(int row, int column) {
    if (filling_ || row >= int(rows_.size())) return;
    const QString text = table_->item(row, column)->text();
    const auto value = app::typedNumber(text, Measure::length);
    const Row &which = rows_[std::size_t(row)];
    const Frame &frame = *document_.build().frame;
    EditResult done = Failure{EditError{app::notUnderstood(text, Measure::length).toStdString()}};
    if (value && (column == kX || column == kY)) {
        Vec2 at(readQuantity(table_->item(row, kX)->text().toStdString(), Measure::length).value_or(0),
                readQuantity(table_->item(row, kY)->text().toStdString(), Measure::length).value_or(0));
        done = moveOnFrame(document_.build(), which.id, at);
    } else if (which.kind == Row::Kind::screw && column == kSize) {
        const QString said = text.trimmed();
        for (FrameScrew screw : frame.screws)
            if (screw.id == which.id && (value || said.isEmpty() || said == tr("auto"))) {
                screw.length_mm = value ? std::optional<double>(*value) : std::nullopt;
                done = setFrameScrew(document_.build(), screw);
            }
    } else if (value && which.kind == Row::Kind::post) {
        for (Standoff post : frame.standoffs)
            if (post.id == which.id) {
                (column == kZ ? post.base_mm.z() : post.height_mm) = *value;
                done = setStandoff(document_.build(), post);
            }
    } else if (value && which.kind == Row::Kind::site && column == kZ) {
        for (Site site : frame.sites)
            if (site.id == which.id) {
                site.X_FrameSite.position_mm.z() = *value;
                done = setSite(document_.build(), site);
            }
    }
    // After the editor has closed: the table is filled anew by the change.
    QMetaObject::invokeMethod(
        this,
        [this, done] {
            document_.edit(tr("Change the frame"), done);
            refresh();
        },
        Qt::QueuedConnection);
}

} // namespace waxis::frame
