// The least a Qt program can do: an empty QMainWindow that leaves once it is painted. Beside it the start is measured.
#include <QApplication>
#include <QMainWindow>

#include <cstdlib>

class Bare : public QMainWindow {
protected:
    void paintEvent(QPaintEvent* event) override {
        QMainWindow::paintEvent(event);
        QMetaObject::invokeMethod(
            qApp, [] { std::_Exit(0); }, Qt::QueuedConnection);
    }
};

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    Bare window;
    window.resize(1280, 800);
    window.show();
    return QApplication::exec();
}
