// Every asset of a game by its name: the path below the folder of its type, without its ending.
//
//   Catalog catalog("examples/allotment");
//   Asset<Sheet> vole = catalog.get<Sheet>("vole");     // assets/vole.sheet.toml, loaded once and shared
//   vole->clip("run");
//
// An Asset always shows the last good version: refresh() reloads changed files, reports what is broken,
// and keeps the old version where the new one cannot be used. A sheet may also lie in an atlas (atlas.hpp);
// a file of its own wins over a packed one.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/asset.hpp"

namespace vole {

class Catalog {
 public:
  // `root` is the game's folder, the one that holds assets/ and levels/.
  explicit Catalog(std::string root);
  Catalog(const Catalog&) = delete;
  Catalog& operator=(const Catalog&) = delete;

  const std::string& root() const { return root_; }
  // Another folder below the root in place of assets/; "." for the root itself. Before anything is loaded.
  void set_assets_folder(std::string folder) { assets_ = std::move(folder); }
  // The path of a file below assets/.
  std::string asset_path(std::string_view file) const;

  // Loads the asset on first use. Throws Error: for an unknown name at `asked` (the place that names it),
  // with the nearest known name; for a broken file with every problem in it.
  template <class T>
  Asset<T> get(std::string_view name, const FilePosition& asked = {}) {
    const MakeSlot make = [] {
      std::unique_ptr<detail::SlotBase> slot(new detail::Slot<T>);
      slot->find_path_ = [](Catalog& catalog, std::string_view of) {
        return catalog.path_of(type_of<T>(), of);
      };
      return slot;
    };
    return Asset<T>(static_cast<detail::Slot<T>*>(slot(type_of<T>(), name, asked, make)));
  }

  template <class T>
  bool has(std::string_view name) {
    return !path_of(type_of<T>(), name).empty() || is_built_in(type_of<T>(), name);
  }

  // The names of all assets of a type, sorted.
  template <class T>
  std::vector<std::string> names() {
    return names(type_of<T>());
  }
  // Those that have a file of their own.
  template <class T>
  std::vector<std::string> loose_names() const {
    return loose_names(type_of<T>());
  }

  // The names of all atlases, looked up once and again after a refresh.
  const std::vector<std::string>& listed_atlases();

  template <class T>
  bool is_loaded(std::string_view name) const {
    const auto found = by_name_.find(KeyView{AssetType<T>::word, name});
    return found != by_name_.end() && found->second->loaded();
  }
  // Frees what is not in use, except where `keep(word, name)` says so. What was freed is loaded again when it
  // is asked for or used.
  void drop_unused(const std::function<bool(std::string_view, std::string_view)>& keep);

  // From now on an asset that could not be loaded is not tried again, but gives the same Error: for one pass over files
  // that stay as they are.
  void remember_failures() { remembers_failures_ = true; }

  // From now on an asset that cannot be had is shown by a stand-in, where its type has one, in place of an
  // Error; what is wrong is among broken() until it is fixed.
  void use_stand_ins() { stand_ins_ = true; }
  // How many were made so far.
  int stand_ins_made() const { return stand_ins_made_; }

  // The files that an asset was made from.
  template <class T>
  std::vector<std::string> files_of(const Asset<T>& asset) const {
    std::vector<std::string> files;
    for (const auto& watched : asset.slot_->watched_) files.push_back(watched.path);
    return files;
  }

  // Reloads what has changed on disk since it was loaded. Problems go to the report; the broken asset
  // keeps its last good version and is tried again when its files change once more. Returns how many were
  // reloaded.
  int refresh(Report& report);
  // What keeps broken assets from being reloaded, as of the last refresh.
  std::vector<Problem> broken() const;

 private:
  struct TypeInfo {
    std::string_view word;
    std::string_view folder;
    std::string_view ending;
    std::string_view plain_ending;  // empty: none
    std::string (*find_packed)(Catalog&, std::string_view) = nullptr;
    std::vector<std::string> (*packed_names)(Catalog&) = nullptr;
    std::vector<std::string> (*built_in_names)() = nullptr;
    bool (*will_do)(Catalog&, std::string_view) = nullptr;
  };
  template <class T>
  static constexpr TypeInfo type_of() {
    TypeInfo type{AssetType<T>::word,
                  AssetType<T>::folder,
                  AssetType<T>::ending,
                  {},
                  nullptr,
                  nullptr,
                  nullptr,
                  nullptr};
    if constexpr (requires { &AssetType<T>::find_packed; }) {
      type.find_packed = &AssetType<T>::find_packed;
      type.packed_names = &AssetType<T>::packed_names;
    }
    if constexpr (requires { &AssetType<T>::built_in_names; })
      type.built_in_names = &AssetType<T>::built_in_names;
    if constexpr (requires { &AssetType<T>::will_do; }) type.will_do = &AssetType<T>::will_do;
    if constexpr (requires { AssetType<T>::plain_ending; }) type.plain_ending = AssetType<T>::plain_ending;
    return type;
  }
  using MakeSlot = std::unique_ptr<detail::SlotBase> (*)();

  struct Key {
    std::string_view type;  // its word, which is never freed
    std::string name;
  };
  struct KeyView {
    std::string_view type;
    std::string_view name;
  };
  // Finds a key by views, so that looking an asset up allocates nothing.
  struct ByName {
    using is_transparent = void;
    template <class A, class B>
    bool operator()(const A& a, const B& b) const {
      const int sorts = a.type.compare(b.type);
      return sorts != 0 ? sorts < 0 : std::string_view(a.name) < std::string_view(b.name);
    }
  };

  detail::SlotBase* slot(const TypeInfo& type, std::string_view name, const FilePosition& asked,
                         MakeSlot make);
  friend class detail::SlotBase;
  void load(detail::SlotBase& slot);
  // Loads it again when one of its files has changed; false when none has.
  bool reload(detail::SlotBase& slot);
  // The stand-in for an asset that cannot be had; watched, so that it is replaced as soon as possible.
  detail::SlotBase* stand_in_slot(const TypeInfo& type, std::string_view name, MakeSlot make,
                                  const Error& error);
  detail::SlotBase* keep_slot(const TypeInfo& type, std::unique_ptr<detail::SlotBase> made);
  std::vector<std::string> loose_paths(const TypeInfo& type, std::string_view name) const;
  // Empty when there is no such file.
  std::string path_of(const TypeInfo& type, std::string_view name);
  std::vector<std::string> names(const TypeInfo& type);
  static bool is_built_in(const TypeInfo& type, std::string_view name);
  [[noreturn]] void throw_unknown(const TypeInfo& type, std::string_view name, const FilePosition& asked);
  std::vector<std::string> loose_names(const TypeInfo& type) const;
  std::string folder_of_type(const TypeInfo& type) const;

  std::string root_;
  std::string assets_ = "assets";
  bool stand_ins_ = false;
  int stand_ins_made_ = 0;
  // The files in assets/ and levels/, listed once and again after a refresh, so that looking up a name makes no
  // system call. A file that was added since is looked for when nothing else is found.
  bool is_listed(const std::string& path);
  bool listed_ = false;
  std::set<std::string, std::less<>> listing_;
  std::vector<std::string> atlases_;
  // In the order in which loading was completed, so what an asset is made from comes before it.
  std::vector<std::unique_ptr<detail::SlotBase>> slots_;
  std::map<Key, detail::SlotBase*, ByName> by_name_;
  bool remembers_failures_ = false;
  std::map<Key, std::vector<Problem>, ByName> failures_;
};

}  // namespace vole
