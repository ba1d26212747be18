// Every colour of the program stands here, and nowhere else.
#pragma once

#include "core/catalog/part_type.h"
#include "core/findings/finding.h"

#include <QColor>

namespace waxis::theme {

enum class Mode { light, dark };

struct Palette {
    QColor paper, panel, ink, muted, rule, field, link;
    QColor mat, matGrid, matGridStrong, matBar, matFaint, chalk, softChalk;
    QColor plumb, thrustAxis;
    QColor stop, watch, note, unknown;

    QColor severity(Severity severity) const;
};

const Palette &palette(Mode mode);

/// Fill of a part family in drawings; the same in both themes, since the mat is.
QColor familyColor(Family family);

/// Glass of a lens in drawings.
QColor lensColor();

/// Severity colours bright enough for text and marks on the mat.
QColor severityOnMat(Severity severity);

} // namespace waxis::theme
