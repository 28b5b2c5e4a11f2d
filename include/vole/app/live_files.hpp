// The files of a game while it runs: read at the start, watched, and read again when they change. What is broken is
// reported, and the last good version stays.
#pragma once

#include <chrono>
#include <memory>
#include <optional>

#include "vole/app/project.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/watch.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/kinds.hpp"

namespace vole {

class LiveFiles {
 public:
  // Reads controls and kinds. Throws Error.
  explicit LiveFiles(const Project& project);

  Catalog catalog;
  Kinds kinds;
  std::shared_ptr<const Controls> controls;

  // From now on changes are noticed.
  void watch();
  bool watched() const { return watch_ != nullptr; }
  // Whether something changed and has been quiet since: an editor may write a file in several steps, and more
  // changes must not put it off for long.
  bool changes_are_due();

  struct Refreshed {
    Report report;          // what is newly wrong
    bool settings = false;  // controls and kinds are new
  };
  Refreshed refresh();
  // What keeps the newest versions from use.
  std::vector<Problem> problems() const;

 private:
  using Clock = std::chrono::steady_clock;

  std::uint64_t stamp_settings() const;

  std::string root_;
  std::uint64_t settings_stamp_ = 0;  // of controls and kinds, as last looked at
  std::vector<Problem> settings_problems_;
  std::unique_ptr<FileWatch> watch_;
  std::optional<Clock::time_point> first_change_, last_change_;  // not looked at yet
};

}  // namespace vole
