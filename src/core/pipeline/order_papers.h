// Quote and papers of an order with its work: the same figures wherever they are asked for.
#pragma once

#include "core/papers/papers.h"
#include "core/pipeline/work.h"

namespace orthema {

/// By what the shop that the work was made for usually spoils.
inline Quote quote_of(const Order& order, const Work& work, const std::string& job = {}) {
    return quote_of(order, work.transfer_set(), work.sheet_plan(), work.press_plan(), work.supply.in.shop.spoiled, job);
}

/// The work must outlive it.
inline PaperOf paper_of(const Order& order, const Work& work, const std::string& job = {}) {
    return {order, work.plan(), work.transfer_set(), work.sheet_plan(), work.press_plan(), work.supplies(), stock_in(work.supply.in.shop),
            job};
}

}  // namespace orthema
