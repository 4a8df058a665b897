#include "app/session/records.h"

#include <QDateTime>
#include <QFileInfo>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/records/drift.h"
#include "core/records/statistics.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

constexpr std::size_t spread_known_from = 12;  ///< measured pieces

std::string now_text() { return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(); }

/// Those that act on whatever is pressed, not on one order's own figures.
bool stands(const Correction& c) {
    return c.kind == CorrectionKind::loading_marks || c.kind == CorrectionKind::hand_times || c.kind == CorrectionKind::photo_scale;
}

/// What the ids of corrections begin with that rest on rehearsals.
const std::string rehearsed = "rehearsal/";

template <class List>
bool has_id(const List& list, const std::string& id) {
    return std::any_of(list.begin(), list.end(), [&](const Correction& c) { return c.id == id; });
}

}  // namespace

Records::Records(Document& document, ShopLibrary& library, Jobs& jobs, Notices& notices, QObject* parent)
    : QObject(parent), document_(document), library_(library), jobs_(jobs), notices_(notices) {
    writer_.setMaxThreadCount(1);
    connect(&document_, &Document::changed, this, &Records::follow);
}

Records::~Records() { writer_.waitForDone(); }

void Records::open(const QString& library_path) {
    jobs_.background([this, library_path]() -> std::function<void()> {
        auto book = RecordBook::open(library_path.toStdString());
        auto records = book ? (*book)->records() : Result<std::vector<PressRecord>>(book.error());
        auto lessons = book ? (*book)->lessons() : Result<std::vector<Lesson>>(book.error());
        auto held = std::make_shared<Result<std::unique_ptr<RecordBook>>>(std::move(book));
        return [this, held, records = std::move(records), lessons = std::move(lessons)]() mutable {
            if (!records || !lessons) return notices_.complain(records ? lessons.error() : records.error());
            // what came meanwhile, with an order, is written now
            const std::vector<PressRecord> early = std::exchange(all_, std::move(*records));
            const std::vector<Lesson> early_lessons = std::exchange(lessons_, std::move(*lessons));
            {
                const std::scoped_lock lock(guard_);
                book_ = std::move(**held);
            }
            opened_ = true;
            merge({early, early_lessons});
            emit changed();
        };
    });
}

void Records::close() {
    writer_.waitForDone();
    const std::scoped_lock lock(guard_);
    book_.reset();
    all_.clear();
    lessons_.clear();
    opened_ = false;
}

OrderRecords Records::of_order(const std::string& job) const {
    OrderRecords out;
    if (job.empty()) return out;
    for (const PressRecord& r : all_)
        if (r.job == job) out.records.push_back(r);
    for (const Lesson& l : lessons_)
        if (l.job == job) out.lessons.push_back(l);
    return out;
}

OrderRecords Records::of_order(const Order& order) const {
    OrderRecords out = of_order(order.job);
    for (const Job& j : order.jobs.all()) {
        const OrderRecords more = of_order(j.id);
        out.records.insert(out.records.end(), more.records.begin(), more.records.end());
        out.lessons.insert(out.lessons.end(), more.lessons.begin(), more.lessons.end());
    }
    return out;
}

std::vector<Correction> Records::standing() const {
    std::vector<Correction> out;
    for (const Lesson& l : lessons_)
        if (l.state == LessonState::taken && stands(l.correction) && l.correction.id.rfind(rehearsed, 0) != 0) out.push_back(l.correction);
    return out;
}

std::vector<Correction> Records::lacking() const {
    std::vector<Correction> out = standing();
    std::erase_if(out, [&](const Correction& c) { return has_id(document_.order().corrections.all(), c.id); });
    return out;
}

double Records::spread() const {
    std::vector<double> seen;
    for (std::size_t i = all_.size(); i-- > 0 && seen.size() < 200;)
        if (all_[i].landing && all_[i].landing->aside && !all_[i].rehearsal) seen.push_back(*all_[i].landing->aside);
    return seen.size() < spread_known_from ? RunBefore{}.spread : std::max(0.5, robust_spread(seen));
}

void Records::write(std::vector<PressRecord> records, std::vector<Lesson> lessons) {
    if (!opened_ || (records.empty() && lessons.empty())) return;  // all of it is written once the book is open
    writer_.start([this, records = std::move(records), lessons = std::move(lessons)] {
        Result<Done> done = Done{};
        {
            const std::scoped_lock lock(guard_);
            done = book_->add(records);
            for (const Lesson& l : lessons)
                if (done) done = book_->add(l);
        }
        QMetaObject::invokeMethod(this, [this, done, records] {
            if (!done) {
                if (!std::exchange(said_unkept_, true)) notices_.complain(done.error());
                return;
            }
            said_unkept_ = false;
            for (const PressRecord& r : records) emit kept(qt(r.id));
        });
    });
}

void Records::add(std::vector<PressRecord> records) {
    std::erase_if(records, [](const PressRecord& r) { return r.id.empty() || r.at.empty(); });
    if (records.empty()) return;
    merge_records(all_, records);
    write(std::move(records), {});
    emit changed();
}

void Records::amend(PressRecord record) {
    for (const PressRecord& r : all_)
        if (r.id == record.id) record.version = std::max(record.version, r.version + 1);
    add({std::move(record)});
}

void Records::merge(const OrderRecords& more) {
    std::vector<Lesson> fresh;
    for (const Lesson& l : more.lessons) {
        const auto same =
            std::find_if(lessons_.begin(), lessons_.end(), [&](const Lesson& k) { return k.correction.id == l.correction.id; });
        if (same != lessons_.end() && same->version >= l.version) continue;
        if (same == lessons_.end())
            lessons_.push_back(l);
        else
            *same = l;
        fresh.push_back(l);
    }
    merge_records(all_, more.records);
    write(more.records, std::move(fresh));  // what is there already stays as it is
    if (!more.records.empty() || !more.lessons.empty()) emit changed();
}

