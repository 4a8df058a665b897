// Nesting instances and solutions as JSON (nest-instance/1, nest-solution/1; documented in docs/nesting-format.md).
#pragma once

#include <string>

#include "core/nesting/nest.h"

namespace orthema {

Result<NestProblem> nest_problem_from_json(const std::string& text);
std::string nest_solution_json(const NestProblem& problem, const NestSolution& solution);

}  // namespace orthema
