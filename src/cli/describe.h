// A command line's own description as other things read it: completion for bash, and a man page. One source for --help and for both.
#pragma once

#include <CLI/App.hpp>
#include <string>

namespace orthema {

/// A script that completes subcommands, their options, and files where a file is asked for.
std::string bash_completion(const CLI::App& app, const std::string& program);

/// A page of section 1, in man's macros. `more` goes before SEE ALSO.
std::string man_page(const CLI::App& app, const std::string& program, const std::string& about, const std::string& more);

}  // namespace orthema
