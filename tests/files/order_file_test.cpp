// The order on disk: it comes back the same, and what is hostile or damaged is refused with a sentence.
#include "core/base/utf8.h"
#include "core/order/gang.h"
#include "core/order/lots.h"
#include "files/order_file.h"

#include <sys/stat.h>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>
#include <zip.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "core/order/pieces.h"
#include "core/order/rules.h"
#include "core/sheets/sheets.h"
#include "files/csv.h"
#include "files/order_json.h"
#include "files/safe_file.h"
#include "core/order/ids.h"
#include "support/each_field.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using nlohmann::json;
using test::Folder;

Order full_order() {
    Order order = test::small_order();
    order.due = "2027-06-12";
    order.unit = Unit::inch;
    order.paper = Paper::letter;
    Decoration& d = order.decorations[0];
    d.pins.push_back({"L", Length::from_mm(123.5), {}, Length::from_mm(-4)});
    d.sizing.band_starts = {"L"};
    d.placing.school = PlacingSchool::body_fraction;
    d.placing.centre = Centre::marked;
    d.spares = 3;
    d.placing.landmark = "pocket top";
    d.meetings = {{"gap", "centre line"}};
    d.apart = Length::from_mm(22);
    d.sizing.shared = {{"L", Length::from_mm(180)}};
    d.sizing.past_platen = true;
    order.art[0].marked_centre = Point{0.25, 0.5};
    order.art[0].marks = {{"gap", {0.4, 0.1}}};
    order.art[0].mendings.emplace_back().kind = MendKind::thicken;
    order.customer = "The bakery on the quay";
    order.note = "Before the first race";
    order.hourly = 24.5;
    Job job;
    job.id = "job-quay";
    job.name = "Quay bakery";
    job.customer = "The bakery on the quay";
    job.due = "2027-06-12";
    job.note = "at the back door";
    job.own = std::make_shared<const Order>(test::small_order());
    for (const BroughtList& list : brought_lists) job.*list.list = {{"was", "is"}, {"stayed", ""}};
    order.jobs.push_back(job);
    order.lines[0].job = order.decorations[0].run.job = "job-quay";
    order.layouts.push_back({"film-559", {{"front@2000", 0, 0, 90, 12.5, 33.25, true}, {"front@2000", 1, 1, 0, 0.1, 0.2, false}}});
    MediumLayout& layout = order.layouts.back();
    layout.stock = {"", "offcut"};
    layout.fill = {{"front@2000", 2.5, 3}};
    layout.printed = {{"front@2000", 4, "job-quay"}, {"front@2000", 2, "job-quay", "bag/job-quay/front@2000"}};
    order.pricing = {true, 35, {{Location::full_front, 4.5}}, 25, {{10, 5}, {50, 12.5}}, 8, 19, "ready on Friday"};
    order.approval = {"The bakers", "2027-06-01", {{"front", "M", "ABCDEF"}}, "GHIJKL"};
    layout.kept = LaidSheets{{{"front@2000", 0, 1, 180, 5, 6, false}}, {"", "offcut"}};
    for (Medium& m : order.media)
        if (m.id == "film-559") {
            m.cut_offset = Length::from_mm(1.25);
            m.laying = {Cutting::trimmer, 2, true, Length::from_mm(14), Together::sizes, true, {}, Length::from_mm(25), {}};
            m.laying.excluded = {{"clamp", Length::from_mm(10), Length::from_mm(20), Length::from_mm(30), Length::from_mm(40)}};
            m.laying.stock = {{"offcut",
                               "Offcut",
                               Length::from_mm(200),
                               Length::from_mm(300),
                               0.5,
                               {{0, 0}, {300, 0}, {0, 200}},
                               {{{10, 10}, {20, 10}, {10, 20}}}}};
        }
    for (BlankStyle& s : order.styles)
        if (s.id == "adult-tee") {
            s = with_reading(s, "S", Measure::chest, Length::from_mm(451.25), "2026-11-19");
            s = with_reading(s, "S", Measure::chest, Length::from_mm(455), "2026-11-20");
            s.features = {usual_feature(FeatureKind::zip, Face::back, 500, 700, true)};
            s.sample_size = "M";
            s.tags = {"soft", "summer"};
            s.archived = true;
        }
    return order;
}

