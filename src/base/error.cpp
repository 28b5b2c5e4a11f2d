#include "vole/base/error.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace vole {
namespace {

std::string lines_of(const std::vector<Problem>& problems) {
  std::string lines;
  for (const Problem& problem : problems) {
    if (!lines.empty()) lines += '\n';
    lines += to_text(problem);
  }
  return lines;
}

}  // namespace

Place Place::whole_file(std::string_view path) {
  return {std::make_shared<const std::string>(path), 0, 0};
}

std::string to_text(const Place& place) {
  if (!place.file) return {};
  if (place.line == 0) return *place.file;
  return fmt::format("{}:{}:{}", *place.file, place.line, place.column);
}

std::string to_text(const Problem& problem) {
  const std::string place = to_text(problem.place);
  return fmt::format("{}{}{}: {}{}{}", place, place.empty() ? "" : ": ",
                     problem.severity == Severity::error ? "error" : "warning", problem.text,
                     problem.hint.empty() ? "" : "; ", problem.hint);
}

Error::Error(std::vector<Problem> problems)
    : std::runtime_error(lines_of(problems)), problems_(std::move(problems)) {}

Error::Error(Place place, std::string text, std::string hint)
    : Error(std::vector<Problem>{{std::move(place), Severity::error, std::move(text), std::move(hint)}}) {}

void Report::error(Place place, std::string text, std::string hint) {
  problems_.push_back({std::move(place), Severity::error, std::move(text), std::move(hint)});
}

void Report::warn(Place place, std::string text, std::string hint) {
  problems_.push_back({std::move(place), Severity::warning, std::move(text), std::move(hint)});
}

void Report::add(const Error& error) {
  problems_.insert(problems_.end(), error.problems().begin(), error.problems().end());
}

bool Report::has_errors() const {
  return std::any_of(problems_.begin(), problems_.end(),
                     [](const Problem& problem) { return problem.severity == Severity::error; });
}

void Report::throw_if_errors() const {
  if (has_errors()) throw Error(problems_);
}

}  // namespace vole
