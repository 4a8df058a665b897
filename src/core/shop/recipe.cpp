#include "core/shop/recipe.h"

#include "core/base/units.h"

namespace orthema {

const char* pressure_name(Pressure p) {
    switch (p) {
    case Pressure::light: return "light";
    case Pressure::medium: return "medium";
    case Pressure::firm: return "firm";
    case Pressure::heavy: return "heavy";
    }
    return "medium";
}

const char* step_name(StepKind kind) {
    switch (kind) {
    case StepKind::pre_press: return "pre-press";
    case StepKind::marry: return "marry";
    case StepKind::trim: return "trim";
    case StepKind::tack: return "tack";
    case StepKind::press: return "press";
    case StepKind::wait: return "wait";
    case StepKind::peel: return "peel";
    case StepKind::re_press: return "re-press";
    case StepKind::second_press: return "second press";
    case StepKind::turn: return "turn";
    case StepKind::hover_cure: return "hover-cure";
    case StepKind::pre_shrink: return "pre-shrink";
    }
    return "press";
}

const char* peel_name(Peel p) { return p == Peel::hot ? "hot" : p == Peel::warm ? "warm" : "cool"; }

const char* trial_result_name(TrialResult r) {
    switch (r) {
    case TrialResult::released_clean: return "released clean";
    case TrialResult::ghosted: return "ghosted";
    case TrialResult::scorched: return "scorched";
    case TrialResult::lifted: return "lifted";
    case TrialResult::crooked: return "crooked";
    case TrialResult::to_try: return "to be tried";
    case TrialResult::not_released: return "not released";
    }
    return "released clean";
}

bool heats(const RecipeStep& s) {
    switch (s.kind) {
    case StepKind::pre_press:
    case StepKind::pre_shrink:
    case StepKind::tack:
    case StepKind::press:
    case StepKind::re_press:
    case StepKind::second_press:
    case StepKind::hover_cure: return true;
    default: return false;
    }
}

bool prepares(const RecipeStep& s) { return s.kind == StepKind::pre_press || s.kind == StepKind::pre_shrink; }
bool applies(const RecipeStep& s) { return s.kind == StepKind::tack || s.kind == StepKind::press; }

PeelWindow peel_window(const RecipeStep& p) {
    // hot: before the carrier grips again; warm: while it still can be felt; cool: any time later
    switch (p.peel) {
    case Peel::hot: return {p.seconds, p.seconds + 6};
    case Peel::warm: return {p.seconds, p.seconds + 15};
    case Peel::cool: return {p.seconds, {}};
    }
    return {p.seconds, {}};
}

std::string heat_words(double celsius, bool fahrenheit) {
    return mm_text(fahrenheit ? fahrenheit_of(celsius) : celsius, 0) + (fahrenheit ? " °F" : " °C");
}

std::string step_words(const RecipeStep& s, bool fahrenheit, bool in_oven, const Reading& reading) {
    std::string out = in_oven && s.kind == StepKind::press ? said(reading, "heat") : said(reading, step_name(s.kind));
    const auto seconds = [&] {
        return figure_text(s.seconds, s.seconds < 10 && s.seconds != static_cast<int>(s.seconds) ? 1 : 0, reading) + " s";
    };
    if (s.kind == StepKind::peel) {
        out += " " + said(reading, peel_name(s.peel));
        if (s.seconds > 0) out += said(reading, ", after ") + seconds();
    } else if (s.kind == StepKind::wait) {
        out += " " + seconds();
    } else if (s.celsius > 0) {
        out += " " + seconds() + said(reading, " at ") + heat_words(s.celsius, fahrenheit);
        if (s.kind != StepKind::hover_cure && !in_oven) out += ", " + said(reading, pressure_name(s.pressure));
        if (s.gauge_bar > 0 && !in_oven) out += " (" + figure_text(s.gauge_bar, 1, reading) + " bar)";
    }
    if (!s.cover.empty()) out += said(reading, ", under ") + said(reading, s.cover);
    if (!s.base.empty()) out += said(reading, ", on ") + said(reading, s.base);
    if (!s.pad.empty()) out += said(reading, ", with ") + said(reading, s.pad);
    if (s.protect_other) out += said(reading, ", other side protected");
    if (!s.how.empty()) out += ", " + said(reading, s.how);
    return out;
}

std::string recipe_words(const std::vector<RecipeStep>& steps, bool fahrenheit, bool in_oven, const Reading& reading) {
    std::string out;
    for (const RecipeStep& s : steps) out += (out.empty() ? "" : " · ") + step_words(s, fahrenheit, in_oven, reading);
    return out;
}

RecipeStep step_from_words(const std::string& words) {
    RecipeStep s;
    const auto begins = [&](const char* w) { return words.rfind(w, 0) == 0; };
    for (int i = 0; i < step_kind_count; ++i) {
        const auto kind = static_cast<StepKind>(i);
        if (!begins(step_name(kind))) continue;
        s.kind = kind;
        s.how = words.substr(std::string(step_name(kind)).size());
    }
    if (s.how == words) return s;
    while (!s.how.empty() && s.how.front() == ' ') s.how.erase(0, 1);
    if (s.kind == StepKind::peel)
        for (const Peel p : {Peel::hot, Peel::warm, Peel::cool})
            if (s.how.rfind(peel_name(p), 0) == 0) {
                s.peel = p;
                s.how.erase(0, std::string(peel_name(p)).size());
            }
    if (s.how == "under a cover") {
        s.cover = "a cover sheet";
        s.how.clear();
    }
    return s;
}

}  // namespace orthema