/// A ZIP with these entries, made by libzip straight.
std::string zip_of(const std::vector<std::pair<std::string, std::string>>& entries, const std::string& path) {
    int error = 0;
    zip_t* zip = zip_open(path.c_str(), ZIP_CREATE | ZIP_TRUNCATE, &error);
    for (const auto& [name, bytes] : entries) {
        zip_source_t* s = zip_source_buffer(zip, bytes.data(), bytes.size(), 0);
        zip_file_add(zip, name.c_str(), s, ZIP_FL_ENC_UTF_8);
    }
    zip_close(zip);
    return path;
}

void expect_refused(const std::string& path, const std::string& part = "") {
    const auto opened = open_order(path);
    ASSERT_FALSE(opened) << path;
    EXPECT_GT(opened.sentence().size(), 20u);
    EXPECT_EQ(opened.sentence().back(), '.');
    if (!part.empty()) EXPECT_NE(opened.sentence().find(part), std::string::npos) << opened.sentence();
}

TEST(OrderFile, ASmallFileThatWouldTakeGigabytesIsRefusedBeforeItDoes) {
    std::string zeros = "{\"format\":\"orthema-order\",\"lines\":[";
    zeros.reserve(zeros.size() + 14'000'010);
    for (int k = 0; k < 7'000'000; ++k) zeros += "0,";
    const auto parsed = parse_json(zeros + "0]}", "The order file");
    ASSERT_FALSE(parsed);
    EXPECT_NE(parsed.sentence().find("more values"), std::string::npos) << parsed.sentence();
    EXPECT_TRUE(parse_json(zeros.substr(0, zeros.rfind(',', 2'000'000) + 1) + "0]}", "The order file"));
    std::string commas(30'000'000, ',');
    const auto table = parse_table(commas);
    EXPECT_FALSE(table);
    if (!table) EXPECT_FALSE(table.sentence().empty());
}

TEST(OrderFile, ComesBackTheSame) {
    const Folder folder;
    const Order order = full_order();
    ASSERT_TRUE(save_order(folder / "a.orthema", order, test::small_art()));
    const auto back = open_order(folder / "a.orthema");
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(back->order, order);
    EXPECT_EQ(*back->art.at(order.art[0].hash), test::corner_svg);
}

TEST(OrderFile, SavingTwiceGivesTheSameBytes) {
    const Folder folder;
    ASSERT_TRUE(save_order(folder / "a", full_order(), test::small_art()));
    ASSERT_TRUE(save_order(folder / "b", full_order(), test::small_art()));
    EXPECT_EQ(test::slurp(folder / "a"), test::slurp(folder / "b"));
}

TEST(OrderFile, OpensUnpackedAsWell) {
    const Folder folder;
    ASSERT_TRUE(save_order(folder / "a.orthema", full_order(), test::small_art()));
    ASSERT_EQ(test::run("cd '" + folder.path() + "' && mkdir u && cd u && python3 -m zipfile -e ../a.orthema .").code, 0);
    const auto back = open_order(folder / "u");
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(back->order, full_order());
    test::spill(folder / "u/art/" + full_order().art[0].hash + ".svg", "<svg/>");
    expect_refused(folder / "u", "changed or damaged");
}

TEST(OrderFile, TheDemoOpensWithItsTwoFindings) {
    const auto demo = open_order(test::source("demo/marrow-hill"));
    ASSERT_TRUE(demo) << demo.sentence();
    EXPECT_GE(garments_in(demo->order), 120);
    EXPECT_EQ(demo->order.art.size(), 12u);
    Findings all = order_findings(demo->order);
    const auto art = load_all_art(demo->order, demo->art, &all);
    const FitPlan plan = fit(demo->order, facts_of(art));
    const TransferSet set = transfers(demo->order, plan, facts_of(art));
    const SheetPlan sheets = sheet_plan(demo->order, set);
    all.insert(all.end(), set.findings.begin(), set.findings.end());
    all.insert(all.end(), plan.findings.begin(), plan.findings.end());
    all.insert(all.end(), sheets.findings.begin(), sheets.findings.end());
    std::erase_if(all, [](const Finding& f) { return f.severity == Severity::note; });
    ASSERT_EQ(all.size(), 2u);
    EXPECT_FALSE(has_stop(all)) << "its layout is sound";
}

