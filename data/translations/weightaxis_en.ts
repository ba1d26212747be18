<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="en" sourcelanguage="en">
<context>
    <name>waxis::app::AxisBar</name>
    <message numerus="yes">
        <source>%n not weighed</source>
        <translation>
            <numerusform>%n not weighed</numerusform>
            <numerusform>%n not weighed</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::wire::CutPage</name>
    <message numerus="yes">
        <source>%n tie(s)</source>
        <translation>
            <numerusform>%n tie</numerusform>
            <numerusform>%n ties</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n grommet(s)</source>
        <translation>
            <numerusform>%n grommet</numerusform>
            <numerusform>%n grommets</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n splice(s)</source>
        <translation>
            <numerusform>%n splice</numerusform>
            <numerusform>%n splices</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::app::FindingsPanel</name>
    <message numerus="yes">
        <source>%n wire(s) being led, </source>
        <translation>
            <numerusform>%n wire being led, </numerusform>
            <numerusform>%n wires being led, </numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::stackbench::HardwareCard</name>
    <message numerus="yes">
        <source>%n pieces, %1 g: </source>
        <translation>
            <numerusform>%n piece, %1 g: </numerusform>
            <numerusform>%n pieces, %1 g: </numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::kit::KitBench</name>
    <message numerus="yes">
        <source>%n row(s) copied as CSV.</source>
        <translation>
            <numerusform>%n row copied as CSV.</numerusform>
            <numerusform>%n rows copied as CSV.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::app::MainWindow</name>
    <message numerus="yes">
        <source>Paste %n part(s)</source>
        <translation>
            <numerusform>Paste %n part</numerusform>
            <numerusform>Paste %n parts</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Duplicate %n part(s)</source>
        <translation>
            <numerusform>Duplicate %n part</numerusform>
            <numerusform>Duplicate %n parts</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::stackbench::MotorScrewCard</name>
    <message numerus="yes">
        <source>%n motors: </source>
        <translation>
            <numerusform>%n motor: </numerusform>
            <numerusform>%n motors: </numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::kit::PartEditor</name>
    <message numerus="yes">
        <source>%n body(ies) read: %1 cm³%2. Give them a material, or the part its weighed mass.</source>
        <translation>
            <numerusform>%n body read: %1 cm³%2. Give it a material, or the part its weighed mass.</numerusform>
            <numerusform>%n bodies read: %1 cm³%2. Give them a material, or the part its weighed mass.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::wire::PinsPage</name>
    <message numerus="yes">
        <source>%n free serial port(s)</source>
        <translation>
            <numerusform>%n free serial port</numerusform>
            <numerusform>%n free serial ports</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::place::LibraryDrawer</name>
    <message numerus="yes">
        <source>%n kind(s)</source>
        <translation>
            <numerusform>%n kind</numerusform>
            <numerusform>%n kinds</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::place::PlaceView</name>
    <message numerus="yes">
        <source>Move %n parts</source>
        <translation>
            <numerusform>Move %n part</numerusform>
            <numerusform>Move %n parts</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Nudge %n parts</source>
        <translation>
            <numerusform>Nudge %n part</numerusform>
            <numerusform>Nudge %n parts</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Remove %n parts</source>
        <translation>
            <numerusform>Remove %n part</numerusform>
            <numerusform>Remove %n parts</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::app::SelectionCard</name>
    <message numerus="yes">
        <source>%n parts chosen</source>
        <translation>
            <numerusform>%n part chosen</numerusform>
            <numerusform>%n parts chosen</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>, %n without a weight</source>
        <translation>
            <numerusform>, %n without a weight</numerusform>
            <numerusform>, %n without a weight</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::balance::TargetPage</name>
    <message numerus="yes">
        <source>; %n without a weight</source>
        <translation>
            <numerusform>; %n without a weight</numerusform>
            <numerusform>; %n without a weight</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source> and %n more</source>
        <translation>
            <numerusform> and %n more</numerusform>
            <numerusform> and %n more</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Mends %n other finding(s).</source>
        <translation>
            <numerusform>Mends %n other finding.</numerusform>
            <numerusform>Mends %n other findings.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::kit::OwnPartsDialog</name>
    <message numerus="yes">
        <source>%n part(s) taken among yours.</source>
        <translation>
            <numerusform>%n part taken among yours.</numerusform>
            <numerusform>%n parts taken among yours.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n part(s) of your own</source>
        <translation>
            <numerusform>%n part of your own</numerusform>
            <numerusform>%n parts of your own</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Keep %n part(s)</source>
        <translation>
            <numerusform>Keep %n part</numerusform>
            <numerusform>Keep %n parts</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::kit::WeighingWalk</name>
    <message numerus="yes">
        <source>Nothing is left: %n pieces weighed.</source>
        <translation>
            <numerusform>Nothing is left: %n piece weighed.</numerusform>
            <numerusform>Nothing is left: %n pieces weighed.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Put on: %1 · %n left</source>
        <translation>
            <numerusform>Put on: %1 · %n left</numerusform>
            <numerusform>Put on: %1 · %n left</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::logbench::ChangesPage</name>
    <message numerus="yes">
        <source>%n pieces changed</source>
        <translation>
            <numerusform>%n piece changed</numerusform>
            <numerusform>%n pieces changed</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::logbench::EntriesPage</name>
    <message numerus="yes">
        <source>%n entries read</source>
        <translation>
            <numerusform>%n entry read</numerusform>
            <numerusform>%n entries read</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source> (and %n more)</source>
        <translation>
            <numerusform> (and %n more)</numerusform>
            <numerusform> (and %n more)</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::logbench::PlannedPage</name>
    <message numerus="yes">
        <source>%n more</source>
        <translation>
            <numerusform>%n more</numerusform>
            <numerusform>%n more</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>waxis::logbench::SessionColumn</name>
    <message numerus="yes">
        <source>%n entries</source>
        <translation>
            <numerusform>%n entry</numerusform>
            <numerusform>%n entries</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n flights</source>
        <translation>
            <numerusform>%n flight</numerusform>
            <numerusform>%n flights</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n tries</source>
        <translation>
            <numerusform>%n try</numerusform>
            <numerusform>%n tries</numerusform>
        </translation>
    </message>
</context>
</TS>
