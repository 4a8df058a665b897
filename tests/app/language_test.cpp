// The window in other languages: chosen in the settings, said everywhere, and figures read in both ways.
#include "app/widgets/speech.h"

#include "app/benches/fit/fit_bench.h"
#include "app/widgets/figures.h"
#include "app/window/export_panel.h"
#include "app/window/notice_bar.h"
#include "app/window/settings_panel.h"
#include "files/export_order.h"
#include "files/languages.h"
#include "files/order_file.h"
#include "files/safe_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::SmallWindow;
using test::Spoken;
using test::Window;

TEST(InLanguages, IsChosenInTheSettingsAndHoldsFromTheNextStart) {
    Window w;
    w.key(&w.window(), Qt::Key_Comma, Qt::ControlModifier);
    auto* box = w.find<QComboBox>("Language");
    ASSERT_NE(box, nullptr);
    w.choose(box, "Español");
    EXPECT_EQ(w.room().settings().liked().language, "es");
    EXPECT_EQ(language_spoken(), nullptr);  // not in the middle of the work
    EXPECT_TRUE(w.window().notices()->action()->isVisible()) << "but at once, where that is wanted";
    const Language* next = Settings::language(w.room().settings().file());
    ASSERT_NE(next, nullptr);
    EXPECT_EQ(next->code, "es");
    w.choose(box, "English");
    EXPECT_EQ(Settings::language(w.room().settings().file()), nullptr);
}

TEST(InLanguages, AnotherStartIsHadAtOnceAndTheWorkLiesBesideItsFile) {
    test::Folder folder;
    const std::string path = folder / "order.orthema";
    ASSERT_TRUE(save_order(path, test::small_order(), test::small_art()).ok());
    Window w;
    w.open(path);
    w.wait();
    Order changed = w.order();
    changed.name = "Kites, later";
    w.room().document().edit("name", changed);
    QString again = "none";
    QObject::connect(&w.window(), &MainWindow::again_wanted, [&](const QString& order) { again = order; });
    w.key(&w.window(), Qt::Key_Comma, Qt::ControlModifier);
    w.choose(w.find<QComboBox>("Language"), "Deutsch");
    w.click(w.window().notices()->action());
    EXPECT_EQ(again.toStdString(), path);
    EXPECT_FALSE(w.window().isVisible());
    Window next(&w);
    next.open(path);
    next.wait();
    EXPECT_NE(next.notice().find("later state"), std::string::npos) << next.notice();
}

TEST(InLanguages, WhyAPictureCannotBeUsedIsSaidInIt) {
    const Spoken spanish("es");
    SmallWindow w(4);
    test::Folder folder;
    ASSERT_TRUE(write_file(folder / "roto.png", "no picture").ok());
    w.window().bring_in({QString::fromStdString(folder / "roto.png")});
    w.wait();
    EXPECT_EQ(w.notice(), "roto.png no es una imagen utilizable: traiga PNG, JPEG, TIFF, WebP, HEIC, SVG o PDF.");
}

TEST(InLanguages, TheWindowFindingsAndGuidesAreSaidInIt) {
    const Spoken german("de");
    SmallWindow w(4);
    QStringList words;
    for (const QLabel* l : w.window().findChildren<QLabel*>())
        if (l->isVisible()) words << l->text();
    for (const QPushButton* b : w.window().findChildren<QPushButton*>())
        if (b->isVisible()) words << b->text();
    for (const char* german_word : {"Breite der Farbe", "Exportieren…", "Größenwand", "Begrenzt durch"})
        EXPECT_TRUE(words.contains(QString::fromUtf8(german_word))) << german_word;
    for (const char* english : {"Ink width", "Export…", "size wall", "Held by"}) EXPECT_FALSE(words.contains(english)) << english;
    for (const Finding& f : w.room().work().findings) {
        const std::string said = finding_text(f, w.order().unit);
        EXPECT_NE(said, finding_text(f, Unit::mm)) << said;
    }
    // what is printed for the press
    test::Folder folder;
    ExportChoice choice;
    choice.sheets_pdf = choice.sheets_png = choice.cut_lines = choice.labels = choice.tables = choice.press = choice.papers = false;
    const auto report = export_order(folder / "out", w.order(), {}, w.room().pictures().art(), choice);
    ASSERT_TRUE(report.ok()) << report.sentence();
    std::string card;
    for (const auto& file : std::filesystem::directory_iterator(folder / "out"))
        if (file.path().string().find("guide-cards") != std::string::npos)
            card = test::run("pdftotext '" + file.path().string() + "' -").out;
    EXPECT_NE(card.find("Kragennaht"), std::string::npos) << card;
    EXPECT_EQ(card.find("collar seam"), std::string::npos) << card;
}

TEST(InLanguages, AFigureIsShownWithItsCommaAndReadWithEither) {
    const Spoken french("fr");
    SmallWindow w(4);
    auto* width = w.find<QLineEdit>("Largeur de l'encre");
    ASSERT_NE(width, nullptr);
    w.type(width, "203,5");
    const auto ink = [&] { return w.room().plan().decorations.front().sizes.front().width; };
    const double by_comma = ink();
    w.type(width, "190");
    w.type(width, "203.5");
    EXPECT_EQ(ink(), by_comma);
    w.undo();
    EXPECT_NE(ink(), by_comma);
}

TEST(InLanguages, AnOrderKeepsNothingOfTheLanguageItWasMadeIn) {
    test::Folder folder;
    const std::string path = folder / "order.orthema";
    Order german;
    {
        const Spoken spoken("de");
        SmallWindow w(4);
        german = w.order();
        ASSERT_NE(german.unit.language, nullptr);
        ASSERT_TRUE(save_order(path, german, test::small_art()).ok());
    }
    const auto back = open_order(path);
    ASSERT_TRUE(back.ok()) << back.sentence();
    german.unit.language = nullptr;
    EXPECT_EQ(back->order.unit, german.unit);
    EXPECT_EQ(back->order.decorations, german.decorations);
    Window w;
    w.open(path);
    EXPECT_EQ(w.order().unit.language, nullptr);
}

}  // namespace TESTED
}  // namespace orthema
