// Moving a body that others stand on or are in the way of.
#pragma once

#include <vector>

#include "scene/tick.hpp"

namespace vole {

class Carrying {
 public:
  explicit Carrying(Tick& tick) : tick_(tick), solids_(tick.stage.solids()) {}
  // What was taken out of the way is put back, also when a mover has thrown.
  ~Carrying() {
    all_.clear();
    out_.clear();
  }
  Carrying(const Carrying&) = delete;
  Carrying& operator=(const Carrying&) = delete;

  // Moves a body that nothing holds, as a platform, from where it was. What stands on it is carried, with all that stands on
  // that; what is in its way is pushed. Where something would be squeezed, that is noted, it moves as far as there is room,
  // and the result is false.
  bool carry(Entity platform, Vec2 from, Vec2 to);

  // Around the move of something that is held by others: what stands on it is out of its way, and then carried. False: there
  // was no room for that, and all is where it was, but for the mover's pose.
  void before_move(Entity mover);
  bool after_move(Entity mover, Vec2 by);

 private:
  void gather_riders(Entity of);
  void gather_pushed(Entity platform, Vec2 by);
  bool is_gathered(Entity thing) const;
  void take_out_all();
  float try_to_carry(Entity platform, Vec2 from, Vec2 by);
  float move_all(Entity by);
  void settle(bool moved);
  bool stands_in_the_way(Entity thing) const;

  Tick& tick_;
  SolidThings& solids_;
  std::vector<CarriedThing>& all_ = tick_.memory.carried;
  std::vector<OutOfTheWay>& out_ = tick_.memory.out_of_the_way;
};

}  // namespace vole
