// A part of the program that is loaded when it is first wanted.
#pragma once

#include <dlfcn.h>

#include <stdexcept>
#include <string>

#include "files/program_part.h"

namespace orthema {

/// What the module's one function leads to. A program without its module was not built or installed whole: a fault of ours, not of the
/// user.
template <class Door>
const Door& module_door(const char* file, const char* function) {
    void* module = ::dlopen(program_part(file).c_str(), RTLD_NOW | RTLD_LOCAL);
    if (module == nullptr) throw std::runtime_error(std::string("a part of the program is missing: ") + ::dlerror());
    auto* get = reinterpret_cast<const Door* (*)()>(::dlsym(module, function));
    if (get == nullptr) throw std::runtime_error(std::string("a part of the program is of another version: ") + file);
    return *get();
}

}  // namespace orthema
