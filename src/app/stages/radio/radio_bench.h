// The Radio stage: ladder and matrix, coverage, compass, places, links to the ground.
#pragma once

#include "app/stages/bench.h"
#include "app/stages/radio/compass_page.h"
#include "app/stages/radio/coverage_page.h"
#include "app/stages/radio/field_page.h"
#include "app/stages/radio/ground_page.h"
#include "app/stages/radio/ladder.h"
#include "app/stages/radio/matrix.h"
#include "app/stages/radio/places_page.h"

class QStackedWidget;
class QToolButton;

namespace waxis::radio {

enum class Page { matrix, coverage, compass, places, ground, study };

class RadioBench : public app::Bench {
    Q_OBJECT

public:
    RadioBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    Ladder &ladder() { return *ladder_; }
    Matrix &matrix() { return *matrix_; }
    CoveragePage &coverage() { return *coverage_; }
    CompassPage &compass() { return *compass_; }
    PlacesPage &places() { return *places_; }
    GroundPage &ground() { return *ground_; }
    FieldPage &study() { return *study_; }
    void showPage(Page page);
    /// Of the drawing of the page that is shown.
    void fit() override;
    void zoomToChosen() override;
    /// Nothing is being worked out in the background.
    bool isSettled() const { return compass_->map().isSettled() && places_->isSettled(); }
    /// Looks at what a finding is about: a pair in the matrix, a compass, a link; false for none of these.
    bool reveal(const QStringList &ids, RuleId rule) override;

private:
    app::Document &document_;
    const theme::Theme &theme_;
    Ladder *ladder_ = nullptr;
    Matrix *matrix_ = nullptr;
    CoveragePage *coverage_ = nullptr;
    CompassPage *compass_ = nullptr;
    PlacesPage *places_ = nullptr;
    GroundPage *ground_ = nullptr;
    FieldPage *study_ = nullptr;
    QStackedWidget *pages_ = nullptr;
    std::vector<QToolButton *> tabs_;
};

} // namespace waxis::radio
