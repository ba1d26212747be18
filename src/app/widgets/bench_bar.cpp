#include "app/widgets/bench_bar.h"

#include <QHBoxLayout>
#include <QToolButton>
#include <QWidget>

namespace waxis::theme {

QWidget *makeBenchBar(const Theme &theme, QWidget *parent, int height) {
    auto *bar = new QWidget(parent);
    bar->setObjectName("bar");
    bar->setFixedHeight(height);
    auto *row = new QHBoxLayout(bar);
    row->setContentsMargins(12, 3, 12, 3);
    row->setSpacing(8);
    theme.dress(*bar, Ground::matBar);
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
