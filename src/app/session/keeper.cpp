#include "app/session/keeper.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>

#include "app/widgets/speech.h"
#include "app/session/log.h"
#include "app/widgets/figures.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

constexpr int autosave_after_ms = 12000;

/// What survives the program, where its data folder cannot be written to.
QString second_folder() { return state_folder() + QStringLiteral("/aside"); }

}  // namespace

Keeper::Keeper(QString data_folder, Document& document, Pictures& pictures, ShopLibrary& library, Jobs& jobs, Notices& notices,
               Settings& settings, QObject* parent)
    : QObject(parent),
      data_folder_(std::move(data_folder)),
      document_(document),
      pictures_(pictures),
      library_(library),
      jobs_(jobs),
      notices_(notices),
      settings_(settings) {
    name_aside();
    autosave_timer_.setSingleShot(true);
    autosave_timer_.setInterval(autosave_after_ms);
    connect(&autosave_timer_, &QTimer::timeout, this, &Keeper::autosave);
}

QString Keeper::aside_path() const {
    if (!path_.isEmpty() && QFileInfo(path_).isFile()) {
        const std::string beside = autosave_path(path_.toStdString());
        if (const FileStamp there = file_stamp(beside); there == FileStamp{} || there == beside_) return qt(beside);
    }  // what lies there is of another program, or of one that ended early: it stays
    return data_folder_ + "/aside/" + qt(file_stem(document_.order().name)) + "-" + aside_ + ".orthema";
}

Keeper::Attempt Keeper::put_aside(const Order& order, const ArtBytes& bytes, const OrderRecords& records, const QString& usual,
                                  const QString& second) {
    Attempt out;
    for (const QString& to : {usual, second}) {
        QDir().mkpath(QFileInfo(to).path());
        const auto done = save_order(to.toStdString(), order, bytes, records);
        if (done) {
            out.kept = to;
            if (to.endsWith('~')) out.beside = file_stamp(to.toStdString());
            return out;
        }
        if (out.why.isEmpty()) out.why = refusal(done.error());
    }
    return out;
}

void Keeper::own_beside(FileStamp written) {
    if (written != FileStamp{}) beside_ = written;
}

/// Unsaved, and with something in it.
bool Keeper::worth_keeping() const {
    return document_.changed_since_saved() && !(document_.order().lines.empty() && document_.order().art.empty());
}

void Keeper::autosave() {
    if (!worth_keeping()) return;
    const QString to = aside_path();
    const int mine = ++under_way_->wanted;
    jobs_.background(
        [this, order = document_.order(), bytes = pictures_.bytes(), records = own_records(), to, second = second_place(to), mine,
         under_way = under_way_]() -> std::function<void()> {
            const std::lock_guard alone(under_way->writing);
            if (under_way->wanted != mine) return [] {};
            const Attempt done = put_aside(order, bytes, records, to, second);
            if (done.beside != FileStamp{}) under_way->beside = done.beside;
            return [this, done, to, mine, under_way] {
                if (under_way->wanted == mine) told(to, done);
            };
        },
        [this, to, mine, under_way = under_way_] {
            if (under_way->wanted == mine) told(to, {{}, tr("Writing it ended early."), {}});
        });
}

FileStamp Keeper::written_by(Aside& under_way) {
    const std::lock_guard alone(under_way.writing);
    return std::exchange(under_way.beside, FileStamp{});
}

QString Keeper::second_place(const QString& path) const {
    const QFileInfo usual(path);  // it is found there as what was put aside, under a name that no other program has
    return second_folder() + "/" + (path.endsWith('~') ? usual.completeBaseName() + "-" + aside_ + ".orthema" : usual.fileName());
}

void Keeper::told(const QString& wanted, const Attempt& done) {
    own_beside(done.beside);
    const bool nowhere = done.kept.isEmpty(), elsewhere = !nowhere && done.kept != wanted;
    if (nowhere) {
        notices_.say({tr("What you do now is kept nowhere: %1 Save it to another place.").arg(done.why), true, tr("Try again"),
                      [this] { autosave(); }});
        autosave_timer_.start();  // and by itself until it succeeds
    } else if (elsewhere && !kept_elsewhere_) {
        notices_.complain(tr("%1 What is not saved is kept as %2 meanwhile.").arg(done.why, QDir::toNativeSeparators(done.kept)));
    } else if (!elsewhere && (kept_nowhere_ || kept_elsewhere_)) {
        notices_.say(tr("What is not saved is kept at its usual place again."));
    }
    const bool other = kept_nowhere_ != nowhere;
    kept_nowhere_ = nowhere;
    kept_elsewhere_ = elsewhere;
    if (other) emit changed();
}

