// The look-up: any bench, deed, figure, design, size, person or finding by some letters of it. It rises over the bench; Enter goes there.
#pragma once

#include <QFrame>
#include <QPointer>

#include <functional>
#include <optional>
#include <vector>

class QLineEdit;
class QListWidget;

namespace orthema::app {

/// Something that can be looked up.
struct Known {
    QString text;
    QString where;  ///< the bench, or what kind of thing it is
    QString also;   ///< further words that lead to it
    std::function<void()> go;
    int weight = 0;  ///< among those that fit as well, the greater first
};

/// How well the words that were typed fit a text: each of them must begin a word of it or stand within one, whatever the case and the
/// accents. More is better; nothing where one of them is not there.
std::optional<int> fitness(const QString& typed, const QString& text, const QString& also = {});

/// The places in `known` of what fits, the best first, `most` at the most. Nothing typed: those of the greatest weight.
std::vector<std::size_t> looked_up(const QString& typed, const std::vector<Known>& known, std::size_t most);

class LookUp : public QFrame {
    Q_OBJECT
public:
    explicit LookUp(QWidget* parent);
    /// Asked for each time that it rises.
    std::function<std::vector<Known>()> all;
    void rise();
    [[nodiscard]] QLineEdit* field() const { return field_; }
    [[nodiscard]] QListWidget* list() const { return list_; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void fill();
    void go();
    QLineEdit* field_;
    QListWidget* list_;
    std::vector<Known> known_;
    std::vector<std::size_t> shown_;
    QPointer<QWidget> before_;  ///< had the keys
};

}  // namespace orthema::app
