// Pictures: the artwork of the order as bytes, as something to draw, and as what is known about it.
#pragma once

#include <QObject>
#include <QStringList>

#include "app/session/document.h"
#include "app/session/jobs.h"
#include "app/session/notices.h"
#include "core/pipeline/work.h"
#include "files/lettering.h"
#include "files/order_file.h"

namespace orthema::app {

class Pictures : public QObject {
    Q_OBJECT
public:
    Pictures(Document& document, Jobs& jobs, Notices& notices, QObject* parent = nullptr);
    [[nodiscard]] const ArtBytes& bytes() const { return bytes_; }
    [[nodiscard]] const LoadedArtById& art() const { return art_; }
    [[nodiscard]] const Shared<KnownArt>& known() const { return known_; }
    /// Of that order, as they were read.
    void take_over(const Order& order, ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known);
    /// Reads pictures on threads; each comes into the order when it is there.
    void bring_in(const QStringList& paths);
    /// A typeface among the order's files, for letterings.
    void keep_typeface(const Typeface& face) { bytes_[face.hash] = face.file; }
    /// A small photograph among the order's files.
    void keep_photograph(const std::string& hash, Bytes file) { bytes_[hash] = std::move(file); }
    /// Pictures whose mendings, shape or subject changed are made anew on a thread, letterings whose words changed are set; the last state
    /// asked for is the one that stays.
    void made_anew();
    /// Does the mendings on a thread; the order gets them when they are done, with the picture's marks where they were. What cannot be done
    /// is said, and nothing changes.
    void mend(const std::string& art, const QString& what, const std::vector<Mending>& mendings);
    [[nodiscard]] bool mending() const { return mending_ > 0; }

signals:
    void brought_in(const std::string& art);
    void changed();

private:
    /// All that an art's pictures are made of.
    struct MadeOf {
        std::string hash;
        std::vector<Mending> mendings;
        std::optional<ArtClip> clip;
        std::vector<Point> subject;
        std::optional<BlankStyle> on;
        std::optional<Lettering> lettering;
        std::vector<std::string> words;
        std::string composed;  ///< all that a composed one shows
        bool operator==(const MadeOf&) const = default;
    };
    [[nodiscard]] static MadeOf made_of(const Order& order, const Art& art);
    void show(const Art& art, LoadedArtById pictures);
    void find_known(Findings faults);
    Document& document_;
    Jobs& jobs_;
    Notices& notices_;
    ArtBytes bytes_;
    LoadedArtById art_;
    std::map<std::string, MadeOf> made_;  ///< by art: what its pictures are made of, or cannot be made of
    int mending_ = 0;
    Shared<KnownArt> known_;
};

}  // namespace orthema::app