TEST(OrderFile, ValidatesAgainstItsSchema) {
    const Folder folder;
    test::spill(folder / "order.json", to_json(full_order()).dump());
    const std::string script =
        "import json,sys,jsonschema\n"
        "schema=json.load(open(sys.argv[1]));jsonschema.Draft7Validator.check_schema(schema)\n"
        "v=jsonschema.Draft7Validator(schema)\n"
        "for f in sys.argv[2:]:\n"
        " e=list(v.iter_errors(json.load(open(f))))\n"
        " print(f, len(e), [x.message for x in e[:3]])\n"
        " if e: sys.exit(1)\n";
    test::spill(folder / "validate.py", script);
    const auto said = test::run("/usr/bin/python3 '" + (folder / "validate.py") + "' '" + test::source("docs/order.schema.json") + "' '" +
                                (folder / "order.json") + "' '" + test::source("demo/marrow-hill/order.json") + "'");
    EXPECT_EQ(said.code, 0) << said.out;
    json wrong = to_json(full_order());
    wrong["decorations"][0]["sizing"]["step_mm"] = "five";
    test::spill(folder / "wrong.json", wrong.dump());
    EXPECT_NE(test::run("/usr/bin/python3 '" + (folder / "validate.py") + "' '" + test::source("docs/order.schema.json") + "' '" +
                        (folder / "wrong.json") + "'")
                  .code,
              0)
        << "the schema must be able to fail";
}

TEST(OrderFile, EveryFieldIsWrittenAndReadOrRefusedWithASentence) {
    int kept = 0, refused = 0;
    const Folder folder;
    Order whole = full_order();
    whole.photographs.push_back({whole.styles[0].id, "M", "record-1", "2027-06-08", std::string(64, 'a')});
    const auto first_alone = [](auto& list) { list.own().resize(std::min<std::size_t>(1, list.size())); };
    first_alone(whole.styles);
    first_alone(whole.media);
    first_alone(whole.presses);
    first_alone(whole.methods);
    first_alone(whole.jigs);
    for (int n = 0;; ++n) {
        Order changed = whole;
        test::Nth nth{n, ""};
        nth.walk(changed, "order");
        if (nth.path.empty()) break;
        changed = followed(numbered(std::move(changed)));  // as every edit leaves an order
        const json written = to_json(changed);
        const auto read = order_from_json(written);
        if (!read) {
            ++refused;
            EXPECT_FALSE(read.sentence().empty()) << nth.path;
            continue;
        }
        ++kept;
        // figures of a size that is not in the run, and how a step that is no peel is peeled, mean nothing
        if (nth.path == "order.styles[].sizes" || nth.path == "order.methods[].recipe[].peel") continue;
        EXPECT_TRUE(*read == changed) << nth.path << " is not kept in the file";
        if (nth.path == "order.due" || nth.path == "order.jobs[].due") continue;  // made no date by the change, which the schema asks for
        if (n % test::rounds(5, 1) == 0) test::spill(folder / ("order" + std::to_string(n) + ".json"), written.dump());
    }
    EXPECT_GT(kept, 200);
    EXPECT_LT(refused, kept / 4);
    // what is written is in the schema, too
    const test::Answer schema = test::run(
        "python3 -c \"import json,sys,glob,jsonschema\nv=jsonschema.Draft7Validator(json.load(open(sys.argv[1])))\n"
        "[sys.exit(f+': '+e.message[:300]) for f in glob.glob(sys.argv[2]+'/*.json') for e in v.iter_errors(json.load(open(f)))]\" '" +
        test::source("docs/order.schema.json") + "' '" + folder.path() + "'");
    EXPECT_EQ(schema.code, 0) << schema.out;
}

