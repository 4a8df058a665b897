// A label that says as much as it has room for, with an ellipsis, and all of it in its tip.
#pragma once

#include <QLabel>

namespace orthema::app {

class FittingLabel : public QLabel {
    Q_OBJECT
public:
    using QLabel::QLabel;
    void say(const QString& text);
    [[nodiscard]] const QString& whole() const { return whole_; }
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] QSize minimumSizeHint() const override;

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void fit();
    QString whole_;
};

/// Over what shows less than its `whole` text a tip says that first, then why it is there. False where all is shown: the usual tip does.
bool whole_in_tip(QWidget& of, QEvent& tip_asked, const QString& whole, const QString& shown);

}  // namespace orthema::app
