// Putting words into a text that has places for them, as "@TITLE@".
#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <vector>

// The text with each of the places filled; where two begin alike, the first in the list. What is put in is not looked at
// again, so that a title may be "@ID@".
inline std::string filled_in(std::string_view text,
                             const std::vector<std::pair<std::string_view, std::string_view>>& places) {
  std::string out;
  while (!text.empty()) {
    std::string_view taken = text.substr(0, 1), by = taken;
    for (const auto& [place, word] : places)
      if (text.starts_with(place)) {
        taken = place;
        by = word;
        break;
      }
    out += by;
    text.remove_prefix(taken.size());
  }
  return out;
}
