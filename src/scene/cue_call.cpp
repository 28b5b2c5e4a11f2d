#include "cue_call.hpp"

#include <fmt/core.h>

namespace vole {

std::string described_thing(const Stage& stage, Entity entity) {
  if (!entity) return "nothing";
  const std::string_view kind = stage.kind_of(entity);
  return kind.empty() ? fmt::format("thing {}", entity.index)
                      : fmt::format("the \"{}\" (thing {})", kind, entity.index);
}

void rethrow_with(const std::string& when) {
  try {
    throw;
  } catch (const Error& error) {
    std::vector<Problem> problems = error.problems();
    for (Problem& problem : problems)
      if (!problem.where.file) problem.text = fmt::format("{}: {}", when, problem.text);
    throw Error(std::move(problems));
  } catch (const std::exception& error) {
    throw Error(FilePosition{}, fmt::format("{}: {}", when, error.what()));
  }
}

}  // namespace vole
