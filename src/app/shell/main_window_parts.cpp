// Parts and part types by the window: copied, put in, corrected, their menu.
#include "app/shell/main_window.h"

#include "app/document/clipboard.h"
#include "app/shell/build_sheet.h"
#include "app/shell/command_palette.h"
#include "app/shell/findings_panel.h"
#include "app/shell/inspector_panel.h"
#include "app/shell/lesson.h"
#include "app/shell/practice_sheet.h"
#include "app/shell/start_page.h"
#include "app/stages/kit/kit_bench.h"
#include "app/stages/kit/own_part_card.h"
#include "app/stages/kit/own_parts_dialog.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/place_view.h"
#include "app/stages/radio/radio_bench.h"
#include "app/stages/wire/wire_bench.h"
#include "app/widgets/notice_bar.h"
#include "core/catalog/type_changes.h"
#include "core/edits/clip.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/perch_edits.h"
#include "core/layout/layout.h"
#include "core/rules/rule.h"

#include <QContextMenuEvent>
#include <QMenu>
#include <QTimer>

namespace waxis::app {

void MainWindow::copyChosen(bool cut) {
    const auto parts = document_.selectedParts();
    if (const QString problem = copyParts(document_.build(), parts); !problem.isEmpty()) {
        emit document_.refused(problem);
        return;
    }
    if (cut) place_->plan().removeChosen();
    table_->refresh();
}

void MainWindow::paste() {
    QString problem;
    const auto clip = partsOnClipboard(problem);
    if (!clip) {
        emit document_.refused(problem.isEmpty() ? tr("There are no parts on the clipboard.")
                                                 : tr("What lies on the clipboard cannot be read: %1").arg(problem));
        return;
    }
    pasteParts(*clip, tr("Paste %n part(s)", nullptr, int(clip->parts.size())));
}

void MainWindow::duplicateChosen() {
    const auto clip = clipOf(document_.build(), document_.selectedParts());
    if (!clip) {
        emit document_.refused(QString::fromStdString(clip.error().message));
        return;
    }
    pasteParts(*clip, tr("Duplicate %n part(s)", nullptr, int(clip->parts.size())));
}

void MainWindow::pasteParts(const Build &clip, const QString &name) {
    // Beside where it stood, so that both are seen; a step farther for each time.
    constexpr double kStep_mm = 10;
    Vec3 shift = Vec3::Zero();
    const auto taken = [&] {
        return std::any_of(document_.build().parts.begin(), document_.build().parts.end(), [&](const Part &part) {
            return (framePose(document_.build(), part).position_mm -
                    (framePose(clip, clip.parts.front()).position_mm + shift))
                       .norm() < 1;
        });
    };
    for (int i = 0; i < 50 && taken(); ++i) shift += Vec3(-kStep_mm, -kStep_mm, 0);
    std::vector<std::string> added;
    if (!document_.edit(name, pasteClip(document_.build(), clip, shift, &added))) return;
    QStringList ids;
    for (const auto &id : added) ids << QString::fromStdString(id);
    document_.selectAll(ids);
    if (stage_ != Stage::place) setStage(Stage::place);
}

void MainWindow::showPartMenu(const QPoint &at) {
    QMenu menu(this);
    const auto take = [&](std::initializer_list<const char *> ids) {
        for (const char *id : ids) {
            if (!*id)
                menu.addSeparator();
            else
                menu.addAction(table_->action(id));
        }
    };
    table_->refresh();
    if (document_.selectedPart())
        take({"cut",         "copy",      "paste", "duplicate", "",       "turn-left",   "turn-right", "upside-down",
              "pin",         "replace",   "",      "copy-arms", "mirror", "mirror-copy", "",           "optional",
              "change-type", "like-this", "",      "remove"});
    else if (findWire(document_.build(), document_.selected().toStdString()))
        take({"remove", "", "fit", "zoom", "", "why"});
    else
        take({"paste", "choose-all", "", "library", "outline", "fit", "", "build-sheet"});
    menu.exec(at);
}

void MainWindow::offerAllAlike(const QString &part) {
    const Part *seated = findPart(document_.build(), part.toStdString());
    std::vector<std::string> more;
    if (!seated || !copyToOtherArms(document_.build(), seated->id, &more) || more.empty()) return;
    notices_->say(tr("%1 sits %2.")
                      .arg(QString::fromStdString(seated->name),
                           tr("on %1").arg(QString::fromStdString(displayName(
                               document_.build(), seated->placement.site.empty() ? seated->fastening.onto.front()
                                                                                 : seated->placement.site)))),
                  Severity::note,
                  {{tr("The other %1 at once").arg(more.size()),
                    [this, part] {
                        std::vector<std::string> added;
                        document_.edit(tr("Copy to the other arms"),
                                       copyToOtherArms(document_.build(), part.toStdString(), &added));
                    }}},
                  12);
}

void MainWindow::ownPartLike(const QString &type) {
    auto *card = new kit::OwnPartCard(document_, theme_, this);
    card->setAttribute(Qt::WA_DeleteOnClose);
    const std::string id = type.toStdString();
    const auto own = document_.build().types->find(id);
    const auto shipped = document_.library().find(id);
    if (own != document_.build().types->end())
        card->like(own->second);
    else if (shipped != document_.library().end())
        card->like(shipped->second);
    else
        card->fresh(PartKind::receiver);
    connect(card, &kit::OwnPartCard::said, this, [this](const QString &text, bool bad) {
        notices_->say(text, bad ? Severity::stop : Severity::note, {}, bad ? 0 : 6);
    });
    connect(card, &kit::OwnPartCard::kept, this, [this](const QString &made) {
        setStage(Stage::place);
        place_->showLibrary(true);
        place_->library().words().setText(QString::fromStdString(document_.library().at(made.toStdString()).name));
        place_->library().list().choose(made);
    });
    card->open();
}

void MainWindow::showOwnParts(bool pasting) {
    auto *dialog = new kit::OwnPartsDialog(document_, theme_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    connect(dialog, &kit::OwnPartsDialog::said, this, [this](const QString &text, bool bad) {
        notices_->say(text, bad ? Severity::stop : Severity::note, {}, bad ? 0 : 6);
    });
    connect(dialog, &kit::OwnPartsDialog::likeWanted, this, [this, dialog](const QString &type) {
        dialog->accept();
        ownPartLike(type);
    });
    connect(dialog, &QDialog::finished, this, &MainWindow::offerCorrectedTypes);
    dialog->open();
    if (pasting) dialog->paste();
}

void MainWindow::offerCorrectedTypes() {
    std::set<std::string> own;
    for (const auto &[id, type] : *document_.build().types)
        if (document_.isOwnType(id)) own.insert(id);
    const auto corrected = correctedTypes(*document_.build().types, document_.library(), own);
    if (corrected.empty()) return;
    QStringList shown;
    constexpr std::size_t kShown = 3;
    for (std::size_t i = 0; i < std::min(kShown, corrected.size()); ++i) {
        QStringList words;
        for (const auto &difference : corrected[i].differences) words << QString::fromStdString(difference);
        shown << tr("%1 (%2)").arg(QString::fromStdString(document_.library().at(corrected[i].id).name),
                                   words.mid(0, 3).join(QStringLiteral(", ")));
    }
    if (corrected.size() > kShown) shown << tr("%1 more").arg(corrected.size() - kShown);
    notices_->say(tr("Parts of your own were corrected since: %1.").arg(shown.join(QStringLiteral("; "))),
                  Severity::note, {{tr("Follow"), [this, corrected] {
                                        EditResult next = document_.build();
                                        for (const auto &type : corrected)
                                            if (next) next = putType(*next, document_.library().at(type.id), type.id);
                                        document_.edit(tr("Follow corrected parts"), next);
                                    }}});
}

void MainWindow::addFromLibrary(const std::string &typeId) {
    const auto own = document_.build().types->find(typeId);
    const bool embedded = own != document_.build().types->end();
    const auto shipped = document_.library().find(typeId);
    if (!embedded && shipped == document_.library().end()) return;
    const PartType type = embedded ? own->second : shipped->second;
    setStage(Stage::place);
    const QPointF middle = place_->plan().centre();
    // Where it belongs, if anywhere; else in sight, held by nothing.
    const auto places = perchesFor(document_.build(), type, document_.library());
    std::vector<std::string> added;
    const auto put = places.empty()
                         ? addPart(document_.build(), type, typeId, Pose{Vec3(middle.x(), -middle.y(), 0)})
                         : addPerched(document_.build(), type, {places.front()}, document_.library(), &added);
    const std::string id = added.empty() ? freshId(document_.build(), typeId) : added.front();
    if (document_.edit(tr("Add %1").arg(QString::fromStdString(type.name)), put)) {
        document_.select(QString::fromStdString(id));
        if (!added.empty()) offerAllAlike(QString::fromStdString(id));
    }
}

} // namespace waxis::app
