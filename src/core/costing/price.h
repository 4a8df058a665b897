// Price: what a piece of every line costs and what the customer pays for it, by margin or by the shop's own steps; and what it would be
// if the order were made otherwise.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/costing/costs.h"
#include "core/fitting/fit.h"

namespace orthema {

/// What one piece costs, in the order's currency.
struct PieceCost {
    double film = 0;  ///< its share of every sheet that its transfers lie on, by area
    double ink = 0;   ///< by inked area
    double blank = 0;
    double work = 0;      ///< seconds by hand at its loads, at the shop's rate
    double set_up = 0;    ///< its share of what else the run takes: heating, changing, waiting
    double spoilage = 0;  ///< its share of spares, and of blanks that are usually spoiled
    [[nodiscard]] double total() const { return film + ink + blank + work + set_up + spoilage; }
};

struct LinePrice {
    RunKey run;
    std::string size;
    int pieces = 0;
    PieceCost cost;  ///< of one
    Pence each = 0;  ///< what the customer pays for one
    [[nodiscard]] Pence total() const { return each * pieces; }
};

struct Quote {
    std::vector<LinePrice> lines;  ///< a run's sizes together, in the order of the list
    int designs = 0;               ///< that are set up
    Pence set_up = 0;              ///< for all of them
    double cost = 0;               ///< of all pieces
    [[nodiscard]] Pence before_tax() const;
    Pence tax = 0;
    [[nodiscard]] Pence total() const { return before_tax() + tax; }
    [[nodiscard]] int pieces() const;
    /// What is left of the price before tax when all is paid; a share of it.
    [[nodiscard]] double margin() const;
};

/// Of the order, or of one job of a gang. `spoiled`: share of each blank style that is usually spoiled.
Quote quote_of(const Order& order, const TransferSet& set, const SheetPlan& sheets, const PressPlan& plan,
               const std::map<std::string, double>& spoiled = {}, const std::string& job = {});

/// The order as it is with nothing laid out, first; and made otherwise: one width for all sizes, bands, graded; on another medium that
/// suits; twice as many, half as many.
struct Otherwise {
    std::string name;  ///< for people
    Order order;
};
std::vector<Otherwise> otherwise(const Order& order, const FitPlan& plan, const ArtFactsById& facts);

}  // namespace orthema
