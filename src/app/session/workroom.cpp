#include "app/session/workroom.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QSettings>

#include <chrono>

#include "app/widgets/figures.h"
#include "core/sheets/lay_out.h"
#include "core/sheets/sheet_drawing.h"
#include "core/order/edit.h"
#include "devices/cutter.h"
#include "files/page_export.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

constexpr int autosave_after_ms = 12000;
constexpr std::size_t most_steps = 200;

/// Whether two transfers are shown alike on a sheet.
bool look_alike(const Transfer& a, const Transfer& b) {
    return a.id == b.id && a.medium == b.medium && a.made == b.made && a.mirrored == b.mirrored && a.contour.outer == b.contour.outer &&
           a.picture.size() == b.picture.size() && a.blanks.size() == b.blanks.size() &&
           std::equal(a.shape.begin(), a.shape.end(), b.shape.begin(), b.shape.end(),
                      [](const Polygon& p, const Polygon& q) { return p.outer == q.outer; });
}

std::string file_name(const QString& path) { return QFileInfo(path).fileName().toStdString(); }

}  // namespace

Workroom::Workroom(QString data_folder, QObject* parent)
    : QObject(parent), data_folder_(std::move(data_folder)), library_(starting_library()) {
    pool_.setMaxThreadCount(4);
    autosave_timer_.setSingleShot(true);
    autosave_timer_.setInterval(autosave_after_ms);
    connect(&autosave_timer_, &QTimer::timeout, this, &Workroom::autosave);
    adopt_library(order_, library_);
    order_.name = "New order";
    saved_ = order_;
    aside_ = QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz"));
    tidy_selection();
    gather();
    background([this]() -> std::function<void()> {
        QDir().mkpath(data_folder_);
        auto shop = Library::open((data_folder_ + "/shop.sqlite").toStdString());
        auto content = shop ? (*shop)->content() : Result<LibraryContent>(shop.error());
        auto held = std::make_shared<Result<std::unique_ptr<Library>>>(std::move(shop));
        return [this, held, content = std::move(content)] {
            if (!content) {
                say({qt(content.sentence()), true, {}, {}});
                return;
            }
            const std::scoped_lock lock(shop_guard_);
            shop_ = std::move(**held);
            library_ = *content;
            if (order_ == saved_ && path_.isEmpty() && order_.lines.empty()) {
                adopt_library(order_, library_);
                saved_ = order_;
            }
            emit updated();
        };
    });
}

Workroom::~Workroom() {
    stop_settling();
    stop_planning();
    stop_export_ = true;
    pool_.waitForDone();
}

void Workroom::background(std::function<std::function<void()>()> work) {
    ++jobs_;
    pool_.start([this, work = std::move(work)] {
        auto done = work();
        QMetaObject::invokeMethod(
            this,
            [this, done = std::move(done)] {
                --jobs_;
                if (done) done();
            },
            Qt::QueuedConnection);
    });
}

// ---- the order and what is worked out from it

void Workroom::edit(const QString& what, Order next, const QString& gesture) {
    if (next == order_) return;
    if (settling_ && gesture != QLatin1String("settle")) stop_settling();
    if (gesture.isEmpty() || gesture != gesture_) {
        past_.push_back({order_, what});
        if (past_.size() > most_steps) past_.erase(past_.begin());
    }
    gesture_ = gesture;
    future_.clear();
    const Order before = std::exchange(order_, std::move(next));
    refit_now(before);
}

/// Takes the last step of one pile and lays the present on the other.
void Workroom::step(std::vector<Step>& from, std::vector<Step>& to) {
    if (from.empty()) return;
    stop_settling();
    gesture_.clear();
    Step last = std::move(from.back());
    from.pop_back();
    const Order before = std::exchange(order_, std::move(last.order));
    to.push_back({before, last.what});
    refit_now(before);
}

void Workroom::refit_now(const Order& before) {
    plan_ = refit(order_, facts_, before, plan_);
    tidy_selection();
    compute_later();
    gather();
    autosave_timer_.start();
    clip_anew(before);
    emit updated();
}

