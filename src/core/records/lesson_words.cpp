// What a lesson says to whoever decides.
#include <cmath>

#include "core/records/lessons.h"

namespace orthema {

std::string proposal_words(const Correction& c, const Order& order) {
    const Reading reading = order.unit;
    const auto named = [](const auto* thing, const std::string& id) { return thing == nullptr ? id : thing->name; };
    const std::string press = named(find_press(order, c.press), c.press), style = named(find_style(order, c.style), c.style);
    const std::string method = named(find_method(order, c.method), c.method);
    const std::string blank = style + (c.size.empty() ? "" : " " + c.size);
    if (c.id.rfind(remark_prefix, 0) == 0) {
        std::string about;
        for (const std::string& part : {named(find_decoration(order, c.design), c.design), blank, method, press, c.hands})
            if (part.find_first_not_of(' ') != std::string::npos) about += (about.empty() ? "" : ", ") + part;
        return about.empty() ? c.words : about + ": " + c.words;
    }
    const auto length = [&](double mm) { return Length::from_mm(std::abs(mm)); };
    const auto say = [&](const char* code, Arguments args) { return phrase(code, reading, std::move(args)); };
    switch (c.kind) {
    case CorrectionKind::loading_marks: {
        const Phrases of = c.platen.empty() ? part_if(!press.empty(), "lesson-of-press", {{"press", press}})
                                            : part_if(!press.empty(), "lesson-of-platen", {{"press", press}, {"platen", c.platen}});
        return say("lesson-marks", {{"of", of},
                                    {"whose", part_if(!c.hands.empty(), "lesson-for-hands", {{"hands", c.hands}})},
                                    {"moved", moved_words(c.aside, c.down, reading)}});
    }
    case CorrectionKind::neck_drop:
        return say(c.by > 0 ? "lesson-collar-deeper" : "lesson-collar-higher", {{"blank", blank}, {"by", length(c.by)}});
    case CorrectionKind::circumference:
        return say(c.by > 0 ? "lesson-round-more" : "lesson-round-less",
                   {{"blank", blank}, {"batch", part_if(!c.batch.empty(), "lesson-batch", {{"batch", c.batch}})}, {"by", length(c.by)}});
    case CorrectionKind::layer_growth:
        return say(c.by < 0 ? "lesson-layer-narrower" : "lesson-layer-wider",
                   {{"design", named(find_decoration(order, c.design), c.design)}, {"by", length(c.by)}});
    case CorrectionKind::shrink:
        return say(c.by > 0 ? "lesson-shrink-more" : "lesson-shrink-less", {{"method", method}, {"by", Number{std::abs(c.by), 1}}});
    case CorrectionKind::recipe:
        return say("lesson-recipe", {{"blank", style}, {"method", method}, {"press", press}, {"words", words_of_try(c.words)}});
    case CorrectionKind::hand_times: return say("lesson-hands", {{"by", Number{c.by, 2}}});
    case CorrectionKind::photo_scale:
        return say(c.by > 0 ? "lesson-photo-longer" : "lesson-photo-shorter", {{"by", Number{std::abs(c.by), 2}}});
    case CorrectionKind::spares: {
        const Decoration* d = find_decoration(order, c.design);
        const Phrases on = part_if(d != nullptr, "lesson-on-run", {{"run", d == nullptr ? "" : run_name(order, d->run)}});
        return say("lesson-spares", {{"design", named(d, c.design)}, {"run", on}, {"n", static_cast<int>(std::lround(c.by))}});
    }
    case CorrectionKind::look:
        if (!c.press.empty() && !c.words.empty()) return say("lesson-dark", {{"press", press}, {"words", Term{c.words}}});
        if (!c.style.empty()) return say("lesson-aside", {{"blank", blank}, {"words", Term{c.words}}});
        return c.words;
    }
    return {};
}

std::string proposal_reason(const Correction& c, Reading reading) {
    const auto say = [&](const char* code, Arguments args) { return phrase(code, reading, std::move(args)); };
    const std::string from = say("why-pieces", {{"n", c.pieces}});
    const auto between = [&](const char* code, int digits) {
        return say(code, {{"from", from}, {"low", Number{c.low, digits}}, {"high", Number{c.high, digits}}});
    };
    const auto shares = [&](const char* code) {
        const auto share = [&](double v) { return figure_text(v * 100, v < 0.1 ? 1 : 0, reading) + " %"; };
        return say(code, {{"from", from}, {"low", share(c.low)}, {"high", share(c.high)}});
    };
    switch (c.kind) {
    case CorrectionKind::photo_scale: return say("why-photo", {{"n", c.pieces}, {"low", Number{c.low, 2}}, {"high", Number{c.high, 2}}});
    case CorrectionKind::loading_marks:
    case CorrectionKind::neck_drop:
    case CorrectionKind::circumference: {
        const double low = std::abs(c.low), high = std::abs(c.high);
        return say("why-lengths", {{"from", from},
                                   {"low", Length::from_mm(std::min(low, high))},
                                   {"high", Length::from_mm(std::max(low, high))},
                                   {"hands", part_if(c.words == "hands", "why-hands")}});
    }
    case CorrectionKind::shrink: return between("why-per-cent", 1);
    case CorrectionKind::hand_times: return between("why-times", 2);
    case CorrectionKind::layer_growth:
    case CorrectionKind::recipe: return shares("why-share");
    case CorrectionKind::spares: return shares("why-spoiled");
    case CorrectionKind::look: return c.pieces > 0 ? from + "." : std::string();
    }
    return {};
}

std::string taken_words(const Correction& c, Reading reading) {
    if (c.kind == CorrectionKind::loading_marks) return marks_moved_words({c.aside, c.down, c.since, c.pieces}, reading);
    const Phrases day = taken_day(c.since);
    if (c.kind == CorrectionKind::photo_scale)
        return phrase(c.by > 0 ? "taken-off" : "put-on", reading, {{"by", Number{std::abs(c.by), 2}}, {"day", day}});
    return phrase("taken-other", reading, {{"name", correction_name(c.kind)}, {"day", day}, {"from", taken_from(c.pieces)}});
}

}  // namespace orthema
