// Words over several lines, whose height is worked out once for a text and a width: a window's layout asks each label again
// and again, those on pages that are not shown too, at two or three widths in turn.
#pragma once

#include <QLabel>

#include <utility>
#include <vector>

namespace orthema::app {

class WrappedLabel : public QLabel {
    Q_OBJECT
public:
    explicit WrappedLabel(const QString& text = {}, QWidget* parent = nullptr);
    [[nodiscard]] int heightForWidth(int width) const override;

protected:
    bool event(QEvent* event) override;

private:
    mutable QString known_of_;
    mutable std::vector<std::pair<int, int>> known_;  ///< width and height, px
};

}  // namespace orthema::app
