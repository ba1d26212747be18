#include "app/stages/radio/matrix.h"

#include "app/theme/metrics.h"
#include "app/widgets/tips.h"
#include "core/radio/bands.h"
#include "core/radio/radio_report.h"
#include "core/rules/cell_verdict.h"
#include "core/rules/wording.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace waxis::radio {

namespace {

constexpr double kLeft = 164, kTop = 48, kRow = 40, kGap = 5, kLeastCell = 96, kMostCell = 132;

QString signedNumber(double value) {
    const QString text = QString::number(std::abs(value), 'f', std::abs(value) < 9.95 ? 1 : 0);
    return (value < 0 ? QStringLiteral("−") : QStringLiteral("+")) + text;
}

} // namespace

Matrix::Matrix(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("matrix");
    setAccessibleName(tr("Who disturbs whom"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    auto renew = [this] {
        layOut();
        updateGeometry();
        update();
    };
    connect(&document_, &app::Document::changed, this, renew);
    connect(&document_, &app::Document::judged, this, renew);
    connect(&document_, &app::Document::loadCaseChanged, this, renew);
    connect(&document_, &app::Document::selectionChanged, this, [this] { update(); });
    connect(&document_, &app::Document::highlightChanged, this, [this] { update(); });
    connect(&theme_, &theme::Theme::changed, this, [this] { update(); });
    layOut();
}

QSize Matrix::sizeHint() const {
    return {int(kLeft + double(std::max<std::size_t>(1, columns_.size())) * (kLeastCell + kGap) + 8),
            int(kTop + double(std::max<std::size_t>(1, rows_.size())) * (kRow + kGap) + 8)};
}

void Matrix::layOut() {
    rows_.clear();
    columns_.clear();
    const RadioReport &report = *document_.analysis().derived.radio;
    const Build &build = document_.build();
    // A magnet pulls whether it is switched on or not.
    const auto counts = [&](int radio, bool noise, const std::string &part) {
        const Part *found = findPart(build, part);
        return found && (radio >= 0 || noise ? document_.isSwitchedOnNow(*found) : document_.isAboardNow(*found));
    };
    for (std::size_t c = 0; c < report.columns.size(); ++c) {
        const auto &column = report.columns[c];
        if (counts(column.radio, false,
                   column.radio >= 0 ? report.radios[std::size_t(column.radio)].part
                                     : report.compasses[std::size_t(column.compass)].part))
            columns_.push_back(c);
    }
    for (std::size_t r = 0; r < report.rows.size(); ++r) {
        const auto &row = report.rows[r];
        if (row.kind != DisturberKind::currents &&
            !counts(row.radio, row.kind == DisturberKind::noise,
                    row.radio >= 0 ? report.radios[std::size_t(row.radio)].part : row.id))
            continue;
        // Sources of noise only where they are near enough to matter: a row of distances far outside says nothing.
        bool speaks = row.kind != DisturberKind::noise;
        for (const std::size_t c : columns_) {
            const RadioCell &cell = report.cell(r, c);
            speaks |= cell.counts && cell.practice_mm && cell.distance_mm < 3 * *cell.practice_mm;
        }
        if (speaks) rows_.push_back(r);
    }
    const double room = width() - kLeft - 8;
    cellWidth_ =
        columns_.empty() ? kMostCell : std::clamp(room / double(columns_.size()) - kGap, kLeastCell, kMostCell);
}

void Matrix::resizeEvent(QResizeEvent *) { layOut(); }

QRectF Matrix::rectOf(const Index &index) const {
    return {kLeft + double(index.column) * (cellWidth_ + kGap), kTop + double(index.row) * (kRow + kGap), cellWidth_,
            kRow};
}

QRectF Matrix::cellOf(const QString &from, const QString &to) const {
    const RadioReport &report = *document_.analysis().derived.radio;
    for (std::size_t r = 0; r < rows_.size(); ++r)
        for (std::size_t c = 0; c < columns_.size(); ++c)
            if (report.rows[rows_[r]].id == from.toStdString() && report.columns[columns_[c]].id == to.toStdString())
                return rectOf({r, c});
    return {};
}

QStringList Matrix::textOf(const QString &from, const QString &to) const {
    const RadioReport &report = *document_.analysis().derived.radio;
    for (const std::size_t r : rows_)
        for (const std::size_t c : columns_)
            if (report.rows[r].id == from.toStdString() && report.columns[c].id == to.toStdString())
                return linesOf(r, c);
    return {};
}

QStringList Matrix::linesOf(std::size_t row, std::size_t column) const {
    const RadioReport &report = *document_.analysis().derived.radio;
    const RadioCell &cell = report.cell(row, column);
    if (!cell.counts) return {};
    const QString distance = tr("%1 mm").arg(cell.distance_mm, 0, 'f', cell.distance_mm < 20 ? 1 : 0);
    if (report.columns[column].compass >= 0)
        return {distance,
                cell.field_uT < 1000 ? tr("%1 µT").arg(cell.field_uT, 0, 'f', cell.field_uT < 10 ? 1 : 0)
                                     : tr("%1 mT").arg(cell.field_uT / 1000, 0, 'f', 1),
                cell.heading_deg >= 180 ? tr("any") : tr("%1°").arg(cell.heading_deg, 0, 'f', 1)};
    if (!cell.coupling)
        return {distance, tr("noise"),
                cell.practice_mm && cell.distance_mm < *cell.practice_mm
                    ? signedNumber(cell.distance_mm - *cell.practice_mm) + tr(" mm")
                    : tr("ok")};
    const double margin =
        std::min(cell.margin_dB, cell.blockingMargin_dB - document_.analysis().practice[Limit::blockingReserve]);
    return {distance, tr("%1 dB").arg(cell.coupling->total_dB, 0, 'f', 0).replace(QLatin1Char('-'), QChar(0x2212)),
            signedNumber(margin)};
}

std::optional<Matrix::Index> Matrix::at(const QPointF &point) const {
    for (std::size_t r = 0; r < rows_.size(); ++r)
        for (std::size_t c = 0; c < columns_.size(); ++c)
            if (rectOf({r, c}).contains(point)) return Index{r, c};
    return std::nullopt;
}

void Matrix::choose(const Index &index) {
    const RadioReport &report = *document_.analysis().derived.radio;
    if (!report.cell(rows_[index.row], columns_[index.column]).counts) return;
    document_.lookAtPair({QString::fromStdString(report.rows[rows_[index.row]].id),
                          QString::fromStdString(report.columns[columns_[index.column]].id)});
    emit cellChosen(rectOf(index).toRect());
}

void Matrix::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    painter.fillRect(rect(), c.mat);
    painter.setFont(theme_.text(theme::kTextPixels, true));
    painter.setPen(c.chalk);
    painter.drawText(QRectF(12, 6, 150, 18), Qt::AlignVCenter, tr("Who disturbs whom"));
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.softChalk);
    painter.drawText(QRectF(kLeft, 6, width() - kLeft, 18), Qt::AlignVCenter,
                     tr("distance · coupling · margin; choose a cell for the whole sum"));
    if (rows_.empty() || columns_.empty()) {
        painter.setFont(theme_.text(theme::kTextPixels));
        painter.drawText(QRectF(12, kTop, width() - 24, 40), Qt::AlignVCenter,
                         tr("A sender and a listener have to be aboard before one can disturb the other."));
        return;
    }
    paintColumnNames(painter);
    for (std::size_t k = 0; k < rows_.size(); ++k) {
        paintRowName(painter, k);
        for (std::size_t j = 0; j < columns_.size(); ++j) paintCell(painter, {k, j});
    }
}