TEST(OrderFile, KeptPhotographsGoAlongAndMayBeMissing) {
    const Folder folder;
    Order order = full_order();
    ArtBytes bytes = test::small_art();
    for (const char* what : {"one", "two"}) {
        const auto file = std::make_shared<const std::string>(what);
        bytes[content_hash(*file)] = file;
        order.photographs.push_back({order.styles[0].id, "M", "", "2027-06-08", content_hash(*file)});
    }
    ASSERT_TRUE(save_order(folder / "with.orthema", order, bytes));
    const auto back = open_order(folder / "with.orthema");
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(back->order, order);
    EXPECT_EQ(*back->art.at(order.photographs[1].hash), "two");
    // damaged, one of them: the order opens without it
    test::run("cd '" + folder.path() + "' && mkdir out && cd out && unzip -q ../with.orthema && echo changed > photographs/" +
              order.photographs[0].hash + ".jpg");
    const auto less = open_order(folder / "out");
    ASSERT_TRUE(less) << less.sentence();
    ASSERT_EQ(less->order.photographs.size(), 1U);
    EXPECT_EQ(less->order.photographs[0].hash, order.photographs[1].hash);
    // with others in a gang, each job's own go along and come out again
    Order mine = test::small_order(), other = test::small_order();
    mine.job = "mine";
    other.job = "other";
    mine.photographs = order.photographs;
    const auto gang = ganged({mine, other}, "gang", "Both");
    ASSERT_TRUE(gang) << gang.sentence();
    ASSERT_TRUE(save_order(folder / "gang.orthema", *gang, bytes));
    const auto both = open_order(folder / "gang.orthema");
    ASSERT_TRUE(both) << both.sentence();
    EXPECT_EQ(both->order, *gang);
    const std::optional<Order> out = job_taken_out(both->order, mine.job);
    ASSERT_TRUE(out);
    ASSERT_EQ(out->photographs.size(), 2U);
    for (const KeptPhoto& photo : out->photographs.all()) EXPECT_TRUE(both->art.contains(photo.hash));
}

TEST(OrderFile, HostileArchivesAreRefused) {
    const Folder folder;
    const std::string good = to_json(full_order()).dump();
    const std::string art = "art/" + full_order().art[0].hash + ".svg";
    expect_refused(zip_of({{"order.json", good}, {"../../evil", "x"}}, folder / "climb"), "leads out");
    expect_refused(zip_of({{"order.json", good}, {"/etc/evil", "x"}}, folder / "root"), "leads out");
    expect_refused(zip_of({{"order.json", good}, {"art\\..\\evil", "x"}}, folder / "back"), "leads out");
    expect_refused(zip_of({{"order.json", good}}, folder / "no-art"), "lacks the picture");
    expect_refused(zip_of({{"order.json", good}, {art, "<svg/>"}}, folder / "wrong-hash"), "changed or damaged");
    expect_refused(zip_of({{"readme.txt", "hello"}}, folder / "no-order"));
    expect_refused(zip_of({{"order.json", "{\"format\": "}, {art, test::corner_svg}}, folder / "half-json"));
    std::vector<std::pair<std::string, std::string>> many{{"order.json", good}, {art, test::corner_svg}};
    for (int i = 0; i < 2500; ++i) many.emplace_back("art/" + std::to_string(i), "x");
    expect_refused(zip_of(many, folder / "many"), "thousands");
    // a bomb: 1.1 GB of zeros packs to about a megabyte
    const std::string bomb = folder / "bomb";
    ASSERT_EQ(
        test::run(
            "python3 -c \"import zipfile,sys\nz=zipfile.ZipFile(sys.argv[1],'w',zipfile.ZIP_DEFLATED)\nz.writestr('order.json','{}')\n"
            "f=z.open('art/big','w',force_zip64=True)\n[f.write(bytes(1<<20)) for _ in range(1100)]\nf.close();z.close()\" '" +
            bomb + "'")
            .code,
        0);
    EXPECT_LT(std::filesystem::file_size(bomb), 4u << 20);
    expect_refused(bomb, "1 GB");
}