/// Pictures whose shape or subject changed are clipped on a thread; the last shape asked for is the one that stays.
void Workroom::clip_anew(const Order& before) {
    for (const Art& art : order_.art) {
        const Art* was = find_art(before, art.id);
        const BlankStyle* on = art.clip ? find_style(order_, art.clip->style) : nullptr;
        const BlankStyle* on_then = was != nullptr && was->clip ? find_style(before, was->clip->style) : nullptr;
        const bool same = was != nullptr && was->clip == art.clip && was->subject == art.subject &&
                          ((on == nullptr) == (on_then == nullptr)) && (on == nullptr || *on == *on_then);
        auto loaded = art_.find(whole_id(art.id));
        if (loaded == art_.end()) loaded = art_.find(art.id);
        if (same || loaded == art_.end()) continue;
        const LoadedArtPtr whole = loaded->second->whole ? loaded->second->whole : loaded->second;
        background([this, art, whole, order = order_]() -> std::function<void()> {
            const auto clipped = clipped_art(order, art, whole);
            return [this, art, whole, clipped] {
                const Art* now = find_art(order_, art.id);
                if (now == nullptr || now->clip != art.clip || now->subject != art.subject) return;
                std::erase_if(art_faults_, [&](const Finding& f) { return f.about.art == art.id && f.code == "art-clip"; });
                if (clipped) {
                    art_[art.id] = *clipped;
                    if (art.clip)
                        art_[whole_id(art.id)] = whole;
                    else
                        art_.erase(whole_id(art.id));
                } else {
                    Subject about;
                    about.stage = "art";
                    about.art = art.id;
                    art_faults_.push_back({Severity::stop, "art-clip", about, {}, clipped.sentence()});
                }
                facts_ = facts_of(art_);
                plan_ = orthema::fit(order_, facts_);
                compute_later();
                gather();
                emit updated();
            };
        });
    }
}

void Workroom::gather() {
    findings_ = order_findings(order_);
    findings_.insert(findings_.end(), art_faults_.begin(), art_faults_.end());
    findings_.insert(findings_.end(), plan_.findings.begin(), plan_.findings.end());
    findings_.insert(findings_.end(), set_.findings.begin(), set_.findings.end());
    findings_.insert(findings_.end(), sheets_.findings.begin(), sheets_.findings.end());
    findings_.insert(findings_.end(), press_->findings.begin(), press_->findings.end());
    findings_.insert(findings_.end(), stale_.begin(), stale_.end());
    std::stable_sort(findings_.begin(), findings_.end(), [](const Finding& a, const Finding& b) { return a.severity > b.severity; });
}

/// Transfers and sheets follow on a thread; while one round runs, later changes ask for one more.
void Workroom::compute_later() {
    if (computing_) {
        compute_again_ = true;
        return;
    }
    computing_ = true;
    background([this, order = order_, plan = plan_, facts = facts_, before = set_, pressed_before = press_]() -> std::function<void()> {
        TransferSet set = transfers(order, plan, facts, &before);
        SheetPlan sheets = sheet_plan(order, set);
        ScheduleOptions quick;
        quick.tries = 0;
        auto press = std::make_shared<const PressPlan>(orthema::press_plan(order, plan, set, quick, {}, pressed_before.get()));
        return [this, set = std::move(set), sheets = std::move(sheets), press, stale = stale_guides(order, plan)] {
            stale_ = stale;
            stop_planning();
            press_ = press;
            if (!std::equal(set.transfers.begin(), set.transfers.end(), set_.transfers.begin(), set_.transfers.end(), look_alike))
                ++set_number_;
            set_ = set;
            sheets_ = sheets;
            computing_ = false;
            if (std::exchange(compute_again_, false)) compute_later();
            tidy_selection();
            gather();
            emit updated();
        };
    });
}

