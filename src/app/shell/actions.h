// Everything the menus can do, as a table.
#pragma once

#include <QAction>
#include <QKeySequence>
#include <functional>
#include <map>
#include <vector>

namespace waxis::app {

enum class Menu { file, edit, part, arrange, view, check, help };

struct ActionSpec {
    QString id;
    Menu menu;
    QString text;
    QKeySequence key;
    std::function<bool()> enabled; ///< empty: always
    std::function<void()> run;
    bool separatorBefore = false;
};

/// Makes one QAction per row and keeps them enabled or not.
class ActionTable : public QObject {
    Q_OBJECT

public:
    ActionTable(std::vector<ActionSpec> specs, QWidget *owner);
    QAction *action(const QString &id) const;
    const std::vector<ActionSpec> &specs() const { return specs_; }
    void refresh();

private:
    std::vector<ActionSpec> specs_;
    std::map<QString, QAction *> actions_;
};

} // namespace waxis::app
