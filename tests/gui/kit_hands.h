// What a person does at the Kit stage: a cell found and typed into, a list opened.
#pragma once

#include "app/stages/kit/kit_bench.h"
#include "gui/window_fixture.h"

#include <QFile>
#include <QLineEdit>
#include <QTableWidget>

namespace waxis::test {

inline QModelIndex cell(kit::KitBench &bench, const char *item, int column) {
    return bench.model().index(bench.model().rowOf(item), column);
}

/// Types into a cell as a person does.
inline void type(kit::KitBench &bench, const QModelIndex &index, const QString &text) {
    bench.table().setCurrentIndex(index);
    bench.table().edit(index);
    QLineEdit *editor = nullptr; // one that was closed may still be there
    for (auto *candidate : bench.table().findChildren<QLineEdit *>())
        if (candidate->isVisible()) editor = candidate;
    QVERIFY(editor);
    editor->selectAll();
    QTest::keyClicks(editor, text);
    QTest::keyClick(editor, Qt::Key_Return);
    QApplication::processEvents(); // the table takes the text over when the key is done
}

/// Opens a list of those bytes for looking over.
inline kit::ListPage &readList(WindowFixture &f, const QByteArray &bytes) {
    QFile csv(f.folder.filePath("list.csv"));
    if (csv.open(QIODevice::WriteOnly)) csv.write(bytes);
    csv.close();
    f.window->setStage(Stage::kit);
    f.window->kitBench().readList(csv.fileName());
    return f.window->kitBench().listPage();
}

} // namespace waxis::test
