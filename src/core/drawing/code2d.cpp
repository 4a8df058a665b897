#include "core/drawing/code2d.h"

#include <qrencode.h>

#include <cstdint>
#include <memory>

namespace orthema {

namespace {

const std::string head = "orthema:";

}  // namespace

std::string code_text(const GuideCode& c) { return head + c.decoration + "/" + c.size + "/" + c.revision; }

std::optional<GuideCode> code_from(const std::string& text) {
    if (text.rfind(head, 0) != 0 || text.size() > 400) return std::nullopt;
    const std::string rest = text.substr(head.size());
    const std::size_t last = rest.rfind('/');
    const std::size_t first = last == std::string::npos || last == 0 ? std::string::npos : rest.find('/');
    if (first == std::string::npos || first >= last) return std::nullopt;
    GuideCode c{rest.substr(0, first), rest.substr(first + 1, last - first - 1), rest.substr(last + 1)};
    if (c.decoration.empty() || c.size.empty()) return std::nullopt;
    return c;
}

std::vector<std::vector<bool>> code_modules(const std::string& text) {
    const std::unique_ptr<QRcode, decltype(&QRcode_free)> code(QRcode_encodeString8bit(text.c_str(), 0, QR_ECLEVEL_M), &QRcode_free);
    std::vector<std::vector<bool>> out;
    if (code == nullptr) return out;
    const auto n = static_cast<std::size_t>(code->width);
    out.assign(n, std::vector<bool>(n, false));
    for (std::size_t y = 0; y < n; ++y)
        for (std::size_t x = 0; x < n; ++x) out[y][x] = (code->data[y * n + x] & 1) != 0;
    return out;
}

void draw_cells(Drawing& to, const std::vector<std::vector<bool>>& rows, Point at, double cell) {
    std::vector<Ring> dark;
    for (std::size_t y = 0; y < rows.size(); ++y)
        for (std::size_t x = 0; x < rows[y].size();) {
            if (!rows[y][x]) {
                ++x;
                continue;
            }
            std::size_t end = x;
            while (end < rows[y].size() && rows[y][end]) ++end;
            const double x0 = at.x + static_cast<double>(x) * cell, x1 = at.x + static_cast<double>(end) * cell;
            const double y0 = at.y + static_cast<double>(y) * cell, y1 = y0 + cell;
            dark.push_back({{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}});
            x = end;
        }
    to.fill(std::move(dark), palette::black);
}

void draw_code(Drawing& to, const std::string& text, Point at, double side) {
    const auto rows = code_modules(text);
    if (rows.empty()) return;
    constexpr double quiet = 4;
    const double module = side / (static_cast<double>(rows.size()) + 2 * quiet);
    to.rect({at.x, at.y, at.x + side, at.y + side}, palette::white);
    draw_cells(to, rows, {at.x + quiet * module, at.y + quiet * module}, module);
}

std::string revision_of(const std::string& words) {
    std::uint64_t h = 1469598103934665603ULL;  // FNV-1a
    for (const char c : words) h = (h ^ static_cast<unsigned char>(c)) * 1099511628211ULL;
    static constexpr char letters[] = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ";  // none that look alike
    std::string out;
    for (int k = 0; k < 6; ++k) {
        out += letters[h % 32];
        h /= 32;
    }
    return out;
}

}  // namespace orthema
