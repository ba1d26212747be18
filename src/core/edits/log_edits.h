// Changes of the log: sessions, entries, trials and tries, named states.
#pragma once

#include "core/build/edit_result.h"
#include "core/build/log.h"

#include <string>

namespace waxis {

/// An empty id is filled in; sessions are kept by time. Errors: no time, an id that is taken.
EditResult addSession(const Build &build, Session session);
EditResult changeSession(const Build &build, const Session &session);
/// With its entries; tries of trials stay and belong to none. Errors: there is none.
EditResult removeSession(const Build &build, const std::string &id);

/// An empty id is filled in; without a session it goes to the last one. Errors: what entries have to be (faultOf).
EditResult addEntry(const Build &build, Entry entry);
EditResult changeEntry(const Build &build, const Entry &entry);
EditResult removeEntry(const Build &build, const std::string &id);

/// Ids that are empty are filled in, those of set-ups too.
EditResult addTrialOf(const Build &build, Trial trial);
/// Question, set-ups and all; tries of set-ups that are gone go with them.
EditResult changeTrialOf(const Build &build, const Trial &trial);
EditResult removeTrialOf(const Build &build, const std::string &id);
EditResult addTry(const Build &build, const std::string &trial, Try one);
EditResult changeTry(const Build &build, const std::string &trial, const Try &one);
EditResult removeTry(const Build &build, const std::string &trial, const std::string &id);

/// Errors: no name, an empty document.
EditResult addSnapshot(const Build &build, Snapshot snapshot);
EditResult renameSnapshot(const Build &build, const std::string &id, const std::string &name);
EditResult removeSnapshot(const Build &build, const std::string &id);

/// The last session by time; null: none.
const Session *latestSession(const Build &build);

} // namespace waxis
