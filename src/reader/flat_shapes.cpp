#include "reader/flat_shapes.h"

#include <cairo-svg.h>
#include <libxml/parser.h>
#include <libxml/tree.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <string>

namespace orthema::reader {

namespace {

constexpr double tolerance = 0.05;
constexpr int most_depth = 60;
constexpr std::size_t most_points = 4'000'000;

std::string text_of(xmlChar* owned) {
    std::string out;
    if (owned != nullptr) out = reinterpret_cast<const char*>(owned);
    xmlFree(owned);
    return out;
}

std::string attribute(xmlNode* node, const char* name) { return text_of(xmlGetProp(node, reinterpret_cast<const xmlChar*>(name))); }

/// A property from the style or, as newer cairo writes it, from an attribute of its own.
std::string property(xmlNode* node, const std::string& name) {
    const std::string style = attribute(node, "style");
    std::size_t at = 0;
    while (at < style.size()) {
        const std::size_t end = std::min(style.find(';', at), style.size());
        const std::size_t colon = style.find(':', at);
        if (colon < end) {
            const std::size_t first = style.find_first_not_of(' ', at);
            if (style.compare(first, colon - first, name) == 0) return style.substr(colon + 1, end - colon - 1);
        }
        at = end + 1;
    }
    return attribute(node, name.c_str());
}

double number(const std::string& text, double otherwise) { return text.empty() ? otherwise : std::strtod(text.c_str(), nullptr); }

std::string target_of(const std::string& reference) {  // "#name" or "url(#name)"
    const std::size_t hash = reference.find('#');
    if (hash == std::string::npos) return {};
    return reference.substr(hash + 1, reference.find(')', hash) - hash - 1);
}

/// Open or closed lines of a path's data.
struct Lines {
    std::vector<Ring> lines;
    std::vector<bool> closed;
};

void cubic_to(Ring& line, Point p1, Point p2, Point p3) {
    const Point p0 = line.back();
    const double bow = std::max(norm(p0 - p1 * 2 + p2), norm(p1 - p2 * 2 + p3));  // bounds the second derivative / 6
    curve_to(line, p1, p2, p3, std::clamp(static_cast<int>(std::ceil(std::sqrt(0.75 * bow / tolerance))), 1, 200));
}

/// Absolute M, L, H, V, C and Z, which is all that cairo writes.
std::optional<Lines> read_path(const std::string& data) {
    Lines out;
    const char* at = data.c_str();
    char command = 0;
    const auto skip = [&] {
        while (*at == ' ' || *at == ',' || *at == '\n') ++at;
    };
    const auto value = [&]() -> double {
        skip();
        char* end = nullptr;
        const double v = std::strtod(at, &end);
        if (end == at) return std::nan("");
        at = end;
        return v;
    };
    for (skip(); *at != 0; skip()) {
        if (std::isalpha(static_cast<unsigned char>(*at)) != 0) command = *at++;
        if (command == 'Z') {
            if (!out.closed.empty()) out.closed.back() = true;
            command = 0;
            continue;
        }
        Point p[3];
        const Point last = out.lines.empty() || out.lines.back().empty() ? Point{} : out.lines.back().back();
        const int points = command == 'C' ? 3 : 1;
        if (command == 'H') {
            p[0] = {value(), last.y};
        } else if (command == 'V') {
            p[0] = {last.x, value()};
        } else if (command == 'M' || command == 'L' || command == 'C') {
            for (int i = 0; i < points; ++i) {
                p[i].x = value();
                p[i].y = value();
            }
        } else {
            return std::nullopt;
        }
        for (int i = 0; i < points; ++i)
            if (!std::isfinite(p[i].x) || !std::isfinite(p[i].y)) return std::nullopt;
        if (command == 'M') {
            out.lines.push_back({p[0]});
            out.closed.push_back(false);
            command = 'L';
            continue;
        }
        if (out.lines.empty()) return std::nullopt;
        if (out.closed.back()) {  // after Z a line goes on from where the last began
            out.lines.push_back({out.lines.back().front()});
            out.closed.push_back(false);
        }
        if (command == 'C')
            cubic_to(out.lines.back(), p[0], p[1], p[2]);
        else
            out.lines.back().push_back(p[0]);
    }
    return out;
}

std::optional<Affine> transform_of(xmlNode* node) {
    const std::string t = attribute(node, "transform");
    if (t.empty()) return Affine{};
    Affine m;
    if (std::sscanf(t.c_str(), "matrix(%lf,%lf,%lf,%lf,%lf,%lf)", &m.a, &m.b, &m.c, &m.d, &m.tx, &m.ty) == 6) return m;
    if (std::sscanf(t.c_str(), "matrix(%lf %lf %lf %lf %lf %lf)", &m.a, &m.b, &m.c, &m.d, &m.tx, &m.ty) == 6) return m;
    return std::nullopt;
}

/// rgb(r%, g%, b%) or rgb(r, g, b) or #rrggbb.
std::optional<Colour> colour_of(const std::string& text, double opacity) {
    double r = 0, g = 0, b = 0;
    unsigned hex = 0;
    if (std::sscanf(text.c_str(), "rgb(%lf%%,%lf%%,%lf%%)", &r, &g, &b) == 3 ||
        std::sscanf(text.c_str(), "rgb(%lf%%, %lf%%, %lf%%)", &r, &g, &b) == 3)
        return Colour{r / 100, g / 100, b / 100, opacity};
    if (std::sscanf(text.c_str(), "#%6x", &hex) == 1 && text.size() == 7)
        return Colour{(hex >> 16) / 255.0, (hex >> 8 & 255) / 255.0, (hex & 255) / 255.0, opacity};
    return std::nullopt;
}

class Reader {
public:
    explicit Reader(xmlNode* root) { find_names(root, 0); }

