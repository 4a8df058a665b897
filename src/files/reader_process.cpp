#include "files/reader_process.h"

#include "files/photo_tape.h"

#include <fcntl.h>
#include <poll.h>
#include <signal.h>
#include <spawn.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <filesystem>
#include <list>
#include <mutex>
#include <set>

#include "files/safe_file.h"
#include "files/program_part.h"
#include "files/wire.h"

namespace orthema {

namespace {

constexpr std::size_t most_kept = 768u << 20;        ///< bytes of files that a reader holds
constexpr std::size_t most_remembered = 192u << 20;  ///< of pictures that were looked at, to be looked at again for nothing
constexpr std::size_t most_waiting = 2;              ///< readers without work

const Error stopped{"Stopped: nothing was written."};

class Reader {
public:
    static std::unique_ptr<Reader> start(const ReaderLimits& limits) {
        int ends[2];
        if (::socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, ends) != 0) return nullptr;
        const std::string path = program_part("orthema-reader"), memory = std::to_string(limits.memory);
        posix_spawn_file_actions_t files;
        posix_spawn_file_actions_init(&files);
        posix_spawn_file_actions_addopen(&files, 0, "/dev/null", O_RDONLY, 0);
        posix_spawn_file_actions_addopen(&files, 1, "/dev/null", O_WRONLY, 0);
        posix_spawn_file_actions_addopen(&files, 2, "/dev/null", O_WRONLY, 0);
        posix_spawn_file_actions_adddup2(&files, ends[1], 3);
        posix_spawn_file_actions_addclosefrom_np(&files, 4);
        char* const words[] = {const_cast<char*>("orthema-reader"), const_cast<char*>(memory.c_str()), nullptr};
        pid_t child = -1;
        const int failed = ::posix_spawnp(&child, path.c_str(), &files, nullptr, words, environ);
        posix_spawn_file_actions_destroy(&files);
        ::close(ends[1]);
        if (failed != 0) {
            ::close(ends[0]);
            return nullptr;
        }
        return std::unique_ptr<Reader>(new Reader(child, ends[0], limits.look_seconds));
    }
    ~Reader() {
        ::close(socket_);
        if (!well_) ::kill(child_, SIGKILL);
        while (::waitpid(child_, nullptr, 0) < 0 && errno == EINTR) {
        }
    }
    Reader(const Reader&) = delete;
    Reader& operator=(const Reader&) = delete;

    [[nodiscard]] bool well() const { return well_; }
    /// That it may look at one picture.
    [[nodiscard]] double look_seconds() const { return look_seconds_; }
    /// It waits for work: it has said nothing unasked, and answers. One that was ended from outside may still be going.
    [[nodiscard]] bool answers() {
        constexpr double soon = 5;  // seconds
        pollfd look{socket_, POLLIN, 0};
        if (!well_ || ::poll(&look, 1, 0) != 0 || !ask(wire::Kind::there, {})) return false;
        const auto said = hear({}, soon);
        return said && said->kind == wire::Kind::there;
    }
    void lost() { well_ = false; }

    bool ask(wire::Kind kind, const std::string& bytes, int file = -1) {
        wire::Header header;
        header.kind = kind;
        header.size = bytes.size();
        iovec part{&header, sizeof header};
        alignas(cmsghdr) char control[CMSG_SPACE(sizeof(int))] = {};
        msghdr message{};
        message.msg_iov = &part;
        message.msg_iovlen = 1;
        if (file >= 0) {
            message.msg_control = control;
            message.msg_controllen = sizeof control;
            cmsghdr* c = CMSG_FIRSTHDR(&message);
            c->cmsg_level = SOL_SOCKET;
            c->cmsg_type = SCM_RIGHTS;
            c->cmsg_len = CMSG_LEN(sizeof file);
            std::memcpy(CMSG_DATA(c), &file, sizeof file);
        }
        well_ = well_ && ::sendmsg(socket_, &message, MSG_NOSIGNAL) == static_cast<ssize_t>(sizeof header);
        well_ = well_ && wire::send_all(socket_, bytes.data(), bytes.size());
        return well_;
    }

