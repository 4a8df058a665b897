// Papers: what goes out of the workshop or hangs over the bench for a whole order: the quote, the job ticket, the sheet that the customer
// approves, and labels for what lies on the shelf.
#pragma once

#include "core/costing/price.h"
#include "core/guides/guides.h"
#include "core/supply/supply.h"

namespace orthema {

/// What a paper is made from: the stages of the order, and of which job of a gang it is (none: of all of it).
struct PaperOf {
    const Order& order;
    const FitPlan& fit;
    const TransferSet& set;
    const SheetPlan& sheets;
    const PressPlan& press;
    const Supply& supply;
    const Stock& stock;
    std::string job = {};
};

/// Garments with what each costs, what is set up, tax where it is said, the total and what is promised; a line to sign.
std::vector<GuidePage> quote_pages(const PaperOf& of, const Quote& quote);
/// What the workshop needs of the order on as few pages as it takes: garments by size, designs by place and width, film, what comes from
/// the shelf, what is lacking, recipes, cautions, boxes to tick.
std::vector<GuidePage> ticket_pages(const PaperOf& of);
/// Every garment with its designs to one scale, their sizes and places in words and figures, colours, how many, what is promised, and a
/// line to sign.
std::vector<GuidePage> approval_pages(const PaperOf& of);
/// Labels for bags of the shelf, three columns of eight on a page, each with a square code that says its bag.
std::vector<GuidePage> shelf_labels(const std::vector<StockEntry>& bags, Paper paper, Reading reading);
/// What a label's code says, and back: the bag's id; nothing for other text.
std::string bag_code(const std::string& bag);
std::optional<std::string> bag_from_code(const std::string& text);

}  // namespace orthema
