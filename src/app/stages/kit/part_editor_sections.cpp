// The part editor's sections on power, radio, camera, magnetism and hardware.
#include "app/stages/kit/part_editor.h"
#include "app/stages/kit/part_fields.h"
#include "core/fasteners/all_threads.h"
#include "core/fasteners/thread.h"
#include "core/radio/coax.h"

#include <algorithm>

namespace waxis::kit {

void PartEditor::makeElectricForm() {
    heading(tr("Power"));
    number(tr("Supply, at least V"), "type-vmin", [this] { return &electrical().supplyMin_V; });
    number(tr("Supply, at most V"), "type-vmax", [this] { return &electrical().supplyMax_V; });
    measured(tr("Draws typically, A"), "type-typical", [this] { return &electrical().typical_A; });
    measured(tr("Draws at peak, A"), "type-peak", [this] { return &electrical().peak_A; });
    choice(
        tr("At a lower voltage it draws"), "type-draw", {tr("as much: linear"), tr("more: switching")},
        [this] { return int(electrical().draw); }, [this](int index) { electrical().draw = Draw(index); });
    number(tr("Currents stated at, V"), "type-drawn-at", [this] { return &electrical().drawnAt_V; });
    number(tr("Carries without end, A"), "type-continuous", [this] { return &electrical().continuous_A; });
    line(
        tr("Pack: cells in series"), "type-cells",
        [this] { return electrical().cells ? QString::number(*electrical().cells) : QString(); },
        [this](const QString &text) {
            std::optional<double> cells;
            if (!setMaybe(cells, text) || (cells && (*cells < 1 || *cells > 100))) return false;
            electrical().cells = cells ? std::optional(int(*cells)) : std::nullopt;
            return true;
        });
    number(tr("Pack: capacity, mAh"), "type-capacity", [this] { return &electrical().capacity_mAh; });
    number(tr("Pack: full cell, V"), "type-cell-full", [this] { return &electrical().cellFull_V; });
    number(tr("Capacitor, µF"), "type-uf", [this] { return &electrical().capacitance_uF; });
    number(tr("Capacitor rated, V"), "type-rated", [this] { return &electrical().rated_V; });
    number(tr("In line: resistance, Ω"), "type-ohm", [this] { return &electrical().resistance_Ohm; });
    number(tr("In line: rated, W"), "type-watt", [this] { return &electrical().rated_W; });
    number(tr("Diode: loses, V"), "type-forward", [this] { return &electrical().forward_V; });
    measured(tr("Motor: static thrust, gf"), "type-thrust", [this] { return &type_.maxThrust_gf; });
    number(tr("Propeller: tip to tip, mm"), "type-diameter", [this] { return &type_.propDiameter_mm; });
    number(tr("Propeller: way in one turn, mm"), "type-pitch", [this] { return &type_.propPitch_mm; });
    line(
        tr("Propeller: blades"), "type-blades",
        [this] { return type_.propBlades ? QString::number(*type_.propBlades) : QString(); },
        [this](const QString &text) {
            std::optional<double> blades;
            if (!setMaybe(blades, text) || (blades && (*blades < 1 || *blades > 12))) return false;
            type_.propBlades = blades ? std::optional(int(*blades)) : std::nullopt;
            return true;
        });
    number(tr("Propeller: hole of the hub, mm"), "type-bore", [this] { return &type_.bore_mm; });
    number(tr("Motor: shaft for the propeller, mm"), "type-shaft", [this] { return &type_.shaft_mm; });
    line(
        tr("Motor: thread for the nut"), "type-shaft-thread",
        [this] { return QString::fromStdString(type_.shaftThread); },
        [this](const QString &text) {
            type_.shaftThread = text.trimmed().toStdString();
            return true;
        });
    outputs_ = std::make_unique<RecordTable<PowerOutput>>(
        tr("Rails that it feeds"),
        std::vector<RecordColumn<PowerOutput>>{
            {tr("Rail"), 0, [](const PowerOutput &o) { return QString::fromStdString(o.id); },
             [](PowerOutput &o, const QString &text) {
                 o.id = text.trimmed().toStdString();
                 return !o.id.empty();
             }},
            {tr("V"), 60, [](const PowerOutput &o) { return numberText(o.voltage_V); },
             [](PowerOutput &o, const QString &text) { return setNumber(o.voltage_V, text); }},
            {tr("A at most"), 80, [](const PowerOutput &o) { return numberText(o.limit_A); },
             [](PowerOutput &o, const QString &text) { return setNumber(o.limit_A, text); }},
            {tr("Efficiency; empty: linear"), 160, [](const PowerOutput &o) { return numberText(o.efficiency); },
             [](PowerOutput &o, const QString &text) { return setMaybe(o.efficiency, text); }}},
        [this] { return &electrical().outputs; }, unreadable());
    outputs_->widget()->setObjectName("outputs");
    table(*outputs_, tr("Add a rail"), PowerOutput{"5v", 5, 1, 0.88});
}

void PartEditor::makeBandsForm() {
    heading(tr("Radio"));
    auto maybeColumn = [](const QString &title, int width, std::optional<double> RadioBand::*field) {
        return RecordColumn<RadioBand>{title, width, [field](const RadioBand &b) { return numberText(b.*field); },
                                       [field](RadioBand &b, const QString &text) { return setMaybe(b.*field, text); }};
    };
    bands_ = std::make_unique<RecordTable<RadioBand>>(
        tr("Bands"),
        std::vector<RecordColumn<RadioBand>>{
            {tr("MHz from"), 62, [](const RadioBand &b) { return numberText(b.low_MHz); },
             [](RadioBand &b, const QString &text) { return setNumber(b.low_MHz, text); }},
            {tr("to"), 54, [](const RadioBand &b) { return numberText(b.high_MHz); },
             [](RadioBand &b, const QString &text) { return setNumber(b.high_MHz, text); }},
            maybeColumn(tr("dBm"), 40, &RadioBand::power_dBm),
            {tr("Hears"),
             42,
             [](const RadioBand &b) { return b.listens ? QString("yes") : QString(); },
             [](RadioBand &b, const QString &text) {
                 b.listens = !text.isEmpty();
                 return true;
             },
             {},
             true},
            maybeColumn(tr("Wide"), 40, &RadioBand::bandwidth_MHz),
            maybeColumn(tr("NF"), 32, &RadioBand::noiseFigure_dB),
            maybeColumn(tr("Select."), 48, &RadioBand::selectivity_dB),
            maybeColumn(tr("Harm."), 44, &RadioBand::harmonicSuppression_dB),
            {tr("Port"), 0, [](const RadioBand &b) { return QString::fromStdString(b.port); },
             [](RadioBand &b, const QString &text) {
                 b.port = text.trimmed().toStdString();
                 return true;
             }}},
        [this] { return &type_.radio; }, unreadable());
    bands_->widget()->setObjectName("bands");
    bands_->widget()->setToolTip(
        tr("dBm: sends with, empty: does not send. Wide: MHz of a channel. NF: noise figure. Select.: selectivity. "
           "Harm.: suppression of harmonics, all in dB."));
    RadioBand band;
    band.low_MHz = 2400;
    band.high_MHz = 2480;
    band.listens = true;
    table(*bands_, tr("Add a band"), band);
}

void PartEditor::makeFirstBandForm() {
    const auto firstBand = [this](const QString &label, const QString &name, auto get, auto set, const QString &tip) {
        line(
            label, name, [this, get] { return type_.radio.empty() ? QString() : get(type_.radio.front()); },
            [this, set](const QString &text) {
                return type_.radio.empty() ? text.trimmed().isEmpty() : set(type_.radio.front(), text);
            },
            tip);
    };
    firstBand(
        tr("Channels, MHz"), "radio-channels",
        [](const RadioBand &b) {
            std::vector<std::pair<QString, double>> list;
            for (const auto &c : b.channels) list.emplace_back(QString::fromStdString(c.name), c.centre_MHz);
            return namedNumbersText(list);
        },
        [](RadioBand &b, const QString &text) {
            const auto list = readNamedNumbers(text);
            if (!list) return false;
            std::vector<RadioChannel> channels;
            for (const auto &[name, centre] : *list) {
                if (centre < b.low_MHz || centre > b.high_MHz) return false;
                channels.push_back({name.toStdString(), centre});
            }
            b.channels = std::move(channels);
            return true;
        },
        tr("Of the first band: 1=5660, 2=5700, the first is set until another is chosen; none: hops over all of it"));
    firstBand(
        tr("Blocked at, dBm"), "radio-blocking", [](const RadioBand &b) { return numberText(b.blocking_dBm); },
        [](RadioBand &b, const QString &text) { return setMaybe(b.blocking_dBm, text); },
        tr("Of the first band: the level at its antenna port that overloads it"));
    firstBand(
        tr("Filter takes off, dB"), "radio-filter", [](const RadioBand &b) { return numberText(b.filter_dB); },
        [](RadioBand &b, const QString &text) { return setMaybe(b.filter_dB, text); },
        tr("Of the first band: what its front end takes off what is far from the band"));
    firstBand(
        tr("Intercept, dBm"), "radio-intercept", [](const RadioBand &b) { return numberText(b.intercept_dBm); },
        [](RadioBand &b, const QString &text) { return setMaybe(b.intercept_dBm, text); },
        tr("Of the first band, sending: third order, at its output"));
    firstBand(
        tr("Needs over noise, dB"), "radio-needed", [](const RadioBand &b) { return numberText(b.needed_dB); },
        [](RadioBand &b, const QString &text) { return setMaybe(b.needed_dB, text); },
        tr("Of the first band: signal over noise at which it still works"));
    line(
        tr("Clocks, MHz"), "type-clocks",
        [this] {
            std::vector<std::pair<QString, double>> list;
            for (const auto &c : type_.clocks) list.emplace_back(QString::fromStdString(c.name), c.frequency_MHz);
            return namedNumbersText(list);
        },
        [this](const QString &text) {
            const auto list = readNamedNumbers(text);
            if (!list) return false;
            std::vector<Clock> clocks;
            for (const auto &[name, frequency] : *list) {
                if (!(frequency >= 0.001)) return false;
                clocks.push_back({name.toStdString(), frequency});
            }
            type_.clocks = std::move(clocks);
            return true;
        },
        tr("Steady frequencies inside: pixel clock=27"));
}

void PartEditor::makeAntennaForm() {
    heading(tr("Antenna"));
    choice(
        tr("It is"), "type-antenna", QStringList{tr("no antenna")} + wordsUpTo(AntennaKind::loadedDipole),
        [this] { return type_.antenna ? int(type_.antenna->kind) + 1 : 0; },
        [this](int index) {
            if (index == 0)
                type_.antenna.reset();
            else {
                if (!type_.antenna) type_.antenna.emplace();
                type_.antenna->kind = AntennaKind(index - 1);
            }
        });
    auto antenna = [this](const QString &label, const QString &name, auto get, auto set) {
        line(
            label, name, [this, get] { return type_.antenna ? get(*type_.antenna) : QString(); },
            [this, set](const QString &text) {
                return type_.antenna ? set(*type_.antenna, text) : text.trimmed().isEmpty();
            });
    };
    antenna(
        tr("Band, MHz"), "antenna-band",
        [](const Antenna &a) { return numberText(a.low_MHz) + " - " + numberText(a.high_MHz); },
        [](Antenna &a, const QString &text) {
            const auto ends = text.split('-');
            return ends.size() == 2 && setNumber(a.low_MHz, ends[0]) && setNumber(a.high_MHz, ends[1]);
        });
    antenna(
        tr("Gain, dBi"), "antenna-gain", [](const Antenna &a) { return numberText(a.gain_dBi); },
        [](Antenna &a, const QString &text) { return setNumber(a.gain_dBi, text); });
    antenna(
        tr("Phase centre, mm"), "antenna-centre", [](const Antenna &a) { return vectorText(a.phaseCentre_mm); },
        [](Antenna &a, const QString &text) { return setVector(a.phaseCentre_mm, text); });
    antenna(
        tr("Axis"), "antenna-axis", [](const Antenna &a) { return directionText(a.axis); },
        [](Antenna &a, const QString &text) { return setDirection(a.axis, text); });
    choice(
        tr("Polarisation"), "antenna-polarisation", wordsUpTo(Polarisation::leftCircular),
        [this] { return type_.antenna ? int(type_.antenna->polarisation) : 0; },
        [this](int index) {
            if (type_.antenna) type_.antenna->polarisation = Polarisation(index);
        });
    antenna(
        tr("Pigtail, mm"), "antenna-pigtail", [](const Antenna &a) { return numberText(a.pigtail_mm); },
        [](Antenna &a, const QString &text) { return setNumber(a.pigtail_mm, text) && a.pigtail_mm >= 0; });
    antenna(
        tr("Connector"), "antenna-connector", [](const Antenna &a) { return QString::fromStdString(a.connector); },
        [](Antenna &a, const QString &text) {
            a.connector = text.trimmed().toStdString();
            return true;
        });
    antenna(
        tr("Coax"), "antenna-coax", [](const Antenna &a) { return QString::fromStdString(a.coax); },
        [](Antenna &a, const QString &text) {
            const CoaxKind *coax = findCoax(text.trimmed().toStdString());
            if (!coax && !text.trimmed().isEmpty()) return false;
            a.coax = coax ? std::string(coax->id) : std::string();
            return true;
        });
    antenna(
        tr("Axial ratio, dB"), "antenna-axial", [](const Antenna &a) { return numberText(a.axialRatio_dB); },
        [](Antenna &a, const QString &text) {
            return setMaybe(a.axialRatio_dB, text) &&
                   (!a.axialRatio_dB || (*a.axialRatio_dB >= 0 && *a.axialRatio_dB <= 60));
        });
    antenna(
        tr("Measured pattern, °=dBi"), "antenna-pattern",
        [](const Antenna &a) {
            std::vector<std::pair<QString, double>> list;
            for (const auto &p : a.pattern) list.emplace_back(numberText(p.angle_deg), p.gain_dBi);
            return namedNumbersText(list);
        },
        [](Antenna &a, const QString &text) {
            const auto list = readNamedNumbers(text);
            if (!list) return false;
            std::vector<PatternPoint> pattern;
            for (const auto &[name, gain] : *list) {
                bool fine = false;
                const double angle = name.toDouble(&fine);
                if (!fine || angle < 0 || angle > 180 || (!pattern.empty() && angle <= pattern.back().angle_deg))
                    return false;
                pattern.push_back({angle, gain});
            }
            a.pattern = std::move(pattern);
            return true;
        });
}

void PartEditor::makeCameraForm() {
    heading(tr("Camera"));
    auto camera = [this](const QString &label, const QString &name, auto get, auto set) {
        line(
            label, name, [this, get] { return type_.camera ? get(*type_.camera) : QString(); },
            [this, set](const QString &text) {
                if (text.trimmed().isEmpty()) return true;
                Camera edited = type_.camera.value_or(Camera{});
                if (!set(edited, text)) return false;
                type_.camera = edited;
                return true;
            });
    };
    camera(
        tr("Lens at, mm"), "camera-lens", [](const Camera &c) { return vectorText(c.lens_mm); },
        [](Camera &c, const QString &text) { return setVector(c.lens_mm, text); });
    camera(
        tr("Looks"), "camera-axis", [](const Camera &c) { return directionText(c.axis); },
        [](Camera &c, const QString &text) { return setDirection(c.axis, text); });
    camera(
        tr("View across x high, °"), "camera-view",
        [](const Camera &c) { return numberText(c.horizontalView_deg) + " x " + numberText(c.verticalView_deg); },
        [](Camera &c, const QString &text) {
            const auto sides = text.split('x');
            return sides.size() == 2 && setNumber(c.horizontalView_deg, sides[0]) &&
                   setNumber(c.verticalView_deg, sides[1]);
        });
    camera(
        tr("Tilt from .. to, °"), "camera-tilt",
        [](const Camera &c) { return numberText(c.tiltMin_deg) + " .. " + numberText(c.tiltMax_deg); },
        [](Camera &c, const QString &text) {
            const auto ends = text.split("..");
            return ends.size() == 2 && setNumber(c.tiltMin_deg, ends[0]) && setNumber(c.tiltMax_deg, ends[1]);
        });
}

void PartEditor::setMagnetics(const std::function<void(Magnetics &)> &change) {
    Magnetics magnetics = type_.magnetics.value_or(Magnetics{});
    change(magnetics);
    type_.magnetics.reset();
    if (!(magnetics == Magnetics{})) type_.magnetics = magnetics; // emptied fields leave none behind
}

void PartEditor::makeMagnetismForm() {
    heading(tr("Magnetism"));
    line(
        tr("Magnet, mA m²"), "type-dipole",
        [this] {
            return type_.magnetics && !type_.magnetics->dipole_mAm2.isZero() ? vectorText(type_.magnetics->dipole_mAm2)
                                                                             : QString();
        },
        [this](const QString &text) {
            Vec3 dipole = Vec3::Zero();
            if (!text.trimmed().isEmpty() && !setVector(dipole, text)) return false;
            setMagnetics([&](Magnetics &m) { m.dipole_mAm2 = dipole; });
            return true;
        },
        tr("Permanent moment along x, y, z; a small buzzer has about 10"));
    line(
        tr("Compass at, mm"), "type-compass",
        [this] {
            return type_.magnetics && type_.magnetics->compass_mm ? vectorText(*type_.magnetics->compass_mm)
                                                                  : QString();
        },
        [this](const QString &text) {
            std::optional<Vec3> at;
            if (!text.trimmed().isEmpty() && !setVector(at.emplace(), text)) return false;
            setMagnetics([&](Magnetics &m) { m.compass_mm = at; });
            return true;
        },
        tr("Where its magnetic sensor sits; empty: it has none"));
    line(
        tr("Compass chip turned, °"), "type-compass-turn",
        [this] {
            return type_.magnetics && type_.magnetics->compassTurn_deg != 0
                       ? numberText(type_.magnetics->compassTurn_deg)
                       : QString();
        },
        [this](const QString &text) {
            double turn = 0;
            if (!text.trimmed().isEmpty() && !setAngle(turn, text)) return false;
            setMagnetics([&](Magnetics &m) { m.compassTurn_deg = turn; });
            return true;
        },
        tr("How the chip lies in the module against its arrow: to the left, seen from above"));
    choice(
        tr("Compass chip looks"), "type-compass-back", {tr("up"), tr("down")},
        [this] { return type_.magnetics && type_.magnetics->compassOnItsBack ? 1 : 0; },
        [this](int index) { setMagnetics([&](Magnetics &m) { m.compassOnItsBack = index == 1; }); });
    choice(
        tr("Steel in it"), "type-ferrous", {tr("no"), tr("yes")},
        [this] { return type_.magnetics && type_.magnetics->ferrous ? 1 : 0; },
        [this](int index) { setMagnetics([&](Magnetics &m) { m.ferrous = index == 1; }); });
}

void PartEditor::makeHardwareForm() {
    heading(tr("Hardware"));
    measured(tr("Motor: depth of its threads, mm"), "type-thread-depth", [this] { return &type_.threadDepth_mm; });
    choice(
        tr("It is"), "type-fastener", QStringList{tr("no fastener")} + wordsUpTo(FastenerForm::standoff),
        [this] { return type_.fastener ? int(type_.fastener->form) + 1 : 0; },
        [this](int index) {
            if (index == 0)
                type_.fastener.reset();
            else {
                if (!type_.fastener) type_.fastener.emplace();
                type_.fastener->form = FastenerForm(index - 1);
            }
        });
    QStringList threads;
    for (const auto &thread : allThreads()) threads << fromView(thread.name);
    choice(
        tr("Thread"), "fastener-thread", threads,
        [this, threads] {
            return type_.fastener ? std::max(0, int(threads.indexOf(QString::fromStdString(type_.fastener->thread))))
                                  : 0;
        },
        [this, threads](int index) {
            if (type_.fastener) type_.fastener->thread = threads[index].toStdString();
        });
    choice(
        tr("Head"), "fastener-head", wordsUpTo(HeadStyle::countersunk),
        [this] { return type_.fastener ? int(type_.fastener->head) : 0; },
        [this](int index) {
            if (type_.fastener) type_.fastener->head = HeadStyle(index);
        });
    auto length = [this](const QString &label, const QString &name, double FastenerData::*field) {
        line(
            label, name,
            [this, field] {
                return type_.fastener && (*type_.fastener).*field > 0 ? numberText((*type_.fastener).*field)
                                                                      : QString();
            },
            [this, field](const QString &text) {
                double value = 0;
                if (!text.trimmed().isEmpty() && (!setNumber(value, text) || value < 0)) return false;
                if (!type_.fastener) return text.trimmed().isEmpty();
                (*type_.fastener).*field = value;
                return true;
            });
    };
    length(tr("Length or height, mm"), "fastener-length", &FastenerData::length_mm);
    length(tr("Male end, mm"), "fastener-stud", &FastenerData::stud_mm);
    length(tr("Female thread deep, mm; empty: through"), "fastener-bore", &FastenerData::bore_mm);
    line(
        tr("Pieces in one set"), "fastener-pieces",
        [this] { return type_.fastener ? QString::number(type_.fastener->pieces) : QString(); },
        [this](const QString &text) {
            const auto pieces = readLength(text);
            if (!type_.fastener) return text.trimmed().isEmpty();
            if (!pieces || *pieces < 1 || *pieces > 64) return false;
            type_.fastener->pieces = int(*pieces);
            return true;
        });
    number(tr("Strap or tie: length as sold, mm"), "type-strap", [this] { return &type_.strapLength_mm; });
    number(tr("Sink or fins: area in the air, cm²"), "type-cooling", [this] { return &type_.coolingArea_cm2; });
}

void PartEditor::makeJointsForm() {
    joints_ = std::make_unique<RecordTable<Travel>>(
        tr("Joints: what turns, the outermost first"),
        std::vector<RecordColumn<Travel>>{
            {tr("Joint"), 70, [](const Travel &t) { return QString::fromStdString(t.name); },
             [](Travel &t, const QString &text) {
                 t.name = text.trimmed().toStdString();
                 return true;
             }},
            {tr("Pivot, mm"), 90, [](const Travel &t) { return vectorText(t.pivot_mm); },
             [](Travel &t, const QString &text) { return setVector(t.pivot_mm, text); }},
            {tr("Axis"), 70, [](const Travel &t) { return vectorText(t.axis); },
             [](Travel &t, const QString &text) { return setDirection(t.axis, text); }},
            {tr("from °"), 52, [](const Travel &t) { return numberText(t.from_deg); },
             [](Travel &t, const QString &text) { return setAngle(t.from_deg, text); }},
            {tr("to °"), 52, [](const Travel &t) { return numberText(t.to_deg); },
             [](Travel &t, const QString &text) { return setAngle(t.to_deg, text); }},
            {tr("Body"), 0, [](const Travel &t) { return QString::number(t.firstSolid + 1); },
             [](Travel &t, const QString &text) {
                 const auto body = readLength(text);
                 if (!body || *body < 1 || *body > 1000) return false;
                 t.firstSolid = int(*body) - 1;
                 return true;
             }}},
        [this] { return &type_.travels; }, unreadable());
    joints_->widget()->setObjectName("joints");
    joints_->widget()->setToolTip(
        tr("A gimbal's axes, a leg that folds, a servo's arm. From and to: degrees from how it is drawn. Body: the "
           "first of its bodies that turns, those after it turn too."));
    table(*joints_, tr("Add a joint"), Travel{"tilt", Vec3::Zero(), Vec3::UnitY(), -30, 30, 0});
}

} // namespace waxis::kit
