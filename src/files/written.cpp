#include "files/written.h"

#include <sys/stat.h>

#include <cstring>
#include <filesystem>

#include "files/art_file.h"
#include "files/json_in.h"
#include "files/order_json.h"
#include "files/safe_file.h"

namespace orthema {

namespace {

struct Standing {
    std::uintmax_t length = 0;
    long long time = 0;
};

std::optional<Standing> standing(const std::string& path) {
    struct stat s {};
    if (::stat(path.c_str(), &s) != 0 || !S_ISREG(s.st_mode)) return std::nullopt;
    return Standing{static_cast<std::uintmax_t>(s.st_size), s.st_mtim.tv_sec * 1000000000LL + s.st_mtim.tv_nsec};
}

std::string beside(const std::string& note, const std::string& path) {
    return std::filesystem::path(path).lexically_relative(std::filesystem::path(note).parent_path()).string();
}

}  // namespace

MadeOf& MadeOf::add(const std::string& text) {
    add(text.size());
    bytes_ += text;
    return *this;
}

MadeOf& MadeOf::add(double figure) {
    char raw[sizeof figure];
    std::memcpy(raw, &figure, sizeof figure);
    bytes_.append(raw, sizeof raw);
    return *this;
}

MadeOf& MadeOf::add(const std::vector<Ring>& rings) {
    add(rings.size());
    for (const Ring& ring : rings) {
        add(ring.size());
        for (const Point& p : ring) add(p);
    }
    return *this;
}

MadeOf& MadeOf::add(const Mark& mark, const std::map<std::string, std::string>& art) {
    const auto colour = [this](const Colour& c) { add(c.r).add(c.g).add(c.b).add(c.a); };
    const auto map = [this](const Affine& m) { add(m.a).add(m.b).add(m.c).add(m.d).add(m.tx).add(m.ty); };
    add(mark.index());
    if (const auto* path = std::get_if<PathMark>(&mark)) {
        add(path->rings).add(double(path->closed)).add(double(path->fill.has_value())).add(double(path->stroke.has_value()));
        if (path->fill) colour(*path->fill);
        if (path->stroke) {
            colour(path->stroke->colour);
            add(path->stroke->width).add(path->stroke->dash.size());
            for (const double d : path->stroke->dash) add(d);
        }
    } else if (const auto* text = std::get_if<TextMark>(&mark)) {
        add(text->at).add(text->text).add(text->size).add(double(text->align)).add(double(text->bold)).add(text->degrees);
        colour(text->colour);
    } else if (const auto* picture = std::get_if<ArtMark>(&mark)) {
        const auto known = art.find(picture->art);
        add(picture->art).add(known == art.end() ? std::string() : known->second).add(picture->opacity);
        map(picture->place);
        map(picture->bent);
        add(double(picture->bend.has_value()));
        if (picture->bend) add(picture->bend->rim_radius).add(picture->bend->base_radius).add(picture->bend->slant);
    } else if (const auto* clip = std::get_if<ClipMark>(&mark)) {
        add(clip->to);
    }
    return *this;
}

MadeOf& MadeOf::add(const Drawing& page, const std::map<std::string, std::string>& art) {
    add(page.width).add(page.height).add(page.marks.size());
    for (const Mark& m : page.marks) add(m, art);
    return *this;
}

std::string MadeOf::word() const { return content_hash(bytes_); }

Written::Written(std::string note) : note_(std::move(note)) {
    const auto text = read_file(note_, 16u << 20);
    if (!text) return;
    const auto known = parse_json(*text, note_);
    if (!known || !known->is_object() || known->value("format", json()) != json("orthema-export")) return;
    const auto list = known->find("files");
    if (list == known->end() || !list->is_array()) return;
    for (const json& f : *list) {
        if (!f.is_object() || !f.contains("name") || !f["name"].is_string() || !f.contains("made_of") || !f["made_of"].is_string())
            continue;
        if (!f.contains("length") || !f["length"].is_number_unsigned() || !f.contains("time") || !f["time"].is_number_integer()) continue;
        files_[f["name"]] = {f["made_of"], f["length"], f["time"], false};
    }
}

bool Written::holds(const std::string& path, const std::string& made_of) const {
    const auto known = files_.find(beside(note_, path));
    if (known == files_.end() || known->second.made_of != made_of) return false;
    const auto s = standing(path);
    return s && s->length == known->second.length && s->time == known->second.time;
}

void Written::now(const std::string& path, const std::string& made_of) {
    if (const auto s = standing(path)) files_[beside(note_, path)] = {made_of, s->length, s->time, true};
}

std::vector<std::string> Written::left_from_before() const {
    std::vector<std::string> out;
    const std::filesystem::path folder = std::filesystem::path(note_).parent_path();
    for (const auto& [name, entry] : files_) {
        if (entry.told) continue;
        const auto s = standing((folder / name).string());
        if (s && s->length == entry.length && s->time == entry.time) out.push_back(name);
    }
    return out;
}

Result<Done> Written::save() const {
    const std::filesystem::path folder = std::filesystem::path(note_).parent_path();
    json out{{"format", "orthema-export"}, {"version", 1}, {"files", json::array()}};
    for (const auto& [name, entry] : files_)
        if (standing((folder / name).string()))
            out["files"].push_back({{"name", name}, {"made_of", entry.made_of}, {"length", entry.length}, {"time", entry.time}});
    return write_file(note_, json_text(out, 1) + "\n");
}

}  // namespace orthema
