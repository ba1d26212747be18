// All things of the craft as a list: found by words, chosen, hidden from the mat, locked in their place.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QSet>
#include <QWidget>

class QLineEdit;
class QTreeWidget;
class QTreeWidgetItem;

namespace waxis::place {

class OutlinePanel : public QWidget {
    Q_OBJECT

public:
    OutlinePanel(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    QTreeWidget &tree() { return *tree_; }
    QLineEdit &words() { return *words_; }
    /// Puts the cursor into the search.
    void begin();
    const QSet<QString> &hidden() const { return hidden_; }

signals:
    void hiddenChanged(const QSet<QString> &ids);
    void zoomWanted();

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();
    void filter();
    void clicked(QTreeWidgetItem *item, int column);
    void showMenu(const QPoint &at);
    void setThingsHidden(const QStringList &ids, bool hidden);
    void lock(const QString &id, bool locked);
    void markChosen();

    app::Document &document_;
    const theme::Theme &theme_;
    QLineEdit *words_ = nullptr;
    QTreeWidget *tree_ = nullptr;
    QSet<QString> hidden_;
    bool filling_ = false;
};

} // namespace waxis::place
