// A part of one's own in under a minute: the few numbers that matter for its kind, taken with calipers, drawn as they
// are typed; everything else as the model has it.
#pragma once

#include "app/document/document.h"
#include "app/stages/kit/connector_list.h"
#include "app/stages/kit/part_canvas.h"
#include "app/theme/theme.h"
#include "core/catalog/quick_fields.h"

#include <QDialog>

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;

namespace waxis::kit {

class OwnPartCard : public QDialog {
    Q_OBJECT

public:
    OwnPartCard(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// Begins with a type as the model.
    void like(const PartType &model);
    /// Begins with nothing but a kind, which can be chosen.
    void fresh(PartKind kind);
    const PartType &type() const { return type_; }

signals:
    /// It lies in the build's types and in the user's own library.
    void kept(const QString &type);
    void said(const QString &text, bool bad);

private:
    void makeFields();
    void typed(std::size_t index);
    void refresh();
    void keep();

    app::Document &document_;
    const theme::Theme &theme_;
    PartType type_;
    std::vector<QuickField> fields_;
    std::vector<QLineEdit *> edits_;
    std::vector<bool> wrong_;
    QLabel *model_ = nullptr, *problem_ = nullptr;
    QComboBox *kind_ = nullptr;
    QLineEdit *name_ = nullptr;
    QFormLayout *form_ = nullptr;
    PartCanvas *canvas_ = nullptr;
    ConnectorList *connectors_ = nullptr;
    int lit_ = -1; ///< the connector that is looked at
    QPushButton *keep_ = nullptr;
};

} // namespace waxis::kit
