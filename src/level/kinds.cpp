#include "vole/level/kinds.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "derived_kinds.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"

namespace vole {

bool Kinds::has(std::string_view name) const {
  return find_named(all, name) != nullptr;
}

const TomlValue& Kinds::kind(std::string_view name, const FilePosition& asked) const {
  if (const auto* found = find_named(all, name)) return found->value;
  throw Error(asked, fmt::format("no kind \"{}\"", name), did_you_mean(name, names_of(all)));
}

std::vector<std::string> Kinds::tags() const {
  std::set<std::string> found;
  for (const auto& item : all)
    if (const TomlValue* const tags = item.value.find("tags"))
      for (const TomlValue& tag : tags->items)
        if (tag.type == TomlValue::Type::text) found.insert(tag.text);
  return {found.begin(), found.end()};
}

MeantThings meant_things(std::string_view text) {
  constexpr std::string_view word = "tagged ";
  if (!text.starts_with(word)) return {text, false};
  return {text.substr(word.size()), true};
}

void Kinds::expect_meant(const MeantThings& meant, const FilePosition& asked) const {
  if (meant.by_tag) return expect_tag(meant.name, asked);
  if (has(meant.name)) return;
  const std::vector<std::string> all_tags = tags();
  const bool is_tag = std::find(all_tags.begin(), all_tags.end(), meant.name) != all_tags.end();
  throw Error(asked, fmt::format("no kind \"{}\"", meant.name),
              is_tag ? fmt::format("what has this tag is \"tagged {}\"", meant.name)
                     : did_you_mean(meant.name, names_of(all)));
}

void Kinds::expect_tag(std::string_view tag, const FilePosition& asked) const {
  const auto has_it = [tag](const auto& item) {
    const TomlValue* const tags = item.value.find("tags");
    return tags && std::any_of(tags->items.begin(), tags->items.end(),
                               [tag](const TomlValue& written) { return written.text == tag; });
  };
  if (std::any_of(all.begin(), all.end(), has_it)) return;
  throw Error(asked, fmt::format("no kind has the tag \"{}\"", tag), did_you_mean(tag, tags()));
}

std::vector<std::string> Kinds::shapes() const {
  std::set<std::string> found;
  for (const auto& item : all)
    if (const TomlValue* const shapes = item.value.find("shapes"))
      for (const TomlValue& shape : shapes->items)
        if (const TomlValue* const name = shape.find("name"); name && name->type == TomlValue::Type::text)
          found.insert(name->text);
  return {found.begin(), found.end()};
}

void Kinds::expect_shape(std::string_view name) const {
  const std::vector<std::string> known = shapes();
  if (std::find(known.begin(), known.end(), name) != known.end()) return;
  throw Error(FilePosition{}, fmt::format("no kind has a shape \"{}\"", name), did_you_mean(name, known));
}

Kinds read_kinds(const std::string& root, const Categories& categories) {
  constexpr std::size_t most_kinds = 10'000;
  Kinds kinds;
  kinds.categories = categories;
  std::map<std::string, FilePosition> first_places;
  Report report;
  if (const std::string file = join_path(root, "kinds.toml"); file_exists(file)) kinds.files.push_back(file);
  if (const std::string folder = join_path(root, "kinds"); folder_exists(folder))
    for (const std::string& file : list_files(folder))
      if (file.ends_with(".toml")) kinds.files.push_back(join_path(folder, file));
  for (const std::string& file : kinds.files) {
    report.gather([&] {
      Named<TomlValue> read_here;
      read_value(read_toml(file), read_here, items(most_kinds), report);
      for (auto& item : read_here) {
        if (item.name == "check") continue;  // for `vole check`: see check_notes.hpp
        const auto [first, is_new] = first_places.try_emplace(item.name, item.where);
        if (!is_new)
          report.error(item.where, fmt::format("kind \"{}\" is defined twice", item.name),
                       "the first is at " + to_text(first->second));
        else if (kinds.all.size() == most_kinds)
          report.error(item.where, fmt::format("more than {} kinds in all files", most_kinds));
        else if (detail::expect(item.value, TomlValue::Type::table, "a table of components", report))
          kinds.all.push_back(std::move(item));
      }
    });
  }
  derive_kinds(kinds.all, report);
  report.throw_if_errors();
  return kinds;
}

}  // namespace vole
