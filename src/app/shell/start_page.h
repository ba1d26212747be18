// The first thing seen without a build: demos, recent files, opening one.
#pragma once

#include "app/theme/theme.h"

#include <QWidget>

class QVBoxLayout;

namespace waxis::app {

class StartPage : public QWidget {
    Q_OBJECT

public:
    StartPage(const theme::Theme &theme, QWidget *parent = nullptr);
    void show(const QStringList &demos, const QStringList &recent);

signals:
    void fileChosen(const QString &path);
    void browseWanted();
    void layoutWanted();
    void drawingWanted();
    void kitListWanted();

private:
    const theme::Theme &theme_;
    QVBoxLayout *column_ = nullptr;
};

} // namespace waxis::app