void Workroom::select(Selection selection) {
    if (selection == selection_) return;
    selection_ = std::move(selection);
    tidy_selection();
    emit updated();
}

void Workroom::tidy_selection() {
    Selection& s = selection_;
    const auto runs = runs_of(order_);
    if (const Decoration* d = find_decoration(order_, s.decoration); d != nullptr && d->run != s.run) {
        if (std::find(runs.begin(), runs.end(), s.run) == runs.end()) s.run = d->run;
    }
    if (std::find(runs.begin(), runs.end(), s.run) == runs.end()) s.run = runs.empty() ? RunKey{} : runs.front();
    const Decoration* d = find_decoration(order_, s.decoration);
    if (d == nullptr || d->run != s.run) {
        s.decoration.clear();
        for (const Decoration& other : order_.decorations)
            if (other.run == s.run) {
                s.decoration = other.id;
                break;
            }
    }
    if (find_style(order_, s.style) == nullptr)
        s.style = !s.run.style.empty() ? s.run.style : order_.styles.empty() ? "" : order_.styles.front().id;
    const BlankStyle* style = find_style(order_, s.run.style);
    if (style == nullptr) style = find_style(order_, s.style);
    if (style != nullptr && size_index(*style, s.size) < 0) {
        const auto counts = counts_of(order_, s.run);
        s.size = counts.empty() ? style->sizes[style->sizes.size() / 2] : counts[counts.size() / 2].size;
    }
    if (find_art(order_, s.art) == nullptr) s.art = order_.art.empty() ? "" : order_.art.front().id;
    const auto used = [&](const std::string& medium) {
        return std::any_of(set_.transfers.begin(), set_.transfers.end(), [&](const Transfer& t) { return t.medium == medium; });
    };
    if (!used(s.medium)) {
        for (const Transfer& t : set_.transfers)
            if (find_medium(order_, t.medium) != nullptr) {
                s.medium = t.medium;
                break;
            }
        if (find_medium(order_, s.medium) == nullptr) s.medium = order_.media.empty() ? "" : order_.media.front().id;
    }
}

// ---- files

QString Workroom::aside_path() const {
    if (!path_.isEmpty() && QFileInfo(path_).isFile()) return qt(autosave_path(path_.toStdString()));
    return data_folder_ + "/aside/" + qt(file_stem(order_.name)) + "-" + aside_ + ".orthema";
}

/// Unsaved, and with something in it.
bool Workroom::worth_keeping() const { return changed() && !(order_.lines.empty() && order_.art.empty()); }

void Workroom::autosave() {
    if (!worth_keeping()) return;
    background([order = order_, bytes = bytes_, to = aside_path()]() -> std::function<void()> {
        QDir().mkpath(QFileInfo(to).path());
        (void)save_order(to.toStdString(), order, bytes);
        return {};
    });
}

bool Workroom::put_aside_now() {
    if (!worth_keeping()) return false;
    const QString to = aside_path();
    QDir().mkpath(QFileInfo(to).path());
    (void)save_order(to.toStdString(), order_, bytes_);
    return true;
}

void Workroom::put_aside_if_changed() {
    if (!put_aside_now()) return;
    say({QStringLiteral("“%1” had changes that were not saved: it was put aside.").arg(qt(order_.name)), false,
         QStringLiteral("Bring it back"), [this, to = aside_path()] { open(to); }});
}

void Workroom::offer_put_aside() {
    const QDir dir(data_folder_ + "/aside");
    const auto files = dir.entryInfoList({QStringLiteral("*.orthema")}, QDir::Files, QDir::Time);
    if (files.isEmpty()) return;
    const QString path = files.front().filePath();
    say({QStringLiteral("An order from %1 was not saved before the program ended.")
             .arg(files.front().lastModified().toString(QStringLiteral("d MMMM, hh:mm"))),
         false, QStringLiteral("Bring it back"), [this, path] { open(path); }});
}

