// Task: how long work reports how far it is and learns that it should stop. Both ends may be absent.
#pragma once

#include <atomic>
#include <functional>
#include <string>

namespace orthema {

struct Task {
    std::function<void(double share, const std::string& doing)> report;
    const std::atomic<bool>* cancelled = nullptr;

    [[nodiscard]] bool stopped() const { return cancelled != nullptr && cancelled->load(std::memory_order_relaxed); }
    void say(double share, const std::string& doing) const {
        if (report) report(share, doing);
    }
};

}  // namespace orthema
