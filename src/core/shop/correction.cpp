#include "core/shop/correction.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace orthema {

const char* correction_key(CorrectionKind kind) {
    static constexpr std::array<const char*, correction_kind_count> keys{
        "loading-marks", "neck-drop", "circumference", "layer-growth", "shrink", "recipe", "hand-times", "spares", "photo-scale", "look"};
    return keys[static_cast<std::size_t>(kind)];
}

const char* correction_name(CorrectionKind kind) {
    static constexpr std::array<const char*, correction_kind_count> names{"loading marks", "collar seam", "circumference",  "layer growth",
                                                                          "shrinking",     "recipe",      "handling times", "spares",
                                                                          "photographs",   "to look at"};
    return names[static_cast<std::size_t>(kind)];
}

MarksMoved marks_moved(const std::vector<Correction>& taken, const std::string& press, const std::string& platen,
                       const std::string& hands) {
    MarksMoved out;
    for (const Correction& c : taken) {
        if (c.kind != CorrectionKind::loading_marks || (!c.press.empty() && c.press != press) ||
            (!c.platen.empty() && c.platen != platen) || (!c.hands.empty() && c.hands != hands))
            continue;
        out.aside += c.aside;
        out.down += c.down;
        if (c.since >= out.since) {
            out.since = c.since;
            out.pieces = c.pieces;
        }
    }
    return out;
}

std::string moved_words(double aside, double down, Reading reading) {
    const auto far = [&](const char* code, double mm) { return Words{code, {{"by", Length::from_mm(std::abs(mm))}}}; };
    std::string out;
    if (aside != 0) out = worded(far(aside > 0 ? "to-your-right" : "to-your-left", aside), reading);
    if (down != 0)
        out += (out.empty() ? "" : said(reading, " and ")) + worded(far(down > 0 ? "towards-you" : "away-from-you", down), reading);
    return out;
}

Phrases taken_day(const std::string& since) { return part_if(!since.empty(), "taken-day", {{"day", since.substr(0, 10)}}); }
Phrases taken_from(int pieces) { return part_if(pieces > 0, "taken-from", {{"n", pieces}}); }

std::string marks_moved_words(const MarksMoved& m, Reading reading) {
    return phrase("marks-moved", reading,
                  {{"moved", moved_words(m.aside, m.down, reading)}, {"day", taken_day(m.since)}, {"from", taken_from(m.pieces)}});
}

double photo_factor(const std::vector<Correction>& taken) {
    double factor = 1;
    for (const Correction& c : taken)
        if (c.kind == CorrectionKind::photo_scale) factor *= 1 + c.by / 100;
    return std::clamp(factor, 0.9, 1.1);
}

double handling_factor(const std::vector<Correction>& taken) {
    double factor = 1;
    for (const Correction& c : taken)
        if (c.kind == CorrectionKind::hand_times) factor *= c.by;
    return std::clamp(factor, 0.2, 5.0);
}

}  // namespace orthema
