// What the flight camera sees: its picture at the tilt it has, who stands in it, and which tilt is best.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/sight/camera_view.h"

#include <QImage>
#include <QTimer>
#include <QWidget>

class QLabel;
class QSlider;

namespace waxis::place {

class LensView : public QWidget {
    Q_OBJECT

public:
    LensView(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// The camera looked through: the chosen part when it is one, else the build's flight camera; empty: there is none.
    const std::string &camera() const { return camera_; }
    const CameraView &view() const { return view_; }
    QSlider &tilt() { return *tilt_; }

protected:
    void showEvent(QShowEvent *event) override;

private:
    class PictureBox;
    class TiltChart;
    class Shares;
    void refresh();
    void refine();
    QImage imageOf(const CameraView &view, const Picture &picture) const;
    void setTilt(double tilt_deg, bool keep);
    const Part *pickCamera() const;
    QColor colorOfOwner(const std::string &id) const;
    QString nameOfOwner(const std::string &id) const;

    app::Document &document_;
    const theme::Theme &theme_;
    /// Anew only when something else than the camera moved.
    const CameraWorld &world(int self);

    std::string camera_;
    std::optional<CameraWorld> world_;
    Build worldOf_;
    std::string worldPart_;
    int worldCase_ = -1;
    CameraView view_;
    QImage image_;
    QTimer refine_;
    bool settingSlider_ = false;
    QLabel *head_ = nullptr;
    QLabel *empty_ = nullptr;
    QWidget *body_ = nullptr;
    PictureBox *box_ = nullptr;
    TiltChart *chart_ = nullptr;
    Shares *shares_ = nullptr;
    QSlider *tilt_ = nullptr;
};

} // namespace waxis::place