    /// Hands a file's bytes on, once.
    bool keep(const std::string& hash, const Bytes& bytes) {
        if (kept_.contains(hash)) return well_;
        if (kept_bytes_ + bytes->size() > most_kept && !kept_.empty()) {
            if (!ask(wire::Kind::forget, {})) return false;
            kept_.clear();
            kept_bytes_ = 0;
        }
        kept_.insert(hash);
        kept_bytes_ += bytes->size();
        return ask(wire::Kind::keep, wire::packed(hash, *bytes));
    }

    struct Said {
        wire::Kind kind = wire::Kind::failed;
        std::string bytes;
    };
    /// What it says next; nothing when it is lost, told to stop, or later than `seconds`.
    std::optional<Said> hear(const Task& task, double seconds) {
        const auto until = std::chrono::steady_clock::now() + std::chrono::duration<double>(seconds);
        wire::Header header;
        const auto take = [&](void* to, std::size_t size) {
            char* at = static_cast<char*>(to);
            while (size > 0) {
                if (task.stopped() || std::chrono::steady_clock::now() > until) return false;
                pollfd wait{socket_, POLLIN, 0};
                const int ready = ::poll(&wait, 1, 50);
                if (ready < 0 && errno != EINTR) return false;
                if (ready <= 0) continue;
                const ssize_t got = ::read(socket_, at, size);
                if (got < 0 && errno == EINTR) continue;
                if (got <= 0) return false;
                at += got;
                size -= static_cast<std::size_t>(got);
            }
            return true;
        };
        Said said;
        well_ = well_ && take(&header, sizeof header) && header.magic == wire::Header{}.magic && header.size <= wire::most_frame;
        if (!well_) return std::nullopt;
        said.kind = header.kind;
        said.bytes.resize(header.size);
        well_ = take(said.bytes.data(), said.bytes.size());
        return well_ ? std::optional(std::move(said)) : std::nullopt;
    }

private:
    Reader(pid_t child, int socket, double look_seconds) : child_(child), socket_(socket), look_seconds_(look_seconds) {}
    pid_t child_;
    int socket_;
    double look_seconds_;
    bool well_ = true;
    std::set<std::string> kept_;
    std::size_t kept_bytes_ = 0;
};

/// Readers that wait for work, and what was looked at last.
struct Pool {
    std::mutex guard;
    ReaderLimits limits;
    std::vector<std::unique_ptr<Reader>> waiting;
    std::list<LoadedArtPtr> seen;

