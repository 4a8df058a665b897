// Every screen, page and state: no words cut off or covered, nothing out of the window. A share of it here; every size of
// window, both units and each design with ORTHEMA_SWEEP.
#include "app/benches/order/list_preview.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/records/plot_view.h"
#include "app/benches/records/records_bench.h"
#include "app/benches/press/press_desk.h"
#include "app/benches/press/step_card.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "app/window/export_panel.h"
#include "seen.h"
#include "app/desk/desk.h"
#include "files/order_book.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;
using test::Window;

const bool sweep = std::getenv("ORTHEMA_SWEEP") != nullptr;

class Walk {
public:
    explicit Walk(Window& w) : w_(w) {}
    void look(const std::string& where) {
        ++looks;
        // what was said last is laid out, from the innermost outwards
        for (int k = 0; k < 3; ++k) {
            QCoreApplication::sendPostedEvents(nullptr, QEvent::LayoutRequest);
            for (QWidget* w : w_.window().findChildren<QWidget*>())
                if (w->layout() != nullptr) w->layout()->activate();
        }
        for (const std::string& t : test::seen_troubles(w_.window()))
            if (said_.insert(where.substr(0, where.find('/')) + t).second) ADD_FAILURE() << where << ": " << t;
    }
    /// Clicks through every row of choices that only shows another page, and through those that come to light by it.
    void pages(const std::string& where) {
        look(where);
        for (Segments* s : w_.window().findChildren<Segments*>()) {
            const QString name = s->button(0)->objectName().section('/', 0, 0);
            if (!s->isVisible() || !s->turns_pages() || !done_.insert(name).second) continue;
            for (QPushButton* b : s->findChildren<QPushButton*>()) {
                if (!b->isVisible() || !b->isEnabled()) continue;
                w_.click(b);
                w_.wait();
                pages(where + "/" + b->text().toStdString());
            }
        }
    }
    void begin() { done_.clear(); }
    int looks = 0;

private:
    Window& w_;
    std::set<QString> done_;
    std::set<std::string> said_;
};

void every_screen(const std::string& order, QSize size, Unit unit, bool each_design) {
    Window w;
    w.open(order);
    w.window().resize(size);
    Order next = w.order();
    next.unit = unit;
    w.room().edit("unit", next);
    w.wait();
    ASSERT_EQ(w.window().size(), size);
    const std::string at = std::to_string(size.width()) + " x " + std::to_string(size.height()) + (unit == Unit::mm ? " mm " : " in ");
    Walk walk(w);
    for (int stage = 1; stage <= 8; ++stage) {
        w.go(stage);
        w.wait();
        if (stage == 8) {  // with a record beside its dot
            auto* plot = w.bench<RecordsBench>("records")->plot();
            QTRY_VERIFY(!plot->dots().empty());
            const Point dot = plot->dots().front().first;
            w.click(plot, QPoint(int(dot.x), int(dot.y)));
        }
        walk.begin();
        walk.pages(at + "stage " + std::to_string(stage));
        if (!each_design || (stage != 2 && stage != 4 && stage != 6)) continue;
        for (ChipRow* row : w.window().findChildren<ChipRow*>()) {
            if (!row->isVisible() || (row->accessibleName() != "Decorations" && row->accessibleName() != "Blanks")) continue;
            std::vector<std::string> ids;
            for (const ChipButton* c : row->findChildren<ChipButton*>()) ids.push_back(c->id());
            for (const std::string& id : ids) {
                row->chosen(id);
                w.wait();
                walk.begin();
                walk.pages(at + "stage " + std::to_string(stage) + " " + id);
            }
        }
    }
    w.key(&w.window(), Qt::Key_F7);
    walk.look(at + "findings");
    w.key(&w.window(), Qt::Key_F7);
    if (ExportPanel* panel = w.window().show_export()) {
        w.wait();
        for (const std::string& t : test::seen_troubles(*panel)) ADD_FAILURE() << at << "export: " << t;
        panel->close();
    }
    std::cout << at << walk.looks << " looks\n";
}

TEST(Screens, NothingIsCutOrCovered) {
    const std::string demo = test::source("demo/marrow-hill");
    if (!sweep) return every_screen(demo, {1280, 800}, Unit::inch, false);
    for (const QSize size : {QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)})
        for (const Unit unit : {Unit::mm, Unit::inch}) every_screen(demo, size, unit, size.width() == 1280);
}

