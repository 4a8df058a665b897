#include "core/records/press_record.h"

#include <algorithm>
#include <array>
#include <map>

namespace orthema {

const char* outcome_name(Outcome o) {
    static constexpr std::array<const char*, outcome_count> names{
        "released clean", "not released", "lifted",  "ghosted",     "scorched",  "crooked",         "off its place", "upside down",
        "wrong side",     "dye migrated", "cracked", "seam gaping", "seam dark", "backing showing", "otherwise"};
    return names[static_cast<std::size_t>(o)];
}

const char* mended_name(Mended m) {
    static constexpr std::array<const char*, mended_count> names{"nothing", "pressed again", "printed again", "second quality", "spoiled"};
    return names[static_cast<std::size_t>(m)];
}

const char* plate_corner_name(int corner) {
    static constexpr std::array<const char*, plate_corner_count> names{"far left", "far right", "near left", "near right", "middle"};
    return names[static_cast<std::size_t>(corner)];
}

const char* proof_name(Proof p) {
    static constexpr std::array<const char*, proof_count> names{"not looked at", "even", "pale", "patches"};
    return names[static_cast<std::size_t>(p)];
}

namespace {

bool earlier(const PressRecord& a, const PressRecord& b) { return a.at < b.at; }

/// Few come to many: each is looked for from the latest backwards, and put where its time is.
void merge_few(std::vector<PressRecord>& into, const std::vector<PressRecord>& more) {
    for (const PressRecord& r : more) {
        const auto same = std::find_if(into.rbegin(), into.rend(), [&](const PressRecord& o) { return o.id == r.id; });
        if (same != into.rend()) {
            if (r.version <= same->version) continue;
            if (same->at == r.at) {
                *same = r;
                continue;
            }
            into.erase(std::next(same).base());
        }
        into.insert(std::upper_bound(into.begin(), into.end(), r, earlier), r);
    }
}

}  // namespace

void merge_records(std::vector<PressRecord>& into, const std::vector<PressRecord>& more) {
    if (more.size() * 16 < into.size()) return merge_few(into, more);
    std::map<std::string, std::size_t> at;
    for (std::size_t i = 0; i < into.size(); ++i) at[into[i].id] = i;
    for (const PressRecord& r : more)
        if (const auto known = at.find(r.id); known == at.end()) {
            at[r.id] = into.size();
            into.push_back(r);
        } else if (r.version > into[known->second].version) {
            into[known->second] = r;
        }
    std::stable_sort(into.begin(), into.end(), earlier);
}

bool passes(const PressRecord& r, const RecordFilter& f) {
    if (r.rehearsal && !f.rehearsals) return false;
    const auto is = [](const std::string& wanted, const std::string& has) { return wanted.empty() || wanted == has; };
    for (const FilterColumn& c : filter_columns)
        if (!is(f.*c.wanted, r.*c.has)) return false;
    if (!f.jobs.empty() && std::find(f.jobs.begin(), f.jobs.end(), r.job) == f.jobs.end()) return false;
    if (!f.from.empty() && r.at.compare(0, 10, f.from) < 0) return false;
    if (!f.to.empty() && r.at.compare(0, 10, f.to) > 0) return false;
    if (f.words.empty()) return true;
    for (const std::string* s : {&r.remark, &r.cause, &r.order, &r.load, &r.box, &r.batch})
        if (s->find(f.words) != std::string::npos) return true;
    return false;
}

std::vector<std::size_t> filtered(const std::vector<PressRecord>& all, const RecordFilter& filter) {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (passes(all[i], filter)) out.push_back(i);
    return out;
}

}  // namespace orthema
