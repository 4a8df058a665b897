// Reads the loads that are kept for comparing plans over the years (bench/kite-fair.workshop).
#pragma once

#include <fstream>
#include <sstream>

#include "core/pressing/schedule.h"

namespace orthema::test {

inline Workshop kept_workshop(const std::string& path) {
    Workshop out;
    std::ifstream file(path);
    for (std::string line; std::getline(file, line);) {
        std::istringstream in(line);
        std::string word;
        std::size_t n = 0;
        in >> word;
        if (word == "pause") {
            Pause p;
            in >> p.from >> p.to;
            out.pauses.push_back(p);
        } else if (word == "press") {
            Machine m;
            in >> m.now.celsius >> m.now.pressure >> m.now.platen >> m.heat_rate >> m.cool_rate >> m.platen_seconds >> m.pressure_seconds;
            std::getline(in >> std::ws, m.name);
            out.machines.push_back(std::move(m));
        } else if (word == "task") {
            ShopTask j;
            in >> j.stage >> j.release >> j.state.celsius >> j.state.pressure >> j.state.platen >> word >> n;
            for (int machine = 0, platen = 0; n > 0 && in >> machine >> platen; --n) {
                j.machines.push_back(machine);
                j.platens.push_back(platen);
            }
            in >> word >> n;
            for (Phase p; n > 0 && in >> p.seconds >> p.hand; --n) j.phases.push_back(p);
            in >> word >> n;
            After a;
            for (double most = 0; n > 0 && in >> a.task >> a.least >> most; --n) {
                a.most = most < 0 ? std::nullopt : std::optional(most);
                j.after.push_back(a);
            }
            out.tasks.push_back(std::move(j));
        }
    }
    return out;
}

}  // namespace orthema::test
