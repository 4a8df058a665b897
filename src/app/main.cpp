// Orthema, the window.
#include <QApplication>
#include <QStandardPaths>

#include <cstdio>
#include <cstdlib>

#include "app/window/main_window.h"
#include "app/widgets/theme.h"

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("orthema"));
    QApplication::setApplicationDisplayName(QStringLiteral("Orthema"));
    orthema::app::apply_theme(application);
    orthema::app::Workroom room(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation));
    orthema::app::MainWindow window(room);
    const QStringList arguments = QApplication::arguments().mid(1);
    bool only_start = false;  // for measuring: leaves once the first frame is painted
    QStringList files;
    for (const QString& a : arguments) {
        if (a == QLatin1String("--quit-when-shown")) {
            only_start = true;
        } else if (a.startsWith(QLatin1String("--"))) {
            std::fprintf(stderr, "usage: orthema [ORDER | LIST | PICTURE ...]\n");
            return 2;
        } else {
            files << a;
        }
    }
    if (only_start) QObject::connect(&window, &orthema::app::MainWindow::first_painted, &application, [] { std::_Exit(0); });
    window.show();
    if (!only_start) {
        if (!files.isEmpty()) window.bring_in(files);
        room.keeper().offer_put_aside();
    }
    return QApplication::exec();
}
