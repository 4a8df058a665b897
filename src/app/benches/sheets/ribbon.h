// The film ribbon: sheets of one medium along a rule, with true outlines and the art in them. Pieces are dragged, turned
// and locked here; they glide to their new places while the nester improves.
#pragma once

#include <QTimer>
#include <QVariantAnimation>

#include <map>

#include "app/widgets/canvas.h"
#include "app/benches/sheets/ribbon_sheets.h"
#include "app/benches/sheets/strip_tiles.h"
#include "app/session/workroom.h"
#include "core/sheets/by_hand.h"
#include "core/nesting/trimmer.h"

namespace orthema::app {

class Ribbon : public Canvas {
    Q_OBJECT
public:
    explicit Ribbon(Workroom& room, QWidget* parent = nullptr);
    void refresh_pieces();      ///< as refresh(), and pieces glide
    void show_from(double mm);  ///< scrolls so that this place is at the left edge
    [[nodiscard]] double first_mm() const { return first_; }
    [[nodiscard]] double last_mm() const;
    void zoom_by(double factor, QPointF at);
    void zoom_to_width();
    void zoom_to_chosen();
    [[nodiscard]] bool dragging() const { return dragging_; }
    /// The copy that was chosen last; -1: none.
    [[nodiscard]] int chosen() const { return chosen_.empty() ? -1 : chosen_.back(); }
    [[nodiscard]] const std::vector<int>& all_chosen() const { return chosen_; }
    void choose(int copy);
    void choose_all(std::vector<int> copies);
    void turn_chosen();
    void lock_chosen();
    void swap_chosen();
    void send_chosen(int sheet);
    /// Shows the sheet as it is after so many of these cuts, and the next one to be made; sheet -1: not.
    void show_cut(int sheet, int cut, TrimPlan plan);
    void show_kept(bool on);  ///< outlines of the layout that was put beside
    /// A point of a copy's ink on the widget: somewhere inside its contour.
    [[nodiscard]] QPoint place_of(int copy) const;

    /// The pieces that lie on it.
    [[nodiscard]] std::vector<CanvasItem> items() override;

signals:
    void moved_view();
    void chosen_changed();

protected:
    Drawing draw(double width, double height) override;
    const QImage* ground(double ratio) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    [[nodiscard]] const Medium* medium() const;
    [[nodiscard]] Point to_strip(Point p, int& sheet) const;
    [[nodiscard]] Affine strip_map(int sheet) const;
    [[nodiscard]] Affine strip_map_of(double start) const;
    [[nodiscard]] Point inner_point(const Transfer& t) const;
    [[nodiscard]] HandLayout hand() const;
    [[nodiscard]] bool is_chosen(int copy) const;
    void put(const std::vector<int>& which, const std::vector<PlacedCopy>& copies, const QString& what, const QString& gesture);
    void no_room(const QString& sentence);
    [[nodiscard]] bool tiled() const;
    void lay_items();
    void draw_label(Drawing& d, const Transfer& t, const PlacedCopy& at, const Affine& map, const Rect& box,
                    const std::string& of_job) const;
    void draw_rope_and_rule(Drawing& d) const;
    void draw_sheet(Drawing& d, std::size_t i, double width) const;
    void draw_cuts(Drawing& d) const;
    void draw_kept(Drawing& d) const;
    Workroom& room_;
    RibbonSheets sheets_;         ///< as of the last refresh
    double first_ = 0, top_ = 0;  ///< mm at the left and the upper edge
    double zoom_ = 0;             ///< pixels a mm; 0: the whole width
    std::vector<int> chosen_;
    bool dragging_ = false, panning_ = false, roping_ = false;
    Point grip_;                 ///< from the chosen copy's own place to the pointer, mm
    Point rope_from_, rope_to_;  ///< pixels: what lies within is chosen
    Point pan_from_, pan_first_;
    std::optional<HandLayout> hand_;  ///< while dragging
    StripTiles tiles_;
    std::vector<Rect> boxes_;  ///< of the copies along the ribbon, mm
    bool laid_ = false;        ///< boxes and tiles are of the layout of now
    QImage ground_;
    QTimer still_;                                                      ///< while it runs the view moves
    std::map<std::string, std::shared_ptr<const Transfer>> transfers_;  ///< as the tiles draw them
    std::uint64_t transfers_number_ = 0;
    int cut_sheet_ = -1, cut_ = 0;
    TrimPlan cuts_;
    bool kept_shown_ = false;
    std::map<std::pair<std::string, int>, PlacedCopy> shown_, gliding_from_;
    QVariantAnimation glide_;
    std::string shown_medium_;
    mutable std::map<std::string, Point> inner_;
};

}  // namespace orthema::app
