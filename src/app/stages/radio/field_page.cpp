#include "app/stages/radio/field_page.h"

#include "app/widgets/file_dialogs.h"
#include "core/radio/coupling.h"
#include "core/radio/radio_report.h"
#include "core/rules/wording.h"
#include "core/survey/at_hand.h"

#include <QComboBox>
#include <QFile>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QStandardPaths>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::radio {

namespace {

QString listed(const Build &build, const std::vector<std::string> &ids) {
    QStringList names;
    for (const auto &id : ids) names << QString::fromStdString(withinSentence(displayName(build, id)));
    return names.join(QStringLiteral(", "));
}

} // namespace

FieldPage::FieldPage(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), path_(QStandardPaths::findExecutable("nec2c")) {
    setObjectName("field-page");
    const auto combo = [](const char *name, const QString &accessible) {
        auto *c = new QComboBox;
        c->setObjectName(name);
        c->setAccessibleName(accessible);
        return c;
    };
    from_ = combo("study-from", tr("Sender"));
    to_ = combo("study-to", tr("Listener"));
    most_ = combo("study-most", tr("Size of the model"));
    for (const int segments : {800, 2000, 4000}) most_->addItem(tr("at most %1 segments").arg(segments), segments);
    most_->setToolTip(tr("More segments show finer meshes and more plates; the work grows with their cube."));
    const auto button = [](const QString &text, const char *name) {
        auto *b = new QToolButton;
        b->setText(text);
        b->setObjectName(name);
        return b;
    };
    run_ = button(tr("Run"), "study-run");
    cancel_ = button(tr("Cancel"), "study-cancel");
    save_ = button(tr("Save the deck..."), "study-save");
    auto *bar = new QHBoxLayout;
    bar->addWidget(from_);
    bar->addWidget(new QLabel(QStringLiteral("→")));
    bar->addWidget(to_);
    bar->addWidget(most_);
    bar->addWidget(run_);
    bar->addWidget(cancel_);
    bar->addWidget(save_);
    bar->addStretch(1);
    progress_ = new QProgressBar;
    progress_->setTextVisible(false);
    progress_->setMaximumHeight(6);
    state_ = new QLabel;
    state_->setObjectName("study-state");
    state_->setWordWrap(true);
    facts_ = new QLabel;
    facts_->setObjectName("study-facts");
    facts_->setTextFormat(Qt::RichText);
    facts_->setWordWrap(true);
    facts_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    facts_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto *scroll = new QScrollArea;
    scroll->setObjectName("side-scroll");
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidget(facts_);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(12, 10, 12, 10);
    all->addLayout(bar);
    all->addWidget(state_);
    all->addWidget(progress_);
    all->addWidget(scroll, 1);
    tick_.setInterval(250);
    connect(&tick_, &QTimer::timeout, this, [this] {
        const double wanted = expectedSeconds(asked_.segments), gone = double(clock_.elapsed()) * 1e-3;
        progress_->setValue(int(1000 * gone / (gone + std::max(0.3, wanted - gone))));
        state_->setText(
            gone < wanted
                ? tr("Solving %1 segments: about %2 s left").arg(asked_.segments).arg(wanted - gone, 0, 'f', 0)
                : tr("Solving %1 segments: %2 s so far").arg(asked_.segments).arg(gone, 0, 'f', 0));
    });
    connect(&program_, &QProcess::finished, this, &FieldPage::finished);
    connect(&program_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
        if (error != QProcess::FailedToStart) return;
        tick_.stop();
        why_ = tr("%1 does not start.").arg(path_);
        fill();
    });
    connect(run_, &QToolButton::clicked, this, &FieldPage::run);
    connect(cancel_, &QToolButton::clicked, this, &FieldPage::cancel);
    connect(save_, &QToolButton::clicked, this, &FieldPage::saveDeck);
    for (auto *c : {from_, to_, most_})
        connect(c, &QComboBox::activated, this, [this] {
            makeDeck();
            fill();
        });
    connect(&document_, &app::Document::changed, this, [this] {
        if (!isVisible() || document_.isPreviewing()) return;
        listRadios();
        makeDeck();
        fill();
    });
    theme_.dress(*this, theme::Ground::panel);
    connect(&theme_, &theme::Theme::changed, this, &FieldPage::fill);
    fill();
}

FieldPage::~FieldPage() {
    program_.disconnect(this);
    if (isRunning()) {
        program_.kill();
        program_.waitForFinished(2000);
    }
}

QString FieldPage::facts() const { return facts_->text(); }

void FieldPage::setProgram(const QString &path) {
    path_ = path;
    fill();
}

void FieldPage::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    listRadios();
    makeDeck();
    fill();
}

const RadioUse *FieldPage::sender() const {
    for (const auto &radio : document_.analysis().derived.radio->radios)
        if (radio.id() == from_->currentData().toString().toStdString()) return &radio;
    return nullptr;
}

const RadioUse *FieldPage::listener() const {
    for (const auto &radio : document_.analysis().derived.radio->radios)
        if (radio.id() == to_->currentData().toString().toStdString()) return &radio;
    return nullptr;
}

