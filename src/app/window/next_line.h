// What next: one button under the figures, beside the findings, that moves the order on.
#pragma once

#include <QPushButton>

#include <functional>

#include "core/pipeline/next_step.h"

namespace orthema::app {

class NextLine : public QPushButton {
    Q_OBJECT
public:
    explicit NextLine(QWidget* parent = nullptr);
    /// Nothing: it says that nothing is left, or that the order is being worked out.
    void show_step(const std::optional<NextStep>& step, bool catching_up, Reading reading);
    [[nodiscard]] const std::optional<NextStep>& step() const { return step_; }
    std::function<void(const NextStep&)> wanted;

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::optional<NextStep> step_;
    QString words_;
};

}  // namespace orthema::app
