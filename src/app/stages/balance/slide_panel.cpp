#include "app/stages/balance/slide_panel.h"

#include "app/theme/metrics.h"
#include "app/widgets/texts.h"
#include "core/balance/case_balance.h"
#include "core/build/frame_shapes.h"
#include "core/edits/balance_edits.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/rules/wording.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QSignalBlocker>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace waxis::balance {

namespace {

QString one(double value) { return QString::fromStdString(oneDecimal(value)); }
QString nameIn(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }

/// Words for forwards and backwards along a direction.
std::pair<QString, QString> waysOf(const Vec3 &d) {
    if (std::abs(d.x()) >= std::abs(d.y()) && std::abs(d.x()) >= std::abs(d.z()))
        return d.x() > 0 ? std::pair(SlidePanel::tr("fore"), SlidePanel::tr("aft"))
                         : std::pair(SlidePanel::tr("aft"), SlidePanel::tr("fore"));
    if (std::abs(d.y()) >= std::abs(d.z()))
        return d.y() > 0 ? std::pair(SlidePanel::tr("left"), SlidePanel::tr("right"))
                         : std::pair(SlidePanel::tr("right"), SlidePanel::tr("left"));
    return d.z() > 0 ? std::pair(SlidePanel::tr("up"), SlidePanel::tr("down"))
                     : std::pair(SlidePanel::tr("down"), SlidePanel::tr("up"));
}

} // namespace

EditResult travelAlong(const Build &build, const SlideSolution &solution, double travel_mm) {
    return solution.stated ? slidePart(build, solution.part, travel_mm)
                           : shiftPart(build, solution.part, solution.direction * travel_mm);
}

SlideLine::SlideLine(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("slide-line");
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::SizeHorCursor);
    setAccessibleName(tr("Slide"));
    setToolTip(
        tr("Drag it, or nudge it with the arrow keys: 1 mm, with Shift 0.1 mm, with Ctrl 5 mm. Enter slides it to "
           "the balanced place."));
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

void SlideLine::show(std::optional<Shown> shown) {
    if (holding_ && shown && shown_) { // the line stays put under the mouse: only the part travels
        shown_->solution.wanted_mm = shown->solution.wanted_mm + travel_;
        update();
        return;
    }
    shown_ = std::move(shown);
    if (shown_)
        setAccessibleDescription(tr("%1 mm would balance it; free from %2 to %3 mm")
                                     .arg(one(shown_->solution.wanted_mm), one(shown_->solution.free.least.travel_mm),
                                          one(shown_->solution.free.most.travel_mm)));
    setEnabled(shown_.has_value());
    update();
}

double SlideLine::xOf(double travel_mm) const {
    if (!shown_) return 0;
    const double pad = shown_->half_mm + 2, from = shown_->least_mm - pad, to = shown_->most_mm + pad;
    return 6 + (travel_mm - from) / (to - from) * (width() - 12);
}

void SlideLine::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    if (!shown_) return;
    const SlideSolution &s = shown_->solution;
    const double y = 30, half = (xOf(shown_->half_mm) - xOf(0));
    painter.setPen(QPen(c.softChalk, 1));
    painter.drawLine(QPointF(6, y), QPointF(width() - 6, y));
    // Where it cannot go: from where it is stopped to the end of the range.
    QColor closed = theme::severityOnMat(Severity::stop);
    closed.setAlphaF(0.35f);
    painter.setPen(Qt::NoPen);
    painter.setBrush(closed);
    const double lowEnd = xOf(s.free.least.travel_mm) - half, highEnd = xOf(s.free.most.travel_mm) + half;
    painter.drawRect(QRectF(0, y - 9, std::max(0.0, lowEnd), 18));
    painter.drawRect(QRectF(highEnd, y - 9, std::max(0.0, width() - highEnd), 18));
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.softChalk);
    const QRectF words(2, y + 16, width() - 4, 15);
    painter.drawText(words, Qt::AlignLeft, shown_->stopAft);
    painter.drawText(words, Qt::AlignRight, shown_->stopFore);
    // The balanced place, on the line or where it is stopped.
    const double target = xOf(s.travel_mm);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(c.plumb, 1.5, Qt::DashLine));
    if (std::abs(s.travel_mm) > 0.05) painter.drawRoundedRect(QRectF(target - half, y - 11, 2 * half, 22), 3, 3);
    painter.setFont(theme_.numbers(theme::kSmallPixels, true));
    painter.setPen(c.plumb);
    const QString wanted =
        std::abs(s.travel_mm) <= 0.05
            ? tr("balanced here")
            : tr("%1 mm %2").arg(one(std::abs(s.travel_mm)), s.travel_mm > 0 ? shown_->fore : shown_->aft);
    const double wide = QFontMetricsF(painter.font()).horizontalAdvance(wanted) + 4;
    painter.drawText(QRectF(std::clamp(target - wide / 2, 0.0, width() - wide), 0, wide, 16), Qt::AlignCenter, wanted);
    painter.setPen(QPen(hasFocus() ? c.chalk : shown_->color.darker(130), hasFocus() ? 1.6 : 1));
    painter.setBrush(shown_->color);
    painter.drawRoundedRect(QRectF(xOf(travel_) - half, y - 8, 2 * half, 16), 3, 3);
}

