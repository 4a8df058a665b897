// The film printer behind one interface: it takes a sheet row by row, and says what it took, what came out, and which pieces
// are whole when it stops early. The one that ships is simulated: it works out time and ink and puts nothing on film.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/sheets/sheets.h"

namespace orthema {

struct PrinterSetup {
    std::string name = "Simulated film printer";
    Length widest = Length::from_mm(610);             ///< medium that goes in
    Length edge = Length::from_mm(unprintable_edge);  ///< that it cannot print, along every edge
    bool mirrors = false;                             ///< its software turns every sheet over
    double mm_a_second = 6;                           ///< of feed at 300 dpi; halved at each doubling
    double ink_ml_a_dm2 = 0.18;                       ///< of full cover, colour and white together
    std::optional<Length> fails_after;                ///< on request: stops there, as on a blocked nozzle
};

/// One sheet to print: what it says of itself, and where its pieces' ink lies on the page, mm.
struct PrintJob {
    std::string title;
    double width = 0, length = 0, margin = 0;  ///< mm
    double dpi = 300;
    MirrorBy mirror = MirrorBy::program;
    bool mirrored = false;  ///< this sheet is turned over already
    std::vector<Rect> pieces;
};
/// The job of a sheet, its pieces in the copies' order.
PrintJob print_job(const Order& order, const TransferSet& set, const Sheet& sheet, double dpi);

struct PrintReport {
    bool finished = false;
    double printed_length = 0;  ///< mm
    double seconds = 0;
    double ink_ml = 0;
    double outside_mm2 = 0;      ///< ink on the unprintable edge, which is lost
    std::vector<char> survives;  ///< by piece: whole on the film
    Words says;                  ///< what happened
};

class Printer {
public:
    virtual ~Printer() = default;
    /// Why the job cannot be taken; nothing: it is taken, and rows may come.
    virtual std::optional<std::string> begin(const PrintJob& job) = 0;
    /// Rows from the top, premultiplied alpha, red, green, blue in a word; false when it stops.
    virtual bool rows(const std::uint32_t* pixels, int width, int first, int count) = 0;
    virtual PrintReport end() = 0;
};

class SimulatedPrinter : public Printer {
public:
    explicit SimulatedPrinter(PrinterSetup setup) : setup_(std::move(setup)) {}
    std::optional<std::string> begin(const PrintJob& job) override;
    bool rows(const std::uint32_t* pixels, int width, int first, int count) override;
    PrintReport end() override;

private:
    PrinterSetup setup_;
    PrintJob job_;
    double ink_pixels_ = 0, outside_pixels_ = 0;
    int done_ = 0;
    bool failed_ = false;
};

/// A layout after a sheet was printed in part: the pieces that are whole are counted as printed and taken off it, the sheet's
/// others lie on no sheet any more, and the sheets behind it move up. What is left can be settled again by itself.
MediumLayout after_print(const MediumLayout& layout, const TransferSet& set, const Sheet& sheet, const std::vector<char>& survives);

/// With all sheets counted as printed whose layout is whole and of which nothing was said to be printed before.
Order all_printed(const Order& order, const TransferSet& set, const SheetPlan& plan);

}  // namespace orthema
