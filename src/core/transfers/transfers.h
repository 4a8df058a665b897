// Transfers: FitPlan -> TransferSet, every distinct printed or cut piece with its count, its cutting contour, what is in
// it, and its mirror.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/transfers/jig_sheets.h"
#include "core/transfers/make.h"

namespace orthema {

/// The sizes of one garment run that take a transfer.
struct SizesFor {
    std::string garment;  ///< for people: "Adult tee, ash"
    std::vector<std::string> sizes;
};

/// How many of a transfer are one job's.
struct JobShare {
    std::string job;  ///< id; "" where the order is no gang
    std::string as;   ///< the transfer's id where the job has it alone, by the gang's names
    int quantity = 0, spares = 0, spoiled = 0;
    [[nodiscard]] int count() const { return quantity + spares; }
};

struct Transfer {
    std::string id;  ///< decoration and width in 0.1 mm, then layer and part: stable while those stay
    std::string decoration;
    std::vector<std::string> also;  ///< other decorations that share it: the same art, width and medium on another blank
    std::string art;                ///< art id
    std::string name;               ///< for people: "Long-tail kite 290, backing"
    std::vector<SizesFor> sizes;    ///< its own garment first, then others that share it
    int board = 0;                  ///< number of a jig's board, from 1; 0: not a board
    std::string whose = {};         ///< for people, of a word: who wears it: "17 Castellanos"
    std::string garment;            ///< for people: "Adult tee, ash"; of several blanks the first
    std::string medium;
    std::string piece;             ///< "backing", "part 2 of 4"; empty: the whole
    double width = 0, height = 0;  ///< of the design's ink, mm
    int quantity = 0;              ///< garments
    int spares = 0;
    int spoiled = 0;               ///< at the press, of them
    std::vector<JobShare> shares;  ///< of these counts; its copies are numbered in this order
    bool mirrored = false;         ///< printed mirrored by this program
    bool printed = true;           ///< else a flat sheet in `tint`, cut only
    Colour tint{1, 1, 1, 1};
    Polygon contour;                   ///< cutting contour as printed; its box starts at (0, 0), y down
    std::vector<Mark> picture;         ///< in the contour's frame, as printed
    Region shape;                      ///< the ink, or the flat shape
    Region cut;                        ///< what a blade follows where that is not the contour
    Region white;                      ///< white underbase, printed as a picture of its own
    std::vector<Ring> snips;           ///< open lines from the contour inwards, cut before it
    Region blanks;                     ///< outlines of the blanks taped on it, where that is how it is pressed
    Rect ink;                          ///< the design's ink box in the contour's frame
    std::shared_ptr<const Made> made;  ///< that it is a piece of; none for a board
    [[nodiscard]] int count() const { return quantity + spares; }
};

/// How one distinct transfer came about: the Making bench shows it. In reading frame.
struct MakingOf {
    std::string decoration;
    std::vector<std::string> sizes;
    double width = 0;
    std::shared_ptr<const Made> made;
};

struct TransferSet {
    std::vector<Transfer> transfers;
    std::vector<MakingOf> makings;
    std::map<std::string, std::size_t> first_making;  ///< of each decoration; its others follow
    std::vector<JigSheet> jigs;
    Findings findings;
};

/// "S M L; Adult tee, navy M L", or "board 2".
std::string sizes_text(const Transfer& transfer);
/// The same with who wears it, where it is somebody's: what is written beside the contour.
std::string label_text(const Transfer& transfer);

/// The one place that decides whether this program mirrors.
bool program_mirrors(const Medium& medium);
/// How often a print is turned over on its way to the blank: by this program, by the printer's software, and by being
/// read through its carrier. Even: it reads right.
int times_mirrored(const Medium& medium, const Method& method);

/// What a sheet says of its reading direction: "mirrored here: it reads right on the blank" and the like.
std::string reading_direction(const Medium& medium);

/// From reading frame to the frame that is printed: mirrored where the medium asks for it, the contour's box at (0, 0).
Affine print_map(const Polygon& contour, bool mirrored);

/// One transfer an art × distinct width × medium × making, and of it each layer and part: decorations on several blanks
/// that agree in these share it. What `before` made of the same input is taken over.
TransferSet transfers(const Order& order, const FitPlan& plan, const ArtFactsById& facts, const TransferSet* before = nullptr);

/// For a pass over many copies.
std::map<std::string, const Transfer*> transfers_by_id(const TransferSet& set);
const Transfer* find_transfer(const TransferSet& set, const std::string& id);
/// The pieces of one making, layers top first, parts in press order.
std::vector<const Transfer*> pieces_of(const TransferSet& set, const MakingOf& making);
const MakingOf* find_making(const TransferSet& set, const std::string& decoration, const std::string& size);

}  // namespace orthema