TEST(Screens, NothingIsCutInAnyLanguage) {
    for (const ShippedLanguage& language : shipped_languages) {
        SCOPED_TRACE(language.name);
        const test::Spoken here(language.code);
        every_screen(test::source("demo/marrow-hill"), {1280, 800}, Unit::mm, false);
    }
}

TEST(Screens, AnEmptyOrderSaysWhatToDo) {
    Window w;
    w.window().resize(1024, 700);
    Walk walk(w);
    for (int stage = 1; stage <= 8; ++stage) {
        w.go(stage);
        w.wait();
        walk.begin();
        walk.pages("empty, stage " + std::to_string(stage));
    }
}

TEST(Screens, TheDeskAndAGangAreWhole) {
    const std::vector<QSize> sizes =
        sweep ? std::vector{QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)} : std::vector{QSize(1024, 700)};
    for (const QSize size : sizes) {
        Window w;
        w.window().resize(size);
        Walk walk(w);
        const std::string at = std::to_string(size.width()) + " desk, ";
        w.key(&w.window(), Qt::Key_0, Qt::ControlModifier);
        w.wait();
        walk.look(at + "empty");
        QStringList paths;
        for (const char* name : {"millrace-rowers", "quay-bakery", "lantern-walk"}) {
            const std::string path = w.data(std::string(name) + ".orthema");
            std::filesystem::copy_file(test::source(std::string("demo/neighbours/") + name + ".orthema"), path);
            paths << QString::fromStdString(path);
        }
        w.open(paths.front().toStdString());
        w.key(&w.window(), Qt::Key_0, Qt::ControlModifier);
        w.wait();
        walk.look(at + "three orders");
        {  // and two hundred more
            const std::string library = w.room().library().path().toStdString();
            const auto book = OrderBook::open(library);
            ASSERT_TRUE(book.ok());
            for (int n = 0; n < 200; ++n) {
                KnownOrder k = w.room().orders().all().front();
                k.card.job = "job-" + std::to_string(n);
                k.card.name = "The " + std::to_string(n) + "th order of a customer with much to say";
                k.path = "/nowhere";
                ASSERT_TRUE((*book)->put(k).ok());
            }
            w.room().orders().open(QString::fromStdString(library));
            w.wait();
            ASSERT_GE(w.room().orders().all().size(), 203u);
            walk.look(at + "two hundred orders");
        }
        w.room().gang_table().gang(paths);
        w.wait();
        for (int stage = 1; stage <= 8; ++stage) {
            w.go(stage);
            w.wait();
            walk.begin();
            walk.pages(at + "gang, stage " + std::to_string(stage));
        }
        w.room().restore_shop(QString::fromStdString(test::source("demo/kite-fair.orthema-shop")), QString::fromStdString(w.data("shop")));
        w.wait();
        w.wait();
        EXPECT_EQ(w.room().orders().all().size(), 4u) << "those of the shop that came, and none of the one before";
        w.key(&w.window(), Qt::Key_0, Qt::ControlModifier);
        for (int page = 0; page < 4; ++page) {
            w.window().desk()->show_page(page);
            w.wait();
            walk.look(at + "the demo shop, page " + std::to_string(page));
        }
    }
}

TEST(Screens, AShiftsCardsAreWhole) {
    for (const auto& [size, unit] :
         {std::pair(QSize(1024, 700), Unit::mm), {QSize(1024, 700), Unit::inch}, {QSize(1920, 1080), Unit::mm}}) {
        Window w;
        w.open(test::source("demo/marrow-hill"));
        Order in_unit = w.order();
        in_unit.unit = unit;
        w.room().edit("unit", in_unit);
        w.window().resize(size);
        w.go(7);
        w.wait();
        auto* box = w.find<QComboBox>("Speed");
        box->addItem("test", QString::number(4000));
        box->setCurrentIndex(box->count() - 1);
        w.click(w.find<QPushButton>("Begin the shift"));
        w.click(w.find<QPushButton>("Press view/step card"));
        Walk walk(w);
        PressBench* press = w.bench<PressBench>("press");
        for (int i = 0; i < (sweep ? 400 : 40) && press->desk().running() && !press->desk().shift().over(); ++i) {
            walk.look("shift at " + std::to_string(size.width()) + (unit == Unit::inch ? " in" : " mm") + "/card " + std::to_string(i));
            w.key(press->card(), Qt::Key_Space);
            QTest::qWait(5);
        }
    }
}

}  // namespace TESTED
}  // namespace orthema
