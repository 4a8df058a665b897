// The roster: lines of the order that are one person's, with a name or a number that stands on the garment, and the words that
// letterings make of them.
#pragma once

#include <map>
#include <string>
#include <utility>
#include <vector>

#include "core/base/finding.h"
#include "core/order/order.h"

namespace orthema {

/// Whether a line says what stands on its garments.
inline bool is_person(const OrderLine& line) { return !line.name.empty() || !line.number.empty(); }

/// The words of a lettering with a line's fields put in: {name}, {number}, {initials}, {note}; other braces stay as they are. Outer space
/// goes; nothing where the fields that it asks for are all empty.
std::string word_for(const Lettering& lettering, const OrderLine& line);

/// What a lettering shows of words where nobody is named yet: its fields in their own names, "00" for a number.
std::string sample_word(const Lettering& lettering);

/// Whether words are numbers: digits alone, which are spaced by eye.
bool is_number(const std::string& word);

/// The pieces that a word is printed as: itself, or each of its digits where numbers are put together at the press.
std::vector<std::string> printed_as(const Lettering& lettering, const std::string& word);

/// The words that a lettering needs pictures of, each once: of the lots that carry it, of all lines where none does yet; the single
/// digits too where they are put together at the press. Its sample where nobody is named.
std::vector<std::string> words_of(const Order& order, const Art& art);

/// Id under which a word of a lettering has its picture, and the art that such an id is of (an id that is of no word comes back).
std::string word_art(const std::string& art, const std::string& word);
std::string art_of_word(const std::string& id);
std::string word_in(const std::string& id);  ///< empty: of no word

/// A word as garments of one size wear it, in the order of their pieces.
struct Worn {
    std::string word;  ///< empty: nothing to put there
    const OrderLine* line = nullptr;
    int quantity = 0;
};
/// Of a lot in one size, line by line.
std::vector<Worn> worn(const Order& order, const Lettering& lettering, const RunKey& run, const std::string& size);

/// How a decoration sets its words, one for each garment; null where it is a picture.
const Lettering* lettering_of(const Order& order, const Decoration& decoration);
inline bool is_lettering(const Order& order, const Decoration& decoration) { return lettering_of(order, decoration) != nullptr; }

/// The words of a decoration's pile in one size; none of a picture.
std::vector<Worn> pile_of(const Order& order, const Decoration& decoration, const std::string& size);

/// The line that the garment of a lot in a size is of, counted from 0 in the order of the pile; null where there are not so many.
const OrderLine* line_of_piece(const Order& order, const RunKey& run, const std::string& size, int piece);

/// Who wears so many garments from that one on: "7 KESTREL, 9 ROWAN"; empty where nobody is named.
std::string wearers(const Order& order, const RunKey& run, const std::string& size, int first, int pieces);

/// Wearers of a whole plan: the pile of each lot and size is looked up once. The order must outlive it.
class Wearers {
public:
    explicit Wearers(const Order& order);
    [[nodiscard]] std::string of(const RunKey& run, const std::string& size, int first, int pieces) const;

private:
    std::map<std::pair<RunKey, std::string>, std::vector<const OrderLine*>> piles_;  ///< garment by garment; only where somebody is named
};

/// Under which id an art is drawn that is the same on every garment: of a lettering its first word, else its own.
std::string drawn_id(const Order& order, const std::string& art);

/// What a decoration puts on that garment; empty where it is no lettering.
std::string word_on(const Order& order, const Decoration& decoration, const std::string& size, int piece);

/// What a lettering puts on the garments of a size, and how it is set, as text to tell a change by; empty of a picture.
std::string lettered_words(const Order& order, const Decoration& decoration, const std::string& size);

/// A lettering in words that tell it from any other, with what it sets: by these a transfer on the shelf is known again.
std::string set_words(const Lettering& lettering, const std::string& word);

/// "7 KESTREL", of a line; empty where nobody is named.
std::string person_text(const OrderLine& line);

/// With a name and a number on a line. Of a line for several nameless garments one is parted off for the person; the others stay.
Order with_person(const Order& order, std::size_t line, const std::string& name, const std::string& number);
/// With a person's garment in another size of the blank.
Order with_size_of(const Order& order, std::size_t line, const std::string& size);
/// With a line of its own for each garment of a lot.
Order with_rows_for_each(const Order& order, const RunKey& run);

/// Persons from text, one a line: name, number and size in any order, parted by tabs, semicolons or commas. They go to nameless garments
/// of their size (of any where none is said), in the order of the pile; who finds none in a size that is said gets a garment more.
struct PastedRoster {
    Order order;
    int taken = 0;
    std::vector<std::string> left;  ///< lines that say neither name nor number, or find no garment
};
PastedRoster with_roster_text(const Order& order, const RunKey& run, const std::string& text);

/// What a roster lacks: garments under a lettering without name or number, numbers twice in one team, one person's line for
/// several garments.
Findings roster_findings(const Order& order);

}  // namespace orthema
