// Whatever bytes come from a serial port, in whatever pieces: counted, never believed when they are wrong, and the same
// however they were cut.
#include "core/log/try_recorder.h"
#include "core/nmea/receiver.h"
#include "fuzz_target.h"

#include <cmath>

using namespace waxis;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size) {
    const std::string bytes(fuzz::textOf(data, size));
    Receiver whole, pieces;
    whole.feed(bytes);
    whole.finish();
    const std::size_t step = size > 0 ? 1 + data[0] % 97 : 1;
    for (std::size_t at = 0; at < bytes.size(); at += step) pieces.feed(std::string_view(bytes).substr(at, step));
    pieces.finish();
    const ReceiverState &state = whole.state();
    fuzz::demand(whole.counts().bytes == bytes.size(), "all bytes are counted");
    fuzz::demand(state.used <= int(state.satellites.size()) + 1000000 && state.used >= -1000000000,
                 "a count of satellites");
    fuzz::demand(state.heard <= state.inView, "what is heard is in view");
    fuzz::demand(!state.best4_dBHz || std::isfinite(*state.best4_dBHz), "a ratio");
    if (state.place)
        fuzz::demand(std::abs(state.place->latitude_deg) <= 90 && std::abs(state.place->longitude_deg) <= 180,
                     "a place on earth");
    // Endless lines are thrown away in another moment when they come in pieces; what has line ends does not care.
    bool hasLongLine = false;
    for (std::size_t from = 0; from < bytes.size();) {
        const std::size_t end = std::min(bytes.find('\n', from), bytes.size());
        hasLongLine |= end - from > kLongestNmea;
        from = end + 1;
    }
    if (!hasLongLine) {
        fuzz::demand(pieces.counts().sentences == whole.counts().sentences, "the same sentences in pieces");
        fuzz::demand(pieces.counts().rounds == whole.counts().rounds, "the same rounds in pieces");
        fuzz::demand(pieces.state().used == state.used, "the same satellites in pieces");
    }
    const Try one = tryFromRecording(bytes);
    for (std::size_t i = 1; i < one.reached_s.size(); ++i)
        fuzz::demand(one.reached_s[i] >= one.reached_s[i - 1], "more satellites later");
    fuzz::demand(std::isfinite(one.watched_s) && one.watched_s >= 0, "a length of the try");
    return 0;
}
