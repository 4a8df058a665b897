// The picture reader: the one program in which picture files are decoded and pages are drawn from them. It runs beside the
// window or the command line, one process for each job under way, may neither write files nor reach the network, and has
// bounded memory and time: a fault in a library for pictures ends a picture and not the program.
#pragma once

#include <cerrno>
#include <string>
#include <vector>

#include "core/artwork/photo.h"
#include "core/base/task.h"
#include "files/page_export.h"
#include "reader/pixels.h"

namespace orthema::reader {

/// Decodes and looks: facts, screen levels; to be drawn as well. `name` is for the sentence on failure. `known`: its pixels, where they
/// are there already.
Result<LoadedArtPtr> look(const Bytes& bytes, const std::string& name, std::optional<Pixels> known = {});
/// To be drawn, without looking: facts as they were found before. Its pixels are decoded when it is first drawn.
LoadedArtPtr drawable(const Bytes& bytes, const std::string& hash, ArtFacts facts);
/// Cut from `whole`, on a canvas of `width` × `height`.
LoadedArtPtr cut_from(LoadedArtPtr whole, const ClipOf& clip, ArtFacts facts);
Result<LoadedArtPtr> look_clipped(LoadedArtPtr whole, const ClipOf& clip, int width, int height);

/// A picture with its mendings done, as a file of its own: PNG, or SVG where what is drawn stays drawn.
struct MendedFile {
    std::string bytes;
    Affine from_file;                   ///< from the canvas of the file to its own
    double width = 0, height = 0;       ///< of its own
    std::optional<Pixels> pixels = {};  ///< where it is made of them
};
/// Straighten, crop, clean, open and thicken leave a drawing a drawing, and so does a background that is a shape of one colour under all
/// else; otherwise it becomes pixels. Fails with a sentence where a mending cannot be done.
Result<MendedFile> mended(const Bytes& file, const std::string& name, const std::vector<Mending>& mendings);

/// Pictures laid in their shapes, one over the other, as one file.
MendedFile composed(const LoadedArtById& pictures, const std::vector<Filling>& fillings, int width, int height);

/// Words in a typeface, as its outlines. Fails with a sentence where the bytes are no face, or hold no letters.
Result<std::vector<ShapedWord>> shape(const std::string& face, const std::string& name, const std::vector<std::string>& words,
                                      bool capitals);

/// A photograph as it is to be seen, without transparency, halved until it has at most so many pixels; its focal length where the file
/// says it. Fails with a sentence where it is no picture made of pixels.
constexpr long most_photo_pixels = 26'000'000;
Result<Photo> photograph(const Bytes& bytes, const std::string& name);

/// A file that somebody else opened and will put in its place.
class PageFile {
public:
    explicit PageFile(int fd) : fd_(fd) {}
    bool write(const void* data, std::size_t size);
    [[nodiscard]] int fd() const { return fd_; }
    [[nodiscard]] int error() const { return error_; }
    void fail(int error) { error_ = error == 0 ? EIO : error; }

private:
    int fd_;
    int error_ = 0;
};

/// As the functions of the same name in files/page_export.h. Where the file cannot take it, its error() says why and the
/// sentence is empty.
Result<Done> write_pdf(PageFile& file, const std::vector<Drawing>& pages, const LoadedArtById& art, const std::string& title,
                       const Task& task);
Result<Done> write_png(PageFile& file, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task);
Result<Done> write_tiff(PageFile& file, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task);
Result<Done> draw_rows(const Drawing& page, const LoadedArtById& art, double dpi, const PixelRows& take, const Task& task);

/// No new files, no network, no other programs, `memory` bytes of address space: as far as the kernel has it.
void jail(std::uint64_t memory);
/// So many seconds of processor from now on; then the process ends.
void allow_seconds(double seconds);

}  // namespace orthema::reader