    std::unique_ptr<Reader> take() {
        std::unique_lock lock(guard);
        while (!waiting.empty()) {
            auto reader = std::move(waiting.back());
            waiting.pop_back();
            lock.unlock();
            if (reader->answers()) return reader;
            reader->lost();
            lock.lock();
        }
        const ReaderLimits now = limits;
        lock.unlock();
        auto reader = Reader::start(now);
        if (!reader) throw std::runtime_error("a part of the program is missing: orthema-reader");
        return reader;
    }
    void give_back(std::unique_ptr<Reader> reader) {
        if (!reader->well()) return;
        const std::scoped_lock lock(guard);
        if (waiting.size() < most_waiting) waiting.push_back(std::move(reader));
    }
    /// By the hash of its file, and what was done to it.
    LoadedArtPtr find(const std::string& made_of) {
        const std::scoped_lock lock(guard);
        for (auto it = seen.begin(); it != seen.end(); ++it)
            if ((*it)->made_of == made_of || ((*it)->made_of.empty() && (*it)->hash == made_of)) {
                seen.splice(seen.begin(), seen, it);
                return seen.front();
            }
        return nullptr;
    }
    void remember(const LoadedArtPtr& art) {
        const auto weight = [](const LoadedArt& a) {
            std::size_t n = a.bytes->size();
            for (const ScreenImage& s : a.screen) n += 4 * s.pixels.size();
            if (a.facts.alpha) n += a.facts.alpha->ink.size();
            if (a.facts.picture) n += a.facts.picture->rgba.size();
            return n;
        };
        const std::scoped_lock lock(guard);
        seen.push_front(art);
        std::size_t all = 0;
        for (auto it = seen.begin(); it != seen.end(); ++it)
            if ((all += weight(**it)) > most_remembered && it != seen.begin()) {
                seen.erase(it, seen.end());
                break;
            }
    }
};

Pool& pool() {
    static Pool all;
    return all;
}

Error beyond(const std::string& name) {
    return Error{"{name} takes more memory or time than a picture may, or is damaged: export it again, smaller or flattened.",
                 {{"name", name}}};
}

/// What a failure says: the reader's own sentence where it has one. `file_error`: errno of the file that it wrote.
Error sentence_of(const std::optional<Reader::Said>& said, const std::string& name, int* file_error = nullptr) {
    int error = 0;
    wire::Refusal refusal;
    if (!said || said->kind != wire::Kind::failed || !wire::unpacked(said->bytes, error, refusal)) return beyond(name);
    if (error != 0 && file_error != nullptr) *file_error = error;
    if (refusal.sentence.empty() || refusal.names.size() != refusal.values.size()) return beyond(name);
    Arguments args;
    for (std::size_t i = 0; i < refusal.names.size(); ++i) args.emplace_back(refusal.names[i], refusal.values[i]);
    if (args.empty() && refusal.sentence.ends_with('.')) return Error{refusal.sentence};
    if (args.empty()) return of_picture(name, refusal.sentence);
    try {
        return Error{Words{refusal.sentence, std::move(args)}};
    } catch (const std::exception&) {  // places that it gave nothing for
        return beyond(name);
    }
}

/// Nobody else has it yet: who asked adds what it knows.
Result<std::shared_ptr<LoadedArt>> looked(Reader& reader, const std::string& name) {
    const auto said = reader.hear({}, reader.look_seconds());
    auto art = std::make_shared<LoadedArt>();
    if (!said || said->kind != wire::Kind::done) return sentence_of(said, name);
    if (!wire::unpacked(said->bytes, art->kind, art->facts, art->screen)) {
        reader.lost();
        return beyond(name);
    }
    return art;
}

wire::ArtRef ref_of(const std::string& id, const LoadedArt& art) {
    const auto bare = [](ArtFacts facts) {
        facts.alpha = {};
        facts.picture = {};
        facts.outline = {};
        return facts;
    };
    return {id, art.hash, bare(art.facts), art.clip, art.whole ? bare(art.whole->facts) : ArtFacts{}};
}

/// Hands on what the pages show; their refs.
std::vector<wire::ArtRef> hand_on(Reader& reader, const std::vector<const Drawing*>& pages, const LoadedArtById& art) {
    std::set<std::string> shown;
    for (const Drawing* page : pages)
        for (const Mark& mark : page->marks)
            if (const auto* a = std::get_if<ArtMark>(&mark)) shown.insert(a->art);
    std::vector<wire::ArtRef> refs;
    for (const std::string& id : shown) {
        const auto it = art.find(id);
        if (it == art.end() || it->second->facts.empty() || !it->second->bytes) continue;
        reader.keep(it->second->hash, it->second->bytes);
        refs.push_back(ref_of(id, *it->second));
    }
    return refs;
}

/// Waits for the end of a page, and tells how far it is.
Result<Done> drawn(Reader& reader, const Task& task, const std::string& what, const PixelRows* take, int* file_error) {
    constexpr double longest = 1e9;  // a sheet may take long; its maker can stop it
    for (;;) {
        const auto said = reader.hear(task, longest);
        if (!said) {
            reader.lost();
            if (task.stopped()) return stopped;
            return Error{
                "{file} could not be drawn: a picture on it takes more memory or time than a picture may. Export that picture "
                "again, smaller or flattened.",
                {{"file", what}}};
        }
        if (said->kind == wire::Kind::done) return Done{};
        if (said->kind == wire::Kind::progress) {
            double share = 0;
            std::string doing;
            if (wire::unpacked(said->bytes, share, doing)) task.say(share, doing);
            continue;
        }
        if (said->kind == wire::Kind::band && take != nullptr) {
            wire::In in(said->bytes);
            int width = 0, first = 0, rows = 0;
            wire::pass(in, width);
            wire::pass(in, first);
            wire::pass(in, rows);
            const bool fits = in.sound() && width > 0 && rows > 0 && in.left() == 4 * std::size_t(width) * std::size_t(rows);
            const char* pixels = said->bytes.data() + (said->bytes.size() - in.left());
            std::vector<std::uint32_t> words(fits ? std::size_t(width) * std::size_t(rows) : 0);
            if (fits) std::memcpy(words.data(), pixels, 4 * words.size());
            if (fits && (*take)({words.data(), width, first, rows})) continue;
            reader.lost();  // it is still drawing
            return fits ? Result<Done>(Done{}) : Result<Done>(beyond(what));
        }
        return sentence_of(said, what, file_error);
    }
}

Result<Done> page_file(const std::string& path, wire::Kind kind, const std::vector<const Drawing*>& pages, const LoadedArtById& art,
                       const Task& task, const std::function<std::string(const std::vector<wire::ArtRef>&)>& request) {
    SafeFile file(path);
    if (!file.open()) return file.fault();
    auto reader = pool().take();
    const auto refs = hand_on(*reader, pages, art);
    reader->ask(kind, request(refs), ::fileno(file.handle()));
    int error = 0;
    auto done = drawn(*reader, task, std::filesystem::path(path).filename().string(), nullptr, &error);
    pool().give_back(std::move(reader));
    if (error != 0) return file.failed(error);
    if (!done) return done;
    return file.commit();
}

}  // namespace

