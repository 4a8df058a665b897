#include "app/benches/order/jobs_page.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>

#include "app/widgets/speech.h"
#include "app/widgets/typed.h"
#include "core/costing/costs.h"
#include "core/order/gang.h"

namespace orthema::app {

namespace {

constexpr int longest_words = 120;

const char* kind_words(IdKind kind) {
    switch (kind) {
    case IdKind::style: return noted("blank");
    case IdKind::medium: return noted("film or paper");
    case IdKind::press: return noted("press");
    case IdKind::method: return noted("method");
    case IdKind::jig: return noted("jig");
    default: return noted("thing");
    }
}

}  // namespace

JobsPage::JobsPage(Workroom& room) : room_(room) {
    bare();
    const auto words = [](FigurePanel* on, const QString& name, const QString& why, auto take) {
        ValueField* f = nullptr;
        if (name == tr("Note")) {  // has the whole width
            on->head(name);
            f = new ValueField(name);
            f->setToolTip(why);
            on->add(f);
        } else {
            f = on->field_row(name, why);
            f->setFixedWidth(150);
        }
        f->read_from_left();
        f->take = [take, name](const QString& t, bool) -> std::optional<QString> {
            if (t.size() > longest_words) return tr("%1: up to %2 letters.").arg(name).arg(longest_words);
            take(t.trimmed().toStdString());
            return std::nullopt;
        };
        return f;
    };
    alone_ = part();
    alone_->head(tr("Whose it is"));
    customer_ = words(alone_, tr("Customer"), tr("Who ordered: on the desk's card, on tickets and labels"), [this](const std::string& t) {
        Order next = room_.order();
        next.customer = t;
        room_.edit(tr("customer"), std::move(next));
    });
    note_ = words(alone_, tr("Note"), tr("What was promised, or must not be forgotten"), [this](const std::string& t) {
        Order next = room_.order();
        next.note = t;
        room_.edit(tr("note"), std::move(next));
    });

    gang_ = part();
    gang_->head(tr("A job of this gang"));
    which_ = gang_->choice_row(tr("Job"), tr("Which of the orders that are made together"));
    connect(which_, &QComboBox::activated, this, [this] {
        Selection s = room_.selection();
        s.job = which_->currentData().toString().toStdString();
        room_.select(s);
    });
    name_ = words(gang_, tr("Name"), tr("On labels, lists and cards, before all else"), [this](const std::string& t) {
        if (!t.empty()) change(tr("job name"), [&](Job& j) { j.name = t; });
    });
    job_customer_ = words(gang_, tr("Customer"), tr("Who ordered it"),
                          [this](const std::string& t) { change(tr("customer"), [&](Job& j) { j.customer = t; }); });
    due_ = gang_->field_row(tr("Due day"), tr("Like 2027-06-12 or 12 June 2027"));
    due_->setFixedWidth(110);
    due_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const auto date = iso_date(t);
        if (!date) return tr("Type the date like 2027-06-12 or 12 June 2027.");
        change(tr("due date"), [&](Job& j) { j.due = date->toStdString(); });
        return std::nullopt;
    };
    due_at_ = gang_->field_row(tr("Done by"), tr("The time of that day: the press plan keeps it where it can be kept"));
    due_at_->setFixedWidth(110);
    due_at_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const auto m = minutes_from(t);
        if (!m) return tr("Type a time like 14:30.");
        change(tr("due time"), [&](Job& j) { j.due_at = *m; });
        return std::nullopt;
    };
    job_note_ = words(gang_, tr("Note"), tr("What was promised, or must not be forgotten"),
                      [this](const std::string& t) { change(tr("note"), [&](Job& j) { j.note = t; }); });
    gang_->rule();
    pieces_ = gang_->text_row(tr("Pieces"));
    film_ = gang_->text_row(tr("Its share of film"));
    film_->setToolTip(tr("By the area of its pieces on the sheets that they lie on"));
    blanks_ = gang_->text_row(tr("Its blanks"));
    work_ = gang_->text_row(tr("Its share of work"));
    work_->setToolTip(tr("By the time that hands and presses are at its loads, of the whole run at the hourly rate"));
    total_ = gang_->text_row(tr("Together"));
    together_ = gang_->note();
    take_out_ =
        push(tr("Take this job out…"), tr("It becomes an order of its own again, with its sheets and records; undo brings it back here"));
    gang_->add(take_out_);
    connect(take_out_, &QPushButton::clicked, this, &JobsPage::take_out);
    unlike_ = part();
    unlike_->rule();
    unlike_->head(tr("Not alike"));
    unlike_says_ = unlike_->note();
    first_ = push(tr("The first's"), tr("The copy that was there first holds for all jobs"));
    second_ = push(tr("This job's"), tr("The copy that this job brought holds for all jobs"));
    unlike_->side_by_side({first_, second_});
    for (QPushButton* b : {first_, second_})
        connect(b, &QPushButton::clicked, this, [this, b] {
            const auto unlike = unlike_copies(room_.order());
            if (unlike.empty()) return;
            const UnlikeCopies& u = unlike.front();
            const bool first = b == first_;
            room_.edit(tr("one copy for all"),
                       with_one_copy(room_.order(), u.kind, first ? u.first : u.second, first ? u.second : u.first));
        });
    rule();
    auto* bring = push(tr("Bring in another order…"), tr("Its pieces share the film and the presses with these; each stays its own"));
    add(bring);
    connect(bring, &QPushButton::clicked, this, &JobsPage::bring_in);
    fill();
}

