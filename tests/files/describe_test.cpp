// What the command line says of itself to a shell and to man, against the shell and man.
#include "support/support.h"

namespace orthema {
namespace TESTED {

namespace {

std::string cli(const std::string& words) { return test::run(std::string("'") + ORTHEMA_CLI + "' " + words).out; }

/// What bash completes after these words, by the script that the program makes.
std::string completed(const std::vector<std::string>& words) {
    std::string line = "source <('" + std::string(ORTHEMA_CLI) + "' --bash-completion); COMP_WORDS=(orthema-cli";
    for (const std::string& w : words) line += " '" + w + "'";
    line += "); COMP_CWORD=" + std::to_string(words.size()) + "; _orthema_cli; echo \"${COMPREPLY[@]}\"";
    std::string out = test::run("bash -c \"" +
                                [&] {
                                    std::string escaped;
                                    for (const char c : line) {
                                        if (c == '"' || c == '$' || c == '\\') escaped += '\\';
                                        escaped += c;
                                    }
                                    return escaped;
                                }() +
                                "\"")
                          .out;
    while (!out.empty() && out.back() == '\n') out.pop_back();
    return out;
}

}  // namespace

TEST(Describe, BashCompletesCommandsOptionsAndFiles) {
    EXPECT_EQ(completed({"exp"}), "export");
    EXPECT_EQ(completed({"nest", "--thr"}), "--threads");
    EXPECT_EQ(completed({"settle", "--thr"}), "") << "an option of another command";
    const test::Folder folder;
    test::spill(folder / "kites.orthema", "");
    EXPECT_EQ(completed({"check", folder / "kit"}), folder / "kites.orthema");
}

TEST(Describe, ThePageHasAllThatHelpHasAndManFindsNoFault) {
    const test::Folder folder;
    const std::string page = cli("--man-page");
    test::spill(folder / "page.1", page);
    const test::Answer lint = test::run("LC_ALL=C.UTF-8 groff -man -ww -z '" + (folder / "page.1") + "' 2>&1");
    EXPECT_EQ(lint.out, "");
    const std::string help = cli("--help");
    int commands = 0;
    for (const char* name : {"import", "export", "nest", "settle", "check", "quote", "back-up", "take-out"}) {
        ASSERT_NE(help.find(name), std::string::npos);
        std::string in_page = name;
        for (std::size_t at = 0; (at = in_page.find('-', at)) != std::string::npos; at += 2) in_page.insert(at, "\\");
        EXPECT_NE(page.find(".SS " + in_page), std::string::npos) << name;
        ++commands;
    }
    EXPECT_EQ(commands, 8);
    EXPECT_EQ(cli("--version").rfind("orthema-cli ", 0), 0U);
}

}  // namespace TESTED
}  // namespace orthema
