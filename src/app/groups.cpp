#include "vole/app/groups.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "vole/asset/font.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"

namespace vole {
namespace {

template <class T>
void load(Catalog& catalog, std::string_view name, const FilePosition& where) {
  catalog.get<T>(name, where);
}

// Gathers what groups name, one group within another.
class Gatherer {
 public:
  Gatherer(const AssetGroups& groups, Catalog& catalog) : groups_(groups), catalog_(catalog) {
    for (const auto& group : groups.groups) by_name_.emplace(group.name, &group.value);
  }

  void add_group(const Located<std::string>& name) {
    const auto found = by_name_.find(name.value);
    if (found == by_name_.end())
      return report_.error(name.where, fmt::format("no group \"{}\"", name.value),
                           did_you_mean(name.value, names_of(groups_.groups)));
    if (std::find(open_.begin(), open_.end(), name.value) != open_.end())
      return report_.error(name.where, fmt::format("the group \"{}\" contains itself", name.value),
                           fmt::format("through \"{}\"", open_.back()));
    if (!seen_.insert(name.value).second) return;
    if (open_.size() >= most_nested)
      return report_.error(
          name.where, fmt::format("group \"{}\" is needed by one that is needed, and so on, more than {} "
                                  "times",
                                  name.value, most_nested - 1));
    const AssetGroup& group = *found->second;
    open_.push_back(name.value);
    for (const auto& inner : group.needs) add_group(inner);
    open_.pop_back();
    add<Picture>(group.pictures);
    add<Sheet>(group.sheets);
    add<Font>(group.fonts);
    add<Tileset>(group.tilesets);
    add<Level>(group.levels);
  }

  std::vector<WantedAsset> take() {
    report_.throw_if_errors();
    return std::move(wanted_);
  }

 private:
  template <class T>
  void add(const std::vector<Located<std::string>>& names) {
    for (const auto& written : names) {
      // Many groups may name the same; each is looked up once.
      if (!asked_.insert({AssetType<T>::word, written.value}).second) continue;
      if (!written.value.ends_with('*')) {
        add_one<T>(written.value, written.where);
        continue;
      }
      const std::string start = written.value.substr(0, written.value.size() - 1);
      const std::vector<std::string>& all = all_names<T>();
      for (auto name = std::lower_bound(all.begin(), all.end(), start);
           name != all.end() && name->starts_with(start); ++name)
        add_one<T>(*name, written.where);
    }
  }

  template <class T>
  const std::vector<std::string>& all_names() {
    const auto [names, is_new] = all_.try_emplace(AssetType<T>::word);
    if (is_new) names->second = catalog_.names<T>();
    return names->second;
  }

  template <class T>
  void add_one(const std::string& name, const FilePosition& where) {
    if (!catalog_.has<T>(name))
      return report_.error(where, fmt::format("no {} \"{}\"", AssetType<T>::word, name),
                           did_you_mean(name, all_names<T>()));
    if (taken_.insert({AssetType<T>::word, name}).second)
      wanted_.push_back({AssetType<T>::word, name, where, &load<T>});
  }

  static constexpr std::size_t most_nested = 100;

  const AssetGroups& groups_;
  std::map<std::string, const AssetGroup*, std::less<>> by_name_;
  Catalog& catalog_;
  Report report_;
  std::vector<std::string> open_;  // groups that are being added, each within the one before
  std::set<std::string> seen_;
  std::map<std::string_view, std::vector<std::string>> all_;  // names by the word of their type
  std::set<std::pair<std::string_view, std::string>> asked_;  // as groups write them
  std::set<std::pair<std::string_view, std::string>> taken_;
  std::vector<WantedAsset> wanted_;
};

}  // namespace

std::vector<WantedAsset> wanted_by_scene(const AssetGroups& groups, std::string_view scene,
                                         Catalog& catalog) {
  Gatherer gatherer(groups, catalog);
  for (const auto& item : groups.scenes)
    if (item.name == scene)
      for (const auto& group : item.value) gatherer.add_group(group);
  return gatherer.take();
}

void Preload::step() {
  if (complete()) return;
  const WantedAsset& next = wanted_[done_++];
  next.load(*catalog_, next.name, next.where);
}

void drop_unwanted(const AssetGroups& groups, const std::vector<WantedAsset>& wanted, Catalog& catalog) {
  Gatherer everything(groups, catalog);
  for (const auto& group : groups.groups) everything.add_group({group.name, group.where});
  std::set<std::pair<std::string_view, std::string_view>> named, kept;
  const std::vector<WantedAsset> all = everything.take();
  for (const WantedAsset& asset : all) named.insert({asset.type, asset.name});
  for (const WantedAsset& asset : wanted) kept.insert({asset.type, asset.name});
  catalog.drop_unused([&](std::string_view type, std::string_view name) {
    // Pictures are mostly there for a sheet and go with it; all else goes only when a group names it.
    const bool goes_along = type == AssetType<Picture>::word;
    return kept.count({type, name}) != 0 || (!goes_along && named.count({type, name}) == 0);
  });
}

}  // namespace vole
