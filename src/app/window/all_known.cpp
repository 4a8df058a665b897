#include "app/window/all_known.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QPointer>

#include <map>
#include <set>

#include "app/widgets/speech.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"

namespace orthema::app {

namespace {

constexpr std::size_t most_findings = 300;

/// What a part is called, for people; nothing for parts that are no deed or figure of their own.
QString called(const QWidget* part) {
    if (const auto* button = qobject_cast<const QAbstractButton*>(part)) {
        if (qobject_cast<const ChipButton*>(part) != nullptr) return {};
        QString text = button->text();
        text.remove(QLatin1Char('&'));
        const bool segment = part->property("segment").toBool();
        return segment ? part->accessibleName().section(QStringLiteral(": "), 1) : text;
    }
    if (qobject_cast<const QLineEdit*>(part) != nullptr || qobject_cast<const QComboBox*>(part) != nullptr) {
        const bool inner = qobject_cast<const QComboBox*>(part->parentWidget()) != nullptr;
        return inner ? QString() : part->accessibleName();
    }
    return {};
}

bool put_away(const QWidget* part) { return part->testAttribute(Qt::WA_WState_ExplicitShowHide) && part->isHidden(); }

/// A row that this blank or design does not have, name and field; a page that is not shown holds more.
bool put_away_row(const QWidget* row) {
    constexpr qsizetype most_in_a_row = 3;
    return put_away(row) && row->findChildren<QWidget*>(Qt::FindDirectChildrenOnly).size() <= most_in_a_row;
}

Subject with(std::string Subject::*part, const std::string& id) {
    Subject out;
    out.*part = id;
    return out;
}

Subject of_run(const RunKey& run, const std::string& size) {
    Subject out = with(&Subject::style, run.style);
    out.size = size;
    out.colour = run.colour;
    out.lot = run.lot;
    out.job = run.job;
    return out;
}

}  // namespace

QString stage_name(const QString& key) {
    const int i = stage_index(key.toStdString());
    return i < 0 ? key : tr(stages()[std::size_t(i)].name);
}

void add_parts(std::vector<Known>& to, const QString& stage, QWidget* of, const Ways& ways) {
    std::set<QString> there;
    for (QWidget* part : of->findChildren<QWidget*>()) {
        const QString text = called(part);
        if (text.size() < 2) continue;
        if (put_away(part) || put_away_row(part->parentWidget())) continue;
        QString where = stage_name(stage);
        if (part->property("segment").toBool()) where += QStringLiteral(", ") + part->accessibleName().section(QStringLiteral(": "), 0, 0);
        if (!there.insert(text + where).second) continue;
        const QPointer<QWidget> to_part(part);
        to.push_back({text, where, part->toolTip(),
                      [ways, stage, to_part] {
                          if (to_part) ways.part(stage, to_part);
                      },
                      5});
    }
}

void add_order(std::vector<Known>& to, Workroom& room, const Ways& ways) {
    const Order& order = room.order();
    const auto add = [&](const QString& text, const QString& where, const QString& stage, const Subject& about, int weight) {
        to.push_back({text, where, {}, [ways, stage, about] { ways.at(stage, about); }, weight});
    };
    for (const Decoration& d : order.decorations)
        add(tr("%1 on %2").arg(qt(d.name), qt(run_name(order, d.run))), said(location_name(d.location)), QStringLiteral("fit"),
            with(&Subject::decoration, d.id), 8);
    std::map<std::pair<RunKey, std::string>, int> pieces;
    for (const OrderLine& l : order.lines.all()) pieces[{{l.style, l.colour, l.lot, l.job}, l.size}] += l.quantity;
    for (const auto& [of, n] : pieces) {
        const auto& [run, size] = of;
        add(qt(run_name(order, run) + " " + size), counted(std::size_t(n), "piece"), QStringLiteral("fit"), of_run(run, size), 6);
    }
    for (std::size_t i = 0; i < order.lines.size(); ++i) {
        const OrderLine& l = order.lines[i];
        if (l.name.empty() && l.number.empty() && l.note.empty()) continue;
        const QString who = qt(l.name + (l.name.empty() || l.number.empty() ? "" : " ") + l.number);
        const Subject about = of_run({l.style, l.colour, l.lot, l.job}, l.size);
        to.push_back({who.isEmpty() ? qt(l.note) : who, qt(run_name(order, {l.style, l.colour, l.lot, l.job}) + " " + l.size),
                      qt(l.note + " " + l.ref),
                      [ways, about, i, &room, person = !who.isEmpty()] {
                          ways.at(QStringLiteral("order"), about);
                          if (!person) return;
                          Selection s = room.selection();
                          s.person = int(i);
                          room.select(s);
                      },
                      7});
    }
    for (const Art& a : order.art) add(qt(a.name), tr("art"), QStringLiteral("art"), with(&Subject::art, a.id), 7);
    for (const BlankStyle& b : order.styles.all()) add(qt(b.name), tr("blank"), QStringLiteral("blanks"), with(&Subject::style, b.id), 6);
    for (const Medium& m : order.media.all())
        add(qt(m.name), tr("film or paper"), QStringLiteral("sheets"), with(&Subject::medium, m.id), 6);
    for (const Job& j : order.jobs.all())
        to.push_back({qt(j.name), tr("job"), qt(j.customer),
                      [&room, id = j.id] {
                          Selection s = room.selection();
                          s.job = id;
                          room.select(s);
                      },
                      7});
    const Findings& findings = room.findings();
    for (std::size_t i = 0; i < std::min(findings.size(), most_findings); ++i)
        to.push_back({qt(finding_text(findings[i], order.unit)),
                      QStringLiteral("%1, %2").arg(said(severity_name(findings[i].severity)), stage_name(qt(findings[i].about.stage))),
                      {},
                      [ways, i] { ways.finding(int(i)); },
                      1});
    for (const QString& path : room.keeper().recent())
        to.push_back({QFileInfo(path).completeBaseName(), tr("order of late"), path, [ways, path] { ways.open(path); }, 4});
}

bool bring_to_light(QWidget* part, const std::vector<QWidget*>& within) {
    if (part->isVisible()) return true;
    std::set<Segments*> tried;
    const std::function<bool()> search = [&] {
        for (QWidget* place : within)
            for (Segments* s : place->findChildren<Segments*>()) {
                if (!s->turns_pages() || !s->isVisible() || !tried.insert(s).second) continue;
                const int was = s->choice();
                const int n = int(s->findChildren<QPushButton*>().size());
                for (int i = 0; i < n; ++i) {
                    if (!s->button(i)->isVisible() || !s->button(i)->isEnabled()) continue;
                    if (s->choice() != i) s->button(i)->click();
                    if (part->isVisible() || search()) return true;
                }
                if (was >= 0) s->button(was)->click();
                tried.erase(s);
            }
        return false;
    };
    return search();
}

}  // namespace orthema::app
