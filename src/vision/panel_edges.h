// Where a picture shows the edges that a panel's lines should lie on.
#pragma once

#include "vision/panel_shape.h"
#include "vision/silhouette.h"

namespace orthema::vision {

struct Seen {
    Point near;      ///< a point of the outline, in the panel's frame
    Point normal;    ///< of the outline there, outwards
    double off = 0;  ///< how far outwards of it the edge lies, mm
    int inner = -1;  ///< index of the line within, or −1: the outline
    bool by_hand = false;
};

/// Edges within `reach` mm of the outline, and of those lines within that `with` asks for.
struct EdgesSeen {
    std::vector<Seen> seen;
    int asked = 0;                  ///< how many places of the outline were looked at
    std::vector<int> asked_within;  ///< and of each line within
};
EdgesSeen edges_near(const Photo& photo, const TableSeen& table, const Silhouette& cells, const BlankAsked& asked, const PanelGuess& guess,
                     const Lines& lines, const std::vector<bool>& with, double reach);

}  // namespace orthema::vision
