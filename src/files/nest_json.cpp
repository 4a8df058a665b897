#include "files/nest_json.h"

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
        p.width = j.at("width_mm").get<double>();
        p.gap = j.value("gap_mm", 0.0);
        p.margin = j.value("margin_mm", 0.0);
        if (j.contains("max_length_mm") && !j["max_length_mm"].is_null()) p.max_length = j["max_length_mm"].get<double>();
        const auto ring = [](const json& r) {
            Ring out;
            for (const json& q : r) out.push_back({q.at(0).get<double>(), q.at(1).get<double>()});
            return out;
        };
        if (j.at("pieces").size() > 20000) return Error{"The instance has more than 20,000 kinds of piece."};
        for (const json& e : j.at("pieces")) {
            NestPiece piece;
            piece.id = e.at("id").get<std::string>();
            piece.count = e.value("count", 1);
            piece.outline.outer = ring(e.at("outline"));
            if (e.contains("holes"))
                for (const json& h : e["holes"]) piece.outline.holes.push_back(ring(h));
            if (e.contains("rotations") && e["rotations"].is_string()) {
                // "any": three degrees apart
                piece.rotations.clear();
                for (int k = 0; k < 120; ++k) piece.rotations.push_back(3.0 * k);
            } else if (e.contains("rotations")) {
                piece.rotations = e["rotations"].get<std::vector<double>>();
            }
            p.pieces.push_back(std::move(piece));
        }
        return p;
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
