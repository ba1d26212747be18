// The Kit stage: what is in the box, counted, weighed and measured.
#pragma once

#include "app/document/document.h"
#include "app/document/instruments.h"
#include "app/stages/bench.h"
#include "app/stages/kit/kit_model.h"
#include "app/stages/kit/list_page.h"
#include "app/stages/kit/part_editor.h"
#include "app/stages/kit/weighing_walk.h"

class QLabel;
class QLineEdit;
class QStackedLayout;
class QTableView;

namespace waxis::kit {

class KitBench : public app::Bench {
    Q_OBJECT

public:
    KitBench(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
             QWidget *parent = nullptr);

    KitModel &model() { return *model_; }
    QTableView &table() { return *table_; }
    ListPage &listPage() { return *list_; }
    /// Shows a kit list for looking over; the kit changes when it is taken.
    void readList(const QString &path);
    void browseList();
    bool isReadingList() const;
    PartEditor &editor() { return *editor_; }
    /// A new part type of a kind, or the chosen row's to change.
    void newPart(PartKind kind = PartKind::other);
    void changePart();
    void changePart(const std::string &type);
    bool isEditingPart() const;
    WeighingWalk &weighing() { return *walk_; }
    QString summary() const;

signals:
    void likeWanted(const QString &type); ///< a part of one's own like that of the chosen row

protected:
    void resizeEvent(QResizeEvent *event) override;

private:
    QWidget *makeBar();
    QWidget *makeHead();
    void refresh();

    app::Document &document_;
    const theme::Theme &theme_;
    KitModel *model_ = nullptr;
    QTableView *table_ = nullptr;
    ListPage *list_ = nullptr;
    PartEditor *editor_ = nullptr;
    WeighingWalk *walk_ = nullptr;
    QStackedLayout *pages_ = nullptr;
    QLabel *pieces_ = nullptr, *masses_ = nullptr, *next_ = nullptr;
};

} // namespace waxis::kit
