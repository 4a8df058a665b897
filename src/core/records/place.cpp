#include "core/records/place.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

namespace orthema {

namespace {

/// The chance, two-sided, that is spent at each number of pieces at which is looked. Their sum over both axes is below 2 %.
constexpr std::array<std::pair<int, double>, 9> looks{
    {{8, 0.0008}, {12, 0.0012}, {16, 0.0040}, {24, 0.0006}, {32, 0.0006}, {44, 0.0002}, {60, 0.0003}, {96, 0.0002}, {160, 0.0002}}};
/// A cause counts where the differences between its levels are less likely than this by chance.
constexpr double cause_level = 0.0009;
/// From here on it cannot be said that it does not differ.
constexpr double doubt_level = 0.05;
/// And then a level of it that is as unlikely to lie at nought.
constexpr double level_chance = 0.0022;
/// Causes are told apart from so many pieces on, so many of each.
constexpr std::size_t least_told = 24;
constexpr int least_each = 4;
constexpr std::size_t most_looked_at = 400;  ///< the latest

struct Row {
    double by = 0;
    const PressRecord* record = nullptr;
};

std::string level_of(const PressRecord& r, Cause cause) {
    switch (cause) {
    case Cause::all: return {};
    case Cause::press: return r.press + '\n' + r.platen;
    case Cause::hands: return r.hands;
    case Cause::blank: return r.style;
    case Cause::size: return r.style + '\n' + r.size;
    }
    return {};
}

struct Named {
    Factor factor;
    std::vector<std::string> names;
};

Named levels_of(const std::vector<Row>& rows, Cause cause) {
    Named out;
    std::map<std::string, int> known;
    for (const Row& r : rows) {
        const std::string name = level_of(*r.record, cause);
        const auto [at, fresh] = known.try_emplace(name, static_cast<int>(known.size()));
        if (fresh) out.names.push_back(name);
        out.factor.level.push_back(at->second);
    }
    out.factor.levels = static_cast<int>(known.size());
    return out;
}

/// The mean of each level of a cause, the others drawn about nought.
struct Means {
    MixedFit fit;
    double chance = 1;  ///< that its levels differ as much by chance
};

Means means_of(const std::vector<Row>& rows, const std::array<Named, cause_count>& causes, Cause cause) {
    const Factor& mine = causes[static_cast<std::size_t>(cause)].factor;
    std::vector<Factor> random;
    if (cause != Cause::all)
        for (int c = 1; c < cause_count; ++c) {
            const Factor& other = causes[static_cast<std::size_t>(c)].factor;
            // blank and size are one and the same cause from afar and from near
            const bool same = (cause == Cause::blank && c == static_cast<int>(Cause::size)) ||
                              (cause == Cause::size && c == static_cast<int>(Cause::blank));
            if (c != static_cast<int>(cause) && !same && other.levels > 1 && !aliased(mine, other)) random.push_back(other);
        }
    const std::size_t n = rows.size(), levels = static_cast<std::size_t>(mine.levels);
    const bool creep = n >= 24 + levels;
    std::vector<double> y;
    std::vector<std::vector<double>> x;
    for (std::size_t i = 0; i < n; ++i) {
        std::vector<double> row(levels + (creep ? 1 : 0), 0.0);
        row[static_cast<std::size_t>(mine.level[i])] = 1;
        if (creep) row[levels] = (static_cast<double>(i) - static_cast<double>(n - 1) / 2) / static_cast<double>(n);
        y.push_back(rows[i].by);
        x.push_back(std::move(row));
    }
    Means out;
    out.fit = mixed_fit(y, x, random);
    if (!out.fit.ok || levels < 2 || out.fit.df < 3) return out;
    // the differences from the first level against nought
    const std::size_t q = levels - 1;
    Square cov(q);
    std::vector<double> off(q);
    for (std::size_t a = 0; a < q; ++a) {
        off[a] = out.fit.fixed[a + 1] - out.fit.fixed[0];
        for (std::size_t b = 0; b < q; ++b)
            cov(a, b) =
                out.fit.fixed_cov(a + 1, b + 1) - out.fit.fixed_cov(a + 1, 0) - out.fit.fixed_cov(0, b + 1) + out.fit.fixed_cov(0, 0);
    }
    if (!invert(cov)) return out;
    double square = 0;
    for (std::size_t a = 0; a < q; ++a)
        for (std::size_t b = 0; b < q; ++b) square += off[a] * cov(a, b) * off[b];
    out.chance = f_above(square / static_cast<double>(q), static_cast<double>(q), out.fit.df);
    return out;
}

struct Judged {
    Cause cause = Cause::all;
    std::string level;
};

struct Judgement {
    std::vector<Judged> out;
    bool doubtful = false;  ///< presses or hands differ, and it cannot be said yet which
};

/// What stands out of these rows at this number of them.
Judgement judge(const std::vector<Row>& rows, double chance) {
    std::array<Named, cause_count> causes;
    for (int c = 0; c < cause_count; ++c) causes[static_cast<std::size_t>(c)] = levels_of(rows, static_cast<Cause>(c));
    Cause best = Cause::all;
    Means means;
    Judgement result;
    int told = 0;  // causes that these rows can tell apart
    for (int c = 1; c < cause_count; ++c) told += causes[static_cast<std::size_t>(c)].factor.levels > 1 ? 1 : 0;
    double least = cause_level / std::max(1, told);
    for (int c = 1; c < cause_count; ++c) {
        const int levels = causes[static_cast<std::size_t>(c)].factor.levels;
        if (levels < 2 || levels * least_each > static_cast<int>(rows.size()) ||
            (rows.size() < least_told && c > static_cast<int>(Cause::hands)))
            continue;
        Means m = means_of(rows, causes, static_cast<Cause>(c));
        // where presses or hands differ already, a mean over all of them would move the marks of those that are right
        if (m.fit.ok && m.chance < doubt_level && c <= static_cast<int>(Cause::hands)) result.doubtful = true;
        if (m.fit.ok && m.chance < least) {
            least = m.chance;
            best = static_cast<Cause>(c);
            means = std::move(m);
        }
    }
    if (best != Cause::all) result.doubtful = false;
    if (result.doubtful) return result;
    if (best == Cause::all) means = means_of(rows, causes, Cause::all);
    if (!means.fit.ok) return result;
    const double enough = t_quantile(1 - (best == Cause::all ? chance : level_chance) / 2, means.fit.df);
    const Named& named = causes[static_cast<std::size_t>(best)];
    for (std::size_t l = 0; l < named.names.size(); ++l) {
        const auto count = std::count(named.factor.level.begin(), named.factor.level.end(), static_cast<int>(l));
        const double by = means.fit.fixed[l], error = std::sqrt(means.fit.fixed_cov(l, l));
        if (count >= 4 && std::abs(by) >= worth_moving && std::abs(by) > enough * error) result.out.push_back({best, named.names[l]});
    }
    return result;
}

std::vector<Row> rows_of(const std::vector<const PressRecord*>& records, Axis axis) {
    std::vector<Row> rows;
    for (const PressRecord* r : records)
        if (r->landing)
            if (const auto& by = axis == Axis::aside ? r->landing->aside : r->landing->down) rows.push_back({*by, r});
    if (rows.size() > most_looked_at) rows.erase(rows.begin(), rows.end() - static_cast<std::ptrdiff_t>(most_looked_at));
    return rows;
}

}  // namespace

bool undecided(const std::vector<const PressRecord*>& records) {
    for (const Axis axis : {Axis::aside, Axis::down}) {
        const std::vector<Row> rows = rows_of(records, axis);
        if (rows.size() >= static_cast<std::size_t>(least_pieces) && judge(rows, level_chance).doubtful) return true;
    }
    return false;
}

std::vector<Displaced> displaced(const std::vector<const PressRecord*>& records) {
    std::vector<Displaced> out;
    for (const Axis axis : {Axis::aside, Axis::down}) {
        const std::vector<Row> rows = rows_of(records, axis);
        std::vector<Judged> judged;
        for (std::size_t k = looks.size(); k-- > 0 && judged.empty();) {  // the latest that says something is the best informed
            const auto& [pieces, chance] = looks[k];
            if (rows.size() < static_cast<std::size_t>(pieces)) continue;
            Judgement now = judge({rows.begin(), rows.begin() + pieces}, chance);
            if (now.doubtful) break;
            judged = std::move(now.out);
        }
        if (judged.empty()) continue;
        std::array<Named, cause_count> causes;
        for (int c = 0; c < cause_count; ++c) causes[static_cast<std::size_t>(c)] = levels_of(rows, static_cast<Cause>(c));
        for (const Judged& j : judged) {
            const Named& named = causes[static_cast<std::size_t>(j.cause)];
            const auto at = std::find(named.names.begin(), named.names.end(), j.level);
            const Means means = means_of(rows, causes, j.cause);
            if (at == named.names.end() || !means.fit.ok) continue;
            const auto l = static_cast<std::size_t>(at - named.names.begin());
            Displaced d;
            d.axis = axis;
            d.cause = j.cause;
            d.by = means.fit.fixed[l];
            if (std::abs(d.by) < worth_moving) continue;
            const double error = std::sqrt(means.fit.fixed_cov(l, l)) * t_quantile(0.975, means.fit.df);
            d.sure = {d.by - error, d.by + error};
            for (std::size_t i = 0; i < rows.size(); ++i)
                if (named.factor.level[i] == static_cast<int>(l)) d.records.push_back(rows[i].record->id);
            d.pieces = static_cast<int>(d.records.size());
            const auto only = [&](Cause c) { return causes[static_cast<std::size_t>(c)].names.size() == 1; };
            const PressRecord& first =
                *rows[static_cast<std::size_t>(std::find(named.factor.level.begin(), named.factor.level.end(), static_cast<int>(l)) -
                                               named.factor.level.begin())]
                     .record;
            if (j.cause == Cause::press || only(Cause::press)) d.press = first.press;
            if (j.cause == Cause::hands || only(Cause::hands)) d.hands = first.hands;
            if (j.cause == Cause::blank || j.cause == Cause::size || only(Cause::blank)) d.style = first.style;
            if (j.cause == Cause::size || only(Cause::size)) d.size = first.size;
            for (int c = 1; c < cause_count; ++c) {
                const Cause other = static_cast<Cause>(c);
                if (other == j.cause || other == Cause::size) continue;
                const bool told = j.cause == Cause::all ? !only(other) : !aliased(named.factor, causes[static_cast<std::size_t>(c)].factor);
                if (!told && !(other == Cause::hands && first.hands.empty())) d.or_else.push_back(other);
            }
            out.push_back(std::move(d));
        }
    }
    return out;
}

}  // namespace orthema
