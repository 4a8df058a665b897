// The Records bench: where pieces really land, how runs went, what came out by recipe, what was spoiled, and the lessons in it.
// Every picture answers to one set of filters, every dot leads to its record.
#pragma once

#include <set>

#include "app/widgets/speech.h"
#include "app/benches/bench.h"
#include "core/records/plots.h"

class QCheckBox;
class QGridLayout;
class QComboBox;
class QLineEdit;
class QStackedWidget;
class QTableView;

namespace orthema::app {

class FigurePanel;
class HistoryModel;
class LessonList;
class PhotoFolder;
class PhotoView;
class PlotView;
class PressedPage;
class RecordPage;
class Segments;

class RecordsBench : public Bench {
    Q_OBJECT
public:
    explicit RecordsBench(Workroom& room);
    QWidget* figures() override;
    void refresh() override;
    QWidget* first_focus() override;
    [[nodiscard]] QString word() const override;
    [[nodiscard]] QString help() const override;
    [[nodiscard]] const std::vector<std::size_t>& which() const { return which_; }
    [[nodiscard]] const std::vector<Correction>& proposed() const { return proposed_; }
    [[nodiscard]] PlotView* plot() const { return plot_; }
    void show_view(int view);
    void show_lessons();
    /// Photographs of the chosen record's piece.
    bool take_pictures(const QStringList& paths) override;
    [[nodiscard]] const PressedPage& pressed() const { return *pressed_; }
    [[nodiscard]] PhotoFolder& folder() { return *folder_; }
    [[nodiscard]] PhotoView* photo_view() const { return photo_view_; }

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    static constexpr std::size_t not_gathered = std::size_t(-1);
    void filter_box(const FilterColumn& column);
    void arrange();
    void make_room();
    void look();   ///< filters anew
    void judge();  ///< what the passing records propose, on a thread
    void gather();
    void fill_boxes();
    void show_summary();
    [[nodiscard]] PlotAsk ask(double width, double height) const;
    [[nodiscard]] std::string method_shown() const;
    [[nodiscard]] PlotAsk of_one_method(PlotAsk ask) const;
    [[nodiscard]] Plot plot_of(double width, double height) const;
    void choose(std::size_t record);
    void look_at_photo(const QString& path);
    void show_photo(bool shown);
    void show_middle(bool photo);
    Segments *views_, *ways_;
    QGridLayout* filters_;
    int columns_ = 0;
    std::vector<std::pair<QComboBox*, const FilterColumn*>> boxes_;
    QComboBox *span_, *losses_;
    QLineEdit* find_;
    QPushButton* more_;
    QCheckBox* rehearsals_;
    QLabel* said_;
    QStackedWidget* middle_;
    PlotView* plot_;
    LessonList* lessons_;
    QTableView* table_;
    HistoryModel* model_;
    FigurePanel* panel_;
    QLabel *count_, *mean_, *spread_, *clean_, *next_;
    RecordPage* page_;
    PhotoView* photo_view_;
    PressedPage* pressed_;
    PhotoFolder* folder_;
    FigurePanel* summary_;  ///< of what passes the filters; a low window has no room for it beside a record
    FigurePanel* of_all_;   ///< what passes the filters, and the record
    RecordFilter filter_;
    std::vector<std::size_t> which_;
    std::vector<Correction> proposed_;
    std::vector<std::set<std::string>> values_;  ///< by box
    std::size_t gathered_ = not_gathered;        ///< of so many records
    std::optional<std::size_t> chosen_;
    std::string chosen_id_, looked_at_;
    int view_ = 0, asked_for_ = 0;  ///< asked_for_: which judgement is the newest
    bool unsure_ = false;
    bool asked_ = false;  ///< somebody said whether rehearsals count
};

}  // namespace orthema::app
