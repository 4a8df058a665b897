#include "app/window/export_panel.h"

#include <QCheckBox>
#include <QDesktopServices>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QUrl>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "files/safe_file.h"

namespace orthema::app {

ExportPanel::ExportPanel(Workroom& room, QWidget* parent) : QDialog(parent), room_(room) {
    setWindowTitle(tr("Export"));
    setObjectName(QStringLiteral("Export panel"));
    setMinimumWidth(520);
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(18, 16, 18, 16);
    rows->setSpacing(8);
    rows->addWidget(head_label(tr("Write the order's sheets, cut lines, guides and tables")));

    auto* place = new QHBoxLayout;
    folder_ = new QLineEdit;
    folder_->setObjectName(QStringLiteral("Folder"));
    folder_->setAccessibleName(tr("Folder"));
    folder_->setFixedHeight(26);
    const QString base = room.keeper().path().isEmpty() ? QDir::homePath() : QFileInfo(room.keeper().path()).absolutePath();
    folder_->setText(base + "/" + qt(file_stem(room.order().name)) + "-export");
    auto* choose = push(tr("Choose…"), tr("Choose the folder to write into"));
    place->addWidget(new QLabel(tr("Into")));
    place->addWidget(folder_, 1);
    place->addWidget(choose);
    rows->addLayout(place);
    connect(choose, &QPushButton::clicked, this, [this] {
        const QString dir = QFileDialog::getExistingDirectory(this, tr("Folder to write into"), folder_->text());
        if (!dir.isEmpty()) folder_->setText(dir);
    });

    const auto box = [&](const QString& text, const QString& why) {
        auto* b = new QCheckBox(text);
        b->setObjectName(text);
        b->setToolTip(why);
        b->setChecked(true);
        rows->addWidget(b);
        ticks_.push_back(b);
        return b;
    };
    pdf_ = box(tr("Gang sheets as PDF, 1:1, vector art kept"), tr("For printers that take pages"));
    png_ = box(tr("Gang sheets as PNG with alpha"), tr("For printers that take pixels; long films take a while"));
    tiff_ = box(tr("Gang sheets as TIFF with alpha"), tr("The same pixels for software that wants TIFF"));
    tiff_->setChecked(false);
    auto* fine = new QHBoxLayout;
    dpi_ = new Segments(tr("Pixels an inch"), {QStringLiteral("300"), QStringLiteral("600"), QStringLiteral("720")});
    dpi_->setToolTip(tr("The printer's own resolution; twice as fine takes four times as long"));
    dpi_->show_choice(0);
    dpi_->chosen = [this](int i) { dpi_->show_choice(i); };
    fine->addSpacing(24);
    fine->addWidget(new QLabel(tr("Pixels an inch")));
    fine->addWidget(dpi_);
    fine->addStretch(1);
    rows->addLayout(fine);
    cut_ = box(tr("Cut lines as SVG, DXF and HPGL, or a trimmer's cut list"),
               tr("For a cutter: in cutting order, what lies inside before what it lies in"));
    labels_ = box(tr("Labels beside the pieces"), tr("Printed in what is thrown away, so that look-alikes can be sorted"));
    guides_ = box(tr("Guides as PDF: cards, templates, platen maps, wall charts"),
                  tr("For the hand at the press, with carry boards; a master template where it takes fewer sheets than those of its "
                     "sizes, which the Guides bench still prints one by one"));
    auto* follow = new QHBoxLayout;
    guide_order_ = new Segments(tr("Cards follow"), {tr("the garments"), tr("the locations"), tr("the presses")});
    guide_order_->setToolTip(tr("In which order cards and templates lie on each other"));
    guide_order_->show_choice(0);
    guide_order_->chosen = [this](int i) { guide_order_->show_choice(i); };
    follow->addSpacing(24);
    follow->addWidget(new QLabel(tr("Cards follow")));
    follow->addWidget(guide_order_);
    follow->addStretch(1);
    rows->addLayout(follow);
    svg_ = box(tr("Templates as SVG too, each whole"), tr("To cut or engrave them; in a folder of their own"));
    svg_->setChecked(false);
    press_ = box(tr("Run sheet, press plan, pick list and calendar"), tr("PDF, CSV, and iCalendar for the due day"));
    papers_ = box(tr("Quote, job ticket and sheet for approval"), tr("PDF; of a gang for each job"));
    tables_ = box(tr("Fit table, piece list and order lines as CSV"), tr("For a spreadsheet"));

    auto* open = new QHBoxLayout;
    open_ = new QLabel;
    open_->setObjectName(QStringLiteral("Still open"));
    open_->setProperty("caution", true);
    open_->setWordWrap(true);
    look_ = push(tr("Look first"), tr("Shows all findings; the export waits"));
    open->addWidget(open_, 1);
    open->addWidget(look_);
    rows->addLayout(open);
    connect(look_, &QPushButton::clicked, this, [this] {
        hide();
        emit findings_wanted();
    });
    connect(&room, &Workroom::updated, this, &ExportPanel::show_open);
    show_open();
    bar_ = new QProgressBar;
    bar_->setRange(0, 1000);
    bar_->setTextVisible(false);
    bar_->setAccessibleName(tr("Progress"));
    rows->addWidget(bar_);
    says_ = new QLabel;
    says_->setObjectName(QStringLiteral("Export says"));
    says_->setWordWrap(true);
    says_->setMinimumHeight(36);
    rows->addWidget(says_);
    auto* buttons = new QHBoxLayout;
    stop_ = push(tr("Stop"), tr("Files that are whole stay; the rest is not written"));
    stop_->setEnabled(false);
    open_folder_ = push(tr("Open the folder"), tr("Shows what was written in the desktop's own file window"));
    open_folder_->setEnabled(false);
    connect(open_folder_, &QPushButton::clicked, this, [this] {
        if (!QDesktopServices::openUrl(QUrl::fromLocalFile(QDir(folder_->text()).absolutePath())))
            says_->setText(tr("No program here shows folders. The files are in %1.").arg(QDir::toNativeSeparators(folder_->text())));
    });
    auto* close = push(tr("Close"), tr("Back to the bench; an export under way goes on"));
    go_ = push(tr("Write the files"), tr("Writes everything that is ticked"), true);
    buttons->addWidget(open_folder_);
    buttons->addStretch(1);
    buttons->addWidget(stop_);
    buttons->addWidget(close);
    buttons->addWidget(go_);
    rows->addLayout(buttons);

    connect(go_, &QPushButton::clicked, this, &ExportPanel::start);
    connect(stop_, &QPushButton::clicked, this, [this] { room_.exporter().stop(); });
    connect(close, &QPushButton::clicked, this, &QDialog::hide);
    connect(&room.exporter(), &Exporter::progress, this, [this](double share, const QString& doing) {
        bar_->setValue(int(share * 1000));
        says_->setText(doing);
    });
    connect(&room.exporter(), &Exporter::finished, this, [this](const QStringList& /*files*/, const QString& fault) {
        go_->setEnabled(true);
        stop_->setEnabled(false);
        open_folder_->setEnabled(QFileInfo(folder_->text()).isDir());
        if (!fault.isEmpty()) {
            says_->setText(fault);
            return;
        }
        bar_->setValue(1000);
        const ExportReport& report = room_.exporter().report();
        QString text = counted(report.files.size(), "file") + tr(" written to %1.").arg(QDir::toNativeSeparators(folder_->text()));
        if (!report.unchanged.empty()) text += " " + counted(report.unchanged.size(), "other") + tr(" there still true.");
        if (!report.from_before.empty()) {
            QStringList names;
            for (const std::string& name : report.from_before)
                if (names.size() < 3) names << qt(name);
            const auto more = report.from_before.size() - std::size_t(names.size());
            text += tr(" From an export before, and not of this one: %1%2. Do not print from them.")
                        .arg(names.join(QStringLiteral(", ")), more > 0 ? tr(" and %1 more").arg(more) : QString());
        }
        for (const Finding& f : room_.sheets().findings)
            if (f.severity != Severity::note) text += tr(" Left out: ") + qt(finding_text(f, room_.order().unit));
        says_->setText(text);
    });
    as_before();
    if (room.exporter().running()) {
        go_->setEnabled(false);
        stop_->setEnabled(true);
    }
}

void ExportPanel::as_before() {
    const QVariantMap was = room_.settings().remembered(QStringLiteral("export")).toMap();
    for (QCheckBox* tick : ticks_)
        if (const QVariant on = was.value(tick->text()); on.isValid()) tick->setChecked(on.toBool());
    if (was.contains(QStringLiteral("dpi"))) dpi_->show_choice(std::clamp(was.value(QStringLiteral("dpi")).toInt(), 0, 2));
    if (was.contains(QStringLiteral("order"))) guide_order_->show_choice(std::clamp(was.value(QStringLiteral("order")).toInt(), 0, 2));
    const QString folder = room_.settings().place_in(room_.order().job).value(QStringLiteral("export")).toString();
    if (!folder.isEmpty()) folder_->setText(folder);
}

void ExportPanel::remember() {
    QVariantMap now{{QStringLiteral("dpi"), dpi_->choice()}, {QStringLiteral("order"), guide_order_->choice()}};
    for (const QCheckBox* tick : ticks_) now[tick->text()] = tick->isChecked();
    room_.settings().remember(QStringLiteral("export"), now);
    QVariantMap place = room_.settings().place_in(room_.order().job);
    place[QStringLiteral("export")] = folder_->text();
    room_.settings().remember_place(room_.order().job, place);
}

/// What is still to be mended, before paper and film are spent on it.
void ExportPanel::show_open() {
    std::size_t stops = 0, cautions = 0;
    for (const Finding& f : room_.findings()) {
        stops += f.severity == Severity::stop ? 1 : 0;
        cautions += f.severity == Severity::caution ? 1 : 0;
    }
    QStringList parts;
    if (stops > 0) parts << counted(stops, "stop");
    if (cautions > 0) parts << counted(cautions, "caution");
    open_->setText(tr("Still open: %1.").arg(parts.join(tr(" and "))));
    open_->setVisible(!parts.isEmpty());
    look_->setVisible(!parts.isEmpty());
}

void ExportPanel::start() {
    if (room_.exporter().running()) return;
    ExportChoice choice;
    choice.sheets_pdf = pdf_->isChecked();
    choice.sheets_png = png_->isChecked();
    choice.sheets_tiff = tiff_->isChecked();
    choice.dpi = dpi_->choice() == 1 ? 600 : dpi_->choice() == 2 ? 720 : 300;
    choice.cut_lines = cut_->isChecked();
    choice.labels = labels_->isChecked();
    choice.guides = guides_->isChecked();
    choice.guide_order = guide_order_->choice() == 1 ? "location" : guide_order_->choice() == 2 ? "press" : "garment";
    choice.press = press_->isChecked();
    choice.papers = papers_->isChecked();
    choice.templates_svg = svg_->isChecked();
    choice.tables = tables_->isChecked();
    go_->setEnabled(false);
    stop_->setEnabled(true);
    says_->setText(tr("Working out the pages."));
    remember();
    room_.exporter().export_to(folder_->text(), choice);
}

}  // namespace orthema::app
