// What the sentences say that matter here: place, time, satellites in use and in view.
#pragma once

#include "core/nmea/sentence.h"

#include <optional>

namespace waxis {

/// Degrees, north and east positive.
struct GeoPlace {
    double latitude_deg = 0, longitude_deg = 0;
};

/// Every value that the receiver left out is none.
struct GgaFix {
    std::optional<double> time_s; ///< of the day, UTC
    std::optional<GeoPlace> place;
    int quality = 0;               ///< 0: no fix
    std::optional<int> satellites; ///< in use; receivers stop counting at 12
    std::optional<double> hdop, altitude_m, geoidSeparation_m;
};
struct RmcFix {
    std::optional<double> time_s;
    bool isValid = false;
    std::optional<GeoPlace> place;
    std::optional<double> speed_ms, course_deg;
    std::optional<int> day, month, year; ///< year with its century: 1980 to 2079
};
struct GsaUse {
    int fix = 1;                   ///< 1 none, 2 flat, 3 in space
    ShortList<int, 12> satellites; ///< numbers as they are sent
    std::optional<double> pdop, hdop, vdop;
    std::optional<int> system; ///< from version 4.10: 1 GPS, 2 GLONASS, 3 Galileo, 4 BeiDou, 5 QZSS
};
struct GsvSatellite {
    int number = 0;
    std::optional<double> elevation_deg, azimuth_deg;
    std::optional<double> ratio_dBHz; ///< carrier to noise; none: in view and not heard
};
struct GsvPart {
    int parts = 1, part = 1, inView = 0;
    ShortList<GsvSatellite, 8> satellites; ///< four by the standard
    std::string_view signal;               ///< from version 4.10; empty: not said
};

struct GllFix {
    std::optional<double> time_s;
    std::optional<GeoPlace> place;
    bool isValid = false;
};
struct VtgTrack {
    std::optional<double> course_deg, speed_ms;
};
struct ZdaTime {
    std::optional<double> time_s;
    std::optional<int> day, month, year;
};
/// What a receiver says in words, as when it starts.
struct TxtNote {
    int parts = 1, part = 1;
    std::string_view words;
};

/// Errors: another type of sentence, fields that are missing or cannot be read; which one.
Result<GgaFix, NmeaError> ggaFrom(const NmeaSentence &sentence);
Result<RmcFix, NmeaError> rmcFrom(const NmeaSentence &sentence);
Result<GsaUse, NmeaError> gsaFrom(const NmeaSentence &sentence);
Result<GsvPart, NmeaError> gsvFrom(const NmeaSentence &sentence);
/// The same into a part that is used again.
std::optional<NmeaError> readGsv(const NmeaSentence &sentence, GsvPart &part);
Result<GllFix, NmeaError> gllFrom(const NmeaSentence &sentence);
Result<VtgTrack, NmeaError> vtgFrom(const NmeaSentence &sentence);
Result<ZdaTime, NmeaError> zdaFrom(const NmeaSentence &sentence);
Result<TxtNote, NmeaError> txtFrom(const NmeaSentence &sentence);

} // namespace waxis
