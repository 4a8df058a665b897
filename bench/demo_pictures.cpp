// The kite stall's totes and face coverings: a photograph whose background is taken out, a word whose letters hold pictures, and a print
// put together, written beside the demo order. usage: demo_pictures DEMO-FOLDER PICTURES-FOLDER OUT.orthema
#include <cstdio>

#include "core/fitting/mendings.h"
#include "core/order/rules.h"
#include "core/transfers/choices.h"
#include "files/lettering.h"
#include "files/order_file.h"
#include "files/put_together.h"
#include "files/word_picture.h"
#include "files/safe_file.h"

#include "demo_order.h"

using namespace orthema;

namespace {

/// A scene, and where those stand in it who matter: pixels of its 1400.
struct Scene {
    const char* file;
    std::vector<Point> subject;
};
const std::vector<Scene>& scenes() {
    static const std::vector<Scene> all = {{"flyer-on-the-hill", {{650, 540}, {770, 580}, {690, 800}}},
                                           {"two-on-the-beach", {{540, 620}, {850, 640}}},
                                           {"kites-at-dusk", {{370, 230}, {470, 400}, {860, 200}}},
                                           {"spool-in-hand", {{570, 370}, {840, 370}, {700, 730}}},
                                           {"row-of-pennants", {{610, 720}, {830, 730}, {640, 880}}},
                                           {"face-of-a-flyer", {{510, 520}, {910, 520}, {710, 280}, {710, 750}, {590, 670}, {830, 670}}}};
    return all;
}

/// The decoration of this art on that run, so wide.
Order put_on(const Order& order, const RunKey& run, const std::string& art, double width) {
    std::string made;
    Order o = with_new_design(order, run, Location::full_front, *find_art(order, art), &made);
    Decoration d = *find_decoration(o, made);
    d.sizing.base_width = Length::from_mm(width);
    return with_decoration(o, d);
}

/// Face coverings for the stall's crew, of three layers that are one print: the kites at dusk, letters that one sees them through, a mark.
Order with_coverings(Order o, ArtBytes& bytes, const std::string& folder, const std::string& ground) {
    const auto mark = read_file(folder + "/crossed-kites.svg");
    const BlankStyle* covering = find_style(o, "face-covering");
    if (!mark || covering == nullptr) throw std::runtime_error("no mark or no face coverings");
    const auto kites = add_art(o, bytes, std::make_shared<const std::string>(*mark), "crossed-kites.svg");
    Lettering letters;
    letters.words = "Up we go";
    letters.height = 0.15;
    letters.colour = {0.96, 0.78, 0.25, 1};
    const std::string words = enrol_lettering(o, bytes, letters, shipped_typefaces().back(), nullptr, "Up we go");
    PutTogether print;
    print.style = covering->id;
    print.size = "adult";
    print.bleed = Length::from_mm(-22);  // the loops' seams stay clear of the platen
    print.ground = ground;
    LaidOver see;
    see.picture = words;
    see.width = Length::from_mm(104);
    see.upright = From::end;
    see.down = Length::from_mm(34);
    see.see_through = true;
    see.tint = 0.35;
    see.edge = Length::from_mm(0.9);
    LaidOver small;
    small.picture = *kites;
    small.width = Length::from_mm(26);
    small.level = From::end;
    small.across = Length::from_mm(36);
    small.upright = From::start;
    small.down = Length::from_mm(36);
    print.over = {see, small};
    const std::string id = enrol_together(o, print, "Covering at dusk");
    const RunKey white{covering->id, covering->colours.front().name};
    o.lines.own().push_back({white.style, white.colour, print.size, 16, ""});
    // a plate that lies between the loops' seams and below the nose wire
    for (Press& p : o.presses.own())
        if (p.id == "press-small") p.platens.push_back({"covering plate", Length::from_mm(174), Length::from_mm(108)});
    const Order before = o;
    std::string made;
    o = with_new_design(o, white, Location::whole_front, *find_art(o, id), &made);
    Decoration d = *find_decoration(o, made);
    d.press = "press-small";
    o = with_decoration(o, d);
    return with_new_ones_suited(o, before, read_all_art(o, bytes).known->facts);
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 4) return 2;
    const auto demo = open_order(argv[1]);
    const auto photograph = read_file(std::string(argv[2]) + "/kite-on-a-wall.jpg");
    if (!demo || !photograph) return std::fprintf(stderr, "%s\n", (!demo ? demo.sentence() : photograph.sentence()).c_str()), 1;
    Order o = bare_order(demo->order, "job-kite-totes");
    o.name = "Kite stall totes";
    o.customer = "Kite stall";
    o.note = "The kite that won last year, as it was photographed.";
    o.due = "2027-06-11";
    const BlankStyle* tote = find_style(o, "cotton-tote");
    if (tote == nullptr) return std::fprintf(stderr, "no totes in the demo\n"), 1;
    const RunKey run{tote->id, tote->colours.front().name};
    o = with_lines(o, {OrderLine{run.style, run.colour, tote->sizes.front(), 14, ""}});
    ArtBytes bytes;
    const auto art = add_art(o, bytes, std::make_shared<const std::string>(*photograph), "kite-on-a-wall.jpg");
    if (!art) return std::fprintf(stderr, "%s\n", art.sentence().c_str()), 1;
    Mending ground;
    ground.kind = MendKind::background;
    ground.counters = true;
    o = with_mendings(o, *art, {ground}, {});
    o = put_on(o, run, *art, 230);
    // the word: its second letter a kite, its last shared by two
    std::vector<std::string> pictures;
    for (const Scene& scene : scenes()) {
        const std::string file = std::string(scene.file) + ".jpg";
        const auto bytes_of = read_file(std::string(argv[2]) + "/" + file);
        if (!bytes_of) return std::fprintf(stderr, "%s\n", bytes_of.sentence().c_str()), 1;
        const auto id = add_art(o, bytes, std::make_shared<const std::string>(*bytes_of), file);
        if (!id) return std::fprintf(stderr, "%s\n", id.sentence().c_str()), 1;
        std::vector<Point> subject;
        for (const Point& p : scene.subject) subject.push_back(p * (1 / 1400.0));
        o = with_subject(o, *id, subject);
        pictures.push_back(*id);
    }
    WordPicture word;
    word.word = "KITES";
    word = with_places(word);
    word.places[1].shape = PlaceShape::kite;
    word.places[4].shared = true;
    word.places[4].line = {{0.5, 0.5}, 160};
    const std::string word_id = enrol_word_picture(o, bytes, word, shipped_typefaces().back(), "Kites in pictures");
    const auto empty = pictures_of(o, *find_art(o, word_id), bytes);
    if (!empty) return std::fprintf(stderr, "%s\n", empty.sentence().c_str()), 1;
    const WordLaid& laid = *empty->at(word_id)->word;
    const WordSuits found = word_suits(laid, o, read_all_art(o, bytes).art, pictures, word.rim);
    for (std::size_t k = 0; k < laid.parts.size(); ++k)
        if (found.best[k] >= 0) {
            WordPlace& place = word.places[laid.parts[k].place];
            (laid.parts[k].second ? place.second : place.first).picture = found.pictures[std::size_t(found.best[k])];
            std::printf("  %s: %.0f %%\n", found.pictures[std::size_t(found.best[k])].c_str(),
                        100 * found.suits[k][std::size_t(found.best[k])].share);
        }
    word.typeface = find_art(o, word_id)->word_picture->typeface;
    o = with_word_picture(o, word_id, word);
    const RunKey navy{tote->id, tote->colours.back().name};
    o = with_lines(o, {OrderLine{navy.style, navy.colour, tote->sizes.back(), 12, ""}});
    o = put_on(o, navy, word_id, 240);
    o = with_coverings(std::move(o), bytes, argv[2], pictures[2]);
    const Shared<KnownArt> known = read_all_art(o, bytes).known;
    o = settled(o, work(o, {}, known).transfer_set(), 5);
    const Work after = work(o, {}, known);
    std::printf("%s: %d pieces, %zu transfers\n", o.name.c_str(), garments_in(o), after.transfer_set().transfers.size());
    for (const Finding& f : after.findings)
        if (f.severity != Severity::note) std::printf("  %s\n", finding_text(f, o.unit).c_str());
    if (auto saved = save_order(argv[3], o, bytes); !saved) return std::fprintf(stderr, "%s\n", saved.sentence().c_str()), 1;
    return 0;
}
