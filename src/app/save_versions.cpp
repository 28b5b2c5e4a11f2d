#include "vole/app/save_versions.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <stdexcept>
#include <utility>

#include "vole/base/toml_value.hpp"

namespace vole {
namespace {

void expect_version(int version) {
  if (version < 1 || version > SaveVersions::most)
    throw std::logic_error(
        fmt::format("versions of saves are numbers from 1 to {}, and not {}", SaveVersions::most, version));
}

// The table that a path leads into, and the last name of it.
std::pair<TomlValue*, std::string_view> end_of(TomlValue& holds, std::string_view path) {
  const std::size_t point = path.rfind('.');
  if (point == std::string_view::npos) return {&holds, path};
  return {find_saved(holds, path.substr(0, point)), path.substr(point + 1)};
}

}  // namespace

void SaveVersions::are(int version) {
  expect_version(version);
  now_ = version;
}

void SaveVersions::add(int from, SaveStep step) {
  expect_version(from);
  steps_.push_back({from, std::move(step)});
}

void SaveVersions::bring_up(TomlValue& holds, int from) const {
  if (from > now_)
    throw Error(FilePosition{},
                fmt::format("a newer version of the game has written it: {}, and this one reads up to {}",
                            from, now_));
  for (int version = std::max(from, 1); version < now_; ++version)
    for (const Step& step : steps_)
      if (step.from == version) step.run(holds);
}

TomlValue* find_saved(TomlValue& holds, std::string_view path) {
  TomlValue* at = &holds;
  while (at && !path.empty()) {
    const std::size_t end = std::min(path.find('.'), path.size());
    at = at->find(path.substr(0, end));
    path.remove_prefix(std::min(end + 1, path.size()));
  }
  return at;
}

void rename_saved(TomlValue& holds, std::string_view path, std::string_view key) {
  const auto [table, last] = end_of(holds, path);
  if (!table) return;
  for (TomlValue::Entry& entry : table->entries)
    if (entry.key == last) entry.key = key;
}

void forget_saved(TomlValue& holds, std::string_view path) {
  const auto [table, last] = end_of(holds, path);
  if (!table) return;
  std::erase_if(table->entries, [name = last](const TomlValue::Entry& entry) { return entry.key == name; });
}

}  // namespace vole
