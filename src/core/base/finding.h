// Finding: what a stage has to say. Shown by the window, printed by the command line, carried by guides.
#pragma once

#include <string>
#include <vector>

#include "core/base/words.h"

namespace orthema {

enum class Severity { note, caution, stop };

/// What a finding is about, so that a click on it can lead there. Empty parts do not apply.
struct Subject {
    std::string stage;       ///< key of a stage, as the table of stages has it
    std::string decoration;  ///< decoration id
    std::string size;        ///< size code
    std::string style;       ///< blank style id
    std::string colour;      ///< colour name of the run
    std::string lot;         ///< lot id; empty: the usual one
    std::string job;         ///< job id, in a gang of several
    std::string art;         ///< art id
    std::string medium;      ///< medium id
    bool operator==(const Subject&) const = default;
};

struct Finding {
    Severity severity = Severity::note;
    std::string code;  ///< stable, kebab-case
    Subject about;
    Arguments args;
    bool operator==(const Finding&) const = default;
};

using Findings = std::vector<Finding>;

/// A finding of the catalogue: severity and stage come from there.
Finding finding(const char* code, Subject about, Arguments args = {});

/// One sentence that says what to do, with lengths in `unit`.
std::string finding_text(const Finding& finding, Reading reading);
/// A figure of it by name, lengths in mm; throws where it has none of that name.
double figure_of(const Finding& finding, const std::string& name);

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

/// Findings of one kind, folded: the same said of several sizes, designs or sheets.
struct FoldedFindings {
    Severity severity = Severity::note;
    std::string stage, code;
    std::vector<std::size_t> of;  ///< places in the list they were folded from
};
/// The worst first, and within that in the order of their first.
std::vector<FoldedFindings> folded(const Findings& all);

inline void append(Findings& to, const Findings& more) { to.insert(to.end(), more.begin(), more.end()); }

}  // namespace orthema
