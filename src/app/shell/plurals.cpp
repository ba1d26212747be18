#include "app/shell/plurals.h"

#include <QCoreApplication>
#include <QTranslator>

namespace waxis::app {

void loadPlurals() {
    static bool loaded = false;
    if (loaded) return;
    loaded = true;
    auto *plurals = new QTranslator(QCoreApplication::instance());
    if (plurals->load(":/translations/weightaxis_en.qm")) QCoreApplication::installTranslator(plurals);
}

} // namespace waxis::app
