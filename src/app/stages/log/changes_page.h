// Named states of the build: kept, compared, gone back to.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"
#include "core/studies/state_difference.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPushButton;

namespace waxis::logbench {

class ChangesPage : public QWidget {
    Q_OBJECT

public:
    ChangesPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    theme::MatTable &table() { return *table_; }
    bool isSettled() const { return working_.isSettled(); }
    /// Keeps the build as it is under a name; asks for it where none is given.
    void keep(const QString &name = {});
    void goBack();

signals:
    void said(const QString &text, bool bad);

protected:
    void showEvent(QShowEvent *event) override;

private:
    struct Compared {
        Build before, after;
        StateDifference difference;
    };
    std::optional<Build> stateOf(const QString &id) const;
    void fill();
    void show(const Compared &compared);

    app::Document &document_;
    const theme::Theme &theme_;
    QComboBox *from_ = nullptr, *to_ = nullptr;
    QPushButton *back_ = nullptr, *remove_ = nullptr;
    QLabel *summary_ = nullptr;
    theme::MatTable *table_ = nullptr;
    app::Background<Compared> working_;
};

} // namespace waxis::logbench
