// What next: never past what is lacking or stopped, and an order that is done step by step comes to its end.
#include "core/pipeline/next_step.h"

#include "core/order/edit.h"
#include "core/sheets/lay_out.h"
#include "support/random_case.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

Work worked(const Order& order, const Shared<KnownArt>& art) { return work(order, Shop{}, art); }

TEST(NextStep, LeadsFromNothingToTheShift) {
    const Order whole = test::small_order();
    KnownArt known;
    known.facts[whole.art[0].id] = test::square_facts(1);
    const Shared<KnownArt> art = std::make_shared<const KnownArt>(known);
    Order order = whole;
    order.lines = {};
    order.art = {};
    order.decorations = {};
    order.rules = {};
    NextAsked asked;
    asked.stage = "order";
    const auto next = [&] { return next_step(order, worked(order, art), asked); };
    EXPECT_EQ(next()->deed, Deed::list);
    asked.stage = "press";  // wherever one looks, what is lacking first comes first
    EXPECT_EQ(next()->deed, Deed::list);
    order.lines = whole.lines;
    EXPECT_EQ(next()->deed, Deed::pictures);
    order.art = whole.art;
    ASSERT_EQ(next()->words.code, "next-bare");
    EXPECT_EQ(next()->about.style, whole.lines[0].style);
    order.decorations = whole.decorations;
    order.rules = whole.rules;
    EXPECT_EQ(next()->deed, Deed::settle);
    const Work laid_for = worked(order, art);
    NestOptions quick;
    quick.rounds = 0;
    const std::string medium = laid_for.transfer_set().transfers[0].medium;
    order = with_layout(order, medium, lay_out(*find_medium(order, medium), laid_for.transfer_set(), {medium, {}}, quick)->sheets);
    // looked at one stage after the other: cautions forwards from there, then it goes out
    asked.stage = "records";
    EXPECT_EQ(next()->deed, Deed::send_out);
    asked.running = true;
    EXPECT_EQ(next()->words.code, "next-card");
    asked.running = false;
    asked.sent_out = [] { return true; };
    EXPECT_EQ(next()->deed, Deed::shift);
    asked.pressed = [] { return true; };
    EXPECT_FALSE(next());
    asked.lessons = 2;
    EXPECT_EQ(worded(next()->words, Unit::mm), "See what 2 corrections would change");
}

TEST(NextOrder, IsTheFirstOnTheDeskAndWhatItLacksIsBoughtBefore) {
    const auto card = [](const char* job, const char* due, std::vector<std::string> jobs = {}) {
        OrderCard c;
        c.job = c.name = job;
        c.due = due;
        c.jobs = std::move(jobs);
        return c;
    };
    const auto rich = [](const std::string&) { return false; };
    EXPECT_FALSE(next_order({}, rich));
    std::vector<OrderCard> cards{card("kites", ""), card("rowers", "2027-06-12"), card("bakery", "2027-06-11")};
    EXPECT_EQ(next_order(cards, rich)->about.job, "bakery");
    EXPECT_EQ(next_order(cards, rich)->deed, Deed::take_up);
    EXPECT_EQ(next_order(cards, [](const std::string& job) { return job == "bakery"; })->deed, Deed::buy);
    EXPECT_EQ(next_order(cards, [](const std::string& job) { return job != "bakery"; })->deed, Deed::take_up);
    cards.push_back(card("together", "2027-06-12", {"bakery", "rowers"}));
    EXPECT_EQ(next_order(cards, rich)->about.job, "together") << "what lies in it is made with it, not by itself";
    EXPECT_EQ(next_order({card("kites", "")}, rich)->about.job, "kites") << "also without a day";
}

TEST(NextStep, NothingGoesOutWhileItIsStopped) {
    int mended = 0;
    for (int round = 0; round < test::rounds(40, 600) || (mended == 0 && round < 600); ++round) {  // compilers draw unlike cases
        const test::Case c = test::random_case(unsigned(round));
        const Work w = worked(c.order, c.art);
        const bool stopped = has_stop(w.findings);
        for (const Stage& s : stages()) {
            NextAsked asked;
            asked.stage = s.key;
            asked.pressed = [round] { return round % 2 == 0; };
            const auto step = next_step(c.order, w, asked);
            if (!step) {
                EXPECT_FALSE(stopped);
                continue;
            }
            EXPECT_FALSE(worded(step->words, Unit::inch).empty());
            if (step->finding)
                EXPECT_NE(std::find(w.findings.begin(), w.findings.end(), *step->finding), w.findings.end());
            else
                EXPECT_FALSE(worded(step->why, Unit::inch).empty());
            if (stopped) EXPECT_TRUE(step->deed != Deed::send_out && step->deed != Deed::shift && step->words.code != "next-look");
            mended += step->words.code == "next-mend" ? 1 : 0;
            // what was put away is not come back to
            if (step->words.code != "next-look") continue;
            asked.seen = [&](const Finding& f) { return f == *step->finding; };
            const auto other = next_step(c.order, w, asked);
            EXPECT_TRUE(!other || other->finding != step->finding);
        }
    }
    EXPECT_GT(mended, 0);
}

}  // namespace TESTED
}  // namespace orthema