TEST(OrderFile, TruncatedAtAnyPlaceIsRefused) {
    const Folder folder;
    ASSERT_TRUE(save_order(folder / "a", full_order(), test::small_art()));
    const std::string whole = test::slurp(folder / "a");
    for (std::size_t keep = 0; keep < whole.size(); keep += 1 + whole.size() / 60) {
        test::spill(folder / "cut", whole.substr(0, keep));
        expect_refused(folder / "cut");
    }
}

TEST(OrderFile, ABitFlippedAnywhereNeverCrashesAndNeverLies) {
    const Folder folder;
    ASSERT_TRUE(save_order(folder / "a", full_order(), test::small_art()));
    const std::string whole = test::slurp(folder / "a");
    for (std::size_t at = 0; at < whole.size(); at += 1 + whole.size() / 250) {
        std::string flipped = whole;
        flipped[at] = static_cast<char>(flipped[at] ^ 0x10);
        test::spill(folder / "flip", flipped);
        const auto opened = open_order(folder / "flip");
        if (opened) EXPECT_EQ(opened->order, full_order()) << "only bytes without meaning may change unseen";
    }
}

TEST(OrderFile, WrongFieldsAreNamed) {
    const auto expect_fault = [](const std::function<void(json&)>& spoil, const std::string& place) {
        json j = to_json(full_order());
        spoil(j);
        const auto order = order_from_json(j);
        ASSERT_FALSE(order) << place;
        EXPECT_NE(order.sentence().find(place), std::string::npos) << order.sentence();
    };
    expect_fault([](json& j) { j["decorations"][0]["sizing"]["step_mm"] = "five"; }, "decorations[0].sizing.step_mm");
    expect_fault([](json& j) { j["decorations"][0].erase("location"); }, "location");
    expect_fault([](json& j) { j["pricing"]["prints"][0]["location"] = "moon"; }, "pricing.prints[0].location");
    expect_fault([](json& j) { j["layouts"][0]["printed"][1]["bag"] = 4; }, "layouts[0].printed[1].bag");
    expect_fault([](json& j) { j["lines"][1]["quantity"] = 1e18; }, "lines[1].quantity");
    expect_fault([](json& j) { j["lines"][1]["quantity"] = -1; }, "lines[1].quantity");
    expect_fault([](json& j) { j["media"][0]["width_mm"] = -4; }, "media[0].width_mm");
    expect_fault([](json& j) { j["version"] = 99; }, "newer");
    expect_fault([](json& j) { j["format"] = "something-else"; }, "");
    expect_fault([](json& j) { j["art"][0]["hash"] = "../../etc/passwd"; }, "art[0].hash");
    expect_fault([](json& j) { j = json::array(); }, "");
    EXPECT_FALSE(parse_json(std::string(100000, '['), "x")) << "nesting without end";
    const auto of_laying = [&](const std::function<void(json&)>& spoil, const std::string& place) {
        expect_fault(
            [&](json& j) {
                for (json& m : j["media"])
                    if (m.contains("laying")) spoil(m["laying"]);
            },
            place);
    };
    of_laying([](json& l) { l["cutting"] = "laser"; }, "laying.cutting");
    of_laying([](json& l) { l["stages"] = 9; }, "laying.stages");
    of_laying([](json& l) { l["together"] = 3; }, "laying.together");
    of_laying([](json& l) { l["excluded"][0]["length_mm"] = "wide"; }, "laying.excluded[0].length_mm");
    of_laying([](json& l) { l["stock"][0]["width_mm"] = 0; }, "laying.stock[0].width_mm");
    of_laying([](json& l) { l["waste_mm"] = -1.5; }, "laying.waste_mm");
    of_laying([](json& l) { l["stock"][0]["shape"].erase(0); }, "laying.stock[0].shape has fewer than three corners");
    of_laying([](json& l) { l["stock"][0]["holes"][0][0]["x"] = 1e9; }, "laying.stock[0].holes[0][0].x");
    expect_fault([](json& j) { j["layouts"][0]["fill"][0]["value"] = -1; }, "layouts[0].fill[0].value");
    expect_fault([](json& j) { j["layouts"][0]["printed"][0]["copies"] = -2; }, "layouts[0].printed[0].copies");
    expect_fault([](json& j) { j["layouts"][0]["kept"]["copies"][0]["turn"] = 400; }, "layouts[0].kept.copies[0].turn");
    expect_fault([](json& j) { j["layouts"][0]["stock"] = "all"; }, "layouts[0].stock");
}

