// Every page of an export, read back by another program: no words over one another or past the paper, every size there.
#include <filesystem>

#include "core/fitting/fit.h"
#include "files/export_order.h"
#include "files/order_file.h"
#include "support/support.h"
#include "support/words.h"

namespace orthema {
namespace TESTED {

using test::Folder;

TEST(Pages, TheDemosAreWholeAndNameEverySize) {
    const Folder folder;
    const std::string demo = test::source("demo/marrow-hill");
    const auto package = open_order(demo);
    ASSERT_TRUE(package);
    const LoadedArtById art = load_all_art(package->order, package->art, nullptr);
    ExportChoice choice;
    choice.sheets_png = false;
    const auto report = export_order(folder / "out", package->order, Shop{}, art, choice);
    ASSERT_TRUE(report) << report.sentence();
    std::map<std::string, std::string> words;  // of each kind of file
    for (const std::string& f : report->files) {
        if (std::filesystem::path(f).extension() != ".pdf") continue;
        for (const std::string& t : test::page_troubles(f)) ADD_FAILURE() << t;
        std::string& all = words[std::filesystem::path(f).stem().string().substr(std::string("marrow-hill-kite-fair_").size())];
        for (const test::PageWords& p : test::read_words(f)) all += p.text() + "\n";
    }
    const FitPlan plan = fit(package->order, facts_of(art));
    for (const DecorationFit& d : plan.decorations)
        for (const SizeFit& s : d.sizes) {
            const std::string width = length_text(Length::from_mm(s.width), package->order.unit, false);
            for (const char* kind : {"guide-cards", "run-sheet"}) {
                EXPECT_NE(words[kind].find(" " + s.size), std::string::npos) << kind << " " << d.decoration << " " << s.size;
            }
            EXPECT_NE(words["guide-cards"].find(width), std::string::npos) << d.decoration << " " << s.size << " " << width;
        }
}

}  // namespace TESTED
}  // namespace orthema
