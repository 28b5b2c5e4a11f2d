// Every asset of a game by its name: the path below the folder of its type, without its ending.
//
//   Catalog catalog("examples/allotment");
//   Asset<Sheet> vole = catalog.get<Sheet>("vole");     // assets/vole.sheet.toml, loaded once and shared
//   vole->clip("run");
//
// An Asset always shows the last good version: refresh() loads changed files anew, reports what is broken,
// and leaves the old version where the new one cannot be used. A sheet may also lie in an atlas (atlas.hpp);
// a file of its own goes before one that was packed.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/error.hpp"

namespace vole {

class Catalog;
template <class T>
class Asset;

// What a loader works with: the asset's name and file, and the catalog for what it needs in turn.
class Loading {
 public:
  Loading(Catalog& catalog, std::string name, std::string path)
      : catalog_(catalog), name_(std::move(name)), path_(std::move(path)) {}

  Catalog& catalog() const { return catalog_; }
  const std::string& name() const { return name_; }
  const std::string& path() const { return path_; }

  // Names a file (or folder) whose change makes this asset stale. The asset's own file need not be named.
  void depends_on(std::string path) { files_.push_back({std::move(path), {}}); }
  // Everything that another asset is made from, as it was when that one was read.
  template <class T>
  void depends_on(const Asset<T>& asset);

  // A file, and its stamp when it was read, if that is known.
  struct Dependency {
    std::string path;
    std::optional<std::uint64_t> stamp;
  };
  const std::vector<Dependency>& files() const { return files_; }

 private:
  Catalog& catalog_;
  std::string name_;
  std::string path_;
  std::vector<Dependency> files_;
};

// Specialised beside each type that a catalog can hold: `word`, `folder`, `ending`, and `load`, which throws
// Error:
//
//   static T load(Loading&);
//
// and, where the type has it, a `plain_ending` (of a file that serves when there is none with the first), and
//
//   static std::shared_ptr<const T> load_shared(Loading&);               // in place of load
//   static T stand_in(std::string_view name);                            // shown for one that cannot be had
//   static std::string find_packed(Catalog&, std::string_view name);     // the file that holds it among
//   others static std::vector<std::string> packed_names(Catalog&);
template <class T>
struct AssetType;

namespace detail {

class SlotBase {
 public:
  virtual ~SlotBase() = default;

 protected:
  friend class vole::Catalog;  // loads and reloads; nobody else writes
  friend class vole::Loading;
  virtual void load(Loading& loading) = 0;
  // Puts a stand-in in place; false when there is none for this type.
  virtual bool use_stand_in() = 0;
  virtual bool loaded() const = 0;
  // Forgets the value if nobody else holds it.
  virtual void drop() = 0;
  void bring_back();

  Catalog* catalog_ = nullptr;
  std::string_view type_;

  struct Watched {
    std::string path;
    std::uint64_t stamp = 0;
  };
  std::string name_;
  std::string path_;
  std::vector<std::string> loose_paths_;  // where a file of its own may be, the best first
  std::string (*find_path_)(Catalog&, std::string_view) = nullptr;  // where the asset is now
  std::vector<Watched> watched_;
  std::vector<Problem> problems_;  // of the newest version, when it cannot be used
  bool reported_ = true;           // these, by a refresh
  int version_ = 0;
};

template <class T>
class Slot final : public SlotBase {
 public:
  // One that was dropped is loaded again when it is looked at.
  const std::shared_ptr<const T>& value() {
    if (!value_) bring_back();
    return value_;
  }
  const std::string& name() const { return name_; }
  int version() const { return version_; }

 private:
  void load(Loading& loading) override {
    if constexpr (requires { AssetType<T>::load_shared(loading); })
      value_ = AssetType<T>::load_shared(loading);
    else
      value_ = std::make_shared<const T>(AssetType<T>::load(loading));
  }
  bool use_stand_in() override {
    if constexpr (requires { AssetType<T>::stand_in(name_); }) {
      value_ = std::make_shared<const T>(AssetType<T>::stand_in(name_));
      return true;
    } else {
      return false;
    }
  }
  bool loaded() const override { return value_ != nullptr; }
  void drop() override {
    if (value_.use_count() == 1) value_.reset();
  }

  std::shared_ptr<const T> value_;
};

}  // namespace detail

// A loaded asset. Cheap to copy; valid as long as its catalog.
template <class T>
class Asset {
 public:
  Asset() = default;

  explicit operator bool() const { return slot_ != nullptr; }
  const T& operator*() const { return *slot_->value(); }
  const T* operator->() const { return slot_->value().get(); }
  // Keeps this version alive even when a newer one is loaded.
  std::shared_ptr<const T> shared() const { return slot_->value(); }

  const std::string& name() const { return slot_->name(); }
  // Counts the versions loaded so far, from 1.
  int version() const { return slot_->version(); }

 private:
  friend class Catalog;
  friend class Loading;
  explicit Asset(detail::Slot<T>* slot) : slot_(slot) {}
  detail::Slot<T>* slot_ = nullptr;
};

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
    return !path_of(type_of<T>(), name).empty();
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
  // Forgets what nobody uses at the moment, except where `keep(word, name)` says so. What is forgotten is
  // loaded again when it is asked for or looked at.
  void drop_unused(const std::function<bool(std::string_view, std::string_view)>& keep);

  // From now on an asset that cannot be had is shown by a stand-in, where its type has one, in place of an
  // Error; what is wrong is among broken() until it is mended.
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

  // Loads anew what has changed on disk since it was loaded. Problems go to the report; the broken asset
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
  };
  template <class T>
  static constexpr TypeInfo type_of() {
    TypeInfo type{AssetType<T>::word, AssetType<T>::folder, AssetType<T>::ending, {}, nullptr, nullptr};
    if constexpr (requires { &AssetType<T>::find_packed; }) {
      type.find_packed = &AssetType<T>::find_packed;
      type.packed_names = &AssetType<T>::packed_names;
    }
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
  // What stands in for an asset that cannot be had, watched so that it is mended as soon as it can be.
  detail::SlotBase* stand_in_slot(const TypeInfo& type, std::string_view name, MakeSlot make,
                                  const Error& error);
  detail::SlotBase* keep_slot(const TypeInfo& type, std::unique_ptr<detail::SlotBase> made);
  std::vector<std::string> loose_paths(const TypeInfo& type, std::string_view name) const;
  // Empty when there is no such file.
  std::string path_of(const TypeInfo& type, std::string_view name);
  std::vector<std::string> names(const TypeInfo& type);
  std::vector<std::string> loose_names(const TypeInfo& type) const;
  std::string folder_of_type(const TypeInfo& type) const;

  std::string root_;
  std::string assets_ = "assets";
  bool stand_ins_ = false;
  int stand_ins_made_ = 0;
  // What lies in assets/ and levels/, listed once and again after a refresh: to look a name up is then no
  // question to the system. A file that came since is asked for when nothing else is found.
  bool is_listed(const std::string& path);
  bool listed_ = false;
  std::set<std::string, std::less<>> listing_;
  std::vector<std::string> atlases_;
  // In the order in which loading was completed, so what an asset is made from comes before it.
  std::vector<std::unique_ptr<detail::SlotBase>> slots_;
  std::map<Key, detail::SlotBase*, ByName> by_name_;
};

template <class T>
void Loading::depends_on(const Asset<T>& asset) {
  for (const auto& watched : asset.slot_->watched_) files_.push_back({watched.path, watched.stamp});
}

}  // namespace vole
