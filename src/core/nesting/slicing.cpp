#include "core/nesting/slicing.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace orthema {

namespace {

constexpr std::size_t most_sizes = 40;  ///< of one node; past that some are dropped, the ends stay
constexpr double overflow_price = 4;

std::size_t at(int i) { return static_cast<std::size_t>(i); }

}  // namespace

SlicingForest::SlicingForest(std::vector<CutBox> boxes, std::int64_t width, std::int64_t length, int stages)
    : boxes_(std::move(boxes)), width_(width), length_(length), most_stages_(stages) {
    shelves();
    energy_ = energy();
    least_ = sound() ? energy_ : std::numeric_limits<double>::infinity();
}

/// First fit by falling length: shelves across the film, one after the other.
void SlicingForest::shelves() {
    struct Shelf {
        std::vector<int> nodes;
        std::int64_t across = 0, along = 0;
    };
    std::vector<int> order(boxes_.size());
    std::iota(order.begin(), order.end(), 0);
    std::vector<CutBox> lying = boxes_;  // low shelves: turned level where that fits
    for (CutBox& b : lying)
        if (b.may_turn && (b.across > width_ || (b.along > b.across && b.along <= width_)) && b.across <= length_)
            std::swap(b.across, b.along);
    std::stable_sort(order.begin(), order.end(), [&](int a, int b) { return lying[at(a)].along > lying[at(b)].along; });
    std::vector<Shelf> shelves;
    leaves_.assign(boxes_.size(), -1);
    nodes_.reserve(2 * boxes_.size());
    for (const int i : order) {
        Node n;
        n.box = i;
        measure(n);
        leaves_[at(i)] = static_cast<int>(nodes_.size());
        nodes_.push_back(std::move(n));
        const CutBox& b = lying[at(i)];
        auto shelf = std::find_if(shelves.begin(), shelves.end(), [&](const Shelf& s) { return s.across + b.across <= width_; });
        if (shelf == shelves.end()) shelf = shelves.insert(shelves.end(), Shelf{{}, 0, b.along});
        shelf->nodes.push_back(leaves_[at(i)]);
        shelf->across += b.across;
    }
    std::vector<std::vector<int>> bins;
    std::vector<std::int64_t> used;
    for (const Shelf& s : shelves) {
        std::size_t b = 0;
        while (b < bins.size() && used[b] + s.along > length_) ++b;
        if (b == bins.size()) {
            bins.emplace_back();
            used.push_back(0);
        }
        used[b] += s.along;
        bins[b].push_back(chain(s.nodes, 0, s.nodes.size(), Cut::across));
    }
    for (std::size_t b = 0; b < bins.size(); ++b) {
        roots_.push_back(chain(bins[b], 0, bins[b].size(), Cut::along));
        nodes_[at(roots_.back())].parent = -2 - static_cast<int>(b);
    }
}

/// Halved again and again: the trees stay low.
int SlicingForest::chain(const std::vector<int>& nodes, std::size_t from, std::size_t to, Cut cut) {
    if (to - from == 1) return nodes[from];
    const std::size_t middle = (from + to) / 2;
    const int left = chain(nodes, from, middle, cut), right = chain(nodes, middle, to, cut);
    return join(left, right, cut);
}

int SlicingForest::join(int left, int right, Cut cut) {
    Node n;
    n.left = left;
    n.right = right;
    n.cut = cut;
    measure(n);
    nodes_.push_back(std::move(n));
    const int id = static_cast<int>(nodes_.size()) - 1;
    nodes_[at(left)].parent = nodes_[at(right)].parent = id;
    return id;
}

