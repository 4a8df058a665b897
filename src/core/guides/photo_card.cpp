#include "core/guides/photo_card.h"

#include "core/drawing/fiducial.h"

namespace orthema {

namespace {

constexpr int card_across = 5, card_down = 7;

struct Pattern {
    double side, pitch;
};
Pattern pattern_of(CardSize size) { return size == CardSize::large ? Pattern{26, 36} : Pattern{18, 25}; }

}  // namespace

std::vector<CardMark> card_marks(CardSize size) {
    const Pattern p = pattern_of(size);
    std::vector<CardMark> out;
    for (int y = 0; y < card_down; ++y)
        for (int x = 0; x < card_across; ++x) {
            if (x > 0 && x + 1 < card_across && y > 0 && y + 1 < card_down) continue;
            const Point middle{(x - (card_across - 1) / 2.0) * p.pitch, (y - (card_down - 1) / 2.0) * p.pitch};
            out.push_back({static_cast<int>(out.size()), Rect{middle.x, middle.y, middle.x, middle.y}.grown(p.side / 2)});
        }
    return out;
}

Rect card_paper(CardSize size) { return size == CardSize::large ? Rect{-108, -148.5, 108, 148.5} : Rect{-74, -108, 74, 108}; }

int mark_id(CardSize size, int card, int place) {
    return ((size == CardSize::small ? cards_of_a_size : 0) + card - 1) * marks_on_card + place;
}

std::optional<MarkOf> mark_of(int id) {
    if (id < 0 || id >= 2 * cards_of_a_size * marks_on_card) return std::nullopt;
    const int card = id / marks_on_card;
    return MarkOf{card < cards_of_a_size ? CardSize::large : CardSize::small, card % cards_of_a_size + 1, id % marks_on_card};
}

std::vector<GuidePage> card_pages(const GuideSetup& setup, CardSize size, Paper paper, int first, int count) {
    const PaperSize sheet = paper_size(paper);
    const double k = print_correction(setup);
    const Point middle{sheet.width / 2, sheet.height / 2};
    std::vector<GuidePage> out;
    for (int card = first; card < first + count && card <= cards_of_a_size; ++card) {
        GuidePage page;
        page.title = "Photo card " + std::to_string(card);
        Drawing& d = page.drawing;
        d.width = sheet.width;
        d.height = sheet.height;
        double bottom = 0;
        if (size == CardSize::small) {  // cut out of the sheet
            const Rect r = card_paper(size);
            d.line({middle + Point{r.x0, r.y0}, middle + Point{r.x1, r.y0}, middle + Point{r.x1, r.y1}, middle + Point{r.x0, r.y1},
                    middle + Point{r.x0, r.y0}},
                   {palette::quiet, 0.25, {3, 2}});
        }
        for (const CardMark& m : card_marks(size)) {
            draw_fiducial(d, mark_id(size, card, m.place), middle + Point{m.box.x0, m.box.y0} * k, m.box.width() * k);
            bottom = std::max(bottom, middle.y + m.box.y1 * k);
        }
        const double w = size == CardSize::large ? 100 : 66, left = middle.x - w / 2;
        double y = middle.y - (size == CardSize::large ? 62 : 40);
        d.line({{middle.x, y}, {middle.x, y - 14}}, {palette::ink, 0.6, {}});
        d.fill({{{middle.x - 3, y - 12}, {middle.x + 3, y - 12}, {middle.x, y - 19}}}, palette::ink);
        y = wrapped(d, {left, y + 10}, page.title, size == CardSize::large ? 8 : 6, w, palette::ink, true);
        y += 3;
        const double small = size == CardSize::large ? 3.6 : 3;
        for (const char* words :
             {"Lay it flat beside the blank, on the same table, this arrow as the blank's top.",
              "The whole blank and the whole card in the picture, some table all round. From above, about a metre away, no flash.",
              "Several cards, each with another number, make it more exact: one at each side of the blank.",
              "The line below must measure 100 mm. Where it does not, type what it measures on the Guides bench, and print anew."})
            y = wrapped(d, {left, y}, words, small, w, palette::ink) + small * 0.7;
        calibration_bar(d, {middle.x - 50 * k, bottom + 7}, 100 * k, "100 mm");
        out.push_back(std::move(page));
    }
    return out;
}

}  // namespace orthema
