#include "core/pipeline/next_step.h"

#include <algorithm>
#include <set>

namespace orthema {

namespace {

class Looking {
public:
    Looking(const Order& order, const Work& work, const NextAsked& asked) : order_(order), work_(work), asked_(asked) {}

    std::optional<NextStep> next() const {
        if (asked_.running) return step("next-card", "next-card-why", Deed::shift, "press");
        for (const Stage& s : stages()) {
            if (auto step = lacking(s.key)) return step;
            if (const Finding* f = first(s.key, Severity::stop)) return about(*f, "next-mend");
        }
        if (const Finding* f = first(asked_.stage, Severity::caution)) return about(*f, "next-look");
        if (asked_.stage == "blanks")
            for (const Finding& f : work_.findings)
                if (f.code == "smallest-unmeasured" && !(asked_.seen && asked_.seen(f))) return about(f, "next-tape");
        bool after = false;
        for (const Stage& s : stages()) {
            const Finding* f = after ? first(s.key, Severity::caution) : nullptr;
            if (f != nullptr) return about(*f, "next-look");
            after = after || s.key == asked_.stage;
        }
        if (!asked_.pressed())
            return asked_.sent_out() ? step("next-shift", "next-shift-why", Deed::shift, "press")
                                     : step("next-send-out", "next-send-out-why", Deed::send_out, asked_.stage);
        if (asked_.lessons > 0) {
            NextStep out = step("next-lessons", "next-lessons-why", Deed::lessons, "records");
            out.words.args = {{"n", asked_.lessons}};
            return out;
        }
        return std::nullopt;
    }

private:
    static NextStep step(const char* code, const char* why, Deed deed, const std::string& stage) {
        NextStep out;
        out.words.code = code;
        out.why.code = why;
        out.deed = deed;
        out.about.stage = stage;
        return out;
    }

    static NextStep about(const Finding& f, const char* code) {
        NextStep out;
        const int at = stage_index(f.about.stage);
        out.words = {code, {{"stage", at < 0 ? "" : stages()[std::size_t(at)].name}, {"size", f.about.size}}};
        out.finding = f;
        out.about = f.about;
        return out;
    }

    std::optional<NextStep> lacking(const std::string& stage) const {
        if (stage == "order" && order_.lines.empty()) return step("next-list", "next-list-why", Deed::list, stage);
        if (stage == "art" && order_.art.empty()) return step("next-pictures", "next-pictures-why", Deed::pictures, stage);
        if (stage == "fit") {
            for (const RunKey& run : runs_of(order_)) {
                const auto on_it = [&](const Decoration& d) { return d.run == run; };
                if (std::any_of(order_.decorations.begin(), order_.decorations.end(), on_it)) continue;
                NextStep out = step("next-bare", "next-bare-why", Deed::put_on, "art");
                out.words.args = {{"run", run_name(order_, run)}};
                out.about.style = run.style;
                out.about.colour = run.colour;
                out.about.lot = run.lot;
                out.about.job = run.job;
                return out;
            }
        }
        if (stage == "sheets")
            for (const Finding& f : work_.findings)
                if (f.code == "sheet-empty") {
                    NextStep out = step("next-settle", "next-settle-why", Deed::settle, stage);
                    out.finding = f;
                    out.about = f.about;
                    return out;
                }
        return std::nullopt;
    }

    const Finding* first(const std::string& stage, Severity severity) const {
        for (const Finding& f : work_.findings)
            if (f.about.stage == stage && f.severity == severity && !(asked_.seen && asked_.seen(f))) return &f;
        return nullptr;
    }

    const Order& order_;
    const Work& work_;
    const NextAsked& asked_;
};

}  // namespace

std::optional<NextStep> next_step(const Order& order, const Work& work, const NextAsked& asked) {
    return Looking(order, work, asked).next();
}

std::optional<NextStep> next_order(const std::vector<OrderCard>& cards, const std::function<bool(const std::string& job)>& lacks) {
    std::set<std::string> together;
    for (const OrderCard& c : cards) together.insert(c.jobs.begin(), c.jobs.end());
    const OrderCard* first = nullptr;
    for (const OrderCard& c : cards)
        if (!together.contains(c.job) && (first == nullptr || lies_before(c, *first))) first = &c;
    if (first == nullptr) return std::nullopt;
    const bool buy = lacks(first->job);
    NextStep out;
    out.words = {buy ? "next-buy" : "next-take-up", {{"order", first->name}}};
    out.why = {buy ? "next-buy-why" : "next-take-up-why", {{"order", first->name}, {"next", first->next}}};
    out.deed = buy ? Deed::buy : Deed::take_up;
    out.about.job = first->job;
    return out;
}

}  // namespace orthema
