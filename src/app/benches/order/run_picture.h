// The order as a picture of its runs: for each blank and colour, quantities along the size run.
#pragma once

#include "app/widgets/canvas.h"
#include "app/session/workroom.h"

namespace orthema::app {

class RunPicture : public Canvas {
    Q_OBJECT
public:
    explicit RunPicture(Workroom& room, QWidget* parent = nullptr);
    /// Centre of a size's column, for tests and for the caret.
    [[nodiscard]] QPoint slot_centre(const RunKey& run, const std::string& size) const;
    [[nodiscard]] QSize sizeHint() const override;
    /// The sizes of each run.
    [[nodiscard]] std::vector<CanvasItem> items() override;

protected:
    Drawing draw(double width, double height) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Slot {
        Rect box;
        RunKey run;
        std::string size;
    };
    [[nodiscard]] std::vector<Slot> places(double width) const;
    void step(int across, int down);
    Workroom& room_;
    QString typed_;
};

constexpr double run_row_height = 100;

}  // namespace orthema::app
