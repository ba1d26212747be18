// The build as a whole: its name and notes, its load cases with kind, pack and folded arms, and what is aboard in each.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>

class QComboBox;
class QLineEdit;
class QPlainTextEdit;
class QPushButton;
class QTableWidget;

namespace waxis::app {

class BuildSheet : public QWidget {
    Q_OBJECT

public:
    BuildSheet(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

signals:
    void finished(); ///< back to the bench

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();
    void refreshCases();
    QComboBox *usbBox(const LoadCase &loadCase, const QString &name);
    QPushButton *offButton(const LoadCase &loadCase, const QString &name);
    void refreshAboard();
    QString chosenCase() const;

    Document &document_;
    const theme::Theme &theme_;
    bool filling_ = false;
    QLineEdit *name_ = nullptr;
    QPlainTextEdit *note_ = nullptr;
    QTableWidget *cases_ = nullptr, *aboard_ = nullptr;
    QPushButton *remove_ = nullptr, *show_ = nullptr;
    QComboBox *more_ = nullptr;
};

} // namespace waxis::app
