// Left of the Log bench: sessions by date, and the instruments.
#pragma once

#include "app/document/document.h"
#include "app/document/instruments.h"
#include "app/theme/theme.h"

#include <QWidget>

class QListWidget;

namespace waxis::logbench {

/// "2026-05-14T10:20:00+02:00" of now.
std::string timeNow();
/// "14 May" or "14 May 2025".
QString dayOf(const std::string &at);

class SessionColumn : public QWidget {
    Q_OBJECT

public:
    SessionColumn(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
                  QWidget *parent = nullptr);
    /// The chosen one; empty: there is none.
    std::string session() const;
    void choose(const std::string &id);
    /// Begins one now, with the place of the last.
    void begin();
    QListWidget &list() { return *list_; }

signals:
    void chosen();

private:
    void fill();

    app::Document &document_;
    QListWidget *list_ = nullptr;
};

} // namespace waxis::logbench
