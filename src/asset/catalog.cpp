#include "vole/asset/catalog.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "vole/base/files.hpp"
#include "vole/base/names.hpp"

namespace vole {

Loading::Loading(Catalog& catalog, std::string name, std::string path)
    : catalog_(catalog), name_(std::move(name)), path_(std::move(path)) {}

void Loading::depends_on(std::string path) {
  files_.push_back({std::move(path), {}});
}

Catalog::Catalog(std::string root) : root_(std::move(root)) {}

std::string Catalog::folder_of_type(const TypeInfo& type) const {
  return type.folder == "assets" ? asset_path({}) : join_path(root_, type.folder);
}

std::string Catalog::asset_path(std::string_view file) const {
  return join_path(assets_ == "." ? root_ : join_path(root_, assets_), file);
}

std::vector<std::string> Catalog::loose_paths(const TypeInfo& type, std::string_view name) const {
  std::vector<std::string> paths;
  for (const std::string_view ending : {type.ending, type.plain_ending})
    if (!ending.empty()) paths.push_back(join_path(folder_of_type(type), fmt::format("{}{}", name, ending)));
  return paths;
}

std::string Catalog::path_of(const TypeInfo& type, std::string_view name) {
  if (name.empty() || name.starts_with('/') || name.find("..") != std::string_view::npos) return {};
  const std::vector<std::string> paths = loose_paths(type, name);
  for (const std::string& path : paths)
    if (is_listed(path)) return path;
  if (type.find_packed)
    if (std::string packed = type.find_packed(*this, name); !packed.empty()) return packed;
  for (const std::string& path : paths)
    if (file_exists(path)) return path;
  return {};
}

std::vector<std::string> Catalog::loose_names(const TypeInfo& type) const {
  std::vector<std::string> names;
  const std::string folder = folder_of_type(type);
  if (!folder_exists(folder)) return names;
  for (const std::string& file : list_files(folder)) {
    for (const std::string_view ending : {type.ending, type.plain_ending})
      if (!ending.empty() && file.ends_with(ending))
        names.push_back(file.substr(0, file.size() - ending.size()));
  }
  std::sort(names.begin(), names.end());
  names.erase(std::unique(names.begin(), names.end()), names.end());
  return names;
}

std::vector<std::string> Catalog::names(const TypeInfo& type) {
  std::vector<std::string> names = loose_names(type);
  const auto add = [&names](const std::vector<std::string>& more) {
    names.insert(names.end(), more.begin(), more.end());
  };
  if (type.packed_names) add(type.packed_names(*this));
  if (type.built_in_names) add(type.built_in_names());
  std::sort(names.begin(), names.end());
  names.erase(std::unique(names.begin(), names.end()), names.end());
  return names;
}

detail::SlotBase* Catalog::slot(const TypeInfo& type, std::string_view name, const FilePosition& asked,
                                MakeSlot make) {
  if (const auto found = by_name_.find(KeyView{type.word, name}); found != by_name_.end()) {
    if (!found->second->loaded()) found->second->bring_back();
    return found->second;
  }
  if (const auto failed = failures_.find(KeyView{type.word, name}); failed != failures_.end())
    throw Error(failed->second);
  try {
    std::string path = path_of(type, name);
    std::unique_ptr<detail::SlotBase> made = make();
    made->catalog_ = this;
    made->name_ = name;
    if (path.empty() && made->use_built_in()) {
      made->version_ = 1;
      return keep_slot(type, std::move(made));
    }
    if (path.empty()) throw_unknown(type, name, asked);
    made->path_ = std::move(path);
    made->loose_paths_ = loose_paths(type, name);
    try {
      load(*made);
    } catch (const Error& error) {
      if (remembers_failures_) failures_.emplace(Key{type.word, made->name_}, error.problems());
      throw;
    }
    return keep_slot(type, std::move(made));
  } catch (const Error& error) {
    if (detail::SlotBase* const stand_in = stand_in_slot(type, name, make, error)) return stand_in;
    throw;
  }
}

bool Catalog::is_built_in(const TypeInfo& type, std::string_view name) {
  if (!type.built_in_names) return false;
  const std::vector<std::string> names = type.built_in_names();
  return std::find(names.begin(), names.end(), name) != names.end();
}

void Catalog::throw_unknown(const TypeInfo& type, std::string_view name, const FilePosition& asked) {
  std::vector<std::string> all = names(type);
  if (type.will_do) std::erase_if(all, [&](const std::string& known) { return !type.will_do(*this, known); });
  std::string hint = did_you_mean(name, all);
  const auto same = [&](const std::string& known) { return lower_case(known) == lower_case(name); };
  if (const auto other = std::find_if(all.begin(), all.end(), same); other != all.end())
    hint = fmt::format("it is written \"{}\", and letter case counts", *other);
  if (all.empty()) hint = fmt::format("{}/ holds no file that ends in {}", type.folder, type.ending);
  throw Error(asked, fmt::format("no {} \"{}\"", type.word, name), hint);
}

detail::SlotBase* Catalog::keep_slot(const TypeInfo& type, std::unique_ptr<detail::SlotBase> made) {
  made->type_ = type.word;
  slots_.push_back(std::move(made));
  detail::SlotBase* const kept = slots_.back().get();
  return by_name_[Key{type.word, kept->name_}] = kept;
}

detail::SlotBase* Catalog::stand_in_slot(const TypeInfo& type, std::string_view name, MakeSlot make,
                                         const Error& error) {
  if (!stand_ins_) return nullptr;
  std::unique_ptr<detail::SlotBase> made = make();
  made->catalog_ = this;
  made->name_ = name;
  if (!made->use_stand_in()) return nullptr;
  made->version_ = 1;
  ++stand_ins_made_;
  made->problems_ = error.problems();
  made->loose_paths_ = loose_paths(type, name);
  for (const std::string& path : made->loose_paths_) made->watched_.push_back({path, file_stamp(path)});
  for (const Problem& problem : made->problems_)
    if (problem.where.file) made->watched_.push_back({*problem.where.file, file_stamp(*problem.where.file)});
  return keep_slot(type, std::move(made));
}

void detail::SlotBase::bring_back() {
  catalog_->load(*this);
}

void Catalog::drop_unused(const std::function<bool(std::string_view, std::string_view)>& keep) {
  // What an asset is made from comes before it, so going backwards it is free when its turn comes.
  for (auto slot = slots_.rbegin(); slot != slots_.rend(); ++slot)
    if ((*slot)->problems_.empty() && !keep((*slot)->type_, (*slot)->name_)) (*slot)->drop();
}

void Catalog::load(detail::SlotBase& slot) {
  Loading loading(*this, slot.name_, slot.path_);
  // Stamps are taken before reading: a write in between is then seen as a change.
  const std::uint64_t own_stamp = file_stamp(slot.path_);
  const auto watch = [&] {
    slot.watched_.clear();
    slot.watched_.push_back({slot.path_, own_stamp});
    for (const Loading::Dependency& file : loading.files())
      if (file.path != slot.path_)
        slot.watched_.push_back({file.path, file.stamp ? *file.stamp : file_stamp(file.path)});
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
  // A file that would go before the one that was read.
  for (const std::string& path : slot.loose_paths_) {
    if (path == slot.path_) break;
    slot.watched_.push_back({path, is_listed(path) ? file_stamp(path) : 0});
  }
  slot.problems_.clear();
  slot.reported_ = true;
  ++slot.version_;
}

bool Catalog::is_listed(const std::string& path) {
  if (!std::exchange(listed_, true)) {
    listing_.clear();
    atlases_.clear();
    constexpr std::string_view ending = ".atlas.toml";
    const std::string assets = asset_path({});
    for (const std::string& folder : {assets, join_path(root_, "levels")}) {
      if (!folder_exists(folder)) continue;
      for (const std::string& file : list_files(folder)) {
        if (file.ends_with(ending) && folder == assets)
          atlases_.push_back(file.substr(0, file.size() - ending.size()));
        listing_.insert(join_path(folder, file));
      }
    }
  }
  return listing_.find(path) != listing_.end();
}

const std::vector<std::string>& Catalog::listed_atlases() {
  is_listed({});
  return atlases_;
}

bool Catalog::reload(detail::SlotBase& slot) {
  const bool stale = std::any_of(slot.watched_.begin(), slot.watched_.end(),
                                 [](const auto& file) { return file_stamp(file.path) != file.stamp; });
  if (!stale || !slot.loaded()) return false;
  try {
    // A file of another type may have come, as a sheet file beside a picture.
    if (std::string now = slot.find_path_(*this, slot.name_); !now.empty()) slot.path_ = std::move(now);
    load(slot);
  } catch (const Error& error) {
    slot.problems_ = error.problems();
    slot.reported_ = false;
  }
  return true;
}

int Catalog::refresh(Report& report) {
  listed_ = false;
  int loaded = 0;
  // What an asset is made from mostly comes before it. Where it was changed to be made from one that comes
  // later, it has the old version of that one now and is stale still: hence more rounds, until none is.
  bool any = true;
  for (std::size_t round = 0; any && round <= slots_.size(); ++round) {
    any = false;
    // Loading one may add others at the end, which are fresh.
    for (std::size_t i = 0, count = slots_.size(); i < count; ++i) {
      if (!reload(*slots_[i])) continue;
      any = true;
      if (slots_[i]->problems_.empty()) ++loaded;
    }
  }
  for (const auto& slot : slots_)
    if (!std::exchange(slot->reported_, true)) report.add(Error(slot->problems_));
  return loaded;
}

std::vector<Problem> Catalog::broken() const {
  std::vector<Problem> problems;
  for (const auto& slot : slots_)
    problems.insert(problems.end(), slot->problems_.begin(), slot->problems_.end());
  return problems;
}

}  // namespace vole
