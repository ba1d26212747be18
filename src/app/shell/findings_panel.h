// The findings ledger: what is wrong, by how much, why it matters, and what can be done about it.
#pragma once

#include "app/shell/document.h"
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
    void toggleOpened(const QString &key);
    void refresh();

private:
    Document &document_;
    std::optional<Stage> stage_;
    std::vector<Finding> shown_;
    QString openedKey_;
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

    /// Where an action's link stands in a row that covers `row`; empty when it is not offered.
    QRect linkRect(const QRect &row, const QModelIndex &index, FindingAction action) const;

signals:
    void actionChosen(int row, waxis::app::FindingAction action);

private:
    struct Link {
        FindingAction action;
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
                    const QString &fix) const;

    FindingsModel &model_;
    Document &document_;
    const theme::Theme &theme_;
    mutable QHash<QString, Layout> laidOut_; ///< closed rows by their words, at the origin
};

class FindingsPanel : public QWidget {
    Q_OBJECT

public:
    FindingsPanel(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    void setStage(Stage stage);
    QListView &list() { return *list_; }
    FindingsModel &model() { return *model_; }
    FindingDelegate &delegate() { return *delegate_; }
    void act(int row, FindingAction action);

signals:
    void revealWanted(const QStringList &ids, waxis::RuleId about);

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void askReason(const Finding &finding);
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
    Stage stage_ = Stage::place;
    QTimer paint_;
};

} // namespace waxis::app
