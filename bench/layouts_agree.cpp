// Random layouts with our verdict on each, for another program to judge: layouts_agree COUNT SEED writes one line of JSON
// each, with "instance", "solution" and "sound". Half are sound or nearly so: a layout of the nester with one piece moved a little.
#include <cmath>
#include <cstdlib>
#include <iostream>
#include <nlohmann/json.hpp>
#include <random>

#include "files/nest_json.h"

using namespace orthema;
using nlohmann::json;

namespace {

/// A star-shaped outline, sometimes with a hole; y up, anticlockwise.
json piece(std::mt19937& random, int i) {
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
    const int corners = 3 + static_cast<int>(random() % 14);
    const double size = 10 + 50 * share();
    const auto ring = [&](double scale, bool back) {
        json out = json::array();
        for (int k = 0; k < corners; ++k) {
            const double t = 2 * M_PI * (back ? corners - k : k) / corners, r = size * scale * (back ? 1 : 0.55 + 0.45 * share());
            out.push_back({std::round(1e4 * r * std::cos(t)) / 1e4, std::round(1e4 * r * std::sin(t)) / 1e4});
        }
        return out;
    };
    json p{{"id", "p" + std::to_string(i)},
           {"count", 1 + static_cast<int>(random() % 2)},
           {"rotations", {0, 90, 180, 270}},
           {"outline", ring(1, false)}};
    if (corners > 5 && random() % 3 == 0) p["holes"] = {ring(0.3, true)};
    return p;
}

}  // namespace

int main(int argc, char** argv) {
    const int count = argc > 1 ? std::atoi(argv[1]) : 10000;
    std::mt19937 random(argc > 2 ? static_cast<unsigned>(std::atoi(argv[2])) : 1);
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
    for (int done = 0; done < count;) {
        json instance{
            {"format", "nest-instance/1"}, {"name", "random"}, {"width_mm", 200}, {"gap_mm", random() % 4 == 0 ? 0 : 3}, {"margin_mm", 5}};
        for (int i = 0; i < 4; ++i) instance["pieces"].push_back(piece(random, i));
        const auto problem = nest_problem_from_json(instance.dump());
        if (!problem) {
            std::cerr << problem.sentence() << "\n";
            return 1;
        }
        NestOptions options;
        options.rounds = 1;
        NestProblem roomy = *problem;  // a little more than asked, or most layouts would lie at the very limit
        roomy.gap += 0.02;
        roomy.margin += 0.02;
        const auto laid = nest(roomy, options);
        if (!laid) {
            std::cerr << laid.sentence() << "\n";
            return 1;
        }
        for (int k = 0; k < 20 && done < count; ++k, ++done) {
            NestSolution s = *laid;
            for (NestPlacement& p : s.placements)
                if (k >= 10) {
                    p.x = 200 * share();
                    p.y = 200 * share();
                    p.rotation = 90.0 * static_cast<double>(random() % 4);
                }
            NestPlacement& one = s.placements[random() % s.placements.size()];
            const double by = std::pow(10, -3 + 4 * share()), way = 2 * M_PI * share();
            one.x += by * std::cos(way);
            one.y += by * std::sin(way);
            for (NestPlacement& p : s.placements) {  // as they are written
                p.x = std::round(p.x * 1e4) / 1e4;
                p.y = std::round(p.y * 1e4) / 1e4;
            }
            std::cout << json{{"instance", instance},
                              {"solution", json::parse(nest_solution_json(*problem, s))},
                              {"sound", nest_faults(*problem, s.placements, 0).empty()}}
                             .dump()
                      << "\n";
        }
    }
    return 0;
}
