// The practice of the open build: its profile, every limit with where it comes from and who reads it, the schools, and
// what another profile would say.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/studies/compare.h"

#include <QWidget>
#include <map>

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace waxis::app {

class PracticeSheet : public QWidget {
    Q_OBJECT

public:
    PracticeSheet(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// Own profiles in files; empty: asks for the name. False, and said, when it cannot be done.
    bool saveProfile(const QString &path = {});
    bool readProfile(const QString &path = {});
    void compare();
    bool isComparing() const { return !comparing_.isSettled(); }

signals:
    void said(const QString &text, bool bad);
    void finished(); ///< back to the bench

protected:
    void showEvent(QShowEvent *event) override;

private:
    QWidget *makeSchools();
    QWidget *makeComparison();
    void refresh();
    void refreshLimits();
    void refreshReset();
    void cellEdited(int row, int column);
    Background<PracticeComparison>::Work comparison();
    void showComparison(const PracticeComparison &result);

    Document &document_;
    const theme::Theme &theme_;
    bool refreshing_ = false;
    QComboBox *profile_ = nullptr;
    QLabel *forWhom_ = nullptr;
    QTableWidget *limits_ = nullptr;
    QPushButton *reset_ = nullptr;
    struct SchoolRow {
        QComboBox *choice;
        QLabel *reason;
    };
    std::map<std::string, SchoolRow> schools_;
    QComboBox *first_ = nullptr, *second_ = nullptr;
    QLabel *outcome_ = nullptr;
    Background<PracticeComparison> comparing_;
};

} // namespace waxis::app
