// The part library beside the mat: search, filter, and drag what is wanted onto the drawing.
#pragma once

#include "app/shell/document.h"
#include "app/theme/theme.h"

#include <QListWidget>

class QComboBox;
class QLineEdit;

namespace waxis::place {

/// What a dragged part type carries: its id.
inline constexpr const char *kTypeMime = "application/x-weightaxis-part-type";

class TypeList : public QListWidget {
    Q_OBJECT

public:
    using QListWidget::QListWidget;

protected:
    QStringList mimeTypes() const override { return {kTypeMime}; }
    QMimeData *mimeData(const QList<QListWidgetItem *> &items) const override;
};

class LibraryDrawer : public QWidget {
    Q_OBJECT

public:
    LibraryDrawer(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    QListWidget &list() { return *list_; }
    QLineEdit &words() { return *words_; }
    void refresh();

signals:
    void chosen(const QString &type); ///< double click or Enter

private:
    app::Document &document_;
    const theme::Theme &theme_;
    QLineEdit *words_ = nullptr;
    QComboBox *family_ = nullptr;
    TypeList *list_ = nullptr;
};

} // namespace waxis::place