Keeper::Kept Keeper::put_aside_now() {
    autosave_timer_.stop();
    ++under_way_->wanted;
    own_beside(written_by(*under_way_));
    if (!worth_keeping()) return Kept::nothing;
    const QString to = aside_path();
    const Attempt done = put_aside(document_.order(), pictures_.bytes(), own_records(), to, second_place(to));
    told(to, done);
    return done.kept.isEmpty() ? Kept::nowhere : Kept::kept;
}

std::optional<QString> Keeper::save_now(const QString& path) {
    const auto done = save_order(path.toStdString(), document_.order(), pictures_.bytes(), own_records());
    if (!done) return refusal(done.error());
    document_.saved_as(document_.order());
    return std::nullopt;
}

bool Keeper::put_aside_if_changed() {
    const Kept what = put_aside_now();
    if (what == Kept::kept)
        notices_.say({tr("“%1” had changes that were not saved: it was put aside.").arg(qt(document_.order().name)), false,
                      tr("Bring it back"), [this, kept = kept_elsewhere_ ? second_place(aside_path()) : aside_path()] { open(kept); }});
    return what != Kept::nowhere;
}

void Keeper::offer_put_aside() {
    QFileInfoList files;
    for (const QString& folder : {data_folder_ + "/aside", second_folder()})
        files << QDir(folder).entryInfoList({QStringLiteral("*.orthema")}, QDir::Files);
    std::sort(files.begin(), files.end(), [](const QFileInfo& a, const QFileInfo& b) { return a.lastModified() > b.lastModified(); });
    if (files.isEmpty()) return;
    const QString path = files.front().filePath();
    notices_.say({tr("An order from %1 was not saved before the program ended.").arg(moment_text(files.front().lastModified())), false,
                  tr("Bring it back"), [this, path] { open(path); }});
}

