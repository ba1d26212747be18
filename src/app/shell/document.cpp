#include "app/shell/document.h"

#include <QDateTime>
#include <QFileInfo>
#include <QUndoCommand>
#include <functional>

namespace waxis::app {

namespace {

/// Undo is a list of values: each command holds the build before and after.
class BuildCommand : public QUndoCommand {
public:
    using Put = std::function<void(const Build &)>;
    BuildCommand(const QString &name, Build before, Build after, QString mergeKey, Put put)
        : QUndoCommand(name), before_(std::move(before)), after_(std::move(after)), mergeKey_(std::move(mergeKey)),
          put_(std::move(put)), when_ms_(QDateTime::currentMSecsSinceEpoch()) {}

    void undo() override { put_(before_); }
    void redo() override { put_(after_); }
    int id() const override { return mergeKey_.isEmpty() ? -1 : 1; }
    bool mergeWith(const QUndoCommand *next) override {
        constexpr qint64 kQuick_ms = 900;
        const auto *other = static_cast<const BuildCommand *>(next);
        if (other->mergeKey_ != mergeKey_ || other->when_ms_ - when_ms_ > kQuick_ms) return false;
        after_ = other->after_;
        when_ms_ = other->when_ms_;
        return true;
    }

private:
    Build before_, after_;
    QString mergeKey_;
    Put put_;
    qint64 when_ms_;
};

} // namespace

Document::Document(QObject *parent) : QObject(parent) {
    shown_.name = kept_.name = tr("New build").toStdString();
    analyser_.update(shown_);
    connect(&history_, &QUndoStack::cleanChanged, this, &Document::stateChanged);
}

QString Document::title() const { return QString::fromStdString(shown_.name); }

bool Document::open(const QString &path, LoadError &error, std::vector<LoadWarning> &warnings) {
    auto loaded = loadBuild(path.toStdString());
    if (!loaded) {
        error = loaded.error();
        return false;
    }
    warnings = loaded->warnings;
    show(std::move(*loaded), path);
    return true;
}

void Document::show(LoadedBuild loaded, const QString &path, bool recovered) {
    previewing_ = false;
    history_.clear();
    recovered_ = recovered;
    keys_ = loaded.kept;
    stamp_ = recovered ? std::nullopt : std::optional(loaded.stamp);
    path_ = path.isEmpty() ? QString() : QFileInfo(path).absoluteFilePath();
    kept_ = shown_ = std::move(loaded.build);
    analyser_.update(shown_);
    selected_.clear();
    highlighted_.clear();
    loadCase_ = 0;
    emit opened();
    emit selectionChanged();
    emit loadCaseChanged();
    emit changed();
    emit stateChanged();
}

bool Document::save(const QString &path, SaveError &error, bool overwriteChanges) {
    const QString target = QFileInfo(path).absoluteFilePath();
    const bool sameFile = target == path_;
    const auto saved = saveBuild(target.toStdString(), kept_, keys_,
                                 sameFile && !overwriteChanges ? stamp_ : std::optional<FileStamp>{});
    if (!saved) {
        error = saved.error();
        return false;
    }
    stamp_ = *saved;
    path_ = target;
    recovered_ = false;
    history_.setClean();
    emit stateChanged();
    return true;
}

void Document::put(const Build &build) {
    kept_ = shown_ = build;
    previewing_ = false;
    analyser_.update(shown_);
    if (!selected_.isEmpty()) {
        const auto ids = allIds(shown_);
        if (std::find(ids.begin(), ids.end(), selected_.toStdString()) == ids.end()) select({});
    }
    emit changed();
}

bool Document::edit(const QString &name, const EditResult &result, const QString &mergeKey) {
    if (!result) {
        cancelPreview();
        emit refused(QString::fromStdString(result.error().message));
        return false;
    }
    if (*result == kept_) {
        cancelPreview();
        return true;
    }
    history_.push(new BuildCommand(name, kept_, *result, mergeKey, [this](const Build &build) { put(build); }));
    return true;
}

void Document::preview(const EditResult &result) {
    if (!result) return;
    previewing_ = true;
    shown_ = *result;
    analyser_.update(shown_);
    emit changed();
}

void Document::commitPreview(const QString &name) {
    if (!previewing_) return;
    const Build wanted = shown_;
    edit(name, EditResult(wanted));
}

void Document::cancelPreview() {
    if (!previewing_) return;
    previewing_ = false;
    shown_ = kept_;
    analyser_.update(shown_);
    emit changed();
}

void Document::select(const QString &id) {
    if (id == selected_) return;
    selected_ = id;
    emit selectionChanged();
}

void Document::highlight(const QStringList &ids) {
    if (ids == highlighted_) return;
    highlighted_ = ids;
    emit highlightChanged();
}

void Document::setLoadCase(int index) {
    if (index == loadCase_ || index < 0 || index >= int(analysis().derived.loadCases.size())) return;
    loadCase_ = index;
    emit loadCaseChanged();
    emit changed();
}

const CaseBalance *Document::balance() const {
    const auto &all = analysis().derived.balance;
    return loadCase_ < int(all.size()) ? &all[std::size_t(loadCase_)] : all.empty() ? nullptr : &all.front();
}

bool Document::isAboardNow(const Part &part) const {
    const auto *now = balance();
    return !now || isAboard(part, now->loadCase);
}

} // namespace waxis::app
