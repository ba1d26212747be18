#include "app/stages/radio/ground_page.h"

#include "app/theme/metrics.h"
#include "app/widgets/typed_number.h"
#include "core/edits/radio_edits.h"
#include "core/radio/decibel.h"
#include "core/radio/radio_report.h"
#include "core/rules/wording.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::radio {

GroundPage::GroundPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("ground-page");
    which_ = new QComboBox;
    which_->setObjectName("ground-which");
    which_->setAccessibleName(tr("Ground station"));
    add_ = new QComboBox;
    add_->setObjectName("ground-add");
    add_->setAccessibleName(tr("Add a ground station for a radio aboard"));
    remove_ = new QToolButton;
    remove_->setObjectName("ground-remove");
    remove_->setText(tr("Remove"));
    auto *bar = new QHBoxLayout;
    bar->addWidget(which_);
    bar->addWidget(add_);
    bar->addWidget(remove_);
    bar->addStretch(1);

    form_ = new QWidget;
    rows_ = new QFormLayout(form_);
    rows_->setContentsMargins(0, 0, 0, 0);
    rows_->setVerticalSpacing(4);
    name_ = new QLineEdit;
    name_->setObjectName("ground-name");
    name_->setAccessibleName(tr("Name of the ground station"));
    rows_->addRow(tr("name"), name_);
    using G = GroundStation;
    using Value = std::optional<double>;
    addField(
        tr("distance wanted"), "ground-distance", tr("m"), Measure::distance,
        [](const G &g) { return Value(g.distance_m); }, [](G &g, Value v) { g.distance_m = v.value_or(500); });
    addField(
        tr("antenna gain"), "ground-gain", tr("dBi"), Measure::decibel, [](const G &g) { return Value(g.gain_dBi); },
        [](G &g, Value v) { g.gain_dBi = v.value_or(2.15); });
    polarisation_ = new QComboBox;
    polarisation_->setObjectName("ground-polarisation");
    polarisation_->setAccessibleName(tr("Polarisation"));
    polarisation_->addItems({tr("linear"), tr("right-hand circular"), tr("left-hand circular")});
    rows_->addRow(tr("polarisation"), polarisation_);
    addField(
        tr("height there"), "ground-height", tr("m"), Measure::distance, [](const G &g) { return Value(g.height_m); },
        [](G &g, Value v) { g.height_m = v.value_or(1.5); });
    addField(
        tr("craft's height"), "ground-craft-height", tr("m"), Measure::distance,
        [](const G &g) { return Value(g.craftHeight_m); }, [](G &g, Value v) { g.craftHeight_m = v.value_or(40); });
    addField(
        tr("sends with"), "ground-power", tr("dBm"), Measure::level, [](const G &g) { return g.power_dBm; },
        [](G &g, Value v) { g.power_dBm = v; });
    addField(
        tr("noise figure"), "ground-noise", tr("dB"), Measure::decibel, [](const G &g) { return g.noiseFigure_dB; },
        [](G &g, Value v) { g.noiseFigure_dB = v; });
    addField(
        tr("signal over noise"), "ground-needed", tr("dB"), Measure::decibel, [](const G &g) { return g.needed_dB; },
        [](G &g, Value v) { g.needed_dB = v; });
    facts_ = new QLabel;
    facts_->setObjectName("ground-facts");
    facts_->setTextFormat(Qt::RichText);
    facts_->setWordWrap(true);
    facts_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(facts_);
    auto *middle = new QHBoxLayout;
    form_->setFixedWidth(280);
    middle->addWidget(form_, 0, Qt::AlignTop);
    middle->addSpacing(16);
    middle->addWidget(scroll, 1);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(12, 10, 12, 10);
    all->addLayout(bar);
    all->addSpacing(6);
    all->addLayout(middle, 1);

    connect(which_, &QComboBox::activated, this, &GroundPage::refresh);
    connect(add_, &QComboBox::activated, this, [this](int index) {
        const QStringList key = add_->itemData(index).toString().split(QLatin1Char('|'));
        if (key.size() == 2)
            document_.edit(tr("A ground station"),
                           addGroundStation(document_.build(), key[0].toStdString(), key[1].toInt()));
        which_->setCurrentIndex(which_->count() - 1);
        refresh();
    });
    connect(remove_, &QToolButton::clicked, this, [this] {
        if (const auto *ground = station())
            document_.edit(tr("Remove a ground station"), removeGroundStation(document_.build(), ground->id));
    });
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        if (!name_->isModified()) return;
        name_->setModified(false);
        const auto text = name_->text().trimmed().toStdString();
        if (!text.empty()) change(tr("Rename a ground station"), [&](G &g) { g.name = text; });
    });
    connect(polarisation_, &QComboBox::activated, this, [this](int index) {
        change(tr("Polarisation on the ground"), [&](G &g) { g.polarisation = Polarisation(index); });
    });
    connect(&document_, &app::Document::changed, this, &GroundPage::refresh);
    scroll->setObjectName("side-scroll");
    theme_.dress(*this, theme::Ground::panel);
    connect(&theme_, &theme::Theme::changed, this, &GroundPage::refresh);
    refresh();
}

