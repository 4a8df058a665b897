// The near side of the picture reader: starts it, hands pictures and pages on, and lets nothing that happens in there be
// more than a sentence here.
#pragma once

#include "files/page_export.h"

namespace orthema {

/// What a reader may take: address space, and seconds by the clock for looking at one picture.
struct ReaderLimits {
    std::uint64_t memory = 3ull << 30;
    double look_seconds = 120;
};
/// For those that start from now on; readers that wait for work end.
void set_reader_limits(const ReaderLimits& limits);

/// A picture cut from another, on a canvas of its own. `name` is for the sentence on failure.
Result<LoadedArtPtr> read_clipped(const LoadedArtPtr& whole, const ClipOf& clip, int width, int height, const std::string& name);

/// Pictures laid in their shapes, one over the other, as one: PNG on a canvas of `width` × `height`.
Result<LoadedArtPtr> read_composed(const LoadedArtById& pictures, const std::vector<Filling>& fillings, int width, int height,
                                   const std::string& name);

/// Words in a typeface as its outlines, in its own capitals where that is asked. Fails with a sentence where the bytes are no typeface.
Result<std::vector<ShapedWord>> shaped_words(const Bytes& face, const std::string& name, const std::vector<std::string>& words,
                                             bool capitals);

}  // namespace orthema
