#include "io/drawing/dxf_text.h"

#include "io/text_encoding.h"

#include <algorithm>
#include <charconv>
#include <fmt/format.h>
#include <set>

namespace waxis {

/// Kinds of entities that are read or named when they are left out.
static const std::set<std::string, std::less<>> kKnown{
    "SECTION", "ENDSEC", "EOF",    "BLOCK",      "ENDBLK", "LINE",  "ARC",    "CIRCLE", "ELLIPSE",        "POLYLINE",
    "VERTEX",  "SEQEND", "SPLINE", "LWPOLYLINE", "INSERT", "POINT", "TEXT",   "MTEXT",  "ARCALIGNEDTEXT", "ATTDEF",
    "ATTRIB",  "SOLID",  "TRACE",  "3DFACE",     "XLINE",  "RAY",   "LEADER", "HATCH",  "IMAGE",          "DIMENSION"};

std::string readableName(const std::string &text) {
    std::string name;
    for (char c : text)
        if (static_cast<unsigned char>(c) >= 0x20) name += c;
    name = io::asUtf8(name);
    constexpr std::size_t kLongest = 255;
    if (name.size() > kLongest) name = name.substr(0, kLongest);
    return name.empty() ? "0" : name;
}

std::string plainText(const std::string &words) {
    std::string text;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (words[i] == '{' || words[i] == '}') continue;
        if (words[i] != '\\' || i + 1 >= words.size()) {
            text += words[i];
            continue;
        }
        const char code = words[++i];
        if (code == 'P' || code == '~') {
            text += ' ';
        } else if (code == '\\' || code == '{' || code == '}') {
            text += code;
        } else if (std::string_view("LlOoKk").find(code) ==
                   std::string_view::npos) { // those stand alone, the others end with a semicolon
            while (i < words.size() && words[i] != ';') ++i;
        }
    }
    if (text.find_first_not_of(" \t") == std::string::npos) return {};
    return readableName(text);
}

std::optional<LoadError> faultOfText(std::string_view bytes, std::map<std::string, int> &unknownKinds) {
    if (bytes.starts_with("AutoCAD Binary DXF") || bytes.find('\0') != std::string_view::npos)
        return LoadError{"the file", "a DXF drawing as text", "binary data", "save it as ASCII DXF"};
    const std::size_t lines = std::size_t(std::count(bytes.begin(), bytes.end(), '\n')) + 1;
    std::size_t at = 0, number = 0;
    int code = 0;
    bool anySection = false, anyEnd = false;
    std::string_view entity;
    bool inEntities = false;
    while (at < bytes.size()) {
        std::size_t end = bytes.find('\n', at);
        if (end == std::string_view::npos) end = bytes.size();
        std::string_view line = bytes.substr(at, end - at);
        at = end + 1;
        ++number;
        while (!line.empty() && (line.back() == '\r' || line.back() == ' ' || line.back() == '\t'))
            line.remove_suffix(1);
        std::string_view trimmed = line;
        while (!trimmed.empty() && (trimmed.front() == ' ' || trimmed.front() == '\t')) trimmed.remove_prefix(1);
        if (number == 1 && trimmed.starts_with("\xEF\xBB\xBF")) trimmed.remove_prefix(3);
        const std::string where = fmt::format("line {}", number);
        if (line.size() > 4000) return LoadError{where, "a line of at most 4,000 characters", "a longer one", {}};
        if (number % 2 == 1) {
            const auto [last, error] = std::from_chars(trimmed.data(), trimmed.data() + trimmed.size(), code);
            if (error == std::errc() && last == trimmed.data() + trimmed.size() && code >= -5 && code <= 1071) continue;
            if (trimmed.empty() && at >= bytes.size()) break; // blank line at the end
            return LoadError{where, "a group code from -5 to 1071",
                             trimmed.empty() ? "an empty line" : fmt::format("\"{}\"", trimmed.substr(0, 40)),
                             number == 1 ? "is this a DXF drawing?" : ""};
        }
        anySection |= code == 0 && trimmed == "SECTION";
        anyEnd |= code == 0 && (trimmed == "EOF" || trimmed == "ENDSEC");
        if (code == 0) entity = trimmed;
        if (code == 2 && entity == "SECTION") inEntities = trimmed == "ENTITIES" || trimmed == "BLOCKS";
        if (code == 0 && inEntities && !kKnown.contains(trimmed)) ++unknownKinds[std::string(trimmed.substr(0, 60))];
        const bool counts = (entity == "LWPOLYLINE" && code == 90) ||
                            (entity == "SPLINE" && code >= 72 && code <= 74) || (entity == "LEADER" && code == 76) ||
                            (entity == "HATCH" && (code == 91 || code == 93 || (code >= 95 && code <= 97)));
        if (counts) {
            double count = 0;
            std::from_chars(trimmed.data(), trimmed.data() + trimmed.size(), count);
            if (count > double(lines))
                return LoadError{where,
                                 fmt::format("a count of at most the file's {} lines", lines),
                                 fmt::format("{:g}", count),
                                 {}};
        }
    }
    if (!anySection) return LoadError{"the file", "a DXF drawing (SECTION ... ENDSEC)", "no section", {}};
    if (!anyEnd) return LoadError{"the end of the file", "the end of a section", "nothing: the file is cut off", {}};
    return std::nullopt;
}

} // namespace waxis
