// A loaded asset, and how one is loaded. Games only use Asset; to add a type of asset, specialise AssetType.
//
//   Asset<Sheet> vole = catalog.get<Sheet>("vole");
//   vole->clip("run");                                  // always the last good version
//   std::shared_ptr<const Sheet> now = vole.shared();   // this version, also when there is a newer one
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/asset_type.hpp"
#include "vole/base/error.hpp"

namespace vole {

template <class T>
class Asset;

// What a loader works with: the asset's name and file, and the catalog for what it needs in turn.
class Loading {
 public:
  Loading(Catalog& catalog, std::string name, std::string path);

  Catalog& catalog() const { return catalog_; }
  const std::string& name() const { return name_; }
  const std::string& path() const { return path_; }

  // Names a file (or folder) whose change makes this asset stale. The asset's own file need not be named.
  void depends_on(std::string path);
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
//   static std::shared_ptr<const T> built_in(std::string_view name);     // that needs no file; nullptr for other names
//   static std::vector<std::string> built_in_names();
//   static bool will_do(Catalog&, std::string_view name);                // whether a file of this name is one, for hints
//   static std::string find_packed(Catalog&, std::string_view name);     // the file of many that holds it
//   static std::vector<std::string> packed_names(Catalog&);
// (declared in asset_type.hpp)

namespace detail {

class SlotBase {
 public:
  virtual ~SlotBase() = default;

 protected:
  friend class vole::Catalog;  // loads and reloads; nothing else writes
  friend class vole::Loading;
  virtual void load(Loading& loading) = 0;
  // Puts a stand-in in place; false when there is none for this type.
  virtual bool use_stand_in() = 0;
  // The same with what needs no file.
  virtual bool use_built_in() = 0;
  virtual bool loaded() const = 0;
  // Frees the value if nothing else uses it.
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
  bool use_built_in() override {
    if constexpr (requires { AssetType<T>::built_in(name_); }) value_ = AssetType<T>::built_in(name_);
    return value_ != nullptr;
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

template <class T>
void Loading::depends_on(const Asset<T>& asset) {
  for (const auto& watched : asset.slot_->watched_) files_.push_back({watched.path, watched.stamp});
}

}  // namespace vole
