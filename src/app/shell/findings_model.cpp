#include "app/shell/findings_panel.h"
#include "app/widgets/texts.h"

#include <algorithm>

namespace waxis::app {

FindingsModel::FindingsModel(Document &document, QObject *parent)
    : QAbstractListModel(parent), document_(document), cures_(document) {
    connect(&document_, &Document::changed, this, &FindingsModel::refresh);
    connect(&document_, &Document::judged, this, &FindingsModel::refresh);
    connect(&document_, &Document::selectionChanged, this, &FindingsModel::refresh); // its own come first
    connect(&cures_, &CureRunner::tried, this, [this] {
        if (rowCount() == 0) return;
        emit layoutAboutToBeChanged(); // rows grow by what is offered
        emit layoutChanged();
    });
    refresh();
}

int FindingsModel::rowCount(const QModelIndex &parent) const { return parent.isValid() ? 0 : int(shown_.size()); }

const Finding &FindingsModel::finding(int row) const { return shown_[std::size_t(row)]; }

QVariant FindingsModel::data(const QModelIndex &index, int role) const {
    if (!index.isValid()) return {};
    const auto text = wordFinding(document_.build(), finding(index.row()));
    if (role == Qt::DisplayRole || role == Qt::AccessibleTextRole) return say(text.headline);
    if (role == Qt::AccessibleDescriptionRole || role == Qt::ToolTipRole) return say(text.detail);
    return {};
}

int FindingsModel::rowOf(const std::string &key) const {
    for (int row = 0; row < rowCount(); ++row)
        if (finding(row).key() == key) return row;
    return -1;
}

std::vector<std::string> FindingsModel::keysByWorth() const {
    std::vector<std::string> keys;
    for (const auto &finding : document_.analysis().findings)
        if (!stage_ || ruleOf(finding.rule).stage == *stage_) keys.push_back(finding.key());
    return keys;
}

void FindingsModel::setStage(std::optional<Stage> stage) {
    stage_ = stage;
    refresh();
}

void FindingsModel::toggleOpened(const QString &key) {
    openedKey_ = key == openedKey_ ? QString() : key;
    emit layoutChanged();
}

void FindingsModel::tellWhole(const QString &key) {
    if (key == toldKey_) return;
    toldKey_ = key;
    emit layoutChanged();
}

void FindingsModel::refresh() {
    std::vector<Finding> next;
    for (const auto &finding : document_.analysis().findings)
        if (!stage_ || ruleOf(finding.rule).stage == *stage_) next.push_back(finding);
    const std::string chosen = document_.selected().toStdString(); // a part, a wire, a plate
    if (!chosen.empty())
        std::stable_partition(next.begin(), next.end(), [&](const Finding &f) {
            return std::find(f.subjects.begin(), f.subjects.end(), chosen) != f.subjects.end();
        });
    // While a part is dragged the same findings mostly keep their places: only their numbers change.
    bool sameRows = next.size() == shown_.size();
    for (std::size_t i = 0; sameRows && i < next.size(); ++i)
        sameRows = next[i].rule == shown_[i].rule && next[i].subjects == shown_[i].subjects &&
                   next[i].variant == shown_[i].variant && next[i].loadCase == shown_[i].loadCase &&
                   next[i].accepted() == shown_[i].accepted() && next[i].severity == shown_[i].severity;
    if (sameRows) {
        std::swap(shown_, next);
        for (int row = 0; row < rowCount(); ++row) {
            const auto &before = next[std::size_t(row)], &now = shown_[std::size_t(row)];
            if (before.measured != now.measured || before.margin != now.margin || before.limit != now.limit)
                emit dataChanged(index(row), index(row));
        }
        return;
    }
    beginResetModel();
    shown_ = std::move(next);
    endResetModel();
}

} // namespace waxis::app
