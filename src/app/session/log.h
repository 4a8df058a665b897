// The log: what the program did and what went wrong, for whoever mends it; never what an order holds.
#pragma once

#include <QLoggingCategory>
#include <QString>

namespace orthema::app {

Q_DECLARE_LOGGING_CATEGORY(log_program)  ///< start, screens, settings
Q_DECLARE_LOGGING_CATEGORY(log_files)    ///< orders and exports
Q_DECLARE_LOGGING_CATEGORY(log_said)     ///< what was complained of

/// Everything that is logged goes into that file too, from `orthema.log` on; past a megabyte the old one is put aside as `….old`.
/// Which levels, QT_LOGGING_RULES says; information and worse without it. A folder that cannot be written to: the console alone.
void begin_log(const QString& folder);
/// Where the desktop keeps what a program notes of its running.
QString state_folder();
/// The file, empty where there is none.
QString log_file();

/// Without what an order holds: what stands in quotes becomes “…”, a path and what follows it “(path)”.
QString without_names(const QString& text);

class Workroom;
/// For a report of something wrong: version, system, screen, counts and the last of the log. Nothing of the order's words or files.
QString report_text(Workroom& room);
/// Notes what happens in the workroom.
void log_workroom(Workroom& room);

}  // namespace orthema::app
