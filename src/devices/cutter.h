// The cutter behind one interface: it takes a plotter's file and follows it. The one that ships is simulated: it works out
// time and way, and proves that no line crosses ink.
#pragma once

#include <string>
#include <vector>

#include "core/base/length.h"
#include "core/base/result.h"
#include "core/sheets/sheets.h"

namespace orthema {

struct CutterSetup {
    std::string name = "Simulated cutter";
    Length widest = Length::from_mm(720);
    double mm_a_second = 250, travel_mm_a_second = 600;
    double lift_seconds = 0.08;  ///< up or down
};

struct CutReport {
    double cut_mm = 0, travel_mm = 0;
    double seconds = 0;
    int contours = 0;
    std::vector<Point> crossings;  ///< where a line goes through ink; page frame, mm
    Words says;
};

class Cutter {
public:
    virtual ~Cutter() = default;
    /// Follows HPGL as write_cut_plt() makes it (40 units a mm, y up) over a page of this height. `ink` is what is printed there, page
    /// frame. Fails with a sentence on a file that it cannot read, or that leaves the bed.
    virtual Result<CutReport> cut(const std::string& plotter_file, double width, double height, const Region& ink) = 0;
};

class SimulatedCutter : public Cutter {
public:
    explicit SimulatedCutter(CutterSetup setup) : setup_(std::move(setup)) {}
    Result<CutReport> cut(const std::string& plotter_file, double width, double height, const Region& ink) override;

private:
    CutterSetup setup_;
};

/// What is printed on a sheet, page frame: sheets that are cut out of one colour have no ink to cross.
Region printed_ink(const TransferSet& set, const Sheet& sheet);

}  // namespace orthema
