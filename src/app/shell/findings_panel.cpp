#include "app/shell/findings_panel.h"

#include "app/stages/stage_texts.h"
#include "app/theme/look.h"
#include "app/theme/metrics.h"
#include "app/widgets/texts.h"
#include "core/edits/part_edits.h"
#include "core/rules/rule.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QMenu>
#include <QPushButton>
#include <QScrollBar>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

namespace waxis::app {

FindingsPanel::FindingsPanel(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), model_(new FindingsModel(document, this)),
      delegate_(new FindingDelegate(*model_, document, theme, this)), list_(new QListView),
      title_(new QLabel(tr("Findings"))), count_(new QLabel), empty_(new QLabel(tr("Nothing found here."))),
      here_(new QToolButton), everywhere_(new QToolButton), reasonRow_(new QWidget), reason_(new QLineEdit) {
    auto *head = new QHBoxLayout;
    head->setContentsMargins(16, 8, 16, 4);
    head->setSpacing(12);
    title_->setFont(theme_.text(theme::kHeadPixels, true));
    head->addWidget(title_);
    for (auto *button : {here_, everywhere_}) {
        button->setCheckable(true);
        button->setProperty(theme::kPage, true);
        head->addWidget(button);
    }
    everywhere_->setText(tr("all stages"));
    everywhere_->setChecked(true);
    head->addStretch();
    count_->setFont(theme_.numbers(12));
    head->addWidget(count_);
    connect(here_, &QToolButton::clicked, this, [this] {
        here_->setChecked(true);
        everywhere_->setChecked(false);
        model_->setStage(stage_);
    });
    connect(everywhere_, &QToolButton::clicked, this, [this] {
        everywhere_->setChecked(true);
        here_->setChecked(false);
        model_->setStage(std::nullopt);
    });

    list_->setModel(model_);
    list_->setItemDelegate(delegate_);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setMouseTracking(true);
    list_->setResizeMode(QListView::Adjust);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setAccessibleName(tr("Findings"));
    list_->setObjectName("findings");
    list_->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(list_, &QListView::customContextMenuRequested, this, &FindingsPanel::showMenu);
    // A row that is pressed must not grow before the button is let go: its links would slip away.
    connect(list_, &QListView::clicked, this, [this](const QModelIndex &index) { tellWhole(index); });
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex &index) {
        if (QApplication::mouseButtons() == Qt::NoButton) tellWhole(index);
    });
    // Cures come in while somebody aims at a row: what is under the pointer stays there.
    connect(model_, &QAbstractItemModel::layoutAboutToBeChanged, this, [this] {
        const QPoint at = list_->viewport()->mapFromGlobal(QCursor::pos());
        aimedAt_ = list_->viewport()->rect().contains(at) ? list_->indexAt(at) : QModelIndex();
        aimedTop_ = aimedAt_.isValid() ? list_->visualRect(aimedAt_).top() : 0;
    });
    connect(model_, &QAbstractItemModel::layoutChanged, list_, [this] {
        if (!aimedAt_.isValid()) return;
        list_->doItemsLayout();
        auto *bar = list_->verticalScrollBar();
        bar->setValue(bar->value() + list_->visualRect(aimedAt_).top() - aimedTop_);
        aimedAt_ = QModelIndex();
    });
    list_->installEventFilter(this);
    list_->viewport()->installEventFilter(this);

    reason_->setPlaceholderText(tr("Why is it acceptable?"));
    reason_->setObjectName("reason");
    auto *keep = new QPushButton(tr("Accept"));
    auto *cancel = new QPushButton(tr("Cancel"));
    auto *reasonLayout = new QHBoxLayout(reasonRow_);
    reasonLayout->setContentsMargins(16, 4, 16, 8);
    reasonLayout->addWidget(reason_);
    reasonLayout->addWidget(keep);
    reasonLayout->addWidget(cancel);
    reasonRow_->hide();
    auto accept = [this] {
        if (document_.edit(tr("Accept a finding"), acceptFinding(document_.build(), acceptingKey_.toStdString(),
                                                                 reason_->text().toStdString())))
            reasonRow_->hide();
    };
    connect(keep, &QPushButton::clicked, this, accept);
    connect(reason_, &QLineEdit::returnPressed, this, accept);
    connect(cancel, &QPushButton::clicked, reasonRow_, &QWidget::hide);

    empty_->setAlignment(Qt::AlignCenter);
    empty_->setWordWrap(true);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addLayout(head);
    layout->addWidget(list_, 1);
    layout->addWidget(empty_, 1);
    layout->addWidget(reasonRow_);

    connect(delegate_, &FindingDelegate::actionChosen, this, &FindingsPanel::act);
    auto recount = [this] {
        const int rows = model_->rowCount();
        const int waiting = document_.analysis().derived.wiresPutOff; // what is said of those is not the last word
        count_->setText(waiting ? tr("%n wire(s) being led, ", nullptr, waiting) + QString::number(rows)
                                : QString::number(rows));
        list_->setVisible(rows > 0);
        empty_->setVisible(rows == 0);
    };
    connect(model_, &QAbstractItemModel::modelReset, this, recount);
    // While a part is dragged the list is right at every step but painted at 25 a second, which is as fast as numbers
    // can be read: the mat needs the time.
    constexpr int kPaint_ms = 40;
    paint_.setSingleShot(true);
    paint_.setInterval(kPaint_ms);
    connect(&paint_, &QTimer::timeout, list_, [this] { list_->setUpdatesEnabled(true); });
    connect(&document_, &Document::changed, this, [this] {
        if (!document_.isPreviewing()) {
            paint_.stop();
            list_->setUpdatesEnabled(true);
        } else if (!paint_.isActive()) {
            list_->setUpdatesEnabled(false);
            paint_.start();
        }
    });
    recount();
    connect(&model_->runner(), &CureRunner::tried, this, [this] {
        if (!wanted_ || !model_->runner().curesOf(wanted_->first)) return;
        const auto [finding, cure] = *wanted_;
        mend(finding, cure);
    });
    connect(&document_, &Document::changed, this, [this] { // a wish for the build as it was
        wanted_.reset();
        list_->setCursor(Qt::ArrowCursor);
    });
    list_->viewport()->setBackgroundRole(QPalette::Window);
    theme_.dress(*this, theme::Ground::panel);
}

