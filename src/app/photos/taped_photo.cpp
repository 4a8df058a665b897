#include "app/photos/taped_photo.h"

#include <QBuffer>
#include <QFileInfo>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

constexpr std::uint64_t most_bytes = 80u << 20;

/// For the screen: at most 2,000 pixels along.
QImage picture_of(const Photo& photo) {
    const QImage whole(photo.image.rgba.data(), photo.image.width, photo.image.height, QImage::Format_RGBX8888);
    constexpr int side_px = 2000;
    if (std::max(whole.width(), whole.height()) <= side_px) return whole.convertToFormat(QImage::Format_RGB32);
    return whole.scaled(side_px, side_px, Qt::KeepAspectRatio, Qt::SmoothTransformation).convertToFormat(QImage::Format_RGB32);
}

/// Some hundred kilobytes of it, to be looked at again.
Bytes small_file(const QImage& picture) {
    constexpr int side_px = 1000;
    QByteArray file;
    QBuffer to(&file);
    to.open(QIODevice::WriteOnly);
    picture.scaled(side_px, side_px, Qt::KeepAspectRatio, Qt::SmoothTransformation).save(&to, "JPEG", 82);
    return std::make_shared<const std::string>(file.toStdString());
}

Result<Photo> photo_of(const TapedPhoto& p) {
    if (p.kept) return read_photo(p.small, spoken("The photograph"));
    const auto bytes = read_file(p.path.toStdString(), most_bytes);
    if (!bytes) return bytes.error();
    return read_photo(std::make_shared<const std::string>(*bytes), QFileInfo(p.path).fileName().toStdString());
}

void look(TapedPhoto& p, const BlankAsked& asked, const std::optional<PieceAsked>& design, const Task& task) {
    p.fault.clear();
    p.design.reset();
    if (p.photo == nullptr) {
        auto read = photo_of(p);
        if (!read) {
            p.fault = refusal(read.error());
            return;
        }
        p.photo = std::make_shared<const Photo>(std::move(*read));
        p.width = p.photo->image.width;
        p.height = p.photo->image.height;
        p.table.reset();
        if (p.picture.isNull()) p.picture = picture_of(*p.photo);
        if (p.small == nullptr) {
            p.small = small_file(p.picture);
            p.small_hash = content_hash(*p.small);
        }
    }
    if (p.kept) return;
    if (!p.table) {
        auto found = find_table(*p.photo, task);
        if (!found) {
            p.fault = refusal(found.error());
            return;
        }
        p.table = std::move(*found);
    }
    auto blank = measure_blank(*p.photo, *p.table, asked, task);
    if (!blank) {
        p.fault = refusal(blank.error());
        if (p.by_hand.empty()) p.blank.reset();
        return;
    }
    p.blank = std::move(*blank);
    p.fault = said(p.blank->refused);
    if (!design || !p.fault.isEmpty()) return;
    auto found = find_design(*p.photo, *p.table, *p.blank, {design->picture, design->planned(*p.blank), asked.thickness}, task);
    if (found) {
        p.design = std::move(*found);
        p.fault = said(p.design->refused);
    } else {
        p.fault = refusal(found.error());
    }
}

}  // namespace

void take_found(TapedPhoto& photo, TapedPhoto found) {
    found.by_hand = std::move(photo.by_hand);
    found.standing = photo.standing;
    photo = std::move(found);
}

BlankAsked blank_asked(const BlankStyle& style, const std::string& size, Face face) {
    BlankAsked asked;
    asked.family = style.family;
    asked.face = face;
    asked.other_side = style.other_side;
    for (const auto& [m, f] : style.chart.at(size)) asked.expected[m].value = f.published.value_or(f.value);
    return asked;
}

void measure_photo(Jobs& jobs, TapedPhoto& photo, BlankAsked asked, std::optional<PieceAsked> design,
                   const std::function<void(TapedPhoto found)>& done) {
    asked.on_outline = photo.by_hand;
    asked.standing = photo.standing;
    if (photo.stop) *photo.stop = true;
    photo.stop = std::make_shared<std::atomic<bool>>(false);
    TapedPhoto failed = photo;
    failed.busy = false;
    failed.fault = tr("It could not be measured.");
    jobs.background(
        [p = photo, asked = std::move(asked), design = std::move(design), done]() mutable -> std::function<void()> {
            if (!p.stopped()) look(p, asked, design, {{}, p.stop.get()});
            p.busy = false;
            return [p = std::move(p), done] {
                if (!p.stopped()) done(p);
            };
        },
        [failed = std::move(failed), done] { done(failed); });
}

void stop_measuring(TapedPhoto& photo) {
    if (!photo.busy || !photo.stop) return;
    *photo.stop = true;
    photo.busy = false;
    photo.fault = tr("Stopped before it was measured.");
}

}  // namespace orthema::app
