// Window, command line and export say the same of the same order.
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>

#include <random>
#include <set>

#include "app/session/workroom.h"
#include "core/order/edit.h"
#include "core/order/lots.h"
#include "core/order/rules.h"
#include "files/csv.h"
#include "files/export_order.h"
#include "files/order_file.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;

/// Some blanks with the same picture at some places, under rules, parted, pinned, with figures of their own.
Order random_order(unsigned seed) {
    std::mt19937 random(seed);
    const auto pick = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
    Order o = test::small_order();
    o.decorations.clear();
    o.lines.clear();
    o.name = "Order " + std::to_string(seed);
    o.unit = random() % 2 == 0 ? Unit::mm : Unit::inch;
    for (int k = 0; k < 3; ++k) {
        const BlankStyle& style = o.styles.all()[pick(o.styles.size())];
        const std::string colour = style.colours.empty() ? "" : style.colours[pick(style.colours.size())].name;
        for (const std::string& size : style.sizes)
            if (random() % 3 > 0) o.lines.push_back({style.id, colour, size, 1 + static_cast<int>(pick(5)), "k" + std::to_string(k)});
    }
    const auto runs = runs_of(o);
    for (const RunKey& run : runs) {
        const auto where = locations_of(*find_style(o, run.style));
        std::string id;
        if (!where.empty()) o = with_new_design(o, run, where[pick(where.size())], o.art[0], &id);
        if (!id.empty() && random() % 2 == 0) o = with_design_on(o, id, runs);
    }
    if (!o.decorations.empty()) {
        Decoration d = o.decorations[pick(o.decorations.size())];
        d.sizing.school = static_cast<SizingSchool>(pick(3));
        d.pins = {{counts_of(o, d.run).front().size, std::nullopt, Length::from_mm(4), std::nullopt}};
        o = with_decoration(o, d);
        o = with_departure(o, o.decorations[pick(o.decorations.size())].id);
    }
    if (!runs.empty()) o = with_lot_parted(o, runs[pick(runs.size())], {"part", {{counts_of(o, runs[0]).front().size, 1}}});
    return o;
}

std::set<std::string> said(const Findings& findings) {
    std::set<std::string> out;
    for (const Finding& f : findings) out.insert(f.code + ": " + finding_text(f, Unit::mm));
    return out;
}

QJsonObject answer(const std::string& command) {
    const test::Answer a = test::run(command);
    return QJsonDocument::fromJson(QByteArray::fromStdString(a.out)).object();
}

void compare(const std::string& path) {
    const test::Folder folder;
    Workroom room(QString::fromStdString(folder / "data"));
    const auto settle_down = [&] {
        for (int quiet = 0; quiet < 3; quiet = room.busy() ? 0 : quiet + 1) {
            QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
            QThread::msleep(2);
        }
    };
    settle_down();
    room.keeper().open(QString::fromStdString(path));
    settle_down();
    ASSERT_FALSE(room.order().lines.empty()) << path;

    const QJsonObject told = answer(std::string(ORTHEMA_CLI) + " fit --json " + path);
    std::set<std::string> by_line;
    for (const QJsonValue& f : told["findings"].toArray())
        by_line.insert(f["code"].toString().toStdString() + ": " + f["sentence"].toString().toStdString());
    EXPECT_EQ(by_line, said(room.findings()));
    std::set<std::string> checked;
    for (const QJsonValue& f : answer(std::string(ORTHEMA_CLI) + " check --json " + path)["findings"].toArray())
        checked.insert(f["code"].toString().toStdString() + ": " + f["sentence"].toString().toStdString());
    EXPECT_EQ(checked, by_line);
    const QJsonArray decorations = told["decorations"].toArray();
    ASSERT_EQ(std::size_t(decorations.size()), room.plan().decorations.size());
    for (std::size_t i = 0; i < room.plan().decorations.size(); ++i) {
        const DecorationFit& fit = room.plan().decorations[i];
        const QJsonArray sizes = decorations[int(i)].toObject()["sizes"].toArray();
        ASSERT_EQ(std::size_t(sizes.size()), fit.sizes.size());
        for (std::size_t k = 0; k < fit.sizes.size(); ++k) {
            EXPECT_NEAR(sizes[int(k)].toObject()["width_mm"].toDouble(), fit.sizes[k].width, 0.001);
            EXPECT_NEAR(sizes[int(k)].toObject()["top_to_ink_mm"].toDouble(), fit.sizes[k].top_to_ink, 0.001);
        }
    }
    ExportChoice tables;
    tables.sheets_pdf = tables.sheets_png = tables.cut_lines = tables.guides = tables.press = false;
    const auto report = export_order(folder / "out", room.order(), {}, room.art(), tables);
    ASSERT_TRUE(report.ok());
    const auto exported = said(report->findings);
    for (const std::string& s : by_line) EXPECT_TRUE(exported.contains(s)) << s;
    const auto table =
        std::find_if(report->files.begin(), report->files.end(), [](const std::string& f) { return f.ends_with("_fit.csv"); });
    ASSERT_NE(table, report->files.end());
    EXPECT_EQ(test::slurp(*table), fit_csv(room.order(), room.plan()));
}

TEST(OneChain, WindowCommandLineAndExportAgreeOnTheDemo) { compare(test::source("demo/marrow-hill")); }

TEST(OneChain, WindowCommandLineAndExportAgreeOnRandomOrders) {
    const test::Folder folder;
    for (int round = 0; round < test::rounds(5, 50); ++round) {
        const std::string path = folder / ("order" + std::to_string(round) + ".orthema");
        ASSERT_TRUE(save_order(path, random_order(static_cast<unsigned>(round) + 1), test::small_art()));
        SCOPED_TRACE(path);
        compare(path);
    }
}

TEST(OneChain, AThrowOnAThreadIsSaidAndTheOrderStays) {
    test::Window w;
    const Order before = w.order();
    bool failed = false;
    w.room().jobs().background([]() -> std::function<void()> { throw std::runtime_error("the shelf fell down"); }, [&] { failed = true; });
    w.wait();
    EXPECT_TRUE(failed);
    EXPECT_FALSE(w.room().busy());
    EXPECT_NE(w.notice().find("the shelf fell down"), std::string::npos) << w.notice();
    EXPECT_EQ(w.order(), before);
    w.room().jobs().background([]() -> std::function<void()> { throw std::bad_alloc(); });
    w.wait();
    EXPECT_NE(w.notice().find("not enough memory"), std::string::npos) << w.notice();
}

}  // namespace TESTED
}  // namespace orthema