void set_reader_limits(const ReaderLimits& limits) {
    Pool& p = pool();
    const std::scoped_lock lock(p.guard);
    p.limits = limits;
    p.waiting.clear();
    p.seen.clear();
}

Result<LoadedArtPtr> load_art(const Bytes& bytes, const std::string& name) {
    if (!bytes || bytes->empty()) return Error{"{name} is empty.", {{"name", name}}};
    if (!kind_of(*bytes)) return no_picture(name);
    const std::string hash = content_hash(*bytes);
    if (auto before = pool().find(hash)) return before;
    auto reader = pool().take();
    reader->keep(hash, bytes);
    reader->ask(wire::Kind::look, wire::packed(hash, name));
    auto art = looked(*reader, name);
    pool().give_back(std::move(reader));
    if (!art) return art.error();
    (*art)->hash = hash;
    (*art)->bytes = bytes;
    pool().remember(*art);
    return LoadedArtPtr(*art);
}

namespace {

/// A picture that the reader made a file of, from what it says.
Result<LoadedArtPtr> made_file(std::unique_ptr<Reader> reader, const std::string& name, const std::string& made_of) {
    const auto said = reader->hear({}, reader->look_seconds());
    auto art = std::make_shared<LoadedArt>();
    std::string made;
    const bool done = said && said->kind == wire::Kind::done;
    const bool fits = done && wire::unpacked(said->bytes, art->kind, art->facts, art->screen, art->from_file, made);
    if (done && !fits) reader->lost();
    pool().give_back(std::move(reader));
    if (!fits) return sentence_of(said, name);
    art->hash = content_hash(made);
    art->bytes = std::make_shared<const std::string>(std::move(made));
    art->made_of = made_of;
    return LoadedArtPtr(std::move(art));
}

}  // namespace

Result<LoadedArtPtr> mended_art(const Bytes& bytes, const std::string& name, const std::vector<Mending>& mendings) {
    if (mendings.empty()) return load_art(bytes, name);
    if (!bytes || bytes->empty()) return Error{"{name} is empty.", {{"name", name}}};
    const std::string hash = content_hash(*bytes);
    const std::string made_of = hash + " " + mending_words(mendings);
    if (auto before = pool().find(made_of)) return before;
    auto reader = pool().take();
    reader->keep(hash, bytes);
    reader->ask(wire::Kind::mend, wire::packed(hash, name, mendings));
    auto art = made_file(std::move(reader), name, made_of);
    if (art) pool().remember(*art);
    return art;
}

Result<LoadedArtPtr> read_composed(const LoadedArtById& pictures, const std::vector<Filling>& fillings, int width, int height,
                                   const std::string& name) {
    auto reader = pool().take();
    std::vector<wire::ArtRef> refs;
    for (const auto& [id, picture] : pictures) {
        reader->keep(picture->hash, picture->bytes);
        refs.push_back(ref_of(id, *picture));
    }
    reader->ask(wire::Kind::compose, wire::packed(refs, fillings, width, height, name));
    return made_file(std::move(reader), name, {});
}

