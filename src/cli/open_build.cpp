#include "cli/open_build.h"

#include "cli/output.h"

namespace waxis::cli {

Result<Opened, int> open(const std::string &file, const std::string &profile, Streams io) {
    const auto loaded = loadBuild(file);
    if (!loaded) {
        say(io.err, "{}: cannot read the build\n  at {}\n  expected {}\n  found {}\n", file, loaded.error().where,
            loaded.error().expected, loaded.error().found);
        if (!loaded.error().suggestion.empty()) say(io.err, "  {}\n", loaded.error().suggestion);
        return Failure{int(unreadable)};
    }
    for (const auto &warning : loaded->warnings) say(io.err, "{}: {}: {}\n", file, warning.where, warning.message);
    PracticeSettings settings = loaded->build.practice;
    if (isProfile(profile))
        settings.profile = profile;
    else if (!profile.empty()) {
        const auto own = loadPractice(profile);
        if (!own) {
            say(io.err, "{}: neither a profile (sprint, flow, range, lift, pocket) nor a practice file\n  {}\n",
                profile, own.error().text());
            return Failure{int(unreadable)};
        }
        settings = own->settings;
    }
    return Opened{loaded->build, practiceOf(settings), loaded->kept, loaded->stamp};
}

} // namespace waxis::cli
