#include "app/session/exporter.h"

#include <algorithm>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/guides/guides.h"

namespace orthema::app {

void Exporter::export_to(const QString& folder, const ExportChoice& choice) {
    if (running_) return;
    running_ = true;
    stop_ = false;
    jobs_.background(
        [this, folder, choice, order = document_.order(), shop = chain_.shop(), art = pictures_.art(),
         before = chain_.work()]() -> std::function<void()> {
            Task task;
            task.cancelled = &stop_;
            task.report = [this](double share, const std::string& doing) {
                QMetaObject::invokeMethod(
                    this, [this, share, doing] { emit progress(share, qt(doing)); }, Qt::QueuedConnection);
            };
            const auto report = export_order(folder.toStdString(), order, shop, art, choice, task, &before);
            return [this, report, guides = choice.guides, made_of = order] {
                running_ = false;
                if (report && guides && made_of == document_.order()) guides_printed();
                if (report &&
                    std::any_of(report->findings.begin(), report->findings.end(), [](const Finding& f) { return f.code == "guide-stale"; }))
                    notices_.say(tr("Guides printed before were made from other figures: take the old ones away."));
                QStringList files;
                if (report) {
                    report_ = *report;
                    for (const auto* list : {&report->files, &report->unchanged})
                        for (const std::string& f : *list) files << qt(f);
                }
                emit finished(files, report ? QString() : refusal(report.error()));
            };
        },
        [this] {
            running_ = false;
            emit finished({}, tr("The export ended early."));
        });
}

void Exporter::guides_printed(const std::string& decoration, const std::string& size) {
    Order next = with_guides_printed(document_.order(), chain_.work().plan(), decoration, size);
    if (next.guide_setup != document_.order().guide_setup) document_.edit(tr("guides printed"), std::move(next));
}

}  // namespace orthema::app
