// Drives the real window with mouse and keys.
#pragma once

#include <gtest/gtest.h>

#include <QtTest>
#include <QtWidgets>

#include <memory>

#include "app/widgets/speech.h"
#include "app/window/main_window.h"
#include "files/languages.h"
#include "support/support.h"

namespace orthema::test {

/// How long is waited for what goes on in the background.
extern const int patience_ms;

/// Speaks a language for as long as it is there.
struct Spoken {
    explicit Spoken(const char* code) { app::speak(shipped_language(code)); }
    ~Spoken() { app::speak(nullptr); }
    Spoken(const Spoken&) = delete;
    Spoken& operator=(const Spoken&) = delete;
};

class Window {
public:
    Window() : Window(nullptr) {}
    /// With another window's data folder: the program started a second time.
    explicit Window(const Window* after);
    ~Window();
    [[nodiscard]] app::Workroom& room() { return *room_; }
    [[nodiscard]] const Order& order() const { return room_->order(); }
    [[nodiscard]] app::MainWindow& window() { return *window_; }
    [[nodiscard]] std::string data(const std::string& name = "") const { return *folder_ / name; }
    template <class T>
    T* bench(const char* stage) {
        return static_cast<T*>(window_->bench(QString::fromLatin1(stage)));
    }
    /// The visible widget of that object name, or a failed test.
    template <class T = QWidget>
    T* find(const QString& name) {
        for (T* w : window_->findChildren<T*>(name))
            if (w->isVisible()) return w;
        ADD_FAILURE() << "no visible widget called " << name.toStdString();
        return nullptr;
    }
    /// Lets everything in the background finish and the window catch up.
    void wait();
    void go(int stage);  ///< by Ctrl and its number
    void click(QWidget* widget);
    void click(QWidget* widget, QPoint at, Qt::KeyboardModifiers modifiers = {});
    void drag(QWidget* widget, QPoint from, QPoint to, Qt::KeyboardModifiers modifiers = {});
    void key(QWidget* widget, int key, Qt::KeyboardModifiers modifiers = {});
    /// Replaces what a field says and presses Enter.
    void type(QLineEdit* field, const QString& text, Qt::KeyboardModifiers enter = {});
    /// Steps a box to that entry by keys.
    void choose(QComboBox* box, const QString& text);
    void undo();
    /// Drops files on the window, as from a file manager.
    void drop(const std::vector<std::string>& paths);
    void close();
    void open(const std::string& path);
    /// What the notice bar says, or nothing.
    [[nodiscard]] std::string notice() const;

private:
    void activate();
    std::shared_ptr<Folder> folder_;
    std::unique_ptr<app::Workroom> room_;
    std::unique_ptr<app::MainWindow> window_;
};

/// With a small order open: one tee run and one decoration.
struct SmallWindow : Window {
    explicit SmallWindow(int stage);
    [[nodiscard]] int quantity(const std::string& size) const;  ///< of the run
};

}  // namespace orthema::test
