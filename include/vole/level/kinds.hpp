// Kinds: what things are made of, as their components are written in kinds.toml (and kinds/*.toml):
//
//   [bulb]
//   sprite = { sheet = "bulb", layer = "things" }
//   body = { size = [8, 8] }
//
//   [onion]
//   from = "bulb"                # what it says itself goes over that: tables key by key, all else is replaced,
//   sprite = { clip = "onion" }  # lists too
//   without = ["body"]           # and these it does not have
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/level/categories.hpp"

namespace vole {

// What is written of a kind beside its components: how it is made from another.
struct KindHead {
  std::optional<Located<std::string>> from;
  std::vector<Located<std::string>> without;  // components of that which it does not have
};
template <class V>
void describe(V& v, KindHead& head) {
  v("from", head.from);
  v("without", head.without, items(256));
}
// Whether a key of a kind is no component.
bool is_in_head(std::string_view key);

// The things that a text is about: "crow", those of a kind; or "tagged seed", those that have a tag.
struct MeantThings {
  std::string_view name;
  bool by_tag = false;
};
MeantThings meant_things(std::string_view text);

struct Kinds {
  Named<TomlValue> all;
  std::vector<std::string> files;  // that were read
  Categories categories;           // that their bodies may be of

  // The components of a kind as a table; throws Error at `asked` with the nearest name.
  const TomlValue& kind(std::string_view name, const FilePosition& asked = {}) const;
  bool has(std::string_view name) const;
  // The tags that kinds have, each once, sorted.
  std::vector<std::string> tags() const;
  // Throws Error, with the nearest, when no kind has the tag.
  void expect_tag(std::string_view tag, const FilePosition& asked = {}) const;
  // Throws Error at `asked`, with the nearest, when no kind is named so, or no kind has the tag.
  void expect_meant(const MeantThings& meant, const FilePosition& asked = {}) const;
  // The same for the names of their shapes.
  std::vector<std::string> shapes() const;
  void expect_shape(std::string_view name) const;
};

// Reads kinds.toml and kinds/*.toml of a game's folder; a game may have neither. Throws Error, also for a
// kind that is defined twice, and for kinds that are made from each other in a ring.
Kinds read_kinds(const std::string& root, const Categories& categories = {});

}  // namespace vole
