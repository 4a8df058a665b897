// Stock: what the shop has of blanks, film, sheets and finished transfers, and what is promised and taken of it. A snapshot: the counts
// themselves are kept in the shop library (files/stock_book.h).
#pragma once

#include <string>
#include <vector>

namespace orthema {

enum class StockKind {
    blanks,     ///< of a style, colour and size; pieces
    roll,       ///< one roll of a medium; mm left on it
    sheets,     ///< of a medium in one of its sizes, or an offcut; sheets
    supply,     ///< powder, ink: used up by the ink's area; in a unit of its own
    transfers,  ///< finished, in a bag on the shelf; pieces
};
constexpr int stock_kind_count = static_cast<int>(StockKind::transfers) + 1;
const char* stock_kind_key(StockKind kind);  ///< as files have it

/// What tells finished transfers apart: the same print, whatever it was called and for whom it was made.
struct TransferMark {
    std::string art;    ///< SHA-256 of the picture's bytes
    std::string shape;  ///< what the picture was clipped to, the layer or part, and its colour; empty: the whole picture
    std::string medium;
    bool mirrored = false;
    double width = 0, height = 0;         ///< of the design's ink, mm
    double ink_area = 0, white_area = 0;  ///< mm²
    bool operator==(const TransferMark&) const = default;
};
/// Whether one can be pressed in place of the other.
bool alike(const TransferMark& a, const TransferMark& b);
/// Whether they are, but for their size; the share by which `have` is narrower (negative: wider) than `asked` in `narrower`.
bool alike_but_size(const TransferMark& have, const TransferMark& asked, double& narrower);

/// What one order, or job of a gang, is promised and has taken.
struct StockShare {
    std::string job;
    double held = 0;  ///< in all, what it has taken already included; of transfers
    double taken = 0;
    bool operator==(const StockShare&) const = default;
};

struct StockEntry {
    std::string id;
    StockKind kind = StockKind::blanks;
    std::string name;                 ///< for people
    std::string place;                ///< where it lies
    std::string code;                 ///< that a scanner reads on its box
    std::string style, colour, size;  ///< of blanks
    std::string medium, stock;        ///< of a roll or sheets: the medium's id and that of its size; "" its own
    std::string method, unit;         ///< of a supply: what uses it up, and "g"
    double per_dm2 = 0;               ///< of a supply: used by a square decimetre of ink
    TransferMark mark;
    std::string printed, until;  ///< of transfers: ISO dates; until when they can be pressed, empty: for good
    std::string from;            ///< of transfers: the order that they were printed with
    std::string picture;         ///< of transfers: PNG; may be empty
    double on_hand = 0;          ///< never below zero
    double spoiled = 0;          ///< taken out because it was spoiled
    std::vector<StockShare> shares;
    bool operator==(const StockEntry&) const = default;
};

struct Stock {
    std::vector<StockEntry> entries;
    bool operator==(const Stock&) const = default;
};

const StockEntry* find_entry(const Stock& stock, const std::string& id);
const StockShare* share_of(const StockEntry& entry, const std::string& job);
/// Promised and not taken yet.
double still_held(const StockEntry& entry);
/// On hand and promised to nobody but `job`.
double free_for(const StockEntry& entry, const std::string& job);
/// Past its time on that day.
bool is_past(const StockEntry& entry, const std::string& today);

/// Ids of what there is one of: blanks, and sheets of a size.
std::string blanks_id(const std::string& style, const std::string& colour, const std::string& size);
std::string sheets_id(const std::string& medium, const std::string& stock);
/// Of the film of a medium, on whichever rolls: an order wants it so.
std::string film_id(const std::string& medium);

/// What an order wants of a thing in all, what it has taken already included.
struct Want {
    std::string item;  ///< as an entry's id, or a medium's film
    StockKind kind = StockKind::blanks;
    std::string name;
    double amount = 0;
    bool operator==(const Want&) const = default;
};

/// An order that is still to be pressed, with what it wants.
struct OpenOrder {
    std::string job, name, due;
    int due_at = 17 * 60;
    std::vector<std::string> jobs;  ///< of a gang: what these want stands in it
    std::vector<Want> wants;
    bool operator==(const OpenOrder&) const = default;
};

}  // namespace orthema
