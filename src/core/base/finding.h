// Finding: what a stage has to say. Shown by the window, printed by the command line, carried by guides.
#pragma once

#include <map>
#include <string>
#include <vector>

namespace orthema {

enum class Severity { note, caution, stop };

/// What a finding is about, so that a click on it can lead there. Empty parts do not apply.
struct Subject {
    std::string stage;       ///< "order", "blanks", "art", "fit", "sheets", "guides"
    std::string decoration;  ///< decoration id
    std::string size;        ///< size code
    std::string style;       ///< blank style id
    std::string colour;      ///< colour name of the run
    std::string art;         ///< art id
    std::string medium;      ///< medium id
};

struct Finding {
    Severity severity = Severity::note;
    std::string code;  ///< stable, kebab-case
    Subject about;
    std::map<std::string, double> numbers;  ///< lengths in mm, shares 0..1
    std::string sentence;                   ///< one sentence that says what to do; {key} stands for a length in numbers
};

using Findings = std::vector<Finding>;

inline const char* severity_name(Severity s) {
    switch (s) {
    case Severity::note: return "note";
    case Severity::caution: return "caution";
    case Severity::stop: return "stop";
    }
    return "note";
}

/// How a stage of the work stands: the worst that is said about it.
enum class Standing { settled, look, blocked };
inline Standing standing_of(const Findings& all, const std::string& stage) {
    Standing worst = Standing::settled;
    for (const Finding& f : all) {
        if (f.about.stage != stage || f.severity == Severity::note) continue;
        if (f.severity == Severity::stop) return Standing::blocked;
        worst = Standing::look;
    }
    return worst;
}

inline bool has_stop(const Findings& all) {
    for (const Finding& f : all)
        if (f.severity == Severity::stop) return true;
    return false;
}

}  // namespace orthema
