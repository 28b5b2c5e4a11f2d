// Things that are attached to points of other things. In kinds.toml:
//
//   carries = { paw = "lantern" }                # point = kind; it comes to life and leaves with the thing
#pragma once

#include <string>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/vec.hpp"

namespace vole {

struct Carries {
  Named<Located<std::string>> things;  // point = kind
};
template <class V>
void describe(V& v, Carries& carries) {
  v.rest(carries.things);
}

// The thing follows a point of another one: see Stage::attach.
struct Attached {
  Entity to;
  std::string point;
  Vec2 offset{0, 0};
  bool leaves_along = false;
};
template <class V>
void describe(V& v, Attached& attached) {
  v.state("to", attached.to);
  v.state("point", attached.point);
  v.state("offset", attached.offset);
  v.state("leaves_along", attached.leaves_along);
}

// So many things may be attached one to the next; what is beyond is shown where its pose is.
inline constexpr int most_attached_in_a_row = 256;

}  // namespace vole
