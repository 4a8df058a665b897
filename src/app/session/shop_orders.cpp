#include "app/session/shop_orders.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QImage>

#include <set>

#include "app/widgets/canvas.h"
#include "app/widgets/figures.h"
#include "app/widgets/speech.h"
#include "core/guides/small_garments.h"

namespace orthema::app {

namespace {

constexpr int picture_width = 256, picture_height = 76;
constexpr int most_found = 60;  ///< files looked at in one go

KnownOrder known_from(const Order& order, const Work& work, const LoadedArtById& art, const std::string& path, const std::string& saved) {
    QImage image;
    paint_image(image, small_garments(order, work.plan(), picture_width, picture_height), art, picture_width, picture_height, 1);
    return {card_of(order, work, saved), path, false, png_of(image)};
}

}  // namespace

ShopOrders::ShopOrders(Document& document, Pictures& pictures, Chain& chain, Jobs& jobs, Notices& notices, QObject* parent)
    : QObject(parent), document_(document), pictures_(pictures), chain_(chain), jobs_(jobs), notices_(notices) {
    writer_.setMaxThreadCount(1);
    connect(&chain_, &Chain::worked, this, [this] {
        if (!waiting_.isEmpty() && !chain_.catching_up()) note(QString(waiting_));
    });
}

ShopOrders::~ShopOrders() { writer_.waitForDone(); }

void ShopOrders::open(const QString& library_path) {
    jobs_.background([this, library_path]() -> std::function<void()> {
        auto book = OrderBook::open(library_path.toStdString());
        auto all = book ? (*book)->all() : Result<std::vector<KnownOrder>>(book.error());
        auto held = std::make_shared<Result<std::unique_ptr<OrderBook>>>(std::move(book));
        return [this, held, all = std::move(all)]() mutable {
            if (!all) return notices_.complain(all.error());
            std::vector<KnownOrder> early = std::exchange(all_, std::move(*all));
            {
                const std::scoped_lock lock(guard_);
                book_ = std::move(**held);
            }
            opened_ = true;
            for (KnownOrder& o : early) take_in(std::move(o));
            sort();
            emit changed();
        };
    });
}

void ShopOrders::close() {
    writer_.waitForDone();
    const std::scoped_lock lock(guard_);
    book_.reset();
    all_.clear();
    passed_over_.clear();
    opened_ = false;
}

void ShopOrders::sort() {
    std::stable_sort(all_.begin(), all_.end(),
                     [](const KnownOrder& a, const KnownOrder& b) { return a.away != b.away ? b.away : lies_before(a.card, b.card); });
}

const KnownOrder* ShopOrders::find(const std::string& job) const {
    const auto at = std::find_if(all_.begin(), all_.end(), [&](const KnownOrder& o) { return o.card.job == job; });
    return at == all_.end() ? nullptr : &*at;
}

void ShopOrders::write(std::function<Result<Done>(OrderBook&)> what) {
    writer_.start([this, what = std::move(what)] {
        const std::scoped_lock lock(guard_);
        if (!book_) return;
        const auto done = what(*book_);
        if (!done) QMetaObject::invokeMethod(this, [this, why = done.error()] { notices_.complain(why); });
    });
}

void ShopOrders::take_in(KnownOrder order) {
    const auto at = std::find_if(all_.begin(), all_.end(), [&](const KnownOrder& o) { return o.card.job == order.card.job; });
    if (at == all_.end()) {
        all_.push_back(order);
    } else {
        if (order.picture.empty()) order.picture = at->picture;
        *at = order;
    }
    write([order = std::move(order)](OrderBook& book) { return book.put(order); });
}

void ShopOrders::note(const QString& path) {
    waiting_.clear();
    if (path.isEmpty()) return;
    if (chain_.catching_up()) {
        waiting_ = path;
        return;
    }
    const Order& order = document_.order();
    KnownOrder known = known_from(order, chain_.work(), pictures_.art(), QFileInfo(path).absoluteFilePath().toStdString(),
                                  QDateTime::currentDateTime().toString(Qt::ISODate).toStdString());
    if (const KnownOrder* before = find(order.job)) known.away = before->away;
    take_in(std::move(known));
    sort();
    emit changed();
}

std::vector<std::string> ShopOrders::leaving(const std::string& job) const {
    std::vector<std::string> out = {job};
    const KnownOrder* order = find(job);
    if (order == nullptr) return out;
    for (const std::string& j : order->card.jobs)
        if (std::none_of(all_.begin(), all_.end(), [&](const KnownOrder& o) {
                const auto& in_it = o.card.jobs;
                return !o.away && o.card.job != job && (o.card.job == j || std::find(in_it.begin(), in_it.end(), j) != in_it.end());
            }))
            out.push_back(j);
    return out;
}

void ShopOrders::put_away(const std::string& job, bool away) {
    for (KnownOrder& o : all_)
        if (o.card.job == job) o.away = away;
    sort();
    write([job, away](OrderBook& book) { return book.put_away(job, away); });
    if (away) emit gone(leaving(job));
    emit changed();
}

void ShopOrders::forget(const std::string& job) {
    const std::vector<std::string> leave = leaving(job);
    std::erase_if(all_, [&](const KnownOrder& o) { return o.card.job == job; });
    write([job](OrderBook& book) { return book.forget(job); });
    emit gone(leave);
    emit changed();
}

void ShopOrders::look_around() {
    std::set<QString> folders;
    for (const KnownOrder& o : all_) folders.insert(QFileInfo(qt(o.path)).absolutePath());
    jobs_.background([this, folders]() -> std::function<void()> {
        QFileInfoList files;
        for (const QString& folder : folders) files << QDir(folder).entryInfoList({QStringLiteral("*.orthema")}, QDir::Files, QDir::Time);
        return [this, files] {
            std::set<std::string> known;
            for (const KnownOrder& o : all_) known.insert(o.path);
            int looked_at = 0;
            for (const QFileInfo& file : files) {
                const std::string path = file.absoluteFilePath().toStdString();
                if (known.contains(path) || passed_over_.contains(path) || ++looked_at > most_found) continue;
                passed_over_.insert(path);  // once is enough
                look_at(path, file.lastModified().toString(Qt::ISODate).toStdString());
            }
        };
    });
}

/// Reads an order that was found on a thread, and takes it in.
void ShopOrders::look_at(const std::string& path, const std::string& saved) {
    jobs_.background([this, path, saved]() -> std::function<void()> {
        auto package = open_order(path);
        if (!package) return {};  // it says so when it is opened
        package->order.unit.language = language_spoken();
        const ReadArt pictures = read_all_art(package->order, package->art);
        const Work w = work(package->order, Shop{}, pictures.known);
        return [this, found = known_from(package->order, w, pictures.art, path, saved)] {
            if (find(found.card.job) != nullptr) return;  // a copy of one that is known is not another
            take_in(found);
            sort();
            emit changed();
        };
    });
}

}  // namespace orthema::app
