#include "core/artwork/mending.h"

#include <algorithm>
#include <array>
#include <cstdio>

namespace orthema {

namespace {

constexpr std::array<const char*, mend_kinds> keys = {"straighten", "crop", "background", "clean", "open", "thicken", "harden", "dots"};

std::string figure(double v) {
    std::array<char, 40> text{};
    std::snprintf(text.data(), text.size(), " %.6g", v);
    return text.data();
}

}  // namespace

const char* mend_key(MendKind kind) { return keys[static_cast<std::size_t>(kind)]; }

std::string mending_words(const std::vector<Mending>& mendings) {
    std::string all;
    for (const Mending& m : mendings) {
        all += (all.empty() ? "" : ", ") + std::string(mend_key(m.kind));
        switch (m.kind) {
        case MendKind::straighten: all += figure(m.degrees); break;
        case MendKind::crop: all += figure(m.keep.x0) + figure(m.keep.y0) + figure(m.keep.x1) + figure(m.keep.y1); break;
        case MendKind::background: all += figure(m.tolerance) + (m.counters ? " counters" : ""); break;
        case MendKind::clean:
        case MendKind::open:
        case MendKind::thicken: all += figure(m.least.mm()) + " at" + figure(m.at.mm()); break;
        case MendKind::harden: all += figure(m.threshold); break;
        case MendKind::dots: all += figure(m.least.mm()) + figure(m.apart.mm()) + figure(m.dpi) + " at" + figure(m.at.mm()); break;
        }
    }
    return all;
}

const Mending* find_mending(const std::vector<Mending>& mendings, MendKind kind) {
    const auto at = std::find_if(mendings.begin(), mendings.end(), [&](const Mending& m) { return m.kind == kind; });
    return at == mendings.end() ? nullptr : &*at;
}

std::vector<Mending> with_mending(std::vector<Mending> mendings, const Mending& mending) {
    mendings = without_mending(std::move(mendings), mending.kind);
    const auto at = std::find_if(mendings.begin(), mendings.end(), [&](const Mending& m) { return m.kind > mending.kind; });
    mendings.insert(at, mending);
    return mendings;
}

std::vector<Mending> without_mending(std::vector<Mending> mendings, MendKind kind) {
    std::erase_if(mendings, [&](const Mending& m) { return m.kind == kind; });
    return mendings;
}

}  // namespace orthema
