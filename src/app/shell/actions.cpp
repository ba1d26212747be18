#include "app/shell/actions.h"

#include <QWidget>

namespace waxis::app {

ActionTable::ActionTable(std::vector<ActionSpec> specs, QWidget *owner) : QObject(owner), specs_(std::move(specs)) {
    for (const auto &spec : specs_) {
        auto *action = new QAction(spec.text, owner);
        action->setObjectName(spec.id);
        action->setShortcut(spec.key);
        connect(action, &QAction::triggered, this, [run = spec.run] { run(); });
        owner->addAction(action);
        actions_[spec.id] = action;
    }
    refresh();
}

QAction *ActionTable::action(const QString &id) const { return actions_.at(id); }

void ActionTable::refresh() {
    for (const auto &spec : specs_) actions_.at(spec.id)->setEnabled(!spec.enabled || spec.enabled());
}

} // namespace waxis::app
