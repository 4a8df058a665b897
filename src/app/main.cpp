// Orthema, the window.
#include <QApplication>
#include <QDir>
#include <QIcon>
#include <QScreen>
#include <QStandardPaths>

#include <unistd.h>

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <optional>
#include <string_view>

#include "app/session/log.h"
#include "app/widgets/speech.h"
#include "app/window/main_window.h"
#include "app/widgets/theme.h"

namespace {

/// Everything as large as is liked; but a screen with fewer points than the window needs (a full HD one at twice the scale) shows it at
/// a smaller scale. Only the next start can have either: the environment for that, or nothing where all is well.
std::optional<QByteArray> other_scale(double liked) {
    constexpr double wide = 1024, high = 700;
    const QScreen* screen = QGuiApplication::primaryScreen();
    if (screen == nullptr || qEnvironmentVariableIsSet("ORTHEMA_SCALED")) return std::nullopt;
    const QSize room = screen->availableGeometry().size();
    const double share = std::min(liked, std::min(room.width() / wide, room.height() / high));
    if (share == 1 || room.isEmpty()) return std::nullopt;
    bool set = false;
    const double now = qEnvironmentVariable("QT_SCALE_FACTOR").toDouble(&set);
    return QByteArray::number(std::max(0.4, (set && now > 0 ? now : 1) * share), 'f', 3);
}

constexpr int again = 64;  ///< what the window ends with where another start is to follow

/// In the surroundings that it was first started in; comes back where that fails.
void start_again(char* program, const QString& order) {
    if (qEnvironmentVariableIsSet("ORTHEMA_SCALED")) {
        qEnvironmentVariableIsEmpty("ORTHEMA_SCALED") ? qunsetenv("QT_SCALE_FACTOR")
                                                      : qputenv("QT_SCALE_FACTOR", qgetenv("ORTHEMA_SCALED"));
        qunsetenv("ORTHEMA_SCALED");
    }
    QByteArray path = order.toUtf8();
    char* arguments[] = {program, path.isEmpty() ? nullptr : path.data(), nullptr};
    ::execv("/proc/self/exe", arguments);
}

/// Until the window is closed. `order`: of the next start, where one is to follow.
int run(QApplication& application, const QString& liked_file, QString& order) {
    orthema::app::Workroom room(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation), liked_file);
    orthema::app::log_workroom(room);
    orthema::app::MainWindow window(room);
    QObject::connect(&window, &orthema::app::MainWindow::again_wanted, &application, [&](const QString& path) {
        order = path;
        QApplication::exit(again);
    });
    const QStringList arguments = QApplication::arguments().mid(1);
    bool only_start = false;  // for measuring: leaves once the first frame is painted
    QStringList files;
    for (const QString& a : arguments) {
        if (a == QLatin1String("--quit-when-shown")) {
            only_start = true;
        } else if (a.startsWith(QLatin1String("--"))) {
            std::fprintf(stderr, "usage: orthema [--version] [ORDER | LIST | PICTURE ...]\n");
            return 2;
        } else {
            files << a;
        }
    }
    if (only_start) QObject::connect(&window, &orthema::app::MainWindow::first_painted, &application, [] { std::_Exit(0); });
    window.show();
    if (!only_start) {
        if (files.isEmpty())
            window.show_desk();
        else
            window.bring_in(files);
        room.keeper().offer_put_aside();
    }
    if (QDir::currentPath() == QLatin1String("/")) QDir::setCurrent(QDir::homePath());  // where files are looked for first
    return QApplication::exec();
}

}  // namespace

int main(int argc, char** argv) {
    if (argc > 1 && std::string_view(argv[1]) == "--version") {  // needs no display
        std::printf("orthema %s\n", ORTHEMA_VERSION);
        return 0;
    }
    QApplication application(argc, argv);
    const QString liked_file =
        QStandardPaths::writableLocation(QStandardPaths::GenericConfigLocation) + QStringLiteral("/orthema/settings.ini");
    if (const auto scale = other_scale(orthema::app::Settings::size_percent(liked_file) / 100.0)) {
        qputenv("ORTHEMA_SCALED", qgetenv("QT_SCALE_FACTOR"));  // what it was; may be nothing
        qputenv("QT_SCALE_FACTOR", *scale);
        ::execv("/proc/self/exe", argv);  // where that fails the window is shown as large as it is
    }
    QApplication::setApplicationName(QStringLiteral("orthema"));
    QApplication::setApplicationDisplayName(QStringLiteral("Orthema"));
    QGuiApplication::setDesktopFileName(QStringLiteral("org.orthema.Orthema"));
    QGuiApplication::setWindowIcon(QIcon(QStringLiteral(":/icons/orthema.png")));
    orthema::app::begin_log(orthema::app::state_folder());
    orthema::app::speak(orthema::app::Settings::language(liked_file));
    orthema::app::apply_theme(application);
    QString order;
    const int ended = run(application, liked_file, order);
    if (ended == again) start_again(argv[0], order);
    return ended == again ? 0 : ended;
}
