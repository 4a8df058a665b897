#include "app/session/stock_room.h"

#include <QDate>
#include <QDateTime>

#include <algorithm>
#include <utility>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/order/gang.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

/// A move without its time, to see whether it says anything new.
bool same_deeds(const std::vector<StockMove>& a, const std::vector<StockMove>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](const StockMove& x, const StockMove& y) { return x.id == y.id && x.amount == y.amount; });
}

}  // namespace

StockRoom::StockRoom(Document& document, Chain& chain, Records& records, ShopOrders& orders, Jobs& jobs, Notices& notices, QObject* parent)
    : QObject(parent), document_(document), chain_(chain), records_(records), orders_(orders), jobs_(jobs), notices_(notices) {
    writer_.setMaxThreadCount(1);
    shop_.today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    connect(&chain_, &Chain::worked, this, &StockRoom::follow);
    connect(&records_, &Records::changed, this, [this] {
        pressed_due_ = true;
        spoiled_ = spoilage(records_.all());
        take_in(stock());
        follow();
    });
    connect(&orders_, &ShopOrders::changed, this, [this] { take_in(stock()); });
}

StockRoom::~StockRoom() { writer_.waitForDone(); }

std::string StockRoom::now() const { return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(); }

std::string StockRoom::deed(const std::string& what) { return what + "/" + now() + "/" + std::to_string(++deeds_); }

void StockRoom::set_today(const std::string& iso) {
    today_ = iso;
    take_in(stock());
}

void StockRoom::open(const QString& path) {
    jobs_.background([this, path]() -> std::function<void()> {
        auto opened = StockBook::open(path.toStdString());
        if (!opened) return [this, why = opened.error()] { notices_.complain(why); };
        auto all = (*opened)->all();
        if (!all) return [this, why = all.error()] { notices_.complain(why); };
        {
            const std::scoped_lock lock(guard_);
            book_ = std::move(*opened);
        }
        return [this, stock = std::move(*all)]() mutable {
            opened_ = true;
            take_in(std::move(stock));
            follow();
        };
    });
}

void StockRoom::take_in(Stock stock) {
    Shop next;
    next.stock = std::make_shared<const Stock>(std::move(stock));
    next.today = today_.empty() ? QDate::currentDate().toString(Qt::ISODate).toStdString() : today_;
    next.open = open_orders(orders_.all());
    next.spoiled = spoiled_;
    if (next == shop_) return;
    pressed_due_ = pressed_due_ || !(next.stock == shop_.stock);
    shop_ = std::move(next);
    buying_.reset();
    lacking_.reset();
    chain_.use_shop(shop_);
    emit changed();
}

void StockRoom::write(std::function<Result<Done>(StockBook&)> what, std::function<void()> then) {
    const int reading = ++reading_;
    writer_.start([this, reading, what = std::move(what), then = std::move(then)] {
        const std::scoped_lock lock(guard_);
        if (!book_) return;
        const auto done = what(*book_);
        auto all = book_->all();
        QMetaObject::invokeMethod(this, [this, reading, done, all = std::move(all), then] {
            if (!done) notices_.complain(done.error());
            if (done && then) then();
            if (all && reading == reading_) take_in(*all);
        });
    });
}

void StockRoom::look_again() {
    if (opened_) write([](StockBook&) -> Result<Done> { return Done{}; });
}

const std::vector<ToBuy>& StockRoom::buying() const {
    if (!buying_) buying_ = to_buy(stock(), shop_.open.all(), shop_.spoiled);
    return *buying_;
}

const std::map<std::string, std::vector<Standby>>& StockRoom::lacking() const {
    if (!lacking_) lacking_ = lacking_of_all(shop_);
    return *lacking_;
}

void StockRoom::count(std::vector<Counted> counted) {
    write([counted = std::move(counted), at = now()](StockBook& book) { return book.count(counted, at); });
}

void StockRoom::move(std::vector<StockMove> moves) {
    if (moves.empty()) return;
    write([moves = std::move(moves)](StockBook& book) { return book.move(moves); });
}

void StockRoom::change(const std::string& id, std::function<void(StockEntry&)> how) {
    write([id, how = std::move(how)](StockBook& book) { return book.change(id, how); });
}

void StockRoom::remove(const std::string& id) {
    write([id](StockBook& book) { return book.remove(id); });
}

void StockRoom::spoil(const std::string& id, double n) { move({{deed("spoiled") + "/" + id, id, -n, now(), "spoiled", {}}}); }

void StockRoom::then(std::function<void()> what) {
    writer_.start([this, what = std::move(what)] { QMetaObject::invokeMethod(this, what); });
}

