#include "app/stages/kit/kit_model.h"

#include "app/widgets/typed_number.h"
#include "core/edits/kit_edits.h"
#include "core/kit/kit.h"
#include "io/csv/csv.h"

#include <QLocale>
#include <cmath>

namespace waxis::kit {

namespace {

QString grams(const Measured &mass) { return mass.known() ? QLocale().toString(*mass.value, 'f', 1) : QString(); }

QString sizeText(const std::optional<Vec3> &size) {
    if (!size) return {};
    auto length = [](double mm) { return QLocale().toString(std::round(mm * 10) / 10, 'g', 6); };
    return QStringLiteral("%1 × %2 × %3").arg(length(size->x()), length(size->y()), length(size->z()));
}

std::optional<Vec3> readSize(const QString &text, bool &good) {
    good = true;
    if (text.trimmed().isEmpty()) return std::nullopt;
    QString plain = text;
    plain.replace(QChar(0x00D7), 'x').replace('X', 'x').replace('*', 'x');
    const auto words = plain.split('x');
    Vec3 size = Vec3::Zero();
    good = words.size() == 3;
    for (int i = 0; good && i < 3; ++i) {
        const auto length = app::typedNumber(words[i], Measure::length);
        good = length.has_value();
        if (good) size[i] = *length;
    }
    return good ? std::optional(size) : std::nullopt;
}

} // namespace

KitModel::KitModel(app::Document &document, const theme::Theme &theme, QObject *parent)
    : QAbstractTableModel(parent), document_(document), theme_(theme) {
    connect(&document_, &app::Document::changed, this, [this] {
        if (!document_.isPreviewing()) refresh();
    });
    connect(&theme_, &theme::Theme::changed, this,
            [this] { emit dataChanged(index(0, 0), index(rowCount() - 1, note)); });
    refresh();
}

KitModel::~KitModel() = default;

const KitLine &KitModel::line(int row) const { return lines_[std::size_t(row)]; }

bool KitModel::wanted(const KitLine &line) const {
    if (!words_.isEmpty()) {
        const QString text = QString::fromStdString(line.name + " " + line.item + " " + line.note);
        for (const auto &word : words_.split(' ', Qt::SkipEmptyParts))
            if (!text.contains(word, Qt::CaseInsensitive)) return false;
    }
    switch (show_) {
    case Show::all: return true;
    case Show::missing: return line.missing() > 0;
    case Show::spare: return line.spare() > 0;
    case Show::uncounted: return !line.inHand;
    case Show::unweighed: return line.needed > 0 && !line.weighedMass_g.known();
    case Show::marks: return (line.hasArrow && !line.arrowConfirmed) || (line.hasPins && !line.pinsConfirmed);
    }
    return true;
}

void KitModel::refresh() {
    std::vector<KitLine> lines;
    for (const auto &line : document_.analysis().derived.kit)
        if (wanted(line)) lines.push_back(line);
    // The same rows with other values: the selection and an open editor stay.
    const bool sameRows = lines.size() == lines_.size() &&
                          std::equal(lines.begin(), lines.end(), lines_.begin(),
                                     [](const KitLine &a, const KitLine &b) { return a.item == b.item; });
    if (sameRows) {
        lines_ = std::move(lines);
        if (!lines_.empty()) emit dataChanged(index(0, 0), index(rowCount() - 1, note));
        return;
    }
    beginResetModel();
    lines_ = std::move(lines);
    endResetModel();
}

void KitModel::setShow(Show show) {
    show_ = show;
    refresh();
}

void KitModel::setWords(const QString &words) {
    words_ = words;
    refresh();
}

int KitModel::rowCount(const QModelIndex &parent) const { return parent.isValid() ? 0 : int(lines_.size()); }

int KitModel::rowOf(const QString &item) const {
    for (std::size_t i = 0; i < lines_.size(); ++i)
        if (lines_[i].item == item.toStdString()) return int(i);
    return -1;
}

QVariant KitModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal) return {};
    static const char *const titles[] = {"",
                                         QT_TR_NOOP("Part"),
                                         QT_TR_NOOP("Needed"),
                                         QT_TR_NOOP("In hand"),
                                         QT_TR_NOOP("Listed g"),
                                         QT_TR_NOOP("Weighed g"),
                                         QT_TR_NOOP("Size mm"),
                                         QT_TR_NOOP("Arrow"),
                                         QT_TR_NOOP("Pins"),
                                         QT_TR_NOOP("Note")};
    static const char *const tips[] = {
        QT_TR_NOOP("Ticked off"),
        QT_TR_NOOP("Part or piece of the frame"),
        QT_TR_NOOP("Pieces placed in the build"),
        QT_TR_NOOP("Pieces in the box; empty: not counted yet"),
        QT_TR_NOOP("One piece by the catalogue, or by its shape and material"),
        QT_TR_NOOP("One piece as weighed, 9.8 or 9.8 ± 0.2; it takes the listed weight's place in the balance"),
        QT_TR_NOOP("Over all; as measured when upright, listed when slanted"),
        QT_TR_NOOP("The printed arrow is where the drawing has it"),
        QT_TR_NOOP("The pin order printed beside the plugs is the drawing's"),
        QT_TR_NOOP("What you noticed")};
    if (role == Qt::DisplayRole) return tr(titles[section]);
    if (role == Qt::ToolTipRole) return tr(tips[section]);
    if (role == Qt::TextAlignmentRole)
        return int((section >= needed && section <= size ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter);
    return {};
}

