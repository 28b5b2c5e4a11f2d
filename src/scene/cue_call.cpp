#include "cue_call.hpp"

#include <fmt/core.h>

namespace vole {

std::string described_thing(const Stage& stage, Entity entity) {
  if (!entity) return "nothing";
  const std::string_view kind = stage.kind_of(entity);
  return kind.empty() ? fmt::format("thing {}", entity.index)
                      : fmt::format("the \"{}\" (thing {})", kind, entity.index);
}

void note_thrown(std::vector<Problem>& problems, const std::string& when) {
  // Of thousands of things that do the same the first are enough.
  constexpr std::size_t most = 100;
  const auto add = [&](Problem problem) {
    if (!problem.where.file && !when.empty()) problem.text = fmt::format("{}: {}", when, problem.text);
    if (problems.size() < most) problems.push_back(std::move(problem));
  };
  try {
    throw;
  } catch (const Error& error) {
    for (const Problem& problem : error.problems()) add(problem);
  } catch (const std::exception& error) {
    add({FilePosition{}, Severity::error, error.what(), ""});
  }
}

}  // namespace vole
