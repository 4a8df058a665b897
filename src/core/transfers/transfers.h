// Transfers: FitPlan -> TransferSet, every distinct printed piece with its count, its cutting contour and its mirror.
#pragma once

#include <string>
#include <vector>

#include "core/fitting/fit.h"

namespace orthema {

struct Transfer {
    std::string id;  ///< decoration and width in 0.1 mm: stable while those stay
    std::string decoration;
    std::vector<std::string> also;  ///< other decorations that share it: the same art, width and medium on another blank
    std::string art;                ///< art id
    std::string name;               ///< for people: "Long-tail kite 290"
    std::string sizes;              ///< "S M L"
    std::string medium;
    double width = 0, height = 0;  ///< of the ink, mm
    int quantity = 0;              ///< garments
    int spares = 0;
    bool mirrored = false;  ///< printed mirrored by this program
    Polygon contour;        ///< cutting contour as printed; its box starts at (0, 0), y down
    Rect ink;               ///< the ink box in the contour's frame
    [[nodiscard]] int count() const { return quantity + spares; }
};

struct TransferSet {
    std::vector<Transfer> transfers;
};

/// The one place that decides whether this program mirrors.
bool program_mirrors(const Medium& medium);

/// What a sheet says of its reading direction: "mirrored here, reads from behind" and the like.
std::string reading_direction(const Medium& medium);

/// One transfer an art × distinct width × medium: decorations on several blanks that agree in these share it. The contour is the ink
/// outline grown by `cut_margin_mm`; islands are joined by closing wider and wider gaps until one piece remains, so that scissors follow a
/// single line. Holes smaller than 25 mm across are not cut. Contours of transfers that `before` has in the same art, width and mirror are
/// taken over; it must have been made from the same facts.
TransferSet transfers(const Order& order, const FitPlan& plan, const ArtFactsById& facts, const TransferSet* before = nullptr);

constexpr double cut_margin_mm = 2;  ///< between ink and cutting contour

/// The single closed contour around an outline, as above; millimetres in and out.
Polygon cutting_contour(const Region& outline, double margin_mm);

const Transfer* find_transfer(const TransferSet& set, const std::string& id);

}  // namespace orthema
