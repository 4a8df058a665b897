#include "app/session/pictures.h"

#include <QFileInfo>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/order/art_words.h"
#include "core/order/edit.h"
#include "core/order/roster.h"
#include "files/lettering.h"
#include "files/reader_process.h"
#include "files/safe_file.h"

namespace orthema::app {

Pictures::Pictures(Document& document, Jobs& jobs, Notices& notices, QObject* parent)
    : QObject(parent), document_(document), jobs_(jobs), notices_(notices), known_(std::make_shared<const KnownArt>()) {}

void Pictures::take_over(const Order& order, ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known) {
    made_.clear();
    for (const Art& one : order.art) made_[one.id] = made_of(order, one);
    bytes_ = std::move(bytes);
    art_ = std::move(art);
    known_ = std::move(known);
}

void Pictures::find_known(Findings faults) { known_ = std::make_shared<const KnownArt>(KnownArt{facts_of(art_), std::move(faults)}); }

void Pictures::bring_in(const QStringList& paths) {
    for (const QString& path : paths)
        jobs_.background([this, path]() -> std::function<void()> {
            const auto fail = [this](const Error& why) { return [this, why] { notices_.complain(why); }; };
            auto text = read_file(path.toStdString());
            if (!text) return fail(text.error());
            const std::string name = QFileInfo(path).fileName().toStdString();
            if (const auto kind = kind_of(*text); kind == ArtKind::ttf || kind == ArtKind::otf) {
                const Typeface face = typeface(QFileInfo(path).completeBaseName().toStdString(), std::move(*text));
                if (auto sound = shaped_words(face.file, name, {"A"}, false); !sound) return fail(sound.error());
                return [this, face] {
                    Order next = document_.order();
                    const std::string id = enrol_lettering(next, bytes_, Lettering{}, face, nullptr, face.name);
                    emit brought_in(id);
                    document_.edit(tr("a lettering"), std::move(next));
                };
            }
            auto file = std::make_shared<const std::string>(std::move(*text));
            auto loaded = load_art(file, name);
            if (!loaded) return fail(loaded.error());
            return [this, name, file, art = *loaded] {
                Order next = document_.order();
                const std::string id = enrol_art(next, bytes_, *art, file, name);
                art_[id] = art;
                made_[id] = made_of(next, *find_art(next, id));
                find_known(known_->faults);
                emit brought_in(id);
                document_.edit(tr("bring in %1").arg(qt(name)), std::move(next));
            };
        });
}

Pictures::MadeOf Pictures::made_of(const Order& order, const Art& art) {
    MadeOf m{art.hash, art.mendings, art.clip, art.subject, {}, art.lettering, {}, composed_words(order, art)};
    if (const BlankStyle* on = art.clip ? find_style(order, art.clip->style) : nullptr) m.on = *on;
    if (art.lettering) m.words = words_of(order, art);
    return m;
}

void Pictures::show(const Art& art, LoadedArtById pictures) {
    std::erase_if(art_, [&](const auto& one) {
        return art_of_word(one.first) == art.id || one.first == whole_id(art.id) || one.first == unmended_id(art.id);
    });
    art_.merge(pictures);
}

void Pictures::made_anew() {
    const Order& order = document_.order();
    for (const Art& art : order.art) {
        const MadeOf wanted = made_of(order, art);
        const auto made = made_.find(art.id);
        if (made != made_.end() && made->second == wanted) continue;
        made_[art.id] = wanted;
        jobs_.background([this, art, order, wanted, bytes = bytes_]() -> std::function<void()> {
            auto pictures = pictures_of(order, art, bytes);
            return [this, art, wanted, pictures = std::move(pictures)] {
                if (made_[art.id] != wanted) return;
                Findings faults = known_->faults;
                const char* code = art.clip ? "art-clip" : "art-unreadable";
                std::erase_if(faults, [&](const Finding& f) {
                    return f.about.art == art.id && (f.code == "art-clip" || f.code == "art-unreadable");
                });
                if (pictures) {
                    show(art, *pictures);
                } else {
                    Subject about;
                    about.art = art.id;
                    faults.push_back(finding(code, about, {{"fault", pictures.error().said()}}));
                }
                find_known(std::move(faults));
                emit changed();
            };
        });
    }
}

void Pictures::mend(const std::string& id, const QString& what, const std::vector<Mending>& mendings) {
    const Art* entry = find_art(document_.order(), id);
    if (entry == nullptr || !is_picture(*entry) || entry->mendings == mendings) return;
    const Order wished = with_mendings(document_.order(), id, mendings, {});
    ++mending_;
    emit changed();
    jobs_.background(
        [this, id, what, wished, was = *entry, bytes = bytes_]() -> std::function<void()> {
            const Art& art = *find_art(wished, id);
            auto pictures = pictures_of(wished, art, bytes);
            const auto fail = [this](const Error& why) {
                return [this, why] {
                    --mending_;
                    notices_.complain(why);
                    emit changed();
                };
            };
            if (!pictures) return fail(pictures.error());
            return [this, art, what, was, pictures = std::move(*pictures)] {
                --mending_;
                const Art* now = find_art(document_.order(), art.id);
                if (now == nullptr || *now != was) return emit changed();  // somebody went on
                const auto whole = [&](const LoadedArtById& all) {
                    const auto at = all.find(art.clip ? whole_id(art.id) : art.id);
                    return at == all.end() ? nullptr : at->second;
                };
                Affine marks;
                if (const LoadedArtPtr from = whole(art_), to = whole(pictures); from && to && !from->facts.empty() && !to->facts.empty()) {
                    const auto unit = [](const LoadedArt& a) {  // to the canvas
                        const double w = a.facts.ink_px.width();
                        return Affine{w, 0, 0, w, a.facts.ink_px.x0, a.facts.ink_px.y0};
                    };
                    marks = inverse(unit(*to)).after(to->from_file).after(inverse(from->from_file)).after(unit(*from));
                }
                Order next = with_mendings(document_.order(), art.id, art.mendings, marks);
                const Art& mended = *find_art(next, art.id);
                if (mended.subject == art.subject) {  // else its clip is made anew
                    show(art, pictures);
                    made_[art.id] = made_of(next, mended);
                    find_known(known_->faults);
                }
                document_.edit(what, std::move(next));
                emit changed();
            };
        },
        [this] { --mending_; });
}

}  // namespace orthema::app
