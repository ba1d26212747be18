// The sky over a GPS antenna, level and at cruise pitch, and a comparison with the places where it might stand: the
// build's trial places, which Radio compares as well.
#pragma once

#include "app/document/document.h"
#include "app/drawing/pictures.h"
#include "app/theme/theme.h"
#include "core/sky/sky_view.h"

#include <QImage>
#include <QWidget>
#include <array>

class QLabel;
class QTableWidget;
class QToolButton;

namespace waxis::place {

class SkyPanel : public QWidget {
    Q_OBJECT

public:
    SkyPanel(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// The receiver looked at: the chosen part when it must see the sky, else the build's GPS; empty: there is none.
    const std::string &receiver() const { return receiver_; }
    struct Site {
        std::string trial, name; ///< empty: where it stands
        Pose X_FramePart;
        SkyView level, cruise;
    };
    /// The place it has, then its trial places.
    const std::vector<Site> &sites() const { return sites_; }

    /// A place to compare, seen in a drawing: in plan it comes to stand on what lies highest there.
    void addPlace(drawing::View view, const Vec3 &at_mm);
    void addPlaceHere();
    /// The places as they are drawn in a view.
    std::vector<drawing::Picture> placePictures(drawing::View view) const;
    QTableWidget &table() { return *table_; }

protected:
    void showEvent(QShowEvent *event) override;

private:
    class Dome;
    void refresh();
    void look(Site &site, const RayWorld &world) const;
    void refreshTable();
    void addPlaceAt(const Pose &pose);
    void moveToChosen();
    void removeChosen();
    int chosenSite() const;
    const Part *pickReceiver() const;

    app::Document &document_;
    const theme::Theme &theme_;
    std::string receiver_;
    /// Anew only when something else than the receiver moved.
    const RayWorld &world(const Part &part);

    std::vector<Site> sites_;
    std::optional<RayWorld> world_;
    Build worldOf_;
    std::string worldPart_;
    Practice worldPractice_;
    int worldCase_ = -1, worldsMade_ = 0;
    std::array<Dome *, 2> domes_{};
    QLabel *head_ = nullptr;
    QLabel *empty_ = nullptr;
    QWidget *body_ = nullptr;
    QTableWidget *table_ = nullptr;
    QToolButton *add_ = nullptr, *move_ = nullptr, *remove_ = nullptr;
};

} // namespace waxis::place
