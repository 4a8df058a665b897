#include "app/session/gang_table.h"

#include <QFileInfo>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "core/pipeline/gang.h"

namespace orthema::app {

namespace {

/// Fits it on this thread; what it gives back lays it on the table.
std::function<void()> for_the_table(Keeper& keeper, GangedPackage all) {
    const auto held = std::make_shared<const GangedPackage>(std::move(all));
    const auto fitted = std::make_shared<const Work>(work(held->package.order, Shop{}, held->pictures.known, nullptr, {}, HowFar::fit));
    return [&keeper, held, fitted] { keeper.begin_with(held->package, held->pictures, *fitted); };
}

std::string gang_name(const std::vector<OrderPackage>& orders) {
    const std::string first = orders.front().order.name;
    return first + spoken(" and ") + (orders.size() == 2 ? orders[1].order.name : std::to_string(orders.size() - 1) + spoken(" more"));
}

Result<GangedPackage> lay_together(const std::vector<OrderPackage>& packages) {
    const Order& first = packages.front().order;
    return is_gang(first) ? gang_packages(packages, first.job, first.name) : gang_packages(packages, new_job_id(), gang_name(packages));
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
                return [this, path, why = package.error()] {
                    notices_.complain(QStringLiteral("%1: %2").arg(QFileInfo(path).fileName(), refusal(why)));
                };
            packages.push_back(std::move(*package));
        }
        auto laid = lay_together(packages);
        if (!laid) return [this, why = laid.error()] { notices_.complain(why); };
        return for_the_table(keeper_, std::move(*laid));
    });
}

void GangTable::begin_like(const QString& path) {
    jobs_.background([this, path]() -> std::function<void()> {
        auto package = open_order(path.toStdString());
        if (!package) return [this, why = package.error()] { notices_.complain(why); };
        package->order = begun_like(package->order, new_job_id());
        package->records = {};
        ReadArt pictures = read_all_art(package->order, package->art);
        return for_the_table(keeper_, {std::move(*package), std::move(pictures)});
    });
}

void GangTable::bring_in(const QString& path) {
    OrderPackage here{document_.order(), pictures_.bytes(), {}, {}};
    jobs_.background([this, path, here]() -> std::function<void()> {
        auto package = open_order(path.toStdString());
        if (!package) return [this, why = package.error()] { notices_.complain(why); };
        const QString name = qt(package->order.name);
        const OrderRecords records = package->records;
        auto laid = lay_together({here, std::move(*package)});
        if (!laid) return [this, why = laid.error()] { notices_.complain(why); };
        return [this, laid = std::make_shared<const GangedPackage>(std::move(*laid)), name, records, was = here.order] {
            if (!(document_.order() == was))
                return notices_.complain(tr("The order was changed while %1 was brought in: bring it in again.").arg(name));
            pictures_.take_over(laid->package.order, laid->package.art, laid->pictures.art, laid->pictures.known);
            document_.edit(tr("bring in %1").arg(name), laid->package.order);
            records_.merge(records);
        };
    });
}

void GangTable::take_out(const std::string& job, const QString& path) {
    if (chain_.catching_up()) return notices_.complain(tr("The sheets are being worked out: take it out in a moment."));
    const Order gang = document_.order();
    const auto apart = job_apart(gang, job, chain_.work().transfer_set());
    if (!apart) return;
    const Order rest = gang_without(gang, job, chain_.work().transfer_set());
    jobs_.background([this, apart = *apart, rest, gang, path, bytes = pictures_.bytes(),
                      records = records_.of_order(job)]() -> std::function<void()> {
        const auto done = save_order(path.toStdString(), apart, bytes, records);
        if (!done) return [this, why = done.error()] { notices_.complain(why); };
        return [this, name = qt(apart.name), rest, gang, path] {
            if (document_.order() == gang) document_.edit(tr("take out %1").arg(name), rest);
            notices_.say({tr("%1 is an order of its own again.").arg(name), false, tr("Open it"), [this, path] { keeper_.open(path); }});
        };
    });
}

}  // namespace orthema::app
