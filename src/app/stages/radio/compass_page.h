// The compass: field on the plan, what the chosen place would feel, who makes it.
#pragma once

#include "app/stages/radio/compass_map.h"

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QToolButton;

namespace waxis::radio {

class CompassPage : public QWidget {
    Q_OBJECT

public:
    CompassPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    CompassMap &map() { return *map_; }
    /// The facts beside the map, as shown.
    QString facts() const;

private:
    void refresh();
    void keepPlace();
    app::Document &document_;
    const theme::Theme &theme_;
    CompassMap *map_ = nullptr;
    QComboBox *part_ = nullptr;
    QDoubleSpinBox *height_ = nullptr;
    QLabel *facts_ = nullptr, *legend_ = nullptr;
    QToolButton *keep_ = nullptr, *clear_ = nullptr;
};

} // namespace waxis::radio
