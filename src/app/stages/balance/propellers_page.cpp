#include "app/stages/balance/propellers_page.h"

#include "core/build/on_mount.h"
#include "core/edits/balance_edits.h"

namespace waxis::balance {

PropellersPage::PropellersPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : OptionsPage(document, theme, tr("Other propellers on all motors"), QStringLiteral("propellers"),
                  {{tr("propeller"), tr("That go on the motors' shafts, of the build and the library"), true},
                   {tr("g"), tr("Of one")},
                   {tr("mm"), tr("Tip to tip")},
                   {tr("pitch mm"), tr("Way in one turn")},
                   {tr("blades"), tr("Of one")},
                   {tr("all-up g"), tr("Of the craft with them, in this load case")},
                   {tr("tip gap mm"), tr("The least between two neighbours")},
                   {tr("hover W"), tr("From the pack, motors and everything else")},
                   {tr("hover min"), tr("Hover down to the practice's reserve")},
                   {tr("turns 1/s"), tr("In hover, over the band of thrust coefficients")},
                   {tr("findings"),
                    tr("Stops and watches of the whole craft with them, views and access not looked at"), true}},
                  parent) {
    begin(QStringLiteral("propeller-fit"), tr("Fit these"));
}

bool PropellersPage::hasSomething() const {
    const Build &build = document_.build();
    for (const auto &mount : build.frame->motorMounts)
        if (typeOn(build, mount.id, PartKind::propeller)) return true;
    return false;
}

QString PropellersPage::whatIsCompared() const {
    return hasSomething()
               ? tr("Each is tried on every motor, its mount drawn for it, and the whole craft is worked out.")
               : tr("No propeller is on a motor yet.");
}

QString PropellersPage::whileTrying() const { return tr("Trying each propeller..."); }
QString PropellersPage::none() const { return tr("No propeller that goes on these motors is known."); }
QString PropellersPage::foot() const {
    return tr("• is fitted. One figure of merit for all; what the motors can push with another propeller is not known "
              "until it is measured. Wider ones load motors and controllers more. Propellers off on the bench.");
}

std::vector<OptionCell> PropellersPage::cells(const PropellerOption &o) const {
    return {{marked(o)},
            {number(o.mass_g, 1)},
            {number(o.diameter_mm, 0)},
            {number(o.pitch_mm, 0)},
            {o.blades ? QString::number(*o.blades) : QStringLiteral("–")},
            {number(o.total_g, 0), o.overLimit},
            {number(o.tipGap_mm, 1), o.tipGap_mm && *o.tipGap_mm < document_.analysis().practice[Limit::tipGap]},
            {number(o.power_W, 0)},
            {band(o.least_min, o.most_min)},
            {o.turns ? band(o.turns->least_Hz, o.turns->most_Hz) : QStringLiteral("–")},
            {tr("%1 stop, %2 watch").arg(o.stop).arg(o.watch), o.stop > document_.analysis().counts.stop}};
}

app::Background<PropellersPage::Options>::Work PropellersPage::compare(const Build &build, std::size_t loadCase) const {
    return [build, practice = document_.analysis().practice, loadCase, library = document_.library()](
               const std::atomic<bool> &stop) { return comparePropellers(build, practice, loadCase, library, &stop); };
}

void PropellersPage::fitOne(const PartType &type) {
    document_.edit(tr("Fit %1").arg(QString::fromStdString(type.name)), swapPropellers(document_.build(), type));
}

} // namespace waxis::balance
