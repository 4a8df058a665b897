// What is kept on disk, written over and over by a child that is killed at any moment: afterwards it opens, is one of the states that were
// written, and the next writing leaves nothing over.
// usage: kill_loop order|shift|library|records|stock|export|full KILLS FOLDER [SEED]
#include <signal.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <functional>
#include <random>
#include <set>
#include <string>
#include <thread>

#include "files/library.h"
#include "files/order_file.h"
#include "files/page_export.h"
#include "files/record_book.h"
#include "files/safe_file.h"
#include "files/shift_file.h"
#include "files/stock_book.h"
#include "support/support.h"

namespace {

using namespace orthema;

[[noreturn]] void broken(const std::string& what) {
    std::fprintf(stderr, "broken: %s\n", what.c_str());
    std::exit(1);
}

/// The state of a round: long enough that writing takes a while, and known again by its number.
Order order_of(int number) {
    Order order = test::small_order();
    order.name = "round " + std::to_string(number);
    for (int k = 0; k < 3000; ++k) order.lines.own().push_back(order.lines[0]);
    order.lines.own().back().quantity = 1 + number % 90000;
    return order;
}
KeptShift shift_of(int number) {
    KeptShift s;
    s.loads = number % 90000;
    s.order = "round " + std::to_string(s.loads);
    for (int k = 0; k < 2000; ++k) s.record.pieces.push_back({"load " + std::to_string(k), false, false, {0, 1}, {double(number), -1}});
    return s;
}
LibraryContent library_of(int number) {
    LibraryContent all = starting_library();
    for (BlankStyle& s : all.styles) s.name = "round " + std::to_string(number);
    return all;
}

struct Kind {
    std::function<void(int)> write;  ///< in the child, again and again
    std::function<void()> look;      ///< afterwards, in the parent: ends the program where a promise was broken
};

}  // namespace

