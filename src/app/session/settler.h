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
        : QObject(parent), document_(document), chain_(chain), jobs_(jobs), notices_(notices) {
        connect(&chain_, &Chain::worked, this, &Settler::next);
    }
    ~Settler() override { stop(); }
    void settle(const std::string& medium, double seconds);
    /// One medium after the other, each for so many seconds: those that have pieces.
    void settle_all(double seconds);
    void stop();
    [[nodiscard]] bool running() const { return running_ || !waiting_.empty(); }
    [[nodiscard]] const std::vector<SettlePoint>& curve() const { return curve_; }
    void forget_curve() { curve_.clear(); }
    /// As many fillings as find room on the sheets that are there.
    void fill(const std::string& medium);

signals:
    void changed();

private:
    void next();
    /// Quiet: where nothing is gained nobody is told.
    void settle(const std::string& medium, double seconds, bool quiet);
    Document& document_;
    Chain& chain_;
    Jobs& jobs_;
    Notices& notices_;
    bool running_ = false;
    std::vector<std::string> waiting_;  ///< media, the last first
    double each_ = 0;                   ///< seconds for one of them
    std::shared_ptr<std::atomic<bool>> stop_;
    std::vector<SettlePoint> curve_;
    unsigned seed_ = 0;  ///< settling more tries something else
};

}  // namespace orthema::app
