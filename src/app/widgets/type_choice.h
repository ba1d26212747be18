// Another type for a part: those of its kind, what fits its place first, found by typing.
#pragma once

#include "app/document/document.h"

#include <QComboBox>

namespace waxis::app {

class TypeChoice : public QComboBox {
    Q_OBJECT

public:
    explicit TypeChoice(QWidget *parent = nullptr);
    /// Types of the part's kind, of the build and the libraries: those that fit where it is, one's own before the
    /// others, then the rest with the reason in their tip.
    void offer(const Document &document, const Part &part);

private:
    void putBack(); ///< typed words that are no type
};

} // namespace waxis::app
