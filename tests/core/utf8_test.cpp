// Text made whole, against another implementation of the same standard.
#include "core/base/utf8.h"

#include <random>
#include <sstream>

#include "files/list.h"
#include "files/order_file.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

/// Bytes that are often nearly letters.
std::string nearly(std::mt19937& random) {
    static const std::string parts[] = {
        "a", "é", "€", "\xF0\x9F\xAA\x81", "\xC3", "\xE2\x82", "\xED\xA0\x80", "\xC0\xAF", "\xF4\x90\x80\x80", "\x80", "\xFF"};
    std::string out;
    for (auto n = random() % 7; n > 0; --n)
        if (random() % 5 != 0)
            out += parts[random() % std::size(parts)];
        else
            out += static_cast<char>(1 + random() % 255);
    return out;
}

TEST(Utf8, IsMadeWholeAsTheStandardRecommends) {
    std::mt19937 random(3);
    std::vector<std::string> said;
    std::ostringstream hex;
    for (int k = 0; k < 4000; ++k) {
        said.push_back(nearly(random));
        for (const char c : said.back()) {
            char two[3];
            std::snprintf(two, sizeof two, "%02x", static_cast<unsigned>(static_cast<unsigned char>(c)));
            hex << two;
        }
        hex << "\n";
    }
    const test::Folder folder;
    test::spill(folder / "in", hex.str());
    test::spill(folder / "whole.py",
                "import sys\nfor line in open(sys.argv[1]):\n"
                "    b = bytes.fromhex(line.strip())\n    w = b.decode('utf-8', 'replace').encode()\n"
                "    print(w.hex(), int(w == b))\n");
    std::istringstream other(test::run("python3 '" + (folder / "whole.py") + "' '" + (folder / "in") + "'").out);
    int broken = 0;
    for (const std::string& s : said) {
        std::string line, want;
        ASSERT_TRUE(std::getline(other, line));
        const std::string digits = line.substr(0, line.find(' '));
        for (std::size_t i = 0; i + 1 < digits.size(); i += 2) want += static_cast<char>(std::stoi(digits.substr(i, 2), nullptr, 16));
        EXPECT_EQ(whole_utf8(s), want);
        EXPECT_EQ(is_utf8(s), line.back() == '1') << line;
        broken += is_utf8(s) ? 0 : 1;
        for (std::size_t most = 0; most < want.size(); ++most) {
            const std::string cut = first_bytes(want, most);
            EXPECT_TRUE(is_utf8(cut) && cut.size() <= most && want.compare(0, cut.size(), cut) == 0);
        }
    }
    EXPECT_GT(broken, 1000);
}

TEST(Utf8, ListsAndOrdersWithBrokenTextComeInAndAreSavedAndOpened) {
    std::mt19937 random(5);
    const test::Folder folder;
    for (int k = 0; k < 60; ++k) {
        const std::string note = nearly(random);
        const auto tables = read_list("Garment,Colour,Size,Qty,Note\nAdult tee,ash,M,2,x" + note + "x\nAdult tee," + note + ",L,1,y\n");
        if (tables)  // what holds a NUL or such is refused with a sentence
            for (const auto& row : tables->front().table.rows)
                for (const std::string& cell : row) EXPECT_TRUE(is_utf8(cell));
        // and what got in by any other way does not keep an order from being saved
        Order order = test::small_order();
        order.name += note;
        order.lines[0].note = note;
        order.decorations[0].name = note;
        order.styles[0].colours[0].name += note;
        const std::string path = folder / "o.orthema";
        const auto saved = save_order(path, order, test::small_art());
        ASSERT_TRUE(saved) << saved.sentence();
        const auto back = open_order(path);
        ASSERT_TRUE(back) << back.sentence();
        EXPECT_EQ(back->order.name, whole_utf8(order.name));
        EXPECT_EQ(back->order.lines[0].note, whole_utf8(note));
    }
    const auto mostly = read_list("Garment,Size,Qty,Note\nAdult tee,M,2,Zo\xC3\xAB und J\xC3\xBCrgen, \xC3 caf\xC3\xA9\n");
    ASSERT_TRUE(mostly);
    EXPECT_NE(mostly->front().table.rows[0][3].find("Zo\xC3\xAB"), std::string::npos) << "one broken letter is not another encoding";
}

}  // namespace TESTED
}  // namespace orthema