int main(int argc, char** argv) {
    if (argc < 4) {
        std::fprintf(stderr, "usage: kill_loop order|shift|library|records|stock|export|full KILLS FOLDER [SEED]\n");
        return 2;
    }
    const std::string kind = argv[1], folder = argv[3];
    const int kills = std::atoi(argv[2]);
    std::mt19937 random(argc > 4 ? static_cast<unsigned>(std::atoi(argv[4])) : 1);
    std::filesystem::create_directories(folder);
    const std::string order_path = folder + "/kept.orthema", shift_path = folder + "/shift.json", library_path = folder + "/shop.sqlite",
                      out = folder + "/out";
    const ArtBytes art = test::small_art();
    const auto whole_order = [&](const std::string& path) {
        if (!std::filesystem::exists(path)) return;
        const auto back = open_order(path);
        if (!back) broken("the order cannot be opened: " + back.sentence());
        if (back->order.lines.size() != 3001u && back->order.lines.size() != test::small_order().lines.size() + 3000)
            broken("the order is not whole");
        if (order_of(0).name.size() > back->order.name.size() ||
            back->order.lines.all().back().quantity != 1 + std::atoi(back->order.name.c_str() + 6) % 90000)
            broken("the order is of two rounds");
    };
    // what the child had shown as kept, a line each
    const auto shown_is_in = [&](const std::set<std::string>& there, const std::string& what) {
        if (!std::filesystem::exists(folder + "/shown")) return;
        const std::string shown = read_file(folder + "/shown").value();
        for (std::size_t at = 0, end = 0; (end = shown.find('\n', at)) != std::string::npos; at = end + 1)
            if (!there.contains(shown.substr(at, end - at)))
                broken(what + " that was shown as kept is lost: " + shown.substr(at, end - at));
    };
    const bool full = kind == "full";
    Kind k;
    if (kind == "order") {
        k.write = [&](int n) { (void)save_order(order_path, order_of(n), art); };
        k.look = [&] { whole_order(order_path); };
    } else if (kind == "shift") {
        k.write = [&](int n) { (void)write_file(shift_path, shift_json(shift_of(n))); };
        k.look = [&] {
            if (!std::filesystem::exists(shift_path)) return;
            const auto s = shift_from(read_file(shift_path).value());
            if (!s) broken("the shift cannot be read: " + s.sentence());
            if (s->record.pieces.size() != 2000 || s->order != "round " + std::to_string(s->loads)) broken("the shift is not whole");
        };
    } else if (kind == "library") {
        k.write = [&](int n) {
            auto library = Library::open(library_path);
            if (library) (void)(*library)->merge(library_of(n));
        };
        k.look = [&] {
            auto library = Library::open(library_path);
            if (!library) broken("the library cannot be opened: " + library.sentence());
            const auto content = (*library)->content();
            if (!content) broken("the library cannot be read: " + content.sentence());
            std::set<std::string> rounds;
            for (const BlankStyle& s : content->styles)
                if (s.name.rfind("round ", 0) == 0) rounds.insert(s.name);
            if (rounds.size() > 1 || content->styles.size() != starting_library().styles.size()) broken("the library is of two rounds");
        };
    } else if (kind == "records") {
        // one record after the other, each shown as kept once add() has come back: a line in a file that is flushed
        k.write = [&](int n) {
            static auto book = [&] {
                (void)Library::open(library_path);
                return RecordBook::open(library_path);
            }();
            static std::FILE* shown = std::fopen((folder + "/shown").c_str(), "a");
            PressRecord r;
            r.id = "round " + std::to_string(::getpid()) + "/" + std::to_string(n);
            r.at = "2027-06-12T09:00:00";
            r.landing = Landing{};
            r.landing->aside = n % 100;
            if (!book || !(*book)->add({r}) || !(*book)->add({r})) return;  // twice, as after a kill
            std::fprintf(shown, "%s\n", r.id.c_str());
            std::fflush(shown);
        };
        k.look = [&] {
            if (!std::filesystem::exists(library_path)) return;
            if (const auto library = Library::open(library_path); !library) broken("the library cannot be opened: " + library.sentence());
            const auto book = RecordBook::open(library_path);
            const auto all = book ? (*book)->records() : Result<std::vector<PressRecord>>(book.error());
            if (!all) broken("the records cannot be read: " + all.sentence());
            std::set<std::string> there;
            for (const PressRecord& r : *all)
                if (!there.insert(r.id).second) broken("a record is there twice: " + r.id);
            shown_is_in(there, "a record");
        };
    } else if (kind == "stock") {
        // pieces go from one bag to another and are promised, counts go up by ones; what came back as done is shown, as with records
        k.write = [&](int n) {
            static const std::unique_ptr<StockBook> book = [&]() -> std::unique_ptr<StockBook> {
                (void)Library::open(library_path);
                auto opened = StockBook::open(library_path);
                if (!opened) return nullptr;
                for (const char* id : {"here", "there", "ones"}) {
                    StockEntry e;
                    e.id = e.name = id;
                    e.kind = StockKind::transfers;
                    if (find_entry(*(*opened)->all(), id) == nullptr) (void)(*opened)->put(e);
                }
                (void)(*opened)->move({{"first", "here", 1000, "", "counted in", ""}});
                return std::move(*opened);
            }();
            static std::FILE* shown = std::fopen((folder + "/shown").c_str(), "a");
            const std::string deed = std::to_string(::getpid()) + "/" + std::to_string(n);
            const double some = n % 7;
            if (!book || !book->move({{"out " + deed, "here", -some, "", "", ""}, {"in " + deed, "there", some, "", "", ""}})) return;
            (void)book->hold({"job"}, {{"there", "job", double(n % 500)}});
            const StockMove one{"one " + deed, "ones", 1, "", "counted in", ""};
            if (!book->move({one}) || !book->move({one})) return;  // twice, as after a kill
            std::fprintf(shown, "%s\n", one.id.c_str());
            std::fflush(shown);
        };
        k.look = [&] {
            if (!std::filesystem::exists(library_path)) return;
            if (const auto library = Library::open(library_path); !library) broken("the library cannot be opened: " + library.sentence());
            const auto book = StockBook::open(library_path);
            const auto all = book ? (*book)->all() : Result<Stock>(book.error());
            if (!all) broken("the stock cannot be read: " + all.sentence());
            double bags = 0;
            std::set<std::string> ones;
            for (const StockEntry& e : all->entries) {
                double sum = 0, promised = 0;
                const auto moves = (*book)->moves(e.id);
                if (!moves) broken("the deeds cannot be read");
                for (const StockMove& m : *moves) {
                    sum += m.amount;
                    if (e.id == "ones") ones.insert(m.id);
                }
                for (const StockShare& s : e.shares) promised += std::max(0.0, s.held - s.taken);
                if (std::abs(sum - e.on_hand) > 1e-6 || e.on_hand < 0) broken(e.id + " is not what its deeds make");
                if (promised > e.on_hand + 1e-6) broken(e.id + " is promised twice");
                if (e.id != "ones") bags += e.on_hand;
            }
            if (all->entries.size() == 3 && std::abs(bags - 1000) > 1e-6 && bags > 0) broken("half a deed was kept");
            shown_is_in(ones, "a count");
        };
    } else if (kind == "export") {
        k.write = [&](int n) {
            Drawing page;
            page.width = page.height = 300;
            page.text({10, 100.0 + n % 50}, "round " + std::to_string(n), 20, palette::ink);
            (void)write_png(out + "/page.png", page, {}, 100);
            (void)write_pdf(out + "/page.pdf", {&page}, {}, "page");
        };
        std::filesystem::create_directories(out);
        k.look = [&] {
            for (const char* name : {"/page.png", "/page.pdf"}) {
                if (!std::filesystem::exists(out + name)) continue;
                const std::string bytes = read_file(out + name).value();
                const std::string end = name[6] == 'p' && name[7] == 'n' ? "IEND" : "%%EOF";
                if (bytes.find(end, bytes.size() < 12 ? 0 : bytes.size() - 12) == std::string::npos)
                    broken(std::string(name) + " is cut short");
            }
        };
    } else if (!full) {
        return 2;
    }
    if (full) {  // a disk that takes so many bytes more: nothing is lost, it is said, and nothing lies over
        ::signal(SIGXFSZ, SIG_IGN);
        if (!save_order(order_path, order_of(0), art)) broken("the first saving");
        int refused = 0;
        for (int round = 0; round < kills; ++round) {
            const pid_t child = ::fork();
            if (child == 0) {
                const rlimit room{random() % 40000, RLIM_INFINITY};
                ::setrlimit(RLIMIT_FSIZE, &room);
                const auto done = save_order(order_path, order_of(round + 1), art);
                if (!done && done.sentence().find("cannot be written") == std::string::npos) broken("the sentence: " + done.sentence());
                std::_Exit(done ? 0 : 7);
            }
            int status = 0;
            ::waitpid(child, &status, 0);
            if (!WIFEXITED(status) || (WEXITSTATUS(status) != 0 && WEXITSTATUS(status) != 7)) broken("a full disk ended the program");
            refused += WEXITSTATUS(status) == 7 ? 1 : 0;
            whole_order(order_path);
            for (const auto& left : std::filesystem::directory_iterator(folder))
                if (left.path().extension() == ".part") broken("left over: " + left.path().string());
            (void)random();
        }
        std::printf("full: %d of %d savings refused, nothing lost, nothing left over\n", refused, kills);
        return refused > 0 ? 0 : 1;
    }
    int killed = 0, alone = 0;
    for (int round = 0; killed < kills; ++round) {
        const pid_t child = ::fork();
        if (child == 0) {
            for (int n = 1000 * round;; ++n) k.write(n);
        }
        std::this_thread::sleep_for(std::chrono::microseconds(random() % 60000));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        if (!WIFSIGNALED(status)) ++alone;
        ++killed;
        // looked at by a program of its own, as it would be: what it holds open ends with it
        const pid_t looker = ::fork();
        if (looker == 0) {
            k.look();
            k.write(1000 * round + 999);
            k.look();
            std::_Exit(0);
        }
        ::waitpid(looker, &status, 0);
        if (!WIFEXITED(status) || WEXITSTATUS(status) != 0) {
            std::fprintf(stderr, "after kill %d\n", killed);
            return 1;
        }
        for (const auto& left : std::filesystem::recursive_directory_iterator(folder))
            if (left.path().extension() == ".part") broken("left over: " + left.path().string());
    }
    std::printf("%s: %d kills, nothing lost, nothing left over\n", kind.c_str(), killed);
    return alone == 0 ? 0 : 1;
}