TEST(OrderFile, OpeningWhatIsNotThereSaysSo) {
    const Folder folder;
    expect_refused(folder / "missing.orthema", "not there");
    std::filesystem::create_directory(folder / "empty");
    expect_refused(folder / "empty");
}

TEST(OrderFile, WhatCouldNotBeOpenedAgainIsNotSavedAndTheOldFileStays) {
    const Folder folder;
    const std::string path = folder / "o.orthema";
    const Order good = test::small_order();
    ASSERT_TRUE(save_order(path, good, test::small_art()));
    std::vector<Order> bad(3, good);
    bad[0].lines[2].note = std::string(5000, 'n');
    for (int k = 0; k < 20001; ++k) bad[1].lines.push_back({"adult-tee", "ash", "M", 1, ""});
    bad[2].decorations[0].sizing.base_width = Length::from_mm(std::nan(""));
    for (const Order& order : bad) {
        const auto done = save_order(path, order, test::small_art());
        ASSERT_FALSE(done);
        EXPECT_NE(done.sentence().find("not saved"), std::string::npos) << done.sentence();
        EXPECT_EQ(open_order(path)->order, good);
    }
    EXPECT_NE(save_order(path, bad[0], test::small_art()).sentence().find("lines[2].note"), std::string::npos) << "and says where";
}

TEST(SafeFile, AFailedWriteLeavesTheOldFileWhole) {
    const Folder folder;
    test::spill(folder / "kept", "old content");
    {
        SafeFile file(folder / "kept");
        ASSERT_TRUE(file.open());
        EXPECT_TRUE(file.write("new", 3));
        EXPECT_EQ(test::slurp(folder / "kept"), "old content") << "nothing changes before the commit";
    }
    EXPECT_EQ(test::slurp(folder / "kept"), "old content");
    int files = 0;
    for (const auto& e : std::filesystem::directory_iterator(folder.path())) files += e.is_regular_file() ? 1 : 0;
    EXPECT_EQ(files, 1) << "and no half file stays";
    EXPECT_TRUE(write_file(folder / "kept", "new content"));
    EXPECT_EQ(test::slurp(folder / "kept"), "new content");
}

TEST(SafeFile, AFullDiskIsSaidAndLosesNothing) {
    if (::access("/dev/full", W_OK) != 0) GTEST_SKIP() << "no /dev/full here";
    const Folder folder;
    // the temporary file's own name leads to a device that is always full
    const std::string path = folder / "order.orthema";
    test::spill(path, "old");
    for (int k = 1; k < 4000; ++k)  // whichever it will be
        ASSERT_EQ(::symlink("/dev/full", (folder / (".orthema-" + std::to_string(::getpid()) + "-" + std::to_string(k) + ".part")).c_str()),
                  0);
    const auto done = save_order(path, full_order(), test::small_art());
    ASSERT_FALSE(done);
    EXPECT_NE(done.sentence().find("disk is full"), std::string::npos) << done.sentence();
    EXPECT_EQ(test::slurp(path), "old");
}

