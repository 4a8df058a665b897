// Whether the compiler's checks of addresses or threads are built in: they reserve more address space than there is memory, and all
// takes many times as long. Each compiler says it its own way.
#pragma once

namespace orthema {

#if defined(__has_feature)
#define ORTHEMA_HAS(checks) __has_feature(checks)
#else
#define ORTHEMA_HAS(checks) 0
#endif
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__) || ORTHEMA_HAS(address_sanitizer) || ORTHEMA_HAS(thread_sanitizer)
constexpr bool sanitized = true;
#else
constexpr bool sanitized = false;
#endif
#undef ORTHEMA_HAS

}  // namespace orthema
