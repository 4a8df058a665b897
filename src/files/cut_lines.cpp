// Cut lines as SVG, DXF and HPGL.
#include <cmath>

#include "core/base/units.h"
#include "core/sheets/sheets.h"
#include "files/page_export.h"
#include "files/safe_file.h"
#include "files/xml_text.h"

namespace orthema {

Result<Done> write_cut_svg(const std::string& path, const std::vector<CutStep>& cuts, double width, double height, const std::string& title,
                           const std::vector<Point>& registers) {
    std::string out = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + mm_text(width, 3) +
                      "mm\" height=\"" + mm_text(height, 3) + "mm\" viewBox=\"0 0 " + mm_text(width, 3) + " " + mm_text(height, 3) +
                      "\">\n<title>" + xml_escaped(title) +
                      "</title>\n<g id=\"cut\" fill=\"none\" stroke=\"#000000\" stroke-width=\"0.1\">\n";
    for (const CutStep& c : cuts) {
        out += std::string("<path class=\"") + (c.open ? "snip" : c.inside ? "inside" : "outside") + "\" d=\"";
        for (std::size_t i = 0; i < c.ring.size(); ++i)
            out += (i == 0 ? "M" : "L") + mm_text(c.ring[i].x, 3) + " " + mm_text(c.ring[i].y, 3);
        out += c.open ? "\"/>\n" : "Z\"/>\n";
    }
    for (const Point& p : registers) {
        const std::string x = mm_text(p.x, 3), y = mm_text(p.y, 3), r = mm_text(register_radius, 3), d = mm_text(2 * register_radius, 3);
        out += "<path class=\"register\" d=\"M" + mm_text(p.x - register_radius, 3) + " " + y + "h" + d + "M" + x + " " +
               mm_text(p.y - register_radius, 3) + "v" + d + "\"/>\n<circle class=\"register\" cx=\"" + x + "\" cy=\"" + y + "\" r=\"" + r +
               "\"/>\n";
    }
    return write_file(path, out + "</g>\n</svg>\n");
}

Result<Done> write_cut_dxf(const std::string& path, const std::vector<CutStep>& cuts, double height, const std::vector<Point>& registers) {
    std::string out =
        "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nTABLES\n0\nTABLE\n2\n"
        "LAYER\n70\n4\n0\nLAYER\n2\nCUT_INSIDE\n70\n0\n62\n1\n6\nCONTINUOUS\n0\nLAYER\n2\nCUT_OUTSIDE\n70\n0\n62\n7\n6\nCONTINUOUS\n"
        "0\nLAYER\n2\nREGISTER\n70\n0\n62\n3\n6\nCONTINUOUS\n"
        "0\nLAYER\n2\nSNIP\n70\n0\n62\n5\n6\nCONTINUOUS\n"
        "0\nENDTAB\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n";
    for (const CutStep& c : cuts) {
        const std::string layer = c.open ? "SNIP" : c.inside ? "CUT_INSIDE" : "CUT_OUTSIDE";
        out += "0\nPOLYLINE\n8\n" + layer + "\n66\n1\n70\n" + (c.open ? "0" : "1") + "\n10\n0\n20\n0\n30\n0\n";
        for (const Point& p : c.ring)
            out += "0\nVERTEX\n8\n" + layer + "\n10\n" + mm_text(p.x, 4) + "\n20\n" + mm_text(height - p.y, 4) + "\n30\n0\n";
        out += "0\nSEQEND\n8\n" + layer + "\n";
    }
    for (const Point& p : registers)
        out += "0\nCIRCLE\n8\nREGISTER\n10\n" + mm_text(p.x, 4) + "\n20\n" + mm_text(height - p.y, 4) + "\n30\n0\n40\n" +
               mm_text(register_radius, 4) + "\n";
    return write_file(path, out + "0\nENDSEC\n0\nEOF\n");
}

std::string cut_plt(const std::vector<CutStep>& cuts, double height) {
    std::string out = "IN;SP1;\n";
    const auto at = [&](Point p) { return std::to_string(std::lround(p.x * 40)) + "," + std::to_string(std::lround((height - p.y) * 40)); };
    for (const CutStep& c : cuts) {
        out += "PU" + at(c.ring[0]) + ";PD";
        for (std::size_t i = 1; i < c.ring.size(); ++i) out += (i == 1 ? "" : ",") + at(c.ring[i]);
        out += (c.open ? "" : "," + at(c.ring[0])) + ";PU;\n";
    }
    return out + "SP0;\n";
}

Result<Done> write_cut_plt(const std::string& path, const std::vector<CutStep>& cuts, double height) {
    return write_file(path, cut_plt(cuts, height));
}

}  // namespace orthema
