// How an art looks, in words that are the same where it looks the same: by these an approval, the shelf and what was drawn are compared.
#pragma once

#include "core/order/order.h"

namespace orthema {

std::string clip_words(const ArtClip& clip);

/// All that a word picture, or a print put together, shows. Empty for other art.
std::string composed_words(const Order& order, const Art& art);

}  // namespace orthema