void Matrix::paintColumnNames(QPainter &painter) const {
    const auto &c = theme_.colors();
    const RadioReport &report = *document_.analysis().derived.radio;
    const Build &build = document_.build();
    painter.setFont(theme_.text(12, true));
    for (std::size_t k = 0; k < columns_.size(); ++k) {
        const Listener &column = report.columns[columns_[k]];
        QString name, sub;
        if (column.compass >= 0) {
            name = tr("compass");
        } else {
            const RadioUse &radio = report.radios[std::size_t(column.radio)];
            name = radio.kind == PartKind::gps
                       ? tr("GPS %1").arg(QString::fromStdString(satelliteWords(radio.low_MHz, radio.high_MHz)))
                       : QString::fromStdString(withinSentence(displayName(build, radio.part)));
        }
        const QFontMetrics metrics(painter.font());
        painter.setPen(c.chalk);
        const QRectF box(rectOf({0, k}).left(), 26, cellWidth_, 18);
        painter.drawText(box, Qt::AlignCenter, metrics.elidedText(name, Qt::ElideRight, int(cellWidth_)));
    }
}

void Matrix::paintRowName(QPainter &painter, std::size_t k) const {
    const RadioReport &report = *document_.analysis().derived.radio;
    const Build &build = document_.build();
    const Disturber &row = report.rows[rows_[k]];
    const QString name = row.kind == DisturberKind::currents
                             ? tr("currents in wires")
                             : (row.kind == DisturberKind::magnet  ? tr("%1, magnet")
                                : row.kind == DisturberKind::noise ? tr("%1, noise")
                                                                   : QStringLiteral("%1"))
                                   .arg(QString::fromStdString(withinSentence(displayName(
                                       build, row.radio >= 0 ? report.radios[std::size_t(row.radio)].part : row.id))));
    painter.setFont(theme_.text(12));
    const QFontMetrics metrics(painter.font());
    painter.setPen(theme_.colors().chalk);
    painter.drawText(QRectF(12, rectOf({k, 0}).top(), kLeft - 20, kRow), Qt::AlignVCenter,
                     metrics.elidedText(name, Qt::ElideRight, int(kLeft) - 20));
}

