// Other models in the place of what is fitted, side by side: each tried on the whole craft in the background.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/theme/metrics.h"
#include "app/theme/theme.h"
#include "app/widgets/card.h"
#include "app/widgets/mat_table.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::balance {

/// What a page of options is called and asked.
struct OptionColumn {
    QString head, tip;
    bool words = false; ///< reads from the left
};
struct OptionCell {
    QString text;
    bool bad = false;
};

/// `Option` has `type` (id) and `fitted`. A page says what it compares; the rest is here.
template <class Option>
class OptionsPage : public QWidget {
public:
    using Options = std::vector<Option>;
    QTableWidget &table() { return *table_; }
    bool isSettled() const { return !isVisible() || working_.isSettled(); }

protected:
    OptionsPage(app::Document &document, const theme::Theme &theme, const QString &title, const QString &name,
                const std::vector<OptionColumn> &columns, QWidget *parent)
        : QWidget(parent), document_(document), theme_(theme), columns_(columns), working_(
                                                                                      200, [this] { return prepare(); },
                                                                                      [this](Options options) {
                                                                                          options_ = std::move(options);
                                                                                          fill();
                                                                                      }) {
        auto *card = new theme::Card(theme, title);
        title_ = card->addNote();
        QStringList heads;
        for (const auto &column : columns) heads << column.head;
        table_ = new theme::MatTable(theme, heads);
        table_->setObjectName(name);
        table_->setAccessibleName(title);
        for (std::size_t i = 0; i < columns.size(); ++i) {
            table_->horizontalHeaderItem(int(i))->setToolTip(columns[i].tip);
            if (columns[i].words)
                table_->horizontalHeaderItem(int(i))->setTextAlignment(Qt::AlignVCenter | Qt::AlignLeft);
            table_->horizontalHeader()->setSectionResizeMode(int(i), i == 0 ? QHeaderView::Stretch
                                                                            : QHeaderView::ResizeToContents);
        }
        card->body().addWidget(table_, 1);
        note_ = new QLabel;
        note_->setObjectName("note");
        note_->setFont(theme.text(theme::kSmallPixels));
        note_->setWordWrap(true);
        fit_ = new QToolButton;
        auto *foot = new QHBoxLayout;
        foot->addWidget(note_, 1);
        foot->addWidget(fit_);
        card->body().addLayout(foot);
        auto *all = new QVBoxLayout(this);
        all->setContentsMargins(10, 8, 10, 8);
        all->addWidget(card);
    }

    /// Once the page is made: its words are its own by then.
    void begin(const QString &fitName, const QString &fitText) {
        fit_->setObjectName(fitName);
        fit_->setText(fitText);
        connect(&document_, &app::Document::changed, this, [this] {
            if (!document_.isPreviewing()) ask();
        });
        connect(&document_, &app::Document::loadCaseChanged, this, [this] { ask(); });
        connect(&document_, &app::Document::opened, this, [this] {
            options_.clear();
            ask();
        });
        connect(table_, &QTableWidget::itemSelectionChanged, this, [this] {
            const int row = table_->currentRow();
            fit_->setEnabled(row >= 0 && std::size_t(row) < options_.size() && !options_[std::size_t(row)].fitted);
        });
        connect(fit_, &QToolButton::clicked, this, [this] {
            const int row = table_->currentRow();
            if (row < 0 || std::size_t(row) >= options_.size()) return;
            const std::string &id = options_[std::size_t(row)].type;
            const auto own = document_.build().types->find(id);
            const auto shipped = document_.library().find(id);
            if (own == document_.build().types->end() && shipped == document_.library().end()) return;
            fitOne(own != document_.build().types->end() ? own->second : shipped->second);
        });
        connect(&theme_, &theme::Theme::changed, this, [this] { fill(); });
        fill();
    }

    virtual bool hasSomething() const = 0; ///< there is something that others can take the place of
    virtual QString whatIsCompared() const = 0;
    virtual QString whileTrying() const = 0;
    virtual QString none() const = 0;
    virtual QString foot() const = 0;
    virtual std::vector<OptionCell> cells(const Option &option) const = 0;
    virtual typename app::Background<Options>::Work compare(const Build &build, std::size_t loadCase) const = 0;
    virtual void fitOne(const PartType &type) = 0;

    void showEvent(QShowEvent *event) override {
        QWidget::showEvent(event);
        ask();
    }

    static QString number(std::optional<double> value, int digits) {
        return value ? QString::number(*value, 'f', digits) : QStringLiteral("–");
    }
    static QString marked(const Option &option) {
        return (option.fitted ? QStringLiteral("• ") : QString()) + QString::fromStdString(option.name);
    }
    static QString band(std::optional<double> least, std::optional<double> most) {
        return least && most ? QStringLiteral("%1–%2").arg(*least, 0, 'f', 0).arg(*most, 0, 'f', 0)
                             : QStringLiteral("–");
    }

    app::Document &document_;
    const theme::Theme &theme_;

private:
    void ask() {
        if (isVisible()) working_.ask();
    }

    typename app::Background<Options>::Work prepare() {
        if (!hasSomething()) options_.clear();
        if (!hasSomething() ||
            (asked_ == document_.build() && askedCase_ == document_.loadCase() && !options_.empty())) {
            fill();
            return {};
        }
        asked_ = document_.build();
        askedCase_ = document_.loadCase();
        title_->setText(whatIsCompared()); // another document may have something now
        note_->setText(whileTrying());
        return compare(asked_, std::size_t(askedCase_));
    }

    void fill() {
        title_->setText(whatIsCompared());
        table_->setRowCount(hasSomething() ? int(options_.size()) : 0);
        const theme::Refill filling(*table_);
        for (int row = 0; row < table_->rowCount(); ++row) {
            const Option &option = options_[std::size_t(row)];
            const auto shown = cells(option);
            for (std::size_t col = 0; col < shown.size(); ++col) {
                QTableWidgetItem *cell = table_->item(row, int(col));
                if (!cell) table_->setItem(row, int(col), cell = new QTableWidgetItem);
                cell->setText(shown[col].text);
                cell->setToolTip(shown[col].text);
                const bool words = columns_[col].words;
                cell->setFont(words ? theme_.text(12, option.fitted) : theme_.numbers(12));
                cell->setTextAlignment(Qt::AlignVCenter | (words ? Qt::AlignLeft : Qt::AlignRight));
                cell->setForeground(shown[col].bad ? theme::severityOnMat(Severity::watch) : theme_.colors().chalk);
            }
        }
        fit_->setEnabled(false);
        note_->setText(working_.isRunning() ? whileTrying() : options_.empty() ? none() : foot());
    }

    std::vector<OptionColumn> columns_;
    QLabel *title_ = nullptr, *note_ = nullptr;
    QTableWidget *table_ = nullptr;
    QToolButton *fit_ = nullptr;
    Options options_;
    Build asked_;
    int askedCase_ = -1;
    app::Background<Options> working_;
};

} // namespace waxis::balance
