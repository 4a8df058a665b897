// Slicing trees: every cut from edge to edge parts what it cuts in two. Sizes in whole grid units, along and across the feed.
#pragma once

#include <cstdint>
#include <random>
#include <vector>

namespace orthema {

struct CutBox {
    std::int64_t across = 0, along = 0;
    bool may_turn = false;
    bool operator==(const CutBox&) const = default;
};

struct CutPlace {
    int bin = 0;
    std::int64_t across = 0, along = 0;  ///< of its near corner
    bool turned = false;
};

/// Trees over all boxes, one a bin, that are changed step by step.
class SlicingForest {
public:
    /// `length` of a bin, or a very large number for an endless roll. Pre: every box fits a bin in some way.
    SlicingForest(std::vector<CutBox> boxes, std::int64_t width, std::int64_t length, int stages);
    /// One random change, taken or taken back at this temperature (grid units of length). True when a sound layout came of
    /// it that is shorter than all before.
    bool step(std::mt19937_64& random, double temperature);
    [[nodiscard]] int bins() const { return static_cast<int>(roots_.size()); }
    [[nodiscard]] std::int64_t last_length() const;
    [[nodiscard]] bool sound() const;  ///< no bin is longer than it may be
    [[nodiscard]] std::vector<CutPlace> places() const;

private:
    enum class Cut : char { box, across, along };  ///< children side by side across the feed, or after each other along it
    struct Size {
        std::int64_t across = 0, along = 0;
        bool operator==(const Size&) const = default;
    };
    struct Node {
        int parent = -1, left = -1, right = -1;  ///< parent of a root: -2 - bin
        Cut cut = Cut::box;
        int box = -1;
        int stages = 0;
        std::vector<Size> sizes;  ///< undominated, across rising
    };
    void shelves();
    int chain(const std::vector<int>& nodes, std::size_t from, std::size_t to, Cut cut);
    int join(int left, int right, Cut cut);
    void measure(Node& n) const;
    void climb(int from);
    [[nodiscard]] bool possible() const;
    void touch(int node);
    void replace(int parent, int was, int is);
    bool swap_nodes(int a, int b);
    bool regraft(int leaf, int beside, Cut cut, bool first);
    [[nodiscard]] bool above(int a, int b) const;
    [[nodiscard]] double energy() const;
    void put(int node, std::int64_t across, std::int64_t along, std::int64_t room_across, std::int64_t room_along, int bin,
             std::vector<CutPlace>& out) const;
    std::vector<CutBox> boxes_;
    std::int64_t width_, length_;
    int most_stages_;
    std::vector<Node> nodes_;
    std::vector<int> leaves_;                ///< node of each box
    std::vector<int> roots_;                 ///< by bin
    std::vector<std::pair<int, Node>> was_;  ///< nodes before the step under way
    std::size_t was_count_ = 0;
    std::vector<int> roots_were_;
    double energy_ = 0, least_ = 0;
};

}  // namespace orthema
