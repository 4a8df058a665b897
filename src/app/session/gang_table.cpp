#include "app/session/gang_table.h"

#include <QFileInfo>

#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "core/pipeline/gang.h"

namespace orthema::app {

namespace {

/// All that lies on the table once several orders are one.
struct Ganged {
    OrderPackage package;
    LoadedArtById art;
    Shared<KnownArt> known;
    Work fitted;
};

std::string gang_name(const std::vector<Order>& orders) {
    if (orders.size() == 2) return orders[0].name + " and " + orders[1].name;
    return orders.front().name + " and " + std::to_string(orders.size() - 1) + " more";
}

Result<std::shared_ptr<Ganged>> lay_together(const std::vector<OrderPackage>& packages) {
    auto out = std::make_shared<Ganged>();
    std::vector<Order> orders;
    for (const OrderPackage& p : packages) {
        orders.push_back(p.order);
        out->package.art.insert(p.art.begin(), p.art.end());
        auto& records = out->package.records;
        records.records.insert(records.records.end(), p.records.records.begin(), p.records.records.end());
        records.lessons.insert(records.lessons.end(), p.records.lessons.begin(), p.records.lessons.end());
    }
    const std::string id = is_gang(orders.front()) ? orders.front().job : new_job_id();
    const std::string name = is_gang(orders.front()) ? orders.front().name : gang_name(orders);
    auto gang = ganged(orders, id, name);
    if (!gang) return gang.error();
    auto known = std::make_shared<KnownArt>();
    out->art = load_all_art(*gang, out->package.art, &known->faults);
    known->facts = facts_of(out->art);
    out->known = Shared<KnownArt>(std::move(known));
    gang = ganged_and_laid(orders, id, name, out->known);
    if (!gang) return gang.error();
    out->package.order = std::move(*gang);
    out->fitted = work(out->package.order, Shop{}, out->known, nullptr, {}, HowFar::fit);
    return out;
}

}  // namespace

GangTable::GangTable(Document& document, Pictures& pictures, Chain& chain, Keeper& keeper, Records& records, Jobs& jobs, Notices& notices,
                     QObject* parent)
    : QObject(parent),
      document_(document),
      pictures_(pictures),
      chain_(chain),
      keeper_(keeper),
      records_(records),
      jobs_(jobs),
      notices_(notices) {}

void GangTable::gang(const QStringList& paths) {
    jobs_.background([this, paths]() -> std::function<void()> {
        std::vector<OrderPackage> packages;
        for (const QString& path : paths) {
            auto package = open_order(path.toStdString());
            if (!package)
                return [this, path, s = package.sentence()] {
                    notices_.complain(QStringLiteral("%1: %2").arg(QFileInfo(path).fileName(), qt(s)));
                };
            packages.push_back(std::move(*package));
        }
        auto laid = lay_together(packages);
        if (!laid) return [this, s = laid.sentence()] { notices_.complain(qt(s)); };
        return [this, laid = *laid] { keeper_.begin_with(laid->package, laid->art, laid->known, laid->fitted); };
    });
}

void GangTable::begin_like(const QString& path) {
    jobs_.background([this, path]() -> std::function<void()> {
        auto package = open_order(path.toStdString());
        if (!package) return [this, s = package.sentence()] { notices_.complain(qt(s)); };
        auto laid = std::make_shared<Ganged>();
        laid->package = std::move(*package);
        laid->package.order = begun_like(laid->package.order, new_job_id());
        laid->package.records = {};
        auto known = std::make_shared<KnownArt>();
        laid->art = load_all_art(laid->package.order, laid->package.art, &known->faults);
        known->facts = facts_of(laid->art);
        laid->known = Shared<KnownArt>(std::move(known));
        laid->fitted = work(laid->package.order, Shop{}, laid->known, nullptr, {}, HowFar::fit);
        return [this, laid] { keeper_.begin_with(laid->package, laid->art, laid->known, laid->fitted); };
    });
}

void GangTable::bring_in(const QString& path) {
    OrderPackage here{document_.order(), pictures_.bytes(), {}, {}};
    jobs_.background([this, path, here]() -> std::function<void()> {
        auto package = open_order(path.toStdString());
        if (!package) return [this, s = package.sentence()] { notices_.complain(qt(s)); };
        const QString name = qt(package->order.name);
        const OrderRecords records = package->records;
        auto laid = lay_together({here, std::move(*package)});
        if (!laid) return [this, s = laid.sentence()] { notices_.complain(qt(s)); };
        return [this, laid = *laid, name, records, was = here.order] {
            if (!(document_.order() == was))
                return notices_.complain(QStringLiteral("The order was changed while %1 was brought in: bring it in again.").arg(name));
            pictures_.take_over(laid->package.art, laid->art, laid->known);
            document_.edit(QStringLiteral("bring in %1").arg(name), laid->package.order);
            records_.merge(records);
        };
    });
}

void GangTable::take_out(const std::string& job, const QString& path) {
    if (chain_.catching_up()) return notices_.complain(QStringLiteral("The sheets are being worked out: take it out in a moment."));
    const Order gang = document_.order();
    const auto apart = job_apart(gang, job, chain_.work().transfer_set());
    if (!apart) return;
    const Order rest = gang_without(gang, job, chain_.work().transfer_set());
    jobs_.background(
        [this, apart = *apart, rest, gang, path, bytes = pictures_.bytes(), records = records_.of_order(job)]() -> std::function<void()> {
            const auto done = save_order(path.toStdString(), apart, bytes, records);
            if (!done) return [this, s = done.sentence()] { notices_.complain(qt(s)); };
            return [this, name = qt(apart.name), rest, gang, path] {
                if (document_.order() == gang) document_.edit(QStringLiteral("take out %1").arg(name), rest);
                notices_.say({QStringLiteral("%1 is an order of its own again.").arg(name), false, QStringLiteral("Open it"),
                              [this, path] { keeper_.open(path); }});
            };
        });
}

}  // namespace orthema::app
