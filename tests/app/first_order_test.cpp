// A first order through the window, from nothing to sheets and guides, with every action of the hand counted: a choir's messy
// list of eight kinds of garment, five pictures, two of them not clean.
#include <QImage>
#include <QPainter>

#include "app/benches/art/art_bench.h"
#include "app/benches/order/list_preview.h"
#include "app/benches/order/order_bench.h"
#include "app/widgets/figures.h"
#include "app/window/export_panel.h"
#include "support/words.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

/// Counts what a hand does: a press of a button of the mouse (and what is dragged with it), a drop, a chord, a field that is
/// filled. Letters within a field, and the moves between, are part of it.
class Hand : public QObject {
public:
    Hand() { qApp->installEventFilter(this); }
    ~Hand() override { qApp->removeEventFilter(this); }
    [[nodiscard]] int actions() const { return actions_; }
    /// What was done since the last word, for the log.
    void log(const std::string& what) {
        steps.emplace_back(actions_ - logged_, what);
        logged_ = actions_;
    }
    std::vector<std::pair<int, std::string>> steps;

protected:
    bool eventFilter(QObject* to, QEvent* event) override {
        if (!to->isWidgetType()) return false;
        switch (event->type()) {
        case QEvent::MouseButtonPress:
            if (const auto* press = static_cast<QMouseEvent*>(event); press->timestamp() != last_press_) {
                last_press_ = press->timestamp();
                ++actions_;
                filling_ = nullptr;
            }
            break;
        case QEvent::Drop:
            if (std::exchange(last_, event) != event) ++actions_;
            break;
        case QEvent::KeyPress: {
            if (std::exchange(last_, event) == event) break;  // it goes up to the parents
            const auto* key = static_cast<QKeyEvent*>(event);
            if (key->key() == Qt::Key_Control || key->key() == Qt::Key_Shift) break;
            if (qobject_cast<QLineEdit*>(to) != nullptr || qobject_cast<QComboBox*>(to) != nullptr ||
                qobject_cast<QAbstractItemView*>(to) != nullptr) {
                if (filling_ != to) actions_ += qobject_cast<QComboBox*>(to) != nullptr ? 2 : 1;  // a box is opened, and chosen from
                filling_ = to;
                if (key->key() == Qt::Key_Return) filling_ = nullptr;
            } else {
                filling_ = nullptr;
                ++actions_;
            }
            break;
        }
        default: break;
        }
        return false;
    }

private:
    int actions_ = 0, logged_ = 0;
    ulong last_press_ = 0;
    QEvent* last_ = nullptr;
    QObject* filling_ = nullptr;
};

/// As a committee keeps it: a title, gaps, sizes in its own words, a subtotal, a garment that no shop has by that name.
std::string choir_list() {
    return "Marrow Hill kite choir: what we want for the fair\n"
           "\n"
           "No.;Garment;Colour;Size;How many - qty;Who\n"
           "1;Infant bodysuit;sky;3-6M;2;little ones\n"
           "1;;;6-12M;3;little ones\n"
           "2;Toddler tee;white;2T;4;little ones\n"
           "2;;;4T;5;little ones\n"
           "3;Youth tee;sun;Yth S;6;children\n"
           "3;;;Yth M;9;children\n"
           "3;;;Yth L;7;children\n"
           "Subtotal;;;;36;\n"
           "4;Adult tee;navy;S;10;altos\n"
           "4;;;M;18;altos\n"
           "4;;;L;16;altos\n"
           "4;;;XXL;6;altos\n"
           "\n"
           "5;Adult tee;ash;M;14;basses\n"
           "5;;;L;15;basses\n"
           "5;;;X-Large;11;basses\n"
           "6;Hooded fleece;moss;M;5;stewards\n"
           "6;;;L;4;stewards\n"
           "7;Turnabout tops;navy;M;8;soloists\n"
           "7;;;L;7;soloists\n"
           "8;Panel cap;navy;adult;12;everybody\n"
           "Total;;;;162;\n";
}

void paint(const std::string& path, bool photograph) {
    QImage image(900, 700, QImage::Format_ARGB32_Premultiplied);
    image.fill(photograph ? Qt::white : Qt::transparent);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    if (photograph) {
        QLinearGradient sky(0, 100, 0, 600);
        sky.setColorAt(0, QColor(60, 110, 170));
        sky.setColorAt(1, QColor(210, 170, 90));
        p.setBrush(sky);
        p.setPen(Qt::NoPen);
        p.drawEllipse(120, 90, 660, 520);
    } else {
        for (int k = 0; k < 40; ++k) {  // an edge of many half-transparent steps
            p.setPen(Qt::NoPen);
            p.setBrush(QColor(170, 50, 60, 12));
            p.drawEllipse(QPointF(450, 350), 430 - 6 * k, 330 - 5 * k);
        }
    }
    p.end();
    ASSERT_TRUE(image.save(QString::fromStdString(path)));
}

