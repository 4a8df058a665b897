// The page of a word picture: the word, what stands in place of a letter, and which picture goes where.
#pragma once

#include "app/benches/art/word_view.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"

class QCheckBox;
class QComboBox;

namespace orthema::app {

class WordPage : public FigurePanel {
    Q_OBJECT
public:
    WordPage(Workroom& room, WordView& view);
    void refresh();
    /// A word picture in the shipped bold face, chosen.
    static void begin(Workroom& room);
    /// The picture whose subject is being marked; empty: none is.
    [[nodiscard]] std::string marking() const;
    void stop_marking();
    std::function<void()> marking_changed;

private:
    [[nodiscard]] const Art* art() const;
    [[nodiscard]] const Art* art_for(const std::string& id) const;
    void change(const QString& what, const std::function<void(WordPicture&)>& how);
    void change_place(const QString& what, const std::function<void(WordPlace&)>& how);
    void suggest();
    void pick_face(int index);
    Workroom& room_;
    WordView& view_;
    ValueField* word_;
    QComboBox *face_, *shape_, *outline_, *first_, *second_;
    NumberField *apart_, *rim_, *degrees_;
    QCheckBox* shared_;
    FigurePanel *outlined_, *sharing_;
    QLabel *place_name_, *says_;
    QPushButton *suggest_, *mark_, *alone_;
    QString suggested_;
};

}  // namespace orthema::app
