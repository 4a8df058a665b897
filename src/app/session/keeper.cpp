#include "app/session/keeper.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QSettings>

#include "app/widgets/figures.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {
constexpr int autosave_after_ms = 12000;
}

Keeper::Keeper(QString data_folder, Document& document, Pictures& pictures, ShopLibrary& library, Jobs& jobs, Notices& notices,
               QObject* parent)
    : QObject(parent),
      data_folder_(std::move(data_folder)),
      document_(document),
      pictures_(pictures),
      library_(library),
      jobs_(jobs),
      notices_(notices) {
    name_aside();
    autosave_timer_.setSingleShot(true);
    autosave_timer_.setInterval(autosave_after_ms);
    connect(&autosave_timer_, &QTimer::timeout, this, &Keeper::autosave);
}

QString Keeper::aside_path() const {
    if (!path_.isEmpty() && QFileInfo(path_).isFile()) return qt(autosave_path(path_.toStdString()));
    return data_folder_ + "/aside/" + qt(file_stem(document_.order().name)) + "-" + aside_ + ".orthema";
}

/// Unsaved, and with something in it.
bool Keeper::worth_keeping() const {
    return document_.changed_since_saved() && !(document_.order().lines.empty() && document_.order().art.empty());
}

void Keeper::autosave() {
    if (!worth_keeping()) return;
    jobs_.background([order = document_.order(), bytes = pictures_.bytes(), to = aside_path()]() -> std::function<void()> {
        QDir().mkpath(QFileInfo(to).path());
        (void)save_order(to.toStdString(), order, bytes);
        return {};
    });
}

bool Keeper::put_aside_now() {
    if (!worth_keeping()) return false;
    const QString to = aside_path();
    QDir().mkpath(QFileInfo(to).path());
    (void)save_order(to.toStdString(), document_.order(), pictures_.bytes());
    return true;
}

void Keeper::put_aside_if_changed() {
    if (!put_aside_now()) return;
    notices_.say({QStringLiteral("“%1” had changes that were not saved: it was put aside.").arg(qt(document_.order().name)), false,
                  QStringLiteral("Bring it back"), [this, to = aside_path()] { open(to); }});
}

void Keeper::offer_put_aside() {
    const QDir dir(data_folder_ + "/aside");
    const auto files = dir.entryInfoList({QStringLiteral("*.orthema")}, QDir::Files, QDir::Time);
    if (files.isEmpty()) return;
    const QString path = files.front().filePath();
    notices_.say({QStringLiteral("An order from %1 was not saved before the program ended.")
                      .arg(files.front().lastModified().toString(QStringLiteral("d MMMM, hh:mm"))),
                  false, QStringLiteral("Bring it back"), [this, path] { open(path); }});
}

void Keeper::name_aside() { aside_ = QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz")); }

void Keeper::take_over(Order order, Order saved, ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known, const Work& fitted,
                       const QString& path) {
    emit about_to_take_over();
    put_aside_if_changed();
    document_.take_over(std::move(order), std::move(saved));
    pictures_.take_over(std::move(bytes), std::move(art), std::move(known));
    path_ = path;
    name_aside();
    autosave_timer_.stop();
    emit taken_over(fitted);
}

void Keeper::start_new() {
    Order fresh;
    fresh.name = "New order";
    fresh.job = new_job_id();
    fresh.unit = document_.order().unit;
    fresh.paper = document_.order().paper;
    fresh.currency = document_.order().currency;
    fresh.guide_setup.short_templates = true;
    adopt_library(fresh, library_.content());
    const Shared<KnownArt> known = std::make_shared<const KnownArt>();
    take_over(fresh, fresh, {}, {}, known, work(fresh, Shop{}, known, nullptr, {}, HowFar::fit), {});
}

void Keeper::open(const QString& path) {
    jobs_.background([this, path]() -> std::function<void()> {
        auto package = open_order(path.toStdString());
        if (!package) return [this, sentence = package.sentence()] { notices_.complain(qt(sentence)); };
        auto known = std::make_shared<KnownArt>();
        LoadedArtById art = load_all_art(package->order, package->art, &known->faults);
        known->facts = facts_of(art);
        Work fitted = work(package->order, Shop{}, Shared<KnownArt>(known), nullptr, {}, HowFar::fit);
        auto held = std::make_shared<OrderPackage>(std::move(*package));
        return [this, path, held, known, art = std::move(art), fitted = std::move(fitted)] {
            const bool aside = path.startsWith(data_folder_ + "/aside") || path.endsWith('~');
            const bool folder = QFileInfo(path).isDir();
            // An unpacked order and one from aside are saved under a name of the user's choosing.
            QString own = folder || aside ? QString() : path;
            if (path.endsWith('~')) own = path.chopped(1);
            take_over(held->order, aside ? Order{} : held->order, held->art, art, Shared<KnownArt>(known), fitted, own);
            if (aside && !path.endsWith('~')) {
                put_aside_now();
                QFile::remove(path);
            }
            if (!folder && !aside) {
                remember(path);
                const QFileInfo later(qt(autosave_path(path.toStdString())));
                if (later.exists() && later.lastModified() >= QFileInfo(path).lastModified())
                    notices_.say({QStringLiteral("A later state of this order was kept when the program ended early."), false,
                                  QStringLiteral("Open the later state"), [this, p = later.filePath()] { open(p); }});
            }
        };
    });
}

void Keeper::save(const QString& path) {
    autosave_timer_.stop();
    const QString was_aside = aside_path();
    jobs_.background([this, path, was_aside, order = document_.order(), bytes = pictures_.bytes()]() -> std::function<void()> {
        const auto done = save_order(path.toStdString(), order, bytes);
        if (!done) return [this, sentence = done.sentence()] { notices_.say({qt(sentence), true, {}, {}}); };
        return [this, path, was_aside, order] {
            QFile::remove(was_aside);
            QFile::remove(qt(autosave_path(path.toStdString())));
            path_ = path;
            document_.saved_as(order);
            remember(path);
            notices_.say({QStringLiteral("Saved as %1.").arg(QFileInfo(path).fileName()), false, {}, {}});
            emit changed();
        };
    });
}

QStringList Keeper::recent() const {
    QSettings settings(data_folder_ + "/orthema.ini", QSettings::IniFormat);
    QStringList there;
    for (const QString& p : settings.value(QStringLiteral("recent")).toStringList())
        if (QFileInfo::exists(p)) there << p;
    return there;
}

void Keeper::remember(const QString& path) {
    QSettings settings(data_folder_ + "/orthema.ini", QSettings::IniFormat);
    QStringList list = settings.value(QStringLiteral("recent")).toStringList();
    const QString whole = QFileInfo(path).absoluteFilePath();
    list.removeAll(whole);
    list.prepend(whole);
    while (list.size() > 8) list.removeLast();
    settings.setValue(QStringLiteral("recent"), list);
}

}  // namespace orthema::app
