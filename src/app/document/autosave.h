// Unsaved work is kept in the XDG state folder while it is being done, and offered again after a crash.
#pragma once

#include "app/document/document.h"

#include <QDateTime>
#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

namespace waxis::app {

struct Recovery {
    QString file;     ///< the kept copy
    QString original; ///< path of the build it belongs to; empty: never saved
    QString name;
    QDateTime when;
    FileStamp stamp; ///< of the original when the work on it began
};

struct AutosavePace {
    int pause_ms = 3000;   ///< after the last change
    int latest_ms = 10000; ///< after the first change that the copy lacks
    int again_ms = 30000;  ///< after it could not be written
};

class Autosave : public QObject {
    Q_OBJECT

public:
    Autosave(Document &document, QString folder, AutosavePace pace = {}, QObject *parent = nullptr);
    ~Autosave() override;

    /// Copies left behind by programs that did not end as they should, newest first.
    std::vector<Recovery> leftBehind() const;
    static void discard(const Recovery &recovery);
    /// Opens the copy; it counts as not saved. False with the reason when it cannot be read.
    bool recover(const Recovery &recovery, QString &reason);

    /// Writes what is not saved; false when it could not be kept.
    bool writeNow();
    void clear();

    static QString standardFolder();

signals:
    void failed(const QString &reason); ///< unsaved work is not kept, from now on
    void keepsAgain();                  ///< it is again

private:
    void schedule();

    Document &document_;
    QString folder_, own_;
    AutosavePace pace_;
    QTimer timer_;
    QElapsedTimer waiting_; ///< since the first change that is not kept
    bool failing_ = false;
};

} // namespace waxis::app