void Records::decide(const Correction& c, LessonState state) {
    Lesson l;
    l.correction = c;
    l.state = state;
    l.at = now_text();
    l.job = document_.order().job;
    const auto same = std::find_if(lessons_.begin(), lessons_.end(), [&](const Lesson& k) { return k.correction.id == c.id; });
    if (same == lessons_.end()) {
        lessons_.push_back(l);
    } else {
        l.version = same->version + 1;
        *same = l;
    }
    write({}, {l});
    emit changed();
}

void Records::remark(const std::string& words, const RecordFilter& about) {
    Correction c;
    c.kind = CorrectionKind::look;
    c.words = words;
    c.press = about.press;
    c.platen = about.platen;
    c.style = about.style;
    c.size = about.size;
    c.method = about.method;
    c.design = about.design;
    c.hands = about.hands;
    c.id = remark_prefix + now_text() + "/" + words.substr(0, 40);
    decide(c, LessonState::open);
}

void Records::take(const Correction& proposal) {
    // what a rehearsal taught is true of the rehearsal alone: it stays in this order
    Correction c = proposal;
    for (const PressRecord& r : all_)
        if (r.rehearsal && !c.records.empty() && r.id == c.records.back()) c.id = rehearsed + c.id;
    Order next = with_correction(document_.order(), c, now_text());
    if (next.corrections.size() == document_.order().corrections.size())
        return notices_.say(tr("This order has nothing that it would act on: open one that has."));
    document_.edit(tr("take a correction"), std::move(next));
}

void Records::decline(const Correction& c) { decide(c, LessonState::declined); }

void Records::take_standing() {
    Order next = document_.order();
    for (const Correction& c : lacking()) next.corrections.push_back(c);
    document_.edit(tr("take the shop's corrections"), std::move(next));
}

/// What was taken, undone or done again in the order is so in the shop.
void Records::follow(const Order& before) {
    const Order& now = document_.order();
    if (before.job != now.job || now.corrections == before.corrections) return;
    LibraryContent changed_things;
    const auto shop_follows = [&](const Correction& c) {
        if (const BlankStyle* s = find_style(now, c.style);
            s != nullptr && (c.kind == CorrectionKind::neck_drop || c.kind == CorrectionKind::circumference))
            changed_things.styles.push_back(*s);
        if (const Method* m = find_method(now, c.method); m != nullptr && c.kind == CorrectionKind::shrink)
            changed_things.methods.push_back(*m);
    };
    for (const Correction& c : now.corrections.all())
        if (!has_id(before.corrections.all(), c.id)) {
            const bool known = std::any_of(lessons_.begin(), lessons_.end(),
                                           [&](const Lesson& l) { return l.correction.id == c.id && l.state == LessonState::taken; });
            if (known) continue;  // the shop's own, taken over
            decide(c, LessonState::taken);
            shop_follows(c);
        }
    for (const Correction& c : before.corrections.all())
        if (!has_id(now.corrections.all(), c.id)) {
            const bool mine = std::any_of(lessons_.begin(), lessons_.end(), [&](const Lesson& l) {
                return l.correction.id == c.id && l.state == LessonState::taken && l.job == now.job;
            });
            if (!mine) continue;
            decide(c, LessonState::taken_back);
            shop_follows(c);
        }
    if (!changed_things.styles.empty() || !changed_things.methods.empty())
        library_.keep(changed_things, tr("The shop library has the same figures now."));
}

void Records::forget_hands(const std::string& hands) {
    for (PressRecord& r : all_)
        if (r.hands == hands) r.hands.clear();
    for (Lesson& l : lessons_)
        if (l.correction.hands == hands) l.correction.hands.clear();
    writer_.start([this, hands] {
        Result<Done> done = Done{};
        {
            const std::scoped_lock lock(guard_);
            if (book_) done = book_->forget_hands(hands);
        }
        QMetaObject::invokeMethod(this,
                                  [this, done, hands] { notices_.tell(done, tr("“%1” stands in no record any more.").arg(qt(hands))); });
    });
    emit changed();
}

void Records::export_to(const QString& path) {
    jobs_.background([this, path, all = all_, lessons = lessons_]() -> std::function<void()> {
        const bool table = path.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive);
        const auto done = write_file(path.toStdString(), table ? records_csv(all) : records_json({all, lessons}));
        return [this, path, done, count = all.size()] {
            notices_.tell(done, tr("%1 written to %2.").arg(counted(count, "record"), QFileInfo(path).fileName()));
        };
    });
}

void Records::import_from(const QString& path) {
    jobs_.background([this, path]() -> std::function<void()> {
        const auto text = read_file(path.toStdString(), 512u << 20);
        if (!text) return [this, why = text.error()] { notices_.complain(why); };
        auto read = Result<OrderRecords>(OrderRecords{});
        if (path.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive)) {
            auto rows = records_from_csv(*text);
            if (rows)
                read = OrderRecords{std::move(*rows), {}};
            else
                read = rows.error();
        } else {
            read = records_from_json(*text);
        }
        if (!read) return [this, why = read.error()] { notices_.complain(why); };
        return [this, records = std::move(*read)] {
            const std::size_t before = all_.size();
            merge(records);
            notices_.say(tr("%1 brought in, %2 of them new.").arg(counted(records.records.size(), "record")).arg(all_.size() - before));
        };
    });
}

}  // namespace orthema::app
