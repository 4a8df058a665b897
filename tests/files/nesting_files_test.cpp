// Nesting instances and solutions as files: read as the format says, and whatever else comes is a sentence.
#include "files/nest_json.h"

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "files/xml_text.h"

namespace orthema {
namespace TESTED {

using nlohmann::json;

const std::string instance = R"({"format":"nest-instance/1","width_mm":120,"gap_mm":2,"margin_mm":3,"pieces":[
  {"id":"frame","count":2,"rotations":[0,90],"outline":[[0,0],[50,0],[50,40],[0,40]],"holes":[[[10,10],[10,30],[40,30],[40,10]]]},
  {"id":"kite","rotations":"any","outline":[[0,0],[12,0],[6,18]]}]})";

TEST(NestingFiles, AnInstanceIsReadAsTheFormatSays) {
    const auto p = nest_problem_from_json(instance);
    ASSERT_TRUE(p) << p.sentence();
    EXPECT_EQ(p->width, 120);
    EXPECT_EQ(p->gap, 2);
    EXPECT_EQ(p->margin, 3);
    EXPECT_TRUE(std::isinf(p->max_length)) << "a roll without an end";
    ASSERT_EQ(p->pieces.size(), 2u);
    EXPECT_EQ(p->pieces[0].count, 2);
    EXPECT_EQ(area(p->pieces[0].outline), 50 * 40 - 30 * 20);
    EXPECT_EQ(p->pieces[1].count, 1);
    EXPECT_EQ(p->pieces[1].rotations.size(), 120u);
    EXPECT_EQ(p->pieces[1].rotations[7], 21);
}

TEST(NestingFiles, ASolutionSaysWhereEveryCopyLies) {
    auto p = nest_problem_from_json(instance);
    ASSERT_TRUE(p);
    NestOptions o;
    o.rounds = 1;
    for (const double longest : {1e9, 60.0}) {
        p->max_length = longest;
        const auto s = nest(*p, o);
        ASSERT_TRUE(s) << s.sentence();
        const json j = json::parse(nest_solution_json(*p, *s));
        EXPECT_EQ(j.at("format"), "nest-solution/1");
        ASSERT_EQ(j.at("placements").size(), 3u);
        double end = 0, used = 0;
        for (const json& e : j.at("placements")) {
            const auto piece = std::find_if(p->pieces.begin(), p->pieces.end(), [&](const NestPiece& q) { return q.id == e.at("id"); });
            ASSERT_NE(piece, p->pieces.end());
            EXPECT_EQ(e.contains("sheet"), s->bins > 1);
            const Affine at = Affine::shift(e.at("x_mm"), e.at("y_mm")).after(Affine::turn(e.at("rotation_deg")));
            const Rect box = bounds(mapped(piece->outline.outer, at));
            EXPECT_GE(box.y0, 3 - 1e-6);
            EXPECT_LE(box.y1, 117 + 1e-6);
            end = std::max(end, box.x1 + 3);
            used += area(piece->outline);
        }
        if (s->bins == 1) {
            EXPECT_NEAR(j.at("length_mm").get<double>(), end, 1e-3);
            EXPECT_NEAR(j.at("density").get<double>(), used / (120 * end), 1e-3);
        }
    }
}

TEST(NestingFiles, WhatCannotBeMeantIsSaidByName) {
    const auto said = [](const std::function<void(nlohmann::json&)>& change) {
        nlohmann::json j = nlohmann::json::parse(instance);
        change(j);
        const auto p = nest_problem_from_json(j.dump());
        return p ? std::string("taken") : p.sentence();
    };
    EXPECT_EQ(said([](auto&) {}), "taken");
    const std::pair<std::function<void(nlohmann::json&)>, const char*> wrong[] = {
        {[](auto& j) { j["pieces"][0]["rotations"] = "some"; }, "“any”"},
        {[](auto& j) { j["pieces"][0]["rotations"] = {1e9}; }, "degrees"},
        {[](auto& j) { j["pieces"][0]["rotations"] = nlohmann::json::array(); }, "rotations"},
        {[](auto& j) { j["pieces"][1]["id"] = j["pieces"][0]["id"]; }, "two pieces"},
        {[](auto& j) { j["pieces"][0]["count"] = 0; }, "count"},
        {[](auto& j) { j["pieces"][0]["count"] = 1.5; }, "whole number"},
        {[](auto& j) { j["pieces"][0]["count"] = 2000000; }, "count"},
        {[](auto& j) { j["width_mm"] = -3; }, "width_mm"},
        {[](auto& j) { j["gap_mm"] = 1e300; }, "gap_mm"},
        {[](auto& j) { j["pieces"][0]["outline"].clear(); }, "points"},
        {[](auto& j) { j["pieces"][0]["outline"][0][0] = 1e99; }, "point"},
    };
    for (const auto& [change, word] : wrong) EXPECT_NE(said(change).find(word), std::string::npos) << word << ": " << said(change);
}

TEST(NestingFiles, WhateverElseComesIsASentence) {
    int refused = 0;
    for (std::size_t n = 0; n < instance.size(); n += 3) {  // cut off anywhere
        const auto p = nest_problem_from_json(instance.substr(0, n));
        ASSERT_FALSE(p) << n;
        EXPECT_GT(p.sentence().size(), 20u);
    }
    const json good = json::parse(instance);
    const json odd[] = {nullptr, -7, "many", json::array(), json::object(), 1e300};
    const auto tried = [&](const json& j) {
        const auto p = nest_problem_from_json(j.dump());
        NestOptions o;
        o.rounds = 1;
        const auto s = p ? nest(*p, o) : Result<NestSolution>(p.error());
        if (s)
            EXPECT_TRUE(nest_faults(*p, s->placements, 0).empty());
        else
            ++refused;
    };
    for (const json& value : odd) {
        for (const char* field : {"format", "width_mm", "gap_mm", "margin_mm", "pieces"}) {
            json j = good;
            j[field] = value;
            tried(j);
        }
        for (const char* field : {"id", "count", "rotations", "outline", "holes"}) {
            json j = good;
            j["pieces"][0][field] = value;
            tried(j);
        }
    }
    EXPECT_GT(refused, 40);
}

TEST(NestingFiles, WordsInXmlKeepTheirMeaningAndNoControlCharacters) {
    std::string all;
    for (int c = 1; c < 127; ++c) all += static_cast<char>(c);
    std::string safe = xml_escaped(all);
    EXPECT_EQ(safe.find_first_of("<>\""), std::string::npos);
    for (const auto& [entity, mark] : {std::pair{"&lt;", "<"}, {"&gt;", ">"}, {"&quot;", "\""}, {"&amp;", "&"}}) {
        const std::size_t at = safe.find(entity);
        ASSERT_NE(at, std::string::npos);
        safe.replace(at, std::string(entity).size(), mark);
    }
    EXPECT_EQ(safe, all.substr(31)) << "from the space on";
}

}  // namespace TESTED
}  // namespace orthema
