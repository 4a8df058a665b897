// How the words of a lettering are set: typeface, height, colours, and what long names do.
#pragma once

#include "app/session/system_faces.h"
#include "app/session/workroom.h"
#include "app/widgets/figures.h"

namespace orthema::app {

class LetteringPage : public FigurePanel {
    Q_OBJECT
public:
    explicit LetteringPage(Workroom& room);
    void refresh();
    /// A typeface from a file, for the lettering in hand or, where none is, for a new one.
    void take_file(const QString& path, bool narrow, const QString& name = {});
    /// A new lettering of names, in the typefaces that ship; it is in hand then.
    static void begin(Workroom& room);

private:
    void change(const QString& what, const std::function<void(Lettering&)>& how);
    /// The faces that can be chosen: those that ship and those that the order has.
    void choose_face(const Typeface& face, bool narrow);
    void pick_face(QComboBox* box, bool narrow);
    void pick_colour(QComboBox* box, const QString& what, const std::function<void(Lettering&, std::optional<Colour>)>& how);
    [[nodiscard]] double field_width() const;
    Workroom& room_;
    Segments* kind_;
    ValueField* pattern_;
    QComboBox *face_, *narrow_, *colour_, *rim_, *second_;
    LengthField *letters_, *rim_width_;
    NumberField *arch_, *spacing_, *gap_;
    QCheckBox *capitals_, *squeeze_, *digits_;
    QLabel* says_;
    std::vector<SystemFace> faces_here_;  ///< of this computer, once they are known
    bool asked_faces_ = false;
};

/// The shipped typefaces, and those that the order carries.
std::vector<Typeface> typefaces_in(const Order& order, const ArtBytes& bytes);

}  // namespace orthema::app