void Workroom::take_over(Order order, ArtBytes bytes, LoadedArtById art, FitPlan plan, const QString& path) {
    order_ = std::move(order);
    bytes_ = std::move(bytes);
    art_ = std::move(art);
    facts_ = facts_of(art_);
    plan_ = std::move(plan);
    set_ = {};
    ++set_number_;
    sheets_ = {};
    press_ = std::make_shared<PressPlan>();
    stale_.clear();
    curve_.clear();
    past_.clear();
    future_.clear();
    gesture_.clear();
    path_ = path;
    aside_ = QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz"));
    autosave_timer_.stop();
    selection_ = {};
    tidy_selection();
    compute_later();
    gather();
}

void Workroom::start_new() {
    stop_settling();
    put_aside_if_changed();
    Order fresh;
    fresh.name = "New order";
    fresh.unit = order_.unit;
    fresh.paper = order_.paper;
    adopt_library(fresh, library_);
    art_faults_.clear();
    take_over(fresh, {}, {}, {}, {});
    saved_ = order_;
    emit updated();
}

void Workroom::open(const QString& path) {
    background([this, path]() -> std::function<void()> {
        auto package = open_order(path.toStdString());
        if (!package) return [this, sentence = package.sentence()] { say({qt(sentence), true, {}, {}}); };
        auto faults = std::make_shared<Findings>();
        LoadedArtById art = load_all_art(package->order, package->art, faults.get());
        FitPlan plan = orthema::fit(package->order, facts_of(art));
        auto held = std::make_shared<OrderPackage>(std::move(*package));
        return [this, path, held, faults, art = std::move(art), plan = std::move(plan)] {
            stop_settling();
            const bool aside = path.startsWith(data_folder_ + "/aside") || path.endsWith('~');
            put_aside_if_changed();
            const bool folder = QFileInfo(path).isDir();
            art_faults_ = *faults;
            // An unpacked order and one from aside are saved under a name of the user's choosing.
            QString own = folder || aside ? QString() : path;
            if (path.endsWith('~')) own = path.chopped(1);
            take_over(held->order, held->art, art, plan, own);
            saved_ = aside ? Order{} : order_;
            if (aside && !path.endsWith('~')) {
                aside_ = QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz"));
                put_aside_now();
                QFile::remove(path);
            }
            if (!folder && !aside) {
                remember(path);
                const QFileInfo later(qt(autosave_path(path.toStdString())));
                if (later.exists() && later.lastModified() >= QFileInfo(path).lastModified())
                    say({QStringLiteral("A later state of this order was kept when the program ended early."), false,
                         QStringLiteral("Open the later state"), [this, p = later.filePath()] { open(p); }});
            }
            emit updated();
        };
    });
}

void Workroom::save(const QString& path) {
    autosave_timer_.stop();
    const QString was_aside = aside_path();
    background([this, path, was_aside, order = order_, bytes = bytes_]() -> std::function<void()> {
        const auto done = save_order(path.toStdString(), order, bytes);
        if (!done) return [this, sentence = done.sentence()] { say({qt(sentence), true, {}, {}}); };
        return [this, path, was_aside, order] {
            QFile::remove(was_aside);
            QFile::remove(qt(autosave_path(path.toStdString())));
            path_ = path;
            saved_ = order;
            remember(path);
            say({QStringLiteral("Saved as %1.").arg(QFileInfo(path).fileName()), false, {}, {}});
            emit updated();
        };
    });
}

QStringList Workroom::recent() const {
    QSettings settings(data_folder_ + "/orthema.ini", QSettings::IniFormat);
    QStringList there;
    for (const QString& p : settings.value(QStringLiteral("recent")).toStringList())
        if (QFileInfo::exists(p)) there << p;
    return there;
}

void Workroom::remember(const QString& path) {
    QSettings settings(data_folder_ + "/orthema.ini", QSettings::IniFormat);
    QStringList list = settings.value(QStringLiteral("recent")).toStringList();
    const QString whole = QFileInfo(path).absoluteFilePath();
    list.removeAll(whole);
    list.prepend(whole);
    while (list.size() > 8) list.removeLast();
    settings.setValue(QStringLiteral("recent"), list);
}

