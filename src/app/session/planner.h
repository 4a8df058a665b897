// Planner: betters the press plan for as long as it is asked to.
#pragma once

#include <QObject>

#include <atomic>
#include <memory>

#include "app/session/chain.h"

namespace orthema::app {

class Planner : public QObject {
    Q_OBJECT
public:
    Planner(Document& document, Chain& chain, Jobs& jobs, QObject* parent = nullptr)
        : QObject(parent), document_(document), chain_(chain), jobs_(jobs) {}
    ~Planner() override {
        if (stop_) *stop_ = true;
    }
    /// For so many seconds; what it finds is shown as it comes.
    void better(double seconds);
    void stop();
    /// Without keeping what was found: another order comes.
    void abandon() {
        found_ = nullptr;
        stop();
    }
    /// The plan as it stands is agreed to: kept with the order, until something in it changes.
    void accept();
    [[nodiscard]] bool running() const { return running_; }

signals:
    void changed();

private:
    Document& document_;
    Chain& chain_;
    Jobs& jobs_;
    bool running_ = false;
    std::shared_ptr<std::atomic<bool>> stop_;
    std::shared_ptr<const PressPlan> found_;  ///< while it runs: the best until now
    unsigned seed_ = 0;
};

}  // namespace orthema::app
