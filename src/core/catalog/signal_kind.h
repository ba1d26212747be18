// What a pin is for, and what a channel of the radio does.
#pragma once

namespace waxis {

/// What a pin is for. A part type may state it for each pin; where it does not, the pin's name says it (see signalOf).
enum class SignalKind {
    ground,
    supply,
    supplyIn,  ///< takes a supply, though the part gives the same voltage elsewhere
    supplyOut, ///< gives one
    sense,     ///< measures a voltage and draws nothing: goes to the pack
    phase,
    serialTx,
    serialRx,
    oneWire, ///< both ways on one wire: a sender's control wire, a receiver's settings
    busData,
    busClock,
    motor,     ///< pulses out to a speed controller: M1, M2...
    servo,     ///< pulses out to a servo: S1, S2...
    pulse,     ///< pulses in: of a speed controller or servo
    channel,   ///< a receiver's output or a controller's input: CH1...
    video,     ///< a picture, which way is not said
    videoIn,   ///< takes a picture
    videoOut,  ///< gives one
    videoLink, ///< one wire of a digital camera cable
    audioIn,
    audioOut,
    telemetry,
    current,
    lampData,
    buzzer, ///< a switched return
    boot,   ///< held at power-on to load firmware: nothing is led there
    cell,
    usb,
    other
};

/// What the pilot moves: on a channel of the receiver, at an input of the controller, in a part that wants one.
enum class ChannelFunction {
    none,
    roll,
    pitch,
    throttle,
    yaw,
    mode,
    arm,
    switchOne,
    switchTwo,
    switchThree,
    gimbalTilt,
    gimbalPan,
    gimbalRoll,
    lamps,
    cameraSwitch,
    gear
};

} // namespace waxis
