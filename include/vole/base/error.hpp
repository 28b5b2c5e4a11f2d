// What went wrong, where, and what was probably meant.
//
// A loader gathers everything it finds in a Report, then throws one Error that holds it all:
//
//   Report report;
//   report.error(toml.where(), "no clip \"rnu\" in \"vole\"", did_you_mean("rnu", clip_names));
//   report.throw_if_errors();
//
// prints: assets/vole.sheet.toml:9:8: error: no clip "rnu" in "vole"; did you mean "run"?
#pragma once

#include <cstdint>
#include <memory>
#include <stdexcept>
#include <string>
#include <string_view>
#include <system_error>
#include <vector>

#include "vole/base/file_position.hpp"

namespace vole {

enum class Severity { error, warning };

struct Problem {
  FilePosition where;
  Severity severity = Severity::error;
  std::string text;
  std::string hint;  // what was probably meant: `did you mean "run"?`; may be empty
  // The same was found so often in the file; `also` has the first few places after `where`.
  std::int64_t times = 1;
  std::vector<FilePosition> also{};
};

// "file:line:column: error: text; hint (3 times, also at 4:1 and 9:1)", on one line and of a length that a terminal can
// show: line breaks and other control characters are written as "\x0a", and a long text is cut.
std::string to_text(const Problem& problem);

// Why the system refused, in English: its own words follow its language, and on some systems are not UTF-8.
std::string to_text(const std::error_code& code);

// Thrown by loaders; what() has a line for each problem.
class Error : public std::runtime_error {
 public:
  explicit Error(std::vector<Problem> problems);
  Error(FilePosition where, std::string text, std::string hint = {});
  Error(const Error&);
  Error& operator=(const Error&) = delete;
  ~Error() override;

  const std::vector<Problem>& problems() const { return problems_; }

 private:
  std::vector<Problem> problems_;
};

// Gathers problems so that one pass over a file reports all of them: each cause once, with its first places, and at
// most 100 for a file.
class Report {
 public:
  static constexpr int most_per_file = 100;

  Report();
  Report(Report&&) noexcept;
  Report& operator=(Report&&) noexcept;
  ~Report();

  // `times` for what was found so often by the caller, first at `where`. Throws an Error with every problem of the file
  // when it has more than 100: what comes after them is not worth the time that a huge file would take.
  void error(FilePosition where, std::string text, std::string hint = {}, std::int64_t times = 1);
  // Those beyond the 100 are left out.
  void warn(FilePosition where, std::string text, std::string hint = {});
  void add(const Error& error);
  // Adds the Error that the work throws, if it does.
  template <class Work>
  void gather(const Work& work) {
    try {
      work();
    } catch (const Error& error) {
      add(error);
    }
  }

  bool has_errors() const;
  const std::vector<Problem>& problems() const { return problems_; }
  // Throws an Error with every problem so far if one of them is an error.
  void throw_if_errors() const;

 private:
  // Whether there was room for it.
  bool put(Problem problem);
  [[noreturn]] void throw_problems_of(const std::string& file) const;

  struct Causes;  // by cause and by file

  std::vector<Problem> problems_;
  std::unique_ptr<Causes> found_;  // once there is a problem
};

}  // namespace vole