/// Sizes and stages of a node from its children's.
void SlicingForest::measure(Node& n) const {
    n.sizes.clear();
    if (n.cut == Cut::box) {
        const CutBox& b = boxes_[at(n.box)];
        if (b.across <= width_) n.sizes.push_back({b.across, b.along});
        if (b.may_turn && b.along != b.across && b.along <= width_) n.sizes.push_back({b.along, b.across});
        if (n.sizes.size() == 2 && n.sizes[0].across > n.sizes[1].across) std::swap(n.sizes[0], n.sizes[1]);
        n.stages = 0;
        return;
    }
    const Node& a = nodes_[at(n.left)];
    const Node& b = nodes_[at(n.right)];
    const auto deep = [&](const Node& c) { return c.cut == Cut::box ? 1 : c.cut == n.cut ? c.stages : c.stages + 1; };
    n.stages = std::max(deep(a), deep(b));
    const auto& p = a.sizes;
    const auto& q = b.sizes;
    if (p.empty() || q.empty()) return;
    constexpr auto none = std::numeric_limits<std::int64_t>::max();
    if (n.cut == Cut::along) {  // across is the larger one, along adds: walked by rising across, along falls
        std::size_t i = 0, j = 0;
        while (true) {
            const Size s{std::max(p[i].across, q[j].across), p[i].along + q[j].along};
            if (!n.sizes.empty() && n.sizes.back().across == s.across)
                n.sizes.back() = s;
            else
                n.sizes.push_back(s);
            if (i + 1 >= p.size() && j + 1 >= q.size()) break;
            const std::int64_t next_p = i + 1 < p.size() ? p[i + 1].across : none, next_q = j + 1 < q.size() ? q[j + 1].across : none;
            (next_p <= next_q ? i : j) += 1;
        }
    } else {  // along is the larger one, across adds: walked by rising along, across falls; turned about at the end
        std::size_t i = p.size() - 1, j = q.size() - 1;
        while (true) {
            const Size s{p[i].across + q[j].across, std::max(p[i].along, q[j].along)};
            if (s.across <= width_) {
                if (!n.sizes.empty() && n.sizes.back().along == s.along)
                    n.sizes.back() = s;
                else
                    n.sizes.push_back(s);
            }
            if (i == 0 && j == 0) break;
            const std::int64_t next_p = i > 0 ? p[i - 1].along : none, next_q = j > 0 ? q[j - 1].along : none;
            (next_p <= next_q ? i : j) -= 1;
        }
        std::reverse(n.sizes.begin(), n.sizes.end());
    }
    if (n.sizes.size() > most_sizes) {
        const std::size_t had = n.sizes.size();
        for (std::size_t k = 0; k < most_sizes; ++k) n.sizes[k] = n.sizes[k * (had - 1) / (most_sizes - 1)];
        n.sizes.resize(most_sizes);
    }
}

/// Remembers a node as it is now.
void SlicingForest::touch(int node) {
    if (was_count_ == was_.size()) was_.emplace_back();
    was_[was_count_].first = node;
    was_[was_count_++].second = nodes_[at(node)];  // the memory of an earlier step serves again
}

/// Measures a node and all above it anew, as far as that changes anything.
void SlicingForest::climb(int from) {
    for (int i = from; i >= 0; i = nodes_[at(i)].parent) {
        touch(i);
        Node& n = nodes_[at(i)];
        measure(n);
        const Node& before = was_[was_count_ - 1].second;
        if (n.sizes == before.sizes && n.stages == before.stages && i != from) return;
    }
}

/// Every bin's tree fits across, in few enough stages.
bool SlicingForest::possible() const {
    return std::all_of(roots_.begin(), roots_.end(), [&](int r) {
        const Node& n = nodes_[at(r)];
        return !n.sizes.empty() && (most_stages_ == 0 || n.stages <= most_stages_);
    });
}

void SlicingForest::replace(int parent, int was, int is) {
    if (parent < -1) {
        roots_[at(-2 - parent)] = is;
        return;
    }
    touch(parent);
    Node& n = nodes_[at(parent)];
    (n.left == was ? n.left : n.right) = is;
}

bool SlicingForest::above(int a, int b) const {
    for (int i = b; i >= 0; i = nodes_[at(i)].parent)
        if (i == a) return true;
    return false;
}

bool SlicingForest::swap_nodes(int a, int b) {
    if (a == b || above(a, b) || above(b, a)) return false;
    const int pa = nodes_[at(a)].parent, pb = nodes_[at(b)].parent;
    if (pa == pb) return false;
    replace(pa, a, b);
    replace(pb, b, a);
    touch(a);
    touch(b);
    nodes_[at(a)].parent = pb;
    nodes_[at(b)].parent = pa;
    climb(pa);
    climb(pb);
    return true;
}

/// Takes a leaf out, its sibling in its parent's place, and puts the parent beside another node.
bool SlicingForest::regraft(int leaf, int beside, Cut cut, bool first) {
    const int parent = nodes_[at(leaf)].parent;
    if (parent < 0) {  // alone in its bin: the bin goes, when it is the last one
        if (-2 - parent != bins() - 1 || bins() == 1 || beside == leaf) return false;
        const int over = nodes_[at(beside)].parent;
        roots_.pop_back();
        touch(leaf);
        touch(beside);
        const int joined = first ? join(leaf, beside, cut) : join(beside, leaf, cut);
        nodes_[at(joined)].parent = over;
        replace(over, beside, joined);
        climb(joined);
        return true;
    }
    if (beside == leaf || beside == parent) return false;
    const int sibling = nodes_[at(parent)].left == leaf ? nodes_[at(parent)].right : nodes_[at(parent)].left;
    const int upper = nodes_[at(parent)].parent;
    touch(parent);
    touch(sibling);
    replace(upper, parent, sibling);
    nodes_[at(sibling)].parent = upper;
    const int over = nodes_[at(beside)].parent;
    touch(beside);
    replace(over, beside, parent);
    Node& p = nodes_[at(parent)];
    p.parent = over;
    p.cut = cut;
    p.left = first ? leaf : beside;
    p.right = first ? beside : leaf;
    nodes_[at(beside)].parent = parent;
    climb(upper);
    climb(parent);
    return true;
}

