#include "app/stages/radio/radio_bench.h"

#include "app/widgets/bench_bar.h"
#include "core/radio/radio_report.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QScrollArea>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::radio {

RadioBench::RadioBench(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : app::Bench(parent), document_(document), theme_(theme) {
    ladder_ = new Ladder(document_, theme_);
    matrix_ = new Matrix(document_, theme_);
    coverage_ = new CoveragePage(document_, theme_);
    compass_ = new CompassPage(document_, theme_);
    places_ = new PlacesPage(document_, theme_);
    ground_ = new GroundPage(document_, theme_);
    study_ = new FieldPage(document_, theme_);

    auto *bar = theme::makeBenchBar(theme_, this);
    auto *line = static_cast<QHBoxLayout *>(bar->layout());
    tabs_ = theme::addPageTabs(*bar,
                               {{tr("Ladder and matrix"), "page-matrix"},
                                {tr("Coverage"), "page-coverage"},
                                {tr("Compass"), "page-compass"},
                                {tr("GPS places"), "page-places"},
                                {tr("Ground link"), "page-ground"},
                                {tr("Field study"), "page-study"}},
                               [this](int page) { showPage(Page(page)); });
    line->addStretch(1);

    auto *scroll = new QScrollArea;
    scroll->setObjectName("matrix-scroll");
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    auto *sheet = new QWidget;
    auto *column = new QVBoxLayout(sheet);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    ladder_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    matrix_->setSizePolicy(QSizePolicy::MinimumExpanding, QSizePolicy::MinimumExpanding);
    column->addWidget(ladder_);
    column->addWidget(matrix_, 1);
    scroll->setWidget(sheet);
    connect(matrix_, &Matrix::cellChosen, this, [this, scroll, sheet](const QRect &cell) {
        const QPoint middle = matrix_->mapTo(sheet, cell.center());
        scroll->ensureVisible(middle.x(), middle.y(), cell.width(), cell.height());
    });
    pages_ = new QStackedWidget;
    pages_->addWidget(scroll);
    for (QWidget *page :
         {static_cast<QWidget *>(coverage_), static_cast<QWidget *>(compass_), static_cast<QWidget *>(places_),
          static_cast<QWidget *>(ground_), static_cast<QWidget *>(study_)})
        pages_->addWidget(page);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(bar);
    all->addWidget(pages_, 1);
    showPage(Page::matrix);
}

void RadioBench::showPage(Page page) {
    pages_->setCurrentIndex(int(page));
    tabs_[std::size_t(page)]->setChecked(true);
}

void RadioBench::fit() {
    switch (Page(pages_->currentIndex())) {
    case Page::matrix: ladder_->fit(); break;
    case Page::coverage: coverage_->globe().fit(); break;
    case Page::compass: compass_->map().fit(); break;
    case Page::places:
    case Page::ground:
    case Page::study: break; // tables
    }
}

void RadioBench::zoomToChosen() {
    switch (Page(pages_->currentIndex())) {
    case Page::matrix: ladder_->zoomToChosen(); break;
    case Page::coverage: coverage_->globe().zoomToChosen(); break;
    case Page::compass: compass_->map().zoomToChosen(); break;
    case Page::places:
    case Page::ground:
    case Page::study: break;
    }
}

bool RadioBench::reveal(const QStringList &ids, RuleId) {
    const RadioReport &report = *document_.analysis().derived.radio;
    // A pair of the matrix: the first two of the things that are a row and a column.
    for (std::size_t r = 0; r < report.rows.size(); ++r)
        for (std::size_t c = 0; c < report.columns.size(); ++c) {
            const auto &row = report.rows[r];
            const auto &column = report.columns[c];
            if (!report.cell(r, c).counts) continue;
            const std::string from = row.radio >= 0 ? report.radios[std::size_t(row.radio)].part : row.id;
            const std::string to = column.radio >= 0 ? report.radios[std::size_t(column.radio)].part
                                                     : report.compasses[std::size_t(column.compass)].part;
            if (from == to || !ids.contains(QString::fromStdString(from)) || !ids.contains(QString::fromStdString(to)))
                continue;
            if (row.kind == DisturberKind::magnet || row.kind == DisturberKind::currents) {
                showPage(Page::compass);
                document_.select(QString::fromStdString(to));
            } else {
                showPage(Page::matrix);
                document_.lookAtPair({QString::fromStdString(row.id), QString::fromStdString(column.id)});
            }
            return true;
        }
    for (const auto &ground : document_.build().groundStations)
        if (ids.contains(QString::fromStdString(ground.id))) {
            showPage(Page::ground);
            return true;
        }
    return false;
}

} // namespace waxis::radio
