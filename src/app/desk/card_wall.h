// The wall of order cards on the desk: each an order with its garments in small, when it is due, how far its stages are and what is next.
// Only what is seen is drawn, so that thousands hang there.
#pragma once

#include <QAbstractScrollArea>

#include <functional>
#include <map>
#include <set>
#include <vector>

#include "files/order_book.h"

namespace orthema::app {

class CardWall : public QAbstractScrollArea {
    Q_OBJECT
public:
    explicit CardWall(QWidget* parent = nullptr);
    /// Those to hang up, in order; the wall keeps copies. `today` is an ISO date.
    void show_cards(std::vector<KnownOrder> cards, const std::string& today, std::map<std::string, QString> lacks = {});
    [[nodiscard]] const std::vector<KnownOrder>& cards() const { return cards_; }
    [[nodiscard]] const std::set<std::string>& chosen() const { return chosen_; }
    [[nodiscard]] const KnownOrder* current() const;
    void choose(const std::string& job, bool also = false);
    /// Of a card, in the viewport; for tests and menus.
    [[nodiscard]] QRect card_rect(int index) const;
    std::function<void()> changed;                           ///< another card, or more of them, are chosen
    std::function<void(const KnownOrder&)> opened;           ///< by double click or Enter
    std::function<void(QPoint)> asked;                       ///< by the right button or the menu key; where, on the screen
    std::function<std::string(const std::string&)> name_of;  ///< of a job that lies in a gang

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    bool viewportEvent(QEvent* event) override;

private:
    void arrange();
    [[nodiscard]] int at(QPoint p) const;
    [[nodiscard]] int columns() const;
    void paint_card(QPainter& p, const KnownOrder& card, const QRect& box, bool chosen, bool current);
    void step(int by, bool also);
    std::vector<KnownOrder> cards_;
    std::set<std::string> chosen_;
    std::string current_, today_;
    std::map<std::string, QString> lacks_;  ///< by job: what the shop has not got for it
};

/// "due 12 June, in 5 days", "3 days late"; nothing where it is due on no day.
QString due_words(const OrderCard& card, const std::string& today);

}  // namespace orthema::app
