// Posts, hole patterns, places and openings of any frame, as a table to add to, type in and take from.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/layout/hand_edits.h"

#include <QWidget>

class QMenu;
class QTableWidget;
class QToolButton;

namespace waxis::frame {

class FrameThings : public QWidget {
    Q_OBJECT

public:
    FrameThings(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    QTableWidget &table() { return *table_; }
    /// Adds one where there is room near the middle of the chosen plate (the highest one when none is chosen).
    void add(FrameThing thing);
    /// Everything that can be added.
    QMenu *addMenu() const;

private:
    struct Row {
        std::string id;
        enum class Kind { post, site, opening, screw } kind = Kind::post;
    };
    void refresh();
    void fillAddMenu();
    void typed(int row, int column);
    std::string plateForNew() const;

    app::Document &document_;
    const theme::Theme &theme_;
    QTableWidget *table_ = nullptr;
    QToolButton *add_ = nullptr, *remove_ = nullptr;
    std::vector<Row> rows_;
    bool filling_ = false;
};

} // namespace waxis::frame
