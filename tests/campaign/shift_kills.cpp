// A window at a shift, killed at any moment: what it had shown as recorded is in the shop's book, once, and the shift goes on until every
// piece is recorded once.
// usage: shift_kills KILLS FOLDER [SEED]      `--press FOLDER SEED` is the child
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <QApplication>

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <map>
#include <random>
#include <thread>

#include "app/benches/press/press_bench.h"
#include "app/benches/press/press_desk.h"
#include "app/widgets/theme.h"
#include "app/window/main_window.h"
#include "files/library.h"
#include "files/order_file.h"
#include "files/record_book.h"
#include "files/safe_file.h"
#include "support/support.h"

namespace {

using namespace orthema;

constexpr int pieces = 150;

[[noreturn]] void broken(const std::string& what) {
    std::fprintf(stderr, "broken: %s\n", what.c_str());
    std::exit(1);
}

Order shift_order() {
    Order order = test::small_order();
    order.job = "kills-of-a-shift";
    order.lines.own().resize(1);
    order.lines.own()[0].quantity = pieces;
    order.press_run.trials = false;
    return order;
}

/// Presses until it is killed, or all is pressed: then it ends by itself.
int press(const std::string& folder, unsigned seed, int argc, char** argv) {
    qputenv("XDG_STATE_HOME", QByteArray::fromStdString(folder + "/state"));
    QApplication application(argc, argv);
    app::apply_theme(application);
    app::Workroom room(QString::fromStdString(folder + "/data"));
    app::MainWindow window(room);
    window.show();
    const auto settle = [&] {
        do QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
        while (room.busy() || room.catching_up() || !room.records().opened());
    };
    settle();
    room.keeper().open(QString::fromStdString(folder + "/shift.orthema"));
    settle();
    auto* bench = static_cast<app::PressBench*>(window.bench(QStringLiteral("press")));
    window.go_to(QStringLiteral("press"));
    settle();
    std::FILE* shown = std::fopen((folder + "/shown").c_str(), "a");
    QObject::connect(&room.records(), &app::Records::kept, [&](const QString& id) {
        std::fprintf(shown, "%s\n", id.toUtf8().constData());
        std::fflush(shown);
    });
    app::PressDesk& desk = bench->desk();
    SamplingRule rule = desk.recorder().rule();
    rule.every = 1;
    desk.recorder().set_rule(rule);
    int recorded = 0;
    for (const PressRecord& r : room.records().all()) recorded += r.pieces;
    if (!desk.kept() && recorded >= pieces) return 0;  // killed between the last piece and its own end
    if (desk.kept())
        desk.go_on();
    else
        desk.begin(2000, false);
    settle();
    if (!desk.running()) return 3;
    std::mt19937 dice(seed);
    std::normal_distribution<double> lands(4, 3);
    while (!desk.shift().over()) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 3);
        if (const app::PieceToMeasure* now = desk.recorder().wanted()) {
            Taped tape;
            for (const TapeAsk& a : now->asks)
                if (a.needed) tape[a.at] = a.planned + lands(dice);
            desk.recorder().measured(tape);
        }
        desk.next();
    }
    desk.end();
    settle();
    room.records().flush();
    QCoreApplication::processEvents();
    std::fclose(shown);
    return 0;
}

/// Everything that was shown is there, and of each id one holds. Returns how many pieces of this shift are recorded.
int look(const std::string& folder) {
    const std::string library = folder + "/data/shop.sqlite";
    if (!std::filesystem::exists(library)) return 0;
    const auto book = RecordBook::open(library);
    if (!book) return 0;  // killed while it was being made
    const auto all = (*book)->records();
    if (!all) broken("the records cannot be read: " + all.sentence());
    std::map<std::string, int> ids, lines;  // the version that holds; how often it was shown: as pressed, then as measured
    for (const PressRecord& r : *all)
        if (!ids.emplace(r.id, r.version).second) broken("a record is there twice: " + r.id);
    if (std::filesystem::exists(folder + "/shown")) {
        const std::string shown = read_file(folder + "/shown").value();
        for (std::size_t at = 0, end = 0; (end = shown.find('\n', at)) != std::string::npos; at = end + 1)
            if (const std::string id = shown.substr(at, end - at); ids[id] < ++lines[id]) broken("shown as kept, and lost: " + id);
    }
    int count = 0;
    for (const PressRecord& r : *all) count += r.pieces;
    return count;
}

}  // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    if (argc > 3 && std::string(argv[1]) == "--press") return press(argv[2], static_cast<unsigned>(std::atoi(argv[3])), argc, argv);
    if (argc < 3) {
        std::fprintf(stderr, "usage: shift_kills KILLS FOLDER [SEED]\n");
        return 2;
    }
    const int kills = std::atoi(argv[1]);
    const std::string top = argv[2];
    std::filesystem::create_directories(top);
    std::filesystem::permissions(top, std::filesystem::perms::owner_all);
    qputenv("XDG_RUNTIME_DIR", QByteArray::fromStdString(top));
    std::mt19937 random(argc > 3 ? static_cast<unsigned>(std::atoi(argv[3])) : 1);
    int killed = 0, shifts = 0;
    while (killed < kills) {
        const std::string folder = top + "/" + std::to_string(shifts);
        std::filesystem::remove_all(folder);
        std::filesystem::create_directories(folder);
        if (!save_order(folder + "/shift.orthema", shift_order(), test::small_art())) broken("the order cannot be saved");
        for (bool over = false; !over;) {
            const pid_t child = ::fork();
            if (child == 0) {
                const std::string seed = std::to_string(random());
                ::execl("/proc/self/exe", "shift_kills", "--press", folder.c_str(), seed.c_str(), nullptr);
                std::_Exit(9);
            }
            // begun anew it takes a while to come up; killed anywhere, but never for ever before it has pressed a piece
            const auto wait = std::chrono::milliseconds(800 + random() % 2500);
            int status = 0;
            for (const auto end = std::chrono::steady_clock::now() + wait; std::chrono::steady_clock::now() < end;) {
                if (::waitpid(child, &status, WNOHANG) == child) {
                    over = true;
                    break;
                }
                std::this_thread::sleep_for(std::chrono::milliseconds(5));
            }
            if (over) {
                if (!WIFEXITED(status) || WEXITSTATUS(status) != 0) broken("the window ended by itself");
                break;
            }
            ::kill(child, SIGKILL);
            ::waitpid(child, &status, 0);
            ++killed;
            (void)look(folder);
            (void)random();
        }
        ++shifts;
        if (const int recorded = look(folder); recorded != pieces)
            broken(std::to_string(recorded) + " pieces are recorded of " + std::to_string(pieces));
    }
    std::printf("a shift in a window: %d kills in %d shifts, nothing lost, nothing twice\n", killed, shifts);
    return 0;
}
