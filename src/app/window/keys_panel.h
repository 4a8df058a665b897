// All keys: those of everywhere and those of the bench that is looked at, over the bench.
#pragma once

#include <QFrame>
#include <QPointer>

#include <vector>

namespace orthema::app {

struct KeySaid {
    QString stage;  ///< its key; "desk"; empty: everywhere
    QString keys;   ///< as they stand on the keyboard, with " or " between two ways
    QString what;
};
/// Every key that does something.
const std::vector<KeySaid>& all_keys();

class KeysPanel : public QFrame {
    Q_OBJECT
public:
    explicit KeysPanel(QWidget* parent);
    /// Of that stage, or of the desk; `name` is the stage's for people.
    void rise(const QString& stage, const QString& name);

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    void put_down();
    QWidget* body_ = nullptr;
    QPointer<QWidget> before_;  ///< had the keys
};

}  // namespace orthema::app
