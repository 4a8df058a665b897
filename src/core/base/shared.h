// Shared: values that many hold and few change. Copies share one value until one of them is written; equal pointers are
// equal at once. What makes an order cheap to copy, to compare and to keep two hundred times.
#pragma once

#include <algorithm>
#include <initializer_list>
#include <memory>
#include <vector>

namespace orthema {

/// A value that is never changed once it is shared.
template <class T>
struct Shared {
    std::shared_ptr<const T> held;
    Shared() = default;
    Shared(std::shared_ptr<const T> p) : held(std::move(p)) {}  // NOLINT: implicit on purpose
    explicit operator bool() const { return held != nullptr; }
    const T& operator*() const { return *held; }
    const T* operator->() const { return held.get(); }
    [[nodiscard]] const T* get() const { return held.get(); }
    bool operator==(const Shared& o) const { return held == o.held || (held && o.held && *held == *o.held); }
    bool operator==(std::nullptr_t) const { return held == nullptr; }
};

/// A vector that is copied when it is first written to after a copy was taken. Writing is asking for anything that is not
/// const: hold no reference into it while the list, or what holds it, is copied.
template <class T>
class SharedList {
public:
    using value_type = T;
    using Vector = std::vector<T>;
    SharedList() = default;
    SharedList(Vector v) : held_(std::make_shared<Vector>(std::move(v))) {}               // NOLINT: implicit on purpose
    SharedList(std::initializer_list<T> list) : held_(std::make_shared<Vector>(list)) {}  // NOLINT: implicit on purpose
    operator const Vector&() const { return all(); }                                      // NOLINT: implicit on purpose
    [[nodiscard]] const Vector& all() const { return held_ ? *held_ : none(); }
    /// To write to.
    Vector& own() {
        if (!held_)
            held_ = std::make_shared<Vector>();
        else if (held_.use_count() > 1)
            held_ = std::make_shared<Vector>(*held_);
        return *held_;
    }
    [[nodiscard]] bool empty() const { return all().empty(); }
    [[nodiscard]] std::size_t size() const { return all().size(); }
    [[nodiscard]] auto begin() const { return all().begin(); }
    [[nodiscard]] auto end() const { return all().end(); }
    [[nodiscard]] const T& operator[](std::size_t i) const { return all()[i]; }
    [[nodiscard]] const T& at(std::size_t i) const { return all().at(i); }
    [[nodiscard]] const T& front() const { return all().front(); }
    [[nodiscard]] const T& back() const { return all().back(); }
    auto begin() { return own().begin(); }
    auto end() { return own().end(); }
    auto rbegin() { return own().rbegin(); }
    auto rend() { return own().rend(); }
    T& operator[](std::size_t i) { return own()[i]; }
    T& at(std::size_t i) { return own().at(i); }
    T& front() { return own().front(); }
    T& back() { return own().back(); }
    void push_back(T item) { own().push_back(std::move(item)); }
    void pop_back() { own().pop_back(); }
    void clear() { held_.reset(); }
    template <class It>
    auto erase(It at) {
        return own().erase(at);
    }
    template <class Pos, class... Args>
    auto insert(Pos at, Args&&... args) {
        return own().insert(at, std::forward<Args>(args)...);
    }
    void resize(std::size_t n) { own().resize(n); }
    void reserve(std::size_t n) { own().reserve(n); }
    bool operator==(const SharedList& o) const { return held_ == o.held_ || all() == o.all(); }
    /// Whether both are one and the same piece of memory.
    [[nodiscard]] bool shares(const SharedList& o) const { return held_ == o.held_; }

private:
    static const Vector& none() {
        static const Vector empty;
        return empty;
    }
    std::shared_ptr<Vector> held_;
};

template <class T, class If>
void erase_if(SharedList<T>& list, If unwanted) {
    if (std::any_of(list.all().begin(), list.all().end(), unwanted)) std::erase_if(list.own(), unwanted);
}

}  // namespace orthema
