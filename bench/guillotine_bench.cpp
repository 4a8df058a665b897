// Trimmer layouts of sheets that were cut up at random, so that the best layout wastes nothing: what the engine reaches,
// as a share of that. guillotine_bench SECONDS [STAGES]
#include <cstdio>
#include <cstdlib>
#include <random>

#include "core/nesting/guillotine.h"

using namespace orthema;

namespace {

/// A sheet 900 × 560 mm cut from edge to edge until there are n pieces; with stages: into strips, and these into pieces.
std::vector<Rect> cut_up(int n, unsigned seed, int stages) {
    std::mt19937 random(seed);
    struct Part {
        Rect box;
        int stage = 0;
        bool across = true;
    };
    std::vector<Part> parts{{{0, 0, 900, 560}, 0, true}};
    while (static_cast<int>(parts.size()) < n) {
        // the largest of a few, so that sizes stay within reason
        std::size_t i = random() % parts.size();
        for (int k = 0; k < 3; ++k) {
            const std::size_t j = random() % parts.size();
            if (parts[j].box.width() * parts[j].box.height() > parts[i].box.width() * parts[i].box.height()) i = j;
        }
        const Part p = parts[i];
        const bool across = stages > 0 && p.stage >= stages ? p.across : random() % 2 == 0;
        const double span = across ? p.box.width() : p.box.height();
        if (span < 12) continue;
        const double at = span * (0.25 + 0.5 * static_cast<double>(random() % 1000) / 1000);
        Part a{p.box, p.stage + (p.stage == 0 || across != p.across ? 1 : 0), across}, b = a;
        (across ? a.box.x1 : a.box.y1) = (across ? p.box.x0 : p.box.y0) + at;
        (across ? b.box.x0 : b.box.y0) = (across ? p.box.x0 : p.box.y0) + at;
        parts[i] = a;
        parts.push_back(b);
    }
    std::vector<Rect> out;
    for (const Part& p : parts) out.push_back(p.box);
    return out;
}

}  // namespace

int main(int argc, char** argv) {
    GuillotineOptions options;
    options.nest.seconds = argc > 1 ? std::atof(argv[1]) : 5;
    options.stages = argc > 2 ? std::atoi(argv[2]) : 0;
    options.nest.threads = 2;
    std::printf("pieces  share of the optimum reached, seeds 1 to 3\n");
    for (const int n : {10, 20, 40, 80, 200}) {
        std::printf("%6d ", n);
        for (unsigned seed = 1; seed <= 3; ++seed) {
            NestProblem p;
            p.width = 560.05;
            int i = 0;
            for (const Rect& r : cut_up(n, seed, options.stages))
                p.pieces.push_back({"p" + std::to_string(i++), 1, {0, 90}, box_region({0, 0, r.width(), r.height()})[0]});
            double first = 0;
            const auto s = nest_guillotine(p, options, {}, [&](const NestSolution& better) {
                if (first == 0) first = better.length;
            });
            if (!s) {
                std::fprintf(stderr, "%s\n", s.sentence().c_str());
                return 1;
            }
            std::printf("  %.3f (shelves %.3f)", 900 / s->length, 900 / first);
        }
        std::printf("\n");
    }
    return 0;
}
