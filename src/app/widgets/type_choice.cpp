#include "app/widgets/type_choice.h"

#include "app/widgets/texts.h"
#include "core/placing/fit_here.h"

#include <QAbstractItemView>
#include <QCompleter>
#include <QLineEdit>
#include <algorithm>

namespace waxis::app {

TypeChoice::TypeChoice(QWidget *parent) : QComboBox(parent) {
    setEditable(true);
    setInsertPolicy(QComboBox::NoInsert);
    completer()->setCompletionMode(QCompleter::PopupCompletion);
    completer()->setFilterMode(Qt::MatchContains);
    completer()->setCaseSensitivity(Qt::CaseInsensitive);
    lineEdit()->setAccessibleName(tr("Find a type"));
    connect(lineEdit(), &QLineEdit::editingFinished, this, &TypeChoice::putBack);
}

void TypeChoice::offer(const Document &document, const Part &part) {
    const PartType *own = typeOf(document.build(), part);
    if (!own) return clear();
    struct Row {
        const PartType *type;
        std::optional<Sentence> why;
        bool mine;
    };
    std::vector<Row> rows;
    for (const auto *table : {&*document.build().types, &document.library()})
        for (const auto &entry : *table) {
            const PartType &type = entry.second;
            if (type.kind == own->kind &&
                std::none_of(rows.begin(), rows.end(), [&](const Row &r) { return r.type->id == type.id; }))
                rows.push_back({&type, misfit(document.build(), type, document.library(), part.id),
                                document.isOwnType(entry.first)});
        }
    std::stable_sort(rows.begin(), rows.end(), [](const Row &a, const Row &b) {
        if (bool(a.why) != bool(b.why)) return !a.why;
        if (a.mine != b.mine) return a.mine;
        return a.type->name < b.type->name;
    });
    clear();
    bool parted = false;
    for (const auto &[type, why, mine] : rows) {
        if (why && !parted && count() > 0) insertSeparator(count());
        parted = parted || why;
        addItem(QString::fromStdString(type->name), QString::fromStdString(type->id));
        if (why) setItemData(count() - 1, say(*why), Qt::ToolTipRole);
    }
    setCurrentIndex(findData(QString::fromStdString(part.type)));
    lineEdit()->setCursorPosition(0); // a long name begins at its beginning
    setToolTip(currentText());
}

void TypeChoice::putBack() {
    if (findText(lineEdit()->text()) < 0) setEditText(itemText(currentIndex()));
    lineEdit()->setCursorPosition(0);
}

} // namespace waxis::app
