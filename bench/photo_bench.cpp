// Photographs by the simulated camera, measured: how far figures lie off, whether the errors stated cover that, what is refused.
// usage: photo_bench [pictures] [first seed] [cards: 1, 4 or 0 for both] [width]
#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <random>

#include "photo_piece.h"

using namespace orthema;

namespace {

constexpr Kind kinds[] = {{Family::adult_tee, Face::front},     {Family::infant_bodysuit, Face::front},
                          {Family::crew_fleece, Face::front},   {Family::reversible_jersey, Face::front},
                          {Family::tote, Face::front},          {Family::cap, Face::cap_front},
                          {Family::tag, Face::front},           {Family::hooded_fleece, Face::front},
                          {Family::coaster, Face::front},       {Family::mug, Face::wrap},
                          {Family::tapered_tumbler, Face::wrap}};

struct Tally {
    int pictures = 0, refused = 0, figures = 0, within = 0, covered = 0, gross = 0;
    std::vector<double> off;
    std::map<std::string, int> why;
};

void print(const char* name, Tally& t) {
    std::sort(t.off.begin(), t.off.end());
    std::printf("%-22s %4d pictures, %3d refused, %5d figures: %5.1f %% within, %5.1f %% covered, %d gross, 95 %% within %.2f mm\n", name,
                t.pictures, t.refused, t.figures, 100.0 * t.within / std::max(1, t.figures), 100.0 * t.covered / std::max(1, t.figures),
                t.gross, t.off.empty() ? 0.0 : t.off[t.off.size() * 95 / 100]);
    for (const auto& [sentence, n] : t.why) std::printf("    %d × %s\n", n, sentence.c_str());
}

}  // namespace

int main(int argc, char** argv) {
    const int pictures = argc > 1 ? std::atoi(argv[1]) : 45;
    const int first = argc > 2 ? std::atoi(argv[2]) : 1, cards_asked = argc > 3 ? std::atoi(argv[3]) : 0,
              width = argc > 4 ? std::atoi(argv[4]) : 4000;
    std::map<std::string, Tally> by_family;
    std::map<int, Tally> by_cards;
    std::map<std::string, Tally> by_measure;
    double table_s = 0, blank_s = 0;
    int measured = 0;
    const char* only = std::getenv("ONLY");  // families whose name begins so
    for (int k = 0; k < pictures; ++k) {
        const unsigned seed = static_cast<unsigned>(first + k);
        std::mt19937 random(seed);
        auto piece = photo_piece(kinds, k, seed, cards_asked, width, random);
        if (!piece) continue;
        auto& [chart, truth, cards, scene, asked] = *piece;
        if (only != nullptr && std::string(family_name(asked.family)).rfind(only, 0) != 0) continue;
        const Photo photo = simulated_photo(scene, seed);
        const auto t0 = std::chrono::steady_clock::now();
        const auto table = vision::find_table(photo, {});
        const auto t1 = std::chrono::steady_clock::now();
        const auto blank = table ? vision::measure_blank(photo, *table, asked, {}) : Result<BlankSeen>(Error{table.sentence()});
        const bool refused = !blank || !blank->refused.empty();
        const std::string why = !blank ? blank.sentence() : blank->refused;
        const auto t2 = std::chrono::steady_clock::now();
        table_s += std::chrono::duration<double>(t1 - t0).count();
        blank_s += std::chrono::duration<double>(t2 - t1).count();
        ++measured;
        std::string worst;
        for (Tally* t : {&by_family[family_name(asked.family)], &by_cards[cards]}) {
            ++t->pictures;
            if (refused) {
                ++t->refused;
                ++t->why[why];
                continue;
            }
            for (const auto& [m, f] : blank->figures) {
                const double real = measure_mm(truth, m), off = std::abs(f.mm - real);
                Tally& of = by_measure[measure_key(m)];
                for (Tally* u : {t, &of}) {
                    if (u == &of && t != &by_cards[cards]) continue;
                    ++u->figures;
                    if (off <= (cards == 4 ? 1.5 : std::max(2.0, 0.005 * real))) ++u->within;
                    if (off <= f.error) ++u->covered;
                    if (off > 6) ++u->gross;
                    u->off.push_back(off);
                }
                if (off > 4 && t == &by_cards[cards])
                    worst += std::string(" ") + measure_key(m) + " " + std::to_string(f.mm - real) + " ± " + std::to_string(f.error);
            }
        }
        if (blank && std::getenv("EVERY") != nullptr)
            std::printf("%u %s: residual %.2f seen %.3f%s\n", seed, family_name(asked.family), blank->residual_mm, blank->seen,
                        worst.empty() ? "" : " WRONG");
        if (!worst.empty() || refused) {
            std::printf("seed %u %s %d cards:%s%s\n", seed, family_name(asked.family), cards, worst.c_str(),
                        refused ? (" " + why).c_str() : "");
            if (const char* folder = std::getenv("PICTURES")) {
                if (FILE* f = std::fopen((std::string(folder) + "/" + std::to_string(seed) + ".ppm").c_str(), "wb")) {
                    std::fprintf(f, "P6 %d %d 255\n", photo.image.width, photo.image.height);
                    for (std::size_t i = 0; i < photo.image.count(); ++i) std::fwrite(photo.image.rgba.data() + 4 * i, 1, 3, f);
                    std::fclose(f);
                }
            }
            std::fflush(stdout);
        }
    }
    for (auto& [name, t] : by_measure) print(name.c_str(), t);
    for (auto& [name, t] : by_family) print(name.c_str(), t);
    for (auto& [cards, t] : by_cards) print(cards == 1 ? "one card" : "four cards", t);
    std::printf("cards found in %.3f s, blank measured in %.3f s on average\n", table_s / std::max(1, measured),
                blank_s / std::max(1, measured));
    return 0;
}