void FieldPage::listRadios() {
    const QSignalBlocker a(from_), b(to_);
    const QString from = from_->currentData().toString(), to = to_->currentData().toString();
    from_->clear();
    to_->clear();
    for (const auto &radio : document_.analysis().derived.radio->radios) {
        if (radio.antennas.empty()) continue;
        const QString id = QString::fromStdString(radio.id());
        const QString name = QString::fromStdString(displayName(document_.build(), radio.part)) +
                             (radio.band > 0 ? tr(", band %1").arg(radio.band + 1) : QString());
        if (radio.sends()) from_->addItem(name, id);
        if (radio.listens) to_->addItem(name, id);
    }
    const auto &pair = document_.radioPair();
    from_->setCurrentIndex(std::max(0, from_->findData(from.isEmpty() ? pair.from : from)));
    int wanted = to_->findData(to.isEmpty() ? pair.to : to);
    if (wanted < 0) // not the sender itself
        for (wanted = 0; wanted + 1 < to_->count() && to_->itemData(wanted) == from_->currentData(); ++wanted) {
        }
    to_->setCurrentIndex(wanted);
}

void FieldPage::makeDeck() {
    deck_.reset();
    why_.clear();
    const RadioUse *a = sender(), *b = listener();
    if (!a || !b) {
        why_ = tr("A sender and a listener with antennas have to be aboard.");
        return;
    }
    FieldStudyOptions options;
    options.mostSegments = most_->currentData().toInt();
    auto deck = fieldDeck(document_.build(), *a, *b, options);
    if (deck)
        deck_ = *deck;
    else
        why_ = tr("No model of these two: %1.").arg(QString::fromStdString(deck.error()));
}

void FieldPage::run() {
    if (!deck_ || path_.isEmpty() || isRunning()) return;
    folder_ = std::make_unique<QTemporaryDir>();
    QFile file(folder_->filePath("study.nec"));
    const std::string text = deck_->text();
    if (!folder_->isValid() || !file.open(QIODevice::WriteOnly) || file.write(text.data(), qint64(text.size())) < 0) {
        why_ = tr("The deck could not be written to %1.").arg(file.fileName());
        return fill();
    }
    file.close();
    asked_ = *deck_;
    result_.reset();
    cancelled_ = false;
    const Practice &practice = document_.analysis().practice;
    const RadioUse *a = sender(), *b = listener();
    for (const auto &from : a->antennas)
        for (const auto &to : b->antennas)
            if (from.part == asked_.from && to.part == asked_.to) {
                const LineShadow *shadow = nullptr;
                for (const auto &s : shadowsSeen(document_.analysis().derived))
                    if ((s.from == from.part && s.to == to.part) || (s.from == to.part && s.to == from.part))
                        shadow = &s;
                const Coupling quick = couple(from, to, asked_.f_MHz, practice, shadow);
                quick_dB_ = quick.total_dB + quick.cable_dB;
                quickFar_dB_ = quick.far_dB;
            }
    clock_.start();
    progress_->setRange(0, 1000);
    progress_->setValue(0);
    program_.setStandardOutputFile(QProcess::nullDevice());
    program_.start(path_, {"-i", file.fileName(), "-o", folder_->filePath("study.out")});
    tick_.start();
    fill();
}

void FieldPage::cancel() {
    if (!isRunning()) return;
    cancelled_ = true;
    program_.kill();
}

void FieldPage::finished(int code, QProcess::ExitStatus status) {
    tick_.stop();
    if (cancelled_) {
        why_ = tr("Cancelled.");
        return fill();
    }
    QFile out(folder_->filePath("study.out"));
    if (status != QProcess::NormalExit || !out.open(QIODevice::ReadOnly)) {
        why_ = tr("The solver stopped without a result (code %1).").arg(code);
        return fill();
    }
    const auto read = readFieldResult(out.readAll().toStdString());
    if (read)
        result_ = *read;
    else
        why_ = tr("The solver's output cannot be used: %1.").arg(QString::fromStdString(read.error()));
    fill();
}

void FieldPage::saveDeck() {
    if (!deck_) return;
    const auto saved = app::saveTextAsking(this, tr("Save the deck"), QStringLiteral("study.nec"),
                                           tr("NEC decks (*.nec)"), deck_->text());
    if (!saved) return;
    if (saved->bad) why_ = saved->said;
    fill();
}

/// With one decimal and a true minus.
static QString signedNumber(double value) {
    return QString::number(value, 'f', 1).replace(QLatin1Char('-'), QChar(0x2212));
}