void GroundPage::addField(const QString &title, const char *name, const QString &unit, Measure measure,
                          std::optional<double> (*get)(const GroundStation &),
                          void (*set)(GroundStation &, std::optional<double>)) {
    auto *edit = new QLineEdit;
    edit->setObjectName(name);
    edit->setAccessibleName(tr("%1 in %2").arg(title, unit));
    edit->setFont(theme_.numbers(12));
    rows_->addRow(title, edit);
    const std::size_t index = fields_.size();
    fields_.push_back({edit, unit, get, set});
    connect(edit, &QLineEdit::editingFinished, this, [this, index, title, measure] {
        const Field &field = fields_[index];
        if (!field.edit->isModified()) return;
        field.edit->setModified(false);
        const QString typed = field.edit->text().trimmed();
        const auto value = app::typedNumber(typed, measure);
        if (!typed.isEmpty() && !value)
            emit document_.refused(app::notUnderstood(typed, measure));
        else
            change(tr("%1 of a ground station").arg(title), [&](GroundStation &g) { field.set(g, value); });
        refresh();
    });
}

QString GroundPage::facts() const { return facts_->text(); }

const GroundStation *GroundPage::station() const {
    const std::string id = which_->currentData().toString().toStdString();
    for (const auto &ground : document_.build().groundStations)
        if (ground.id == id) return &ground;
    return nullptr;
}

void GroundPage::change(const QString &name, const std::function<void(GroundStation &)> &how) {
    const GroundStation *ground = station();
    if (!ground) return;
    GroundStation next = *ground;
    how(next);
    document_.edit(name, editGroundStation(document_.build(), next));
}

void GroundPage::refresh() {
    const RadioReport &report = *document_.analysis().derived.radio;
    fillBoxes();
    const GroundStation *ground = station();
    form_->setVisible(ground);
    which_->setVisible(ground);
    remove_->setVisible(ground);
    const auto &c = theme_.colors();
    if (!ground) {
        facts_->setText(
            tr("<p>Nobody listens on the ground yet. Choose a radio aboard in <i>Add for...</i>: the link is then "
               "worked out both ways.</p>"));
        return;
    }
    app::putText(name_, QString::fromStdString(ground->name));
    for (const auto &field : fields_) {
        const auto value = field.get(*ground);
        app::putText(field.edit, value ? QStringLiteral("%1 %2").arg(*value).arg(field.unit) : QString());
        field.edit->setPlaceholderText(tr("like the radio aboard"));
    }
    QString text;
    for (const auto &range : report.ranges)
        if (range.ground == ground->id) text += linkText(range, *ground);
    text += QStringLiteral("<p style='color:%1'>%2</p>")
                .arg(c.muted.name(),
                     tr("Left out: trees, walls and people in the way, reflections, the craft turning its body or "
                        "an antenna's null towards you, interference from others. Range is a ceiling, not a "
                        "promise."));
    text += QStringLiteral("<p><b>%1</b></p>")
                .arg(tr("Local law decides which band and power may be used, and whether a licence is needed. This "
                        "program does "
                        "not know it: ask the local authority."));
    facts_->setText(text);
    facts_->setFont(theme_.text(12));
}

