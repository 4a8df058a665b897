// The command line as scripts use it: its examples run as they stand in its page, results are as their schema says, and exit codes
// say what happened.
#include <nlohmann/json.hpp>

#include "support/support.h"

namespace orthema {
namespace TESTED {

using nlohmann::json;

std::string cli(const std::string& words) { return std::string("'") + ORTHEMA_CLI + "' " + words; }

/// What the schema has to say of a command's result; nothing where all is well.
std::string against_schema(const std::string& command, const std::string& result) {
    const test::Folder folder;
    test::spill(folder / "result.json", result);
    return test::run(
               "python3 -c \"import json,sys,jsonschema\ns=json.load(open(sys.argv[1]))\n"
               "v=jsonschema.Draft7Validator({'definitions':s['definitions'],'\\$ref':'#/definitions/'+sys.argv[2]})\n"
               "[print(e.json_path, e.message[:300]) for e in v.iter_errors(json.load(open(sys.argv[3])))]\" '" +
               test::source("docs/results.schema.json") + "' " + command + " '" + (folder / "result.json") + "'")
        .out;
}

struct Example {
    std::string command;
    int code = 0;
};
/// Lines of the page's shell blocks; "# 1" at the end of one is the exit code that it leaves with.
std::vector<Example> examples() {
    std::vector<Example> out;
    std::istringstream page(test::slurp(test::source("docs/command-line.md")));
    bool within = false;
    for (std::string line; std::getline(page, line);) {
        if (line.rfind("```", 0) == 0) {
            within = line == "```sh";
            continue;
        }
        if (!within || line.empty()) continue;
        const std::size_t mark = line.rfind("# ");
        out.push_back({line.substr(0, mark), mark == std::string::npos ? 0 : std::stoi(line.substr(mark + 2))});
    }
    return out;
}

TEST(CommandLine, ItsExamplesRunAsTheyStand) {
    const test::Folder folder;
    std::filesystem::copy(test::source("demo/neighbours"), folder / "orders");
    test::spill(folder / "list.csv", "blank,colour,size,quantity\nAdult tee,ash,M,4\nAdult tee,ash,L,6\n");
    std::filesystem::create_directory(folder / "bin");
    std::filesystem::create_symlink(ORTHEMA_CLI, folder / "bin/orthema-cli");
    const std::vector<Example> all = examples();
    ASSERT_GE(all.size(), 10U);
    int as_json = 0;
    for (const Example& e : all) {
        const test::Answer said = test::run("cd '" + folder.path() + "' && PATH='" + (folder / "bin") + "':$PATH && " + e.command);
        EXPECT_EQ(said.code, e.code) << e.command << "\n" << said.out;
        if (e.command.find("--json") == std::string::npos || e.command.find('|') != std::string::npos) continue;
        std::istringstream words(e.command);
        std::string program, command;
        words >> program >> command;
        EXPECT_EQ(against_schema(command, said.out), "") << e.command;
        ++as_json;
    }
    EXPECT_GE(as_json, 5);
}

TEST(CommandLine, EveryResultIsAsItsSchemaSays) {
    const test::Folder folder;
    const std::string order = test::source("demo/neighbours/quay-bakery.orthema"),
                      other = test::source("demo/neighbours/lantern-walk.orthema");
    const std::string laid = folder / "laid.orthema", gang = folder / "gang.orthema";
    const std::vector<std::pair<std::string, std::string>> results = {
        {"settle", "settle '" + order + "' --out '" + laid + "' --seconds 0 --json"},
        {"check", "check '" + laid + "' --json"},
        {"fit", "fit '" + laid + "' --json"},
        {"plan", "plan '" + laid + "' --seconds 0 --people 2 --json"},
        {"quote", "quote '" + laid + "' --what-if --json"},
        {"gang", "gang '" + laid + "' '" + other + "' --out '" + gang + "' --json"},
        {"costs", "costs '" + gang + "' --json"},
        {"export", "export '" + laid + "' --out '" + (folder / "out") + "' --formats tables,cut --seconds 0 --json"},
        {"report", "report '" + laid + "' --json"},
        {"records", "records '" + laid + "' --json"},
    };
    for (const auto& [command, words] : results) {
        const test::Answer said = test::run(cli(words) + " 2>/dev/null");
        EXPECT_LE(said.code, 1) << words << said.out;
        EXPECT_EQ(against_schema(command, said.out), "") << command << "\n" << said.out.substr(0, 600);
    }
    // only what was asked for was written
    for (const auto& file : std::filesystem::directory_iterator(folder / "out")) {
        const std::string ending = file.path().extension();
        EXPECT_TRUE(ending == ".csv" || ending == ".svg" || ending == ".dxf" || ending == ".hpgl" || ending == ".plt" || ending == ".json")
            << file.path();
    }
    // a plan that is agreed to is found again, and no search makes it longer
    const auto ends = [&](const std::string& words) {
        return json::parse(test::run(cli(words) + " 2>/dev/null").out)["ends_s"].get<double>();
    };
    const double first = ends("plan '" + laid + "' --seconds 0 --json"),
                 better = ends("plan '" + laid + "' --seconds 1 --out '" + (folder / "planned.orthema") + "' --json");
    EXPECT_LE(better, first);
    EXPECT_DOUBLE_EQ(ends("plan '" + (folder / "planned.orthema") + "' --seconds 0 --json"), better);
}

TEST(CommandLine, ExitCodesSayWhatHappened) {
    const test::Folder folder;
    const std::string order = test::source("demo/neighbours/quay-bakery.orthema");
    const auto code = [&](const std::string& words) { return test::run(cli(words)).code; };
    EXPECT_EQ(code("check '" + order + "'"), 0);
    EXPECT_EQ(code("check /nowhere.orthema"), 2);
    EXPECT_EQ(code("no-such-command"), 2);
    EXPECT_EQ(code("export '" + order + "' --out '" + (folder / "x") + "' --formats gif"), 2);
    EXPECT_EQ(code("export '" + order + "' --out '" + (folder / "x") + "' --media unheard-of"), 2);
    EXPECT_EQ(code("settle '" + order + "' --seconds 0 --out /proc/none/laid.orthema"), 3);
    EXPECT_EQ(code("plan '" + order + "' --seconds 0 --out /proc/none/laid.orthema"), 3);
}

}  // namespace TESTED
}  // namespace orthema
