// How a medium is laid and what of it is on the shelf, and layouts, to and from JSON.
#include "files/laying_json.h"

namespace orthema {

namespace {

const char* cutting_key(Cutting c) {
    switch (c) {
    case Cutting::trimmer: return "trimmer";
    case Cutting::on_sheet: return "on_sheet";
    case Cutting::contour: break;
    }
    return "contour";
}

const char* together_key(Together t) {
    switch (t) {
    case Together::designs: return "designs";
    case Together::garments: return "garments";
    case Together::sizes: return "sizes";
    case Together::jobs: return "jobs";
    case Together::nothing: break;
    }
    return "nothing";
}

StockItem read_stock(const In& in) {
    StockItem s;
    s.id = in["id"].text();
    s.name = in["name"].text();
    s.width = in["width_mm"].length(1);
    s.length = in["length_mm"].length(1);
    if (in.has("price")) s.price = in["price"].number(0, 1e6);
    const auto ring = [](const In& list) {
        Ring out;
        list.each(5000, [&](const In& e) { out.push_back({e["x"].number(-1, 1e5), e["y"].number(-1, 1e5)}); });
        if (out.size() < 3) list.fail("has fewer than three corners");
        return out;
    };
    if (in.has("shape")) s.shape = ring(in["shape"]);
    if (in.has("holes")) in["holes"].each(500, [&](const In& e) { s.holes.push_back(ring(e)); });
    return s;
}

std::vector<PlacedCopy> read_copies(const In& in) {
    std::vector<PlacedCopy> out;
    in.each(most<PlacedCopy>, [&](const In& c) {
        out.push_back({c["transfer"].text(), c["copy"].whole(0, 100000), c["sheet"].whole(0, 10000), c["turn"].whole(0, 359),
                       c["x_mm"].number(-1e5, 1e7), c["y_mm"].number(-1e5, 1e7), c.has("locked") && c["locked"].flag()});
    });
    return out;
}

std::vector<std::string> read_sheets_stock(const In& in) {
    std::vector<std::string> out;
    in.each(10001, [&](const In& e) { out.push_back(e.text()); });
    return out;
}

json copies_json(const std::vector<PlacedCopy>& copies) {
    json out = json::array();
    for (const PlacedCopy& c : copies) {
        json e{{"transfer", c.transfer}, {"copy", c.copy}, {"sheet", c.sheet}, {"turn", c.turn}, {"x_mm", c.x}, {"y_mm", c.y}};
        if (c.locked) e["locked"] = true;
        out.push_back(std::move(e));
    }
    return out;
}

}  // namespace

Laying read_laying(const In& in) {
    Laying l;
    if (in.has("cutting")) l.cutting = in["cutting"].one_of<Cutting>(3, cutting_key);
    if (in.has("stages")) l.stages = in["stages"].whole(0, 3);
    if (in.has("grain")) l.grain = in["grain"].flag();
    if (in.has("fingers_mm")) l.fingers = in["fingers_mm"].length(0);
    if (in.has("together")) l.together = in["together"].one_of<Together>(together_count, together_key);
    if (in.has("registers")) l.registers = in["registers"].flag();
    if (in.has("excluded"))
        in["excluded"].each(100, [&](const In& e) {
            l.excluded.push_back(
                {e["name"].text(), e["along_mm"].length(0), e["across_mm"].length(0), e["length_mm"].length(0), e["breadth_mm"].length(0)});
        });
    if (in.has("waste_mm")) l.waste = in["waste_mm"].length(0);
    if (in.has("stock")) in["stock"].each(200, [&](const In& e) { l.stock.push_back(read_stock(e)); });
    return l;
}

json to_json(const Laying& l) {
    json j{{"cutting", cutting_key(l.cutting)}, {"fingers_mm", l.fingers.mm()}};
    if (l.stages > 0) j["stages"] = l.stages;
    if (l.grain) j["grain"] = true;
    if (l.together != Together::nothing) j["together"] = together_key(l.together);
    if (l.registers) j["registers"] = true;
    if (l.waste.mm() > 0) j["waste_mm"] = l.waste.mm();
    for (const Exclusion& e : l.excluded)
        j["excluded"].push_back({{"name", e.name},
                                 {"along_mm", e.along.mm()},
                                 {"across_mm", e.across.mm()},
                                 {"length_mm", e.length.mm()},
                                 {"breadth_mm", e.breadth.mm()}});
    for (const StockItem& s : l.stock) {
        json e{{"id", s.id}, {"name", s.name}, {"width_mm", s.width.mm()}, {"length_mm", s.length.mm()}, {"price", s.price}};
        const auto ring = [](const Ring& r) {
            json points = json::array();
            for (const Point& p : r) points.push_back({{"x", p.x}, {"y", p.y}});
            return points;
        };
        if (!s.shape.empty()) e["shape"] = ring(s.shape);
        for (const Ring& hole : s.holes) e["holes"].push_back(ring(hole));
        j["stock"].push_back(std::move(e));
    }
    return j;
}

MediumLayout read_layout(const In& in) {
    MediumLayout l;
    l.medium = in["medium"].text();
    l.copies = read_copies(in["copies"]);
    if (in.has("stock")) l.stock = read_sheets_stock(in["stock"]);
    if (in.has("fill"))
        in["fill"].each(200, [&](const In& e) {
            l.fill.push_back({e["transfer"].text(), e["value"].number(0, 1e6), e["copies"].whole(0, 20000)});
        });
    if (in.has("printed"))
        in["printed"].each(most<PrintedCopies>, [&](const In& e) {
            l.printed.push_back({e["transfer"].text(), e["copies"].whole(0, 100000), e.has("job") ? e["job"].text() : "",
                                 e.has("bag") ? e["bag"].text() : ""});
        });
    if (in.has("kept")) {
        LaidSheets kept{read_copies(in["kept"]["copies"]), {}};
        if (in["kept"].has("stock")) kept.stock = read_sheets_stock(in["kept"]["stock"]);
        l.kept = std::move(kept);
    }
    return l;
}

json to_json(const MediumLayout& l) {
    json j{{"medium", l.medium}, {"copies", copies_json(l.copies)}};
    if (!l.stock.empty()) j["stock"] = l.stock;
    for (const FillWish& f : l.fill) j["fill"].push_back({{"transfer", f.transfer}, {"value", f.value}, {"copies", f.copies}});
    for (const PrintedCopies& p : l.printed) {
        j["printed"].push_back({{"transfer", p.transfer}, {"copies", p.copies}});
        if (!p.job.empty()) j["printed"].back()["job"] = p.job;
        if (!p.bag.empty()) j["printed"].back()["bag"] = p.bag;
    }
    if (l.kept) {
        j["kept"] = {{"copies", copies_json(l.kept->copies)}};
        if (!l.kept->stock.empty()) j["kept"]["stock"] = l.kept->stock;
    }
    return j;
}

}  // namespace orthema
