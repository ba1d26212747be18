// The log as files hold it. The states that can be gone back to are written by io/json/snapshots.h.
#pragma once

#include "core/build/log.h"
#include "io/json/described.h"

namespace waxis::io {

template <class V, Is<Session> T>
void describe(V &v, T &session) {
    v.must("id", session.id);
    v.sparse("name", session.name);
    v.must("at", session.at);
    v.sparse("place", session.place);
    v.sparse("height_m", session.height_m);
    v.sparse("field_uT", session.field_uT);
    v.sparse("air_C", session.air_C);
    v.sparse("wind", session.wind);
    v.sparse("sky", session.sky);
    v.sparse("loadCase", session.loadCase);
    v.sparse("fingerprint", session.fingerprint);
    v.sparse("state", session.state);
    v.sparse("note", session.note);
    v.sparse("pictures", session.pictures);
}

template <class V, Is<Entry> T>
void describe(V &v, T &entry) {
    v.must("id", entry.id);
    v.must("session", entry.session);
    v.must("quantity", entry.quantity);
    v.sparse("subjects", entry.subjects);
    v.sparse("values", entry.values);
    v.sparse("tolerance", entry.tolerance);
    v.sparse("word", entry.word);
    v.sparse("text", entry.text);
    v.sparse("cure", entry.cure);
    v.sparse("blocks", entry.blocks);
    v.sparse("packFull", entry.packFull, true);
    v.sparse("setAside", entry.setAside);
    v.sparse("loadCase", entry.loadCase);
    v.sparse("instrument", entry.instrument);
    v.sparse("raw", entry.raw);
    v.sparse("at", entry.at);
}

template <class V, Is<StoodAt> T>
void describe(V &v, T &place) {
    v.pose(place.X_FramePart);
}

template <class V, Is<TrialSetup> T>
void describe(V &v, T &setup) {
    v.must("id", setup.id);
    v.must("name", setup.name);
    v.sparse("stood", setup.stood);
    v.sparse("specimen", setup.specimen);
    v.sparse("under", setup.under);
    v.sparse("lead", setup.lead);
    v.sparse("lead_mm", setup.lead_mm);
    v.sparse("shield", setup.shield);
    v.sparse("others", setup.others);
    v.sparse("supply", setup.supply);
    v.sparse("start", setup.start);
    v.sparse("fan", setup.fan);
    v.sparse("note", setup.note);
}

template <class V, Is<TryPoint> T>
void describe(V &v, T &point) {
    v.must("at_s", point.at_s);
    v.must("used", point.used);
    v.must("inView", point.inView);
    v.sparse("best4_dBHz", point.best4_dBHz);
    v.sparse("dilution", point.dilution);
}

template <class V, Is<HeardSatellite> T>
void describe(V &v, T &satellite) {
    v.must("system", satellite.system);
    v.must("number", satellite.number);
    v.must("elevation_deg", satellite.elevation_deg);
    v.must("azimuth_deg", satellite.azimuth_deg);
    v.sparse("ratio_dBHz", satellite.ratio_dBHz);
}

template <class V, Is<Try> T>
void describe(V &v, T &one) {
    v.must("id", one.id);
    v.must("setup", one.setup);
    v.sparse("session", one.session);
    v.sparse("at", one.at);
    v.sparse("value", one.value);
    v.sparse("reached", one.reached, true);
    v.sparse("watched_s", one.watched_s);
    v.sparse("fix_s", one.fix_s);
    v.sparse("reached_s", one.reached_s);
    v.sparse("series", one.series);
    v.sparse("heard", one.heard);
    v.sparse("nose_deg", one.nose_deg);
    v.sparse("instrument", one.instrument);
    v.sparse("rawFile", one.rawFile);
    v.sparse("setAside", one.setAside);
    v.sparse("note", one.note);
}

template <class V, Is<Trial> T>
void describe(V &v, T &trial) {
    v.must("id", trial.id);
    v.must("question", trial.question);
    v.sparse("part", trial.part);
    v.must("quantity", trial.quantity);
    v.sparse("satellites", trial.satellites, 8);
    v.sparse("longest_s", trial.longest_s, 600.0);
    v.sparse("unit", trial.unit);
    v.sparse("moreIsBetter", trial.moreIsBetter);
    v.sparse("setups", trial.setups);
    v.sparse("tries", trial.tries);
    v.sparse("note", trial.note);
}

template <class V, Is<Snapshot> T>
void describe(V &v, T &state) {
    v.must("id", state.id);
    v.must("name", state.name);
    v.must("at", state.at);
    v.sparse("note", state.note);
    v.sparse("fingerprint", state.fingerprint);
}

template <class V, Is<Log> T>
void describe(V &v, T &log) {
    v.sparse("sessions", log.sessions);
    v.sparse("entries", log.entries);
    v.sparse("trials", log.trials);
    v.sparse("states", log.snapshots);
}

} // namespace waxis::io
