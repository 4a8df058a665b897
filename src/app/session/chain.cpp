#include "app/session/chain.h"

#include <algorithm>
#include <utility>

namespace orthema::app {

namespace {

/// Whether two transfers are shown alike on a sheet.
bool look_alike(const Transfer& a, const Transfer& b) {
    return a.id == b.id && a.medium == b.medium && a.made == b.made && a.mirrored == b.mirrored && a.contour.outer == b.contour.outer &&
           a.picture.size() == b.picture.size() && a.blanks.size() == b.blanks.size() &&
           std::equal(a.shape.begin(), a.shape.end(), b.shape.begin(), b.shape.end(),
                      [](const Polygon& p, const Polygon& q) { return p.outer == q.outer; });
}

bool look_alike(const TransferSet& a, const TransferSet& b) {
    return std::equal(a.transfers.begin(), a.transfers.end(), b.transfers.begin(), b.transfers.end(),
                      [](const Transfer& x, const Transfer& y) { return look_alike(x, y); });
}

}  // namespace

Chain::Chain(Document& document, Pictures& pictures, Jobs& jobs, QObject* parent)
    : QObject(parent), document_(document), pictures_(pictures), jobs_(jobs) {}

void Chain::follow() {
    work_ = orthema::work(document_.order(), shop_, pictures_.known(), &work_, {}, HowFar::fit);
    compute_later();
}

void Chain::use_shop(const Shop& shop) {
    shop_ = shop;
    compute_later();
}

void Chain::take_over(Work fitted) {
    work_ = std::move(fitted);
    ++number_;
    ++order_number_;
    compute_later();
}

/// While one round runs, later changes ask for one more.
void Chain::compute_later() {
    if (computing_) {
        again_ = true;
        return;
    }
    computing_ = true;
    jobs_.background(
        [this, order = document_.order(), shop = shop_, known = pictures_.known(), before = work_,
         of = order_number_]() -> std::function<void()> {
            return [this, of, done = orthema::work(order, shop, known, &before)]() mutable {
                if (of != order_number_) {  // of an order that is not on the table any more
                    computing_ = again_ = false;
                    compute_later();
                    return;
                }
                if (!look_alike(done.transfer_set(), work_.transfer_set())) ++number_;
                computing_ = false;
                const bool again = std::exchange(again_, false);
                // the fit of now stays: it is of this order or of a later one
                if (again) done.fit = work_.fit;
                work_ = std::move(done);
                if (again) {
                    work_ = orthema::work(document_.order(), shop_, pictures_.known(), &work_, {}, HowFar::fit);
                    compute_later();
                }
                emit worked();
            };
        },
        [this] { computing_ = again_ = false; });
}

void Chain::better(std::shared_ptr<const PressPlan> plan) { work_ = with_press_plan(std::move(work_), document_.order(), std::move(plan)); }

}  // namespace orthema::app
