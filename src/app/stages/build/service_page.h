// What comes off before a part does, in order; read upwards it is how it goes back on.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"
#include "core/sequence/service_depth.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace waxis::assembly {

class ServicePage : public QWidget {
    Q_OBJECT

public:
    ServicePage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    theme::MatTable &table() { return *table_; }
    /// Shows what comes off for a part.
    void choose(const std::string &part);
    bool isSettled() const { return working_.isSettled(); }

protected:
    void showEvent(QShowEvent *event) override;

private:
    void fillParts();
    void show(const std::optional<ServiceWay> &way);

    app::Document &document_;
    const theme::Theme &theme_;
    QComboBox *parts_ = nullptr;
    theme::MatTable *table_ = nullptr;
    QLabel *verdict_ = nullptr;
    app::Background<std::optional<ServiceWay>> working_;
};

} // namespace waxis::assembly
