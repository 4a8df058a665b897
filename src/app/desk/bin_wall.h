// The wall of bins on the desk: what the shop has, each thing a bin with its picture, how many lie there and what is wanted of it, along
// its run where it has one. Counts are typed on the bin. Only what is seen is drawn.
#pragma once

#include <QAbstractScrollArea>

#include <functional>
#include <optional>
#include <vector>

#include "core/base/colour.h"
#include "core/shop/stock.h"

namespace orthema::app {

/// One thing that is counted, or wanted and not counted yet.
struct Bin {
    StockEntry entry;
    QString name;       ///< under the picture: "M", "Roll 2"
    double count = -1;  ///< as it is shown; negative: not counted
    double wanted = 0;  ///< still, by all open orders
    double lacking = 0;
    double full = 1;       ///< what fills its picture
    QString figure, note;  ///< the count in words, and what is to be said of it
    bool bad = false;      ///< the note is a caution
    Colour tint;
    bool operator==(const Bin&) const = default;
};
struct BinRow {
    QString title, beside;
    std::vector<Bin> bins;
    bool operator==(const BinRow&) const = default;
};

class BinWall : public QAbstractScrollArea {
    Q_OBJECT
public:
    BinWall(const QString& name, QString empty_words, QWidget* parent = nullptr);
    void show_rows(std::vector<BinRow> rows);
    [[nodiscard]] const std::vector<BinRow>& rows() const { return rows_; }
    [[nodiscard]] const Bin* current() const;
    bool choose(const std::string& id);
    /// Of a bin, in the viewport; for tests and menus.
    [[nodiscard]] QRect bin_rect(const std::string& id) const;
    std::function<void()> changed;                                                    ///< another bin is chosen
    std::function<std::optional<QString>(const Bin&, const QString& typed)> counted;  ///< a count was typed; a sentence refuses it
    std::function<void(QPoint)> asked;                                                ///< by the right button or the menu key

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    struct Place {
        std::size_t row = 0, bin = 0;
        QRect box;  ///< in the whole wall
    };
    void arrange();
    void commit(int then_step);
    void step(int across, int down);
    void show_current();
    void paint_bin(QPainter& p, const Bin& bin, const QRect& box, bool chosen);
    [[nodiscard]] const Place* place_of(const std::string& id) const;
    QString empty_words_, typed_;
    std::vector<BinRow> rows_;
    std::vector<Place> places_;
    std::vector<int> heads_;  ///< y of each row's title
    std::string current_;
};

}  // namespace orthema::app