void SlideLine::mousePressEvent(QMouseEvent *event) {
    if (!shown_ || event->button() != Qt::LeftButton) return;
    const double half = xOf(shown_->half_mm) - xOf(0);
    if (std::abs(event->position().x() - xOf(0)) > half + 4) return;
    holding_ = true;
    travel_ = 0;
    held_ = event->position().x();
}

void SlideLine::mouseMoveEvent(QMouseEvent *event) {
    if (!holding_ || !shown_) return;
    const double perMm = xOf(1) - xOf(0);
    double travel = (event->position().x() - held_) / perMm;
    const auto &free = shown_->solution.free;
    travel = std::clamp(travel, free.least.travel_mm, free.most.travel_mm);
    if (std::abs(travel - shown_->solution.travel_mm) < 0.7 && !(event->modifiers() & Qt::ControlModifier))
        travel = shown_->solution.travel_mm; // snaps to the balanced place
    travel_ = travel;
    emit travelled(travel);
    update();
}

void SlideLine::mouseReleaseEvent(QMouseEvent *) {
    if (!holding_) return;
    holding_ = false;
    travel_ = 0;
    emit released();
}

void SlideLine::keyPressEvent(QKeyEvent *event) {
    if (holding_ && event->key() == Qt::Key_Escape) {
        holding_ = false;
        travel_ = 0;
        emit cancelled();
        return;
    }
    if (!shown_) return QWidget::keyPressEvent(event);
    const double step = event->modifiers() & Qt::ShiftModifier ? 0.1 : event->modifiers() & Qt::ControlModifier ? 5 : 1;
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)
        emit nudged(event->key() == Qt::Key_Left ? -step : step);
    else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        emit nudged(shown_->solution.travel_mm);
    else
        QWidget::keyPressEvent(event);
}