void FindingsPanel::setStage(Stage stage, bool byHand) {
    stage_ = stage;
    if (byHand) {
        here_->setChecked(true);
        everywhere_->setChecked(false);
    }
    here_->setText(stageTexts()[std::size_t(stage)].name);
    if (here_->isChecked()) model_->setStage(stage_);
}

void FindingsPanel::tellWhole(const QModelIndex &index) {
    if (index.isValid() && index.row() < model_->rowCount())
        model_->tellWhole(QString::fromStdString(model_->finding(index.row()).key()));
}

void FindingsPanel::showMenu(const QPoint &at) {
    const QModelIndex index = list_->indexAt(at);
    if (!index.isValid()) return;
    const std::string key = model_->finding(index.row()).key();
    const bool accepted = model_->finding(index.row()).accepted();
    QMenu menu(this);
    const auto add = [&](const QString &text, FindingAction action, int cure = 0) {
        menu.addAction(text, this, [this, key, action, cure] { act(model_->rowOf(key), action, cure); });
    };
    add(tr("Show\tS"), FindingAction::show);
    add(tr("Why\tReturn"), FindingAction::why);
    add(accepted ? tr("Withdraw the acceptance\tA") : tr("Accept…\tA"),
        accepted ? FindingAction::withdraw : FindingAction::accept);
    if (const auto *cures = model_->cures(index.row()); cures && !cures->empty() && !accepted) {
        menu.addSeparator();
        for (std::size_t i = 0; i < cures->size(); ++i)
            add(say((*cures)[i].words) + (i == 0 ? QStringLiteral("\tF") : QString()), FindingAction::fix, int(i));
    }
    menu.exec(list_->viewport()->mapToGlobal(at));
}

