// All that can be looked up in a window, gathered when it is asked for.
#pragma once

#include "app/session/workroom.h"
#include "app/window/look_up.h"

class QWidget;

namespace orthema::app {

/// The way to what was found.
struct Ways {
    std::function<void(const QString& stage, QWidget* part)> part;       ///< to a field or button of it, on whatever page it stands
    std::function<void(const QString& stage, const Subject& about)> at;  ///< to a bench, with that chosen
    std::function<void(int place)> finding;
    std::function<void(const QString& path)> open;
};

/// Fields and buttons of a bench or its figures, whether their page is shown or not.
void add_parts(std::vector<Known>& to, const QString& stage, QWidget* of, const Ways& ways);

/// What is in the order: designs, sizes, persons, art, blanks, media, jobs and findings; and the orders of late.
void add_order(std::vector<Known>& to, Workroom& room, const Ways& ways);

/// A stage as people call it, by its key; other keys stay.
QString stage_name(const QString& key);

/// Shows a part of a bench that stands on a page that is not shown: its rows of choices are tried. False where no page has it now.
bool bring_to_light(QWidget* part, const std::vector<QWidget*>& within);

}  // namespace orthema::app
