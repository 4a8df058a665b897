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
    void take_over(ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known);
    /// Reads pictures on threads; each comes into the order when it is there.
    void bring_in(const QStringList& paths);
    /// A typeface among the order's files, for letterings.
    void keep_typeface(const Typeface& face) { bytes_[face.hash] = face.file; }
    /// Pictures whose shape or subject changed are clipped on a thread; the last shape asked for is the one that stays. Letterings whose
    /// words changed are set.
    void clip_anew(const Order& before);

signals:
    void brought_in(const std::string& art);
    void changed();

private:
    /// Words of a lettering whose roster, face or figures changed, on a thread; the last state is the one that stays.
    void set_anew(const Order& before, const Art& art);
    void find_known(Findings faults);
    Document& document_;
    Jobs& jobs_;
    Notices& notices_;
    ArtBytes bytes_;
    LoadedArtById art_;
    Shared<KnownArt> known_;
};

}  // namespace orthema::app
