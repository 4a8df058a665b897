// The typefaces of this computer, for letterings: one that is taken goes into the order, so that it reads the same elsewhere.
#pragma once

#include <string>
#include <vector>

namespace orthema::app {

struct SystemFace {
    std::string name;  ///< "Family Bold"
    std::string path;
};

/// Upright faces in files of their own that a lettering can be set in (TTF, OTF), by name, each once.
std::vector<SystemFace> system_faces();

}  // namespace orthema::app
