// Reads the words of a drawing as an eye would: where each stands, what lies over it, what is cut off.
#pragma once

#include <string>
#include <vector>

#include "core/drawing/drawing.h"

namespace orthema::test {

/// What is wrong with the words of a drawing within `page`, one sentence each: two that overlap, one that a later patch half
/// covers, one that the page's edge cuts through. Words that are wholly covered or wholly outside are not seen and not judged.
std::vector<std::string> word_troubles(const Drawing& drawing, const Rect& page);

/// The words of one page as another program reads them, in points from its top left.
struct PageWords {
    struct Word {
        Rect box;
        std::string text;
    };
    Rect page;
    std::vector<Word> words;
    [[nodiscard]] std::string text() const;  ///< one after the other, with spaces
};
std::vector<PageWords> read_words(const std::string& pdf);

/// What is wrong with the words of a PDF's pages: two that overlap, or one out of the page's printable part.
std::vector<std::string> page_troubles(const std::string& pdf);

}  // namespace orthema::test
