// Editing an order: each function returns the order after one thing an artist does on the Order, Blanks or Art bench.
#pragma once

#include "core/base/result.h"
#include "core/order/order.h"

namespace orthema {

/// The run's count in one size, whatever lines it is made of: a missing line is added, surplus is taken from the last
/// lines first, and lines that come to nothing are dropped. Negative counts as 0; at most 100,000. A blank or size that the order
/// does not know changes nothing.
Order with_quantity(const Order& order, const RunKey& run, const std::string& size, int quantity);

/// A new order like this one: its lines, designs, blanks and media; nothing of it is laid out, printed, pressed or due.
Order begun_like(const Order& order, const std::string& job);

/// Without the run's lines and its decorations.
Order without_run(const Order& order, const RunKey& run);

/// With more lines behind those that are there.
Order with_lines(const Order& order, const std::vector<OrderLine>& lines);

/// Replaces the blank of the same id, or adds it.
Order with_style(const Order& order, const BlankStyle& style);

/// Replaces the decoration of the same id, or adds it. What its rule says goes into the rule, and all who follow it move along.
Order with_decoration(const Order& order, const Decoration& decoration);
Order without_decoration(const Order& order, const std::string& id);

/// Without the art and the decorations made of it.
Order without_art(const Order& order, const std::string& id);
Order with_marked_centre(const Order& order, const std::string& art, std::optional<Point> centre);

/// With the art clipped so, or whole again.
Order with_clip(const Order& order, const std::string& art, const std::optional<ArtClip>& clip);
/// With the file's picture mended so. `marks` takes places in its ink widths from what it was to what it becomes: marks and subject stay
/// on what they were set on.
Order with_mendings(const Order& order, const std::string& art, const std::vector<Mending>& mendings, const Affine& marks);
/// With its ground and what lies over it so; as it is where it is no print put together.
Order with_together(const Order& order, const std::string& art, const PutTogether& print);
/// With its word, places and pictures so; as it is where it is no word picture. Places follow the word.
Order with_word_picture(const Order& order, const std::string& art, const WordPicture& word);
/// With its words set so; as it is where it is a picture.
Order with_lettering(const Order& order, const std::string& art, const Lettering& lettering);
/// With letters of that height where their field is so wide. Fails with a sentence where they are no letters any more.
Result<Order> with_letter_height(const Order& order, const std::string& art, Length letters, Length field);
/// With these points of the whole picture kept inside its clip.
Order with_subject(const Order& order, const std::string& art, const std::vector<Point>& subject);

/// With these marks in the art, in place of those it had; meetings of marks that are gone go too.
Order with_marks(const Order& order, const std::string& art, const std::vector<NamedMark>& marks);

}  // namespace orthema
