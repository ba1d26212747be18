#include "app/shell/group_tools.h"

#include "core/edits/group_edits.h"

#include <QCoreApplication>
#include <array>

namespace waxis::app {

namespace {

QString tr(const char *text) { return QCoreApplication::translate("GroupTools", text); }

GroupTool aligning(const char *id, int axis, AlignTo to, const char *text, const char *brief, const char *row) {
    return {id,
            tr(text),
            tr(brief),
            tr(row),
            {},
            2,
            [axis, to, name = tr(text)](Document &document) {
                document.edit(name, alignParts(document.build(), document.selectedParts(), axis, to));
            },
            false};
}

GroupTool spreading(const char *id, int axis, const char *text, const char *brief) {
    return {id,
            tr(text),
            tr(brief),
            tr("spread"),
            {},
            3,
            [axis, name = tr(text)](Document &document) {
                document.edit(name, distributeParts(document.build(), document.selectedParts(), axis));
            },
            axis == 0};
}

/// An edit that adds parts, which are then the chosen ones.
template <class Edit>
void addAndChoose(Document &document, const QString &name, Edit &&edit) {
    std::vector<std::string> added;
    if (!document.edit(name, edit(&added)) || added.empty()) return;
    QStringList ids;
    for (const auto &id : added) ids << QString::fromStdString(id);
    document.selectAll(ids);
}

} // namespace

const std::vector<GroupTool> &groupTools() {
    static const std::vector<GroupTool> tools{
        aligning("align-fore", 0, AlignTo::high, QT_TRANSLATE_NOOP("GroupTools", "Align front edges"),
                 QT_TRANSLATE_NOOP("GroupTools", "front"), QT_TRANSLATE_NOOP("GroupTools", "align")),
        aligning("align-x", 0, AlignTo::middle, QT_TRANSLATE_NOOP("GroupTools", "Align fore and aft on the middle"),
                 QT_TRANSLATE_NOOP("GroupTools", "mid"), QT_TRANSLATE_NOOP("GroupTools", "align")),
        aligning("align-aft", 0, AlignTo::low, QT_TRANSLATE_NOOP("GroupTools", "Align rear edges"),
                 QT_TRANSLATE_NOOP("GroupTools", "rear"), QT_TRANSLATE_NOOP("GroupTools", "align")),
        aligning("align-left", 1, AlignTo::high, QT_TRANSLATE_NOOP("GroupTools", "Align left edges"),
                 QT_TRANSLATE_NOOP("GroupTools", "left"), QT_TRANSLATE_NOOP("GroupTools", "across")),
        aligning("align-y", 1, AlignTo::middle, QT_TRANSLATE_NOOP("GroupTools", "Align across on the middle"),
                 QT_TRANSLATE_NOOP("GroupTools", "mid"), QT_TRANSLATE_NOOP("GroupTools", "across")),
        aligning("align-right", 1, AlignTo::low, QT_TRANSLATE_NOOP("GroupTools", "Align right edges"),
                 QT_TRANSLATE_NOOP("GroupTools", "right"), QT_TRANSLATE_NOOP("GroupTools", "across")),
        aligning("align-top", 2, AlignTo::high, QT_TRANSLATE_NOOP("GroupTools", "Align tops"),
                 QT_TRANSLATE_NOOP("GroupTools", "top"), QT_TRANSLATE_NOOP("GroupTools", "height")),
        aligning("align-z", 2, AlignTo::middle, QT_TRANSLATE_NOOP("GroupTools", "Align heights on the middle"),
                 QT_TRANSLATE_NOOP("GroupTools", "mid"), QT_TRANSLATE_NOOP("GroupTools", "height")),
        aligning("align-bottom", 2, AlignTo::low, QT_TRANSLATE_NOOP("GroupTools", "Align undersides"),
                 QT_TRANSLATE_NOOP("GroupTools", "under"), QT_TRANSLATE_NOOP("GroupTools", "height")),
        spreading("spread-x", 0, QT_TRANSLATE_NOOP("GroupTools", "Spread evenly fore and aft"),
                  QT_TRANSLATE_NOOP("GroupTools", "fore–aft")),
        spreading("spread-y", 1, QT_TRANSLATE_NOOP("GroupTools", "Spread evenly across"),
                  QT_TRANSLATE_NOOP("GroupTools", "across")),
        spreading("spread-z", 2, QT_TRANSLATE_NOOP("GroupTools", "Spread evenly in height"),
                  QT_TRANSLATE_NOOP("GroupTools", "height")),
        {"mirror", tr("Mirror across the centre line"), tr("mirror"), tr("other side"), QKeySequence("Ctrl+M"), 1,
         [](Document &document) {
             document.edit(tr("Mirror across the centre line"),
                           mirrorParts(document.build(), document.selectedParts()));
         },
         true},
        {"mirror-copy", tr("Copy to the other side"), tr("copy"), tr("other side"), QKeySequence("Ctrl+Shift+M"), 1,
         [](Document &document) {
             addAndChoose(document, tr("Copy to the other side"),
                          [&](auto *added) { return mirrorCopies(document.build(), document.selectedParts(), added); });
         },
         false},
        {"copy-arms",
         tr("Copy to the other arms"),
         tr("to all arms"),
         tr("other side"),
         {},
         1,
         [](Document &document) {
             addAndChoose(document, tr("Copy to the other arms"), [&](auto *added) {
                 return copyToOtherArms(document.build(), document.selected().toStdString(), added);
             });
         },
         false},
        {"choose-all",
         tr("Choose all parts"),
         {},
         {},
         QKeySequence("Ctrl+A"),
         0,
         [](Document &document) {
             QStringList all;
             for (const auto &part : document.build().parts)
                 if (document.isAboardNow(part)) all << QString::fromStdString(part.id);
             document.selectAll(all);
         },
         true},
    };
    return tools;
}

} // namespace waxis::app
