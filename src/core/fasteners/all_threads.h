// Every thread that the tables know, those that are met now and then after the usual ones.
#pragma once

#include "core/fasteners/thread.h"

namespace waxis {

/// threadSizes(), then M1.4, M1.7, M5.
std::span<const ThreadSize> allThreads();

} // namespace waxis
