// Clips that belong together, one for each direction or each state of something. In NAME.sheet.toml:
//
//   [sets.walk]
//   directions = "four"                     # or "two", "eight": see direction.hpp
//   rows = { right = 1, down = 2, up = 3 }  # of the picture: clips of their own, "walk right" and so on
//   range = [1, 4]                          # of each row; all of it when left out
//   fps = 8                                 # this and all else as for a clip
//   missing = "mirrored"                        # left is right in a mirror; or "turn" (rotated), "error"
//
//   [sets.mood]
//   clips = { calm = "sit", cross = "stamp" }   # by anything: clips of the sheet
//
// A set is played by its name, as a clip is: see Sprite.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/base/direction.hpp"

namespace vole {

struct ClipSet {
  struct Member {
    std::string key;
    std::size_t clip = 0;  // of the sheet
    Direction direction = Direction::right;
    bool mirrored = false;
    float rotation = 0;  // degrees clockwise
  };

  std::string name;
  std::vector<Member> members;  // by direction: clockwise from the right
  bool by_direction = false;

  // The index of the member with this key, or -1.
  int find(std::string_view key) const;
  // Of a set by direction, the index of the member that faces most nearly so; the one that faces as `last`
  // does where several are as near, and where `towards` is no way at all.
  int nearest(Vec2 towards, Direction last) const;
};

}  // namespace vole
