// The connectors of a part of one's own: their pins, the side that each sits on, ready-made ones to add.
#pragma once

#include "core/catalog/part_type.h"

#include <QWidget>

class QGridLayout;
class QMenu;
class QToolButton;

namespace waxis::kit {

class ConnectorList : public QWidget {
    Q_OBJECT

public:
    explicit ConnectorList(QWidget *parent = nullptr);
    /// Shows and changes this type's ports; it must outlive the list.
    void show(PartType &type);
    /// What was typed and cannot be read; empty: all of it stands in the type.
    const QString &problem() const { return problem_; }

signals:
    void changed();
    void looked(int port); ///< a row has the keyboard; -1: none

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void fill();
    void fillMenu();
    void add(const QString &set);
    void remove(std::size_t port);

    PartType *type_ = nullptr;
    QGridLayout *rows_ = nullptr;
    QWidget *holder_ = nullptr;
    QToolButton *add_ = nullptr;
    QMenu *menu_ = nullptr;
    QString problem_;
};

} // namespace waxis::kit
