#include "vole/app/live_files.hpp"

#include "vole/base/files.hpp"
#include "vole/base/hash.hpp"

namespace vole {
namespace {

std::shared_ptr<const Controls> controls_of(const std::string& root) {
  const std::string file = join_path(root, "controls.toml");
  return std::make_shared<const Controls>(file_exists(file) ? read_controls(file) : Controls{});
}

}  // namespace

LiveFiles::LiveFiles(const Project& project)
    : catalog(project.root),
      kinds(read_kinds(project.root, project.categories)),
      controls(controls_of(project.root)),
      root_(project.root) {
  settings_stamp_ = stamp_settings();
}

void LiveFiles::watch() {
  const auto below = [this](const char* folder) { return join_path(root_, folder); };
  watch_ = watch_files({{below("assets"), below("levels"), below("kinds")}, {root_}});
}

bool LiveFiles::changes_are_due() {
  if (!watch_) return false;
  const auto now = Clock::now();
  if (watch_->changed()) {
    last_change_ = now;
    if (!first_change_) first_change_ = now;
  }
  if (!first_change_) return false;
  const bool quiet = now - *last_change_ >= std::chrono::milliseconds(40);
  const bool long_enough = now - *first_change_ >= std::chrono::milliseconds(120);
  if (!quiet && !long_enough) return false;
  first_change_.reset();
  return true;
}

std::uint64_t LiveFiles::stamp_settings() const {
  Hash hash;
  hash.add(file_stamp(join_path(root_, "controls.toml")));
  hash.add(file_stamp(join_path(root_, "kinds.toml")));
  if (const std::string folder = join_path(root_, "kinds"); folder_exists(folder))
    for (const std::string& file : list_files(folder)) hash.add(file_stamp(join_path(folder, file)));
  return hash.value();
}

LiveFiles::Refreshed LiveFiles::refresh() {
  Refreshed refreshed;
  catalog.refresh(refreshed.report);
  const std::uint64_t stamp = stamp_settings();
  if (stamp == settings_stamp_) return refreshed;
  settings_stamp_ = stamp;
  try {
    std::shared_ptr<const Controls> read = controls_of(root_);
    kinds = read_kinds(root_, kinds.categories);
    controls = std::move(read);
    settings_problems_.clear();
    refreshed.settings = true;
  } catch (const Error& error) {
    settings_problems_ = error.problems();
    refreshed.report.add(error);
  }
  return refreshed;
}

std::vector<Problem> LiveFiles::problems() const {
  std::vector<Problem> all = catalog.broken();
  all.insert(all.end(), settings_problems_.begin(), settings_problems_.end());
  return all;
}

}  // namespace vole
