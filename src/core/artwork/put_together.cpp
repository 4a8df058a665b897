#include "core/artwork/put_together.h"

#include "core/blanks/panel.h"

namespace orthema {

namespace {

/// Width and height of the turned box of something `w` by `h`.
Point turned_box(double w, double h, double degrees) {
    const Rect box = bounds(mapped(box_region({0, 0, w, h}), Affine::turn(degrees)));
    return {box.width(), box.height()};
}

double middle_at(From from, double away, double low, double high, double length) {
    switch (from) {
    case From::start: return low + away + length / 2;
    case From::middle: return (low + high) / 2 + away;
    case From::end: return high - away - length / 2;
    }
    return low;
}

double away_for(From from, double middle, double low, double high, double length) {
    switch (from) {
    case From::start: return middle - length / 2 - low;
    case From::middle: return middle - (low + high) / 2;
    case From::end: return high - middle - length / 2;
    }
    return 0;
}

}  // namespace

const char* from_key(From from) {
    switch (from) {
    case From::start: return "start";
    case From::middle: return "middle";
    case From::end: return "end";
    }
    return "middle";
}

bool face_there(const PutTogether& print, const BlankStyle* style) {
    if (style == nullptr || size_index(*style, print.size) < 0 || style_fault(*style)) return false;
    const auto faces = family_faces(style->family);
    return std::find(faces.begin(), faces.end(), print.face) != faces.end();
}

Region ground_shape(const PutTogether& print, const BlankStyle& style) {
    if (print.face == Face::wrap) return box_region(face_box(print, style));
    Region out;  // a hole in the blank needs none in the print
    for (const Polygon& p : offset(panel_of(style, print.size, print.face).outline, print.bleed.mm())) out.push_back({p.outer, {}});
    return out;
}

Rect face_box(const PutTogether& print, const BlankStyle& style) {
    return printable_box(fitting_panel(style, print.size, print.face), style.chart.at(print.size));
}

Affine place_over(const LaidOver& o, double aspect, const Rect& face) {
    const double w = o.width.mm(), h = w * aspect;
    const Point box = turned_box(w, h, o.degrees);
    return Affine::shift(middle_at(o.level, o.across.mm(), face.x0, face.x1, box.x),
                         middle_at(o.upright, o.down.mm(), face.y0, face.y1, box.y))
        .after(Affine::turn(o.degrees))
        .after(Affine::shift(-w / 2, -h / 2))
        .after(Affine::scale(w, w));
}

LaidOver moved_over(LaidOver over, Point by) {
    over.across = over.across + Length::from_mm(over.level == From::end ? -by.x : by.x);
    over.down = over.down + Length::from_mm(over.upright == From::end ? -by.y : by.y);
    return over;
}

LaidOver measured_from(LaidOver over, From level, From upright, double aspect, const Rect& face) {
    const Point middle = place_over(over, aspect, face)({0.5, aspect / 2});
    const Point box = turned_box(over.width.mm(), over.width.mm() * aspect, over.degrees);
    over.level = level;
    over.upright = upright;
    over.across = Length::from_mm(away_for(level, middle.x, face.x0, face.x1, box.x));
    over.down = Length::from_mm(away_for(upright, middle.y, face.y0, face.y1, box.y));
    return over;
}

PutTogether made_for(const PutTogether& print, const BlankStyle& was, const BlankStyle& style, const std::string& size, Face face) {
    PutTogether out = print;
    out.style = style.id;
    out.size = size;
    out.face = face;
    if (!face_there(print, &was) || !face_there(out, &style)) return out;
    const Rect from = face_box(print, was), to = face_box(out, style);
    const double x = to.width() / from.width(), y = to.height() / from.height();
    for (LaidOver& o : out.over) {
        o.width = o.width * std::min(x, y);
        o.across = o.across * x;
        o.down = o.down * y;
    }
    return out;
}

}  // namespace orthema
