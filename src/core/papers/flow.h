// Flow: a paper of rows from top to bottom, over as many pages as they take.
#pragma once

#include "core/guides/guides.h"
#include "core/guides/panel_drawing.h"

namespace orthema {

class Flow {
public:
    static constexpr double left = 16, foot = 18;
    Flow(const Order& order, std::string title, std::string beside)
        : paper_(paper_size(order.paper)), reading_(order.unit), title_(std::move(title)), beside_(std::move(beside)) {
        next_page();
    }
    [[nodiscard]] double right() const { return paper_.width - left; }
    [[nodiscard]] double width() const { return right() - left; }
    [[nodiscard]] double height_left() const { return paper_.height - foot - y; }
    Drawing& on() { return pages_.back().drawing; }
    /// A new page where less than this is left, mm.
    void need(double height) {
        if (height_left() < height) next_page();
    }
    void head(const std::string& words) {
        need(18);
        y += 3;
        on().text({left, y + 4}, words, 4.2, palette::ink, Align::left, true);
        y += 6.5;
        line();
        y += 5;
    }
    void line() { on().line({{left, y}, {right(), y}}, {palette::rule, 0.3, {}}); }
    void say(const std::string& words, double size = 3.4, Colour colour = palette::ink, bool bold = false) {
        if (words.empty()) return;
        need(size * 1.5);
        y = wrapped(on(), {left, y}, words, size, width(), colour, bold) + 0.8;
    }
    std::vector<GuidePage> pages() {
        number_pages(pages_, paper_, right(), reading_);
        return std::move(pages_);
    }
    double y = 0;

private:
    void next_page() {
        GuidePage p;
        p.title = title_;
        p.drawing.width = paper_.width;
        p.drawing.height = paper_.height;
        p.drawing.text({left, 22}, title_, 7.5, palette::ink, Align::left, true);
        p.drawing.text({right(), 22}, shortened(beside_, width() * 0.62, 3.6), 3.6, palette::quiet, Align::right);
        y = 32;
        pages_.push_back(std::move(p));
    }
    PaperSize paper_;
    Reading reading_;
    std::string title_, beside_;
    std::vector<GuidePage> pages_;
};

}  // namespace orthema
