#include "core/artwork/mend.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/artwork/background.h"
#include "core/artwork/edges.h"
#include "core/artwork/resample.h"
#include "core/artwork/strokes.h"
#include "core/drawing/drawing.h"

namespace orthema {

namespace {

/// Adds a disc of ink with a soft edge, or takes one out.
void stamp(PixelImage& p, Point at, double radius, const std::uint8_t* ink) {
    const int x0 = std::max(0, static_cast<int>(at.x - radius - 1)), x1 = std::min(p.width - 1, static_cast<int>(at.x + radius + 1));
    const int y0 = std::max(0, static_cast<int>(at.y - radius - 1)), y1 = std::min(p.height - 1, static_cast<int>(at.y + radius + 1));
    for (int y = y0; y <= y1; ++y)
        for (int x = x0; x <= x1; ++x) {
            const double cover = std::clamp(radius + 0.5 - std::hypot(x + 0.5 - at.x, y + 0.5 - at.y), 0.0, 1.0);
            const int share = static_cast<int>(std::lround(255 * cover));
            std::uint8_t* c = p.at(x, y);
            if (ink == nullptr) {
                c[3] = static_cast<std::uint8_t>(std::min<int>(c[3], 255 - share));
            } else if (share > c[3]) {
                for (int k = 0; k < 3; ++k) c[k] = static_cast<std::uint8_t>((c[k] * c[3] + ink[k] * (share - c[3])) / share);
                c[3] = static_cast<std::uint8_t>(share);
            }
        }
}

PixelImage turned(const PixelImage& p, const MendFrame& frame) {
    std::vector<std::uint32_t> from(p.count());
    for (std::size_t i = 0; i < from.size(); ++i) {
        const std::uint8_t* c = &p.rgba[4 * i];
        const auto mul = [&](std::uint32_t v) { return (v * c[3] + 127) / 255; };
        from[i] = static_cast<std::uint32_t>(c[3]) << 24 | mul(c[0]) << 16 | mul(c[1]) << 8 | mul(c[2]);
    }
    PixelImage out{static_cast<int>(std::ceil(frame.width)), static_cast<int>(std::ceil(frame.height)), {}};
    std::vector<std::uint32_t> to(out.count());
    const Affine back = inverse(frame.from_file);
    resample({from.data(), p.width, p.height}, to.data(), out.width, out.height, [&](double x, double y) { return back({x, y}); });
    from = {};
    out.rgba.resize(4 * out.count());
    for (std::size_t i = 0; i < to.size(); ++i) {
        const std::uint32_t w = to[i], a = w >> 24;
        const auto straight = [&](std::uint32_t v) {
            return static_cast<std::uint8_t>(a == 0 ? 0 : std::min(255u, (v * 255 + a / 2) / a));
        };
        out.rgba[4 * i] = straight(w >> 16 & 255);
        out.rgba[4 * i + 1] = straight(w >> 8 & 255);
        out.rgba[4 * i + 2] = straight(w & 255);
        out.rgba[4 * i + 3] = static_cast<std::uint8_t>(a);
    }
    return out;
}

PixelImage cut_out(const PixelImage& p, int x0, int y0, int x1, int y1) {
    PixelImage out{x1 - x0, y1 - y0, {}};
    out.rgba.reserve(4 * out.count());
    for (int y = y0; y < y1; ++y) out.rgba.insert(out.rgba.end(), p.at(x0, y), p.at(x0, y) + 4 * static_cast<std::ptrdiff_t>(out.width));
    return out;
}

}  // namespace

double least_px(const Mending& m, const Rect& ink) { return m.least.mm() / std::max(1.0, m.at.mm()) * ink.width(); }

std::vector<MendStrip> mend_thin_parts(PixelImage& p, const Mending& m) {
    std::vector<MendStrip> out;
    const bool open = m.kind == MendKind::open;
    // What is thin is found on a coarser grid than it is drawn on, and thicker outer strokes make the ink wider: a little more each time,
    // until nothing is said of it any more.
    for (int round = 0; round < 6; ++round) {
        const Rect ink = ink_box(p.view());
        const double least = least_px(m, ink);
        const auto thin = thin_parts(p.view(), ink, open ? ThinOf::gaps : ThinOf::strokes, least);
        if (thin.empty()) break;
        for (const ThinPart& part : thin) {
            MendStrip strip{part.ridge, least / 2 * (1 + 0.08 * round) + 0.25, {}};
            double sum[3] = {0, 0, 0};
            for (const Point& q : strip.along) {
                const std::uint8_t* c =
                    p.at(std::clamp(static_cast<int>(q.x), 0, p.width - 1), std::clamp(static_cast<int>(q.y), 0, p.height - 1));
                const std::uint8_t own[3] = {c[0], c[1], c[2]};
                for (int k = 0; k < 3; ++k) sum[k] += own[k];
                stamp(p, q, strip.radius, open ? nullptr : own);
            }
            const double n = 255.0 * static_cast<double>(strip.along.size());
            strip.colour = {sum[0] / n, sum[1] / n, sum[2] / n, 1};
            out.push_back(std::move(strip));
        }
    }
    return out;
}

Region strip_area(const MendStrip& strip) {
    Region discs;
    std::set<std::pair<int, int>> taken;  // one disc for each small cell is enough
    const double cell = std::max(0.5, strip.radius / 8);
    for (const Point& p : strip.along)
        if (taken.emplace(static_cast<int>(p.x / cell), static_cast<int>(p.y / cell)).second) discs.push_back({disc(p, strip.radius), {}});
    return unite(discs, {});
}

MendFrame mend_frame(double width, double height, const std::vector<Mending>& mendings) {
    MendFrame frame{{}, width, height};
    if (const Mending* m = find_mending(mendings, MendKind::straighten); m != nullptr && m->degrees != 0) {
        const Affine turn = Affine::turn(m->degrees);
        const Rect box = bounds(mapped(Ring{{0, 0}, {width, 0}, {width, height}, {0, height}}, turn));
        frame = {Affine::shift(-box.x0, -box.y0).after(turn), box.width(), box.height()};
    }
    if (const Mending* m = find_mending(mendings, MendKind::crop)) {
        const double w = frame.width, h = frame.height;
        const double x0 = std::floor(m->keep.x0 * w), y0 = std::floor(m->keep.y0 * h);
        frame.from_file = Affine::shift(-x0, -y0).after(frame.from_file);
        frame.width = std::max(1.0, std::ceil(m->keep.x1 * w) - x0);
        frame.height = std::max(1.0, std::ceil(m->keep.y1 * h) - y0);
    }
    return frame;
}

Result<MendedPixels> mend(PixelImage picture, const std::vector<Mending>& mendings, std::size_t most_px) {
    MendedPixels out;
    PixelImage& p = out.picture;
    p = std::move(picture);
    for (const Mending& m : mendings) {
        switch (m.kind) {
        case MendKind::straighten:
        case MendKind::crop: {
            const MendFrame frame = mend_frame(p.width, p.height, {m});
            if (frame.width * frame.height > static_cast<double>(most_px))
                return Error{"straightened it has too many pixels: crop it first"};
            if (m.kind == MendKind::straighten && m.degrees != 0)
                p = turned(p, frame);
            else if (m.kind == MendKind::crop) {
                const int x = static_cast<int>(-frame.from_file.tx), y = static_cast<int>(-frame.from_file.ty);
                p = cut_out(p, x, y, std::min(p.width, x + static_cast<int>(frame.width)),
                            std::min(p.height, y + static_cast<int>(frame.height)));
            }
            out.from_file = frame.from_file.after(out.from_file);
            break;
        }
        case MendKind::background:
            if (const auto done = take_background_out(p, m.tolerance, m.counters); !done) return done.error();
            break;
        case MendKind::clean: clean_specks(p, least_px(m, ink_box(p.view()))); break;
        case MendKind::open:
        case MendKind::thicken: mend_thin_parts(p, m); break;
        case MendKind::harden: harden(p, m.threshold); break;
        case MendKind::dots: {
            const double ink = ink_box(p.view()).width();
            if (ink <= 0) break;
            const double k = m.at.inches() * m.dpi / ink;  // from its pixels to the print's
            const double w = std::ceil(p.width * k), h = std::ceil(p.height * k);
            if (w * h > static_cast<double>(most_px)) return Error{"its dots would take too many pixels: give fewer to the inch"};
            p = scaled(p, std::max(1, static_cast<int>(w)), std::max(1, static_cast<int>(h)));
            out.from_file = Affine::scale(p.width / std::max(1.0, w / k), p.height / std::max(1.0, h / k)).after(out.from_file);
            const double px = m.dpi / 25.4;
            break_into_dots(p, m.apart.mm() * px, m.least.mm() * px);
            break;
        }
        }
        if (ink_box(p.view()).width() <= 0) return Error{"nothing of it is left: take this mending back, or give it other figures"};
    }
    return out;
}

}  // namespace orthema
