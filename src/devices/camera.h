// The camera: what a telephone would see of a blank on a table. The simulated one draws a blank by its panel, with cards beside it,
// through a lens, by seed, and knows the truth. What it draws is worked out here by itself, so that a mistake in measuring cannot
// cancel against the same mistake in drawing.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/artwork/photo.h"
#include "core/base/result.h"
#include "core/blanks/lying.h"
#include "core/guides/photo_card.h"

namespace orthema {

class Camera {
public:
    virtual ~Camera() = default;
    /// The next photograph; a sentence where there is none.
    virtual Result<Photo> take() = 0;
};

/// Where something lies on the table: turned by `angle` (radians, clockwise as seen) about its origin, then moved there. mm.
struct OnTable {
    double x = 0, y = 0, angle = 0;
};

/// A card that was folded across and does not quite lie flat again: right of `at` (mm from its middle) it rises by so much a mm.
struct Fold {
    double at = 0, rise = 0;
};

/// A shadow's edge over a card: right of `at` there is so much less light, of 1.
struct Dusk {
    double at = 0, less = 0;
};

struct CardOnTable {
    CardSize size = CardSize::large;
    int card = 1;
    OnTable at;
    double scale = 1;  ///< that it was printed at
    std::optional<Fold> fold;
    std::optional<Dusk> dusk;
};

/// Something round that lies on the table and hides what is under it: a thumb, a reel of tape.
struct Thumb {
    Point at;
    double radius = 0;
};

enum class TableTop { plain, wood, cloth };

struct Lens {
    int width = 4000, height = 3000;
    double focal = 3100;        ///< pixels
    double distortion = 0;      ///< k1: r (1 + k1 r²), r in focal lengths
    double distance = 1000;     ///< from the point of the table that the picture's middle shows, mm
    double tilt = 0, lean = 0;  ///< radians off the upright, about the picture's level and upright axes
    double roll = 0;
    Point aim;          ///< that point
    double blur = 0.8;  ///< pixels, standard deviation
    double noise = 2;   ///< of 255
    bool says_focal = true;
};

/// The same lens before a sensor of another width, of four by three.
Lens with_width(Lens lens, int width);

/// What of a design is pressed on: its picture over this box of the panel, turned about the box's middle.
struct PressedOn {
    PixelImage picture;
    Rect box;
    double angle = 0;
};

struct Scene {
    Family family = Family::adult_tee;
    Measures measures;
    Face face = Face::front;
    bool other_side = false;
    Lying lying;
    OnTable blank;          ///< of a cup: its rim's middle, its base straight below that as drawn
    bool standing = false;  ///< a cup stands before an upright card, and does not lie on its side beside one
    double behind = 0;      ///< what lies between the standing cup and the card's plane, mm
    double thickness = 1;   ///< of the cloth, mm: it lies that much nearer to the lens
    Colour cloth, table;
    TableTop top = TableTop::plain;
    double knit = 0.03;     ///< how much its texture varies, of 1
    double heather = 0;     ///< flecks
    double creases = 0.05;  ///< how much they shade, of 1
    double waves = 1;       ///< by which edges run beside the panel's, mm
    double shadow = 0.2;    ///< beside the blank, of 1
    double light = 0.15;    ///< how much it falls off over a metre
    std::vector<CardOnTable> cards;
    std::vector<Thumb> thumbs;
    std::vector<PressedOn> pressed;
    Lens lens;
};

/// The photograph of a scene; the same seed gives the same one.
Photo simulated_photo(const Scene& scene, unsigned seed);
/// Where a point of the table comes to lie in it, pixels (the middle of the first pixel is 0.5, 0.5).
Point seen_at(const Lens& lens, Point on_table, double height = 0);
/// A point of the blank's panel on the table.
Point on_table(const OnTable& at, Point p);

/// Scenes as they come: poses, light, cloth and table by seed. `cards`: 1 or 4.
Scene usual_scene(Family family, Face face, const Measures& measures, unsigned seed, int cards);

std::unique_ptr<Camera> simulated_camera(std::vector<Scene> scenes, unsigned seed);

}  // namespace orthema
