// A blank style: its family, size run, colours, figures and features. Everything about a blank that a shop decides.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/base/colour.h"
#include "core/blanks/family.h"
#include "core/blanks/measures.h"

namespace orthema {

/// Which panel of a blank faces the press.
enum class Face {
    front,
    back,
    left_sleeve,  ///< the wearer's left, turned so that the fold lies in the middle
    right_sleeve,
    left_leg,
    right_leg,
    hood,
    cap_front,
    cap_left,
    cap_right,
    cap_back,
    bill,
    wrap,  ///< the wall of a mug, glass or sleeve, unrolled
};
constexpr int face_count = static_cast<int>(Face::wrap) + 1;
const char* face_key(Face face);
const char* face_name(Face face);  ///< with the side as the wearer has it
/// The face and, where there is a wearer, the wearer's side: "front: the wearer's left is on your right".
std::string side_words(Family family, Face face, const Reading& reading = {});
/// The faces that a family has, the one that is pressed most first.
std::vector<Face> family_faces(Family family);

enum class FeatureKind { pocket, placket, zip, snaps, tag, seam };
constexpr int feature_kind_count = 6;
const char* feature_kind_name(FeatureKind kind);

/// A feature that a style has beyond its family: a chest pocket, a placket, a second zip. Figures are those of the
/// sample size; on the others its place follows the panel.
struct StyleFeature {
    FeatureKind kind = FeatureKind::pocket;
    Face face = Face::front;
    Length across;  ///< its middle from the centre line, to the viewer's right
    Length down;    ///< its top below the panel's origin (HPS level, or the top edge)
    Length width, height;
    Length raised;      ///< by which it stands above the cloth
    Length clearance;   ///< that ink keeps from it
    double growth = 0;  ///< of its own size with the panel: 0 stays, 1 in proportion
    bool operator==(const StyleFeature&) const = default;
};
/// The usual figures of a feature on a panel of this size, mm: where trade habit puts it.
StyleFeature usual_feature(FeatureKind kind, Face face, double panel_width, double panel_length, bool upper_body);

struct BlankColour {
    std::string name;
    Colour ink;
    std::optional<Colour> inside = {};  ///< of a reversible the other layer; white where it is not said
    bool operator==(const BlankColour&) const = default;
};

struct BlankStyle {
    std::string id;
    std::string name;
    Family family = Family::adult_tee;
    std::string fabric;
    std::string batch;                       ///< of those in use, as its box says; empty: not said
    double price = 0;                        ///< of one
    Length tolerance = Length::from_mm(13);  ///< by which a measured figure may differ from the published one
    std::vector<std::string> sizes;          ///< the run, smallest first
    std::vector<BlankColour> colours;
    std::map<std::string, Measures> chart;  ///< size code -> figures
    std::string sample_size;                ///< that the features are given for; empty: the middle of the run
    std::vector<StyleFeature> features;
    std::vector<std::string> tags;  ///< words to find it by
    bool archived = false;          ///< kept, but no longer offered
    bool shrinks = false;           ///< in the heat: pressed first, and measured after
    bool other_side = false;        ///< hoist, grommets or notch lie on the other side than the family has them
    bool operator==(const BlankStyle&) const = default;
};

/// The style with one more feature. A second of the same kind on a face makes a pair with the first: one that sat on the
/// centre line moves aside for it, else the new one mirrors it.
BlankStyle with_feature(const BlankStyle& style, StyleFeature feature);

/// Index of a size in the style's run, or -1.
int size_index(const BlankStyle& style, const std::string& size);
std::string sample_size(const BlankStyle& style);
/// The size that designs are sized from where no other is chosen: M where the run has one, else its middle.
std::string usual_base_size(const BlankStyle& style);

/// Whether the figure is one that the pressed blank has: any, where the blank does not shrink.
bool holds_when_pressed(const BlankStyle& style, const Figure& figure);

/// Whether the figure was measured on pieces of a batch that is not the one in use.
bool of_other_batch(const BlankStyle& style, const Figure& figure);

/// Adds what one more piece measured (of a blank that shrinks: of a pressed one, and readings of unpressed ones go): the figure becomes the
/// mean of its readings, and the published figures that lie between two measured sizes are graded anew: each keeps its published place
/// between the two.
/// `error` is that of a photograph; 0: by tape.
BlankStyle with_reading(const BlankStyle& style, const std::string& size, Measure m, Length value, const std::string& date,
                        Length error = {});
/// The same with these readings in place of those before, those that stay first and with their errors; none takes the figure back to what
/// was published.
BlankStyle with_readings(const BlankStyle& style, const std::string& size, Measure m, std::vector<Length> readings,
                         const std::string& date);
/// Corrects what was published. Measured figures stay, and what is graded between them is graded again.
BlankStyle with_published(const BlankStyle& style, const std::string& size, Measure m, Length value);
/// With every optional figure that the chart lacks set to 0, so that each size has all the measures of the family.
BlankStyle completed(BlankStyle style);

/// A new style of this run: the pattern's published figures, where a size is not in its run continued by the last step.
/// For building a blank that the library lacks. The pattern's features and colours come along.
BlankStyle new_style(const BlankStyle& pattern, const std::string& id, const std::string& name, const std::vector<std::string>& sizes);

/// The style with another run: sizes that stay keep their figures, measured ones too, new ones continue the run.
BlankStyle with_sizes(const BlankStyle& style, const std::vector<std::string>& sizes);

/// True when every word is found in the name, family, fabric, tags or colours; no words find all.
bool matches(const BlankStyle& style, const std::string& words);

/// Null where it has none of that name.
const BlankColour* find_colour(const BlankStyle& style, const std::string& name);

/// A sentence where the style cannot be drawn (a missing or absurd figure); nothing where it can.
std::optional<Error> style_fault(const BlankStyle& style);

}  // namespace orthema
