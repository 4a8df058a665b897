#include "support/support.h"

#include <gtest/gtest.h>
#include <png.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <fstream>
#include <map>
#include <sstream>
#include <stdexcept>

#include "core/order/pieces.h"
#include "core/sheets/sheets.h"
#include "files/library.h"
#include "files/order_file.h"

namespace orthema::test {

const char* const corner_svg =
    "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 100 120\" width=\"100\" height=\"120\">"
    "<path fill=\"#204060\" d=\"M10 10 h20 v80 h60 v20 h-80 z\"/></svg>";

Folder::Folder() {
    std::string pattern = (std::filesystem::temp_directory_path() / "orthema-test-XXXXXX").string();
    if (::mkdtemp(pattern.data()) == nullptr) throw std::runtime_error("no folder for the test");
    path_ = pattern;
}

Folder::~Folder() {
    std::error_code error;
    std::filesystem::permissions(path_, std::filesystem::perms::owner_all, error);
    std::filesystem::remove_all(path_, error);
}

Answer run(const std::string& command) {
    Answer answer;
    std::FILE* pipe = ::popen((command + " 2>&1").c_str(), "r");
    if (pipe == nullptr) return answer;
    std::array<char, 4096> buffer{};
    std::size_t got = 0;
    while ((got = std::fread(buffer.data(), 1, buffer.size(), pipe)) > 0) answer.out.append(buffer.data(), got);
    const int status = ::pclose(pipe);
    answer.code = WIFEXITED(status) ? WEXITSTATUS(status) : 128;
    return answer;
}

bool has_program(const std::string& name) { return run("command -v " + name).code == 0; }

int rounds(int few, int many) { return std::getenv("ORTHEMA_SWEEP") != nullptr ? many : few; }

std::string slurp(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    std::ostringstream out;
    out << in.rdbuf();
    return out.str();
}

void spill(const std::string& path, const std::string& content) {
    std::ofstream out(path, std::ios::binary);
    out.write(content.data(), static_cast<std::streamsize>(content.size()));
}

std::string source(const std::string& relative) { return std::string(ORTHEMA_SOURCE) + "/" + relative; }

void Canvas::set(int x, int y, int r, int g, int b, int a) {
    std::uint8_t* p = at(x, y);
    p[0] = static_cast<std::uint8_t>(r);
    p[1] = static_cast<std::uint8_t>(g);
    p[2] = static_cast<std::uint8_t>(b);
    p[3] = static_cast<std::uint8_t>(a);
}

void Canvas::fill(const std::function<bool(double, double)>& inside, int r, int g, int b, int a) {
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            if (inside(x + 0.5, y + 0.5)) set(x, y, r, g, b, a);
}

int Canvas::count(int least_alpha) const {
    int n = 0;
    for (std::size_t i = 3; i < rgba.size(); i += 4) n += rgba[i] >= least_alpha ? 1 : 0;
    return n;
}

std::string png_bytes(const Canvas& canvas) {
    png_image image;
    std::memset(&image, 0, sizeof image);
    image.version = PNG_IMAGE_VERSION;
    image.format = PNG_FORMAT_RGBA;
    image.width = static_cast<png_uint_32>(canvas.width);
    image.height = static_cast<png_uint_32>(canvas.height);
    png_alloc_size_t size = 0;
    png_image_write_to_memory(&image, nullptr, &size, 0, canvas.rgba.data(), 0, nullptr);
    std::string out(size, '\0');
    png_image_write_to_memory(&image, out.data(), &size, 0, canvas.rgba.data(), 0, nullptr);
    out.resize(size);
    return out;
}

Canvas read_png(const std::string& path) {
    png_image image;
    std::memset(&image, 0, sizeof image);
    image.version = PNG_IMAGE_VERSION;
    if (png_image_begin_read_from_file(&image, path.c_str()) == 0) throw std::runtime_error("not a PNG: " + path);
    image.format = PNG_FORMAT_RGBA;
    Canvas out(static_cast<int>(image.width), static_cast<int>(image.height));
    if (png_image_finish_read(&image, nullptr, out.rgba.data(), 0, nullptr) == 0) throw std::runtime_error("damaged PNG: " + path);
    return out;
}

double png_dpi(const std::string& path) {
    const std::string bytes = slurp(path);
    const auto at = bytes.find("pHYs");
    if (at == std::string::npos || at + 13 > bytes.size()) return 0;
    const auto* p = reinterpret_cast<const unsigned char*>(bytes.data()) + at + 4;
    const double per_metre = (p[0] << 24) | (p[1] << 16) | (p[2] << 8) | p[3];
    return p[8] == 1 ? per_metre * 0.0254 : 0;
}

Canvas render_pdf(const std::string& path, int page, double dpi) {
    const Folder folder;
    const std::string stem = folder / "page";
    const std::string n = std::to_string(page);
    const Answer done =
        run("pdftoppm -png -singlefile -f " + n + " -l " + n + " -r " + std::to_string(dpi) + " '" + path + "' '" + stem + "'");
    if (done.code != 0) throw std::runtime_error("pdftoppm: " + done.out);
    return read_png(stem + ".png");
}

ArtBytes small_art() {
    const auto bytes = std::make_shared<const std::string>(corner_svg);
    return {{content_hash(*bytes), bytes}};
}

BlankStyle library_style(const std::string& id) {
    for (const BlankStyle& s : starting_library().styles)
        if (s.id == id) return s;
    ADD_FAILURE() << "no blank " << id;
    return {};
}

namespace {
Order made_small_order() {
    Order order;
    order.name = "Small order";
    adopt_library(order, starting_library());
    const int quantities[] = {2, 4, 5, 3, 1};
    const char* const sizes[] = {"S", "M", "L", "XL", "3XL"};
    for (int i = 0; i < 5; ++i) order.lines.push_back({"adult-tee", "ash", sizes[i], quantities[i], "crew"});
    Art art;
    art.id = "corner";
    art.name = "Corner";
    art.kind = ArtKind::svg;
    art.hash = content_hash(corner_svg);
    order.art.push_back(art);
    Decoration d = new_decoration(order, {"adult-tee", "ash"}, Location::full_front, art);
    d.id = "front";
    d.sizing.base_width = Length::from_mm(200);
    d.sizing.within = 0;  // bands by price, as older orders have them
    order.decorations.push_back(d);
    order.job = "job-small";
    return numbered(order);
}
}  // namespace

ArtFacts plain_facts(double aspect) {
    ArtFacts f;
    f.width_px = f.height_px = 1000;
    f.vector = true;
    f.aspect = aspect;
    f.ink_px = {0, 0, 1000, 1000 * aspect};
    f.outline = box_region({0, 0, 1, aspect});
    f.optical_centre = {0.5, aspect / 2};
    return f;
}

void lay_anyhow(Order& order, const TransferSet& set, int sheets) {
    std::map<std::string, std::vector<PlacedCopy>> copies;
    int turn = 0;
    for (const Transfer& t : set.transfers) {
        const int sheet = turn++ % sheets;  // a transfer's copies together
        for (int k = 0; k < t.count(); ++k) copies[t.medium].push_back({t.id, k, sheet, 0, 10.0 * k, 0, false});
    }
    for (auto& [medium, all] : copies) order = with_layout(order, medium, std::move(all));
}

Order small_order() {
    static const Order once = made_small_order();
    return once;
}

Order ladder_order(int sizes, double step) {
    Order order = small_order();
    BlankStyle* style = nullptr;
    for (BlankStyle& s : order.styles)
        if (s.id == "adult-tee") style = &s;
    const Measures base = style->chart.at("M");
    style->sizes.clear();
    style->chart.clear();
    order.lines.clear();
    for (int i = 0; i < sizes; ++i) {
        const std::string name = "N" + std::to_string(i + 10);
        style->sizes.push_back(name);
        Measures m = base;
        for (auto& [measure, figure] : m) {
            figure.source = Source::published;
            figure.published.reset();
            const double share = figure.value.mm() / base.at(Measure::chest).value.mm();
            if (measure == Measure::chest || measure == Measure::hem_width || measure == Measure::across_shoulder ||
                measure == Measure::body_length || measure == Measure::armhole_depth)
                figure.value += Length::from_mm(i * step * share);
        }
        style->chart[name] = m;
        order.lines.push_back({"adult-tee", "ash", name, 1 + i % 4, ""});
    }
    order.decorations.front().sizing.base_size = style->sizes.front();
    return order;
}

Polygon random_star(std::mt19937& random, double radius, int arms) {
    std::uniform_real_distribution<double> share(0.35, 1.0);
    Polygon p;
    for (int i = 0; i < arms; ++i) {
        const double t = 2 * M_PI * i / arms;
        const double r = radius * share(random);
        p.outer.push_back({r * std::cos(t), r * std::sin(t)});
    }
    return p;
}

bool winds_around(const Polygon& polygon, Point p) {
    const auto turns = [&](const Ring& ring) {
        double angle = 0;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i] - p, b = ring[(i + 1) % ring.size()] - p;
            angle += std::atan2(cross(a, b), dot(a, b));
        }
        return std::abs(angle) > 3;
    };
    if (!turns(polygon.outer)) return false;
    for (const Ring& hole : polygon.holes)
        if (turns(hole)) return false;
    return true;
}

}  // namespace orthema::test