void FindingsPanel::askReason(const Finding &finding) {
    acceptingKey_ = QString::fromStdString(finding.key());
    reason_->clear();
    reasonRow_->show();
    reason_->setFocus();
}

void FindingsPanel::act(int row, FindingAction action, int cure) {
    if (row < 0 || row >= model_->rowCount()) return;
    const Finding finding = model_->finding(row); // a copy: the edit below replaces the list
    const QString key = QString::fromStdString(finding.key());
    QStringList ids;
    for (const auto &subject : finding.subjects) ids << QString::fromStdString(subject);
    switch (action) {
    case FindingAction::show:
        for (const auto &id : ids)
            if (findPart(document_.build(), id.toStdString())) {
                document_.select(id);
                break;
            }
        emit revealWanted(ids, finding.rule);
        break;
    case FindingAction::fix:
        document_.highlight({}); // what was lit up is mended
        mend(finding, cure);
        break;
    case FindingAction::why: model_->toggleOpened(key); break;
    case FindingAction::accept: askReason(finding); break;
    case FindingAction::withdraw:
        document_.edit(tr("Withdraw an acceptance"), withdrawAcceptance(document_.build(), key.toStdString()));
        break;
    }
}

void FindingsPanel::mend(const Finding &finding, int cure) {
    wanted_.reset();
    const auto *cures = model_->runner().curesOf(finding);
    list_->setCursor(cures ? Qt::ArrowCursor : Qt::BusyCursor);
    if (!cures) {
        wanted_ = {finding, cure};
        model_->runner().tryFirst(finding.key());
    } else if (cure >= 0 && cure < int(cures->size())) {
        const Cure chosen = (*cures)[std::size_t(cure)]; // a copy: the edit clears them
        document_.edit(say(chosen.words), EditResult(chosen.after));
    } else if (!finding.fixes.empty()) {
        emit document_.refused(tr("No single change that is known mends this without bringing something worse."));
    }
}

void FindingsPanel::showNext() {
    const auto keys = model_->keysByWorth();
    if (keys.empty()) return;
    const auto last = std::find(keys.begin(), keys.end(), shownKey_);
    const auto next = last == keys.end() || last + 1 == keys.end() ? keys.begin() : last + 1;
    shownKey_ = *next;
    act(model_->rowOf(shownKey_), FindingAction::show);
    // What is shown becomes the chosen part, and its findings come first.
    list_->setCurrentIndex(model_->index(model_->rowOf(shownKey_)));
}

bool FindingsPanel::eventFilter(QObject *watched, QEvent *event) {
    if (watched == list_->viewport() && event->type() == QEvent::MouseMove) {
        const auto index = list_->indexAt(static_cast<QMouseEvent *>(event)->pos());
        QStringList ids;
        if (index.isValid())
            for (const auto &subject : model_->finding(index.row()).subjects) ids << QString::fromStdString(subject);
        document_.highlight(ids);
    }
    if (watched == list_->viewport() && event->type() == QEvent::Leave) document_.highlight({});
    if (watched == list_ && event->type() == QEvent::KeyPress && list_->currentIndex().isValid()) {
        const int row = list_->currentIndex().row();
        switch (static_cast<QKeyEvent *>(event)->key()) {
        case Qt::Key_Return: act(row, FindingAction::why); return true;
        case Qt::Key_S: act(row, FindingAction::show); return true;
        case Qt::Key_F: act(row, FindingAction::fix); return true;
        case Qt::Key_A:
            act(row, model_->finding(row).accepted() ? FindingAction::withdraw : FindingAction::accept);
            return true;
        default: break;
        }
    }
    return QWidget::eventFilter(watched, event);
}

} // namespace waxis::app