void GroundPage::fillBoxes() {
    const Build &build = document_.build();
    const RadioReport &report = *document_.analysis().derived.radio;
    const QSignalBlocker a(which_), b(add_), d(polarisation_);
    const QString before = which_->currentData().toString();
    which_->clear();
    for (const auto &ground : build.groundStations)
        which_->addItem(QString::fromStdString(ground.name.empty() ? ground.id : ground.name),
                        QString::fromStdString(ground.id));
    which_->setCurrentIndex(std::max(0, which_->findData(before)));
    add_->clear();
    add_->addItem(tr("Add for..."));
    for (const auto &radio : report.radios)
        if (radio.kind != PartKind::gps)
            add_->addItem(QString::fromStdString(displayName(build, radio.part)),
                          QStringLiteral("%1|%2").arg(QString::fromStdString(radio.part)).arg(radio.band));
    if (const auto *ground = station()) polarisation_->setCurrentIndex(int(ground->polarisation));
}

QString GroundPage::linkText(const RangeReport &range, const GroundStation &ground) const {
    const auto &c = theme_.colors();
    const double wanted = document_.analysis().practice[Limit::linkMargin];
    QString text;
    const auto line = [&](const QString &name, double value, const QString &unit, int digits = 1) {
        text += QStringLiteral(
                    "<tr><td style='color:%4; padding-right:14px'>%1</td><td align=right>%2</td><td>&nbsp;%3</td></tr>")
                    .arg(name, QString::number(value, 'f', digits), unit, c.muted.name());
    };
    const Severity severity = range.margin_dB < 0        ? Severity::stop
                              : range.margin_dB < wanted ? Severity::watch
                                                         : Severity::pass;
    text += QStringLiteral("<p><b>%1</b> &nbsp; <span style='color:%2'><b>%3</b></span></p><table cellspacing=2>")
                .arg(range.down ? tr("Down, to the ground") : tr("Up, to the craft"),
                     (severity == Severity::pass ? c.ink : c.severity(severity)).name(),
                     tr("%1 dB to spare at %2 m").arg(range.margin_dB, 0, 'f', 0).arg(range.distance_m, 0, 'f', 0));
    line(tr("sent"), range.power_dBm, QStringLiteral("dBm"));
    line(tr("antenna aboard, best level direction"), range.gainHere_dBi, QStringLiteral("dBi"));
    line(tr("antenna on the ground"), ground.gain_dBi, QStringLiteral("dBi"));
    line(tr("cables aboard"), -range.cable_dB, QStringLiteral("dB"));
    line(tr("polarisation"), -range.polarisation_dB, range.sameHand ? QStringLiteral("dB") : tr("dB: opposite hands"));
    line(tr("free space"), -range.freeSpace_dB, QStringLiteral("dB"));
    line(tr("arrives"), range.arrives_dBm, QStringLiteral("dBm"));
    line(tr("noise floor"), range.noise_dBm, QStringLiteral("dBm"));
    line(tr("needed"), range.sensitivity_dBm, QStringLiteral("dBm"));
    line(tr("holds %1 dB up to").arg(wanted), range.kept_m, QStringLiteral("m"), 0);
    line(tr("ceiling in free space"), range.ceiling_m, QStringLiteral("m"), 0);
    line(tr("left straight above"), range.overhead_dB, QStringLiteral("dB"), 0);
    line(tr("first Fresnel zone halfway, radius"), range.fresnel_m, QStringLiteral("m"));
    line(tr("line over flat ground there"), range.clearance_m, QStringLiteral("m"));
    text += QStringLiteral("</table>");
    if (!range.assumed.empty()) {
        QStringList assumed;
        for (const auto &key : range.assumed) assumed << QString::fromStdString(key);
        text += QStringLiteral("<p style='color:%1'>%2</p>")
                    .arg(c.muted.name(), tr("Not stated, assumed: %1.").arg(assumed.join(QStringLiteral(", "))));
    }
    return text;
}

} // namespace waxis::radio
