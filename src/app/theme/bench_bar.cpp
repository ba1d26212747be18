#include "app/theme/bench_bar.h"

#include <QHBoxLayout>
#include <QToolButton>
#include <QWidget>

namespace waxis::theme {

QWidget *makeBenchBar(const Theme &theme, QWidget *parent, int height) {
    auto *bar = new QWidget(parent);
    bar->setObjectName("bar");
    bar->setAttribute(Qt::WA_StyledBackground);
    bar->setFixedHeight(height);
    auto *row = new QHBoxLayout(bar);
    row->setContentsMargins(12, 3, 12, 3);
    row->setSpacing(8);
    auto dress = [bar, &theme] {
        const Palette &c = theme.colors();
        bar->setStyleSheet(
            QStringLiteral("QWidget#bar { background: %1; } QLabel { color: %2; }"
                           "QToolButton { color: %3; background: transparent; border: 1px solid %4; border-radius: "
                           "3px; padding: 2px 7px; }"
                           "QToolButton:checked { background: %4; color: %5; }"
                           "QToolButton::menu-indicator { image: none; }"
                           "QToolButton:focus { border-color: %6; } QToolButton:disabled { color: %7; "
                           "border-color: transparent; }")
                .arg(c.matBar.name(), c.softChalk.name(), c.softChalk.name(), c.matGridStrong.name(), c.chalk.name(),
                     c.thrustAxis.name(), c.matFaint.name()));
    };
    dress();
    QObject::connect(&theme, &Theme::changed, bar, dress);
    return bar;
}

std::vector<QToolButton *> addPageTabs(QWidget &bar, const std::vector<std::pair<QString, const char *>> &pages,
                                       const std::function<void(int)> &pick) {
    std::vector<QToolButton *> tabs;
    for (std::size_t i = 0; i < pages.size(); ++i) {
        auto *tab = new QToolButton;
        tab->setText(pages[i].first);
        tab->setObjectName(pages[i].second);
        tab->setCheckable(true);
        tab->setAutoExclusive(true);
        tab->setFocusPolicy(Qt::TabFocus);
        QObject::connect(tab, &QToolButton::clicked, &bar, [pick, i] { pick(int(i)); });
        bar.layout()->addWidget(tab);
        tabs.push_back(tab);
    }
    return tabs;
}

} // namespace waxis::theme
