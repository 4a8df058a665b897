#include "app/photos/kept_photo.h"

#include <QDate>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/order/limits.h"

namespace orthema::app {

const KeptPhoto* kept_of(const Order& order, const TapedPhoto& photo, const std::string& record) {
    for (const KeptPhoto& k : order.photographs.all())
        if (k.hash == photo.small_hash && k.style == photo.style && k.size == photo.size && k.record == record) return &k;
    return nullptr;
}

void keep_or_leave(Workroom& room, const TapedPhoto& photo, const std::string& record) {
    Order next = room.order();
    if (const KeptPhoto* kept = kept_of(next, photo, record)) {
        erase_if(next.photographs, [out = *kept](const KeptPhoto& k) { return k == out; });
        room.edit(tr("take a photograph out of the order"), std::move(next));
        return;
    }
    if (next.photographs.size() >= most<KeptPhoto>)
        return room.say(
            {tr("%1 photographs are kept with this order already: take some out first.").arg(next.photographs.size()), true, {}, {}});
    room.pictures().keep_photograph(photo.small_hash, photo.small);
    next.photographs.push_back(
        {photo.style, photo.size, record, QDate::currentDate().toString(Qt::ISODate).toStdString(), photo.small_hash});
    room.edit(tr("keep a photograph with the order"), std::move(next));
}

std::optional<TapedPhoto> to_look_at(Workroom& room, const KeptPhoto& kept) {
    const ArtBytes& bytes = room.pictures().bytes();
    const auto at = bytes.find(kept.hash);
    if (at == bytes.end()) return std::nullopt;
    TapedPhoto out;
    out.path = tr("kept ") + qt(kept.hash);
    out.style = kept.style;
    out.size = kept.size;
    out.small = at->second;
    out.small_hash = kept.hash;
    out.kept = true;
    return out;
}

namespace {

QString keep_it() { return tr("Keep it small with the order"); }

}  // namespace

QPushButton* keep_button() {
    return push(keep_it(),
                tr("A picture of a thousand pixels lies in the order file, to be looked at again; the photograph stays where it is"));
}

void show_on(QPushButton& button, const Order& order, const TapedPhoto* photo, const std::string& record) {
    const bool there = photo != nullptr && photo->small != nullptr;
    button.setText(there && kept_of(order, *photo, record) != nullptr ? tr("Take it out of the order") : keep_it());
    button.setEnabled(there && !photo->busy);
}

}  // namespace orthema::app
