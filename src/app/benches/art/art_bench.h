// The Art bench: pictures brought in, what was found in them, and which garment they go on.
#pragma once

#include "app/widgets/speech.h"
#include "app/benches/bench.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace orthema::app {

class LetteringPage;
class MendingPage;
class TogetherPage;
class TogetherView;
class WordPage;
class WordView;

class ArtView;
class ChipRow;
class FigurePanel;
class LengthField;
class Segments;
class ValueField;

class ArtBench : public Bench {
    Q_OBJECT
public:
    explicit ArtBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    void ask_for_pictures();
    /// Chooses that run to put the picture on.
    void choose_run(const Subject& about);
    /// Puts the picture in hand on the run and location that are chosen.
    void put_on_chosen() { put_on(false); }
    [[nodiscard]] ArtView* view() const { return view_; }
    [[nodiscard]] WordView* word_view() const { return word_view_; }
    [[nodiscard]] TogetherView* together_view() const { return together_view_; }

private:
    void put_on(bool everywhere);
    void show_page();
    void show_cloth();
    void build_clip();
    void refresh_clip();
    void take_blank(ArtClip& clip, int index) const;
    void change_clip(const QString& what, const std::function<void(ArtClip&)>& how);
    void show_locations();
    void change_marks(const QString& what, const std::function<void(std::vector<NamedMark>&)>& how);
    [[nodiscard]] std::optional<Colour> own_cloth(const std::string& art) const;
    ChipRow* pictures_;
    ArtView* view_;
    FigurePanel* panel_;
    QLabel *title_, *kind_, *planned_, *resolution_, *half_, *background_, *optical_, *mark_says_, *says_;
    QLabel *stroke_, *gap_;
    QPushButton *mark_, *put_, *put_all_, *out_, *another_, *mark_out_;
    FigurePanel* marked_;  ///< the marks' names
    QComboBox *cloth_, *run_, *location_, *marks_;
    ValueField* mark_name_;
    FigurePanel *found_, *clip_, *onto_;
    LetteringPage* lettering_;
    MendingPage* mending_;
    WordPage* word_page_;
    WordView* word_view_;
    TogetherPage* together_page_;
    TogetherView* together_view_;
    std::string shown_art_;
    Segments *page_, *clip_to_, *weight_;
    ValueField* word_;
    QComboBox* clip_blank_;
    LengthField* clip_bleed_;
    QPushButton* subject_;
    QLabel* clip_says_;
    std::vector<Location> locations_;
};

/// A small picture of loaded art, for chips and lists.
QImage thumbnail(const LoadedArt& art, int side);

}  // namespace orthema::app
