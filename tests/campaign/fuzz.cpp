// Hostile input for every reader: libFuzzer's entry, one reader at a time, by the environment's ORTHEMA_READER. What is read is also
// written and read again: nothing that was taken may be lost. See packaging/campaign.
#include <sys/mman.h>
#include <unistd.h>

#include <array>
#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <functional>
#include <map>
#include <random>

#include "core/order/limits.h"
#include "devices/camera.h"
#include "devices/cutter.h"
#include "devices/press.h"
#include "files/chart_csv.h"
#include "files/json_in.h"
#include "files/library.h"
#include "files/nest_json.h"
#include "files/list.h"
#include "files/order_file.h"
#include "files/order_json.h"
#include "files/record_book.h"
#include "files/shift_file.h"
#include "reader/pixels.h"
#include "reader/reader.h"
#include "vision/vision.h"

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);

namespace {

using namespace orthema;
using nlohmann::json;

/// A promise that was broken: the run ends, and the input is kept.
void must(bool holds, const char* what) {
    if (holds) return;
    std::fprintf(stderr, "broken: %s\n", what);
    std::abort();
}

/// Bytes as a file that never touches a disk.
struct MemoryFile {
    int fd;
    std::string path;
    explicit MemoryFile(const std::string& bytes) : fd(::memfd_create("input", 0)), path("/proc/self/fd/" + std::to_string(fd)) {
        must(::write(fd, bytes.data(), bytes.size()) == static_cast<ssize_t>(bytes.size()), "memory");
    }
    ~MemoryFile() { ::close(fd); }
};

void read_order(const std::string& text) {
    const auto parsed = parse_json(text, "The order");
    if (!parsed) return;
    const auto order = order_from_json(*parsed);
    if (!order) return must(!order.sentence().empty(), "a fault has a sentence");
    must(!over_limit(*order), "what was read keeps the limits");
    const auto back = order_from_json(to_json(*order));
    must(back.ok(), "an order that was read can be written and read");
    must(*back == *order, "and is the same");
    (void)order_findings(*order);
}

void read_container(const std::string& bytes) {
    const MemoryFile file(bytes);
    const auto package = open_order(file.path);
    if (!package) must(!package.sentence().empty(), "a fault has a sentence");
}

void read_a_list(const std::string& bytes) {
    const auto tables = read_list(bytes);
    if (!tables) return must(!tables.sentence().empty(), "a fault has a sentence");
    for (const NamedTable& t : *tables) {
        const auto columns = guess_columns(t.table, starting_library().styles);
        const LineImport lines = import_lines(t.table, columns, starting_library().styles);
        for (const OrderLine& l : lines.lines) must(l.size.size() <= most_text && l.quantity >= 0, "a line's figures");
    }
}

void read_chart(const std::string& bytes) {
    const auto table = parse_table(bytes);
    if (table) (void)import_chart(*table, starting_library().styles.front());
}

void read_nest(const std::string& bytes) {
    const auto p = nest_problem_from_json(bytes);
    if (p)
        for (const NestPiece& piece : p->pieces) must(piece.count >= 1 && !piece.rotations.empty(), "a piece's figures");
}

void read_records(const std::string& bytes) {
    if (const auto records = records_from_json(bytes)) {
        const auto back = records_from_json(records_json(*records));
        must(back.ok() && back->records == records->records, "records that were read can be written and read");
    }
    if (const auto rows = records_from_csv(bytes)) {
        const auto back = records_from_csv(records_csv(*rows));
        must(rows->empty() || back.ok(), "a table of records that was read can be written and read");
    }
}

void read_shift(const std::string& bytes) {
    const auto s = shift_from(bytes);
    if (!s) return;
    const auto back = shift_from(shift_json(*s));
    must(back.ok(), "a shift that was read can be written and read");
}

void read_library(const std::string& bytes) {
    static const std::string path = "/dev/shm/orthema-campaign-" + std::to_string(::getpid()) + ".sqlite";  // its journal lies beside it
    for (const char* part : {"", "-journal", "-wal", "-shm"}) ::unlink((path + part).c_str());
    std::FILE* file = std::fopen(path.c_str(), "wb");
    must(file != nullptr && std::fwrite(bytes.data(), 1, bytes.size(), file) == bytes.size(), "memory");
    std::fclose(file);
    const auto library = Library::open(path);
    if (library) (void)(*library)->content();
}

/// Drawings are left to their libraries' own campaigns, and to the reader's walls.
void read_picture(const std::string& bytes) {
    const auto kind = kind_of(bytes);
    if (!kind || *kind == ArtKind::svg || *kind == ArtKind::pdf) return;
    const auto pixels = reader::decode_pixels(*kind, bytes, "picture");
    if (!pixels) return must(!pixels.sentence().empty(), "a fault has a sentence");
    must(pixels->rgba.size() == 4 * std::size_t(pixels->width) * std::size_t(pixels->height), "as many pixels as it says");
    if (pixels->rgba.size() > 200000) return;
    const ArtFacts f = look_at({pixels->rgba.data(), pixels->width, pixels->height}, false);
    must(f.ink_px.x1 <= f.width_px && f.ink_px.y1 <= f.height_px, "a picture's figures");
}

/// Outlines of a face that may be anything, set in a field.
void read_typeface(const std::string& bytes) {
    const auto words = reader::shape(bytes, "face", {"Kestrel 7", "88"}, true);
    if (!words) return must(!words.sentence().empty(), "a fault has a sentence");
    for (const ShapedWord& word : *words) {
        const SetWord set = set_word({}, word, nullptr, false);
        must(set.letters.empty() || bounds(set.letters).width() <= field_side * 1.001, "a word stays in its field");
    }
}

constexpr std::array<std::pair<Family, Face>, 6> photographed{{{Family::tag, Face::front},
                                                               {Family::infant_bodysuit, Face::front},
                                                               {Family::coaster, Face::front},
                                                               {Family::mug, Face::wrap},
                                                               {Family::tapered_tumbler, Face::wrap},
                                                               {Family::cap, Face::cap_front}}};

/// One of each kind, as the simulated camera sees it.
const std::vector<std::pair<Scene, Photo>>& photographs() {
    static const std::vector<std::pair<Scene, Photo>> taken = [] {
        std::vector<std::pair<Scene, Photo>> out;
        for (const auto& [family, face] : photographed)
            for (const BlankStyle& style : starting_library().styles)
                if (style.family == family) {
                    Scene scene = usual_scene(family, face, style.chart.at(style.sizes.front()), 7, 1);
                    scene.lens = with_width(scene.lens, 1000);
                    Photo photo = simulated_photo(scene, 7);
                    out.emplace_back(std::move(scene), std::move(photo));
                    break;
                }
        return out;
    }();
    return taken;
}

/// A photograph with things lying on it, and whatever may be asked of it: what is read of the bytes, one after the other.
void read_photograph(const std::string& bytes) {
    std::size_t at = 0;
    const auto next = [&] { return at < bytes.size() ? static_cast<std::uint8_t>(bytes[at++]) : std::uint8_t{0}; };
    const auto& taken = photographs();
    const auto& [scene, as_taken] = taken[next() % taken.size()];
    Photo photo = as_taken;
    BlankAsked asked;
    asked.family = photographed[next() % photographed.size()].first;
    asked.face = photographed[next() % photographed.size()].second;
    if (next() % 2 == 0) {  // mostly what is there
        asked.family = scene.family;
        asked.face = scene.face;
    }
    asked.standing = next() % 2 == 0;
    asked.expected = scene.measures;
    for (int k = next() % 4; k > 0; --k) {
        const auto all = family_measures(asked.family);
        const double mm = std::pow(next() / 16.0, 3);
        asked.expected[all[next() % all.size()]].value = Length::from_mm(mm);
    }
    const int w = photo.image.width, h = photo.image.height;
    for (int k = next() % 6; k > 0; --k) asked.on_outline.push_back({(next() - 20) * w / 200.0, (next() - 20) * h / 200.0});
    for (int k = next() % 12; k > 0; --k) {
        const int x = next() * w / 256, y = next() * h / 256, to_x = std::min(w, x + 4 * next()), to_y = std::min(h, y + 4 * next());
        const std::array<std::uint8_t, 3> colour{next(), next(), next()};
        for (int j = y; j < to_y; ++j)
            for (int i = x; i < to_x; ++i)
                std::copy(colour.begin(), colour.end(), photo.image.rgba.data() + 4 * (std::size_t(j) * std::size_t(w) + std::size_t(i)));
    }
    if (next() % 8 == 0) photo.focal_px = std::pow(next() / 20.0, 4);
    const auto table = vision::find_table(photo, {});
    if (!table) return must(!table.sentence().empty(), "a fault has a sentence");
    const auto blank = vision::measure_blank(photo, *table, asked, {});
    if (!blank) return must(!blank.sentence().empty(), "a fault has a sentence");
    must(!blank->refused.empty() || !blank->figures.empty(), "figures, or why there are none");
    for (const auto& [m, f] : blank->figures)
        must(std::isfinite(f.mm) && f.mm > 0 && std::isfinite(f.error) && f.error > 0, "a figure with its error");
    if (family_build(asked.family) == Build::wrap) return;
    DesignAsked design;
    design.picture = {24, 16, std::vector<std::uint8_t>(4 * 24 * 16, 180)};
    design.planned = {-1.0 * next(), 1.0 * next(), 1.0 * next(), 2.0 * next()};
    const auto found = vision::find_design(photo, *table, *blank, design, {});
    if (!found) return must(!found.sentence().empty(), "a fault has a sentence");
    must(std::isfinite(found->middle.x) && std::isfinite(found->angle) && std::isfinite(found->width), "a design's figures");
}

void read_press(const std::string& bytes) { (void)reading_from(bytes); }

void read_cut(const std::string& bytes) { (void)SimulatedCutter({}).cut(bytes, 500, 1000, {}); }

using Read = void (*)(const std::string&);
const std::map<std::string, Read>& readers() {
    static const std::map<std::string, Read> all{{"order", read_order},
                                                 {"container", read_container},
                                                 {"list", read_a_list},
                                                 {"chart", read_chart},
                                                 {"nest", read_nest},
                                                 {"shift", read_shift},
                                                 {"library", read_library},
                                                 {"picture", read_picture},
                                                 {"press", read_press},
                                                 {"cut", read_cut},
                                                 {"records", read_records},
                                                 {"typeface", read_typeface},
                                                 {"photograph", read_photograph}};
    return all;
}

const char* chosen_name() {
    const char* name = std::getenv("ORTHEMA_READER");
    return name == nullptr ? "order" : name;
}

Read chosen() {
    static const Read read = [] {
        const auto it = readers().find(chosen_name());
        if (it == readers().end()) {
            std::fprintf(stderr, "there is no reader called %s\n", chosen_name());
            std::exit(2);
        }
        return it->second;
    }();
    return read;
}

/// One thing in a tree of JSON is changed: a number to an end of its range, a text, an entry twice, one gone, two in each other's place.
void change(json& j, std::mt19937& random) {
    std::vector<json*> all;
    const std::function<void(json&)> gather = [&](json& one) {
        all.push_back(&one);
        if (all.size() > 200000) return;
        if (one.is_structured())
            for (json& part : one) gather(part);
    };
    gather(j);
    json& one = *all[random() % all.size()];
    static const std::vector<json> odd = {0,
                                          -1,
                                          1,
                                          0.5,
                                          1e9,
                                          -1e9,
                                          1e300,
                                          2147483647,
                                          nullptr,
                                          true,
                                          "",
                                          "\xff",
                                          "none",
                                          json::array(),
                                          json::object(),
                                          std::string(5000, 'x'),
                                          "2027-02-30",
                                          "XL",
                                          255,
                                          256};
    switch (random() % 6) {
    case 0: one = odd[random() % odd.size()]; break;
    case 1:
        if (one.is_number()) one = one.get<double>() * (random() % 2 == 0 ? -1 : 1000);
        break;
    case 2:
        if (one.is_array() && !one.empty()) one.push_back(one[random() % one.size()]);
        break;
    case 3:
        if (one.is_structured() && !one.empty()) one.erase(std::next(one.begin(), static_cast<std::ptrdiff_t>(random() % one.size())));
        break;
    case 4: std::swap(one, *all[random() % all.size()]); break;
    default:
        if (one.is_string() && !one.empty()) {
            auto& s = one.get_ref<std::string&>();
            if (s.empty()) return;
            s[random() % s.size()] = static_cast<char>(random());
        }
    }
}

}  // namespace

/// What is made once is no part of any input's time.
extern "C" int LLVMFuzzerInitialize(int* /*argc*/, char*** /*argv*/) {
    if (chosen_name() == std::string("photograph")) photographs();
    return 0;
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    chosen()(std::string(reinterpret_cast<const char*>(data), size));
    return 0;
}

/// Most inputs of the readers of JSON stay JSON: what is broken at its first byte shows little.
extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most_size, unsigned seed) {
    static const bool tree = [] {
        const std::string name = chosen_name();
        return name == "order" || name == "nest" || name == "shift";
    }();
    std::mt19937 random(seed);
    if (!tree || random() % 5 == 0) return LLVMFuzzerMutate(data, size, most_size);
    json j = json::parse(data, data + size, nullptr, false);
    if (j.is_discarded() || !j.is_structured()) return LLVMFuzzerMutate(data, size, most_size);
    for (unsigned k = 0; k < 1 + random() % 4; ++k) change(j, random);
    const std::string text = j.dump(-1, ' ', false, json::error_handler_t::replace);
    if (text.size() > most_size) return LLVMFuzzerMutate(data, size, most_size);
    std::copy(text.begin(), text.end(), data);
    return text.size();
}
