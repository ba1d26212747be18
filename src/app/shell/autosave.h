// Unsaved work is kept in the XDG state folder while it is being done, and offered again after a crash.
#pragma once

#include "app/shell/document.h"

#include <QDateTime>
#include <QObject>
#include <QTimer>

namespace waxis::app {

struct Recovery {
    QString file;     ///< the kept copy
    QString original; ///< path of the build it belongs to; empty: never saved
    QString name;
    QDateTime when;
};

class Autosave : public QObject {
    Q_OBJECT

public:
    Autosave(Document &document, QString folder, QObject *parent = nullptr);
    ~Autosave() override;

    /// Copies left behind by programs that did not end as they should, newest first.
    std::vector<Recovery> leftBehind() const;
    static void discard(const Recovery &recovery);
    /// Opens the copy; it counts as not saved. False with the reason when it cannot be read.
    bool recover(const Recovery &recovery, QString &reason);

    void writeNow();
    void clear();

    static QString standardFolder();

private:
    Document &document_;
    QString folder_, own_;
    QTimer timer_;
};

} // namespace waxis::app
