// Where films are snipped to lie round a cap: at 1:1, as printed, to lay under the film.
#pragma once

#include "core/guides/guides.h"
#include "core/transfers/transfers.h"

namespace orthema {

/// Every film with snips, with the length of each; one that is wider than the page lies across it. None where nothing is snipped.
std::vector<GuidePage> snip_pages(const Order& order, const TransferSet& set);

}  // namespace orthema
