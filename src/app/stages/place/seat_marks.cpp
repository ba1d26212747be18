#include "app/stages/place/seat_marks.h"

#include "core/rules/wording.h"

#include <QCoreApplication>
#include <algorithm>

namespace waxis::place {

namespace {

QString say(const char *text) { return QCoreApplication::translate("SeatMarks", text); }

double ringRadius_mm(const Perch &perch, const PartType &type) {
    if (type.mounting && type.mounting->shape == PatternShape::circle) return type.mounting->size_mm / 2 + 4;
    Aabb box;
    for (const auto &solid : type.solids) box.include(boundsOf(solid.shape, solid.X_PartSolid));
    const double half = box.empty() ? 6 : box.size_mm().head<2>().maxCoeff() / 2 + 2;
    constexpr double kLeast_mm = 5, kMost_mm = 26;
    return std::clamp(perch.kind == PerchKind::shaft ? half + 3 : half, kLeast_mm, kMost_mm);
}

QString countWord(std::size_t n) {
    const char *const words[] = {"no", "one", "two", "three", "four", "five", "six", "seven", "eight"};
    return n < 9 ? say(words[n]) : QString::number(n);
}

} // namespace

std::vector<drawing::Picture> seatPictures(drawing::View view, const Build &, const PartType &type,
                                           const std::vector<Perch> &places, const std::vector<Perch> &chosen,
                                           const theme::Theme &theme) {
    std::vector<drawing::Picture> pictures;
    constexpr std::size_t kMost = 24; // more would be wallpaper
    for (const auto &perch : places) {
        if (pictures.size() >= kMost) break;
        const bool strong = std::find(chosen.begin(), chosen.end(), perch) != chosen.end();
        if (perch.rank > 1 && !strong && perch.linesUp) continue;
        drawing::Picture ring;
        const double radius = ringRadius_mm(perch, type);
        ring.path.addEllipse(drawing::project(view, perch.X_FramePart.position_mm), radius, radius);
        ring.line = strong ? theme.colors().thrustAxis : theme.colors().softChalk;
        ring.style = perch.linesUp ? Qt::SolidLine : Qt::DashLine;
        ring.width_px = strong ? 2.2 : 1.4;
        pictures.push_back(std::move(ring));
    }
    return pictures;
}

QString placeWords(const Build &build, const Perch &perch) {
    const QString word = QCoreApplication::translate("Perch", perchWord(perch.kind).data());
    QString text = say("%1 %2").arg(word, QString::fromStdString(nameWithin(build, perch.on)));
    if (!perch.linesUp) {
        double circle = 0;
        for (const auto &mount : build.frame->motorMounts)
            if (mount.id == perch.site) circle = mount.pattern.size_mm;
        text += say(": its circle is %1 mm").arg(circle);
    }
    return text;
}

QString placesWords(const Build &build, const std::vector<Perch> &alike) {
    if (alike.size() == 1) return placeWords(build, alike.front());
    const QString n = countWord(alike.size());
    switch (alike.front().kind) {
    case PerchKind::motorMount: return say("on all %1 mounts").arg(n);
    case PerchKind::shaft: return say("on all %1 motors").arg(n);
    case PerchKind::armUnder: return say("under all %1 arms").arg(n);
    default: return say("on all %1 arms").arg(n);
    }
}

} // namespace waxis::place
