#include "app/shell/radio_rows.h"

#include "app/widgets/form_rows.h"
#include "app/widgets/texts.h"
#include "app/widgets/typed_number.h"
#include "core/edits/radio_edits.h"
#include "core/radio/antennas.h"
#include "core/radio/decibel.h"

#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QSignalBlocker>

namespace waxis::app {

namespace {

QString wordFor(Polarisation polarisation) {
    switch (polarisation) {
    case Polarisation::linear: return RadioRows::tr("linear");
    case Polarisation::rightCircular: return RadioRows::tr("right-hand circular");
    case Polarisation::leftCircular: return RadioRows::tr("left-hand circular");
    }
    return {};
}

} // namespace

RadioRows::RadioRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), form_(form) {
    channel_ = new QComboBox;
    channel_->setObjectName("radio-channel");
    channel_->setAccessibleName(tr("Channel"));
    form.addRow(tr("channel"), channel_);
    power_ = new QLineEdit;
    power_->setObjectName("radio-power");
    power_->setFont(theme.numbers(12));
    power_->setAccessibleName(tr("Power sent in milliwatts"));
    power_->setToolTip(tr("Local law decides on band, power and licence. Empty: as much as the part can."));
    form.addRow(tr("sends with"), power_);
    antenna_ = new QLabel;
    antenna_->setObjectName("antenna-facts");
    form.addRow(tr("antenna"), antenna_);
    connect(channel_, &QComboBox::activated, this, [this](int row) {
        int index = 0;
        const Part *part = document_.selectedPart();
        if (!part || !sendingBand(&index)) return;
        const QVariant value = channel_->itemData(row);
        document_.edit(tr("Channel of %1").arg(QString::fromStdString(part->name)),
                       setChannel(document_.build(), part->id, index,
                                  value.isValid() ? std::optional(value.toDouble()) : std::nullopt));
    });
    connect(power_, &QLineEdit::editingFinished, this, &RadioRows::applyPower);
}

const RadioBand *RadioRows::sendingBand(int *index) const {
    const Part *part = document_.selectedPart();
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    if (type)
        for (std::size_t i = 0; i < type->radio.size(); ++i)
            if (type->radio[i].power_dBm) {
                *index = int(i);
                return &type->radio[i];
            }
    return nullptr;
}

void RadioRows::refresh() {
    const Part *part = document_.selectedPart();
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    if (!type) return;
    int index = 0;
    const RadioBand *band = sendingBand(&index);
    showRow(form_, channel_, band != nullptr);
    showRow(form_, power_, band != nullptr);
    if (band) {
        const RadioSetting setting = settingOf(document_.build(), part->id, index);
        const QSignalBlocker quiet(channel_);
        channel_->clear();
        if (band->channels.empty())
            channel_->addItem(tr("whole band, %1–%2 MHz").arg(band->low_MHz).arg(band->high_MHz));
        for (const auto &channel : band->channels)
            channel_->addItem(tr("%1: %2 MHz").arg(QString::fromStdString(channel.name)).arg(channel.centre_MHz),
                              channel.centre_MHz);
        int chosen = 0;
        if (setting.centre_MHz) {
            chosen = channel_->findData(*setting.centre_MHz);
            if (chosen < 0) {
                channel_->addItem(tr("%1 MHz").arg(*setting.centre_MHz), *setting.centre_MHz);
                chosen = channel_->count() - 1;
            }
        }
        channel_->setCurrentIndex(chosen);
        putText(power_, tr("%1 mW").arg(milliwatts(setting.power_dBm.value_or(*band->power_dBm)), 0, 'f', 0));
    }
    showRow(form_, antenna_, type->antenna.has_value());
    if (type->antenna) {
        const Antenna &a = *type->antenna;
        QString text =
            tr("%1–%2 MHz, %3 dBi, %4").arg(a.low_MHz).arg(a.high_MHz).arg(a.gain_dBi).arg(wordFor(a.polarisation));
        if (!a.connector.empty()) text += tr("; %1").arg(QString::fromStdString(a.connector));
        if (const CoaxKind *coax = findCoax(a.coax))
            text += tr(" on %1").arg(QString::fromUtf8(coax->name.data(), int(coax->name.size())));
        antenna_->setText(brokenAt(text, antenna_->fontMetrics(), kFieldWidth_px));
    }
}

void RadioRows::applyPower() {
    if (!power_->isModified()) return;
    power_->setModified(false);
    int index = 0;
    const Part *part = document_.selectedPart();
    if (!part || !sendingBand(&index)) return;
    const QString typed = power_->text().trimmed();
    const auto value = typedNumber(power_->text(), Measure::power);
    if (!typed.isEmpty() && !(value && *value > 0 && *value <= 1e6))
        emit document_.refused(tr("\"%1\" is no power: milliwatts, more than zero, are wanted.").arg(typed));
    else
        document_.edit(tr("Power of %1").arg(QString::fromStdString(part->name)),
                       setPower(document_.build(), part->id, index,
                                typed.isEmpty() ? std::nullopt : std::optional(dBmFrom(*value))));
    refresh();
}

} // namespace waxis::app