SlidePanel::SlidePanel(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : Card(theme, QString(), parent), document_(document) {
    auto *column = &body();
    column->setContentsMargins(10, 6, 10, 6);
    column->setSpacing(2);
    auto *head = new QHBoxLayout;
    head->setSpacing(8);
    auto *title = new QLabel(tr("Slide"));
    title->setFont(theme.text(theme::kTextPixels, true));
    which_ = new QComboBox;
    which_->setObjectName("slide-part");
    which_->setAccessibleName(tr("Part to slide"));
    which_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    facts_ = new QLabel;
    facts_->setObjectName("note");
    facts_->setFont(theme.text(theme::kSmallPixels));
    solve_ = new QToolButton;
    solve_->setObjectName("slide-solve");
    solve_->setText(tr("Slide it"));
    compromise_ = new QToolButton;
    compromise_->setObjectName("slide-compromise");
    compromise_->setText(tr("For all cases"));
    head->addWidget(title);
    head->addWidget(which_);
    head->addStretch(1);
    head->addWidget(solve_);
    head->addWidget(compromise_);
    column->addLayout(head);
    line_ = new SlideLine(document, theme);
    line_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    column->addWidget(line_);
    note_ = new QLabel;
    note_->setObjectName("note");
    note_->setFont(theme.text(theme::kSmallPixels));
    note_->setWordWrap(true);
    column->addWidget(facts_);
    column->addWidget(note_);
    consequence_ = new QLabel;
    consequence_->setObjectName("note");
    consequence_->setFont(theme.text(theme::kSmallPixels));
    consequence_->setWordWrap(true);
    consequence_->hide();
    column->addWidget(consequence_);
    column->addStretch(1);

    connect(which_, &QComboBox::activated, this, [this] {
        document_.select(which_->currentData().toString());
        refresh();
    });
    connect(solve_, &QToolButton::clicked, this, [this] {
        if (solution_) slide(solution_->travel_mm, tr("Slide %1 to balance").arg(nameIn(document_.build(), part())));
    });
    connect(compromise_, &QToolButton::clicked, this, [this] {
        if (common_ && solution_)
            slide(common_->travel_mm, tr("Slide %1 for all load cases").arg(nameIn(document_.build(), part())));
    });
    connect(line_, &SlideLine::travelled, this, [this](double travel) {
        if (!document_.isPreviewing()) before_ = document_.build();
        if (solution_) document_.preview(travelAlong(before_, *solution_, travel));
    });
    connect(line_, &SlideLine::released, this, [this] {
        if (document_.isPreviewing()) document_.commitPreview(tr("Slide %1").arg(nameIn(document_.build(), part())));
        refresh();
    });
    connect(line_, &SlideLine::cancelled, this, [this] {
        document_.cancelPreview();
        refresh();
    });
    connect(line_, &SlideLine::nudged, this, [this](double travel) {
        if (!solution_) return;
        const double clipped = std::clamp(travel, solution_->free.least.travel_mm, solution_->free.most.travel_mm);
        slide(clipped, tr("Slide %1").arg(nameIn(document_.build(), part())));
    });
    connect(&document_, &app::Document::changed, this, &SlidePanel::refresh);
    connect(&document_, &app::Document::loadCaseChanged, this, &SlidePanel::refresh);
    connect(&document_, &app::Document::opened, this, [this] {
        which_->clear();
        refresh();
    });
    refresh();
}

std::string SlidePanel::part() const { return which_->currentData().toString().toStdString(); }

void SlidePanel::lookAt(const std::string &part) {
    const QString id = QString::fromStdString(part);
    if (which_->findData(id) < 0) {
        const QSignalBlocker quiet(which_);
        which_->addItem(nameIn(document_.build(), part), id);
    }
    which_->setCurrentIndex(which_->findData(id));
    refresh();
}

void SlidePanel::setConsequence(const QString &words) {
    consequence_->setVisible(!words.isEmpty());
    consequence_->setText(words);
}

void SlidePanel::slide(double travel, const QString &name) {
    if (!solution_ || std::abs(travel) < 1e-6) return;
    document_.edit(name, travelAlong(document_.build(), *solution_, travel),
                   QStringLiteral("slide-") + which_->currentData().toString());
}

void SlidePanel::showEvent(QShowEvent *event) {
    Card::showEvent(event);
    refresh();
}

void SlidePanel::refresh() {
    if (!isVisible()) return;
    fillParts();
    const Build &build = document_.build();
    const auto &derived = document_.analysis().derived;
    const int loadCase = document_.loadCase();
    solution_.reset();
    common_.reset();
    const Part *shown = findPart(build, part());
    const auto index = shown ? std::size_t(shown - build.parts.data()) : 0;
    if (shown && loadCase < int(derived.balance.size())) {
        const SlideRange range = slideOf(*shown);
        FreeTravel free = freeTravel(build, derived.scene, index, range.direction, range.min_mm, range.max_mm);
        solution_ =
            solveSlide(build, derived.massRows, derived.balance[std::size_t(loadCase)], index, range.direction, free);
        if (solution_) {
            Compromise common = compromiseFor(build, derived.massRows, derived.balance, index, range.direction, free);
            if (common.cases.size() > 1) common_ = std::move(common);
            showLine(*shown, range, free);
        }
    }
    if (!solution_) line_->show(std::nullopt);
    const bool can = solution_ && std::abs(solution_->travel_mm) > 0.05 && !(shown && shown->pinned);
    solve_->setEnabled(can);
    compromise_->setVisible(common_.has_value());
    compromise_->setEnabled(common_ && std::abs(common_->travel_mm) > 0.05);
    if (solution_)
        tell(shown && shown->pinned);
    else {
        facts_->clear();
        note_->setText(which_->count() == 0
                           ? tr("Nothing aboard may slide. Choose a part and say how far it may go, in the inspector.")
                           : tr("No balance to work with yet."));
    }
    emit proposed();
}

void SlidePanel::fillParts() {
    const Build &build = document_.build();
    const auto &derived = document_.analysis().derived;
    const int loadCase = document_.loadCase();
    const QSignalBlocker quiet(which_);
    const QString before = which_->currentData().toString();
    QStringList ids;
    const LoadCase *active =
        loadCase < int(derived.loadCases.size()) ? &derived.loadCases[std::size_t(loadCase)] : nullptr;
    for (const auto &part : build.parts)
        if (part.slide && active && isAboard(part, *active)) ids << QString::fromStdString(part.id);
    const Part *asked = findPart(build, before.toStdString());
    if (asked && !ids.contains(before) && active && isAboard(*asked, *active)) ids << before;
    // The pack first: it is the heaviest and made to slide.
    std::stable_sort(ids.begin(), ids.end(), [&](const QString &a, const QString &b) {
        return active && (a.toStdString() == active->battery) > (b.toStdString() == active->battery);
    });
    which_->clear();
    for (const auto &id : ids) which_->addItem(nameIn(build, id.toStdString()), id);
    which_->setCurrentIndex(std::max(0, which_->findData(before)));
}

void SlidePanel::showLine(const Part &part, const SlideRange &range, const FreeTravel &free) {
    const Build &build = document_.build();
    const auto [fore, aft] = waysOf(range.direction);
    SlideLine::Shown line;
    line.solution = *solution_;
    line.fore = fore;
    line.aft = aft;
    const auto stopWords = [&](const TravelEnd &end, const QString &way) {
        switch (end.kind) {
        case StopKind::range: return tr("%1 mm %2: its range ends").arg(one(std::abs(end.travel_mm)), way);
        case StopKind::strap:
            return tr("%1 mm %2: slips out of %3").arg(one(std::abs(end.travel_mm)), way, nameIn(build, end.by));
        case StopKind::body:
            return tr("%1 mm %2: meets %3").arg(one(std::abs(end.travel_mm)), way, nameIn(build, end.by));
        }
        return QString();
    };
    line.stopAft = stopWords(free.least, aft);
    line.stopFore = stopWords(free.most, fore);
    const Aabb box = partBounds(build, part);
    line.half_mm = std::max(3.0, (box.max_mm - box.min_mm).cwiseProduct(range.direction.cwiseAbs()).sum() / 2);
    line.least_mm = std::min(range.min_mm, 0.0);
    line.most_mm = std::max(range.max_mm, 0.0);
    const PartType *type = typeOf(build, part);
    line.color = theme::familyColor(type ? familyOf(type->kind) : Family::load);
    line_->show(std::move(line));
}

void SlidePanel::tell(bool pinned) {
    const auto &derived = document_.analysis().derived;
    const auto [fore, aft] = waysOf(solution_->direction);
    facts_->setText(tr("%1 of %2 g: 10 mm of it move the balance by %3 mm.")
                        .arg(solution_->mass_g, 0, 'f', 0)
                        .arg(derived.balance[std::size_t(document_.loadCase())].mass.mass_g, 0, 'f', 0)
                        .arg(one(solution_->perTen_mm)));
    QString note;
    if (pinned)
        note = tr("It is pinned: Space in Place lets it go.");
    else if (solution_->clipped() && solution_->after_mm.norm() > 0.05)
        note = tr("%1 mm %2 would bring it home; as far as it can go leaves %3 mm.")
                   .arg(one(std::abs(solution_->wanted_mm)), solution_->wanted_mm > 0 ? fore : aft,
                        one(solution_->after_mm.norm()));
    else
        note = tr("Leaves %1 mm.").arg(one(solution_->after_mm.norm()));
    if (common_) {
        double worst = 0;
        for (const auto &c : common_->cases) worst = std::max(worst, c.after_mm.norm());
        note += QStringLiteral("  ") +
                tr("%1 mm %2 suits all its cases best: none is more than %3 mm off.")
                    .arg(one(std::abs(common_->travel_mm)), common_->travel_mm >= 0 ? fore : aft, one(worst));
    }
    note_->setText(note);
}

} // namespace waxis::balance
