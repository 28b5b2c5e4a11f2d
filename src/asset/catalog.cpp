#include "vole/asset/catalog.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "vole/base/files.hpp"
#include "vole/base/names.hpp"

namespace vole {

Catalog::Catalog(std::string root) : root_(std::move(root)) {}

std::string Catalog::path_of(const SortInfo& sort, std::string_view name) const {
  if (name.empty() || name.find("..") != std::string_view::npos) return {};
  for (const std::string_view ending : {sort.ending, sort.plain_ending}) {
    std::string path = join_path(root_, fmt::format("{}/{}{}", sort.folder, name, ending));
    if (!ending.empty() && file_exists(path)) return path;
  }
  return {};
}

std::vector<std::string> Catalog::names(const SortInfo& sort) const {
  std::vector<std::string> names;
  const std::string folder = join_path(root_, sort.folder);
  if (!folder_exists(folder)) return names;
  for (const std::string& file : list_files(folder)) {
    for (const std::string_view ending : {sort.ending, sort.plain_ending})
      if (!ending.empty() && file.ends_with(ending))
        names.push_back(file.substr(0, file.size() - ending.size()));
  }
  std::sort(names.begin(), names.end());
  names.erase(std::unique(names.begin(), names.end()), names.end());
  return names;
}

detail::SlotBase* Catalog::slot(const SortInfo& sort, std::string_view name, const Place& asked,
                                MakeSlot make) {
  if (const auto found = by_name_.find(KeyView{sort.word, name}); found != by_name_.end())
    return found->second;
  std::string path = path_of(sort, name);
  if (path.empty()) {
    const std::vector<std::string> all = names(sort);
    std::string hint = did_you_mean(name, all);
    if (all.empty()) hint = fmt::format("{}/ holds no file that ends in {}", sort.folder, sort.ending);
    throw Error(asked, fmt::format("no {} \"{}\"", sort.word, name), hint);
  }
  std::unique_ptr<detail::SlotBase> made = make();
  made->name_ = name;
  made->path_ = std::move(path);
  load(*made);
  slots_.push_back(std::move(made));
  return by_name_[Key{sort.word, std::string(name)}] = slots_.back().get();
}

void Catalog::load(detail::SlotBase& slot) {
  Loading loading(*this, slot.name_, slot.path_);
  loading.depends_on(slot.path_);
  // Stamps are taken before reading: a write in between is then seen as a change.
  const std::uint64_t own_stamp = file_stamp(slot.path_);
  const auto watch = [&] {
    slot.watched_.clear();
    for (const std::string& path : loading.files())
      slot.watched_.push_back({path, path == slot.path_ ? own_stamp : file_stamp(path)});
  };
  try {
    slot.load(loading);
  } catch (const Error&) {
    // Still watch what was read so far, so that mending it is noticed.
    for (const detail::SlotBase::Watched& old : slot.watched_) loading.depends_on(old.path);
    watch();
    throw;
  }
  watch();
  slot.problems_.clear();
  ++slot.version_;
}

int Catalog::refresh(Report& report) {
  int loaded = 0;
  // Loading one may add others at the end, which are fresh.
  for (std::size_t i = 0, count = slots_.size(); i < count; ++i) {
    detail::SlotBase& slot = *slots_[i];
    const bool stale = std::any_of(slot.watched_.begin(), slot.watched_.end(),
                                   [](const auto& file) { return file_stamp(file.path) != file.stamp; });
    if (!stale) continue;
    try {
      load(slot);
      ++loaded;
    } catch (const Error& error) {
      slot.problems_ = error.problems();
      report.add(error);
    }
  }
  return loaded;
}

std::vector<Problem> Catalog::broken() const {
  std::vector<Problem> problems;
  for (const auto& slot : slots_)
    problems.insert(problems.end(), slot->problems_.begin(), slot->problems_.end());
  return problems;
}

}  // namespace vole
