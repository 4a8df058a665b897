// Sheets: TransferSet -> SheetPlan, the nested gang sheets of each medium, with what they use and cost.
#pragma once

#include <string>
#include <vector>

#include "core/nesting/nest.h"
#include "core/nesting/trimmer.h"
#include "core/transfers/transfers.h"

namespace orthema {

/// One sheet, or one run of a roll. Strip frame: x along the feed, y across, origin at the start.
struct Sheet {
    std::string medium;
    int number = 0;     ///< from 0, within its medium
    double length = 0;  ///< used, margins included; a cut sheet's own height
    double width = 0;
    double density = 0;
    double cut_length = 0;  ///< of all contours, or of the trimmer's cuts, mm
    std::string stock;      ///< stock item; empty: the medium's own size
    std::vector<PlacedCopy> copies;
};

struct MediumPlan {
    std::string medium;
    std::vector<Sheet> sheets;
    int asked = 0, placed = 0;
    int printed = 0;     ///< done with, and not asked any more
    int from_shelf = 0;  ///< likewise, promised from there
    double density = 0;
    double length = 0;  ///< of film, all runs; 0 for cut sheets
    double cost = 0;
    bool stale = false;  ///< laid out for other transfers than those of now
    bool mixed = false;  ///< groups that are wanted together lie among each other
};

struct SheetPlan {
    std::vector<MediumPlan> media;
    Findings findings;
};

/// What one sheet is of: the medium in that size and at that price, and an offcut's shape.
struct Bed {
    Medium medium;
    Polygon shape;  ///< empty: the whole size
};
/// Stock that is not known, or "": the medium's own size.
Bed bed_of(const Medium& medium, const std::string& stock);
/// What a sheet of it costs, or a run of a roll of so many mm.
double price_of(const Bed& bed, double length);
/// The stock item of a sheet; "" where none is said.
std::string stock_of(const std::vector<std::string>& stock, int sheet);

/// What keeps a piece apart from the others: its contour; its box for a trimmer; the box of the blank on it for on-sheet.
Polygon laid_outline(const Medium& medium, const Transfer& transfer);
/// The least distance of these.
double laid_gap(const Medium& medium);
/// What is kept together on the sheets, as the medium's laying wants it: the art, garment or sizes of a transfer; "" where
/// nothing is.
std::string group_of(const Medium& medium, const Transfer& transfer);
/// Whether the groups lie one after the other along the feed, sheet after sheet, so that straight cuts part them. Offcuts,
/// sheets that hold a locked copy and what fills are not asked.
bool groups_parted(const Medium& medium, const TransferSet& set, const MediumLayout& layout);
/// Copies of a transfer on sheets that are one job's; "": nobody's, for the shelf.
struct CopyOwner {
    std::string job;
    int copies = 0;
};
/// In the order of the copies' numbers: each job's share less what of it is printed, then what fills, which is the shelf's.
std::vector<CopyOwner> copy_owners(const Transfer& transfer, const MediumLayout& layout);

/// Whose the copies of one layout are, worked out once for all of them.
class CopyJobs {
public:
    CopyJobs(const TransferSet& set, const MediumLayout& layout);
    /// Id of the job that a copy is for: "" where the order is no gang, or for the shelf.
    [[nodiscard]] const std::string& of(const std::string& transfer, int copy) const;
    /// Whether there are jobs at all.
    [[nodiscard]] bool any() const { return !owners_.empty(); }

private:
    std::map<std::string, std::vector<CopyOwner>> owners_;  ///< of the transfers that are some job's
};

/// How many of a transfer lie on sheets: what is ordered and spare, what fills, less what is printed already.
int copies_asked(const Transfer& transfer, const MediumLayout& layout);
/// Areas of every such sheet that are kept free: exclusions, register marks, what an offcut lacks. Within the margins.
std::vector<Polygon> kept_free(const Bed& bed);
/// What printers do not reach along a sheet's edges, mm.
constexpr double unprintable_edge = 3;

/// Middles of the marks that a cutter's eye looks for, within a sheet or run of this length; none where no cutter cuts. Strip
/// frame, mm.
std::vector<Point> register_marks(const Medium& medium, double length);
constexpr double register_radius = 3;  ///< of such a mark, mm

/// The nesting problem of one medium on one kind of bed. Locked copies of the layout stay; those that no longer exist do
/// not.
NestProblem sheet_problem(const Bed& bed, const TransferSet& set, const MediumLayout& layout);

/// What is wrong with a layout, each sheet on its own bed. As nest_faults().
std::vector<std::string> layout_faults(const Medium& medium, const TransferSet& set, const MediumLayout& layout, double tolerance);

/// Sheets that copies lie on, empty ones between them counted.
int sheet_count(const std::vector<PlacedCopy>& copies);

/// Boxes of the copies on one sheet, each with its outline's, in the copies' order.
std::vector<Rect> laid_boxes(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies);

/// Placements as the document keeps them, and back. Copies whose transfer is gone are left out.
std::vector<PlacedCopy> to_copies(const NestProblem& problem, const std::vector<NestPlacement>& placements);
std::vector<NestPlacement> to_placements(const NestProblem& problem, const std::vector<PlacedCopy>& copies);

/// The trimmer's cuts of one sheet, its pieces numbered as its copies are.
Result<TrimPlan> sheet_cuts(const Medium& medium, const TransferSet& set, const Sheet& sheet);

/// The sheets as the order's layouts say. A layout that lacks copies, has too many, or does not hold the gap is
/// stale: it is shown, and a finding says so.
SheetPlan sheet_plan(const Order& order, const TransferSet& set);

/// Replaces the copies of one medium's layout; the second also what its sheets are of; the third all of it.
Order with_layout(const Order& order, const std::string& medium, std::vector<PlacedCopy> copies);
Order with_layout(const Order& order, const std::string& medium, LaidSheets sheets);
Order with_layout(const Order& order, MediumLayout layout);
/// The layout of a medium; empty where it has none.
MediumLayout layout_of(const Order& order, const std::string& medium);

/// From a transfer's contour frame to the strip.
Affine copy_map(const PlacedCopy& copy);
/// From the strip to the page that is printed: across the page is across the roll, the feed runs down it.
Affine page_map(const Sheet& sheet);

}  // namespace orthema
