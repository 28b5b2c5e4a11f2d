#include "vole/base/error.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <map>

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

// Cut between two letters.
std::string shortened(const std::string& text) {
  constexpr std::size_t most = 400;
  if (text.size() <= most) return text;
  std::size_t end = most;
  while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xc0) == 0x80) --end;
  return text.substr(0, end) + "...";
}

// A file's text may hold what would move the cursor, change the title of a terminal or look like another line.
std::string printable(const std::string& text) {
  std::string out;
  for (const char c : text) {
    const auto byte = static_cast<unsigned char>(c);
    if (byte < 0x20 || byte == 0x7f)
      out += fmt::format("\\x{:02x}", byte);
    else
      out += c;
  }
  return out;
}

constexpr std::size_t most_also = 3;

std::string how_often(const Problem& problem) {
  if (problem.times < 2) return {};
  std::string text = fmt::format(" ({} times", problem.times);
  for (std::size_t i = 0; i < problem.also.size(); ++i) {
    const bool last = i + 1 == problem.also.size();
    const bool all = static_cast<std::int64_t>(problem.also.size()) + 1 == problem.times;
    text += i == 0 ? ", also at " : last && all ? " and " : ", ";
    text += fmt::format("{}:{}", problem.also[i].line, problem.also[i].column);
  }
  return text + ")";
}

bool same_place(const FilePosition& a, const FilePosition& b) {
  return a.line == b.line && a.column == b.column;
}

std::string file_of(const Problem& problem) {
  return problem.where.file ? *problem.where.file : std::string();
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
  return printable(fmt::format("{}{}{}: {}{}{}{}", where, where.empty() ? "" : ": ",
                               problem.severity == Severity::error ? "error" : "warning",
                               shortened(problem.text), problem.hint.empty() ? "" : "; ",
                               shortened(problem.hint), how_often(problem)));
}

std::string to_text(const std::error_code& code) {
  const std::error_condition known = code.default_error_condition();
  if (known.category() == std::generic_category()) return known.message();
  return fmt::format("the system's error {}", code.value());
}

Error::Error(std::vector<Problem> problems)
    : std::runtime_error(lines_of(problems)), problems_(std::move(problems)) {}

Error::Error(FilePosition where, std::string text, std::string hint)
    : Error(std::vector<Problem>{
          {std::move(where), Severity::error, std::move(text), std::move(hint), 1, {}}}) {}

Error::Error(const Error&) = default;
Error::~Error() = default;

struct Report::Causes {
  std::map<std::string, std::size_t> by_cause;  // indices of problems, by file, severity and text
  std::map<std::string, int> in_file;           // how many, by file and severity
};

Report::Report() = default;
Report::Report(Report&&) noexcept = default;
Report& Report::operator=(Report&&) noexcept = default;
Report::~Report() = default;

void Report::error(FilePosition where, std::string text, std::string hint, std::int64_t times) {
  Problem problem{std::move(where), Severity::error, std::move(text), std::move(hint), times, {}};
  const std::string file = file_of(problem);
  if (!put(std::move(problem))) throw_problems_of(file);
}

void Report::warn(FilePosition where, std::string text, std::string hint) {
  put({std::move(where), Severity::warning, std::move(text), std::move(hint), 1, {}});
}

void Report::add(const Error& error) {
  for (const Problem& problem : error.problems()) put(problem);
}

bool Report::put(Problem problem) {
  if (!found_) found_ = std::make_unique<Causes>();
  std::string file = file_of(problem);
  std::string cause = fmt::format("{}\n{}\n{}", file, static_cast<int>(problem.severity), problem.text);
  if (const auto known = found_->by_cause.find(cause); known != found_->by_cause.end()) {
    Problem& first = problems_[known->second];
    const auto here = [&](const FilePosition& place) { return same_place(place, problem.where); };
    // The very same once more, as when a file is met again by what uses it.
    if (here(first.where) || std::any_of(first.also.begin(), first.also.end(), here)) return true;
    first.times += problem.times;
    if (first.also.size() < most_also && problem.where.line > 0) first.also.push_back(problem.where);
    return true;
  }
  // Warnings take no room from errors.
  int& count = found_->in_file[fmt::format("{}\n{}", file, static_cast<int>(problem.severity))];
  if (count > most_per_file) return false;
  if (++count > most_per_file)
    problem = {FilePosition::whole_file(file),
               problem.severity,
               fmt::format("only the first {} problems of this file are listed", most_per_file),
               {},
               1,
               {}};
  found_->by_cause.emplace(std::move(cause), problems_.size());
  problems_.push_back(std::move(problem));
  return count <= most_per_file;
}

void Report::throw_problems_of(const std::string& file) const {
  std::vector<Problem> of_file;
  for (const Problem& problem : problems_)
    if (file_of(problem) == file) of_file.push_back(problem);
  throw Error(std::move(of_file));
}

bool Report::has_errors() const {
  return std::any_of(problems_.begin(), problems_.end(),
                     [](const Problem& problem) { return problem.severity == Severity::error; });
}

void Report::throw_if_errors() const {
  if (has_errors()) throw Error(problems_);
}

}  // namespace vole
