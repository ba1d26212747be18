// The open build with its undo history: the one thing that all panels look at.
#pragma once

#include "core/analysis/analysis.h"
#include "core/balance/mass_properties.h"
#include "core/edits/part_edits.h"
#include "io/project/project_file.h"

#include <QObject>
#include <QString>
#include <QUndoStack>
#include <set>

class QVariantAnimation;

namespace waxis::app {

class Document : public QObject {
    Q_OBJECT

public:
    explicit Document(QObject *parent = nullptr);
    ~Document() override;

    const Build &build() const { return shown_; }
    const Analysis &analysis() const { return analyser_.current(); }
    QUndoStack &history() { return history_; }
    bool isModified() const { return !history_.isClean() || recovered_; }
    QString path() const { return path_; }
    QString title() const;
    /// The user's part library and the shipped ones, for adding parts and changing types.
    const TypeTable &library() const { return library_; }
    void setLibrary(TypeTable types, std::set<std::string> own = {}) {
        library_ = std::move(types);
        ownTypes_ = std::move(own);
    }
    /// One more of the user's own, in the place of one of the same id.
    void addOwnType(const PartType &type) {
        library_.insert_or_assign(type.id, type);
        ownTypes_.insert(type.id);
    }
    /// Whether a type of the library is one of the user's own.
    bool isOwnType(const std::string &id) const { return ownTypes_.contains(id); }

    /// What the open file holds beyond what this version knows.
    const KeptKeys &keptKeys() const { return keys_; }
    /// The build as the history has it, without what is only being dragged.
    const Build &keptBuild() const { return kept_; }
    /// Of the file as it was read or written last; none for a build without a file.
    const std::optional<FileStamp> &stamp() const { return stamp_; }

    /// Replaces the open build. A failed load leaves it as it is.
    bool open(const QString &path, LoadError &error, std::vector<LoadWarning> &warnings);
    /// `recovered`: it counts as unsaved; its stamp is that of the file when the work on it began.
    void show(LoadedBuild loaded, const QString &path, bool recovered = false);
    /// The build has no file of its own: saving asks for one.
    void forgetPath();
    /// `overwrite`: also a file that was changed meanwhile, or is read-only.
    bool save(const QString &path, SaveError &error, bool overwrite = false);

    /// One undoable step. An edit that was refused, or whose build could not be opened again once it is saved, changes
    /// nothing and is reported by `refused`.
    /// Steps with the same non-empty `mergeKey` in quick succession become one.
    bool edit(const QString &name, const EditResult &result, const QString &mergeKey = {});

    /// Shows an edit without keeping it, while the mouse is down.
    void preview(const EditResult &result);
    void commitPreview(const QString &name);
    void cancelPreview();
    bool isPreviewing() const { return previewing_; }

    /// What is chosen: parts, or one plate, arm or standoff. The last one chosen leads: the inspector shows it.
    const QStringList &selection() const { return selection_; }
    QString selected() const { return selection_.isEmpty() ? QString() : selection_.last(); }
    void select(const QString &id);
    void selectAll(const QStringList &ids);
    /// Adds a part to what is chosen, or takes it out.
    void toggleSelected(const QString &id);
    const Part *selectedPart() const { return findPart(shown_, selected().toStdString()); }
    /// The chosen parts, in the order of choosing.
    std::vector<std::string> selectedParts() const;

    /// The two that are looked at in Radio: what disturbs and what is disturbed, as ids of the radio report. Choosing
    /// anything else ends it.
    struct RadioPair {
        QString from, to;
        bool operator==(const RadioPair &) const = default;
    };
    const RadioPair &radioPair() const { return radioPair_; }
    /// Also chooses the parts that the two are.
    void lookAtPair(const RadioPair &pair);

    /// Things to light up on the bench while a finding is hovered.
    const QStringList &highlighted() const { return highlighted_; }
    void highlight(const QStringList &ids);

    int loadCase() const { return loadCase_; }
    void setLoadCase(int index);
    /// Balance of the active load case; null only before anything is open.
    const CaseBalance *balance() const;
    // Of it alone, alike null:
    const CompoundMass *mass() const;
    const LoadCase *activeCase() const;
    std::optional<Vec3> offset_mm() const; ///< thrust centre to centre of gravity
    bool isAboardNow(const Part &part) const;
    bool isSwitchedOnNow(const Part &part) const;

    /// A survey taken in the background; findings are judged again by it.
    void setSurvey(std::shared_ptr<const Survey> survey);
    /// Wires led in the background, when they take longer than an edit may.
    void setLedWires(std::shared_ptr<const LedWires> led);
    bool areWiresLed() const { return analysis().derived.wiresPutOff == 0; }
    /// Views, access and folding are known and of the build as it is.
    bool isSurveyed() const { return analysis().derived.survey && !analysis().derived.surveyStale; }

    /// The build as it is drawn: with its arms folded as far as the load case has them, on the way while they move.
    const Build &drawnBuild() const { return folded_ > 0 ? drawn_ : shown_; }
    /// 0 unfolded, 1 folded.
    double foldedShare() const { return folded_; }
    /// Where the centre of gravity is in the drawing; none without masses.
    std::optional<Vec3> drawnCg_mm() const;

signals:
    void changed(); ///< build and analysis, also while previewing
    void judged();  ///< other findings on the same build: a survey came in. Nothing that is being typed is touched
    void redrawn(); ///< the arms fold or unfold: only drawings follow
    void opened();  ///< another build
    void selectionChanged();
    void highlightChanged();
    void loadCaseChanged();
    void stateChanged(); ///< path or modified
    void refused(const QString &reason);

private:
    void put(const Build &build); // the undo commands call it through a function they are given
    void analyse();
    void analyseAnew(); ///< another build
    void dropLostSelection();
    void foldTo(double share);

    Build kept_;  ///< what the history says
    Build shown_; ///< kept_, or the preview
    Analyser analyser_;
    QUndoStack history_;
    KeptKeys keys_;
    std::optional<FileStamp> stamp_;
    TypeTable library_;
    std::set<std::string> ownTypes_;
    QString path_;
    QStringList selection_, highlighted_;
    RadioPair radioPair_;
    int loadCase_ = 0;
    bool previewing_ = false;
    bool recovered_ = false;
    double folded_ = 0;
    Build drawn_;       ///< only while folded_ > 0
    Analyser onTheWay_; ///< balance of drawn_ while the arms move
    QVariantAnimation *folding_ = nullptr;
};

} // namespace waxis::app
