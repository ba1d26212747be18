// The part library beside the mat: find a part, see what fits here and why the rest does not, seat it or drag it.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/base/sentence.h"
#include "core/placing/perch.h"

#include <QTreeWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QToolButton;

namespace waxis::place {

struct TypeColumn;

/// What a dragged part type carries: its id.
inline constexpr const char *kTypeMime = "application/x-weightaxis-part-type";

class TypeList : public QTreeWidget {
    Q_OBJECT

public:
    using QTreeWidget::QTreeWidget;
    /// The types shown, best first.
    QStringList types() const;
    int count() const { return int(types().size()); }
    /// Chooses a type's row; false when it is not shown.
    bool choose(const QString &type);

protected:
    QStringList mimeTypes() const override { return {kTypeMime}; }
    QMimeData *mimeData(const QList<QTreeWidgetItem *> &items) const override;
};

class LibraryDrawer : public QWidget {
    Q_OBJECT

public:
    LibraryDrawer(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    TypeList &list() { return *list_; }
    QLineEdit &words() { return *words_; }
    QListWidget &places() { return *places_; }
    /// `best`: the first of the list is chosen; else the choice stays where it is still listed.
    void refresh(bool best = false);
    bool hasKeyboard() const { return focusWidget() && focusWidget()->hasFocus(); }
    /// Only types of the kind of this part, those that fit its place first, and it is what the button replaces.
    void replace(const QString &part);

    /// The chosen type, and where it would go: the places of the marked row.
    QString chosenType() const;
    std::vector<Perch> chosenPlaces() const;

signals:
    void chosen(const QString &type); ///< nothing holds it here: it is laid on the mat
    void seatWanted(const QString &type, const std::vector<waxis::Perch> &places);
    /// `all`: every part of that part's type.
    void replaceWanted(const QString &part, const QString &type, bool all);
    void looked();                        ///< another type or place is chosen in the lists
    void likeWanted(const QString &type); ///< a part of one's own like this one
    void ownWanted();                     ///< a part of one's own from nothing

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    struct Row {
        const PartType *type;
        std::optional<Sentence> why; ///< it does not fit
        bool own;                    ///< one of the user's
    };
    std::vector<Row> rowsOf(const TypeTable &all) const; ///< what is shown, in order
    void addRow(const Row &row, const std::vector<TypeColumn> &columns);
    void sizeColumns();
    void fillPlaces();
    void act();
    void showMenu(const QPoint &at);
    const PartType *typeNamed(const QString &id) const;

    app::Document &document_;
    const theme::Theme &theme_;
    QLineEdit *words_ = nullptr;
    QLabel *count_ = nullptr;
    QComboBox *family_ = nullptr;
    QToolButton *fits_ = nullptr, *mine_ = nullptr, *only_ = nullptr;
    TypeList *list_ = nullptr;
    QLabel *placesTitle_ = nullptr;
    QListWidget *places_ = nullptr;
    QPushButton *seat_ = nullptr, *all_ = nullptr, *like_ = nullptr, *own_ = nullptr;
    QString replaces_;                        ///< id of the part that is to be replaced
    std::vector<std::vector<Perch>> offered_; ///< by the rows of `places_`
};

} // namespace waxis::place