Qt::ItemFlags KitModel::flags(const QModelIndex &index) const {
    Qt::ItemFlags flags = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    const KitLine &row = line(index.row());
    switch (Column(index.column())) {
    case checked: return flags | Qt::ItemIsUserCheckable;
    case arrow: return row.hasArrow ? flags | Qt::ItemIsUserCheckable : flags;
    case pins: return row.hasPins ? flags | Qt::ItemIsUserCheckable : flags;
    case inHand:
    case weighed:
    case size:
    case note: return flags | Qt::ItemIsEditable;
    default: return flags;
    }
}

QVariant KitModel::data(const QModelIndex &index, int role) const {
    const KitLine &row = line(index.row());
    const auto column = Column(index.column());
    const auto check = [&](bool on) { return QVariant(int(on ? Qt::Checked : Qt::Unchecked)); };
    switch (role) {
    case Qt::CheckStateRole:
        if (column == checked) return check(row.checked);
        if (column == arrow && row.hasArrow) return check(row.arrowConfirmed);
        if (column == pins && row.hasPins) return check(row.pinsConfirmed);
        return {};
    case Qt::DisplayRole:
    case Qt::EditRole:
        switch (column) {
        case name: return QString::fromStdString(row.name);
        case needed: return row.needed;
        case inHand:
            if (!row.inHand) return role == Qt::EditRole ? QVariant(QString()) : QVariant(QStringLiteral("–"));
            if (role == Qt::DisplayRole && row.missing() > 0)
                return tr("%1, %2 missing").arg(*row.inHand).arg(row.missing());
            if (role == Qt::DisplayRole && row.spare() > 0) return tr("%1, %2 spare").arg(*row.inHand).arg(row.spare());
            return QString::number(*row.inHand);
        case catalogue: return row.catalogueMass_g.known() ? grams(row.catalogueMass_g) : QStringLiteral("?");
        case weighed:
            if (role == Qt::EditRole && row.weighedMass_g.tolerance)
                return tr("%1 ± %2").arg(*row.weighedMass_g.value).arg(*row.weighedMass_g.tolerance);
            return grams(row.weighedMass_g);
        case size: return sizeText(row.measuredSize_mm ? row.measuredSize_mm : row.catalogueSize_mm);
        case note: return QString::fromStdString(row.note);
        default: return {};
        }
    case Qt::DecorationRole:
        return column == name ? QVariant(theme::swatch(
                                    theme::familyColor(row.kind == KitKind::part ? row.family : Family::structure)))
                              : QVariant();
    case Qt::TextAlignmentRole:
        return int((column >= needed && column <= size ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter);
    case Qt::FontRole:
        if (column == size) {
            QFont font = theme_.numbers(12);
            font.setItalic(!row.measuredSize_mm);
            return font;
        }
        return column >= needed && column <= weighed ? QVariant(theme_.numbers(12)) : QVariant();
    case Qt::ForegroundRole:
        if (column == inHand && row.missing() > 0) return theme_.colors().watch;
        if (column == size && !row.measuredSize_mm) return theme_.colors().muted;
        if (column == catalogue && row.weighedMass_g.known()) return theme_.colors().muted;
        return {};
    case Qt::ToolTipRole:
        if (column == name) return QString::fromStdString(row.item);
        return {};
    case Qt::AccessibleTextRole:
        if (column == checked) return tr("%1 ticked off").arg(QString::fromStdString(row.name));
        return {};
    default: return {};
    }
}

bool KitModel::setData(const QModelIndex &index, const QVariant &value, int role) {
    if (!index.isValid()) return false;
    const KitLine row = line(index.row());
    const QString name_ = QString::fromStdString(row.name);
    const Build &build = document_.build();
    if (role == Qt::CheckStateRole) {
        const bool on = value.toInt() == Qt::Checked;
        switch (Column(index.column())) {
        case checked: return document_.edit(tr("Tick %1").arg(name_), checkKit(build, row.item, on));
        case arrow: return document_.edit(tr("Arrow of %1").arg(name_), confirmArrow(build, row.item, on));
        case pins: return document_.edit(tr("Pins of %1").arg(name_), confirmPins(build, row.item, on));
        default: return false;
        }
    }
    if (role != Qt::EditRole) return false;
    const QString text = value.toString().trimmed();
    double number = 0;
    auto refuse = [&](const QString &why) {
        emit document_.refused(why);
        return false;
    };
    switch (Column(index.column())) {
    case inHand:
        if (text.isEmpty()) return document_.edit(tr("Count %1").arg(name_), countKit(build, row.item, std::nullopt));
        if (!readNumber(text.toStdString(), number) || number != std::floor(number) || number < 0)
            return refuse(tr("\"%1\" is no count of pieces: 0, 1, 2…").arg(text));
        return document_.edit(tr("Count %1").arg(name_), countKit(build, row.item, int(std::min(number, 1e6))));
    case weighed:
        if (text.isEmpty()) return document_.edit(tr("Weigh %1").arg(name_), weighKit(build, row.item, {}));
        if (const auto typed = app::typedWithDoubt(text))
            return document_.edit(tr("Weigh %1").arg(name_),
                                  weighKit(build, row.item, measuredValue(typed->value, typed->doubt)));
        return refuse(tr("\"%1\" is no weight in grams, as 12.5 or 12.5 ± 0.1").arg(text));
    case size: {
        bool good = false;
        const auto wanted_ = readSize(text, good);
        if (!good) return refuse(tr("\"%1\" is no size: three lengths, as 36 × 36 × 7.5").arg(text));
        return document_.edit(tr("Measure %1").arg(name_), measureKit(build, row.item, wanted_));
    }
    case note: return document_.edit(tr("Note on %1").arg(name_), noteKit(build, row.item, text.toStdString()));
    default: return false;
    }
}

QString KitModel::asCsv() const {
    CsvRow header;
    for (int c = name; c < kit::columnCount; ++c)
        header.push_back(headerData(c, Qt::Horizontal).toString().toStdString());
    std::vector<CsvRow> rows;
    for (int r = 0; r < rowCount(); ++r) {
        CsvRow row;
        for (int c = name; c < kit::columnCount; ++c) {
            const auto state = data(index(r, c), Qt::CheckStateRole);
            row.push_back(state.isValid() ? (state.toInt() == Qt::Checked ? "yes" : "no")
                                          : data(index(r, c), Qt::EditRole).toString().toStdString());
        }
        rows.push_back(std::move(row));
    }
    return QString::fromStdString(writeCsv(header, rows));
}

} // namespace waxis::kit
