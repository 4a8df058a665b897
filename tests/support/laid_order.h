// The small order with its one decoration on a medium, made and laid out.
#pragma once

#include "core/sheets/lay_out.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema::test {

struct LaidOrder {
    Order order = small_order();
    std::string medium_id;
    LoadedArtById art;
    ArtFactsById facts;
    TransferSet set;
    /// With a mirror, all media are mirrored by it.
    explicit LaidOrder(std::string medium, std::optional<MirrorBy> mirror = {}) : medium_id(std::move(medium)) {
        for (Medium& m : order.media) m.mirror = mirror.value_or(m.mirror);
        order.decorations[0].medium = medium_id;
        art = load_all_art(order, small_art(), nullptr);
        facts = facts_of(art);
        set = transfers(order, fit(order, facts), facts);
        settle();
    }
    void settle() {
        NestOptions options;
        options.rounds = 1;
        order = with_layout(order, medium_id, lay_out(medium(), set, layout_of(order, medium_id), options)->sheets);
    }
    [[nodiscard]] const Medium& medium() const { return *find_medium(order, medium_id); }
};

}  // namespace orthema::test
