#include "vole/base/state.hpp"

#include <algorithm>

#include "vole/base/error.hpp"

namespace vole {

void StateWriter::grow(std::size_t size) {
  constexpr std::size_t at_first = 4096;
  bytes_.resize(std::max({at_first, 2 * bytes_.size(), used_ + size}));
}

void StateReader::broken() {
  throw Error(FilePosition{}, "the state is broken: no program of this build writes such a one");
}

void StateReader::cut_off() {
  throw Error(FilePosition{}, "the state is cut off");
}

std::size_t StateReader::take_count() {
  std::uint32_t count = 0;
  take(&count, sizeof count);
  // No item takes less than a byte, so that a broken count cannot ask for more memory than there are bytes.
  if (count > bytes_.size() - at_) cut_off();
  return count;
}

}  // namespace vole
