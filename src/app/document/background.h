// Where the window's long work runs.
#pragma once

#include <QtConcurrent>
#include <utility>

namespace waxis::app {

/// Threads of its own: those of Qt's common pool also fill large areas, and painting would wait for a free one.
QThreadPool &backgroundPool();

/// Runs `work(arguments...)` there; with a QPromise as its first parameter when it gives several results.
template <class Work, class... Arguments>
auto inBackground(Work &&work, Arguments &&...arguments) {
    return QtConcurrent::run(&backgroundPool(), std::forward<Work>(work), std::forward<Arguments>(arguments)...);
}

} // namespace waxis::app