TEST(SafeFile, LinksModesAndWhatIsNoFile) {
    const Folder folder;
    test::spill(folder / "real", "old");
    std::filesystem::permissions(
        folder / "real", std::filesystem::perms::owner_read | std::filesystem::perms::owner_write | std::filesystem::perms::group_read);
    std::filesystem::create_symlink("real", folder / "link");
    std::filesystem::create_symlink(folder / "link", folder / "far");
    ASSERT_TRUE(write_file(folder / "far", "new"));
    EXPECT_TRUE(std::filesystem::is_symlink(folder / "link") && std::filesystem::is_symlink(folder / "far")) << "links stay links";
    EXPECT_EQ(test::slurp(folder / "real"), "new");
    EXPECT_EQ(static_cast<int>(std::filesystem::status(folder / "real").permissions()), 0640);
    ASSERT_EQ(::mkfifo((folder / "pipe").c_str(), 0600), 0);
    for (const char* odd : {"/dev/null", "pipe"}) {
        const std::string path = odd[0] == '/' ? odd : folder / odd;
        const auto done = write_file(path, "x");
        ASSERT_FALSE(done) << path;
        EXPECT_NE(done.sentence().find("no file"), std::string::npos) << done.sentence();
    }
    EXPECT_TRUE(std::filesystem::is_character_file("/dev/null"));
    EXPECT_FALSE(write_file(folder / std::string(300, 'n'), "x"));
    EXPECT_TRUE(write_file(folder / std::string(250, 'n'), "x")) << "near the limit, and the part beside it has a short name";
}

TEST(SafeFile, PartsOfProgramsThatDiedAreCleared) {
    const Folder folder;
    const std::string dead = test::run("sh -c 'echo $$'").out;  // gone by now
    const std::string theirs = folder / (".orthema-" + std::to_string(std::stoi(dead)) + "-7.part");
    const std::string living = folder / (".orthema-" + std::to_string(::getppid()) + "-7.part");
    test::spill(theirs, "half");
    test::spill(living, "half");
    test::spill(folder / ".orthema-notes.part", "mine");
    ASSERT_TRUE(write_file(folder / "x", "x"));
    EXPECT_FALSE(std::filesystem::exists(theirs));
    EXPECT_TRUE(std::filesystem::exists(living)) << "somebody is at work on it";
    EXPECT_TRUE(std::filesystem::exists(folder / ".orthema-notes.part"));
}

TEST(SafeFile, NamesAreSafeInAnyFolder) {
    EXPECT_EQ(file_stem("Žluťák & Čáp"), "Žluťák-Čáp");
    EXPECT_NE(file_stem("凧"), file_stem("風"));
    EXPECT_TRUE(is_utf8(file_stem(std::string(59, 'a') + "é")));
    EXPECT_EQ(file_stem("Marrow Hill: Kite/Fair?"), "marrow-hill-kite-fair");
    EXPECT_EQ(file_stem("../../x"), "x");
    EXPECT_EQ(file_stem("***"), "order");
    EXPECT_LE(file_stem(std::string(500, 'a')).size(), 60u);
}

TEST(OrderFile, EveryEarlierVersionIsRead) {
    for (int version = 1; version < order_format_version; ++version) {
        const auto j = parse_json(test::slurp(test::source("tests/data/order-v" + std::to_string(version) + ".json")), "it");
        ASSERT_TRUE(j) << version;
        EXPECT_EQ((*j)["version"], version);
        const auto order = order_from_json(*j);
        ASSERT_TRUE(order) << version << ": " << order.sentence();
        EXPECT_EQ(order->decorations.size(), 2U);
        EXPECT_EQ(garments_in(*order, {"adult-tee", "ash"}), garments_in(*order));
        const auto again = order_from_json(to_json(*order));
        ASSERT_TRUE(again);
        EXPECT_EQ(*again, *order) << version;
    }
}

TEST(OrderFile, LotsComeBack) {
    const Order order = with_lot_parted(test::small_order(), {"adult-tee", "ash"}, {"Pilots", {{"M", 2}}});
    ASSERT_EQ(order.lots.size(), 1U);
    const auto again = order_from_json(to_json(order));
    ASSERT_TRUE(again);
    EXPECT_EQ(*again, order);
}

}  // namespace TESTED
}  // namespace orthema
