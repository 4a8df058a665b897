// Threads that wait for the next batch of small tasks.
#pragma once

#include <atomic>
#include <functional>
#include <thread>
#include <vector>

namespace orthema {

/// They wait spinning a little: batches follow each other closely.
class Crew {
public:
    /// So many threads beside the one that asks; none where there are less than one.
    explicit Crew(int helpers) {
        for (int i = 0; i < helpers; ++i) threads_.emplace_back([this, i] { wait(i + 1); });
    }
    ~Crew() {
        over_ = true;
        turn_.fetch_add(1);
        turn_.notify_all();
        for (std::thread& t : threads_) t.join();
    }
    Crew(const Crew&) = delete;
    Crew& operator=(const Crew&) = delete;
    /// Runs job(task, worker) for all tasks; returns when all are done.
    void run(int tasks, const std::function<void(int, int)>& job) {
        if (threads_.empty() || tasks < 2) {
            for (int t = 0; t < tasks; ++t) job(t, 0);
            return;
        }
        job_ = &job;
        tasks_ = tasks;
        next_ = 0;
        busy_ = static_cast<int>(threads_.size());
        turn_.fetch_add(1);
        turn_.notify_all();
        work(0);
        while (busy_.load() > 0) pause();
    }

private:
    static void pause() {
#if defined(__x86_64__)
        __builtin_ia32_pause();
#endif
    }
    void work(int worker) {
        for (int t = next_.fetch_add(1); t < tasks_; t = next_.fetch_add(1)) (*job_)(t, worker);
    }
    void wait(int worker) {
        unsigned seen = 0;
        for (;;) {
            for (int spins = 0; turn_.load() == seen && spins < 4000; ++spins) pause();
            turn_.wait(seen);
            seen = turn_.load();
            if (over_) return;
            work(worker);
            busy_.fetch_sub(1);
        }
    }
    std::atomic<unsigned> turn_ = 0;
    std::atomic<int> next_ = 0, busy_ = 0;
    std::atomic<bool> over_ = false;
    int tasks_ = 0;
    const std::function<void(int, int)>* job_ = nullptr;
    std::vector<std::thread> threads_;
};

}  // namespace orthema
