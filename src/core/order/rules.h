// Design rules: one design at one location, sized and placed alike on every garment that carries it. A decoration that follows a
// rule holds the figures that the rule gives its blank; every edit here and in edit.h leaves it so.
#pragma once

#include "core/order/order.h"

namespace orthema {

/// An age class; of goods without one, their family.
GarmentClass class_of(Family family);
/// "Adult", "Tote"
std::string class_name(const GarmentClass& of);

/// The rule that a decoration follows now; null where it has figures of its own.
const DesignRule* rule_of(const Order& order, const Decoration& decoration);
/// Null where the rule was never put on that class.
const ClassBase* find_base(const DesignRule& rule, const GarmentClass& of);
/// The size of the blank's run that the rule's base figures hold for: what was chosen, else the usual one. What happens to
/// be ordered has no say in it.
std::string base_size_of(const DesignRule& rule, const BlankStyle& style);

/// Every follower with the figures that its rule gives it, and no rule that nobody names. Changes nothing where that is so already.
Order followed(Order order);

/// The order after a decoration was edited to this. What a rule says goes into the rule, and all who follow it move along: base
/// figures within the class, the schools everywhere. A lot on which the rule could not hang as it says parts from it.
Order with_rule_edited(const Order& order, const Decoration& was, const Decoration& now);

/// Why a location cannot be had on the run's blank; nothing where it can.
std::optional<Words> why_not(const Order& order, const RunKey& run, Location location);

/// A lot that was passed over, and why.
struct PassedOver {
    RunKey run;
    Words why;
};

/// What was passed over, in words; of several the first with its reason.
Words passed_words(const Order& order, const std::vector<PassedOver>& passed);

/// A new design on a run: under the rule that this art has at that location already, else under a new one.
Order with_new_design(const Order& order, const RunKey& run, Location location, const Art& art, std::string* made = nullptr);
/// The decoration's design on these runs too, printed and pressed as it is there. One that lies there loose comes under the rule.
/// Runs that carry it are left as they are.
Order with_design_on(const Order& order, const std::string& decoration, const std::vector<RunKey>& runs,
                     std::vector<PassedOver>* passed = nullptr);
/// Without the decoration's design on these runs.
Order with_design_off(const Order& order, const std::string& decoration, const std::vector<RunKey>& runs);
/// At another location on every lot that follows, with that location's usual place. A lot that lacks it keeps the design where it
/// was, under a rule of its own.
Order with_design_moved(const Order& order, const std::string& decoration, Location location, std::vector<PassedOver>* passed = nullptr);
/// With another picture in the same place: on every lot that follows the rule, or on this lot alone, which then is under the rule
/// of that picture there, or under a new one with the same figures.
Order with_picture(const Order& order, const std::string& decoration, const Art& art, bool everywhere);

/// With figures of its own from now on, as they are; and back under the rule's.
Order with_departure(const Order& order, const std::string& decoration);
Order with_return(const Order& order, const std::string& decoration);
/// Every loose decoration of the same art and location under one rule with this one, whose figures hold.
Order with_one_rule(const Order& order, const std::string& decoration);
/// Base figures of one class.
Order with_class_base(const Order& order, const std::string& rule, const ClassBase& base);

/// Where a rule could not hang as it says.
Findings rule_findings(const Order& order);

}  // namespace orthema
