#include "app/stages/balance/packs_page.h"

#include "core/edits/balance_edits.h"
#include "core/rules/wording.h"

namespace waxis::balance {

PacksPage::PacksPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : OptionsPage(
          document, theme, tr("Other packs in its place"), QStringLiteral("packs"),
          {{tr("pack"), tr("With as many cells, of the build and the library"), true},
           {tr("g"), tr("Of the pack")},
           {tr("mAh"), tr("Capacity")},
           {tr("all-up g"), tr("Of the craft with it, in this load case")},
           {tr("off mm"), tr("Centre of gravity from the thrust centre in plan, the pack where it is")},
           {tr("slide mm"), tr("How far it would have to slide from there; minus is aft")},
           {tr("then mm"), tr("What is left after that")},
           {tr("thrust"), tr("Full thrust over weight")},
           {tr("hover min"), tr("Hover down to the practice's reserve")},
           {tr("findings"), tr("Stops and watches of the whole craft with it, views and access not looked at"), true}},
          parent) {
    begin(QStringLiteral("pack-fit"), tr("Fit this one"));
}

std::string PacksPage::pack() const {
    const LoadCase *loadCase = document_.activeCase();
    return loadCase ? loadCase->battery : std::string();
}

QString PacksPage::whatIsCompared() const {
    const Part *part = findPart(document_.build(), pack());
    return part ? tr("Each is tried where %1 sits, and the whole craft is worked out with it.")
                      .arg(QString::fromStdString(part->name))
                : tr("This load case has no pack of its own. Choose another case above.");
}

QString PacksPage::whileTrying() const { return tr("Trying each pack..."); }
QString PacksPage::none() const { return tr("No pack with as many cells is known."); }
QString PacksPage::foot() const {
    return tr("• is fitted. Lithium packs burn when crushed, shorted or overcharged: choose one that lies "
              "well inside its straps, clear of sharp carbon.");
}

std::vector<OptionCell> PacksPage::cells(const PackOption &o) const {
    const double ring = document_.analysis().derived.cgTolerance_mm;
    const double left = o.slide ? o.slide->after_mm.norm() : 0;
    return {
        {marked(o)},
        {number(o.mass_g, 0)},
        {number(o.capacity_mAh, 0)},
        {number(o.total_g, 0), o.overLimit},
        {number(o.offset_mm.norm(), 1), o.offset_mm.norm() > ring},
        {o.slide ? QString::fromStdString(oneDecimal(o.slide->travel_mm)) : QStringLiteral("–")},
        {o.slide ? number(left, 1) : QStringLiteral("–"), left > ring},
        {number(o.thrustToWeight, 1)},
        {band(o.least_min, o.most_min)},
        {o.meets.empty()
             ? tr("%1 stop, %2 watch").arg(o.stop).arg(o.watch)
             : tr("stands in %1").arg(QString::fromStdString(withinSentence(displayName(document_.build(), o.meets)))),
         !o.meets.empty()}};
}

app::Background<PacksPage::Options>::Work PacksPage::compare(const Build &build, std::size_t loadCase) const {
    return [build, practice = document_.analysis().practice, part = pack(), loadCase, library = document_.library()](
               const std::atomic<bool> &stop) { return comparePacks(build, practice, part, loadCase, library, &stop); };
}

void PacksPage::fitOne(const PartType &type) {
    document_.edit(tr("Fit %1").arg(QString::fromStdString(type.name)), swapPack(document_.build(), pack(), type));
}

} // namespace waxis::balance
