#include "core/pipeline/gang.h"

#include "core/sheets/ganged.h"

namespace orthema {

Order with_new_jobs_laid(const Order& gang, const Order& before, const Shared<KnownArt>& art) {
    const Work w = work(gang, {}, art);
    Order out = gang;
    for (const Job& j : gang.jobs.all())
        if (find_job(before, j.id) == nullptr) out = with_job_laid(out, w.transfer_set(), j.id);
    return out;
}

Result<Order> ganged_and_laid(const std::vector<Order>& orders, const std::string& id, const std::string& name,
                              const Shared<KnownArt>& art) {
    auto gang = ganged(orders, id, name);
    if (!gang) return gang;
    return with_new_jobs_laid(*gang, orders.front(), art);
}

Shared<KnownArt> gang_art(const Order& gang, const std::vector<std::pair<std::string, Shared<KnownArt>>>& by_job) {
    auto out = std::make_shared<KnownArt>();
    for (const auto& [id, art] : by_job) {
        const Job* job = find_job(gang, id);
        if (job == nullptr || !art) continue;
        const JobNames names = names_of(*job);
        const auto& to = names.to_gang[static_cast<std::size_t>(IdKind::art)];
        for (const auto& [was, facts] : art->facts)
            if (const auto is = to.find(was); is != to.end()) out->facts.emplace(is->second, facts);
        for (Finding f : art->faults) {
            if (const auto is = to.find(f.about.art); is != to.end()) f.about.art = is->second;
            out->faults.push_back(std::move(f));
        }
    }
    return Shared<KnownArt>(std::move(out));
}

std::optional<Order> job_apart(const Order& gang, const std::string& job, const TransferSet& set) {
    auto out = job_taken_out(gang, job);
    if (out) out->layouts = layouts_of_job(gang, set, job);
    return out;
}

Order gang_without(const Order& gang, const std::string& job, const TransferSet& set) {
    return without_job(without_copies_of(gang, set, job), job);
}

}  // namespace orthema
