// The first thing seen without a build: one's own work on the left, what there is to look at and to learn on the right.
#pragma once

#include "app/theme/theme.h"

#include <QImage>
#include <QWidget>
#include <functional>

class QPushButton;
class QVBoxLayout;

namespace waxis::app {

class StartPage : public QWidget {
    Q_OBJECT

public:
    StartPage(const theme::Theme &theme, QWidget *parent = nullptr);
    void show(const QStringList &demos, const QStringList &recent);

signals:
    void fileChosen(const QString &path);
    void forgetWanted(const QString &path); ///< out of the list of files; the file itself stays
    void browseWanted();
    void layoutWanted();
    void drawingWanted();
    void kitListWanted();
    void lessonWanted(); ///< the first build, walked along

private:
    void clear(QVBoxLayout *column);
    void addTitle(QVBoxLayout *column, const QString &text);
    void addWords(QVBoxLayout *column, const QString &text);
    QPushButton *addButton(QVBoxLayout *column, const QString &text, const QString &beneath, const QImage &picture,
                           const std::function<void()> &run, const QString &tip = {});
    void showFileMenu(const QString &path, const QPoint &globally);

    const theme::Theme &theme_;
    QVBoxLayout *own_ = nullptr, *demos_ = nullptr;
};

/// The small picture of a saved build, as it was when it was saved; null when none was kept.
QImage keptPicture(const QString &file);
void keepPicture(const QString &file, const QImage &picture);

} // namespace waxis::app
