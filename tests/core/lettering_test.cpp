// Words set in their fields, and the roster that they come from.
#include "core/fitting/fit.h"
#include "core/order/edit.h"
#include "core/order/roster.h"
#include "core/order/rules.h"

namespace orthema::TESTED {

namespace {

/// Upright bars stand for letters: how wide a word of them can be is known without setting it.
ShapedWord bars(std::mt19937& dice, int n, double widest) {
    std::uniform_real_distribution<double> wide(0.1, widest), tall(0.5, 1.0), apart(0.05, 0.3);
    ShapedWord word;
    double pen = 0;
    for (int i = 0; i < n; ++i) {
        const double w = wide(dice), side = apart(dice);
        word.letters.push_back({box_region({side, -tall(dice), side + w, 0}), pen, w + 2 * side});
        pen += w + 2 * side;
    }
    return word;
}

double width_of(const ShapedLetter& l) { return bounds(l.outline).width(); }

/// As narrow as bars can stand, all of them facing each other at the base line.
double least_width(const ShapedWord& word, double gap) {
    double sum = gap * double(word.letters.size() - 1);
    for (const ShapedLetter& l : word.letters) sum += width_of(l);
    return sum;
}

double natural_width(const ShapedWord& word) {
    const ShapedLetter &a = word.letters.front(), &b = word.letters.back();
    return b.at + bounds(b.outline).x1 - (a.at + bounds(a.outline).x0);
}

/// A lettering in a field of 280 mm that says what each line's person is called, facts as if it were set by hand.
Order team(const std::vector<std::array<std::string, 3>>& persons, const std::string& words, bool digits, ArtFactsById& facts) {
    Order o = test::small_order();
    o.decorations.clear();
    o.rules.clear();
    o.lines.clear();
    for (const auto& [name, number, size] : persons) {
        OrderLine l{"adult-tee", "ash", size, 1, ""};
        l.name = name;
        l.number = number;
        o = with_lines(o, {l});
    }
    Art art;
    art.id = art.name = "words";
    art.kind = ArtKind::ttf;
    art.lettering.emplace();
    art.lettering->words = words;
    art.lettering->digits = digits;
    o.art = {art};
    const auto known = [](double from, double to) {
        ArtFacts f;
        f.vector = true;
        f.width_px = 1000;
        f.height_px = 250;
        f.ink_px = {0, 0, (to - from) * 1000, 250};
        f.aspect = 0.25 / (to - from);
        f.outline = box_region({0, 0, 1, f.aspect});
        f.lettered.emplace();
        f.lettered->in_field = {from, 0, to, 0.25};
        return f;
    };
    facts["words"] = known(0, 1);
    facts["words"].lettered.reset();
    for (const std::string& w : words_of(o, art)) {
        const double half = std::min(0.5, 0.04 * double(w.size()));
        facts[word_art("words", w)] = known(0.5 - half, 0.5 + half);
    }
    return with_new_design(o, {"adult-tee", "ash"}, Location::full_back, art);
}

}  // namespace

TEST(SetWord, ClosesUpThenTakesTheNarrowFaceThenGetsSmaller) {
    std::mt19937 dice(20);
    int kinds[4] = {};
    for (int round = 0; round < test::rounds(400, 20000); ++round) {
        Lettering l;
        l.height = std::uniform_real_distribution<double>(0.08, 0.6)(dice);
        l.least_gap = std::uniform_real_distribution<double>(0.0, 0.1)(dice);
        const int n = std::uniform_int_distribution<int>(1, 12)(dice);
        const ShapedWord wide = bars(dice, n, 0.9), narrow = bars(dice, n, 0.45);
        const bool has_narrow = round % 3 != 0;
        const double room = 1 / l.height;
        const SetWord set = set_word(l, wide, has_narrow ? &narrow : nullptr, false);
        const Rect box = bounds(set.letters);
        const double unit = l.height * field_side;
        EXPECT_LE(box.width(), field_side * (1 + 1e-6));
        EXPECT_NEAR(box.centre().x, field_side / 2, 0.01) << "centred by its ink";
        const ShapedWord& used = set.narrow ? narrow : wide;
        if (natural_width(wide) <= room) {
            EXPECT_FALSE(set.narrow);
            EXPECT_NEAR(set.closed, 0, 1e-9);
            EXPECT_NEAR(box.width(), natural_width(wide) * unit, 0.01);
            ++kinds[0];
        } else if (least_width(wide, l.least_gap) <= room) {
            EXPECT_FALSE(set.narrow);
            EXPECT_NEAR(box.width(), field_side, 0.01) << "no closer than it must";
            ++kinds[1];
        } else if (has_narrow && least_width(narrow, l.least_gap) <= room) {
            EXPECT_TRUE(set.narrow);
            EXPECT_EQ(set.scale, 1);
            ++kinds[2];
        } else if (!has_narrow) {
            EXPECT_NEAR(set.scale, room / least_width(wide, l.least_gap), 1e-6);
            ++kinds[3];
        }
        // nothing is nearer than it may be, and no letter lost
        ASSERT_EQ(set.letters.size(), used.letters.size());
        std::vector<Rect> placed;
        for (const Polygon& p : set.letters) placed.push_back(bounds(p.outer));
        std::sort(placed.begin(), placed.end(), [](const Rect& a, const Rect& b) { return a.x0 < b.x0; });
        for (std::size_t i = 1; i < placed.size(); ++i) EXPECT_GE(placed[i].x0 - placed[i - 1].x1, l.least_gap * unit * set.scale - 0.02);
    }
    for (const int n : kinds) EXPECT_GT(n, 5);
}

TEST(SetWord, SqueezesOnlyWhenAskedAndKeepsItsHeightThen) {
    std::mt19937 dice(3);
    const ShapedWord word = bars(dice, 12, 0.9);
    Lettering l;
    l.height = 0.4;
    const SetWord smaller = set_word(l, word, nullptr, false);
    l.squeeze = true;
    const SetWord narrower = set_word(l, word, nullptr, false);
    EXPECT_LT(smaller.scale, 1);
    EXPECT_EQ(smaller.squeezed, 1);
    EXPECT_EQ(narrower.scale, 1);
    EXPECT_NEAR(narrower.squeezed, smaller.scale, 1e-9);
    EXPECT_GT(bounds(narrower.letters).height(), 1.3 * bounds(smaller.letters).height());
}

TEST(SetWord, JoinedDigitsKeepTheirHeightAndSayWhereEachBegins) {
    std::mt19937 dice(9);
    for (int round = 0; round < 50; ++round) {
        Lettering l;
        l.height = 0.9;  // too wide for most: a stock of digits has one height
        l.digits = true;
        l.rims = {{{0, 0, 0, 1}, 0.05}};
        const ShapedWord word = bars(dice, 3, 0.6);
        const SetWord set = set_word(l, word, nullptr, true);
        EXPECT_EQ(set.scale, 1);
        const Region outer = letter_inks(l, set).front().area;
        std::vector<double> lefts;
        for (const Polygon& p : outer) lefts.push_back(bounds(p.outer).x0);
        std::sort(lefts.begin(), lefts.end());
        ASSERT_EQ(set.lefts.size(), 3u);
        ASSERT_EQ(lefts.size(), 3u) << "outlines of two digits do not run together";
        for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(set.lefts[i], lefts[i], 0.3);
    }
}

TEST(SetWord, AnArchStaysInsideItsFieldAndKeepsEveryLettersShape) {
    std::mt19937 dice(8);
    for (const double arch : {-120.0, -40.0, 15.0, 60.0, 150.0}) {
        Lettering l;
        l.height = 0.2;
        l.arch = arch;
        l.rims = {{{0, 0, 0, 1}, 0.06}};
        const ShapedWord word = bars(dice, 7, 0.9);
        const SetWord set = set_word(l, word, nullptr, false);
        const auto inks = letter_inks(l, set);
        ASSERT_EQ(inks.size(), 2u);
        const Rect all = bounds(inks.front().area);
        EXPECT_LE(all.width(), field_side * 1.001) << arch;
        double own = 0;
        for (const ShapedLetter& letter : word.letters) own += area(letter.outline);
        const double unit = l.height * field_side * set.scale;
        EXPECT_NEAR(area(set.letters), own * unit * unit, own * unit * unit * 1e-4) << "turned, not bent";
        EXPECT_GT(area(inks.front().area), area(set.letters));
        EXPECT_TRUE(subtract(set.letters, inks.front().area).empty()) << "the outline lies round the letters";
    }
}

TEST(SetWord, KeepsMostOfASpaceWhereWordsCloseUp) {
    ShapedWord word;
    for (int i = 0; i < 3; ++i)
        word.letters.push_back({i == 1 ? Region{} : box_region({0.1, -1, 0.9, 0}), i == 2 ? 1.4 : double(i), i == 1 ? 0.4 : 1.0});
    Lettering l;
    l.height = 1 / 1.75;  // too wide by nature (2.2), room for it when it is closed
    const SetWord set = set_word(l, word, nullptr, false);
    ASSERT_EQ(set.letters.size(), 2u);
    std::vector<Rect> at{bounds(set.letters[0].outer), bounds(set.letters[1].outer)};
    std::sort(at.begin(), at.end(), [](const Rect& a, const Rect& b) { return a.x0 < b.x0; });
    EXPECT_GT((at[1].x0 - at[0].x1) / (l.height * field_side * set.scale), 0.4 * 0.6) << "two words stay two";
}

TEST(Roster, FillsFieldsAndLeavesOutWhatNobodyHas) {
    OrderLine l;
    l.name = "Ada Van-Lint";
    l.number = "07";
    l.note = "pilots";
    const auto word = [&](const char* words) {
        Lettering set;
        set.words = words;
        return word_for(set, l);
    };
    EXPECT_EQ(word("{name}"), "Ada Van-Lint");
    EXPECT_EQ(word("{number} {name}"), "07 Ada Van-Lint");
    EXPECT_EQ(word("{initials}"), "AVL");
    EXPECT_EQ(word("No. {number} of the {note}"), "No. 07 of the pilots");
    EXPECT_EQ(word("{shoe} {number}"), "{shoe} 07");
    l.name.clear();
    EXPECT_EQ(word("{name}"), "");
    EXPECT_EQ(word("{number} {name}"), "07");
    EXPECT_EQ(word("crew"), "crew") << "asks for nothing";
}

TEST(Roster, OneGarmentIsPartedOffForAPersonAndKeepsItsNumber) {
    Order o = test::small_order();
    const RunKey run{"adult-tee", "ash"};
    const std::string size = counts_of(o, run).front().size;
    o = with_quantity(o, run, size, 5);
    const auto at = [&](const Order& of, auto what) {
        return std::size_t(std::find_if(of.lines.begin(), of.lines.end(), what) - of.lines.begin());
    };
    const auto nameless = [&](const OrderLine& l) { return l.size == size && !is_person(l); };
    const std::vector<std::string> names{"Nye", "Wren", "Ives"};
    for (const std::string& name : names) o = with_person(o, at(o, nameless), name, "");
    EXPECT_EQ(garments_in(o, run), garments_in(with_quantity(test::small_order(), run, size, 5), run));
    for (int i = 0; i < 5; ++i) {
        const OrderLine* l = line_of_piece(o, run, size, i);
        ASSERT_NE(l, nullptr);
        EXPECT_EQ(l->name, i < 3 ? names[std::size_t(i)] : "");
        EXPECT_EQ(l->first, i < 4 ? i + 1 : 4);
    }
    EXPECT_EQ(wearers(o, run, size, 1, 3), "Wren, Ives");
    // more of that size are nobody's, and taking them back leaves the persons
    EXPECT_EQ(wearers(with_quantity(o, run, size, 9), run, size, 0, 9), "Nye, Wren, Ives");
    EXPECT_EQ(wearers(with_quantity(o, run, size, 3), run, size, 0, 3), "Nye, Wren, Ives");
}

TEST(Roster, TextInAnyOrderGoesToGarmentsOfItsSize) {
    std::mt19937 dice(5);
    const RunKey run{"adult-tee", "ash"};
    for (int round = 0; round < 60; ++round) {
        Order o = test::small_order();
        o.lines.clear();
        std::map<std::string, int> wanted;
        std::string text;
        std::set<std::string> persons;
        const char separator = "\t;,"[round % 3];
        const int n = std::uniform_int_distribution<int>(1, 15)(dice);
        for (int i = 0; i < n; ++i) {
            const std::string size = std::array{"S", "M", "L", "XL"}[std::size_t(dice() % 4)];
            std::array<std::string, 3> fields{"Person " + std::string(1, char('A' + i)), std::to_string(i * 7 + 1), size};
            persons.insert(fields[1] + " " + fields[0] + " " + size);
            std::shuffle(fields.begin(), fields.end(), dice);
            text += fields[0] + separator + " " + fields[1] + separator + fields[2] + (round % 2 == 0 ? "\r\n" : "\n");
            ++wanted[size];
        }
        for (const auto& [size, count] : wanted)
            if (dice() % 3 != 0) o = with_quantity(o, run, size, count);  // those of other sizes come with their persons
        const PastedRoster got = with_roster_text(o, run, text);
        EXPECT_EQ(got.taken, n);
        EXPECT_TRUE(got.left.empty());
        EXPECT_EQ(garments_in(got.order, run), n);
        std::set<std::string> have;
        for (const OrderLine& l : got.order.lines) have.insert(person_text(l) + " " + l.size);
        EXPECT_EQ(have, persons);
    }
    Order two = test::small_order();
    two.lines.clear();
    two = with_quantity(two, run, "M", 1);
    const PastedRoster got = with_roster_text(two, run, "Kestrel 7\n12 Wren\n;;\n");
    EXPECT_EQ(got.taken, 1);
    EXPECT_EQ(person_text(got.order.lines.all().front()), "7 Kestrel");
    EXPECT_EQ(got.left.size(), 2u) << "no garment is left, and a line without a name";
}

TEST(Lettering, EveryGarmentGetsItsOwnWordAndSaysWhose) {
    std::mt19937 dice(11);
    std::vector<std::array<std::string, 3>> persons;
    for (int i = 0; i < 40; ++i)
        persons.push_back({"P" + std::to_string(i), std::to_string(dice() % 30), std::array{"S", "M", "L", "XL"}[std::size_t(dice() % 4)]});
    ArtFactsById facts;
    const Order o = team(persons, "{number}", false, facts);
    const FitPlan plan = fit(o, facts);
    ASSERT_EQ(plan.decorations.size(), 1u);
    const TransferSet set = transfers(o, plan, facts);
    std::map<std::string, int> pieces;  // "width word" of what each garment wants, against what is printed
    for (const SizeFit& s : plan.decorations.front().sizes)
        for (const auto& [name, number, size] : persons)
            if (size == s.size) ++pieces[std::to_string(std::lround(s.width * 10)) + " " + number];
    for (const Transfer& t : set.transfers) {
        const std::string word = word_in(t.art);
        const std::string field = t.id.substr(t.id.find('@') + 1, t.id.find('~') - t.id.find('@') - 1);
        EXPECT_EQ(t.quantity, pieces[field + " " + word]) << t.id;
        pieces.erase(field + " " + word);
        for (const auto& [name, number, size] : persons)
            if (number == word && t.quantity == 1 &&
                std::find(t.sizes[0].sizes.begin(), t.sizes[0].sizes.end(), size) != t.sizes[0].sizes.end())
                EXPECT_NE(t.whose.find(name), std::string::npos);
        const ArtFacts& f = facts.at(t.art);
        EXPECT_NEAR(t.width, std::stod(field) / 10 * f.lettered->in_field.width(), 0.06);
    }
    EXPECT_TRUE(pieces.empty()) << "nobody is left out";
    for (const SizeFit& s : plan.decorations.front().sizes)
        EXPECT_NEAR(s.word_ink.centre().x, s.ink.centre().x, 1e-9) << "numbers are centred by their ink";
}

TEST(Lettering, SingleDigitsAreCountedAsTheRosterHasThem) {
    std::mt19937 dice(12);
    for (int round = 0; round < test::rounds(60, 1000); ++round) {
        std::vector<std::array<std::string, 3>> persons;
        std::map<char, int> digits;
        const int n = std::uniform_int_distribution<int>(1, 25)(dice);
        for (int i = 0; i < n; ++i) {
            persons.push_back({"", std::to_string(dice() % 1000), "M"});
            for (const char c : persons.back()[1]) ++digits[c];
        }
        ArtFactsById facts;
        const Order o = team(persons, "{number}", true, facts);
        const TransferSet set = transfers(o, fit(o, facts), facts);
        std::map<char, int> printed;
        for (const Transfer& t : set.transfers) {
            ASSERT_EQ(word_in(t.art).size(), 1u);
            printed[word_in(t.art)[0]] += t.quantity;
        }
        EXPECT_EQ(printed, digits);
    }
}

TEST(Lettering, SaysWhatARosterLacks) {
    ArtFactsById facts;
    Order o = team({{"Nye", "7", "M"}, {"Wren", "7", "L"}, {"Ives", "", "L"}}, "{number}", false, facts);
    facts.at(word_art("words", "7")).lettered->scale = 0.8;
    facts.at(word_art("words", "7")).lettered->missing = {"7"};
    const auto codes = [&](const Order& of) {
        std::set<std::string> out;
        for (const Finding& f : order_findings(of)) out.insert(f.code);
        for (const Finding& f : fit(of, facts).findings) out.insert(f.code);
        return out;
    };
    const std::set<std::string> all = codes(o);
    for (const char* code : {"roster-lacks", "roster-twice", "lettering-small", "lettering-missing"})
        EXPECT_TRUE(all.contains(code)) << code;
    EXPECT_FALSE(all.contains("roster-several"));
    o.lines.own()[0].quantity = 2;
    o.lines.own()[1].number = "8";
    o.lines.own()[2].number = "9";
    const std::set<std::string> now = codes(o);
    EXPECT_TRUE(now.contains("roster-several"));
    EXPECT_FALSE(now.contains("roster-lacks"));
    EXPECT_FALSE(now.contains("roster-twice"));
}

}  // namespace orthema::TESTED
