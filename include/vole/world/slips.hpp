// Slips of the pen among names that may also be a game's own.
#pragma once

#include <span>
#include <string>
#include <string_view>

namespace vole {

// Whether a name is so near to a known one that it can hardly be another on purpose: a single letter that is wrong, missing, too
// many or swapped with the next; in names of eight letters and more as much as did_you_mean() takes for near.
bool is_slip(std::string_view name, std::span<const std::string> known);

}  // namespace vole
