#include "files/record_columns.h"

#include <charconv>
#include <cmath>

#include "core/base/dates.h"
#include "core/base/utf8.h"
#include "core/order/limits.h"

namespace orthema {

namespace {

constexpr double most_number = 1e7;

std::optional<double> number_in(const Cell& c) {
    if (const double* n = std::get_if<double>(&c))
        return std::isfinite(*n) && std::abs(*n) <= most_number ? std::optional(*n) : std::nullopt;
    return std::nullopt;
}

/// A date with or without a time of day.
bool is_moment(const std::string& s) {
    return s.size() >= 10 && s.size() <= 40 && day_number(s.substr(0, 10)).has_value() && (s.size() == 10 || s[10] == 'T');
}

template <class E, class Name>
std::optional<E> named(const std::string& text, int count, Name name) {
    for (int i = 0; i < count; ++i)
        if (text == name(static_cast<E>(i))) return static_cast<E>(i);
    return std::nullopt;
}

std::string short_number(double v) {
    char buffer[32];
    const auto end = std::to_chars(buffer, buffer + sizeof buffer, v).ptr;
    return {buffer, end};
}

/// "press|150|148.6|12|medium|cool;peel|…"
std::string acts_text(const std::vector<ActDone>& acts) {
    std::string out;
    for (const ActDone& a : acts)
        out += (out.empty() ? "" : ";") + std::string(step_name(a.kind)) + '|' + short_number(a.asked) + '|' + short_number(a.celsius) +
               '|' + short_number(a.seconds) + '|' + pressure_name(a.pressure) + '|' + peel_name(a.peel);
    return out;
}

bool read_acts(const std::string& text, std::vector<ActDone>& out) {
    out.clear();
    if (text.size() > most_text) return false;
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = std::min(text.find(';', at), text.size());
        std::vector<std::string> part{""};
        for (std::size_t i = at; i < end; ++i)
            if (text[i] == '|')
                part.emplace_back();
            else
                part.back() += text[i];
        at = end + 1;
        if (part.size() != 6) return false;
        ActDone a;
        const auto kind = named<StepKind>(part[0], step_kind_count, step_name);
        const auto pressure = named<Pressure>(part[4], 4, pressure_name);
        const auto peel = named<Peel>(part[5], 3, peel_name);
        const auto number = [](const std::string& s, double& to) {
            const auto [stop, fault] = std::from_chars(s.data(), s.data() + s.size(), to);
            return fault == std::errc() && stop == s.data() + s.size() && std::abs(to) <= most_number;
        };
        if (!kind || !pressure || !peel || !number(part[1], a.asked) || !number(part[2], a.celsius) || !number(part[3], a.seconds))
            return false;
        a.kind = *kind;
        a.pressure = *pressure;
        a.peel = *peel;
        out.push_back(a);
    }
    return true;
}

bool text_in(const Cell& c, std::string& to) {
    if (std::holds_alternative<std::monostate>(c)) return true;
    const std::string* s = std::get_if<std::string>(&c);
    if (s == nullptr || s->size() > most_text) return false;
    to = whole_utf8(*s);
    return true;
}

RecordColumn text(const char* name, std::string PressRecord::*part) {
    return {name, false, [part](const PressRecord& r) { return (r.*part).empty() ? Cell() : Cell(r.*part); },
            [part](PressRecord& r, const Cell& c) { return text_in(c, r.*part); }};
}
RecordColumn whole(const char* name, int PressRecord::*part, int least) {
    return {name, true, [part](const PressRecord& r) { return Cell(static_cast<double>(r.*part)); },
            [part, least](PressRecord& r, const Cell& c) {
                if (std::holds_alternative<std::monostate>(c)) return true;
                const auto n = number_in(c);
                if (!n || *n < least || *n != std::floor(*n)) return false;
                r.*part = static_cast<int>(*n);
                return true;
            }};
}
RecordColumn number(const char* name, double PressRecord::*part) {
    return {name, true, [part](const PressRecord& r) { return r.*part == 0 ? Cell() : Cell(r.*part); },
            [part](PressRecord& r, const Cell& c) {
                if (std::holds_alternative<std::monostate>(c)) return true;
                const auto n = number_in(c);
                if (n) r.*part = *n;
                return n.has_value();
            }};
}
RecordColumn flag(const char* name, bool PressRecord::*part) {
    return {name, true, [part](const PressRecord& r) { return r.*part ? Cell(1.0) : Cell(); },
            [part](PressRecord& r, const Cell& c) {
                const auto n = number_in(c);
                r.*part = n && *n != 0;
                return n.has_value() || std::holds_alternative<std::monostate>(c);
            }};
}
template <class E, class Name>
RecordColumn choice(const char* column, E PressRecord::*part, int count, Name name) {
    return {column, false,
            [part, name](const PressRecord& r) { return static_cast<int>(r.*part) == 0 ? Cell() : Cell(std::string(name(r.*part))); },
            [part, count, name](PressRecord& r, const Cell& c) {
                if (std::holds_alternative<std::monostate>(c)) return true;
                const std::string* s = std::get_if<std::string>(&c);
                const auto known = s == nullptr ? std::nullopt : named<E>(*s, count, name);
                if (known) r.*part = *known;
                return known.has_value();
            }};
}
Landing& landing_of(PressRecord& r) {
    if (!r.landing) r.landing.emplace();
    return *r.landing;
}
RecordColumn landed(const char* name, std::optional<double> Landing::*part) {
    return {name, true, [part](const PressRecord& r) { return r.landing && (*r.landing).*part ? Cell(*((*r.landing).*part)) : Cell(); },
            [part](PressRecord& r, const Cell& c) {
                if (std::holds_alternative<std::monostate>(c)) return true;
                const auto n = number_in(c);
                if (n) landing_of(r).*part = *n;
                return n.has_value();
            }};
}
RecordColumn allowed(const char* name, double Landing::*part) {
    return {name, true, [part](const PressRecord& r) { return r.landing && (*r.landing).*part != 0 ? Cell((*r.landing).*part) : Cell(); },
            [part](PressRecord& r, const Cell& c) {
                if (std::holds_alternative<std::monostate>(c)) return true;
                const auto n = number_in(c);
                if (n) landing_of(r).*part = *n;
                return n.has_value();
            }};
}

std::vector<RecordColumn> all_columns() {
    std::vector<RecordColumn> out;
    out.push_back(text("id", &PressRecord::id));
    out.push_back(whole("version", &PressRecord::version, 1));
    out.push_back({"at", false, [](const PressRecord& r) { return Cell(r.at); },
                   [](PressRecord& r, const Cell& c) { return text_in(c, r.at) && is_moment(r.at); }});
    out.push_back(text("order_name", &PressRecord::order));
    out.push_back(text("job", &PressRecord::job));
    out.push_back(text("load", &PressRecord::load));
    out.push_back(text("design", &PressRecord::design));
    out.push_back(text("size", &PressRecord::size));
    out.push_back(text("blank", &PressRecord::style));
    out.push_back(text("box", &PressRecord::box));
    out.push_back(text("colour", &PressRecord::colour));
    out.push_back(text("fabric", &PressRecord::fabric));
    out.push_back(text("method", &PressRecord::method));
    out.push_back(text("medium", &PressRecord::medium));
    out.push_back(text("batch", &PressRecord::batch));
    out.push_back(text("press", &PressRecord::press));
    out.push_back(text("platen", &PressRecord::platen));
    out.push_back(text("pad", &PressRecord::pad));
    out.push_back(text("hands", &PressRecord::hands));
    out.push_back(whole("first", &PressRecord::first, 0));
    out.push_back(whole("pieces", &PressRecord::pieces, 1));
    out.push_back(flag("trial", &PressRecord::trial));
    out.push_back(flag("rehearsal", &PressRecord::rehearsal));
    out.push_back(number("planned_seconds", &PressRecord::planned));
    out.push_back(number("took_seconds", &PressRecord::took));
    out.push_back({"acts", false, [](const PressRecord& r) { return r.acts.empty() ? Cell() : Cell(acts_text(r.acts)); },
                   [](PressRecord& r, const Cell& c) {
                       if (std::holds_alternative<std::monostate>(c)) return true;
                       const std::string* s = std::get_if<std::string>(&c);
                       return s != nullptr && read_acts(*s, r.acts);
                   }});
    out.push_back(choice("result", &PressRecord::outcome, outcome_count, outcome_name));
    out.push_back(text("cause", &PressRecord::cause));
    out.push_back(choice("done_about_it", &PressRecord::mended, mended_count, mended_name));
    out.push_back(number("lost", &PressRecord::lost));
    out.push_back(landed("aside_mm", &Landing::aside));
    out.push_back(landed("down_mm", &Landing::down));
    out.push_back(landed("tilt_degrees", &Landing::tilt));
    out.push_back(landed("wider_per_cent", &Landing::wider));
    out.push_back(landed("gap_mm", &Landing::gap));
    out.push_back(allowed("allowed_aside_mm", &Landing::across));
    out.push_back(allowed("allowed_down_mm", &Landing::along));
    out.push_back(
        {"measured_piece", true,
         [](const PressRecord& r) { return r.landing && r.landing->piece > 0 ? Cell(static_cast<double>(r.landing->piece)) : Cell(); },
         [](PressRecord& r, const Cell& c) {
             if (std::holds_alternative<std::monostate>(c)) return true;
             const auto n = number_in(c);
             if (n && *n >= 1) landing_of(r).piece = static_cast<int>(*n);
             return n && *n >= 1;
         }});
    out.push_back(choice("proof", &PressRecord::proof, proof_count, proof_name));
    out.push_back({"patches", true, [](const PressRecord& r) { return r.patches == 0 ? Cell() : Cell(static_cast<double>(r.patches)); },
                   [](PressRecord& r, const Cell& c) {
                       if (std::holds_alternative<std::monostate>(c)) return true;
                       const auto n = number_in(c);
                       if (!n || *n < 0 || *n > 31) return false;
                       r.patches = static_cast<unsigned>(*n);
                       return true;
                   }});
    const auto washed = [](PressRecord& r) -> Wash& {
        if (!r.wash) r.wash.emplace();
        return *r.wash;
    };
    out.push_back(
        {"wash_date", false, [](const PressRecord& r) { return r.wash && !r.wash->date.empty() ? Cell(r.wash->date) : Cell(); },
         [washed](PressRecord& r, const Cell& c) { return std::holds_alternative<std::monostate>(c) || text_in(c, washed(r).date); }});
    out.push_back({"washes", true, [](const PressRecord& r) { return r.wash ? Cell(static_cast<double>(r.wash->washes)) : Cell(); },
                   [washed](PressRecord& r, const Cell& c) {
                       if (std::holds_alternative<std::monostate>(c)) return true;
                       const auto n = number_in(c);
                       if (!n || *n < 0) return false;
                       washed(r).washes = static_cast<int>(*n);
                       return true;
                   }});
    out.push_back(
        {"after_wash", false, [](const PressRecord& r) { return r.wash && !r.wash->changed.empty() ? Cell(r.wash->changed) : Cell(); },
         [washed](PressRecord& r, const Cell& c) { return std::holds_alternative<std::monostate>(c) || text_in(c, washed(r).changed); }});
    out.push_back(text("remark", &PressRecord::remark));
    return out;
}

}  // namespace

const std::vector<RecordColumn>& record_columns() {
    static const std::vector<RecordColumn> columns = all_columns();
    return columns;
}

}  // namespace orthema
