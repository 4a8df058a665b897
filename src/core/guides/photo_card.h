// The photo card: a page of markers that lies in the picture when a blank is measured from a photograph. Which card it is and which way
// it lies is read from its markers, so that several may lie in one picture.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/guides/guides.h"

namespace orthema {

enum class CardSize {
    large,  ///< on A4 or letter: the same on both
    small   ///< half that: for small blanks
};

/// A marker's dark square, mm from the card's middle, y down.
struct CardMark {
    int place = 0;
    Rect box;
};
constexpr int marks_on_card = 20;
constexpr int cards_of_a_size = 12;

/// Round a free middle, from the top left.
std::vector<CardMark> card_marks(CardSize size);
/// What it is printed on, as far as it hides the table: about its middle.
Rect card_paper(CardSize size);

/// The marker's number in its family; `card` from 1 to cards_of_a_size.
int mark_id(CardSize size, int card, int place);
struct MarkOf {
    CardSize size = CardSize::large;
    int card = 1, place = 0;
};
/// The other way round; nothing for a marker that is on no card.
std::optional<MarkOf> mark_of(int id);

/// One card a page of this paper, the small ones to be cut out of it, numbered from `first`, for what a printed 100 mm measures on this
/// printer.
std::vector<GuidePage> card_pages(const GuideSetup& setup, CardSize size, Paper paper, int first, int count);

}  // namespace orthema
