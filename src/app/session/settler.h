// Settler: nests the pieces of one medium while the artist looks on.
#pragma once

#include <QObject>

#include <atomic>
#include <memory>
#include <vector>

#include "app/session/chain.h"
#include "app/session/notices.h"

namespace orthema::app {

/// One point of the curve of film used while pieces settle.
struct SettlePoint {
    double seconds = 0, density = 0;
};

class Settler : public QObject {
    Q_OBJECT
public:
    Settler(Document& document, Chain& chain, Jobs& jobs, Notices& notices, QObject* parent = nullptr)
        : QObject(parent), document_(document), chain_(chain), jobs_(jobs), notices_(notices) {}
    ~Settler() override { stop(); }
    void settle(const std::string& medium, double seconds);
    void stop();
    [[nodiscard]] bool running() const { return running_; }
    [[nodiscard]] const std::vector<SettlePoint>& curve() const { return curve_; }
    void forget_curve() { curve_.clear(); }
    /// As many fillings as find room on the sheets that are there.
    void fill(const std::string& medium);

signals:
    void changed();

private:
    Document& document_;
    Chain& chain_;
    Jobs& jobs_;
    Notices& notices_;
    bool running_ = false;
    std::shared_ptr<std::atomic<bool>> stop_;
    std::vector<SettlePoint> curve_;
    unsigned seed_ = 0;  ///< settling more tries something else
};

}  // namespace orthema::app
