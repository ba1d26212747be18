#include "app/document/document.h"

#include "core/derived/all_up.h"

#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/build/folding.h"
#include "core/build/log.h"
#include "io/file_bytes.h"

#include <QFileInfo>
#include <QUndoCommand>
#include <QVariantAnimation>
#include <algorithm>
#include <chrono>
#include <functional>

namespace waxis::app {

namespace {

/// A clock that nobody sets back.
qint64 now_ms() {
    return std::chrono::duration_cast<std::chrono::milliseconds>(std::chrono::steady_clock::now().time_since_epoch())
        .count();
}

/// Undo is a list of values: each command holds the build before and after.
class BuildCommand : public QUndoCommand {
public:
    using Put = std::function<void(const Build &)>;
    BuildCommand(const QString &name, Build before, Build after, QString mergeKey, Put put)
        : QUndoCommand(name), before_(std::move(before)), after_(std::move(after)), mergeKey_(std::move(mergeKey)),
          put_(std::move(put)), when_ms_(now_ms()) {}

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

// Lattice points that leading wires may look at. When a build is opened: all wires of a crowded craft, a quarter of a
// second. An edit has less, since it is one of many: what exceeds it comes in behind.
constexpr std::size_t kVisitsAtFirst = 120'000, kVisitsOfAnEdit = 40'000;

} // namespace

Document::Document(QObject *parent) : QObject(parent) {
    shown_.name = kept_.name = tr("New build").toStdString();
    analyseAnew();
    connect(&history_, &QUndoStack::cleanChanged, this, &Document::stateChanged);
    folding_ = new QVariantAnimation(this);
    constexpr int kFolding_ms = 450;
    folding_->setDuration(kFolding_ms);
    folding_->setEasingCurve(QEasingCurve::InOutQuad);
    connect(folding_, &QVariantAnimation::valueChanged, this, [this](const QVariant &share) {
        foldTo(share.toDouble());
        emit redrawn();
    });
}

Document::~Document() {
    history_.disconnect(); // it tells of being emptied as it goes, when what there is to look at is half gone
}

void Document::analyseAnew() {
    analyser_ = Analyser(); // nothing of the build before takes part, nor its memory
    analyser_.setRouteBudget(kVisitsAtFirst);
    analyse();
    analyser_.setRouteBudget(kVisitsOfAnEdit);
}

void Document::analyse() {
    analyser_.setHurry(previewing_);
    analyser_.update(shown_);
    if (folded_ > 0) foldTo(folded_);
}

void Document::foldTo(double share) {
    folded_ = share;
    drawn_ = share > 0 ? foldedBuild(shown_, share) : Build{};
    if (share <= 0 || share >= 1) return;
    // Leading every wire anew at each step would stutter: on the way they are weights where they were.
    Build light = drawn_;
    light.wires.clear();
    for (auto &weight : wiresAsWeights(analysis().derived, std::size_t(loadCase_)))
        light.allowances.push_back(std::move(weight));
    onTheWay_.update(light);
}

std::optional<Vec3> Document::drawnCg_mm() const {
    const auto *now = balance();
    if (folded_ > 0 && folded_ < 1) {
        const auto &all = onTheWay_.current().derived.balance;
        if (loadCase_ < int(all.size())) return all[std::size_t(loadCase_)].mass.cg_mm;
    }
    return now ? now->mass.cg_mm : std::nullopt;
}

void Document::setSurvey(std::shared_ptr<const Survey> survey) {
    analyser_.setSurvey(std::move(survey));
    analyse();
    emit judged();
}

void Document::setLedWires(std::shared_ptr<const LedWires> led) {
    analyser_.setLedWires(std::move(led));
    analyse();
    emit judged();
}

QString Document::title() const { return QString::fromStdString(shown_.name); }

bool Document::open(const QString &path, LoadError &error, std::vector<LoadWarning> &warnings) {
    auto loaded = loadBuild(path.toStdString());
    if (!loaded) {
        error = loaded.error();
        return false;
    }
    warnings = loaded->warnings;
    io::removeUnfinished(QFileInfo(path).absoluteFilePath().toStdString());
    show(std::move(*loaded), path);
    return true;
}

void Document::show(LoadedBuild loaded, const QString &path, bool recovered) {
    previewing_ = false;
    history_.clear();
    recovered_ = recovered;
    keys_ = loaded.kept;
    stamp_ = path.isEmpty() ? std::nullopt : std::optional(loaded.stamp);
    path_ = path.isEmpty() ? QString() : QFileInfo(path).absoluteFilePath();
    kept_ = shown_ = std::move(loaded.build);
    selection_.clear();
    highlighted_.clear();
    loadCase_ = 0;
    folding_->stop();
    folded_ = 0;
    analyseAnew();
    if (const auto *now = balance(); now && now->loadCase.folded) foldTo(1);
    emit opened();
    emit selectionChanged();
    emit loadCaseChanged();
    emit changed();
    emit stateChanged();
}

bool Document::save(const QString &path, SaveError &error, bool overwrite) {
    const QString target = QFileInfo(path).absoluteFilePath();
    const bool sameFile = target == path_;
    const auto saved = saveBuild(target.toStdString(), kept_, keys_,
                                 sameFile && !overwrite ? stamp_ : std::optional<FileStamp>{}, overwrite);
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

void Document::forgetPath() {
    path_.clear();
    stamp_.reset();
    emit stateChanged();
}

void Document::put(const Build &build) {
    kept_ = shown_ = build;
    previewing_ = false;
    analyse();
    loadCase_ = std::min(loadCase_, std::max(0, int(analysis().derived.loadCases.size()) - 1)); // the last one went
    dropLostSelection();
    emit changed();
}

/// The build without what was asked about before: a log grows to hundreds of lines, and few edits touch it. What is
/// left out refers to nothing but itself.
static Build asToBeAsked(const Build &next, const Build &kept) {
    Build asked = next;
    if (next.log.sharesWith(kept.log))
        asked.log = SharedValue<Log>();
    else if (next.log->snapshots == kept.log->snapshots)
        asked.log.edit([](Log &log) { log.snapshots.clear(); });
    return asked;
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
    if (const auto fault = whyNotKept(asToBeAsked(*result, kept_))) {
        cancelPreview();
        emit refused(QString::fromStdString(*fault));
        return false;
    }
    history_.push(new BuildCommand(name, kept_, *result, mergeKey, [this](const Build &build) { put(build); }));
    return true;
}

void Document::preview(const EditResult &result) {
    if (!result) return;
    previewing_ = true;
    shown_ = *result;
    analyse();
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
    analyse();
    emit changed();
}

void Document::select(const QString &id) { selectAll(id.isEmpty() ? QStringList() : QStringList{id}); }

void Document::lookAtPair(const RadioPair &pair) {
    if (pair == radioPair_) return;
    QStringList parts;
    for (const auto &id : {pair.from, pair.to}) {
        const QString part = id.section(QLatin1Char('/'), 0, 0); // "gps/1" is a band of "gps"
        if (findPart(shown_, part.toStdString()) && !parts.contains(part)) parts << part;
    }
    selection_ = parts;
    radioPair_ = pair;
    emit selectionChanged();
}

void Document::selectAll(const QStringList &ids) {
    if (ids == selection_ && radioPair_ == RadioPair{}) return;
    selection_ = ids;
    radioPair_ = {};
    emit selectionChanged();
}

void Document::toggleSelected(const QString &id) {
    QStringList next = selection_;
    if (!next.removeOne(id)) next << id;
    next.removeIf(
        [&](const QString &other) { return !findPart(shown_, other.toStdString()); }); // only parts go together
    selectAll(next);
}

std::vector<std::string> Document::selectedParts() const {
    std::vector<std::string> parts;
    for (const auto &id : selection_)
        if (findPart(shown_, id.toStdString())) parts.push_back(id.toStdString());
    return parts;
}

void Document::dropLostSelection() {
    if (selection_.isEmpty()) return;
    const auto ids = allIds(shown_);
    QStringList left = selection_;
    left.removeIf([&](const QString &id) { return std::find(ids.begin(), ids.end(), id.toStdString()) == ids.end(); });
    selectAll(left);
}

void Document::highlight(const QStringList &ids) {
    if (ids == highlighted_) return;
    highlighted_ = ids;
    emit highlightChanged();
}

void Document::setLoadCase(int index) {
    if (index == loadCase_ || index < 0 || index >= int(analysis().derived.loadCases.size())) return;
    loadCase_ = index;
    const double target = balance() && balance()->loadCase.folded ? 1 : 0;
    folding_->stop();
    if (target != folded_ && !foldingArms(shown_).empty()) {
        folding_->setStartValue(folded_);
        folding_->setEndValue(target);
        folding_->start();
    } else {
        foldTo(target);
    }
    emit loadCaseChanged();
    emit changed();
}

const CaseBalance *Document::balance() const {
    const auto &all = analysis().derived.balance;
    return loadCase_ < int(all.size()) ? &all[std::size_t(loadCase_)] : all.empty() ? nullptr : &all.front();
}

const CompoundMass *Document::mass() const {
    const CaseBalance *now = balance();
    return now ? &now->mass : nullptr;
}

const LoadCase *Document::activeCase() const {
    const CaseBalance *now = balance();
    return now ? &now->loadCase : nullptr;
}

std::optional<Vec3> Document::offset_mm() const {
    const CaseBalance *now = balance();
    return now ? now->offset_mm : std::nullopt;
}

bool Document::isAboardNow(const Part &part) const {
    const LoadCase *now = activeCase();
    return !now || isAboard(part, *now);
}

bool Document::isSwitchedOnNow(const Part &part) const {
    const LoadCase *now = activeCase();
    return !now || isSwitchedOn(part, *now);
}

} // namespace waxis::app
