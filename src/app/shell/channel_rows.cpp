#include "app/shell/channel_rows.h"

#include "app/widgets/form_rows.h"
#include "app/widgets/function_text.h"
#include "app/widgets/typed_number.h"
#include "core/edits/channel_edits.h"

#include <QFormLayout>
#include <QLineEdit>

namespace waxis::app {

ChannelRows::ChannelRows(Document &document, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), form_(form) {
    channels_ = new QLineEdit;
    channels_->setObjectName("channels");
    channels_->setAccessibleName(tr("What the channels do, in order"));
    form.addRow(tr("channels"), channels_);
    connect(channels_, &QLineEdit::editingFinished, this, &ChannelRows::apply);
}

void ChannelRows::apply() {
    const Part *part = document_.selectedPart();
    if (!part || !channels_->isModified()) return;
    channels_->setModified(false);
    const auto list = readFunctions(channels_->text());
    if (!list)
        emit document_.refused(
            tr("\"%1\" names something that is no function: %2.").arg(channels_->text().trimmed(), functionWords()));
    else
        document_.edit(tr("Channels of %1").arg(QString::fromStdString(part->name)),
                       setChannels(document_.build(), part->id, *list));
    refresh();
}

void ChannelRows::refresh() {
    const Part *part = document_.selectedPart();
    const PartType *type = part ? typeOf(document_.build(), *part) : nullptr;
    const bool shown = type && hasChannels(*type);
    showRow(form_, channels_, shown);
    if (!shown) return;
    putText(channels_, functionsText(part->channels));
    channels_->setPlaceholderText(type->functions.empty() ? tr("not stated") : functionsText(type->functions));
    QString says = tr("What it wants on a channel.");
    if (type->kind == PartKind::receiver) says = tr("What it sends on channel 1, 2, 3 and so on.");
    if (type->kind == PartKind::flightController) says = tr("What it expects on channel 1, 2, 3 and so on.");
    channels_->setToolTip(tr("%1 Words: %2").arg(says, functionWords()));
}

} // namespace waxis::app