void Matrix::paintCell(QPainter &painter, const Index &index) const {
    const auto &c = theme_.colors();
    const RadioReport &report = *document_.analysis().derived.radio;
    const Disturber &row = report.rows[rows_[index.row]];
    const RadioCell &cell = report.cell(rows_[index.row], columns_[index.column]);
    const QRectF box = rectOf(index);
    const Listener &column = report.columns[columns_[index.column]];
    if (!cell.counts) {
        painter.setPen(c.matFaint);
        painter.setFont(theme_.text(theme::kSmallPixels));
        painter.setPen(cell.own ? c.softChalk : c.matGridStrong);
        painter.drawText(box, Qt::AlignCenter, cell.own ? tr("own link") : QStringLiteral("·"));
        return;
    }
    const Severity severity = cellSeverity(cell, column.compass >= 0, document_.analysis().practice);
    const bool chosen = document_.radioPair().from == QString::fromStdString(row.id) &&
                        document_.radioPair().to == QString::fromStdString(column.id);
    painter.setPen(QPen(chosen ? QColor(Qt::white) : c.matGridStrong, chosen ? 2 : 1));
    painter.setBrush(c.matBar);
    painter.drawRoundedRect(box, theme::kCorner, theme::kCorner);
    const QStringList lines = linesOf(rows_[index.row], columns_[index.column]);
    painter.setFont(theme_.numbers(theme::kSmallPixels));
    painter.setPen(c.chalk);
    painter.drawText(box.adjusted(7, 3, 0, -20), Qt::AlignVCenter, lines.value(0));
    painter.setPen(c.softChalk);
    painter.drawText(box.adjusted(7, 20, 0, -3), Qt::AlignVCenter, lines.value(1));
    const bool marked = severity != Severity::pass;
    painter.setFont(theme_.numbers(12));
    painter.setPen(marked ? theme::severityOnMat(severity) : c.chalk);
    painter.drawText(box.adjusted(0, 0, marked ? -24 : -8, 0), Qt::AlignRight | Qt::AlignVCenter, lines.value(2));
    if (marked)
        theme::drawSeverityMark(painter, QPointF(box.right() - 13, box.center().y()), 5.5, severity,
                                theme::severityOnMat(severity));
}

void Matrix::mousePressEvent(QMouseEvent *event) {
    if (const auto index = at(event->position())) choose(*index);
}

void Matrix::keyPressEvent(QKeyEvent *event) {
    const int down = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    const int right = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if ((down == 0 && right == 0) || rows_.empty() || columns_.empty()) return QWidget::keyPressEvent(event);
    const RadioReport &report = *document_.analysis().derived.radio;
    int row = -1, column = -1;
    for (std::size_t r = 0; r < rows_.size(); ++r)
        for (std::size_t k = 0; k < columns_.size(); ++k)
            if (report.rows[rows_[r]].id == document_.radioPair().from.toStdString() &&
                report.columns[columns_[k]].id == document_.radioPair().to.toStdString()) {
                row = int(r);
                column = int(k);
            }
    // On to the next cell in that direction that says something.
    const int rows = int(rows_.size()), columns = int(columns_.size());
    if (row < 0) row = down < 0 ? rows : down > 0 ? -1 : 0;
    if (column < 0) column = right < 0 ? columns : right > 0 ? -1 : 0;
    for (int step = 1; step <= std::max(rows, columns); ++step) {
        const int r = row + step * down, k = column + step * right;
        if (r < 0 || r >= rows || k < 0 || k >= columns) return;
        if (!report.cell(rows_[std::size_t(r)], columns_[std::size_t(k)]).counts) continue;
        choose({std::size_t(r), std::size_t(k)});
        return;
    }
}

QString Matrix::tipAt(const QPointF &point) const {
    const auto index = at(point);
    const RadioReport &report = *document_.analysis().derived.radio;
    if (!index || !report.cell(rows_[index->row], columns_[index->column]).counts) return {};
    const RadioCell &cell = report.cell(rows_[index->row], columns_[index->column]);
    if (cell.coupling)
        return tr("The noise floor rises by %1 dB; %2 dB to overload.\nMargin: to a rise of %3 dB, or to the reserve "
                  "before "
                  "overload, whichever is less.")
            .arg(cell.rise_dB, 0, 'f', 1)
            .arg(cell.blockingMargin_dB, 0, 'f', 0)
            .arg(document_.analysis().practice[Limit::desenseWatch], 0, 'f', 0);
    if (report.columns[columns_[index->column]].compass >= 0)
        return tr("Level field at the compass, and how far it turns the heading at worst");
    return tr("Nearest distance; builders keep %1 mm").arg(cell.practice_mm.value_or(0), 0, 'f', 0);
}

bool Matrix::event(QEvent *event) {
    if (theme::showTip(event, this, [this](const QPointF &at) { return tipAt(at); })) return true;
    return QWidget::event(event);
}

} // namespace waxis::radio
