#include "files/nest_json.h"

#include <cmath>
#include <set>
#include <stdexcept>

#include "files/order_json.h"
#include "files/json_in.h"

namespace orthema {

using nlohmann::json;

Result<NestProblem> nest_problem_from_json(const std::string& text) {
    const auto parsed = parse_json(text, "The instance");
    if (!parsed) return parsed.error();
    const json& j = *parsed;
    try {
        if (!j.is_object() || j.value("format", "") != "nest-instance/1") return Error{"The instance is not of the form nest-instance/1."};
        NestProblem p;
        const auto within = [](const json& v, double low, double high, const std::string& what) {
            const double d = v.get<double>();
            if (!(d >= low && d <= high)) throw std::out_of_range(what);
            return d;
        };
        p.width = within(j.at("width_mm"), 1, 1e5, "width_mm is between 1 and 100,000");
        p.gap = within(j.value("gap_mm", json(0.0)), 0, 1000, "gap_mm is between 0 and 1,000");
        p.margin = within(j.value("margin_mm", json(0.0)), 0, 1000, "margin_mm is between 0 and 1,000");
        if (j.contains("max_length_mm") && !j["max_length_mm"].is_null())
            p.max_length = within(j["max_length_mm"], 1, 1e7, "max_length_mm is between 1 and 10,000,000");
        const auto ring = [&](const json& r, const std::string& id) {
            if (r.size() < 3 || r.size() > 100000) throw std::out_of_range("an outline of “" + id + "” has 3 to 100,000 points");
            Ring out;
            for (const json& q : r)
                out.push_back({within(q.at(0), -1e5, 1e5, "a point of “" + id + "” lies within 100,000 mm"),
                               within(q.at(1), -1e5, 1e5, "a point of “" + id + "” lies within 100,000 mm")});
            return out;
        };
        if (j.at("pieces").size() > 20000) return Error{"The instance has more than 20,000 kinds of piece."};
        std::set<std::string> ids;
        double copies = 0;
        for (const json& e : j.at("pieces")) {
            NestPiece piece;
            piece.id = e.at("id").get<std::string>();
            if (!ids.insert(piece.id).second) return Error{"The instance has two pieces with the id “" + piece.id.substr(0, 60) + "”."};
            const std::string own = "the count of “" + piece.id.substr(0, 60) + "” is a whole number from 1 to 20,000";
            const double count = within(e.value("count", json(1)), 1, 20000, own);
            if (count != std::floor(count)) throw std::out_of_range(own);
            piece.count = static_cast<int>(count);
            if ((copies += count) > 20000) return Error{"The instance has more than 20,000 pieces: split it."};
            piece.outline.outer = ring(e.at("outline"), piece.id.substr(0, 60));
            if (e.contains("holes"))
                for (const json& h : e["holes"]) piece.outline.holes.push_back(ring(h, piece.id.substr(0, 60)));
            if (e.contains("rotations") && e["rotations"].is_string()) {
                if (e["rotations"] != "any") throw std::out_of_range("rotations are a list of degrees, or “any”");
                // "any": three degrees apart
                piece.rotations.clear();
                for (int k = 0; k < 120; ++k) piece.rotations.push_back(3.0 * k);
            } else if (e.contains("rotations")) {
                piece.rotations.clear();
                for (const json& r : e["rotations"])
                    piece.rotations.push_back(within(r, -360, 360, "rotations are from −360 to 360 degrees"));
                if (piece.rotations.empty() || piece.rotations.size() > 720) throw std::out_of_range("a piece has 1 to 720 rotations");
            }
            p.pieces.push_back(std::move(piece));
        }
        return p;
    } catch (const std::out_of_range& e) {
        return Error{std::string("The instance cannot be laid out: ") + e.what() + "."};
    } catch (const json::exception&) {
        return Error{"The instance lacks a field or has one of the wrong kind: see the format's page."};
    }
}

std::string nest_solution_json(const NestProblem& problem, const NestSolution& s) {
    json placements = json::array();
    for (const NestPlacement& p : s.placements) {
        json e{{"id", problem.pieces[static_cast<std::size_t>(p.piece)].id}, {"rotation_deg", p.rotation}, {"x_mm", p.x}, {"y_mm", p.y}};
        if (s.bins > 1) e["sheet"] = p.bin;
        placements.push_back(std::move(e));
    }
    return json_text(json{{"format", "nest-solution/1"},
                          {"length_mm", s.length},
                          {"density", s.density},
                          {"seconds", s.seconds},
                          {"placements", placements}},
                     1);
}

}  // namespace orthema
