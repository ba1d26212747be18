// Links to the ground: what is there, how far it reaches in free space, and what that leaves out.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/base/quantity.h"

#include <QWidget>

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QToolButton;

namespace waxis {
struct RangeReport;
}

namespace waxis::radio {

class GroundPage : public QWidget {
    Q_OBJECT

public:
    GroundPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    QString facts() const;

private:
    const GroundStation *station() const;
    void refresh();
    void fillBoxes();
    /// The sum of one direction of a link.
    QString linkText(const RangeReport &range, const GroundStation &ground) const;
    void change(const QString &name, const std::function<void(GroundStation &)> &how);
    struct Field {
        QLineEdit *edit = nullptr;
        QString unit;
        std::optional<double> (*get)(const GroundStation &);
        void (*set)(GroundStation &, std::optional<double>);
    };
    void addField(const QString &title, const char *name, const QString &unit, Measure measure,
                  std::optional<double> (*get)(const GroundStation &),
                  void (*set)(GroundStation &, std::optional<double>));

    app::Document &document_;
    const theme::Theme &theme_;
    QComboBox *which_ = nullptr, *add_ = nullptr, *polarisation_ = nullptr;
    QToolButton *remove_ = nullptr;
    QLineEdit *name_ = nullptr;
    QWidget *form_ = nullptr;
    QFormLayout *rows_ = nullptr;
    std::vector<Field> fields_;
    QLabel *facts_ = nullptr;
};

} // namespace waxis::radio
