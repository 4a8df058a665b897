#include "app/session/devices.h"

#include <QDate>

#include <algorithm>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/sheets/sheet_drawing.h"
#include "devices/cutter.h"
#include "files/page_export.h"

namespace orthema::app {

namespace {

/// What is to be minded of the film's further making, and until when it can be pressed.
QString after_printing(const Order& order, const std::string& medium_id) {
    const Medium* medium = find_medium(order, medium_id);
    const Method* method = medium == nullptr ? nullptr : find_method(order, medium->method);
    if (method == nullptr) return {};
    QString out;
    if (!method->care.empty()) out += QLatin1Char(' ') + said(method->care);
    if (method->keeps_days > 0)
        out += tr(" Kept cool and dry it can be pressed until %1.").arg(day_text(QDate::currentDate().addDays(method->keeps_days), true));
    return out;
}

}  // namespace

void Devices::print_sheet(const Sheet& sheet, const PrinterSetup& setup, double dpi) {
    const PrintJob job = print_job(document_.order(), chain_.work().transfer_set(), sheet, dpi);
    jobs_.background([this, job, setup, dpi, sheet, art = pictures_.art(), order = document_.order(),
                      set = chain_.work().transfer_set()]() -> std::function<void()> {
        SimulatedPrinter printer(setup);
        if (const auto refused = printer.begin(job))
            return [this, text = qt(*refused)] {
                says_ = text;
                emit changed();
            };
        const Drawing page = sheet_page(order, sheet, set, sheet_labels(order, sheet, set));
        const auto drawn = draw_rows(page, art, dpi, [&](const PixelBand& b) { return printer.rows(b.pixels, b.width, b.first, b.rows); });
        const PrintReport report = printer.end();
        return [this, drawn, report, sheet] {
            says_ = drawn ? qt(worded(report.says, document_.order().unit)) : refusal(drawn.error());
            if (drawn) emit printed(sheet, report.finished ? sheet.length : report.printed_length);
            if (drawn && report.finished) says_ += after_printing(document_.order(), sheet.medium);
            const MediumLayout layout = layout_of(document_.order(), sheet.medium);
            std::vector<PlacedCopy> there;
            for (const PlacedCopy& c : layout.copies)
                if (c.sheet == sheet.number) there.push_back(c);
            if (drawn && !report.finished && there == sheet.copies) {
                document_.end_gesture();
                document_.edit(tr("print, stopped"),
                               with_layout(document_.order(), after_print(layout, chain_.work().transfer_set(), sheet, report.survives)));
            }
            emit changed();
        };
    });
    says_ = tr("Printing …");
    emit changed();
}

void Devices::cut_sheet(const Sheet& sheet) {
    jobs_.background([this, sheet, set = chain_.work().transfer_set()]() -> std::function<void()> {
        const std::string path = cut_plt(sheet_cuts(sheet, set), sheet.length);
        const auto report = SimulatedCutter({}).cut(path, sheet.width, sheet.length, printed_ink(set, sheet));
        return [this, report] {
            says_ = report ? qt(worded(report->says, document_.order().unit)) : refusal(report.error());
            emit changed();
        };
    });
}

}  // namespace orthema::app