void Keeper::name_aside() { aside_ = QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz")); }

void Keeper::take_over(Order order, Order saved, ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known, const Work& fitted,
                       const QString& path) {
    if (!put_aside_if_changed()) return;  // or what lies on the table would be lost
    emit about_to_take_over();
    document_.take_over(std::move(order), std::move(saved));
    pictures_.take_over(document_.order(), std::move(bytes), std::move(art), std::move(known));
    path_ = path;
    beside_ = {};
    under_way_ = std::make_shared<Aside>();
    name_aside();
    autosave_timer_.stop();
    emit taken_over(fitted);
}

void Keeper::start_new() {
    Order fresh;
    fresh.name = spoken("New order");
    fresh.job = new_job_id();
    fresh.guide_setup.short_templates = true;
    adopt_library(fresh, library_.content());
    settings_.begin(fresh);
    fresh.corrections = standing_corrections();
    const Shared<KnownArt> known = std::make_shared<const KnownArt>();
    take_over(fresh, fresh, {}, {}, known, work(fresh, Shop{}, known, nullptr, {}, HowFar::fit), {});
}

void Keeper::begin_with(const OrderPackage& package, const ReadArt& pictures, const Work& fitted) {
    take_over(package.order, Order{}, package.art, pictures.art, pictures.known, fitted, {});
    if (document_.order().job == package.order.job) emit came_with(package.records);
}

void Keeper::open(const QString& path) {
    jobs_.background([this, path]() -> std::function<void()> {
        const FileStamp stamp = file_stamp(path.toStdString());
        auto package = open_order(path.toStdString());
        if (!package) return [this, why = package.error()] { notices_.complain(why); };
        ReadArt pictures = read_all_art(package->order, package->art);
        Work fitted = work(package->order, Shop{}, pictures.known, nullptr, {}, HowFar::fit);
        auto held = std::make_shared<OrderPackage>(std::move(*package));
        return [this, path, stamp, held, pictures = std::move(pictures), fitted = std::move(fitted)] {
            const bool aside = path.startsWith(data_folder_ + "/aside") || path.startsWith(second_folder()) || path.endsWith('~');
            const bool folder = QFileInfo(path).isDir();
            // An unpacked order and one from aside are saved under a name of the user's choosing.
            QString own = folder || aside ? QString() : path;
            if (path.endsWith('~')) own = path.chopped(1);
            take_over(held->order, aside ? Order{} : held->order, held->art, pictures.art, pictures.known, fitted, own);
            if (held->records_fault) notices_.complain(tr("The order's records were left out. ") + refusal(*held->records_fault));
            if (document_.order().job == held->order.job) emit came_with(held->records);
            if (path.endsWith('~') && path_ == own) beside_ = stamp;
            stamp_ = path_ == path ? stamp : file_stamp(path_.toStdString());
            if (aside && !path.endsWith('~') && document_.order() == held->order && put_aside_now() == Kept::kept && path != aside_path())
                QFile::remove(path);
            if (!folder && !aside) {
                remember(path);
                const QFileInfo later(qt(autosave_path(path.toStdString())));
                if (later.exists())  // it is taken away when the order is saved: the clock need not be asked
                    notices_.say({tr("A later state of this order that was not saved is kept beside it."), false,
                                  tr("Open the later state"), [this, p = later.filePath()] { open(p); }});
            }
        };
    });
}

void Keeper::save(const QString& path) {
    autosave_timer_.stop();
    const QString was_aside = aside_path();
    const FileStamp known = path == path_ ? stamp_ : FileStamp{};
    ++under_way_->wanted;
    jobs_.background([this, path, was_aside, known, order = document_.order(), bytes = pictures_.bytes(), records = own_records(),
                      under_way = under_way_]() -> std::function<void()> {
        const FileStamp beside = written_by(*under_way);
        const auto not_saved = [this, beside] {
            own_beside(beside);
            autosave_timer_.start();
        };
        if (const FileStamp there = file_stamp(path.toStdString()); known != FileStamp{} && there != FileStamp{} && there != known)
            return [this, path, not_saved] { not_saved(), emit other_wrote(path); };
        const auto done = save_order(path.toStdString(), order, bytes, records);
        if (!done) return [this, not_saved, why = done.error()] { not_saved(), notices_.complain(why); };
        return [this, path, was_aside, order, beside, stamp = file_stamp(path.toStdString())] {
            stamp_ = stamp;
            own_beside(beside);
            QFile::remove(was_aside);
            QFile::remove(second_place(was_aside));
            kept_nowhere_ = kept_elsewhere_ = false;
            clear_beside(path);
            path_ = path;
            document_.saved_as(order);
            remember(path);
            notices_.say({tr("Saved as %1.").arg(QFileInfo(path).fileName()), false, {}, {}});
            emit changed();
        };
    });
}

void Keeper::clear_beside(const QString& path) {
    const QString beside = qt(autosave_path(path.toStdString()));
    const FileStamp there = file_stamp(beside.toStdString());
    if (there == FileStamp{}) return;
    if (there == beside_) {
        QFile::remove(beside);
        return;
    }
    const QFileInfo own(path);
    QDir().mkpath(data_folder_ + "/aside");
    QFile::rename(beside, data_folder_ + "/aside/" + own.completeBaseName() + "-" +
                              QFileInfo(beside).lastModified().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz")) + ".orthema");
}

void Keeper::save_beside() {
    const QFileInfo own(path_);
    QString free;
    for (int k = 2; free.isEmpty() || QFileInfo::exists(free); ++k)
        free = own.absolutePath() + QStringLiteral("/%1 (%2).orthema").arg(own.completeBaseName()).arg(k);
    save(free);
}

QStringList Keeper::recent() const {
    QStringList there;
    for (const QString& p : settings_.remembered(QStringLiteral("recent")).toStringList())
        if (QFileInfo::exists(p)) there << p;
    return there;
}

void Keeper::remember(const QString& path) {
    QStringList list = settings_.remembered(QStringLiteral("recent")).toStringList();
    const QString whole = QFileInfo(path).absoluteFilePath();
    list.removeAll(whole);
    list.prepend(whole);
    while (list.size() > 8) list.removeLast();
    settings_.remember(QStringLiteral("recent"), list);
    emit lies_at(whole);
}

}  // namespace orthema::app
