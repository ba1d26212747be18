// All wires in one table: how they run, how long, from what, and whether that will do.
#pragma once

#include "app/document/document.h"
#include "app/widgets/mat_table.h"

namespace waxis {
struct WireReport;
}

namespace waxis::wire {

class WireTable : public theme::MatTable {
    Q_OBJECT

public:
    WireTable(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// What the last column says of a wire: "32 short", "trim 60", "cut".
    static QString verdictText(const WireReport &report);
    /// The worst open finding about a wire; pass for none.
    static Severity worstAbout(const Analysis &analysis, const std::string &wire);

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    void refresh();
    void shareWidth();
    app::Document &document_;
    bool filling_ = false;
};

} // namespace waxis::wire
