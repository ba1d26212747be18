// Where the shipped demos and part libraries lie, and the user's own library.
#pragma once

#include "core/catalog/part_type.h"

#include <QStringList>
#include <set>
#include <string>
#include <vector>

namespace waxis::app {

/// data/ beside the sources or under the installation; empty when neither is there.
QString dataFolder();
QStringList demoFiles();
/// "Owlbox Mini" for owlbox-mini.waxis: the words of the file's name.
QString demoTitle(const QString &path);
/// A folder as short as it can still be told: "~/builds".
QString shortFolder(const QString &folder);

/// All shipped part types and the user's (XDG data folder, weightaxis/parts/*.json), which win. Files that cannot
/// be read are named in `problems`.
TypeTable partLibrary(QStringList &problems, std::set<std::string> *own = nullptr);

/// Puts a type into the user's own library file (own.json in the data folder), in the place of one of the same id.
bool keepInOwnLibrary(const PartType &type, QString &problem);
bool keepInOwnLibrary(const std::vector<PartType> &types, QString &problem);
/// Takes types out of the user's own library, whichever of its files holds them. Builds keep those that they use.
bool removeFromOwnLibrary(const std::set<std::string> &ids, QString &problem);

} // namespace waxis::app