void FieldPage::fill() {
    const bool running = isRunning();
    run_->setEnabled(deck_ && !path_.isEmpty() && !running);
    cancel_->setVisible(running);
    progress_->setVisible(running);
    save_->setEnabled(deck_.has_value());
    if (!running)
        state_->setText(
            path_.isEmpty()
                ? tr("The solver nec2c is not installed. On Debian: the package nec2c. The deck can be saved and "
                     "solved elsewhere all the same.")
                : why_);
    state_->setVisible(running || path_.isEmpty() || !why_.isEmpty());
    const auto &c = theme_.colors();
    QString text;
    if (result_) text += sumText() + patternText();
    if (deck_) text += deckText();
    text += QStringLiteral("<p style='color:%1'>%2</p>")
                .arg(c.muted.name(), tr("The sender's and the listener's elements are half-wave dipoles at their phase "
                                        "centres; plates are square grids of wires "
                                        "as thick as the mesh over 2π, arms single wires, all perfect conductors. "
                                        "Boards, packs, motors and cables are not in "
                                        "it. Good to about 0.5 dB between bare elements, 1 to 2 dB beside plates."));
    facts_->setText(text);
    facts_->setFont(theme_.text(12));
}

QString FieldPage::sumText() const {
    const auto &c = theme_.colors();
    const Build &build = document_.build();
    QString text;
    text += tr("<p><b>%1 → %2 at %3 MHz</b></p><table cellspacing=3>")
                .arg(QString::fromStdString(displayName(build, asked_.from)),
                     QString::fromStdString(displayName(build, asked_.to)))
                .arg(asked_.f_MHz, 0, 'f', 1);
    const auto row = [&](const QString &name, const QString &value) {
        text += QStringLiteral("<tr><td style='color:%3; padding-right:16px'>%1</td><td align=right>%2</td></tr>")
                    .arg(name, value, c.muted.name());
    };
    row(tr("coupling, field study"), tr("<b>%1 dB</b>").arg(signedNumber(result_->coupling_dB)));
    row(tr("coupling, quick model without cables"), tr("%1 dB").arg(signedNumber(quick_dB_)));
    row(tr("free-space form alone"), tr("%1 dB").arg(signedNumber(quickFar_dB_)));
    row(tr("sender's impedance in its place"),
        tr("%1 %2 %3j ohm")
            .arg(signedNumber(result_->impedance_ohm.real()),
                 result_->impedance_ohm.imag() < 0 ? QStringLiteral("−") : QStringLiteral("+"),
                 QString::number(std::abs(result_->impedance_ohm.imag()), 'f', 1)));
    row(tr("sender's strongest direction"), tr("%1 dBi").arg(signedNumber(result_->peak_dBi)));
    return text + QStringLiteral("</table>");
}

QString FieldPage::patternText() const {
    const auto &c = theme_.colors();
    QString text;
    text += QStringLiteral("<p><b>%1</b></p><table cellspacing=3><tr><td></td>")
                .arg(tr("Gain of the sender's element among the plates, dBi"));
    const std::array<std::pair<QString, double>, 8> sides{{{tr("ahead"), 0},
                                                           {tr("ahead left"), 45},
                                                           {tr("left"), 90},
                                                           {tr("behind left"), 135},
                                                           {tr("behind"), 180},
                                                           {tr("behind right"), 225},
                                                           {tr("right"), 270},
                                                           {tr("ahead right"), 315}}};
    for (const auto &side : sides)
        text += QStringLiteral("<td align=right style='color:%2'>&nbsp;%1</td>").arg(side.first, c.muted.name());
    text += QStringLiteral("</tr>");
    for (const auto &[name, theta] :
         {std::pair(tr("45° up"), 45.0), std::pair(tr("level"), 90.0), std::pair(tr("45° down"), 135.0)}) {
        text += QStringLiteral("<tr><td style='color:%2'>%1</td>").arg(name, c.muted.name());
        for (const auto &side : sides) {
            double gain = -99;
            for (const auto &sample : result_->pattern)
                if (std::abs(sample.theta_deg - theta) < 0.1 && std::abs(sample.phi_deg - side.second) < 0.1)
                    gain = sample.gain_dBi;
            text += QStringLiteral("<td align=right>&nbsp;%1</td>")
                        .arg(gain < -40 ? QStringLiteral("–") : signedNumber(gain));
        }
        text += QStringLiteral("</tr>");
    }
    text += QStringLiteral("</table>");
    return text;
}

QString FieldPage::deckText() const {
    const Build &build = document_.build();
    QString text;
    text += tr("<p><b>The model</b>: %1 segments at %2 MHz").arg(deck_->segments).arg(deck_->f_MHz, 0, 'f', 1);
    if (deck_->mesh_mm > 0)
        text += tr(", mesh %1 mm (%2 wavelengths)")
                    .arg(deck_->mesh_mm, 0, 'f', 1)
                    .arg(deck_->mesh_mm / deck_->lambda_mm, 0, 'f', 3);
    text += tr("; about %1 s.").arg(expectedSeconds(deck_->segments), 0, 'f', 0);
    if (!deck_->modelled.empty()) text += tr("<br>In it: %1.").arg(listed(build, deck_->modelled));
    if (!deck_->leftOut.empty()) text += tr("<br>Left out: %1.").arg(listed(build, deck_->leftOut));
    for (const auto &note : deck_->notes)
        text += QStringLiteral("<br>") + QString::fromStdString(note).toHtmlEscaped() + QStringLiteral(".");
    text += QStringLiteral("</p>");
    return text;
}

} // namespace waxis::radio
