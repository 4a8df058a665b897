#include "app/benches/bench.h"

namespace orthema::app {

void Bench::select_subject(Workroom& room, const Subject& about) {
    Selection s = room.selection();
    if (!about.decoration.empty())
        if (const Decoration* d = find_decoration(room.order(), about.decoration)) {
            s.decoration = d->id;
            s.run = d->run;
        }
    if (!about.style.empty()) {
        s.style = about.style;
        for (const RunKey& run : runs_of(room.order()))
            if (run.style == about.style && (about.colour.empty() || run.colour == about.colour) &&
                (about.lot.empty() || run.lot == about.lot) && (about.job.empty() || run.job == about.job)) {
                s.run = run;
                break;
            }
    }
    if (!about.size.empty()) s.size = about.size;
    if (!about.art.empty()) s.art = about.art;
    if (!about.medium.empty()) s.medium = about.medium;
    room.select(s);
}

}  // namespace orthema::app
