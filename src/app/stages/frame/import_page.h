// A frame drawing on the way in: what was recognised, corrected by a person, then applied.
#pragma once

#include "app/document/document.h"
#include "app/stages/frame/import_canvas.h"
#include "io/drawing/dxf_reader.h"

#include <stop_token>

class QComboBox;
class QDoubleSpinBox;
class QFormLayout;
class QLabel;
class QPushButton;
class QTableWidget;
class QToolButton;

namespace waxis::frame {

class ImportPage : public QWidget {
    Q_OBJECT

public:
    ImportPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    ~ImportPage() override { stop_.request_stop(); }

    /// Reads the file; what is wrong with it is shown on the page. The build is untouched until Apply.
    void open(const QString &path);
    ImportCanvas &canvas() { return *canvas_; }
    const Recognition &found() const { return found_; }
    const DrawingChoices &choices() const { return choices_; }
    void apply();

signals:
    void finished(bool applied);

private:
    struct Read {
        Result<FlatDrawing, DrawingError> drawing;
        Recognition found;
    };
    void read(); ///< the bytes with the units chosen, in the background when that takes long
    void take(const Read &read);
    void recogniseNow();
    void takeRecognition(Recognition recognition);
    void refresh();
    void fillLayers();
    void fillPlates();
    void fillPick();
    void correct(int choice);
    void turnTo(std::size_t plate, double to_deg);
    void showMenu(const QPoint &globally);

    app::Document &document_;
    const theme::Theme &theme_;
    QString path_;
    std::optional<FlatDrawing> drawing_;
    RecogniseOptions options_;
    Recognition found_;
    DrawingChoices choices_;
    Pick picked_;
    ImportCanvas *canvas_ = nullptr;
    QLabel *title_ = nullptr, *problem_ = nullptr, *faults_ = nullptr, *pickText_ = nullptr, *skipped_ = nullptr;
    QToolButton *laid_ = nullptr, *byHoles_ = nullptr;
    QComboBox *units_ = nullptr, *nose_ = nullptr, *pickUse_ = nullptr;
    QDoubleSpinBox *prop_ = nullptr, *standoff_ = nullptr, *turn_ = nullptr;
    QWidget *turnRow_ = nullptr;
    QTableWidget *layers_ = nullptr, *plates_ = nullptr;
    QPushButton *apply_ = nullptr;
    bool filling_ = false;
    std::stop_source stop_; ///< of the last reading; only that counts
};

} // namespace waxis::frame
