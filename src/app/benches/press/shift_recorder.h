// Shift recorder: writes down what was really pressed while a shift runs, without being asked; says which piece is to be measured, and
// when the run leaves its place.
#pragma once

#include <QObject>

#include <deque>
#include <map>
#include <optional>
#include <set>

#include "app/session/workroom.h"
#include "core/pressing/shift.h"
#include "core/records/of_load.h"
#include "core/records/sampling.h"
#include "devices/hand.h"

namespace orthema::app {

/// A piece that waits to be measured.
struct PieceToMeasure {
    PressRecord record;
    std::vector<TapeAsk> asks;
    Taped tape;  ///< what the rehearsal's hand would read
};

class ShiftRecorder : public QObject {
    Q_OBJECT
public:
    ShiftRecorder(Workroom& room, QObject* parent) : QObject(parent), room_(room) {}
    /// A shift begins, or goes on. `id` tells it from every other: what is recorded under it already stays.
    void begin(const std::string& id, bool rehearsal, const std::optional<HandSetup>& hand);
    /// An act was done by hand in so many seconds.
    void handled(const Shift& shift, const Act& act, double seconds);
    /// A press was closed on a load at this heat.
    void closed(const Load& load, double celsius) { heat_[load.id] = celsius; }
    /// Looks for what became whole.
    void look(const Shift& shift);
    void fault(const Shift& shift, const Load& load, PressFault fault, bool lost);

    void set_hands(const std::string& mark) { hands_ = mark; }
    [[nodiscard]] const std::string& hands() const { return hands_; }
    void set_rule(const SamplingRule& rule) { rule_ = rule; }
    [[nodiscard]] const SamplingRule& rule() const { return rule_; }
    /// The piece to measure now; null: none.
    [[nodiscard]] const PieceToMeasure* wanted() const { return wanted_.empty() ? nullptr : &wanted_.front(); }
    [[nodiscard]] std::size_t waiting() const { return wanted_.size(); }
    void measured(const Taped& tape);
    void not_this_one();
    /// "The last 7 lie low, since piece 12: look at the platen"; empty where the run keeps its place.
    [[nodiscard]] QString warning() const { return warning_; }
    void looked_at();

signals:
    void changed();

private:
    [[nodiscard]] std::string now_text() const;
    [[nodiscard]] std::string id_of(const Load& load) const;
    /// What every record of this shift begins with: which load, by whom, at which heat.
    [[nodiscard]] PressRecord begun_record(const PressPlan& plan, const Load& load) const;
    void watch();
    /// The order that the shift is of, also while another lies on the table.
    [[nodiscard]] const Order& order() const { return room_.order().job == order_.job ? room_.order() : order_; }
    [[nodiscard]] const FitPlan& fit() const { return room_.order().job == order_.job ? room_.plan() : *fit_; }
    const SizeFit* size_of(const PressRecord& r, const DecorationFit** fit) const;
    Workroom& room_;
    Order order_;
    std::shared_ptr<const FitPlan> fit_;
    std::string id_, hands_;
    bool rehearsal_ = false;
    SamplingRule rule_;
    std::optional<Hand> hand_;
    std::map<std::string, double> heat_, planned_, took_;
    std::set<std::string> known_;  ///< ids of what this shift has recorded
    std::vector<SamplingPiece> pieces_;
    std::deque<PieceToMeasure> wanted_;  ///< the latest few: who measures none is not kept asking
    /// By press and axis: the figures in order, from the last time that somebody looked.
    std::map<std::string, std::vector<double>> aside_, down_;
    QString warning_;
};

}  // namespace orthema::app
