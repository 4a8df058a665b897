#include "core/shop/stock.h"

#include <algorithm>
#include <cmath>

namespace orthema {

const char* stock_kind_key(StockKind kind) {
    static const char* const keys[stock_kind_count] = {"blanks", "roll", "sheets", "supply", "transfers"};
    return keys[static_cast<int>(kind)];
}

namespace {

/// Alike within a hundredth: areas come out of geometry, and of scales.
bool same_area(double a, double b) { return std::abs(a - b) <= 1 + 0.01 * std::max(a, b); }

bool same_print(const TransferMark& a, const TransferMark& b) {
    return a.art == b.art && a.shape == b.shape && a.medium == b.medium && a.mirrored == b.mirrored;
}

}  // namespace

bool alike(const TransferMark& a, const TransferMark& b) {
    return same_print(a, b) && std::abs(a.width - b.width) < 0.06 && std::abs(a.height - b.height) < 0.3 &&
           same_area(a.ink_area, b.ink_area) && same_area(a.white_area, b.white_area);
}

bool alike_but_size(const TransferMark& have, const TransferMark& asked, double& narrower) {
    if (!same_print(have, asked) || have.width <= 0 || asked.width <= 0) return false;
    const double scale = asked.width / have.width;
    narrower = 1 - have.width / asked.width;
    return std::abs(have.height * scale - asked.height) < 0.3 + 0.005 * asked.height &&
           same_area(have.ink_area * scale * scale, asked.ink_area) && (have.white_area > 0) == (asked.white_area > 0);
}

const StockEntry* find_entry(const Stock& stock, const std::string& id) {
    const auto at = std::find_if(stock.entries.begin(), stock.entries.end(), [&](const StockEntry& e) { return e.id == id; });
    return at == stock.entries.end() ? nullptr : &*at;
}

const StockShare* share_of(const StockEntry& entry, const std::string& job) {
    const auto at = std::find_if(entry.shares.begin(), entry.shares.end(), [&](const StockShare& s) { return s.job == job; });
    return at == entry.shares.end() ? nullptr : &*at;
}

double still_held(const StockEntry& entry) {
    double out = 0;
    for (const StockShare& s : entry.shares) out += std::max(0.0, s.held - s.taken);
    return out;
}

double free_for(const StockEntry& entry, const std::string& job) {
    const StockShare* own = share_of(entry, job);
    const double others = still_held(entry) - (own == nullptr ? 0 : std::max(0.0, own->held - own->taken));
    return std::max(0.0, entry.on_hand - others);
}

bool is_past(const StockEntry& entry, const std::string& today) { return !entry.until.empty() && !today.empty() && entry.until < today; }

std::string blanks_id(const std::string& style, const std::string& colour, const std::string& size) {
    return "blanks/" + style + "/" + colour + "/" + size;
}
std::string sheets_id(const std::string& medium, const std::string& stock) { return "sheets/" + medium + "/" + stock; }
std::string film_id(const std::string& medium) { return "film/" + medium; }

}  // namespace orthema