void StockRoom::to_shelf(const std::vector<LeftOver>& left, bool called_off) {
    // the spares of what is called off are among it: one of the two counts
    const std::string deed = called_off ? "called off/" : "left over/", other = called_off ? "left over/" : "called off/";
    const TransferSet& set = chain_.work().transfer_set();
    std::vector<StockEntry> bags;
    std::vector<StockMove> moves;
    int pieces = 0;
    for (const LeftOver& l : left)
        if (const Transfer* t = find_transfer(set, l.transfer)) {
            StockEntry bag = bag_of(document_.order(), *t, l, shop_.today);
            if (const StockEntry* before = find_entry(stock(), bag.id)) {  // where it lies, and since when, stays
                bag.place = before->place;
                if (before->on_hand > 0) {
                    bag.printed = before->printed;
                    bag.until = before->until;
                }
            }
            bag.picture = picture_of(*t);
            moves.push_back({deed + bag.id, bag.id, bag.on_hand, now(), "to the shelf", {}});
            moves.push_back({other + bag.id, bag.id, 0, now(), "to the shelf", {}});
            pieces += l.copies;
            bags.push_back(std::move(bag));
        }
    if (bags.empty()) return;
    write(
        [bags, moves](StockBook& book) -> Result<Done> {
            for (const StockEntry& b : bags)
                if (auto done = book.put(b); !done) return done;
            return book.move(moves);
        },
        [this, pieces, n = bags.size()] {
            notices_.say(tr("%1 in %2 on the shelf: the next order with the same design takes them first.")
                             .arg(counted(std::size_t(pieces), "transfer lies", "transfers lie"), counted(n, "bag")));
        });
}

void StockRoom::printed(const Sheet& sheet, double length) {
    move(taken_by_printing(document_.order(), chain_.work().transfer_set(), sheet, length, stock(), deed("print/" + document_.order().job),
                           now()));
}

void StockRoom::release(const std::vector<std::string>& jobs) { hold(jobs, {}); }

void StockRoom::hold(const std::vector<std::string>& jobs, const std::vector<Hold>& wanted) {
    write([jobs, wanted](StockBook& book) -> Result<Done> {
        const auto done = book.hold(jobs, wanted);
        if (!done) return done.error();
        return Done{};
    });
}

/// The promises and takings of the order on the table follow it.
void StockRoom::follow() {
    if (!opened_ || chain_.catching_up()) return;
    const Order& order = document_.order();
    const TransferSet& set = chain_.work().transfer_set();
    std::vector<Hold> wanted;
    for (const FromShelf& f : from_shelf(order, set)) wanted.push_back({f.bag, f.job, double(f.copies)});
    const std::vector<std::string> jobs = job_ids(order);
    const std::vector<Hold> asked_before = held_;
    const bool other_table = jobs.front() != (held_for_.empty() ? std::string() : held_for_.front());
    if (other_table) {
        held_for_ = jobs;
        held_.clear();
        saved_holds_ = wanted;  // as it came
        pressed_.clear();
    }
    if (!document_.changed_since_saved()) saved_holds_ = wanted;
    if (wanted != held_ || jobs != held_for_) {
        std::vector<std::string> all = jobs;  // a job that was taken out of a gang keeps nothing here
        for (const std::string& j : held_for_)
            if (std::find(all.begin(), all.end(), j) == all.end()) all.push_back(j);
        held_ = wanted;
        held_for_ = jobs;
        hold(all, wanted);
    }
    // what was pressed is looked through where it may have changed, not with every edit
    pressed_due_ = pressed_due_ || other_table || wanted != asked_before;
    if (!std::exchange(pressed_due_, false)) return;
    const auto moves = taken_by_pressing(order, set, records_.of_order(order).records, stock(), false, now());
    if (!same_deeds(moves, pressed_) && !(moves.empty() && pressed_.empty())) {
        pressed_ = moves;
        move(moves);
    }
}

void StockRoom::table_cleared() {
    if (held_for_.empty() || held_ == saved_holds_) return;
    hold(held_for_, saved_holds_);
    held_ = saved_holds_;
}

void StockRoom::count_in_from(const QString& path) {
    std::vector<Medium> media = document_.order().media.all();
    jobs_.background(
        [this, path, styles = document_.order().styles.all(), media = std::move(media), at = now()]() -> std::function<void()> {
            const auto text = read_file(path.toStdString());
            if (!text) return [this, why = text.error()] { notices_.complain(why); };
            const auto counted_in = stock_from_csv(*text, styles, media);
            if (!counted_in) return [this, why = counted_in.error()] { notices_.complain(why); };
            return [this, all = *counted_in, at] {
                write([all, at](StockBook& book) { return book.count(all, at); },
                      [this, n = all.size()] { notices_.say(tr("%1 counted in.").arg(counted(n, "row"))); });
            };
        });
}

void StockRoom::export_to(const QString& path, bool to_buy) {
    jobs_.background([this, path, text = to_buy ? to_buy_csv(buying()) : stock_csv(stock())]() -> std::function<void()> {
        const auto done = write_file(path.toStdString(), text);
        return [this, done, path] { notices_.tell(done, tr("Written to %1.").arg(path)); };
    });
}

}  // namespace orthema::app