std::int64_t SlicingForest::last_length() const { return nodes_[at(roots_.back())].sizes.back().along; }

bool SlicingForest::sound() const {
    return std::all_of(roots_.begin(), roots_.end(),
                       [&](int r) { return !nodes_[at(r)].sizes.empty() && nodes_[at(r)].sizes.back().along <= length_; });
}

/// The last bin's length, and dearly what sticks out of the others.
double SlicingForest::energy() const {
    double sum = static_cast<double>(last_length());
    for (const int r : roots_)
        sum += overflow_price * static_cast<double>(std::max<std::int64_t>(0, nodes_[at(r)].sizes.back().along - length_));
    return sum + (roots_.size() > 1 ? static_cast<double>(length_) * static_cast<double>(roots_.size() - 1) : 0.0);
}

bool SlicingForest::step(std::mt19937_64& random, double temperature) {
    if (boxes_.size() < 2) return false;
    const auto pick = [&](std::size_t n) { return static_cast<int>(random() % n); };
    was_count_ = 0;
    roots_were_ = roots_;
    const std::size_t nodes_were = nodes_.size();
    const int kind = pick(100);
    bool fine = false;
    if (kind < 45) {
        const int a = leaves_[at(pick(leaves_.size()))], b = leaves_[at(pick(leaves_.size()))];
        if (boxes_[at(nodes_[at(a)].box)] == boxes_[at(nodes_[at(b)].box)]) return false;
        fine = swap_nodes(a, b);
    } else if (kind < 80) {
        fine = regraft(leaves_[at(pick(leaves_.size()))], pick(nodes_.size()), kind % 2 == 0 ? Cut::across : Cut::along, kind % 4 < 2);
    } else if (kind < 94) {
        fine = swap_nodes(pick(nodes_.size()), pick(nodes_.size()));
    } else {
        const int n = pick(nodes_.size());
        if (nodes_[at(n)].cut == Cut::box) return false;
        touch(n);
        nodes_[at(n)].cut = nodes_[at(n)].cut == Cut::across ? Cut::along : Cut::across;
        climb(n);
        fine = true;
    }
    if (was_count_ == 0 && roots_ == roots_were_) return false;
    fine = fine && possible();
    const double now = fine ? energy() : 0;
    const double chance = temperature > 0 && now > energy_ ? std::exp((energy_ - now) / temperature) : 0;
    if (fine && (now <= energy_ || chance * 4294967296.0 > static_cast<double>(random() & 0xffffffffu))) {
        energy_ = now;
        if (now < least_ - 0.5 && sound()) {
            least_ = now;
            return true;
        }
        return false;
    }
    for (std::size_t k = was_count_; k-- > 0;) std::swap(nodes_[at(was_[k].first)], was_[k].second);
    nodes_.resize(nodes_were);
    roots_ = roots_were_;
    return false;
}

void SlicingForest::put(int node, std::int64_t across, std::int64_t along, std::int64_t room_across, std::int64_t room_along, int bin,
                        std::vector<CutPlace>& out) const {
    const Node& n = nodes_[at(node)];
    if (n.cut == Cut::box) {
        const CutBox& b = boxes_[at(n.box)];
        const bool level = b.across <= room_across && b.along <= room_along;
        out[at(n.box)] = {bin, across, along, !level};
        return;
    }
    // of each child the least there is in the direction of the cut that has room in the other
    const auto least = [&](int child, std::int64_t Size::*in, std::int64_t Size::*within, std::int64_t room) {
        std::int64_t shortest = std::numeric_limits<std::int64_t>::max();
        for (const Size& s : nodes_[at(child)].sizes)
            if (s.*within <= room) shortest = std::min(shortest, s.*in);
        return shortest;
    };
    if (n.cut == Cut::along) {
        const std::int64_t a = least(n.left, &Size::along, &Size::across, room_across);
        put(n.left, across, along, room_across, a, bin, out);
        put(n.right, across, along + a, room_across, least(n.right, &Size::along, &Size::across, room_across), bin, out);
    } else {
        const std::int64_t a = least(n.left, &Size::across, &Size::along, room_along);
        put(n.left, across, along, a, room_along, bin, out);
        put(n.right, across + a, along, least(n.right, &Size::across, &Size::along, room_along), room_along, bin, out);
    }
}

std::vector<CutPlace> SlicingForest::places() const {
    std::vector<CutPlace> out(boxes_.size());
    for (std::size_t b = 0; b < roots_.size(); ++b)
        put(roots_[b], 0, 0, width_, nodes_[at(roots_[b])].sizes.back().along, static_cast<int>(b), out);
    return out;
}

}  // namespace orthema
