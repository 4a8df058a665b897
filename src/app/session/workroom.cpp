#include "app/session/workroom.h"

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/canvas.h"
#include "app/widgets/figures.h"
#include "files/library.h"
#include "files/shop_backup.h"

namespace orthema::app {

Workroom::Workroom(QString data_folder, QString liked_file, QObject* parent)
    : QObject(parent),
      settings_(liked_file.isEmpty() ? data_folder + "/settings.ini" : std::move(liked_file), data_folder + "/orthema.ini"),
      pictures_(document_, jobs_, notices_),
      library_(document_, jobs_, notices_),
      records_(document_, library_, jobs_, notices_),
      chain_(document_, pictures_, jobs_),
      keeper_(std::move(data_folder), document_, pictures_, library_, jobs_, notices_, settings_),
      orders_(document_, pictures_, chain_, jobs_, notices_),
      stock_(document_, chain_, records_, orders_, jobs_, notices_),
      gang_table_(document_, pictures_, chain_, keeper_, records_, jobs_, notices_),
      settler_(document_, chain_, jobs_, notices_),
      planner_(document_, chain_, jobs_),
      devices_(document_, chain_, pictures_, jobs_),
      exporter_(document_, chain_, pictures_, jobs_, notices_) {
    connect(&jobs_, &Jobs::threw, &notices_, qOverload<const QString&>(&Notices::complain));
    connect(&document_, &Document::refused, this, [this](const QString& why) { notices_.complain(why); });
    connect(&document_, &Document::about_to_change, this, [this](const QString& gesture) {
        if (gesture != QLatin1String("settle")) settler_.stop();
    });
    connect(&document_, &Document::changed, this, [this] {
        chain_.follow();
        keeper_.autosave_soon();
        pictures_.made_anew();
        tell();
    });
    connect(&pictures_, &Pictures::brought_in, this, [this](const std::string& art) { selection_.art = art; });
    connect(&pictures_, &Pictures::changed, this, [this] {
        chain_.follow();
        tell();
    });
    connect(&chain_, &Chain::worked, this, [this] {
        planner_.stop();
        tell();
    });
    connect(&keeper_, &Keeper::about_to_take_over, &settler_, &Settler::stop);
    connect(&keeper_, &Keeper::about_to_take_over, &planner_, &Planner::abandon);
    connect(&keeper_, &Keeper::about_to_take_over, &stock_, &StockRoom::table_cleared);
    connect(&keeper_, &Keeper::taken_over, this, [this](const Work& fitted) {
        settler_.forget_curve();
        chain_.take_over(fitted);
        selection_ = {};
        tell();
    });
    connect(&keeper_, &Keeper::changed, this, &Workroom::tell);
    connect(&settler_, &Settler::changed, this, &Workroom::tell);
    connect(&planner_, &Planner::changed, this, &Workroom::tell);
    connect(&devices_, &Devices::changed, this, &Workroom::tell);
    connect(&library_, &ShopLibrary::changed, this, &Workroom::tell);
    stock_.picture_of = [this](const Transfer& t) {
        constexpr double wide = 160, tall = 84;
        if (t.width <= 0 || t.height <= 0 || !pictures_.art().contains(t.art)) return std::string();
        const double k = std::min(wide / t.width, tall / t.height);
        const int width = int(std::ceil(t.width * k)), height = int(std::ceil(t.height * k));
        Drawing d;
        d.width = width;
        d.height = height;
        // cloth stands behind it: a white print is seen too
        d.rect({0, 0, d.width, d.height}, Colour{0.80, 0.79, 0.76, 1});
        d.marks.emplace_back(art_in(t.art, {0, 0, t.width * k, t.height * k}));
        QImage image;
        paint_image(image, d, pictures_.art(), width, height, 1.0);
        return png_of(image);
    };
    keeper_.own_records = [this] { return records_.of_order(order()); };
    keeper_.standing_corrections = [this] { return records_.standing(); };
    connect(&keeper_, &Keeper::came_with, &records_, &Records::merge);
    connect(&keeper_, &Keeper::lies_at, &orders_, &ShopOrders::note);
    connect(&keeper_, &Keeper::lies_at, &stock_, &StockRoom::table_kept);
    connect(&orders_, &ShopOrders::gone, &stock_, &StockRoom::release);
    connect(&devices_, &Devices::printed, &stock_, &StockRoom::printed);
    connect(&stock_, &StockRoom::changed, this, &Workroom::tell);
    connect(&keeper_, &Keeper::came_with, this, &Workroom::offer_corrections);
    connect(&records_, &Records::changed, this, &Workroom::tell);
    connect(&library_, &ShopLibrary::opened, this, [this] {
        records_.open(library_.path());
        orders_.open(library_.path());
        stock_.open(library_.path());
        if (!document_.changed_since_saved() && keeper_.path().isEmpty() && order().lines.empty() && order().art.empty())
            keeper_.start_new();
        tell();
    });
    keeper_.start_new();
    library_.open_in(keeper_.data_folder());
}

Workroom::~Workroom() {
    settler_.stop();
    planner_.abandon();
    exporter_.stop();
    jobs_.finish();
}

void Workroom::back_up_shop(const QString& path) {
    records_.flush();
    stock_.flush();
    jobs_.background([this, path, library = library_.path()]() -> std::function<void()> {
        const auto done = orthema::back_up_shop(library.toStdString(), path.toStdString());
        return [this, done, path] {
            if (!done) return notices_.complain(done.error());
            QString text = tr("The shop with %1 was written to %2.").arg(counted(std::size_t(done->orders), "order"), path);
            if (!done->missing.empty())
                text += tr(" %1 not where they were and are left out.").arg(counted(done->missing.size(), "order is", "orders are"));
            notices_.say({text, !done->missing.empty(), {}, {}});
        };
    });
}

void Workroom::restore_shop(const QString& path, const QString& folder) {
    records_.flush();
    stock_.flush();
    jobs_.background([this, path, folder, library = library_.path()]() -> std::function<void()> {
        const auto done = orthema::restore_shop(path.toStdString(), library.toStdString(), folder.toStdString());
        return [this, done] {
            if (!done) return notices_.complain(done.error());
            notices_.say(tr("The shop is restored, with %1. The one before lies beside its library.")
                             .arg(counted(std::size_t(done->orders), "order")));
            orders_.close();
            records_.close();
            library_.open_in(keeper_.data_folder());
        };
    });
}

void Workroom::offer_corrections() {
    const std::size_t lacks = records_.lacking().size();
    if (lacks == 0) return;
    say({tr("The shop has taken %1 since that this order does not know.").arg(counted(lacks, "correction")), false, tr("Use them here"),
         [this] { records_.take_standing(); }});
}

void Workroom::select(const Selection& selection) {
    if (selection == selection_) return;
    const bool same_hand = selection.also == selection_.also;
    const bool elsewhere =
        selection.size != selection_.size || selection.decoration != selection_.decoration || selection.run != selection_.run;
    selection_ = selection;
    if (same_hand && elsewhere) selection_.also.clear();  // it was about the sizes of before
    tell();
}

void Workroom::tell() {
    selection_ = tidied(std::move(selection_), order(), transfer_set());
    emit updated();
}

}  // namespace orthema::app