void Workroom::bring_in_art(const QStringList& paths) {
    for (const QString& path : paths)
        background([this, path]() -> std::function<void()> {
            auto text = read_file(path.toStdString());
            if (!text) return [this, s = text.sentence()] { say({qt(s), true, {}, {}}); };
            auto file = std::make_shared<const std::string>(std::move(*text));
            auto loaded = load_art(file, file_name(path));
            if (!loaded) return [this, s = loaded.sentence()] { say({qt(s), true, {}, {}}); };
            return [this, path, file, art = *loaded] {
                Order next = order_;
                const std::string id = enrol_art(next, bytes_, *art, file, file_name(path));
                art_[id] = art;
                facts_[id] = art->facts;
                selection_.art = id;
                edit(QStringLiteral("bring in %1").arg(QFileInfo(path).fileName()), std::move(next));
            };
        });
}

// ---- settling

void Workroom::settle(const std::string& medium_id, double seconds) {
    const Medium* medium = find_medium(order_, medium_id);
    if (medium == nullptr || settling_ || catching_up()) return;
    const MediumLayout now = layout_of(order_, medium_id);
    // A sound layout is replaced only by a better one; one that mixes groups by any that parts them.
    std::optional<LaidOut> present;
    curve_.clear();
    for (const MediumPlan& plan : sheets_.media)
        if (plan.medium == medium_id && !plan.stale && !plan.mixed && plan.placed == plan.asked) {
            present = measured(*medium, set_, {now.copies, now.stock});
            curve_.push_back({0, present->density});
        }
    settling_ = true;
    stop_settling_ = std::make_shared<std::atomic<bool>>(false);
    end_gesture();
    const auto begun = std::chrono::steady_clock::now();
    background([this, medium = *medium, set = set_, now, begun, seconds, stop = stop_settling_, present,
                seed = ++settle_seed_]() -> std::function<void()> {
        NestOptions options;
        options.seconds = seconds;
        options.threads = std::max(1, QThread::idealThreadCount());
        options.seed = seed;
        const auto passed = [begun] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count(); };
        bool gained = false;
        const auto show = [&](const LaidOut& laid) {
            if (present && !beats(medium, laid, *present)) return;
            gained = true;
            QMetaObject::invokeMethod(
                this,
                [this, stop, id = medium.id, at = passed(), density = laid.density, sheets = laid.sheets] {
                    if (*stop || !settling_) return;
                    curve_.push_back({at, density});
                    edit(QStringLiteral("settle"), with_layout(order_, id, sheets), QStringLiteral("settle"));
                },
                Qt::QueuedConnection);
        };
        const auto solution = lay_out(medium, set, now, options, Task{{}, stop.get()}, show);
        return [this, stop, solution, gained, at = passed()] {
            if (stop_settling_ == stop) {
                settling_ = false;
                end_gesture();
                if (!curve_.empty()) curve_.push_back({at, curve_.back().density});
                if (solution && !gained && !*stop)
                    say({QStringLiteral("No better layout was found in that time: this one stays."), false, {}, {}});
            }
            if (!solution) say({qt(solution.sentence()), true, {}, {}});
            emit updated();
        };
    });
    emit updated();
}

void Workroom::stop_settling() {
    if (!settling_) return;
    *stop_settling_ = true;
    settling_ = false;
    end_gesture();
}

void Workroom::fill_sheets(const std::string& medium_id) {
    const Medium* medium = find_medium(order_, medium_id);
    if (medium == nullptr || settling_ || catching_up()) return;
    end_gesture();
    background([this, medium = *medium, set = set_, before = layout_of(order_, medium_id)]() -> std::function<void()> {
        const MediumLayout after = filled(medium, set, before);
        return [this, before, after] {
            if (layout_of(order_, before.medium) != before) return;  // changed in the meantime
            int more = 0;
            for (const FillWish& f : after.fill) more += f.copies;
            edit(QStringLiteral("fill what is left"), with_layout(order_, after));
            say({more > 0 ? QStringLiteral("%1 pieces more found room.").arg(more)
                          : QStringLiteral("Nothing of that finds room on these sheets."),
                 false,
                 {},
                 {}});
        };
    });
    emit updated();
}