void JobsPage::bring_in() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Bring in an order"), {}, tr("Orders (*.orthema);;All files (*)"));
    if (!path.isEmpty()) room_.gang_table().bring_in(path);
}

const Job* JobsPage::job() const {
    const Order& order = room_.order();
    const Job* now = find_job(order, room_.selection().job.empty() ? room_.selection().run.job : room_.selection().job);
    return now != nullptr || order.jobs.empty() ? now : &order.jobs.front();
}

void JobsPage::change(const QString& what, const std::function<void(Job&)>& how) {
    const Job* now = job();
    if (now == nullptr) return;
    Job next = *now;
    how(next);
    room_.edit(what, with_job_said(room_.order(), next));
}

void JobsPage::take_out() {
    const Job* now = job();
    if (now == nullptr) return;
    const KnownOrder* known = room_.orders().find(now->id);
    const std::string id = now->id;
    QFileDialog dialog(this, tr("Save the job as an order"), {}, tr("Orders (*.orthema)"));
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setDefaultSuffix(QStringLiteral("orthema"));
    if (known != nullptr && QFileInfo(qt(known->path)).isFile()) {
        dialog.setDirectory(QFileInfo(qt(known->path)).absolutePath());
        dialog.selectFile(QFileInfo(qt(known->path)).fileName());
    }
    if (dialog.exec() == QDialog::Accepted && !dialog.selectedFiles().isEmpty())
        room_.gang_table().take_out(id, dialog.selectedFiles().front());
}

void JobsPage::refresh() {
    const Order& order = room_.order();
    const bool gang = is_gang(order);
    alone_->setVisible(!gang);
    gang_->setVisible(gang);
    const auto unlike = gang ? unlike_copies(order) : std::vector<UnlikeCopies>{};
    unlike_->setVisible(!unlike.empty());
    customer_->show_text(qt(order.customer));
    note_->show_text(qt(order.note));
    const Job* now = job();
    if (!gang || now == nullptr) return;
    std::vector<std::pair<std::string, QString>> jobs;
    for (const Job& j : order.jobs.all()) jobs.emplace_back(j.id, qt(j.name));
    set_items(which_, jobs, now->id);
    name_->show_text(qt(now->name));
    job_customer_->show_text(qt(now->customer));
    due_->show_text(qt(now->due));
    due_at_->show_text(clock_words(now->due_at));
    job_note_->show_text(qt(now->note));
    const Costs costs = costs_of(order, room_.transfer_set(), room_.sheets(), room_.press_plan());
    for (const JobCost& c : costs.jobs) {
        if (c.job != now->id) continue;
        const auto money = [&](Pence p) { return qt(pence_text(p, order.currency, reading_in())); };
        pieces_->setText(QString::number(c.pieces));
        film_->setText(money(c.film));
        blanks_->setText(money(c.blanks));
        work_->setText(order.hourly > 0 ? money(c.work) : qt(duration_words(c.seconds)));
        total_->setText(tr("%1 of %2").arg(money(c.total()), money(costs.total())));
    }
    together_->setText(order.hourly > 0 ? QString() : tr("Work has no price yet: type what an hour costs on the page Order."));
    together_->setVisible(!together_->text().isEmpty());
    take_out_->setEnabled(!room_.catching_up());
    if (!unlike.empty()) {
        const UnlikeCopies& u = unlike.front();
        const Job* whose = find_job(order, u.job);
        QString says = tr("The %1 “%2” of %3 differs from that of the others.")
                           .arg(said(kind_words(u.kind)), qt(u.name), whose == nullptr ? QString() : qt(whose->name));
        if (unlike.size() > 1) says += tr(" And %1.").arg(counted(unlike.size() - 1, "more thing"));
        unlike_says_->setText(says + tr(" Which holds for all?"));
    }
}

}  // namespace orthema::app
