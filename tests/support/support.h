// What tests share: a folder of their own, programs to ask, small pictures, a small order.
#pragma once

#include <cstdint>
#include <filesystem>
#include <functional>
#include <random>
#include <string>
#include <vector>

#include "core/artwork/art_facts.h"
#include "core/geometry/geometry.h"
#include "core/order/order.h"
#include "files/art_file.h"

namespace orthema {
struct TransferSet;
}

namespace orthema::test {

/// A folder that is gone when the test is over.
class Folder {
public:
    Folder();
    ~Folder();
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    [[nodiscard]] std::string path() const { return path_.string(); }
    [[nodiscard]] std::string operator/(const std::string& name) const { return (path_ / name).string(); }

private:
    std::filesystem::path path_;
};

struct Answer {
    int code = -1;
    std::string out;
};
/// Runs a command line through the shell; `out` holds what it printed, errors too.
Answer run(const std::string& command);
bool has_program(const std::string& name);

/// So many rounds of a sweep: the few of every day, or many where a whole campaign was asked for (ORTHEMA_SWEEP).
int rounds(int few, int many);

std::string slurp(const std::string& path);
void spill(const std::string& path, const std::string& content);
/// A file of the source tree.
std::string source(const std::string& relative);

/// Straight RGBA rows.
struct Canvas {
    int width, height;
    std::vector<std::uint8_t> rgba;
    Canvas(int w, int h) : width(w), height(h), rgba(static_cast<std::size_t>(w * h * 4), 0) {}
    std::uint8_t* at(int x, int y) { return &rgba[static_cast<std::size_t>((y * width + x) * 4)]; }
    const std::uint8_t* at(int x, int y) const { return &rgba[static_cast<std::size_t>((y * width + x) * 4)]; }
    void set(int x, int y, int r, int g, int b, int a);
    /// Sets every pixel for which `inside` holds at its middle.
    void fill(const std::function<bool(double, double)>& inside, int r = 200, int g = 40, int b = 40, int a = 255);
    [[nodiscard]] PixelView view() const { return {rgba.data(), width, height}; }
    [[nodiscard]] int count(int least_alpha) const;
};
/// Encoded by libpng itself, not by the code under test.
std::string png_bytes(const Canvas& canvas);
/// Decoded by libpng itself.
Canvas read_png(const std::string& path);
/// The pHYs of a PNG file as pixels to the inch, or 0.
double png_dpi(const std::string& path);

/// One page of a PDF through pdftoppm.
Canvas render_pdf(const std::string& path, int page, double dpi);

/// An adult tee in ash, sizes S to 3XL, with an L-shaped vector mark on its front; film and a press as they ship.
Order small_order();
/// Every copy of every transfer on so many sheets of its medium, in turn, wherever.
void lay_anyhow(Order& order, const TransferSet& set, int sheets);
ArtBytes small_art();
extern const char* const corner_svg;

/// What is known of a picture that fills its box, so many times as high as wide.
ArtFacts plain_facts(double aspect = 1);

/// An order with one decoration over `sizes` sizes whose chest grows by `step` mm.
Order ladder_order(int sizes, double step);

/// A star-shaped polygon with irregular arms.
Polygon random_star(std::mt19937& random, double radius, int arms);

/// One of the starting library's blanks.
BlankStyle library_style(const std::string& id);

/// Whether the point lies in the polygon, by winding number (the code under test counts crossings).
bool winds_around(const Polygon& polygon, Point p);

}  // namespace orthema::test
