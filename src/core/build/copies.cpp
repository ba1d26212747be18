// Copying and comparing what a build is made of, made once for all who do it.
#include "core/build/build.h"
#include "core/build/log.h"

namespace waxis {

Build::Build() = default;
Build::Build(const Build &) = default;
Build::Build(Build &&) noexcept = default;
Build &Build::operator=(const Build &) = default;
Build &Build::operator=(Build &&) noexcept = default;
Build::~Build() = default;
bool Build::operator==(const Build &) const = default;

Frame::Frame() = default;
Frame::Frame(const Frame &) = default;
Frame::Frame(Frame &&) noexcept = default;
Frame &Frame::operator=(const Frame &) = default;
Frame &Frame::operator=(Frame &&) noexcept = default;
Frame::~Frame() = default;
bool Frame::operator==(const Frame &) const = default;

Part::Part() = default;
Part::Part(const Part &) = default;
Part::Part(Part &&) noexcept = default;
Part &Part::operator=(const Part &) = default;
Part &Part::operator=(Part &&) noexcept = default;
Part::~Part() = default;
bool Part::operator==(const Part &) const = default;

Stack::Stack() = default;
Stack::Stack(const Stack &) = default;
Stack::Stack(Stack &&) noexcept = default;
Stack &Stack::operator=(const Stack &) = default;
Stack &Stack::operator=(Stack &&) noexcept = default;
Stack::~Stack() = default;
bool Stack::operator==(const Stack &) const = default;

Wire::Wire() = default;
Wire::Wire(const Wire &) = default;
Wire::Wire(Wire &&) noexcept = default;
Wire &Wire::operator=(const Wire &) = default;
Wire &Wire::operator=(Wire &&) noexcept = default;
Wire::~Wire() = default;
bool Wire::operator==(const Wire &) const = default;

Weighing::Weighing() = default;
Weighing::Weighing(const Weighing &) = default;
Weighing::Weighing(Weighing &&) noexcept = default;
Weighing &Weighing::operator=(const Weighing &) = default;
Weighing &Weighing::operator=(Weighing &&) noexcept = default;
Weighing::~Weighing() = default;
bool Weighing::operator==(const Weighing &) const = default;

} // namespace waxis
