// Artwork from files: PNG, JPEG, TIFF, WebP, HEIC, SVG and PDF. Vector art stays vector: it is kept as its own bytes and
// drawn by librsvg or poppler at whatever size is asked for. The libraries that read pictures run in a process of their
// own, with limits: the picture reader.
#pragma once

#include <cairo.h>

#include <map>
#include <memory>
#include <optional>
#include <string>

#include "core/artwork/art_facts.h"
#include "core/base/result.h"
#include "core/order/order.h"
#include "drawing/painter.h"

namespace orthema {

using Bytes = std::shared_ptr<const std::string>;
using ArtBytes = std::map<std::string, Bytes>;  ///< by content hash

/// Premultiplied BGRA rows as cairo and the screen have them, cropped to the ink box; each level half the last.
struct ScreenImage {
    int width = 0, height = 0;
    std::vector<std::uint32_t> pixels;
};

/// How a clipped picture is cut from its whole.
struct ClipOf {
    Region shape;        ///< canvas pixels
    double unit = 1;     ///< canvas pixels of the whole picture's ink width
    Point at;            ///< of its ink box's top left
    Rect whole_ink;      ///< the whole picture's ink box, in its own canvas
    double degrees = 0;  ///< that the whole is turned about the middle of its ink box
};

/// A picture of a composed one, and how it lies there; or a plain colour within a shape.
struct Filling {
    std::string picture;  ///< empty: a plain colour
    ClipOf clip;
    double opacity = 1;
    Colour plain = {};
};
struct WordLaid;
struct TogetherLaid;

/// A picture that has been read and looked at. Here it is drawn from its screen image; the picture reader has kinds that
/// are drawn from the file. Safe to draw from several threads.
class LoadedArt {
public:
    LoadedArt() = default;
    virtual ~LoadedArt() = default;
    LoadedArt(const LoadedArt&) = delete;
    LoadedArt& operator=(const LoadedArt&) = delete;

    ArtKind kind = ArtKind::png;
    std::string hash;
    ArtFacts facts;
    std::vector<ScreenImage> screen;               ///< largest first; empty when there is no ink
    std::shared_ptr<const LoadedArt> whole;        ///< of clipped art: the picture it is cut from
    Bytes bytes;                                   ///< of the file; of mended art those of what was made of it, and so its hash
    std::optional<ClipOf> clip;                    ///< of clipped art
    std::shared_ptr<const WordLaid> word;          ///< of a word picture (files/word_picture.h)
    std::shared_ptr<const TogetherLaid> together;  ///< of a print put together (files/put_together.h)
    std::string made_of;                           ///< of mended art: its file's hash and the mendings
    Affine from_file;                              ///< of mended art: from the file's canvas to its own

    /// Draws the whole canvas; user space is canvas pixels as in `facts`.
    virtual void draw(cairo_t* cr) const;
    /// A surface that can be painted many times and is stored once in a PDF; the caller destroys it.
    [[nodiscard]] virtual cairo_surface_t* reusable_surface() const;
    /// Vector art as flat shapes in canvas pixels; nothing where it has gradients, pictures, patterns, soft masks,
    /// dashes or faint groups.
    [[nodiscard]] virtual std::optional<std::vector<FlatShape>> flat_shapes() const { return std::nullopt; }
};

using LoadedArtPtr = std::shared_ptr<const LoadedArt>;
using LoadedArtById = std::map<std::string, LoadedArtPtr>;

/// Reads a picture by its content, whatever its name says, and looks at it. `name` is for the sentence on failure:
/// not a picture, truncated, past 30,000 pixels a side or 120 million in all, an empty page.
Result<LoadedArtPtr> load_art(const Bytes& bytes, const std::string& name);

/// The picture as the mendings leave it; its bytes are what was made. Fails with a sentence where one of them cannot be done.
Result<LoadedArtPtr> mended_art(const Bytes& bytes, const std::string& name, const std::vector<Mending>& mendings);

/// All that is drawn of an art, by id: the picture mended and clipped, or a lettering's words; besides the file's own picture where it is
/// mended, and the whole where it is clipped.
Result<LoadedArtById> pictures_of(const Order& order, const Art& art, const ArtBytes& bytes);

/// The picture clipped as the order's art says, or itself where it says nothing. The picture covers the shape and keeps
/// the art's subject inside; its aspect stays. Fails with a sentence where it cannot, or the shape is not there.
Result<LoadedArtPtr> clipped_art(const Order& order, const Art& art, const LoadedArtPtr& whole);

/// The outlines of a word in the shipped font: unit is the cap height, the base line at y = 0, y down.
Region letter_shapes(const std::string& word, bool bold);

/// The id under which the whole of a clipped picture is kept beside it.
inline std::string whole_id(const std::string& art) { return "whole of " + art; }
/// … and the file's own of a mended one.
inline std::string unmended_id(const std::string& art) { return "file of " + art; }

/// Shapes and their clips through a map.
void map_shapes(std::vector<FlatShape>& shapes, const Affine& by);

/// What kind the first bytes say; nothing when none.
std::optional<ArtKind> kind_of(const std::string& bytes);
/// What is said of a file that is of none of the kinds.
Error no_picture(const std::string& name);
/// "kites.png: its typeface is not there."; `why` has no full stop.
Error of_picture(const std::string& name, const Error& why);
const char* kind_key(ArtKind kind);  ///< also the file name's ending
std::optional<ArtKind> kind_from_key(const std::string& key);

/// SHA-256 in hexadecimal.
std::string content_hash(const std::string& bytes);

/// Height of a picture's ink in ink widths; 0 where it is not there.
inline double art_aspect(const LoadedArtById& art, const std::string& id) {
    const auto at = art.find(id);
    return at == art.end() || at->second->facts.empty() ? 0 : at->second->facts.aspect;
}

/// Pictures for paper and film: drawn from the originals.
class PrintArt : public ArtSource {
public:
    /// With `stored_once`, each picture is kept as one surface that a PDF stores once and uses often.
    PrintArt(const LoadedArtById& art, bool stored_once) : art_(art), stored_once_(stored_once) {}
    ~PrintArt() override;
    PrintArt(const PrintArt&) = delete;
    PrintArt& operator=(const PrintArt&) = delete;
    void paint_art(cairo_t* cr, const std::string& art_id, double opacity) override;
    const std::vector<FlatShape>* flat_shapes(const std::string& art_id) override;
    [[nodiscard]] double aspect_of(const std::string& art_id) const override { return art_aspect(art_, art_id); }

private:
    const LoadedArtById& art_;
    bool stored_once_;
    std::map<std::string, cairo_surface_t*> surfaces_;
    std::map<std::string, std::optional<std::vector<FlatShape>>> shapes_;
};

/// Pictures for the screen: from the half-size levels, never blocking on librsvg or poppler.
class ScreenArt : public ArtSource {
public:
    explicit ScreenArt(const LoadedArtById& art) : art_(art) {}
    void paint_art(cairo_t* cr, const std::string& art_id, double opacity) override;
    [[nodiscard]] double aspect_of(const std::string& art_id) const override { return art_aspect(art_, art_id); }

private:
    const LoadedArtById& art_;
};

}  // namespace orthema
