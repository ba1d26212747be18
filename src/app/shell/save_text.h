// Asks where, writes, and says what came of it: lists, sheets, decks.
#pragma once

#include <QString>
#include <optional>
#include <string>

class QWidget;

namespace waxis::app {

struct SaveOutcome {
    QString path, said;
    bool bad = false;
};

/// Asks where to write. The ending of the first kind in the filter ("Builds (*.waxis)") is added where none was typed,
/// before the question whether a file that is there shall be replaced. Empty: not at all.
QString askSavePath(QWidget *parent, const QString &title, const QString &proposal, const QString &kind);

/// None when the person thought better of it. `kind` is a file dialog's filter, as "CSV (*.csv)".
std::optional<SaveOutcome> saveTextAsking(QWidget *parent, const QString &title, const QString &proposal,
                                          const QString &kind, const std::string &text);

} // namespace waxis::app
