// A small table over a list of records, one column per field, that tells when something was typed.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QHeaderView>
#include <QTableWidget>
#include <QTimer>
#include <functional>
#include <vector>

namespace waxis::kit {

template <class T>
struct RecordColumn {
    QString title;
    int width; ///< 0: takes what is left
    std::function<QString(const T &)> get;
    std::function<bool(T &, const QString &)> set; ///< false: cannot be read; the record keeps its value
    QStringList choices = {};                      ///< not empty: chosen from these
    bool check = false;                            ///< "yes" or ""
};

/// `records` gives the list (null: nothing to show); `changed` is called after each change, with what could not be read
/// or "".
template <class T>
class RecordTable {
public:
    using Records = std::function<std::vector<T> *()>;
    using Changed = std::function<void(const QString &problem)>;

    RecordTable(const QString &name, std::vector<RecordColumn<T>> columns, Records records, Changed changed)
        : columns_(std::move(columns)), records_(std::move(records)), changed_(std::move(changed)),
          widget_(new QTableWidget(0, int(columns_.size()))) {
        QStringList titles;
        for (const auto &column : columns_) titles << column.title;
        widget_->setAccessibleName(name);
        widget_->setHorizontalHeaderLabels(titles);
        widget_->verticalHeader()->hide();
        widget_->verticalHeader()->setDefaultSectionSize(26);
        widget_->setSelectionBehavior(QAbstractItemView::SelectRows);
        widget_->setSelectionMode(QAbstractItemView::SingleSelection);
        widget_->setShowGrid(false);
        widget_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        widget_->horizontalHeader()->setHighlightSections(false);
        widget_->horizontalHeader()->setMinimumSectionSize(24);
        for (int c = 0; c < int(columns_.size()); ++c)
            if (columns_[std::size_t(c)].width)
                widget_->setColumnWidth(c, columns_[std::size_t(c)].width);
            else
                widget_->horizontalHeader()->setSectionResizeMode(c, QHeaderView::Stretch);
        QObject::connect(widget_, &QTableWidget::cellChanged, widget_, [this](int r, int c) {
            if (!filling_) take(r, c, widget_->item(r, c)->text());
        });
    }

    QTableWidget *widget() { return widget_; }
    int current() const { return widget_->currentRow(); }

    void fill() {
        filling_ = true;
        const auto *list = records_();
        widget_->setRowCount(list ? int(list->size()) : 0);
        for (int r = 0; r < widget_->rowCount(); ++r)
            for (int c = 0; c < int(columns_.size()); ++c) {
                const auto &column = columns_[std::size_t(c)];
                const QString text = column.get((*list)[std::size_t(r)]);
                if (column.check) {
                    auto *box = new QCheckBox;
                    box->setAccessibleName(column.title);
                    box->setChecked(!text.isEmpty());
                    QObject::connect(box, &QCheckBox::toggled, widget_,
                                     [this, r, c](bool on) { take(r, c, on ? "yes" : ""); });
                    widget_->setCellWidget(r, c, box);
                } else if (!column.choices.isEmpty()) {
                    auto *box = new QComboBox;
                    box->setFrame(false);
                    box->setAccessibleName(column.title);
                    box->addItems(column.choices);
                    box->setCurrentText(text);
                    QObject::connect(box, &QComboBox::activated, widget_,
                                     [this, r, c, box] { take(r, c, box->currentText()); });
                    widget_->setCellWidget(r, c, box);
                } else {
                    widget_->setItem(r, c, new QTableWidgetItem(text));
                }
            }
        const int rows = std::clamp(widget_->rowCount(), 1, 8);
        widget_->setFixedHeight(widget_->horizontalHeader()->sizeHint().height() + 26 * rows + 4);
        filling_ = false;
    }

    void add(const T &record) {
        if (auto *list = records_()) {
            list->push_back(record);
            fill();
            widget_->setCurrentCell(widget_->rowCount() - 1, 0);
            changed_({});
        }
    }
    void removeCurrent() {
        auto *list = records_();
        const int row = widget_->currentRow();
        if (!list || row < 0 || row >= int(list->size())) return;
        list->erase(list->begin() + row);
        fill();
        changed_({});
    }

private:
    void take(int r, int c, const QString &text) {
        auto *list = records_();
        if (!list || r >= int(list->size())) return;
        const auto &column = columns_[std::size_t(c)];
        const bool good = column.set((*list)[std::size_t(r)], text);
        changed_(good ? QString() : QStringLiteral("%1: \"%2\"").arg(column.title, text));
        if (!good || (!column.check && column.choices.isEmpty())) // what was understood, in its own form
            QTimer::singleShot(0, widget_, [this, r, c] {
                auto *now = records_();
                if (!now || r >= int(now->size()) || !widget_->item(r, c)) return;
                filling_ = true;
                widget_->item(r, c)->setText(columns_[std::size_t(c)].get((*now)[std::size_t(r)]));
                filling_ = false;
            });
    }

    std::vector<RecordColumn<T>> columns_;
    Records records_;
    Changed changed_;
    QTableWidget *widget_;
    bool filling_ = false;
};

} // namespace waxis::kit
