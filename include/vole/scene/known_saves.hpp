// The saves that a game knows to be there, as its player sees them in a list: state, and their pictures, which come from it.
#pragma once

#include <memory>
#include <string_view>
#include <vector>

#include "vole/input/arrived.hpp"

namespace vole {

class Picture;

class KnownSaves {
 public:
  // Of more the newest are known; and a picture of more bytes is left out.
  static constexpr std::size_t most_slots = 100, most_picture_bytes = 32 << 10;

  const std::vector<SaveSlot>& slots() const { return slots_; }
  void put(std::vector<SaveSlot> slots);
  // nullptr for one without a picture, and for one that is none.
  const Picture* picture(std::string_view name) const;

 private:
  template <class V>
  friend void describe(V& v, KnownSaves& saves) {
    v.state("slots", saves.slots_, items(most_slots));
  }
  std::vector<SaveSlot> slots_;
  struct Shown {
    std::string text;  // that it was made from
    std::shared_ptr<const Picture> picture;
  };
  mutable std::vector<Shown> shown_;  // memory
};

}  // namespace vole
