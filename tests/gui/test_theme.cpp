// Colours that can be read and told apart, also by colour-blind eyes; icons and fonts that are really there.
#include "app/stages/stage_texts.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"

#include <QClipboard>
#include <QFontInfo>
#include <QGuiApplication>
#include <QHeaderView>
#include <QImage>
#include <QPainter>
#include <QtTest>
#include <cmath>

using namespace waxis;
using theme::Mode;
using theme::palette;

namespace {

double linear(double channel) {
    return channel <= 0.04045 ? channel / 12.92 : std::pow((channel + 0.055) / 1.055, 2.4);
}

/// WCAG 2.1 relative luminance and contrast ratio.
double luminance(const QColor &c) {
    return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}
double contrast(const QColor &a, const QColor &b) {
    const double x = luminance(a), y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

struct Linear {
    double r, g, b;
};

/// Full dichromacy after Machado, Oliveira and Fernandes 2009 (severity 1.0; matrices from memory), in linear light.
Linear seenBy(int eye, const QColor &c) {
    static const double matrices[4][9] = {
        {1, 0, 0, 0, 1, 0, 0, 0, 1},
        {0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998},  // protanopia
        {0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.011820, 0.042940, 0.968881},   // deuteranopia
        {1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.303900}}; // tritanopia
    const double r = linear(c.redF()), g = linear(c.greenF()), b = linear(c.blueF());
    const double *m = matrices[eye];
    auto clamp = [](double v) { return std::clamp(v, 0.0, 1.0); };
    return {clamp(m[0] * r + m[1] * g + m[2] * b), clamp(m[3] * r + m[4] * g + m[5] * b),
            clamp(m[6] * r + m[7] * g + m[8] * b)};
}

/// CIE 1976 colour difference (D65).
double difference(const Linear &a, const Linear &b) {
    auto lab = [](const Linear &c) {
        const double x = (0.4124 * c.r + 0.3576 * c.g + 0.1805 * c.b) / 0.95047;
        const double y = 0.2126 * c.r + 0.7152 * c.g + 0.0722 * c.b;
        const double z = (0.0193 * c.r + 0.1192 * c.g + 0.9505 * c.b) / 1.08883;
        auto f = [](double t) { return t > 0.008856 ? std::cbrt(t) : 7.787 * t + 16.0 / 116; };
        return std::array{116 * f(y) - 16, 500 * (f(x) - f(y)), 200 * (f(y) - f(z))};
    };
    const auto p = lab(a), q = lab(b);
    return std::hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

} // namespace

class TestTheme : public QObject {
    Q_OBJECT

private slots:
    void textIsReadableInBothThemes() {
        // WCAG 2.1 AA: 4.5 to 1 for text.
        for (const auto mode : {Mode::light, Mode::dark}) {
            const auto &c = palette(mode);
            for (const QColor &ground : {c.paper, c.panel, c.field})
                for (const QColor &text : {c.ink, c.muted, c.link})
                    QVERIFY2(contrast(text, ground) >= 4.5, qPrintable(text.name() + " on " + ground.name()));
            for (const QColor &ground : {c.mat, c.matBar})
                for (const QColor &text : {c.chalk, c.softChalk, c.plumb})
                    QVERIFY2(contrast(text, ground) >= 4.5, qPrintable(text.name() + " on " + ground.name()));
            QVERIFY2(contrast(c.stop, c.panel) >= 4.5, "the closest call is written in it");
            for (const auto severity : {Severity::stop, Severity::watch, Severity::note, Severity::unknown})
                QVERIFY(contrast(c.severity(severity), c.panel) >= 3.0); // graphics: 3 to 1
        }
        for (int i = 0; i <= int(Family::load); ++i) // labels on parts are written in ink
            QVERIFY(contrast(palette(Mode::light).ink, theme::familyColor(Family(i))) >= 4.5);
    }
    void coloursThatCarryMeaningCanBeToldApartByEveryEye() {
        // A difference of 10 in CIE 1976 is seen at a glance, side by side; severities have shapes besides.
        std::vector<std::pair<QString, QColor>> families;
        for (int i = 0; i <= int(Family::load); ++i)
            families.emplace_back(QString("family %1").arg(i), theme::familyColor(Family(i)));
        auto apart = [](const auto &colors, double least) {
            for (int eye = 0; eye < 4; ++eye)
                for (std::size_t i = 0; i < colors.size(); ++i)
                    for (std::size_t j = i + 1; j < colors.size(); ++j) {
                        const double d = difference(seenBy(eye, colors[i].second), seenBy(eye, colors[j].second));
                        QVERIFY2(d >= least, qPrintable(QString("%1 and %2, eye %3: %4")
                                                            .arg(colors[i].first, colors[j].first)
                                                            .arg(eye)
                                                            .arg(d)));
                    }
        };
        apart(families, 10);
        auto onMat = families; // notes are discs, and so are many parts
        onMat.emplace_back("note on the mat", theme::severityOnMat(Severity::note));
        apart(onMat, 10);
        for (const auto mode : {Mode::light, Mode::dark}) {
            const auto &c = palette(mode);
            apart(
                std::vector<std::pair<QString, QColor>>{
                    {"stop", c.stop}, {"watch", c.watch}, {"note", c.note}, {"unknown", c.unknown}},
                10);
            apart(std::vector<std::pair<QString, QColor>>{{"plumb", c.plumb}, {"thrust axis", c.thrustAxis}}, 20);
        }
    }
    void eachSeverityHasAShapeOfItsOwn() {
        std::vector<QImage> shapes;
        for (const auto severity : {Severity::stop, Severity::watch, Severity::note, Severity::unknown}) {
            QImage image(40, 40, QImage::Format_Grayscale8);
            image.fill(Qt::white);
            QPainter painter(&image);
            theme::drawSeverityMark(painter, {20, 20}, 16, severity, Qt::black);
            painter.end();
            for (const auto &other : shapes) {
                int differing = 0;
                for (int y = 0; y < 40; ++y)
                    for (int x = 0; x < 40; ++x)
                        differing += qAbs(qGray(image.pixel(x, y)) - qGray(other.pixel(x, y))) > 128;
                QVERIFY(differing > 40);
            }
            shapes.push_back(image);
        }
    }
    void fontsAndIconsAreShipped() {
        theme::Theme theme(Mode::light);
        QCOMPARE(QFontInfo(theme.text()).family(), QString("Open Sans"));
        QVERIFY(QFontInfo(theme.numbers()).fixedPitch());
        for (const auto &stage : app::stageTexts()) {
            const auto icon = theme.icon(stage.id, Qt::black, 24, 2).toImage();
            QCOMPARE(icon.size(), QSize(48, 48));
            bool any = false;
            for (int y = 0; y < 48 && !any; ++y)
                for (int x = 0; x < 48 && !any; ++x) any = qAlpha(icon.pixel(x, y)) > 128;
            QVERIFY2(any, qPrintable(stage.id));
        }
    }
    void tablesOnTheMatAreCopiedAsCsv() {
        theme::Theme theme(Mode::light);
        theme::MatTable table(theme, {"thing", "said\nof it"});
        table.setEmptyText("nothing yet");
        table.resize(300, 120);
        table.show();
        (void)QTest::qWaitForWindowExposed(&table);
        const QImage empty = table.grab().toImage();
        table.setEmptyText({});
        QVERIFY(table.grab().toImage() != empty); // the word stood there
        table.setRowCount(2);
        table.setItem(0, 0, new QTableWidgetItem("pack, small"));
        table.setItem(0, 1, new QTableWidgetItem("1 \"good\" one"));
        table.setItem(1, 1, new QTableWidgetItem("7")); // the first cell was never filled
        QCOMPARE(table.asCsv(), QString("thing,said of it\r\n\"pack, small\",\"1 \"\"good\"\" one\"\r\n,7\r\n"));
        table.setFocus();
        QTest::keyClick(&table, Qt::Key_C, Qt::ControlModifier);
        QCOMPARE(QGuiApplication::clipboard()->text(), table.asCsv());
        table.setTips({"what it is"});
        QCOMPARE(table.horizontalHeaderItem(0)->toolTip(), QString("what it is"));
    }
};

QTEST_MAIN(TestTheme)
#include "test_theme.moc"
