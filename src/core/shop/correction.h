// Correction: what a shop has learned of itself, as a value: what it changes, by how much, how sure that is and what it rests on.
// Proposed by records, taken by somebody, read by guides and pressing.
#pragma once

#include <string>
#include <vector>

#include "core/base/units.h"

namespace orthema {

enum class CorrectionKind {
    loading_marks,  ///< of a press's platen, or of one pair of hands at it: `aside` and `down`, mm
    neck_drop,      ///< a blank's collar seam, of one size or all: `by`, mm deeper
    circumference,  ///< of one size and batch of a wrap: `by`, mm more
    layer_growth,   ///< of what lies under a layer: `by`, mm more
    shrink,         ///< a method's: `by`, per cent more
    recipe,         ///< a trial in one figure of one step: `words`
    hand_times,     ///< of handling: times `by`
    spares,         ///< of a design: `by` in all
    photo_scale,    ///< of figures read off photographs: they come out `by` per cent long
    look,           ///< nothing to change by itself: `words` say what to look at
};
constexpr int correction_kind_count = static_cast<int>(CorrectionKind::look) + 1;
const char* correction_key(CorrectionKind kind);   ///< as files have it
const char* correction_name(CorrectionKind kind);  ///< as people read it

struct Correction {
    std::string id;
    CorrectionKind kind = CorrectionKind::look;
    std::string press, platen, hands, style, size, method, design;  ///< what it is about; ids, as far as it goes
    std::string batch;                                              ///< of the blank
    double aside = 0, down = 0;                                     ///< mm to the viewer's right, and towards the near edge
    double by = 0;
    double low = 0, high = 0;          ///< 95 % of `by`; of marks, of the one that moves most
    int pieces = 0;                    ///< that it rests on
    std::vector<std::string> records;  ///< their ids, the latest
    std::string words;
    std::string since;  ///< ISO: when it was taken
    bool operator==(const Correction&) const = default;
};

/// The sum of all marks moved on this platen, for whoever presses: mm that the garment lies to the viewer's right and nearer.
struct MarksMoved {
    double aside = 0, down = 0;
    std::string since;
    int pieces = 0;
    [[nodiscard]] bool any() const { return aside != 0 || down != 0; }
};
/// "4 mm to your left and 2 mm towards you", of whoever stands before the press.
std::string moved_words(double aside, double down, Reading reading);
/// Since which day, and from how many pieces: what follows the words of a correction that was taken.
Phrases taken_day(const std::string& since);
Phrases taken_from(int pieces);
/// "loading marks moved 4 mm to your left, 2027-06-12, from 18 pieces"
std::string marks_moved_words(const MarksMoved& moved, Reading reading);
MarksMoved marks_moved(const std::vector<Correction>& taken, const std::string& press, const std::string& platen,
                       const std::string& hands = {});

/// What a figure read off a photograph is divided by.
double photo_factor(const std::vector<Correction>& taken);

/// By how much handling takes longer than the usual times.
double handling_factor(const std::vector<Correction>& taken);

}  // namespace orthema
