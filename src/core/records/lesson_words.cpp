// What a lesson says to whoever decides.
#include <cmath>

#include "core/records/lessons.h"

namespace orthema {

namespace {

std::string per_cent(double share) { return mm_text(share * 100, share < 0.1 ? 1 : 0) + " %"; }

}  // namespace

std::string proposal_words(const Correction& c, const Order& order) {
    const Unit unit = order.unit;
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
    switch (c.kind) {
    case CorrectionKind::loading_marks:
        return "Move the loading marks " +
               (press.empty() ? std::string() : "of the " + press + (c.platen.empty() ? "" : ", " + c.platen + ",") + " ") +
               (c.hands.empty() ? "" : "for " + c.hands + " ") + moved_words(c.aside, c.down, unit) + ".";
    case CorrectionKind::neck_drop:
        return blank + ": its collar seam lies " + length_text(Length::from_mm(std::abs(c.by)), unit) + (c.by > 0 ? " deeper" : " higher") +
               " than its figure says.";
    case CorrectionKind::circumference:
        return blank + (c.batch.empty() ? "" : ", batch " + c.batch) + ": " + length_text(Length::from_mm(std::abs(c.by)), unit) +
               (c.by > 0 ? " more" : " less") + " round than its figure says.";
    case CorrectionKind::layer_growth:
        return "The layer under “" + named(find_decoration(order, c.design), c.design) + "” shows: make it " +
               length_text(Length::from_mm(std::abs(c.by)), unit) + (c.by < 0 ? " narrower" : " wider") + ".";
    case CorrectionKind::shrink:
        return method + ": shrinks by " + mm_text(std::abs(c.by), 1) + (c.by > 0 ? " % more" : " % less") + " than is allowed for.";
    case CorrectionKind::recipe: return style + ", " + method + " on the " + press + ": try " + c.words + ", one trial piece first.";
    case CorrectionKind::hand_times: return "Handling takes " + mm_text(c.by, 2) + " times as long as planned: plan with that.";
    case CorrectionKind::photo_scale:
        return "What is photographed comes out " + mm_text(std::abs(c.by), 2) + (c.by > 0 ? " % longer" : " % shorter") +
               " than your tape says: take that off new photographs.";
    case CorrectionKind::spares: {
        const Decoration* d = find_decoration(order, c.design);
        return "“" + named(d, c.design) + "”" + (d == nullptr ? "" : " on " + run_name(order, d->run)) + ": " + mm_text(c.by, 0) +
               (c.by == 1 ? " spare" : " spares") + " of each size.";
    }
    case CorrectionKind::look:
        if (!c.press.empty() && !c.words.empty())
            return press + ": the paper stays dark at the " + c.words + ". Less pressure there, or a piece too near the platen's edge.";
        if (!c.style.empty()) return blank + ": lies aside on every press. Measure " + c.words + ".";
        return c.words;
    }
    return {};
}

std::string proposal_reason(const Correction& c, Unit unit) {
    const auto mm = [&](double v) { return length_text(Length::from_mm(v), unit); };
    const std::string from = "from " + std::to_string(c.pieces) + (c.pieces == 1 ? " piece" : " pieces");
    switch (c.kind) {
    case CorrectionKind::photo_scale:
        return "from " + std::to_string(c.pieces) + " sizes measured both ways; between " + mm_text(c.low, 2) + " and " +
               mm_text(c.high, 2) + " % with 95 %. A card whose 100 mm line measures otherwise is printed anew instead.";
    case CorrectionKind::loading_marks:
    case CorrectionKind::neck_drop:
    case CorrectionKind::circumference: {
        std::string out = from + "; between " + mm(std::min(std::abs(c.low), std::abs(c.high))) + " and " +
                          mm(std::max(std::abs(c.low), std::abs(c.high))) + " with 95 %";
        if (c.words == "hands") out += ". Press or hands: let somebody else press eight pieces there to know";
        return out + ".";
    }
    case CorrectionKind::shrink: return from + "; between " + mm_text(c.low, 1) + " and " + mm_text(c.high, 1) + " % with 95 %.";
    case CorrectionKind::hand_times: return from + "; between " + mm_text(c.low, 2) + " and " + mm_text(c.high, 2) + " times with 95 %.";
    case CorrectionKind::layer_growth:
    case CorrectionKind::recipe: return from + "; " + per_cent(c.low) + " to " + per_cent(c.high) + " of them with 95 %.";
    case CorrectionKind::spares:
        return from + ", of which " + per_cent(c.low) + " to " + per_cent(c.high) + " are spoiled; enough with 95 %.";
    case CorrectionKind::look: return c.pieces > 0 ? from + "." : std::string();
    }
    return {};
}

std::string taken_words(const Correction& c, Unit unit) {
    if (c.kind == CorrectionKind::loading_marks) return marks_moved_words({c.aside, c.down, c.since, c.pieces}, unit);
    if (c.kind == CorrectionKind::photo_scale)
        return "photographs, " + mm_text(std::abs(c.by), 2) + (c.by > 0 ? " % taken off" : " % put on") +
               (c.since.empty() ? "" : ", " + c.since.substr(0, 10));
    return std::string(correction_name(c.kind)) + (c.since.empty() ? "" : ", " + c.since.substr(0, 10)) +
           (c.pieces > 0 ? ", from " + std::to_string(c.pieces) + " pieces" : "");
}

}  // namespace orthema
