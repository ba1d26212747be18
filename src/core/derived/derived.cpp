#include "core/derived/derived.h"

#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/balance/reconcile.h"
#include "core/kit/kit.h"
#include "core/links/link_report.h"
#include "core/measured/log_report.h"
#include "core/power/power_report.h"
#include "core/radio/radio_report.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

namespace waxis {

Derived::Derived() = default;

} // namespace waxis
