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

FilePosition FilePosition::whole_file(std::string_view path) {
  return {std::make_shared<const std::string>(path), 0, 0};
}

std::string to_text(const FilePosition& where) {
  if (!where.file) return {};
  if (where.line == 0) return *where.file;
  return fmt::format("{}:{}:{}", *where.file, where.line, where.column);
}

std::string to_text(const Problem& problem) {
  const std::string where = to_text(problem.where);
  return fmt::format("{}{}{}: {}{}{}", where, where.empty() ? "" : ": ",
                     problem.severity == Severity::error ? "error" : "warning", problem.text,
                     problem.hint.empty() ? "" : "; ", problem.hint);
}

Error::Error(std::vector<Problem> problems)
    : std::runtime_error(lines_of(problems)), problems_(std::move(problems)) {}

Error::Error(FilePosition where, std::string text, std::string hint)
    : Error(std::vector<Problem>{{std::move(where), Severity::error, std::move(text), std::move(hint)}}) {}

void Report::error(FilePosition where, std::string text, std::string hint) {
  problems_.push_back({std::move(where), Severity::error, std::move(text), std::move(hint)});
}

void Report::warn(FilePosition where, std::string text, std::string hint) {
  problems_.push_back({std::move(where), Severity::warning, std::move(text), std::move(hint)});
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
