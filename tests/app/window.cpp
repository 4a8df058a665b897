#include "window.h"

#include "core/base/sanitized.h"
#include "files/order_file.h"

#include "app/window/notice_bar.h"

namespace orthema::test {

Window::Window(const Window* after) : folder_(after != nullptr ? after->folder_ : std::make_shared<Folder>()) {
    qputenv("XDG_STATE_HOME", QByteArray::fromStdString(*folder_ / "state"));
    room_ = std::make_unique<app::Workroom>(QString::fromStdString(*folder_ / "data"));
    window_ = std::make_unique<app::MainWindow>(*room_);
    window_->show();
    EXPECT_TRUE(QTest::qWaitForWindowExposed(window_.get()));
    wait();
}

const int patience_ms = sanitized ? 900000 : 120000;

Window::~Window() {
    window_.reset();
    room_.reset();
}

void Window::wait() {
    QElapsedTimer timer;
    timer.start();
    do {
        room_->stock().flush();  // counts are on the disk, and read back below
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    } while ((room_->busy() || room_->catching_up()) && timer.elapsed() < patience_ms);
    EXPECT_FALSE(room_->busy()) << "still busy after " << patience_ms / 60000 << " minutes";
    room_->stock().flush();
    QCoreApplication::processEvents();
    if (room_->busy() || room_->catching_up()) return wait();  // what was counted is worked out
}

/// After a dialog closed, a window manager would hand the keys back to the window; offscreen there is none.
void Window::activate() {
    if (QApplication::activeWindow() == window_.get()) return;
    window_->activateWindow();
    EXPECT_TRUE(QTest::qWaitForWindowActive(window_.get()));
    EXPECT_TRUE(QTest::qWaitFor([&] { return QApplication::activeWindow() == window_.get(); }));  // its keys go by this
}

void Window::go(int stage) {
    activate();
    QTest::keyClick(window_.get(), Qt::Key(Qt::Key_0 + stage), Qt::ControlModifier);
    QCoreApplication::processEvents();
    EXPECT_EQ(window_->current(), stage - 1);
}

void Window::click(QWidget* widget) {
    if (widget != nullptr) click(widget, widget->rect().center());
}

void Window::click(QWidget* widget, QPoint at, Qt::KeyboardModifiers modifiers) {
    QTest::mouseClick(widget, Qt::LeftButton, modifiers, at);
    QCoreApplication::processEvents();
}

void Window::drag(QWidget* widget, QPoint from, QPoint to, Qt::KeyboardModifiers modifiers) {
    QTest::mousePress(widget, Qt::LeftButton, modifiers, from);
    constexpr int steps = 8;
    for (int i = 1; i <= steps; ++i) {
        const QPoint at = from + (to - from) * i / steps;
        QMouseEvent move(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, modifiers);
        QApplication::sendEvent(widget, &move);
        QCoreApplication::processEvents();
    }
    QTest::mouseRelease(widget, Qt::LeftButton, modifiers, to);
    QCoreApplication::processEvents();
}

void Window::key(QWidget* widget, int key, Qt::KeyboardModifiers modifiers) {
    if (widget == window_.get()) activate();
    QTest::keyClick(widget, Qt::Key(key), modifiers);
    QCoreApplication::processEvents();
}

void Window::type(QLineEdit* field, const QString& text, Qt::KeyboardModifiers enter) {
    if (field == nullptr) return;
    click(field);
    QTest::keyClick(field, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return, enter);
    QCoreApplication::processEvents();
}

void Window::undo() {
    activate();
    QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
    QCoreApplication::processEvents();
}

void Window::drop(const std::vector<std::string>& paths) {
    QMimeData data;
    QList<QUrl> urls;
    for (const std::string& p : paths) urls << QUrl::fromLocalFile(QString::fromStdString(p));
    data.setUrls(urls);
    QDragEnterEvent enter(QPoint(600, 400), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(window_.get(), &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent drop(QPointF(600, 400), Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(window_.get(), &drop);
    wait();
}

void Window::close() {
    window_->close();
    wait();
}

void Window::open(const std::string& path) {
    room_->keeper().open(QString::fromStdString(path));
    wait();
}

std::string Window::notice() const { return window_->notices()->text().toStdString(); }

void Window::choose(QComboBox* box, const QString& text) {
    ASSERT_NE(box, nullptr);
    const int to = box->findText(text);
    ASSERT_GE(to, 0) << text.toStdString() << " is not offered";
    box->setFocus();
    while (box->currentIndex() != to) key(box, box->currentIndex() < to ? Qt::Key_Down : Qt::Key_Up);
}

SmallWindow::SmallWindow(int stage) {
    EXPECT_TRUE(save_order(data("small.orthema"), small_order(), small_art()));
    open(data("small.orthema"));
    go(stage);
}

int SmallWindow::quantity(const std::string& size) const {
    for (const SizeCount& c : counts_of(order(), {"adult-tee", "ash"}))
        if (c.size == size) return c.quantity;
    return 0;
}

}  // namespace orthema::test
