// Inside report_json: radios, who disturbs whom, compasses, coverage.
#pragma once

#include "core/analysis/analysis.h"
#include "core/coverage/coverage.h"
#include "core/studies/radio_places.h"
#include "io/json/write_model.h"

namespace waxis::io {

OrderedJson radioJson(const Analysis &analysis);
OrderedJson coverageJson(const RadioCoverage &coverage);
OrderedJson lineShadowJson(const LineShadow &shadow);
OrderedJson placeJson(const std::string &part, const PlaceReport &place);
OrderedJson turnJson(const PartTurn &turn);
OrderedJson settingJson(const RadioSetting &setting);

} // namespace waxis::io
