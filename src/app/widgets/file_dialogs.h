// Where from and where to: each kind of file keeps a folder of its own, and none is the program's.
#pragma once

#include <QString>
#include <optional>
#include <string>

class QWidget;

namespace waxis::app {

/// `kind` is a file dialog's filter, as "Drawings (*.dxf)"; its first ending says which folder is remembered. Empty:
/// not at all.
QString askOpenPath(QWidget *parent, const QString &title, const QString &kind);

/// Asks where to write; `proposal` is a path, or a name for the folder of the kind. The kind's first ending is added
/// where none was typed, before the question whether a file that is there shall be replaced. Empty: not at all.
QString askSavePath(QWidget *parent, const QString &title, const QString &proposal, const QString &kind);

struct SaveOutcome {
    QString path, said;
    bool bad = false;
};

/// Asks where, writes, and says what came of it: lists, sheets, decks. None when the person thought better of it.
std::optional<SaveOutcome> saveTextAsking(QWidget *parent, const QString &title, const QString &proposal,
                                          const QString &kind, const std::string &text);

} // namespace waxis::app