// ---- devices

void Workroom::print_sheet(const Sheet& sheet, const PrinterSetup& setup, double dpi) {
    const PrintJob job = print_job(order_, set_, sheet, dpi);
    background([this, job, setup, dpi, sheet, art = art_, order = order_, set = set_]() -> std::function<void()> {
        SimulatedPrinter printer(setup);
        if (const auto refused = printer.begin(job))
            return [this, text = qt(*refused)] {
                device_says_ = text;
                emit updated();
            };
        const Drawing page = sheet_page(order, sheet, set, sheet_labels(order, sheet, set));
        const auto drawn = draw_rows(page, art, dpi, [&](const PixelBand& b) { return printer.rows(b.pixels, b.width, b.first, b.rows); });
        const PrintReport report = printer.end();
        return [this, drawn, report, sheet] {
            device_says_ = qt(drawn ? report.sentence : drawn.sentence());
            const MediumLayout layout = layout_of(order_, sheet.medium);
            std::vector<PlacedCopy> there;
            for (const PlacedCopy& c : layout.copies)
                if (c.sheet == sheet.number) there.push_back(c);
            if (drawn && !report.finished && there == sheet.copies) {
                end_gesture();
                edit(QStringLiteral("print, stopped"), with_layout(order_, after_print(layout, sheet, report.survives)));
            }
            emit updated();
        };
    });
    device_says_ = QStringLiteral("Printing …");
    emit updated();
}

void Workroom::cut_sheet(const Sheet& sheet) {
    background([this, sheet, set = set_]() -> std::function<void()> {
        const std::string path = cut_plt(cut_path(cut_contours(sheet, set)), sheet.length);
        const auto report = SimulatedCutter({}).cut(path, sheet.width, sheet.length, printed_ink(set, sheet));
        return [this, text = qt(report ? report->sentence : report.sentence())] {
            device_says_ = text;
            emit updated();
        };
    });
}

// ---- export

void Workroom::export_to(const QString& folder, const ExportChoice& choice) {
    if (exporting_) return;
    exporting_ = true;
    stop_export_ = false;
    background([this, folder, choice, order = order_, art = art_, press = press_]() -> std::function<void()> {
        Task task;
        task.cancelled = &stop_export_;
        task.report = [this](double share, const std::string& doing) {
            QMetaObject::invokeMethod(
                this, [this, share, doing] { emit export_progress(share, qt(doing)); }, Qt::QueuedConnection);
        };
        const auto report = export_order(folder.toStdString(), order, art, choice, task, press.get());
        return [this, report, guides = choice.guides, made_of = order] {
            exporting_ = false;
            if (report && guides && made_of == order_) guides_printed();
            if (report &&
                std::any_of(report->findings.begin(), report->findings.end(), [](const Finding& f) { return f.code == "guide-stale"; }))
                say({QStringLiteral("Guides printed before were made from other figures: take the old ones away."), false, {}, {}});
            QStringList files;
            if (report)
                for (const std::string& f : report->files) files << qt(f);
            emit export_finished(files, report ? QString() : qt(report.sentence()));
        };
    });
}

void Workroom::guides_printed(const std::string& decoration, const std::string& size) {
    Order next = with_guides_printed(order_, plan_, decoration, size);
    if (next.guide_setup != order_.guide_setup) edit(QStringLiteral("guides printed"), std::move(next));
}

// ---- pressing

