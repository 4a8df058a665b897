#include "app/session/shop_library.h"

#include <QDir>
#include <QDateTime>
#include <QFileInfo>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "files/safe_file.h"

namespace orthema::app {

void ShopLibrary::open_in(const QString& data_folder) {
    jobs_.background([this, data_folder]() -> std::function<void()> {
        QDir().mkpath(data_folder);
        const QString path = data_folder + QStringLiteral("/shop.sqlite"), copy = data_folder + QStringLiteral("/shop-copy.sqlite");
        auto shop = Library::open(path.toStdString());
        auto content = shop ? (*shop)->content() : Result<LibraryContent>(shop.error());
        // a copy of what could be read whole, for the day when it cannot
        if (content && !(QFileInfo(copy).exists() && QFileInfo(copy).lastModified() >= QFileInfo(path).lastModified()))
            (void)(*shop)->back_up(copy.toStdString());
        auto held = std::make_shared<Result<std::unique_ptr<Library>>>(std::move(shop));
        return [this, data_folder, path, copy, held, content = std::move(content)] {
            if (!content && QFileInfo(copy).exists()) {
                const QString day = moment_text(QFileInfo(copy).lastModified());
                return notices_.say({refusal(content.error()) + tr(" There is a copy of it from %1.").arg(day), true, tr("Use the copy"),
                                     [this, data_folder, path, copy] { use_copy(data_folder, path, copy); }});
            }
            if (!content) return notices_.complain(content.error());
            {
                const std::scoped_lock lock(guard_);
                shop_ = std::move(**held);
            }
            content_ = *content;
            path_ = path;
            emit opened();
        };
    });
}

void ShopLibrary::use_copy(const QString& data_folder, const QString& path, const QString& copy) {
    const auto beside = Library::put_back(path.toStdString(), copy.toStdString());
    if (!beside) return notices_.complain(beside.error());
    notices_.say(tr("The copy is in use. The damaged library lies beside it as %1.").arg(QFileInfo(qt(*beside)).fileName()));
    open_in(data_folder);
}

void ShopLibrary::keep(const LibraryContent& kept, const QString& sentence) {
    std::string name;
    const auto first = [&](const auto& list) {
        if (name.empty() && !list.empty()) name = list.front().name;
    };
    first(kept.styles);
    first(kept.media);
    first(kept.presses);
    first(kept.methods);
    first(kept.jigs);
    if (name.empty() && !kept.trials.empty()) name = spoken("The recipe");
    if (name.empty()) return;
    jobs_.background([this, kept, name, sentence]() -> std::function<void()> {
        const std::scoped_lock lock(guard_);
        if (!shop_) return {};
        const auto done = shop_->merge(kept);
        const auto content = shop_->content();
        return [this, name, sentence, done, content] {
            if (!done) return notices_.complain(done.error());
            if (content) content_ = *content;
            notices_.say(
                {sentence.isEmpty() ? tr("%1 is now in the shop library with these figures.").arg(qt(name)) : sentence, false, {}, {}});
        };
    });
}

void ShopLibrary::learn(const ShopWords& words) {
    if (words.empty()) return;
    jobs_.background([this, words]() -> std::function<void()> {
        const std::scoped_lock lock(guard_);
        LibraryContent more;
        more.words = words;
        const auto done = shop_ ? shop_->merge(more) : Result<Done>(Error{"The shop library is not open: the wordings are not kept."});
        return [this, words, done] {
            if (!done) return notices_.complain(done.error());
            content_.words.blanks.insert(words.blanks.begin(), words.blanks.end());
            content_.words.sizes.insert(words.sizes.begin(), words.sizes.end());
        };
    });
}

void ShopLibrary::export_to(const QString& path) {
    jobs_.background([this, path, content = content_]() -> std::function<void()> {
        const auto done = write_file(path.toStdString(), library_json(content));
        return [this, path, done] { notices_.tell(done, tr("The shop library was written to %1.").arg(QFileInfo(path).fileName())); };
    });
}

void ShopLibrary::import_from(const QString& path) {
    jobs_.background([this, path]() -> std::function<void()> {
        const auto fail = [this](const Error& why) { return [this, why] { notices_.complain(why); }; };
        const auto text = read_file(path.toStdString(), 64u << 20);
        if (!text) return fail(text.error());
        const auto content = library_from_json(*text);
        if (!content) return fail(content.error());
        const std::scoped_lock lock(guard_);
        if (!shop_) return fail("The shop library is not open, so nothing was brought in.");
        if (const auto done = shop_->merge(*content); !done) return fail(done.error());
        const auto now = shop_->content();
        return [this, now, count = content->styles.size() + content->media.size() + content->presses.size()] {
            if (now) content_ = *now;
            Order next = document_.order();
            adopt_library(next, content_);
            document_.edit(tr("bring in a library"), std::move(next));
            notices_.say({tr("%1 blanks, media and presses were brought in to the shop library.").arg(count), false, {}, {}});
            emit changed();
        };
    });
}

}  // namespace orthema::app
