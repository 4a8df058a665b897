#include "app/session/log.h"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QGuiApplication>
#include <QLocale>
#include <QMutex>
#include <QRegularExpression>
#include <QScreen>
#include <QSysInfo>

#include <map>

#include "app/session/workroom.h"

namespace orthema::app {

Q_LOGGING_CATEGORY(log_program, "orthema.program", QtInfoMsg)
Q_LOGGING_CATEGORY(log_files, "orthema.files", QtInfoMsg)
Q_LOGGING_CATEGORY(log_said, "orthema.said", QtInfoMsg)

namespace {

constexpr qint64 most_bytes = 1 << 20;
constexpr int lines_reported = 60;

QMutex guard;
QFile* log_kept = nullptr;
QtMessageHandler usual_handler = nullptr;

const char* level(QtMsgType type) {
    switch (type) {
    case QtDebugMsg: return "debug";
    case QtInfoMsg: return "info";
    case QtWarningMsg: return "warning";
    case QtCriticalMsg: return "critical";
    case QtFatalMsg: return "fatal";
    }
    return "info";
}

void take(QtMsgType type, const QMessageLogContext& context, const QString& text) {
    {
        const QMutexLocker hold(&guard);
        if (log_kept != nullptr && log_kept->isOpen()) {
            const QString line = QStringLiteral("%1 %2 %3: %4\n")
                                     .arg(QDateTime::currentDateTime().toString(Qt::ISODateWithMs), QLatin1String(level(type)),
                                          QLatin1String(context.category != nullptr ? context.category : ""), without_names(text));
            log_kept->write(line.toUtf8());
            log_kept->flush();
        }
    }
    if (usual_handler != nullptr && type != QtInfoMsg) usual_handler(type, context, text);
}

}  // namespace

void begin_log(const QString& folder) {
    const QMutexLocker hold(&guard);
    if (log_kept != nullptr) return;
    QDir().mkpath(folder);
    const QString path = folder + QStringLiteral("/orthema.log");
    if (QFileInfo(path).size() > most_bytes) {
        QFile::remove(path + QStringLiteral(".old"));
        QFile::rename(path, path + QStringLiteral(".old"));
    }
    log_kept = new QFile(path);  // until the program ends: others may log while it does
    if (!log_kept->open(QIODevice::Append | QIODevice::Text)) return;
    usual_handler = qInstallMessageHandler(take);
}

QString state_folder() {
    const QString set = qEnvironmentVariable("XDG_STATE_HOME");
    return (set.isEmpty() ? QDir::homePath() + QStringLiteral("/.local/state") : set) + QStringLiteral("/orthema");
}

QString log_file() {
    const QMutexLocker hold(&guard);
    return log_kept != nullptr && log_kept->isOpen() ? log_kept->fileName() : QString();
}

QString without_names(const QString& text) {
    static const QRegularExpression quoted(QStringLiteral("“[^”]*”?"));
    // a name in it may hold anything: all that follows goes too
    static const QRegularExpression path(QStringLiteral("(^|[\\s(:])(?:~|[a-z]+:)?/\\S[^\\n]*"));
    QString out = text;
    out.replace(quoted, QStringLiteral("“…”"));
    out.replace(path, QStringLiteral("\\1(path)"));
    return out;
}

QString report_text(Workroom& room) {
    QStringList out;
    out << QStringLiteral("Orthema %1, Qt %2").arg(QStringLiteral(ORTHEMA_VERSION), QLatin1String(qVersion()));
    out << QStringLiteral("%1, kernel %2, %3, %4")
               .arg(QSysInfo::prettyProductName(), QSysInfo::kernelVersion(), QSysInfo::currentCpuArchitecture(),
                    QGuiApplication::platformName());
    for (const QScreen* s : QGuiApplication::screens())
        out << QStringLiteral("Screen %1 × %2 at %3").arg(s->size().width()).arg(s->size().height()).arg(s->devicePixelRatio());
    out << QStringLiteral("Language %1, lengths in %2, everything at %3 %")
               .arg(QLocale().name(), room.order().unit == Unit::inch ? QStringLiteral("inches") : QStringLiteral("mm"))
               .arg(room.settings().liked().size_percent);
    const Order& o = room.order();
    out << QStringLiteral("The order: %1 lines, %2 blanks, %3 pictures, %4 designs, %5 jobs; %6 records of the shop")
               .arg(o.lines.size())
               .arg(o.styles.size())
               .arg(o.art.size())
               .arg(o.decorations.size())
               .arg(o.jobs.size())
               .arg(room.records().all().size());
    std::map<std::string, int> codes;
    for (const Finding& f : room.findings()) ++codes[f.code];
    QStringList findings;
    for (const auto& [code, n] : codes) findings << QStringLiteral("%1 × %2").arg(n).arg(QString::fromStdString(code));
    out << QStringLiteral("Findings: %1").arg(findings.isEmpty() ? QStringLiteral("none") : findings.join(QStringLiteral(", ")));
    QFile log(log_file());
    if (log.open(QIODevice::ReadOnly | QIODevice::Text)) {
        const QStringList lines = QString::fromUtf8(log.readAll()).split(QLatin1Char('\n'), Qt::SkipEmptyParts);
        out << QStringLiteral("The last of the log:");
        for (qsizetype i = std::max<qsizetype>(0, lines.size() - lines_reported); i < lines.size(); ++i) out << without_names(lines[i]);
    }
    return out.join(QLatin1Char('\n')) + QLatin1Char('\n');
}

void log_workroom(Workroom& room) {
    qCInfo(log_program, "begins: version %s, Qt %s", ORTHEMA_VERSION, qVersion());
    QObject::connect(&room.notices(), &Notices::noticed, &room, [](const Notice& notice) {
        if (notice.bad) qCWarning(log_said, "%s", qUtf8Printable(notice.text));
    });
    QObject::connect(&room.keeper(), &Keeper::lies_at, &room, [&room] {
        qCInfo(log_files, "an order of %zu lines, %zu pictures, %zu designs was opened or saved", room.order().lines.size(),
               room.order().art.size(), room.order().decorations.size());
    });
    QObject::connect(&room.exporter(), &Exporter::finished, &room, [](const QStringList& files, const QString& fault) {
        if (fault.isEmpty())
            qCInfo(log_files, "exported: %lld files", static_cast<long long>(files.size()));
        else
            qCWarning(log_files, "export: %s", qUtf8Printable(fault));
    });
}

}  // namespace orthema::app
