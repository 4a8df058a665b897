// Gangs as files: the command line lays orders together, prices and parts them, and what is written says whose each piece is.
#include <map>
#include <nlohmann/json.hpp>

#include "core/order/gang.h"
#include "files/csv.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using nlohmann::json;
using test::Folder;

std::string neighbour(const char* name) { return "'" + test::source(std::string("demo/neighbours/") + name + ".orthema") + "' "; }

TEST(GangFiles, TheCommandLineGangsPricesAndTakesOut) {
    const Folder folder;
    const std::string cli = std::string(ORTHEMA_CLI) + " ";
    const std::string gang = folder / "gang.orthema";
    auto said = test::run(cli + "gang " + neighbour("millrace-rowers") + neighbour("quay-bakery") + neighbour("lantern-walk") + "--out '" +
                          gang + "' --name Saturday --json");
    ASSERT_EQ(said.code, 0) << said.out;
    const json made = json::parse(said.out);
    EXPECT_EQ(made["garments"], 40);
    ASSERT_EQ(made["jobs"].size(), 3u);
    EXPECT_TRUE(made["not_alike"].empty()) << "all of one shop";

    said = test::run(cli + "costs '" + gang + "' --json");
    ASSERT_EQ(said.code, 0) << said.out;
    const json costs = json::parse(said.out);
    double sum = 0;
    int garments = 0;
    for (const json& j : costs["jobs"]) {
        sum += j["total"].get<double>();
        garments += j["garments"].get<int>();
        EXPECT_NEAR(j["film"].get<double>() + j["blanks"].get<double>() + j["work"].get<double>(), j["total"].get<double>(), 1e-6);
    }
    EXPECT_NEAR(sum, costs["total"].get<double>(), 1e-6);
    EXPECT_EQ(garments, 40);

    const std::string out = folder / "out.orthema", rest = folder / "rest.orthema";
    said = test::run(cli + "take-out '" + gang + "' job-quay --out '" + out + "' --rest '" + rest + "'");
    ASSERT_EQ(said.code, 0) << said.out;
    EXPECT_EQ(open_order(out)->order, open_order(test::source("demo/neighbours/quay-bakery.orthema"))->order);
    EXPECT_EQ(open_order(rest)->order.jobs.size(), 2u);
    EXPECT_EQ(open_order(rest)->art.size(), 2u) << "the bakery's picture went with it";
    EXPECT_EQ(test::run(cli + "take-out '" + gang + "' job-none --out '" + out + "'").code, 2);
    EXPECT_EQ(test::run(cli + "gang " + neighbour("quay-bakery") + neighbour("quay-bakery") + "--out '" + out + "'").code, 2);
}

TEST(GangFiles, WhatIsWrittenSaysWhoseEachPieceIs) {
    const Folder folder;
    const std::string cli = std::string(ORTHEMA_CLI) + " ";
    const std::string gang = folder / "gang.orthema";
    ASSERT_EQ(
        test::run(cli + "gang " + neighbour("millrace-rowers") + neighbour("quay-bakery") + "--out '" + gang + "' --name Saturday").code,
        0);
    const auto said = test::run(cli + "export '" + gang + "' --out '" + (folder / "made") + "' --seconds 1");
    ASSERT_EQ(said.code, 0) << said.out;
    const auto table = parse_table(test::slurp(folder / "made/saturday_pieces.csv"));
    ASSERT_TRUE(table) << said.out;
    ASSERT_EQ(table->header.back(), "job");
    std::map<std::string, int> pieces;
    for (const auto& row : table->rows) ++pieces[row.back()];
    EXPECT_EQ(pieces, (std::map<std::string, int>{{"Millrace rowers", 14}, {"Quay bakery", 8}}));
    std::string words;
    for (const auto& file : std::filesystem::directory_iterator(folder / "made"))
        if (file.path().extension() == ".pdf" && file.path().filename().string().find("film") != std::string::npos)
            words += test::run("pdftotext '" + file.path().string() + "' -").out;
    EXPECT_NE(words.find("Quay bakery"), std::string::npos) << "beside the contours";
    EXPECT_NE(words.find("Millrace rowers"), std::string::npos);
}

}  // namespace TESTED
}  // namespace orthema
