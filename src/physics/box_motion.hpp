// How a box gets on among what is solid: sliding along what it meets, flying until it lands, and walking on the ground.
#pragma once

#include "box_path.hpp"

namespace vole {

// Something that held the box, and the line over which it did.
struct Held {
  bool any = false;
  LatticeLine line;
  Met what;

  void set(const LatticeLine& by, const Met& met) { *this = {true, by, met}; }
};

struct BoxMoved {
  LatticeBox box;  // where it ended
  Held left, right, above, below;
  // The lines that held it, in the order in which they did.
  std::array<LatticeLine, 8> lines{};
  std::size_t line_count = 0;
  double rest = 0;  // of a walk, in subpixels: what is less than one
};

class BoxMotion {
 public:
  // Ground is what is at most so steep: `steepest` is the height that a slope gains on its length. Slips past corners that
  // hold it by `slip` subpixels at most.
  BoxMotion(const BoxSurroundings& around, const LatticeBox& box, double steepest = 1, std::int64_t slip = 0)
      : around_(around), steepest_(steepest), slip_(slip) {
    moved_.box = box;
  }

  // In a straight line, and along what is met.
  BoxMoved slide(LatticePoint motion);
  // The same, but what comes down on the ground walks on at the speed that it had across.
  BoxMoved fly(LatticePoint motion);
  // So many subpixels along the ground, up and down slopes; to the left below 0. Where the ground ends it goes on straight.
  BoxMoved walk(double length);

 private:
  // What is below the box, and how far it can be followed.
  struct Support {
    bool any = false;
    LatticeLine line;
    Met what;
    std::int64_t reach = 0;  // along x, in subpixels
  };

  bool is_ground(const LatticeLine& line) const;
  Support support(int direction) const;
  void consider(Support& best, const LatticeForm& form, LatticePoint origin, const Met& met,
                int direction) const;
  BoxLeg go(LatticePoint motion);
  void hold(const LatticeLine& line, const Met& what);
  LatticePoint along_held(LatticePoint rest) const;
  bool slip_past(const BoxLeg& leg, LatticePoint& rest);
  LatticePoint fly_to_ground(LatticePoint motion, bool lands);
  double walk_leg(const Support& on, double length, int direction, Support& next);
  void stand();

  const BoxSurroundings& around_;
  double steepest_;
  std::int64_t slip_;
  BoxMoved moved_;
};

}  // namespace vole
