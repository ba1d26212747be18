// Inside the part editor: typed text into fields of a part type; false where it cannot be read.
#pragma once

#include "app/stages/kit/part_text.h"
#include "io/names.h"

#include <QStringList>

namespace waxis::kit {

inline QString fromView(std::string_view text) { return QString::fromUtf8(text.data(), qsizetype(text.size())); }

/// The words of an enumeration, by trying its values until the last.
template <class E>
QStringList wordsUpTo(E last) {
    QStringList words;
    for (int i = 0; i <= int(last); ++i) words << fromView(io::nameOf(E(i)));
    return words;
}

template <class E>
bool setWord(E &value, const QString &text) {
    const auto found = io::fromName<E>(text.toStdString());
    if (found) value = *found;
    return found.has_value();
}

inline bool setVector(Vec3 &value, const QString &text) {
    const auto v = readVector(text);
    if (v) value = *v;
    return v.has_value();
}

inline bool setDirection(Vec3 &value, const QString &text) {
    const auto v = readDirection(text);
    if (v) value = *v;
    return v.has_value();
}

inline bool setNumber(double &value, const QString &text) {
    const auto v = readLength(text);
    if (v) value = *v;
    return v.has_value();
}

inline bool setAngle(double &value, const QString &text) {
    const auto v = readLength(text);
    if (v && *v >= -360 && *v <= 360) value = *v;
    return v && *v >= -360 && *v <= 360;
}

inline bool setMaybe(std::optional<double> &value, const QString &text) {
    if (text.trimmed().isEmpty()) {
        value.reset();
        return true;
    }
    const auto v = readLength(text);
    if (v) value = v;
    return v.has_value();
}

} // namespace waxis::kit
