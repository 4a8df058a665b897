#include "app/session/pictures.h"

#include <QFileInfo>

#include "app/widgets/figures.h"
#include "core/order/roster.h"
#include "files/lettering.h"
#include "files/reader_process.h"
#include "files/safe_file.h"

namespace orthema::app {

Pictures::Pictures(Document& document, Jobs& jobs, Notices& notices, QObject* parent)
    : QObject(parent), document_(document), jobs_(jobs), notices_(notices), known_(std::make_shared<const KnownArt>()) {}

void Pictures::take_over(ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known) {
    bytes_ = std::move(bytes);
    art_ = std::move(art);
    known_ = std::move(known);
}

void Pictures::find_known(Findings faults) { known_ = std::make_shared<const KnownArt>(KnownArt{facts_of(art_), std::move(faults)}); }

void Pictures::bring_in(const QStringList& paths) {
    for (const QString& path : paths)
        jobs_.background([this, path]() -> std::function<void()> {
            const auto fail = [this](const std::string& s) { return [this, s] { notices_.complain(qt(s)); }; };
            auto text = read_file(path.toStdString());
            if (!text) return fail(text.sentence());
            const std::string name = QFileInfo(path).fileName().toStdString();
            if (const auto kind = kind_of(*text); kind == ArtKind::ttf || kind == ArtKind::otf) {
                const Typeface face = typeface(QFileInfo(path).completeBaseName().toStdString(), std::move(*text));
                if (auto sound = shaped_words(face.file, name, {"A"}, false); !sound) return fail(sound.sentence());
                return [this, face] {
                    Order next = document_.order();
                    const std::string id = enrol_lettering(next, bytes_, Lettering{}, face, nullptr, face.name);
                    emit brought_in(id);
                    document_.edit(QStringLiteral("a lettering"), std::move(next));
                };
            }
            auto file = std::make_shared<const std::string>(std::move(*text));
            auto loaded = load_art(file, name);
            if (!loaded) return fail(loaded.sentence());
            return [this, name, file, art = *loaded] {
                Order next = document_.order();
                const std::string id = enrol_art(next, bytes_, *art, file, name);
                art_[id] = art;
                find_known(known_->faults);
                emit brought_in(id);
                document_.edit(QStringLiteral("bring in %1").arg(qt(name)), std::move(next));
            };
        });
}

void Pictures::set_anew(const Order& before, const Art& art) {
    const Order& order = document_.order();
    const Art* was = find_art(before, art.id);
    const bool there = art_.contains(art.id);
    if (there && was != nullptr && *was == art && words_of(before, *was) == words_of(order, art)) return;
    jobs_.background([this, art, order, bytes = bytes_]() -> std::function<void()> {
        auto words = lettered_art(order, art, bytes);
        return [this, art, order, words = std::move(words)] {
            const Art* now = find_art(document_.order(), art.id);
            if (now == nullptr || *now != art || words_of(document_.order(), *now) != words_of(order, art)) return;
            Findings faults = known_->faults;
            std::erase_if(faults, [&](const Finding& f) { return f.about.art == art.id && f.code == "art-unreadable"; });
            std::erase_if(art_, [&](const auto& one) { return art_of_word(one.first) == art.id; });
            if (words)
                art_.insert(words->begin(), words->end());
            else
                faults.push_back(unreadable(art, words.sentence()));
            find_known(std::move(faults));
            emit changed();
        };
    });
}

void Pictures::clip_anew(const Order& before) {
    const Order& order = document_.order();
    for (const Art& art : order.art)
        if (art.lettering) set_anew(before, art);
    for (const Art& art : order.art) {
        const Art* was = find_art(before, art.id);
        const BlankStyle* on = art.clip ? find_style(order, art.clip->style) : nullptr;
        const BlankStyle* on_then = was != nullptr && was->clip ? find_style(before, was->clip->style) : nullptr;
        if (art.lettering) continue;
        const bool same = was != nullptr && was->clip == art.clip && was->subject == art.subject &&
                          ((on == nullptr) == (on_then == nullptr)) && (on == nullptr || *on == *on_then);
        auto loaded = art_.find(whole_id(art.id));
        if (loaded == art_.end()) loaded = art_.find(art.id);
        if (same || loaded == art_.end()) continue;
        const LoadedArtPtr whole = loaded->second->whole ? loaded->second->whole : loaded->second;
        jobs_.background([this, art, whole, order]() -> std::function<void()> {
            const auto clipped = clipped_art(order, art, whole);
            return [this, art, whole, clipped] {
                const Art* now = find_art(document_.order(), art.id);
                if (now == nullptr || now->clip != art.clip || now->subject != art.subject) return;
                Findings faults = known_->faults;
                std::erase_if(faults, [&](const Finding& f) { return f.about.art == art.id && f.code == "art-clip"; });
                if (clipped) {
                    art_[art.id] = *clipped;
                    if (art.clip)
                        art_[whole_id(art.id)] = whole;
                    else
                        art_.erase(whole_id(art.id));
                } else {
                    Subject about;
                    about.art = art.id;
                    faults.push_back(finding("art-clip", about, {{"fault", clipped.sentence()}}));
                }
                find_known(std::move(faults));
                emit changed();
            };
        });
    }
}

}  // namespace orthema::app
