// orthema-reader: started by the program with a socket as its third file, ends when that closes. Reads pictures and draws
// pages for it, in bounds that it cannot leave.
#include <fcntl.h>
#include <sys/socket.h>
#include <unistd.h>

#include <cstdlib>
#include <iostream>
#include <map>
#include <new>

#include "files/wire.h"
#include "reader/reader.h"

namespace orthema::reader {
namespace {

constexpr int door = 3;
constexpr double look_seconds = 60, draw_seconds = 1800;

bool take(void* to, std::size_t size) {
    char* at = static_cast<char*>(to);
    while (size > 0) {
        const ssize_t got = ::read(door, at, size);
        if (got < 0 && errno == EINTR) continue;
        if (got <= 0) return false;
        at += got;
        size -= static_cast<std::size_t>(got);
    }
    return true;
}

/// The next header, and the file that came with it or −1.
bool take_header(wire::Header& header, int& file) {
    file = -1;
    iovec part{&header, sizeof header};
    alignas(cmsghdr) char control[CMSG_SPACE(sizeof(int))];
    msghdr message{};
    message.msg_iov = &part;
    message.msg_iovlen = 1;
    message.msg_control = control;
    message.msg_controllen = sizeof control;
    ssize_t got = 0;
    while ((got = ::recvmsg(door, &message, MSG_CMSG_CLOEXEC)) < 0 && errno == EINTR) {
    }
    if (got <= 0) return false;
    for (cmsghdr* c = CMSG_FIRSTHDR(&message); c != nullptr; c = CMSG_NXTHDR(&message, c))
        if (c->cmsg_level == SOL_SOCKET && c->cmsg_type == SCM_RIGHTS) std::memcpy(&file, CMSG_DATA(c), sizeof file);
    return take(reinterpret_cast<char*>(&header) + got, sizeof header - static_cast<std::size_t>(got)) &&
           header.magic == wire::Header{}.magic;
}

void put(const void* data, std::size_t size) {
    if (!wire::send_all(door, data, size)) std::_Exit(0);  // nobody listens any more
}

void say(wire::Kind kind, const std::string& bytes, const void* more = nullptr, std::size_t more_size = 0) {
    wire::Header header;
    header.kind = kind;
    header.size = bytes.size() + more_size;
    put(&header, sizeof header);
    put(bytes.data(), bytes.size());
    put(more, more_size);
}

struct Kept {
    std::map<std::string, Bytes> files;              ///< by hash
    std::map<std::string, LoadedArtPtr> last_drawn;  ///< of the last page, whose pixels the next may want
};

LoadedArtById pictures_for(Kept& kept, std::vector<wire::ArtRef>& refs) {
    LoadedArtById out;
    std::map<std::string, LoadedArtPtr> drawn;
    for (wire::ArtRef& ref : refs) {
        const auto file = kept.files.find(ref.hash);
        if (file == kept.files.end()) throw std::runtime_error("a picture was not handed on");
        LoadedArtPtr& whole = drawn[ref.hash];
        if (const auto before = kept.last_drawn.find(ref.hash); !whole && before != kept.last_drawn.end()) whole = before->second;
        if (!whole) whole = drawable(file->second, ref.hash, ref.clip ? std::move(ref.whole) : ref.facts);
        out[ref.id] = ref.clip ? cut_from(whole, *ref.clip, std::move(ref.facts)) : whole;
    }
    kept.last_drawn = std::move(drawn);
    return out;
}

/// `file_error`: errno of the file that is written.
void refuse(const Error& why, int file_error = 0) {
    wire::Refusal out{why.words ? why.words->code : why.sentence, {}, {}};
    if (why.words)
        for (const auto& [name, value] : why.words->args)
            if (const auto* text = std::get_if<std::string>(&value)) {
                out.names.push_back(name);
                out.values.push_back(*text);
            }
    say(wire::Kind::failed, wire::packed(file_error, out));
}

void answer_look(const Result<LoadedArtPtr>& art) {
    if (!art) return refuse(art.error());
    const LoadedArt& a = **art;
    say(wire::Kind::done, wire::packed(a.kind, a.facts, a.screen));
}

void answer_made(MendedFile made, const std::string& name) {
    const auto made_file = std::make_shared<const std::string>(std::move(made.bytes));
    const auto art = look(made_file, name, std::move(made.pixels));
    if (!art) return answer_look(art);
    const ArtFacts& facts = (*art)->facts;  // a drawing has another canvas once it is looked at
    const Affine from_file = Affine::scale(facts.width_px / made.width, facts.height_px / made.height).after(made.from_file);
    return say(wire::Kind::done, wire::packed((*art)->kind, facts, (*art)->screen, from_file, *made_file));
}

void answer_page(const Result<Done>& done, int error) {
    if (!done || error != 0) return refuse(done.ok() ? Error{""} : done.error(), error);
    say(wire::Kind::done, {});
}

void serve(Kept& kept, wire::Kind kind, const std::string& bytes, int file) {
    double told = 0;
    Task task;
    task.report = [&](double share, const std::string& doing) {
        if (share < told + 0.01 && share < 1) return;
        told = share;
        say(wire::Kind::progress, wire::packed(share, doing));
    };
    PageFile to(file);
    const auto sound = [](bool unpacked) {
        if (!unpacked) throw std::runtime_error("a request of another version");
    };
    switch (kind) {
    case wire::Kind::keep: {
        std::string hash, content;
        sound(wire::unpacked(bytes, hash, content));
        kept.files[hash] = std::make_shared<const std::string>(std::move(content));
        return;
    }
    case wire::Kind::forget: kept = {}; return;
    case wire::Kind::there: return say(wire::Kind::there, {});
    case wire::Kind::look: {
        std::string hash, name;
        sound(wire::unpacked(bytes, hash, name));
        allow_seconds(look_seconds);
        return answer_look(look(kept.files.at(hash), name));
    }
    case wire::Kind::mend: {
        std::string hash, name;
        std::vector<Mending> mendings;
        sound(wire::unpacked(bytes, hash, name, mendings));
        allow_seconds(look_seconds);
        auto made = mended(kept.files.at(hash), name, mendings);
        if (!made) return refuse(made.error());
        return answer_made(std::move(*made), name);
    }
    case wire::Kind::compose: {
        std::vector<wire::ArtRef> refs;
        std::vector<Filling> fillings;
        int width = 0, height = 0;
        std::string name;
        sound(wire::unpacked(bytes, refs, fillings, width, height, name));
        sound(width > 0 && height > 0 && width <= longest_side && height <= longest_side &&
              static_cast<long>(width) * height <= most_pixels);
        allow_seconds(look_seconds);
        return answer_made(composed(pictures_for(kept, refs), fillings, width, height), name);
    }
    case wire::Kind::letters: {
        std::string hash, name;
        bool capitals = false;
        std::vector<std::string> words;
        sound(wire::unpacked(bytes, hash, name, capitals, words));
        allow_seconds(look_seconds);
        const auto shaped = shape(*kept.files.at(hash), name, words, capitals);
        if (!shaped) return refuse(shaped.error());
        return say(wire::Kind::done, wire::packed(*shaped));
    }
    case wire::Kind::photo: {
        std::string hash, name;
        sound(wire::unpacked(bytes, hash, name));
        allow_seconds(look_seconds);
        const auto photo = photograph(kept.files.at(hash), name);
        if (!photo) return refuse(photo.error());
        return say(wire::Kind::done, wire::packed(photo->image.width, photo->image.height, photo->focal_px.value_or(0.0)),
                   photo->image.rgba.data(), photo->image.rgba.size());
    }
    case wire::Kind::look_clipped: {
        wire::ArtRef whole;
        ClipOf clip;
        int width = 0, height = 0;
        sound(wire::unpacked(bytes, whole, clip, width, height));
        allow_seconds(look_seconds);
        return answer_look(look_clipped(drawable(kept.files.at(whole.hash), whole.hash, whole.facts), clip, width, height));
    }
    case wire::Kind::pdf: {
        std::vector<wire::ArtRef> refs;
        std::vector<Drawing> pages;
        std::string title;
        sound(wire::unpacked(bytes, refs, pages, title));
        allow_seconds(draw_seconds);
        const auto done = reader::write_pdf(to, pages, pictures_for(kept, refs), title, task);
        return answer_page(done, to.error());
    }
    case wire::Kind::png:
    case wire::Kind::tiff:
    case wire::Kind::rows: {
        std::vector<wire::ArtRef> refs;
        Drawing page;
        double dpi = 0;
        sound(wire::unpacked(bytes, refs, page, dpi));
        allow_seconds(draw_seconds);
        const LoadedArtById art = pictures_for(kept, refs);
        const auto band = [](const PixelBand& b) {
            say(wire::Kind::band, wire::packed(b.width, b.first, b.rows), b.pixels,
                4 * static_cast<std::size_t>(b.width) * static_cast<std::size_t>(b.rows));
            return true;
        };
        const auto done = kind == wire::Kind::png    ? reader::write_png(to, page, art, dpi, task)
                          : kind == wire::Kind::tiff ? reader::write_tiff(to, page, art, dpi, task)
                                                     : reader::draw_rows(page, art, dpi, band, task);
        return answer_page(done, to.error());
    }
    default: throw std::runtime_error("a request of another version");
    }
}

int run(std::uint64_t memory) {
    jail(memory);
    Kept kept;
    wire::Header header;
    int file = -1;
    while (take_header(header, file)) {
        if (header.size > wire::most_frame) return 2;
        std::string bytes(header.size, '\0');
        if (!take(bytes.data(), bytes.size())) return 0;
        try {
            serve(kept, header.kind, bytes, file);
        } catch (const std::bad_alloc&) {
            return 3;  // begun anew with empty hands
        } catch (const std::exception& e) {
            refuse(std::string(e.what()));
            kept.last_drawn.clear();
        }
        if (file >= 0) ::close(file);
    }
    return 0;
}

}  // namespace
}  // namespace orthema::reader

int main(int argc, char** argv) {
    if (argc != 2 || ::fcntl(3, F_GETFD) < 0) {
        std::cerr << "orthema-reader is a part of Orthema and is started by it.\n";
        return 2;
    }
    return orthema::reader::run(std::strtoull(argv[1], nullptr, 10));
}
