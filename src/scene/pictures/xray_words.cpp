#include <fmt/core.h>

#include <algorithm>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/scene/pictures/xray.hpp"

namespace vole {

XrayParts XrayParts::next() const {
  if (!any()) return usual();
  const std::size_t count = enum_names(XrayPart()).size() - 1;  // but for the legend
  std::size_t part = 0;
  if (!(*this == usual()))
    while (part < count && !has(static_cast<XrayPart>(part++))) {
    }
  return part < count ? only(static_cast<XrayPart>(part)) : XrayParts();
}

XrayParts parse_xray(std::string_view words) {
  if (words.empty()) return XrayParts::usual();
  XrayParts parts;
  constexpr auto names = enum_names(XrayPart());
  while (!words.empty()) {
    const std::string_view word = words.substr(0, words.find(','));
    words.remove_prefix(std::min(word.size() + 1, words.size()));
    const auto found = std::find(names.begin(), names.end(), word);
    if (found == names.end())
      throw Error(FilePosition{}, fmt::format("xray has no part \"{}\"", word),
                  did_you_mean(word, std::vector<std::string>(names.begin(), names.end())));
    parts.set(static_cast<XrayPart>(found - names.begin()));
  }
  parts.set(XrayPart::legend);
  return parts;
}

}  // namespace vole
