// A box that offers a few things: what is chosen ends in an ellipsis where there is no room, and what it offers is seen whole.
#pragma once

#include <QComboBox>

namespace orthema::app {

class ChoiceBox : public QComboBox {
    Q_OBJECT
public:
    explicit ChoiceBox(QWidget* parent = nullptr);
    void showPopup() override;

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    [[nodiscard]] QString fitting() const;
};

}  // namespace orthema::app
