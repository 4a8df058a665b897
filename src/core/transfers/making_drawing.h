// How a making is shown: each piece as it lies on its medium, and what it looks like once pressed.
#pragma once

#include "core/transfers/transfers.h"

namespace orthema {

/// A transfer as it is printed, through `map` from its contour's frame; its own few words (which edge is the top) as they are read.
void draw_transfer(Drawing& to, const Transfer& transfer, const Affine& map, const Reading& reading);

/// A piece on its medium, as it is printed or cut, with its contour; `map` from the contour's frame.
void draw_on_medium(Drawing& to, const Transfer& piece, const Affine& map, double hair, const Reading& reading);

/// Which way a piece reads on its medium, as an arrow: from its own left to its own right.
void draw_reading_arrow(Drawing& to, Point at, double length, bool mirrored, double hair);

/// What lies where once it is pressed, through `map` from the reading frame: all layers, on the blank where it depends
/// on one; seams and their points over it, parts numbered in press order, a bare rim in carmine.
void draw_pressed(Drawing& to, const Made& made, Colour cloth, const Affine& map, double hair, const Reading& reading);
/// The box of all that draw_pressed shows, in the reading frame.
Rect pressed_box(const Made& made);

/// The unrolled wall in its own frame, moved by half its circumference to the right, with what the wrap's sheet brings:
/// twice where it laps, nothing where a gap is left. `k` units to the mm.
Drawing wall_picture(const Made& made, Colour cloth, double k);

/// A board as it is pressed, front or back seen from its own side.
void draw_board_pressed(Drawing& to, const Order& order, const FitPlan& plan, const JigSheet& sheet, bool back, const Affine& map,
                        double hair);

}  // namespace orthema