    bool read(xmlNode* parent, const Affine& to, const std::vector<FlatShape::Area>& clips, int depth) {
        if (depth > most_depth || points_ > most_points) return false;
        for (xmlNode* node = parent->children; node != nullptr; node = node->next)
            if (node->type == XML_ELEMENT_NODE && !element(node, to, clips, depth)) return false;
        return true;
    }
    std::vector<FlatShape> shapes;

private:
    std::map<std::string, xmlNode*> named_;
    std::size_t points_ = 0;

    void find_names(xmlNode* parent, int depth) {
        if (depth > most_depth) return;
        for (xmlNode* node = parent->children; node != nullptr; node = node->next) {
            if (node->type != XML_ELEMENT_NODE) continue;
            if (const std::string id = attribute(node, "id"); !id.empty()) named_[id] = node;
            find_names(node, depth + 1);
        }
    }

    static std::string name_of(xmlNode* node) { return reinterpret_cast<const char*>(node->name); }

    static std::optional<Lines> outline(xmlNode* node) {
        if (name_of(node) == "path") return read_path(attribute(node, "d"));
        const double x = number(attribute(node, "x"), 0), y = number(attribute(node, "y"), 0);
        const double w = number(attribute(node, "width"), 0), h = number(attribute(node, "height"), 0);
        return Lines{{{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}}, {true}};
    }

    FlatShape::Area placed(const std::vector<Ring>& rings, bool even_odd, const Affine& to) {
        FlatShape::Area area{{}, even_odd};
        for (const Ring& r : rings) {
            if (r.size() < 3) continue;
            points_ += r.size();
            area.rings.push_back(mapped(r, to));
        }
        return area;
    }

    /// The one path of a clip.
    bool add_clip(const std::string& reference, const Affine& to, std::vector<FlatShape::Area>& clips) {
        const auto at = named_.find(target_of(reference));
        if (at == named_.end() || name_of(at->second) != "clipPath") return false;
        int paths = 0;
        for (xmlNode* node = at->second->children; node != nullptr; node = node->next) {
            if (node->type != XML_ELEMENT_NODE) continue;
            if ((name_of(node) != "path" && name_of(node) != "rect") || ++paths > 1) return false;
            const auto lines = outline(node);
            const auto own = transform_of(node);
            if (!lines || !own) return false;
            clips.push_back(placed(lines->lines, property(node, "clip-rule") == "evenodd", to.after(*own)));
        }
        return paths == 1;
    }

    bool element(xmlNode* node, const Affine& outer, const std::vector<FlatShape::Area>& outer_clips, int depth) {
        const std::string name = name_of(node);
        if (name == "defs") return true;
        if (name != "g" && name != "path" && name != "rect" && name != "use" && name != "symbol") return false;
        if (!property(node, "mask").empty() || !property(node, "filter").empty() || number(property(node, "opacity"), 1) < 1) return false;
        const auto own = transform_of(node);
        if (!own) return false;
        const Affine to = outer.after(*own);
        std::vector<FlatShape::Area> clips = outer_clips;
        // cairo 1.16 writes a group's clip in the group's own frame
        if (const std::string clip = property(node, "clip-path"); !clip.empty() && !add_clip(clip, to, clips)) return false;
        if (name == "use") {
            const auto at = named_.find(target_of(text_of(xmlGetNsProp(node, reinterpret_cast<const xmlChar*>("href"),
                                                                       reinterpret_cast<const xmlChar*>("http://www.w3.org/1999/xlink")))));
            if (at == named_.end()) return false;
            const Affine moved = to.after(Affine::shift(number(attribute(node, "x"), 0), number(attribute(node, "y"), 0)));
            return named(at->second, moved, clips, depth + 1);
        }
        if (name == "g" || name == "symbol") {
            const std::string before = fill_;
            const double before_opacity = fill_opacity_;
            if (const std::string fill = property(node, "fill"); !fill.empty()) {
                fill_ = fill;
                fill_opacity_ = number(property(node, "fill-opacity"), 1);
            }
            const bool sound = read(node, to, clips, depth + 1);
            fill_ = before;
            fill_opacity_ = before_opacity;
            return sound;
        }
        return path(node, to, clips);
    }

