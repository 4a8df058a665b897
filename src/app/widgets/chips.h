// Chips: rows of cards, each with a name and a quiet second line, of which one is chosen. Wraps when it must; more rows
// than there is room for are folded to those about the chosen one.
#pragma once

#include <QAbstractButton>
#include <QImage>
#include <QPushButton>

#include <functional>
#include <optional>
#include <vector>

#include "core/base/colour.h"
#include "core/base/finding.h"

namespace orthema::app {

struct Chip {
    std::string id;
    QString name, under;
    Standing standing = Standing::settled;
    QImage picture = {};
    std::optional<Colour> behind = {};  ///< the picture's ground
};

class ChipButton : public QAbstractButton {
    Q_OBJECT
public:
    explicit ChipButton(QWidget* parent);
    void show_chip(const Chip& chip, bool chosen);
    [[nodiscard]] const std::string& id() const { return chip_.id; }
    [[nodiscard]] QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Chip chip_;
    bool chosen_ = false;
};

class ChipRow : public QWidget {
    Q_OBJECT
public:
    explicit ChipRow(const QString& name, QWidget* parent = nullptr);
    void show_chips(const std::vector<Chip>& chips, const std::string& chosen);
    [[nodiscard]] ChipButton* chip(const std::string& id) const;
    /// Shows no more rows than these until it is unfolded.
    void fold(int rows);
    std::function<void(const std::string&)> chosen;

protected:
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void arrange();
    QString name_;
    QPushButton* all_ = nullptr;  ///< unfolds, and folds again
    int most_rows_ = 0, first_row_ = 0;
    bool unfolded_ = false;
    std::vector<ChipButton*> buttons_;
    std::string now_;
};

}  // namespace orthema::app
