// The findings ledger: what is wrong, by how much, why it matters, and what can be done about it.
#pragma once

#include "app/document/cure_runner.h"
#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QAbstractListModel>
#include <QHash>
#include <QStyledItemDelegate>
#include <QTimer>
#include <QWidget>
#include <optional>

class QLabel;
class QLineEdit;
class QListView;
class QToolButton;

namespace waxis::app {

class FindingsModel : public QAbstractListModel {
    Q_OBJECT

public:
    explicit FindingsModel(Document &document, QObject *parent = nullptr);
    int rowCount(const QModelIndex &parent = {}) const override;
    QVariant data(const QModelIndex &index, int role) const override;

    /// Only this stage's rules; none: all stages.
    void setStage(std::optional<Stage> stage);
    const Finding &finding(int row) const;
    QString openedKey() const { return openedKey_; }
    /// Row of a finding by its key; -1: not listed.
    int rowOf(const std::string &key) const;
    /// Keys of what is listed, from the worst down, whatever is chosen.
    std::vector<std::string> keysByWorth() const;
    void toggleOpened(const QString &key);
    /// The row that is looked at: its reason is told in full.
    QString toldKey() const { return toldKey_; }
    void tellWhole(const QString &key);
    void refresh();
    /// Cures that were tried and are offered for a row; null while they are being tried.
    const std::vector<Cure> *cures(int row) const { return cures_.curesOf(finding(row)); }
    CureRunner &runner() { return cures_; }

private:
    Document &document_;
    CureRunner cures_;
    std::optional<Stage> stage_;
    std::vector<Finding> shown_;
    QString openedKey_, toldKey_;
};

/// What a person can do with a finding.
enum class FindingAction { show, fix, why, accept, withdraw };

class FindingDelegate : public QStyledItemDelegate {
    Q_OBJECT

public:
    FindingDelegate(FindingsModel &model, Document &document, const theme::Theme &theme, QObject *parent = nullptr);
    void paint(QPainter *painter, const QStyleOptionViewItem &option, const QModelIndex &index) const override;
    QSize sizeHint(const QStyleOptionViewItem &option, const QModelIndex &index) const override;
    bool editorEvent(QEvent *event, QAbstractItemModel *model, const QStyleOptionViewItem &option,
                     const QModelIndex &index) override;

    /// Where an action's link stands in a row that covers `row`; empty when it is not offered. Fixes are counted.
    QRect linkRect(const QRect &row, const QModelIndex &index, FindingAction action, int cure = 0) const;

signals:
    void actionChosen(int row, waxis::app::FindingAction action, int cure);

private:
    struct Link {
        FindingAction action;
        int cure;
        QString text;
        QRect rect;
    };
    struct Layout {
        QString headline, detail;
        QRect headlineBox, detailBox;
        std::vector<Link> links;
        std::vector<std::pair<QString, QRect>> opened; ///< lines under an opened finding
        int height = 0;
    };
    Layout layOut(const QRect &row, const QModelIndex &index) const;
    Layout layOutAt(const QRect &row, const Finding &finding, const QString &headline, const QString &detail,
                    const QStringList &fixes) const;

    FindingsModel &model_;
    Document &document_;
    const theme::Theme &theme_;
    mutable QHash<QString, Layout> laidOut_; ///< closed rows by their words, at the origin
};

class FindingsPanel : public QWidget {
    Q_OBJECT

public:
    FindingsPanel(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    /// `byHand`: somebody chose the stage, and sees its findings.
    void setStage(Stage stage, bool byHand = false);
    QListView &list() { return *list_; }
    FindingsModel &model() { return *model_; }
    FindingDelegate &delegate() { return *delegate_; }
    /// `cure`: which of the offered ones.
    void act(int row, FindingAction action, int cure = 0);
    /// The finding after the one that was shown last, from the worst down and round again.
    void showNext();
    bool isSettled() const { return model_->runner().isSettled(); }

signals:
    void revealWanted(const QStringList &ids, waxis::RuleId about);

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void askReason(const Finding &finding);
    void mend(const Finding &finding, int cure);
    void showMenu(const QPoint &at);
    void tellWhole(const QModelIndex &index);
    Document &document_;
    const theme::Theme &theme_;
    FindingsModel *model_;
    FindingDelegate *delegate_;
    QListView *list_;
    QLabel *title_, *count_, *empty_;
    QToolButton *here_, *everywhere_;
    QWidget *reasonRow_;
    QLineEdit *reason_;
    QString acceptingKey_;
    std::optional<std::pair<Finding, int>> wanted_; ///< a cure that is applied once it was tried
    std::string shownKey_;                          ///< by showNext
    Stage stage_ = Stage::place;
    QTimer paint_;
    QPersistentModelIndex aimedAt_; ///< the row under the pointer while rows grow
    int aimedTop_ = 0;
};

} // namespace waxis::app
