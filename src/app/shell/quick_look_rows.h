// Quick looks at the chosen part: how soft it stands and what that keeps off it, how warm it gets. Rows of the
// inspector; bands, never verdicts.
#pragma once

#include "app/document/document.h"

class QFormLayout;
class QLabel;
class QLineEdit;

namespace waxis::app {

/// What a soft mount does against the propellers' turns; empty for what stands rigid.
QString softInWords(const Document &document, const std::string &id);

class QuickLookRows : public QObject {
    Q_OBJECT

public:
    QuickLookRows(Document &document, QFormLayout &form, QObject *parent);
    void refresh();

private:
    QString warmInWords(const std::string &part) const;
    void applySag();

    Document &document_;
    QFormLayout &form_;
    QLineEdit *sag_ = nullptr;
    QLabel *soft_ = nullptr, *warm_ = nullptr;
};

} // namespace waxis::app