void Workroom::plan_pressing(double seconds) {
    if (planning_ || catching_up() || press_->shop.tasks.empty()) return;
    planning_ = true;
    stop_planning_ = std::make_shared<std::atomic<bool>>(false);
    background([this, seconds, plan = press_, stop = stop_planning_, seed = ++plan_seed_, order = order_]() -> std::function<void()> {
        ScheduleOptions options;
        options.seconds = seconds;
        options.seed = seed;
        begin_like(options, *plan, *plan);
        const auto show = [&](Schedule s) {
            auto next = std::make_shared<PressPlan>(*plan);
            next->schedule = std::move(s);
            std::erase_if(next->findings, [](const Finding& f) { return f.code == "press-late"; });
            for (Finding& f : plan_findings(order, *next)) next->findings.push_back(std::move(f));
            return next;
        };
        double told = plan->schedule.end;
        Schedule best = schedule(plan->shop, options, Task{{}, stop.get()}, [&](const Schedule& s) {
            if (s.end > told - 1) return;  // a second or more
            told = s.end;
            QMetaObject::invokeMethod(
                this,
                [this, stop, next = show(s)] {
                    if (*stop || !planning_) return;
                    press_ = next;
                    gather();
                    emit updated();
                },
                Qt::QueuedConnection);
        });
        auto last = show(std::move(best));
        return [this, stop, last, before = plan->schedule.end] {
            if (stop_planning_ != stop) return;
            planning_ = false;
            if (last->schedule.end <= before + 1e-6) press_ = last;
            gather();
            emit updated();
        };
    });
    emit updated();
}

void Workroom::stop_planning() {
    if (stop_planning_) *stop_planning_ = true;
    stop_planning_ = nullptr;
    planning_ = false;
}

// ---- shop library

void Workroom::keep_in_library(const LibraryContent& kept, const QString& sentence) {
    std::string name;
    const auto first = [&](const auto& list) {
        if (name.empty() && !list.empty()) name = list.front().name;
    };
    first(kept.styles);
    first(kept.media);
    first(kept.presses);
    first(kept.methods);
    first(kept.jigs);
    if (name.empty()) return;
    background([this, kept, name, sentence]() -> std::function<void()> {
        const std::scoped_lock lock(shop_guard_);
        if (!shop_) return {};
        const auto done = shop_->merge(kept);
        const auto content = shop_->content();
        return [this, name, sentence, done, content] {
            if (!done) return say({qt(done.sentence()), true, {}, {}});
            if (content) library_ = *content;
            say({sentence.isEmpty() ? QStringLiteral("%1 is now in the shop library with these figures.").arg(qt(name)) : sentence,
                 false,
                 {},
                 {}});
        };
    });
}

void Workroom::export_library(const QString& path) {
    background([this, path, content = library_]() -> std::function<void()> {
        const auto done = write_file(path.toStdString(), library_json(content));
        return [this, path, done] {
            if (done)
                say({QStringLiteral("The shop library was written to %1.").arg(QFileInfo(path).fileName()), false, {}, {}});
            else
                say({qt(done.sentence()), true, {}, {}});
        };
    });
}

void Workroom::import_library(const QString& path) {
    background([this, path]() -> std::function<void()> {
        const auto fail = [this](const std::string& s) { return [this, s] { say({qt(s), true, {}, {}}); }; };
        const auto text = read_file(path.toStdString(), 64u << 20);
        if (!text) return fail(text.sentence());
        const auto content = library_from_json(*text);
        if (!content) return fail(content.sentence());
        const std::scoped_lock lock(shop_guard_);
        if (!shop_) return fail("The shop library is not open, so nothing was brought in.");
        if (const auto done = shop_->merge(*content); !done) return fail(done.sentence());
        const auto now = shop_->content();
        return [this, now, count = content->styles.size() + content->media.size() + content->presses.size()] {
            if (now) library_ = *now;
            Order next = order_;
            adopt_library(next, library_);
            edit(QStringLiteral("bring in a library"), std::move(next));
            say({QStringLiteral("%1 blanks, media and presses were brought in to the shop library.").arg(count), false, {}, {}});
            emit updated();
        };
    });
}

}  // namespace orthema::app
