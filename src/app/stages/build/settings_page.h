// What has to be typed into the controller.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"

#include <QWidget>

namespace waxis::assembly {

class SettingsPage : public QWidget {
    Q_OBJECT

public:
    SettingsPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    theme::MatTable &table() { return *table_; }

protected:
    void showEvent(QShowEvent *event) override;

private:
    void fill();

    app::Document &document_;
    const theme::Theme &theme_;
    theme::MatTable *table_ = nullptr;
};

} // namespace waxis::assembly
