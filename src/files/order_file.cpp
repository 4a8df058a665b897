#include "files/order_file.h"
#include "files/put_together.h"
#include "files/word_picture.h"

#include "core/pipeline/gang.h"
#include "core/base/utf8.h"
#include "files/lettering.h"

#include <filesystem>
#include <random>

namespace orthema {

std::string new_job_id() {
    static const char digits[] = "0123456789abcdef";
    std::random_device dice;
    std::string id = "job-";
    for (int i = 0; i < 12; ++i) id += digits[dice() % 16];
    return id;
}

std::string autosave_path(const std::string& path) { return path + "~"; }

ReadArt read_all_art(const Order& order, const ArtBytes& bytes) {
    auto known = std::make_shared<KnownArt>();
    ReadArt out{load_all_art(order, bytes, &known->faults), {}};
    known->facts = facts_of(out.art);
    out.known = Shared<KnownArt>(std::move(known));
    return out;
}

Result<GangedPackage> gang_packages(const std::vector<OrderPackage>& packages, const std::string& id, const std::string& name) {
    GangedPackage out;
    std::vector<Order> orders;
    for (const OrderPackage& p : packages) {
        orders.push_back(p.order);
        out.package.art.insert(p.art.begin(), p.art.end());
        auto& [records, lessons] = out.package.records;
        records.insert(records.end(), p.records.records.begin(), p.records.records.end());
        lessons.insert(lessons.end(), p.records.lessons.begin(), p.records.lessons.end());
    }
    auto gang = ganged(orders, id, name);
    if (!gang) return gang.error();
    out.pictures = read_all_art(*gang, out.package.art);
    out.package.order = with_new_jobs_laid(*gang, orders.front(), out.pictures.known);
    return out;
}

Finding unreadable(const Art& art, const Error& why) {
    Subject about;
    about.art = art.id;
    return finding("art-unreadable", about, {{"fault", why.said()}});
}

Result<LoadedArtById> pictures_of(const Order& order, const Art& art, const ArtBytes& bytes) {
    if (art.lettering) return lettered_art(order, art, bytes);
    if (art.word_picture || art.together) {
        auto composed = art.together ? together_art(order, art, bytes) : word_picture_art(order, art, bytes);
        if (!composed) return composed.error();
        return LoadedArtById{{art.id, *composed}};
    }
    const auto at = bytes.find(art.hash);
    if (at == bytes.end()) return Error{"{name} has no picture.", {{"name", art.name}}};
    LoadedArtById out;
    auto loaded = load_art(at->second, art.name);
    if (loaded && !art.mendings.empty()) {
        out[unmended_id(art.id)] = *loaded;
        loaded = mended_art(at->second, art.name, art.mendings);
    }
    if (loaded && art.clip) {
        out[whole_id(art.id)] = *loaded;
        loaded = clipped_art(order, art, *loaded);
    }
    if (!loaded) return loaded.error();
    out[art.id] = *loaded;
    return out;
}

LoadedArtById load_all_art(const Order& order, const ArtBytes& bytes, Findings* findings) {
    LoadedArtById out;
    for (const Art& art : order.art) {
        auto pictures = pictures_of(order, art, bytes);
        if (pictures)
            out.merge(*pictures);
        else if (findings != nullptr)
            findings->push_back(unreadable(art, pictures.error()));
    }
    return out;
}

ArtFactsById facts_of(const LoadedArtById& art) {
    ArtFactsById facts;
    for (const auto& [id, loaded] : art) facts[id] = loaded->facts;
    return facts;
}

std::string enrol_art(Order& order, ArtBytes& bytes, const LoadedArt& loaded, const Bytes& file, const std::string& file_name) {
    Art art;
    art.name = whole_utf8(std::filesystem::path(file_name).stem().string());
    for (char& c : art.name)
        if (c == '-' || c == '_') c = ' ';
    art.name = capitalised(std::move(art.name));
    // The content is part of the id: an id that undo gave free never comes to mean another picture.
    art.id = fresh_id(art.name + " " + loaded.hash.substr(0, 6), order.art);
    art.kind = loaded.kind;
    art.hash = loaded.hash;
    bytes[art.hash] = file;
    order.art.push_back(art);
    return art.id;
}

Result<std::string> add_art(Order& order, ArtBytes& bytes, const Bytes& file, const std::string& file_name) {
    const auto loaded = load_art(file, file_name);
    if (!loaded) return loaded.error();
    return enrol_art(order, bytes, **loaded, file, file_name);
}

}  // namespace orthema
