// Where the program's other parts lie: beside it as it was built, or in its own folder as it was installed.
#pragma once

#include <filesystem>
#include <string>

namespace orthema {

/// The file of that part; its bare name where it is in none of the places.
inline std::string program_part(const std::string& name) {
    std::error_code error;
    const std::filesystem::path here = std::filesystem::read_symlink("/proc/self/exe", error).parent_path();
    for (const char* place : {".", "..", "../lib/orthema", "../lib/orthema/parts", "../share/orthema"})
        if (const auto at = here / place / name; std::filesystem::exists(at, error)) return at.lexically_normal().string();
    return name;
}

}  // namespace orthema
