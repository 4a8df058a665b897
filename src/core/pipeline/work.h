// The one chain: order in, every stage's result and every finding out. Window, command line and export call this and
// nothing else puts stages together.
//
// Cache rule: a stage is run on its input and on nothing else. The input is the order with all that the stage has no
// business with blanked, and what came before; the result is kept beside it and taken over while a new input is equal to
// it. What a stage reads but its input lacks is therefore wrong at once and everywhere, never stale now and then.
#pragma once

#include <memory>
#include <string>

#include "core/base/shared.h"
#include "core/base/task.h"
#include "core/pressing/press_plan.h"
#include "core/sheets/sheets.h"
#include "core/supply/supply.h"

namespace orthema {

/// What is known about the pictures, and what is wrong with those that could not be read.
struct KnownArt {
    ArtFactsById facts;
    Findings faults;
    bool operator==(const KnownArt&) const = default;
};

/// A result with the input that it was made from.
template <class In, class Out>
struct Kept {
    In in;
    std::shared_ptr<const Out> out = std::make_shared<const Out>();
    bool made = false;
};

struct FitInput {
    Order order;
    Shared<KnownArt> art;
    bool operator==(const FitInput&) const = default;
};
/// Results upstream are the same where they are one and the same object: equal inputs keep it.
struct TransferInput {
    Order order;
    Shared<KnownArt> art;
    std::shared_ptr<const FitPlan> fit;
    bool operator==(const TransferInput&) const = default;
};
struct SheetInput {
    Order order;
    std::shared_ptr<const TransferSet> transfers;
    bool operator==(const SheetInput&) const = default;
};
struct PressInput {
    Order order;
    std::shared_ptr<const FitPlan> fit;
    std::shared_ptr<const TransferSet> transfers;
    bool operator==(const PressInput&) const = default;
};
struct GuideInput {
    Order order;
    std::shared_ptr<const FitPlan> fit;
    bool operator==(const GuideInput&) const = default;
};

struct SupplyInput {
    Order order;
    std::shared_ptr<const TransferSet> transfers;
    std::shared_ptr<const SheetPlan> sheets;
    Shop shop;
    bool operator==(const SupplyInput&) const = default;
};

struct Work {
    Kept<FitInput, FitPlan> fit;
    Kept<TransferInput, TransferSet> transfers;
    Kept<SheetInput, SheetPlan> sheets;
    Kept<PressInput, PressPlan> press;
    Kept<GuideInput, Findings> guides;  ///< printed guides that no longer hold; guides themselves are drawn when wanted
    Kept<SupplyInput, Supply> supply;   ///< what the shop has of it
    Findings findings;                  ///< of all stages, the worst first
    bool behind = false;                ///< what follows the fit is of an earlier order

    [[nodiscard]] const FitPlan& plan() const { return *fit.out; }
    [[nodiscard]] const TransferSet& transfer_set() const { return *transfers.out; }
    [[nodiscard]] const SheetPlan& sheet_plan() const { return *sheets.out; }
    [[nodiscard]] const Supply& supplies() const { return *supply.out; }
    [[nodiscard]] const PressPlan& press_plan() const { return *press.out; }
};

/// How far to go: fitting alone takes milliseconds and may be asked on the thread that draws.
enum class HowFar { fit, all };

/// Every stage of the order. `before` is the work of an earlier order: what still holds is taken over. Through the fit alone, later stages
/// stay as they were before.
Work work(const Order& order, const Shop& shop, const Shared<KnownArt>& art, const Work* before = nullptr, const Task& task = {},
          HowFar through = HowFar::all);

/// The same work with a bettered press plan in place of its own.
Work with_press_plan(Work work, const Order& order, std::shared_ptr<const PressPlan> plan);

/// The stages in working order.
struct Stage {
    const char* key;                           ///< in findings and files
    const char* name;                          ///< for people
    bool follows;                              ///< worked out on a thread of its own, after the fit
    bool (*empty)(const Order&, const Work&);  ///< nothing to say yet
    bool prepares = true;                      ///< an order is ready when all that prepare are settled; records come after
};
const std::vector<Stage>& stages();
/// Index of a stage by its key, -1 where there is none.
int stage_index(const std::string& key);

/// How a stage stands, and how many findings say so.
struct StageState {
    Standing standing = Standing::settled;
    bool waiting = false;  ///< nothing there yet, or being worked out
    int count = 0;         ///< cautions and stops
};
StageState stage_state(const Stage& stage, const Order& order, const Work& work, bool catching_up = false);

}  // namespace orthema
