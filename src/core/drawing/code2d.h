// The small square code on cards and labels: it leads back to a decoration and a size. Standard QR code, by a common
// library.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"

namespace orthema {

/// What a code says: "orthema:crew-kite/M/7KQ2MA"; on a piece label without the revision.
struct GuideCode {
    std::string decoration, size, revision;
};
std::string code_text(const GuideCode& code);
/// Reads what code_text writes; nothing for other text.
std::optional<GuideCode> code_from(const std::string& text);

/// Rows of modules, true where dark, without the quiet zone; empty where the text is too long.
std::vector<std::vector<bool>> code_modules(const std::string& text);

/// The dark cells of such rows, in runs: no hairlines between them.
void draw_cells(Drawing& to, const std::vector<std::vector<bool>>& rows, Point top_left, double cell);

/// The code with its quiet zone of four modules in a square of this side.
void draw_code(Drawing& to, const std::string& text, Point top_left, double side);

/// Six letters from words that say all that matters: they change when it does.
std::string revision_of(const std::string& words);

}  // namespace orthema