    bool named(xmlNode* node, const Affine& to, const std::vector<FlatShape::Area>& clips, int depth) {
        return depth <= most_depth && element(node, to, clips, depth);
    }

    bool path(xmlNode* node, const Affine& to, const std::vector<FlatShape::Area>& clips) {
        const auto lines = outline(node);
        if (!lines) return false;
        std::string fill = property(node, "fill");
        double fill_opacity = number(property(node, "fill-opacity"), 1);
        if (fill.empty()) {  // a letter takes its group's
            fill = fill_;
            fill_opacity = fill_opacity_;
        }
        if (fill != "none" && !fill.empty()) {
            const auto colour = colour_of(fill, fill_opacity);
            if (!colour) return false;
            shapes.push_back({placed(lines->lines, property(node, "fill-rule") == "evenodd", to), *colour, clips});
        }
        const std::string stroke = property(node, "stroke");
        if (stroke.empty() || stroke == "none") return true;
        const std::string dashes = property(node, "stroke-dasharray");
        const auto colour = colour_of(stroke, number(property(node, "stroke-opacity"), 1));
        if (!colour || !(dashes.empty() || dashes == "none")) return false;
        const std::string cap = property(node, "stroke-linecap"), join = property(node, "stroke-linejoin");
        const double width = number(property(node, "stroke-width"), 1);
        // A unit that is fine for the pen, whatever the user space is.
        const double unit = std::sqrt(std::abs(to.determinant()));
        if (!(unit > 0)) return true;
        const Affine up = Affine::scale(unit, unit), down = Affine::scale(1 / unit, 1 / unit);
        Region all;
        for (std::size_t i = 0; i < lines->lines.size(); ++i) {
            Ring line = mapped(lines->lines[i], up);
            if (lines->closed[i] && line.size() > 1 && norm(line.front() - line.back()) < 1e-9) line.pop_back();
            if (line.size() < 2) continue;
            all = unite(all, stroked(line, lines->closed[i], width * unit,
                                     cap == "round"    ? Cap::round
                                     : cap == "square" ? Cap::square
                                                       : Cap::butt,
                                     join == "round"   ? PenJoin::round
                                     : join == "bevel" ? PenJoin::bevel
                                                       : PenJoin::miter,
                                     tolerance));
        }
        if (!all.empty()) shapes.push_back({placed(rings_of(all), true, to.after(down)), *colour, clips});
        return true;
    }

    std::string fill_ = "rgb(0%,0%,0%)";
    double fill_opacity_ = 1;
};

}  // namespace

std::optional<std::vector<FlatShape>> flat_shapes_of(double width, double height, const std::function<void(cairo_t*)>& draw) {
    std::string svg;
    cairo_surface_t* surface = cairo_svg_surface_create_for_stream(
        [](void* to, const unsigned char* data, unsigned int size) {
            static_cast<std::string*>(to)->append(reinterpret_cast<const char*>(data), size);
            return CAIRO_STATUS_SUCCESS;
        },
        &svg, width, height);
    cairo_svg_surface_set_document_unit(surface, CAIRO_SVG_UNIT_PX);
    cairo_t* cr = cairo_create(surface);
    draw(cr);
    const bool drawn = cairo_status(cr) == CAIRO_STATUS_SUCCESS;
    cairo_destroy(cr);
    cairo_surface_finish(surface);
    cairo_surface_destroy(surface);
    if (!drawn || svg.size() > 200'000'000) return std::nullopt;
    xmlDoc* document = xmlReadMemory(svg.data(), static_cast<int>(svg.size()), "drawing", nullptr, XML_PARSE_NONET | XML_PARSE_HUGE);
    if (document == nullptr) return std::nullopt;
    Reader reader(xmlDocGetRootElement(document));
    const bool sound = reader.read(xmlDocGetRootElement(document), Affine{}, {}, 0);
    xmlFreeDoc(document);
    if (!sound) return std::nullopt;
    return std::move(reader.shapes);
}

}  // namespace orthema::reader
