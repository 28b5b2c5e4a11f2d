// A few values by their keys; the one that was asked for longest ago makes room for another.
#pragma once

#include <algorithm>
#include <cstddef>
#include <list>
#include <utility>

namespace vole {

template <class Key, class Value>
class RecentlyUsed {
 public:
  explicit RecentlyUsed(std::size_t most) : most_(most) {}

  void clear() { all_.clear(); }
  // What is known by a key; made by `make()` where it is not.
  template <class Make>
  Value& get(const Key& key, const Make& make) {
    const auto found =
        std::find_if(all_.begin(), all_.end(), [&key](const auto& known) { return known.first == key; });
    if (found != all_.end()) {
      all_.splice(all_.begin(), all_, found);
      return all_.front().second;
    }
    if (all_.size() >= most_) all_.pop_back();
    return all_.emplace_front(key, make()).second;
  }

 private:
  std::size_t most_;
  std::list<std::pair<Key, Value>> all_;  // what was asked for last comes first
};

}  // namespace vole