Result<LoadedArtPtr> read_clipped(const LoadedArtPtr& whole, const ClipOf& clip, int width, int height, const std::string& name) {
    auto reader = pool().take();
    reader->keep(whole->hash, whole->bytes);
    reader->ask(wire::Kind::look_clipped, wire::packed(ref_of("whole", *whole), clip, width, height));
    auto art = looked(*reader, name);
    pool().give_back(std::move(reader));
    if (!art) return art.error();
    LoadedArt& own = **art;
    own.hash = whole->hash;
    own.bytes = whole->bytes;
    own.whole = whole;
    own.clip = clip;
    own.facts.missing_fonts = whole->facts.missing_fonts;
    return LoadedArtPtr(*art);
}

Result<std::vector<ShapedWord>> shaped_words(const Bytes& face, const std::string& name, const std::vector<std::string>& words,
                                             bool capitals) {
    auto reader = pool().take();
    const std::string hash = content_hash(*face);
    reader->keep(hash, face);
    reader->ask(wire::Kind::letters, wire::packed(hash, name, capitals, words));
    const auto said = reader->hear({}, reader->look_seconds());
    std::vector<ShapedWord> out;
    const bool fits = said && said->kind == wire::Kind::done && wire::unpacked(said->bytes, out) && out.size() == words.size();
    if (said && said->kind == wire::Kind::done && !fits) reader->lost();
    pool().give_back(std::move(reader));
    if (!fits) return sentence_of(said, name);
    return out;
}

Result<Photo> read_photo(const Bytes& bytes, const std::string& name) {
    auto reader = pool().take();
    const std::string hash = content_hash(*bytes);
    reader->keep(hash, bytes);
    reader->ask(wire::Kind::photo, wire::packed(hash, name));
    auto said = reader->hear({}, reader->look_seconds());
    Photo out;
    bool fits = false;
    if (said && said->kind == wire::Kind::done) {
        constexpr std::size_t head = 2 * sizeof(int) + sizeof(double);
        double focal = 0;
        fits = said->bytes.size() >= head && wire::unpacked(said->bytes.substr(0, head), out.image.width, out.image.height, focal) &&
               out.image.width > 0 && out.image.height > 0 && said->bytes.size() - head == 4 * out.image.count();
        if (fits) {
            out.image.rgba.assign(said->bytes.begin() + head, said->bytes.end());
            if (focal > 0) out.focal_px = focal;
        } else {
            reader->lost();
        }
    }
    pool().give_back(std::move(reader));
    if (!fits) return sentence_of(said, name);
    return out;
}

Result<Done> write_pdf(const std::string& path, const std::vector<const Drawing*>& pages, const LoadedArtById& art,
                       const std::string& title, const Task& task) {
    return page_file(path, wire::Kind::pdf, pages, art, task, [&](const std::vector<wire::ArtRef>& refs) {
        wire::Out out;
        wire::pass(out, const_cast<std::vector<wire::ArtRef>&>(refs));
        std::uint64_t n = pages.size();
        wire::pass(out, n);
        for (const Drawing* page : pages) wire::pass(out, const_cast<Drawing&>(*page));
        wire::pass(out, const_cast<std::string&>(title));
        return std::move(out.bytes);
    });
}

Result<Done> write_pages(const std::string& path, const std::vector<GuidePage>& pages, const LoadedArtById& art, const std::string& title,
                         const Task& task) {
    std::vector<const Drawing*> drawings;
    drawings.reserve(pages.size());
    for (const GuidePage& p : pages) drawings.push_back(&p.drawing);
    return write_pdf(path, drawings, art, title, task);
}
Result<Done> write_png(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task) {
    return page_file(path, wire::Kind::png, {&page}, art, task,
                     [&](const std::vector<wire::ArtRef>& refs) { return wire::packed(refs, page, dpi); });
}
Result<Done> write_tiff(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task) {
    return page_file(path, wire::Kind::tiff, {&page}, art, task,
                     [&](const std::vector<wire::ArtRef>& refs) { return wire::packed(refs, page, dpi); });
}
Result<Done> draw_rows(const Drawing& page, const LoadedArtById& art, double dpi, const PixelRows& take, const Task& task) {
    auto reader = pool().take();
    const auto refs = hand_on(*reader, {&page}, art);
    reader->ask(wire::Kind::rows, wire::packed(refs, page, dpi));
    auto done = drawn(*reader, task, "The sheet", &take, nullptr);
    pool().give_back(std::move(reader));
    return done;
}

}  // namespace orthema