TEST(FirstOrder, AChoirsListIsSheetsAndGuidesInFortyActions) {
    Window w;
    test::spill(w.data("choir.csv"), choir_list());
    paint(w.data("photograph.png"), true);
    paint(w.data("soft.png"), false);
    Hand hand;

    w.drop({w.data("choir.csv")});
    w.wait();
    ListPreview* preview = w.bench<OrderBench>("order")->preview();
    ASSERT_NE(preview, nullptr);
    ASSERT_EQ(preview->result().bad.size(), 2U) << "only the turnabout tops are a riddle";
    auto* means = qobject_cast<QComboBox*>(preview->mend(0));
    ASSERT_NE(means, nullptr);
    w.key(means, Qt::Key_Down);  // it opens
    EXPECT_GE(means->view()->viewport()->height(), std::min(means->count(), means->maxVisibleItems()) * means->view()->sizeHintForRow(0))
        << "what it offers is seen whole";
    QTest::keyClicks(means->view(), QStringLiteral("Reversible"));
    w.key(means->view(), Qt::Key_Return);
    w.wait();
    EXPECT_TRUE(preview->result().bad.empty()) << "said once, for both rows";
    ASSERT_EQ(preview->result().totals.size(), 2U);
    for (const TotalRow& t : preview->result().totals) EXPECT_EQ(t.says, t.sum);
    hand.log("drop the list on the window; say what “Turnabout tops” are");
    w.click(preview->accept_button());
    w.wait();
    EXPECT_EQ(garments_in(w.order()), 162);
    EXPECT_EQ(runs_of(w.order()).size(), 8U);
    hand.log("bring it in: 162 garments of eight kinds");
    w.type(w.find<QLineEdit>("Order name"), "Kite choir");
    w.type(w.find<QLineEdit>("Due date"), "12 June 2027");
    hand.log("name and due day");

    w.drop({test::source("demo/src/long-tail-kite.svg"), test::source("demo/src/crescent-badge.svg"),
            test::source("demo/src/fair-lettering.svg"), w.data("photograph.png"), w.data("soft.png")});
    w.wait();
    ASSERT_EQ(w.order().art.size(), 5U);
    hand.log("drop five pictures on the window");

    const auto put = [&](const std::string& art, const QString& run, const QString& location, bool all) {
        if (w.window().current() != 2) w.go(3);
        if (w.room().selection().art != art) w.click(w.find<QWidget>(QString::fromStdString("chip " + art)));
        auto* runs = w.find<QComboBox>("Run");
        if (runs->currentText() != run) w.choose(runs, run);
        auto* places = w.find<QComboBox>("Location");
        if (places->currentText() != location) w.choose(places, location);
        ASSERT_EQ(places->currentText(), location);
        ASSERT_EQ(runs->currentText(), run);
        w.click(w.find<QPushButton>(all ? "Put it on all that can take it" : "Put it on"));
        w.wait();
    };
    const auto art = [&](const std::string& name) {  // they come in as they are read
        for (const Art& a : w.order().art)
            if (a.name == name) return a.id;
        ADD_FAILURE() << name;
        return std::string();
    };
    put(art("Long tail kite"), "Adult tee, navy", "full front", true);
    hand.log("the kite on every front that takes one");
    put(art("Crescent badge"), "Panel cap, navy", "cap front", false);
    hand.log("the badge on the caps");
    put(art("Fair lettering"), "Adult tee, navy", "upper back (nape)", true);
    hand.log("the lettering on every upper back");
    put(art("Photograph"), "Hooded fleece, moss", "full back", false);
    hand.log("the photograph on the fleeces' backs");
    put(art("Soft"), "Adult tee, navy", "left sleeve (wearer's left)", true);
    hand.log("the soft sun on every left sleeve");
    EXPECT_GE(w.order().decorations.size(), 15U);
    for (const char* code : {"art-background", "art-half-transparent"})
        EXPECT_TRUE(std::any_of(w.room().findings().begin(), w.room().findings().end(), [&](const Finding& f) { return f.code == code; }))
            << code;
    for (const Decoration& d : w.order().decorations)
        EXPECT_FALSE(std::any_of(w.room().findings().begin(), w.room().findings().end(),
                                 [&](const Finding& f) { return f.code == "method-unsuited" && f.about.decoration == d.id; }))
            << d.name << " begins on a medium that suits its cloth";

    w.go(5);
    w.type(w.find<QLineEdit>("Settle for (s)"), "0.5");
    w.click(w.find<QPushButton>(w.room().sheets().media.size() > 1 ? "Settle all" : "Settle"));
    w.wait();
    for (const MediumPlan& m : w.room().sheets().media) {
        EXPECT_EQ(m.placed, m.asked) << m.medium;
        EXPECT_FALSE(m.stale) << m.medium;
    }
    hand.log("settle all sheets");

    ExportPanel* panel = nullptr;
    w.key(&w.window(), Qt::Key_E, Qt::ControlModifier);
    w.wait();
    panel = w.window().show_export();
    w.type(panel->findChild<QLineEdit*>("Folder"), QString::fromStdString(w.data("out")));
    auto* pictures = panel->findChild<QCheckBox*>("Gang sheets as PNG with alpha");
    w.click(pictures, QPoint(8, pictures->height() / 2));
    EXPECT_FALSE(pictures->isChecked());
    w.click(panel->findChild<QPushButton*>("Write the files"));
    w.wait();
    hand.log("write sheets, guides and lists");

    const std::filesystem::path out = w.data("out");
    int sheets = 0, guides = 0;
    for (const auto& f : std::filesystem::directory_iterator(out)) {
        const std::string name = f.path().filename().string();
        sheets += name.find("sheet") != std::string::npos && f.path().extension() == ".pdf" ? 1 : 0;
        guides += name.find("guide") != std::string::npos && f.path().extension() == ".pdf" ? 1 : 0;
        if (f.path().extension() != ".pdf") continue;
        EXPECT_EQ(test::run("qpdf --check '" + f.path().string() + "'").code, 0) << name;
        for (const std::string& t : test::page_troubles(f.path())) ADD_FAILURE() << t;
    }
    EXPECT_GT(sheets, 0);
    EXPECT_GT(guides, 0);
    EXPECT_LE(hand.actions(), 40);
    for (const auto& [n, what] : hand.steps) std::cout << n << "  " << what << "\n";
    std::cout << hand.actions() << " actions\n";
}

}  // namespace TESTED
}  // namespace orthema
