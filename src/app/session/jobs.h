// Jobs: work on threads of its own, whose end comes back to the thread that draws. What is thrown there is caught and said;
// the order stays as it was.
#pragma once

#include <QObject>
#include <QThreadPool>

#include <functional>

namespace orthema::app {

class Jobs : public QObject {
    Q_OBJECT
public:
    explicit Jobs(QObject* parent = nullptr);
    ~Jobs() override { finish(); }
    /// Runs `work` on a thread, and what it returns on this one. Should `work` throw, `failed` is run here instead.
    void background(std::function<std::function<void()>()> work, std::function<void()> failed = {});
    [[nodiscard]] bool busy() const { return running_ > 0; }
    /// Waits for what runs; what it would do here is dropped.
    void finish() { pool_.waitForDone(); }

signals:
    void threw(const QString& sentence);

private:
    QThreadPool pool_;
    int running_ = 0;
};

}  // namespace orthema::app
