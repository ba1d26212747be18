#include "app/stages/build/step_list.h"

#include "core/instructions/step_words.h"

#include <QDropEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QStyledItemDelegate>
#include <cmath>

namespace waxis::assembly {

namespace {

constexpr int kStepRole = Qt::UserRole, kStateRole = Qt::UserRole + 1, kNumberRole = Qt::UserRole + 2,
              kToolRole = Qt::UserRole + 3, kIdRole = Qt::UserRole + 4;
constexpr int kBox_px = 15, kMargin_px = 8, kHeadHeight = 26, kStepHeight = 46;

QRect boxOf(const QRect &row) { return {row.left() + kMargin_px, row.top() + kMargin_px, kBox_px, kBox_px}; }

class StepDelegate : public QStyledItemDelegate {
public:
    StepDelegate(const theme::Theme &theme, QObject *parent) : QStyledItemDelegate(parent), theme_(theme) {}

    QSize sizeHint(const QStyleOptionViewItem &, const QModelIndex &index) const override {
        return {100, index.data(kStepRole).toInt() < 0 ? kHeadHeight : kStepHeight};
    }

    void paint(QPainter *painter, const QStyleOptionViewItem &option, const QModelIndex &index) const override {
        const auto &c = theme_.colors();
        const QRect row = option.rect;
        painter->save();
        if (index.data(kStepRole).toInt() < 0) {
            painter->setPen(c.softChalk);
            painter->setFont(theme_.text(11, true));
            painter->drawText(row.adjusted(kMargin_px, 6, -4, 0), Qt::AlignLeft | Qt::AlignVCenter,
                              painter->fontMetrics().elidedText(index.data(Qt::DisplayRole).toString(), Qt::ElideRight,
                                                                row.width() - 2 * kMargin_px));
            painter->restore();
            return;
        }
        const auto state = StepState(index.data(kStateRole).toInt());
        const QRect card = row.adjusted(4, 2, -4, -2);
        const bool chosen = option.state.testFlag(QStyle::State_Selected);
        painter->setRenderHint(QPainter::Antialiasing);
        painter->setPen(QPen(chosen ? c.chalk : c.matGridStrong, chosen ? 1.6 : 1));
        painter->setBrush(chosen ? c.matGridStrong : c.matBar);
        painter->drawRoundedRect(QRectF(card).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
        const bool done = state == StepState::done;
        const QRectF box = QRectF(boxOf(card));
        painter->setPen(QPen(state == StepState::again ? theme::severityOnMat(Severity::watch) : c.softChalk, 1.2));
        painter->setBrush(Qt::NoBrush);
        painter->drawRoundedRect(box, 3, 3);
        if (done || state == StepState::partly || state == StepState::again) {
            painter->setPen(QPen(state == StepState::again ? theme::severityOnMat(Severity::watch) : c.chalk, 2));
            if (state == StepState::partly)
                painter->drawLine(box.center() - QPointF(4, 0), box.center() + QPointF(4, 0));
            else
                painter->drawPolyline(QPolygonF{box.center() + QPointF(-4, 0), box.center() + QPointF(-1, 3.5),
                                                box.center() + QPointF(4.5, -4)});
        }
        const QRect text = card.adjusted(kMargin_px + kBox_px + 8, 4, -6, -4);
        painter->setPen(done ? c.softChalk : c.chalk);
        painter->setFont(theme_.text(12));
        const QString words = index.data(Qt::DisplayRole).toString();
        painter->drawText(QRect(text.left(), text.top(), text.width(), 18), Qt::AlignLeft | Qt::AlignVCenter,
                          painter->fontMetrics().elidedText(words, Qt::ElideRight, text.width()));
        painter->setPen(c.softChalk);
        painter->setFont(theme_.text(11));
        painter->drawText(QRect(text.left(), text.top() + 19, text.width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
                          index.data(kToolRole).toString());
        painter->setFont(theme_.numbers(11));
        painter->drawText(QRect(text.left(), text.top() + 19, text.width(), 16), Qt::AlignRight | Qt::AlignVCenter,
                          index.data(kNumberRole).toString());
        painter->restore();
    }

private:
    const theme::Theme &theme_;
};

QString words(const Sentence &sentence) { return QString::fromStdString(sentence.text()); }

} // namespace

StepList::StepList(app::Document &document, const theme::Theme &theme, const PlanSource &source, QWidget *parent)
    : QListWidget(parent), document_(document), theme_(theme), source_(source) {
    setObjectName("build-steps");
    setAccessibleName(tr("Steps in the order of building"));
    setFrameShape(QFrame::NoFrame);
    setItemDelegate(new StepDelegate(theme, this));
    setVerticalScrollMode(ScrollPerPixel);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setDragDropMode(InternalMove);
    setDefaultDropAction(Qt::MoveAction);
    setMouseTracking(true);
    theme_.dress(*this, theme::Ground::mat);
    connect(&source_, &PlanSource::changed, this, &StepList::fill);
    connect(&document_, &app::Document::changed, this, &StepList::fill);
    connect(this, &QListWidget::currentItemChanged, this, [this] { emit stepChosen(step()); });
    connect(&theme_, &theme::Theme::changed, viewport(), qOverload<>(&QWidget::update));
}

int StepList::step() const { return currentItem() ? currentItem()->data(kStepRole).toInt() : -1; }

int StepList::rowOf(int step) const {
    for (int row = 0; row < count(); ++row)
        if (item(row)->data(kStepRole).toInt() == step) return row;
    return -1;
}

void StepList::choose(int step) {
    const int row = rowOf(step);
    if (row < 0 || step < 0) return;
    setCurrentRow(row);
    scrollToItem(item(row));
}

void StepList::showEvent(QShowEvent *event) {
    QListWidget::showEvent(event);
    fill();
}

void StepList::fill() {
    if (!isVisible()) return; // a hidden bench costs no edit
    const AssemblyPlan &plan = source_.plan();
    const Build &build = document_.build();
    const std::string chosen = currentItem() ? currentItem()->data(kIdRole).toString().toStdString() : std::string();
    const int scrolled = verticalScrollBar()->value();
    QSignalBlocker quiet(this);
    clear();
    QString group;
    for (std::size_t i = 0; i < plan.steps.size(); ++i) {
        const Step &step = plan.steps[i];
        QString here = QString::fromStdString(placeWord(build, step));
        if (const auto side = sideWord(step.side); !side.empty())
            here += QStringLiteral(" · ") + QString::fromUtf8(side.data(), qsizetype(side.size()));
        if (here != group) {
            auto *head = new QListWidgetItem(here, this);
            head->setData(kStepRole, -1);
            head->setFlags(Qt::ItemIsEnabled);
            group = here;
        }
        auto *row = new QListWidgetItem(words(wordStep(build, step)), this);
        row->setData(kStepRole, int(i));
        row->setData(kIdRole, QString::fromStdString(step.id));
        row->setData(kStateRole, int(stateOf(build, step)));
        row->setData(kNumberRole, tr("%1 · %2 min").arg(i + 1).arg(std::max(1.0, std::round(step.minutes))));
        const auto tool = toolWord(step.tool);
        QString state;
        if (stateOf(build, step) == StepState::again) state = tr(", to look at again");
        row->setData(kToolRole, QString::fromUtf8(tool.data(), qsizetype(tool.size())) + state);
        row->setToolTip(row->text());
        row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsDragEnabled | Qt::ItemIsDropEnabled);
    }
    int target = -1;
    for (std::size_t i = 0; i < plan.steps.size(); ++i)
        if (plan.steps[i].id == chosen) target = int(i);
    if (target < 0) target = source_.stepOf(document_.selected().toStdString());
    if (target < 0 && !plan.steps.empty()) {
        // Where the hands are: the first that is not done.
        target = 0;
        while (target + 1 < int(plan.steps.size()) &&
               stateOf(build, plan.steps[std::size_t(target)]) == StepState::done)
            ++target;
    }
    setCurrentRow(target < 0 ? -1 : rowOf(target));
    quiet.unblock();
    verticalScrollBar()->setValue(scrolled);
    if (chosen.empty() && currentItem()) scrollToItem(currentItem());
    emit stepChosen(step());
}

void StepList::keyPressEvent(QKeyEvent *event) {
    if (event->key() == Qt::Key_Space && step() >= 0) {
        emit tickWanted(step());
        return;
    }
    // Heads are passed over.
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        const int next = step() + (event->key() == Qt::Key_Down ? 1 : -1);
        if (next >= 0 && next < int(source_.plan().steps.size())) {
            choose(next);
            emit picked(next);
        }
        return;
    }
    QListWidget::keyPressEvent(event);
}

void StepList::mousePressEvent(QMouseEvent *event) {
    const QListWidgetItem *hit = itemAt(event->position().toPoint());
    if (hit && hit->data(kStepRole).toInt() < 0) return; // a head is no step: the chosen one stays
    QListWidget::mousePressEvent(event);
}

void StepList::mouseReleaseEvent(QMouseEvent *event) {
    QListWidget::mouseReleaseEvent(event);
    QListWidgetItem *hit = itemAt(event->position().toPoint());
    if (!hit || hit->data(kStepRole).toInt() < 0 || event->button() != Qt::LeftButton) return;
    emit picked(hit->data(kStepRole).toInt());
    if (boxOf(visualItemRect(hit).adjusted(4, 2, -4, -2)).adjusted(-6, -6, 6, 6).contains(event->position().toPoint()))
        emit tickWanted(hit->data(kStepRole).toInt());
}

void StepList::dropEvent(QDropEvent *event) {
    const int dragged = step();
    const QPoint at = event->position().toPoint();
    int before = int(source_.plan().steps.size());
    for (int row = 0; row < count(); ++row) {
        const QRect box = visualItemRect(item(row));
        const int step = item(row)->data(kStepRole).toInt();
        if (step >= 0 && at.y() < box.center().y()) {
            before = step;
            break;
        }
    }
    event->setDropAction(Qt::IgnoreAction); // the plan says where it goes
    event->accept();
    QDragLeaveEvent leave; // takes the line that showed where it would go away
    QListWidget::dragLeaveEvent(&leave);
    if (dragged >= 0 && before != dragged && before != dragged + 1) emit orderWanted(dragged, before);
}

} // namespace waxis::assembly
