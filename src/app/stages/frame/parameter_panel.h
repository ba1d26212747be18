// The frame's numbers beside its drawing: layout parameters, motors, plates.
#pragma once

#include "app/document/document.h"
#include "app/stages/frame/frame_things.h"
#include "app/theme/theme.h"

#include <QScrollArea>

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QTableWidget;
class QVBoxLayout;

namespace waxis::frame {

class ParameterPanel : public QScrollArea {
    Q_OBJECT

public:
    ParameterPanel(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// The editor of a layout parameter; null when the present layout does not ask for it. For tests.
    QWidget *editorOf(const QString &parameter) const;

    FrameThings &things() { return *things_; }

private:
    void rebuildParameters();
    void refreshMotors();
    void refreshPlates();
    void refresh();
    QLabel *heading(const QString &text);
    void chooseLayout(int index);

    app::Document &document_;
    const theme::Theme &theme_;
    QComboBox *layouts_ = nullptr;
    QLabel *what_ = nullptr;
    QWidget *parameters_ = nullptr;
    QString builtFor_; ///< layout whose editors stand there
    std::map<QString, QWidget *> editors_;
    QComboBox *numbering_ = nullptr;
    QTableWidget *motors_ = nullptr, *plates_ = nullptr;
    std::vector<QLabel *> headings_;
    FrameThings *things_ = nullptr;
    bool filling_ = false;
};

} // namespace waxis::frame
