#include "app/shell/quick_look_rows.h"

#include "app/widgets/form_rows.h"
#include "app/widgets/texts.h"
#include "app/widgets/typed_number.h"
#include "core/build/chain.h"
#include "core/edits/group_edits.h"
#include "core/studies/soft_shake.h"
#include "core/studies/warm_look.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>

namespace waxis::app {

namespace {

/// Over several lines by hand: labels that wrap must not stand in a form whose rows hide.
QString broken(const QString &text, const QLabel &label) {
    QStringList lines;
    for (const auto &line : text.split('\n')) lines << brokenAt(line, label.fontMetrics(), kFieldWidth_px);
    return lines.join('\n');
}

QString tens(double kelvin) { return QString::number(kelvin < 20 ? std::round(kelvin) : std::round(kelvin / 5) * 5); }

} // namespace

QString softInWords(const Document &document, const std::string &id) {
    const auto shake = softShake(document.build(), document.analysis(), id, std::size_t(document.loadCase()));
    if (!shake) return {};
    if (!(shake->sag_mm > 0))
        return QuickLookRows::tr("soft: enter how far it sinks under its weight, and its own frequency is known");
    const auto band = [](const FrequencyBand &b) {
        return QStringLiteral("%1–%2").arg(b.least_Hz, 0, 'f', 0).arg(b.most_Hz, 0, 'f', 0);
    };
    QString text = QuickLookRows::tr("swings at %1 Hz, damps what is faster than %2 Hz")
                       .arg(band(shake->own))
                       .arg(shake->isolatesFrom_Hz(), 0, 'f', 0);
    if (!shake->rotor) return text;
    text += QuickLookRows::tr("\npropellers turn %1 times a second in hover: %2 to %3 % of that comes through")
                .arg(band(shake->rotor->turns))
                .arg(100 * shake->leastThrough, 0, 'f', 0)
                .arg(100 * shake->mostThrough, 0, 'f', 0);
    if (!shake->isolates()) text += QuickLookRows::tr("\nwatch: too stiff, it may shake more than it would without");
    return text;
}

QuickLookRows::QuickLookRows(Document &document, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), form_(form) {
    sag_ = new QLineEdit;
    sag_->setObjectName("sag");
    sag_->setAccessibleName(tr("How far the part sinks under its own weight on what is soft, mm"));
    sag_->setPlaceholderText(tr("not measured"));
    form.addRow(tr("sinks by"), sag_);
    connect(sag_, &QLineEdit::editingFinished, this, &QuickLookRows::applySag);
    soft_ = new QLabel;
    soft_->setObjectName("soft-look");
    form.addRow(tr("shaking"), soft_);
    warm_ = new QLabel;
    warm_->setObjectName("warm-look");
    form.addRow(tr("warmth"), warm_);
}

void QuickLookRows::applySag() {
    const Part *part = document_.selectedPart();
    if (!part || !sag_->isModified()) return;
    sag_->setModified(false);
    const QString text = sag_->text().trimmed();
    const auto typed = typedWithDoubt(text, Measure::length);
    if (!text.isEmpty() && !(typed && typed->value > 0))
        emit document_.refused(notUnderstood(text, Measure::length));
    else {
        Fastening fastening = part->fastening;
        fastening.sag_mm = typed ? measuredValue(typed->value, typed->doubt) : Measured{};
        document_.edit(tr("Sag of %1").arg(QString::fromStdString(part->name)),
                       fastenPart(document_.build(), part->id, fastening));
    }
    refresh();
}

QString QuickLookRows::warmInWords(const std::string &part) const {
    const auto look = warmLook(document_.build(), document_.analysis(), part, std::size_t(document_.loadCase()));
    if (!look) return {};
    const auto band = [](const RiseBand &b) {
        constexpr double kSpoilt_K = 150; // no board lives beyond: how far does not matter any more
        if (b.least_K > kSpoilt_K) return tr("over +%1 K").arg(kSpoilt_K);
        if (b.most_K > kSpoilt_K) return tr("+%1 to over +%2 K").arg(tens(b.least_K)).arg(kSpoilt_K);
        return tr("+%1 to +%2 K").arg(tens(b.least_K), tens(b.most_K));
    };
    QString text = tr("%1 W on %2 cm²").arg(look->heat_W, 0, 'f', 1).arg(look->area_cm2, 0, 'f', 0);
    if (!look->sinks.empty()) text += tr(", its sink counted");
    text += tr("\nin still air %1").arg(band(look->still));
    if (look->closedIn())
        text += tr("; shut in as here %1").arg(band(look->closed));
    else if (look->inWash > 0)
        text += tr("\n%1 % of it lies in the wash: %2 where that blows")
                    .arg(100 * look->inWash, 0, 'f', 0)
                    .arg(band(look->wash));
    else
        text += tr("; no wash reaches it");
    const double minutes = look->uncooled_s / 60;
    text +=
        tr("\nwithout air +%1 K in about %2")
            .arg(WarmLook::kRise_K, 0, 'f', 0)
            .arg(minutes < 1.5 ? tr("%1 s").arg(look->uncooled_s, 0, 'f', 0) : tr("%1 min").arg(minutes, 0, 'f', 0));
    if (look->needsAir()) text += tr("\nwatch: it needs air, a sink or less power here");
    return text;
}

void QuickLookRows::refresh() {
    const Part *part = document_.selectedPart();
    if (!part || document_.isPreviewing()) return; // rays take longer than a mouse move may
    const bool onFoam = part->fastening.method == FasteningMethod::tape && !stackPlaceOf(document_.build(), *part);
    showRow(form_, sag_, onFoam || part->fastening.sag_mm.known());
    putText(sag_, writtenWithDoubt(part->fastening.sag_mm, QStringLiteral("mm")));
    const QString soft = softInWords(document_, part->id), warm = warmInWords(part->id);
    showRow(form_, soft_, !soft.isEmpty());
    showRow(form_, warm_, !warm.isEmpty());
    soft_->setText(broken(soft, *soft_));
    warm_->setText(broken(warm, *warm_));
}

} // namespace waxis::app
