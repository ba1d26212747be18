// The tray list as a table that can be filled in.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QAbstractTableModel>

namespace waxis::kit {

enum Column { checked, name, needed, inHand, catalogue, weighed, size, arrow, pins, note, columnCount };

enum class Show { all, missing, spare, uncounted, unweighed, marks };

class KitModel : public QAbstractTableModel {
    Q_OBJECT

public:
    KitModel(app::Document &document, const theme::Theme &theme, QObject *parent = nullptr);
    ~KitModel() override;

    int rowCount(const QModelIndex &parent = {}) const override;
    int columnCount(const QModelIndex &parent = {}) const override { return parent.isValid() ? 0 : kit::columnCount; }
    QVariant data(const QModelIndex &index, int role = Qt::DisplayRole) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role = Qt::DisplayRole) const override;
    Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role = Qt::EditRole) override;

    const KitLine &line(int row) const;
    int rowOf(const QString &item) const;
    void setShow(Show show);
    void setWords(const QString &words);
    /// What the list shows now, with a header, as comma-separated values.
    QString asCsv() const;

private:
    void refresh();
    bool wanted(const KitLine &line) const;

    app::Document &document_;
    const theme::Theme &theme_;
    std::vector<KitLine> lines_;
    Show show_ = Show::all;
    QString words_;
};

} // namespace waxis::kit
