// The plan that the pages of the Build stage share, worked out in the background.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "core/sequence/plan.h"
#include "core/sequence/sweep_memory.h"

#include <QObject>
#include <memory>

namespace waxis::assembly {

class PlanSource : public QObject {
    Q_OBJECT

public:
    explicit PlanSource(app::Document &document, QObject *parent = nullptr);

    /// Of the load case in force, as far as it is known; of an earlier build while `isStale()`. Empty: none yet.
    const AssemblyPlan &plan() const { return plan_; }
    bool isStale() const { return stale_; }
    /// Nothing is being worked out.
    bool isSettled() const { return !wanted_ || (working_.isSettled() && !stale_); }
    /// Hidden pages ask for nothing.
    void setWanted(bool wanted);
    /// The step that an operation, thing or wire belongs to; -1: none.
    int stepOf(const std::string &id) const;

signals:
    void changed();

private:
    void follow();
    app::Background<AssemblyPlan>::Work prepare();

    app::Document &document_;
    AssemblyPlan plan_;
    Build of_; ///< what the plan was made of
    int case_ = -1;
    bool stale_ = true, wanted_ = false;
    std::shared_ptr<SweepMemory> memory_; ///< a move asks only for what has to do with it
    app::Background<AssemblyPlan> working_;
};

} // namespace waxis::assembly
