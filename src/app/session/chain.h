// Chain: the work that is made of the order of now. The fit follows an edit at once; what comes after it follows on a thread.
#pragma once

#include <QObject>

#include <cstdint>

#include "app/session/document.h"
#include "app/session/jobs.h"
#include "app/session/pictures.h"

namespace orthema::app {

class Chain : public QObject {
    Q_OBJECT
public:
    Chain(Document& document, Pictures& pictures, Jobs& jobs, QObject* parent = nullptr);
    [[nodiscard]] const Work& work() const { return work_; }
    /// Another number whenever the transfers look different.
    [[nodiscard]] std::uint64_t transfers_number() const { return number_; }
    /// True while what follows the fit is worked out for the order of now.
    [[nodiscard]] bool catching_up() const { return computing_ || again_; }
    /// Fits the order of now, and asks for the rest.
    void follow();
    /// What the shop has now: what depends on it is worked out anew.
    void use_shop(const Shop& shop);
    [[nodiscard]] const Shop& shop() const { return shop_; }
    /// For another order altogether, whose fit is known.
    void take_over(Work fitted);
    /// A press plan that is better than that of now.
    void better(std::shared_ptr<const PressPlan> plan);

signals:
    /// What follows the fit was worked out anew.
    void worked();

private:
    void compute_later();
    Document& document_;
    Pictures& pictures_;
    Jobs& jobs_;
    Work work_;
    Shop shop_;
    std::uint64_t number_ = 0;
    int order_number_ = 0;
    bool computing_ = false, again_ = false;
};

}  // namespace orthema::app
