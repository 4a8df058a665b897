// Recipes: what the hand at the press does, step by step. Data that a shop edits. Figures are typical of the trade and
// only somewhere to begin: the supplier's sheet for film, vinyl, paper, blank and press comes first.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/words.h"

namespace orthema {

enum class Pressure { light, medium, firm, heavy };
const char* pressure_name(Pressure p);

enum class StepKind {
    pre_press,     ///< dries and flattens the blank
    marry,         ///< joins the sheets of a transfer, off the blank
    trim,          ///< trims a transfer's edges
    tack,          ///< puts a lower layer on, as short as holds
    press,         ///< puts the layer on
    wait,          ///< lets it cool where it lies
    peel,          ///< takes the carrier off
    re_press,      ///< under heat again where it did not release
    second_press,  ///< sets what is peeled
    turn,          ///< to the other side, inside out, or half round a wrap
    hover_cure,    ///< the platen close above, not touching
    pre_shrink,    ///< the bare blank as hot and long as it will be pressed: it is measured after
};
constexpr int step_kind_count = static_cast<int>(StepKind::pre_shrink) + 1;
const char* step_name(StepKind kind);  ///< "pre-press", "second press": what cards and files say

enum class Peel { hot, warm, cool };
const char* peel_name(Peel p);

struct RecipeStep {
    StepKind kind = StepKind::press;
    double celsius = 0;        ///< of the plate; 0 where nothing is heated
    double seconds = 0;        ///< under heat; of a wait or a peel: how long it cools before
    double least_seconds = 0;  ///< that still holds, of a tack: it may be shortened to this; 0: not
    Pressure pressure = Pressure::medium;
    double gauge_bar = 0;  ///< where the press has a gauge; 0: by the class
    Peel peel = Peel::cool;
    std::string cover, base;     ///< sheets over and under it
    std::string pad;             ///< pillow or pad that it needs
    bool protect_other = false;  ///< a sheet between this side and what is pressed on the other
    std::string how;             ///< a clause to add: "low and rolled back"
    bool operator==(const RecipeStep&) const = default;
};

/// Whether the plate heats the blank in it.
bool heats(const RecipeStep& step);
/// Whether it is done to the bare blank, before anything lies on it.
bool prepares(const RecipeStep& step);
/// Whether it puts a layer on.
bool applies(const RecipeStep& step);

/// How long after the press has opened a carrier may come off, seconds.
struct PeelWindow {
    double least = 0;
    std::optional<double> most;  ///< none: it can wait
};
PeelWindow peel_window(const RecipeStep& peel);

inline double fahrenheit_of(double celsius) { return celsius * 9 / 5 + 32; }
/// "150 °C", "302 °F".
std::string heat_words(double celsius, bool fahrenheit = false);
/// "press 12 s at 150 °C, medium" and the like; in an oven nothing presses: "heat 420 s at 190 °C".
std::string step_words(const RecipeStep& step, bool fahrenheit = false, bool in_oven = false, const Reading& reading = {});
/// All of it in a line.
std::string recipe_words(const std::vector<RecipeStep>& steps, bool fahrenheit = false, bool in_oven = false, const Reading& reading = {});

/// The kind that a step's free words mean, as files of version 3 and older keep them: "peel warm", "press the foil".
RecipeStep step_from_words(const std::string& words);

/// What a fabric asks for beyond the method's own recipe.
struct FabricRule {
    std::string fabric;        ///< a word of the blank's fabric
    double darker_than = 100;  ///< cloth of at most this CIELAB lightness; 100: any
    double celsius = 0;        ///< of its heated steps; 0: as the recipe has it
    double longer = 1;         ///< times their seconds
    std::optional<Pressure> pressure;
    double most_celsius = 0;  ///< that the cloth bears; 0: no limit of its own
    std::string because;      ///< "the dye migrates"
    bool operator==(const FabricRule&) const = default;
};

enum class TrialResult { released_clean, ghosted, scorched, lifted, crooked, to_try, not_released };
constexpr int trial_result_count = 7;
const char* trial_result_name(TrialResult r);

/// What a shop found on one of its blanks and presses, or means to try there. The last clean one, or the last to be
/// tried after it, takes the place of the method's recipe.
struct Trial {
    std::string method, style, press;  ///< ids
    std::vector<RecipeStep> steps;
    TrialResult result = TrialResult::released_clean;
    std::string date;  ///< ISO
    std::string note;
    bool operator==(const Trial&) const = default;
};

}  // namespace orthema
