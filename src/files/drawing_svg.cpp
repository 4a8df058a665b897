#include "files/drawing_svg.h"

#include <cmath>

#include "core/base/units.h"
#include "files/json_in.h"
#include "files/xml_text.h"

namespace orthema {

namespace {

std::string figure_text(double v) { return mm_text(v, 3); }

std::string paint(const char* what, const std::optional<Colour>& c) {
    if (!c) return std::string(" ") + what + "=\"none\"";
    std::string out = std::string(" ") + what + "=\"" + colour_text(*c) + "\"";
    if (c->a < 1) out += std::string(" ") + what + "-opacity=\"" + mm_text(c->a, 2) + "\"";
    return out;
}

}  // namespace

std::string drawing_svg(const Drawing& drawing, const Rect& area, const std::string& title) {
    std::string out = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" +
                      figure_text(area.width()) + "mm\" height=\"" + figure_text(area.height()) + "mm\" viewBox=\"" + figure_text(area.x0) +
                      " " + figure_text(area.y0) + " " + figure_text(area.width()) + " " + figure_text(area.height()) + "\">\n<title>" +
                      xml_escaped(title) + "</title>\n";
    int clips = 0;
    bool clipped = false;
    const auto rings = [](const std::vector<Ring>& all, bool closed) {
        std::string d;
        for (const Ring& r : all)
            for (std::size_t i = 0; i < r.size(); ++i)
                d += (i == 0 ? "M" : "L") + figure_text(r[i].x) + " " + figure_text(r[i].y) + (closed && i + 1 == r.size() ? "Z" : "");
        return d;
    };
    for (const Mark& mark : drawing.marks) {
        if (const auto* path = std::get_if<PathMark>(&mark)) {
            out += "<path fill-rule=\"evenodd\" d=\"" + rings(path->rings, path->closed) + "\"" +
                   paint("fill", path->closed ? path->fill : std::nullopt);
            if (path->stroke) {
                out += paint("stroke", path->stroke->colour) + " stroke-width=\"" + figure_text(path->stroke->width) + "\"";
                if (!path->stroke->dash.empty()) {
                    out += " stroke-dasharray=\"";
                    for (const double d : path->stroke->dash) out += figure_text(d) + " ";
                    out.back() = '"';
                }
            }
            out += "/>\n";
        } else if (const auto* text = std::get_if<TextMark>(&mark)) {
            out += "<text x=\"" + figure_text(text->at.x) + "\" y=\"" + figure_text(text->at.y) +
                   "\" font-family=\"Lato, sans-serif\" font-size=\"" + figure_text(text->size) + "\"" +
                   (text->bold ? " font-weight=\"bold\"" : "") + paint("fill", text->colour);
            if (text->align != Align::left)
                out += std::string(" text-anchor=\"") + (text->align == Align::centre ? "middle" : "end") + "\"";
            if (std::abs(text->degrees) > 1e-9)
                out += " transform=\"rotate(" + figure_text(text->degrees) + " " + figure_text(text->at.x) + " " + figure_text(text->at.y) +
                       ")\"";
            out += ">" + xml_escaped(text->text) + "</text>\n";
        } else if (const auto* clip = std::get_if<ClipMark>(&mark)) {
            if (clipped) out += "</g>\n";
            clipped = !clip->to.empty();
            if (!clipped) continue;
            const std::string id = "clip" + std::to_string(++clips);
            out += "<clipPath id=\"" + id + "\"><path clip-rule=\"evenodd\" d=\"" + rings(clip->to, true) +
                   "\"/></clipPath><g clip-path=\"url(#" + id + ")\">\n";
        }
    }
    if (clipped) out += "</g>\n";
    return out + "</svg>\n";
}

}  // namespace orthema
