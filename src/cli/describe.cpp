#include "cli/describe.h"

#include <CLI/CLI.hpp>
#include <sstream>

#include "core/base/units.h"

namespace orthema {

namespace {

std::vector<const CLI::App*> commands_of(const CLI::App& app) {
    return app.get_subcommands([](const CLI::App* c) { return !c->get_name().empty(); });
}

std::vector<std::string> words_of(const CLI::App& command) {
    std::vector<std::string> out;
    for (const CLI::Option* o : command.get_options())
        for (const std::string& name : o->get_lnames()) out.push_back("--" + name);
    return out;
}

/// What man takes for its own signs.
std::string roff(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (c == '\\') out += '\\';
        if (c == '-') out += '\\';
        out += c;
    }
    return !out.empty() && (out[0] == '.' || out[0] == '\'') ? "\\&" + out : out;
}

std::string usage(const CLI::App& command) {
    std::string out;
    for (const CLI::Option* o : command.get_options())
        if (o->get_positional()) {
            const std::string name = "\\fI" + roff(o->get_name(true)) + "\\fR";
            out += o->get_required() ? " " + name : " [" + name + "]";
        }
    for (const CLI::Option* o : command.get_options())
        if (!o->get_lnames().empty() && o->get_required()) out += " \\fB" + roff("--" + o->get_lnames()[0]) + "\\fR \\fIVALUE\\fR";
    return out;
}

void add_options(std::ostringstream& out, const CLI::App& command) {
    for (const CLI::Option* o : command.get_options()) {
        if (o->get_lnames().empty() || o->get_lnames()[0] == "help") continue;
        out << ".TP\n\\fB" << roff("--" + o->get_lnames()[0]) << "\\fR" << (o->get_type_size() > 0 ? " \\fIVALUE\\fR" : "") << "\n"
            << roff(o->get_description().empty() ? "see above" : o->get_description()) << (o->get_required() ? " (needed)" : "") << "\n";
    }
}

}  // namespace

std::string bash_completion(const CLI::App& app, const std::string& program) {
    std::string name = program;
    for (char& c : name)
        if (c == '-') c = '_';
    std::ostringstream out;
    out << "# bash completion for " << program << ", made by it\n_" << name << "() {\n"
        << "    local word=${COMP_WORDS[COMP_CWORD]}\n    local words=\"\"\n    case \"${COMP_WORDS[1]}\" in\n";
    std::vector<std::string> first;
    for (const CLI::App* c : commands_of(app)) {
        out << "        " << c->get_name() << ") words=\"" << joined(words_of(*c)) << "\" ;;\n";
        first.push_back(c->get_name());
    }
    for (const std::string& w : words_of(app)) first.push_back(w);
    out << "    esac\n    if [ \"$COMP_CWORD\" -eq 1 ]; then\n        words=\"" << joined(first);
    out << "\"\n    fi\n    if [ \"$COMP_CWORD\" -eq 1 ] || [ \"${word:0:1}\" = - ]; then\n"
        << "        mapfile -t COMPREPLY < <(compgen -W \"$words\" -- \"$word\")\n    else\n"
        << "        mapfile -t COMPREPLY < <(compgen -f -- \"$word\")\n    fi\n}\n"
        << "complete -o filenames -F _" << name << " " << program << "\n";
    return out.str();
}

std::string man_page(const CLI::App& app, const std::string& program, const std::string& about, const std::string& more) {
    std::ostringstream out;
    std::string title = program;
    for (char& c : title) c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    out << ".TH " << title << " 1 \"\" \"Orthema\" \"User Commands\"\n.SH NAME\n"
        << roff(program) << " \\- " << roff(about) << "\n.SH SYNOPSIS\n";
    const auto commands = commands_of(app);
    out << ".B " << roff(program) << "\n"
        << (commands.empty() ? usage(app) : std::string("\\fICOMMAND\\fR [\\fIOPTION\\fR...] \\fIFILE\\fR...")) << "\n";
    out << ".SH DESCRIPTION\n" << roff(app.get_description()) << "\n";
    if (!commands.empty()) {
        out << ".SH COMMANDS\n";
        for (const CLI::App* c : commands) {
            out << ".SS " << roff(c->get_name()) << usage(*c) << "\n" << roff(c->get_description()) << "\n";
            add_options(out, *c);
        }
    }
    out << ".SH OPTIONS\n";
    add_options(out, app);
    out << ".TP\n\\fB\\-\\-help\\fR\nWhat there is, of a command too.\n" << more;
    return out.str();
}

}  // namespace orthema
