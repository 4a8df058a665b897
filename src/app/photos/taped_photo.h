// One photograph of the session: what it showed, for which blank. The picture itself stays where it came from.
#pragma once

#include <QImage>

#include <atomic>
#include <memory>

#include "app/widgets/speech.h"
#include "app/session/jobs.h"
#include "core/blanks/style.h"
#include "files/photo_tape.h"

namespace orthema::app {

struct TapedPhoto {
    QString path;
    QImage picture;  ///< for the screen
    int width = 0, height = 0;
    std::string style, size;
    bool standing = false;  ///< a cup stands before an upright card
    std::optional<TableSeen> table;
    std::optional<BlankSeen> blank;
    std::optional<DesignSeen> design;  ///< where one was asked for
    std::vector<Point> by_hand;        ///< on the outline, pixels of the photograph
    QString fault;
    std::shared_ptr<const Photo> photo;
    Bytes small;  ///< its picture as a small JPEG
    std::string small_hash;
    bool kept = false;  ///< there is only that small one, kept with the order: to be looked at, not measured
    bool busy = true, taken = false;
    std::shared_ptr<std::atomic<bool>> stop;  ///< ends the measuring that is under way
    [[nodiscard]] bool stopped() const { return stop && *stop; }
};

/// Files of photographs, as patterns of names.
inline QStringList photo_files() {
    return {QStringLiteral("*.jpg"),  QStringLiteral("*.jpeg"), QStringLiteral("*.png"), QStringLiteral("*.heic"),
            QStringLiteral("*.heif"), QStringLiteral("*.webp"), QStringLiteral("*.tif"), QStringLiteral("*.tiff")};
}
/// The same, to choose some by.
inline QString photo_choice() { return tr("Photographs (%1)").arg(photo_files().join(QLatin1Char(' '))); }

/// What was found of it; points that were put by hand since stay.
void take_found(TapedPhoto& photo, TapedPhoto found);

/// What is asked of a photograph of that blank in that size, on one face of it.
BlankAsked blank_asked(const BlankStyle& style, const std::string& size, Face face);

/// A pressed piece's design, and where its ink should lie on the piece as that was measured, mm in its panel's frame.
struct PieceAsked {
    PixelImage picture;
    std::function<Rect(const BlankSeen& piece)> planned;
};

/// Reads it where that was not done yet, finds its cards, the blank and the design, on a thread. `done` is given what was found; what was
/// put by hand and what it is of are as they were when it was asked.
/// An earlier measuring of it ends, and is not heard of again.
void measure_photo(Jobs& jobs, TapedPhoto& photo, BlankAsked asked, std::optional<PieceAsked> design,
                   const std::function<void(TapedPhoto found)>& done);
/// Ends what is under way; what was known before stays.
void stop_measuring(TapedPhoto& photo);

}  // namespace orthema::app
