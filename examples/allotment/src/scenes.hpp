// The scenes of the allotment.
#pragma once

#include <vole/vole.hpp>

#include "forager.hpp"
#include "harvest.hpp"
#include "wildlife.hpp"

// What the player wishes, from one run to the next.
struct Wishes {
  bool counters = true;
  bool falling_leaves = true;
};
template <class V>
void describe(V& v, Wishes& wishes) {
  v("counters", wishes.counters);
  v("falling_leaves", wishes.falling_leaves);
}

// A bulb to gather; `worth` is set in kinds.toml and can be changed for a single place in the level.
struct Bulb {
  int worth = 1;
};
template <class V>
void describe(V& v, Bulb& bulb) {
  v("worth", bulb.worth, vole::within(1, 100));
}

// Earth with a bulb in it.
enum class Earth { whole, dug };
constexpr auto enum_names(Earth) {
  return std::array<std::string_view, 2>{"whole", "dug"};
}
struct Mound {
  int scrapes = 3;  // until the bulb comes out
};
template <class V>
void describe(V& v, Mound& mound) {
  v("scrapes", mound.scrapes, vole::within(1, 100));
}

// Raises a gate, once.
struct Lever {
  vole::PlaceLink gate;
  bool pulled = false;
};
template <class V>
void describe(V& v, Lever& lever) {
  v("gate", lever.gate);
  v.state("pulled", lever.pulled);
}

class Title : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;
};
template <class V>
void describe(V&, Title&) {}  // it keeps nothing

// Where the vole begins.
struct GardenStart {
  std::string level = "beds";  // or the cellar
};
template <class V>
void describe(V& v, GardenStart& start) {
  v("level", start.level);
}

// The beds, and the root cellar below the shed, where last year's bulbs lie about and a gate is in the way.
class Garden : public vole::Scene {
 public:
  using Argument = GardenStart;

  void enter(vole::Stage& stage) override;
  void cues(vole::Cues& cues) override;
  void tick(vole::Stage& stage) override;
  void shows(vole::Shown& shown) override;

  template <class V>
  friend void describe(V& v, Garden& garden) {
    v.state("forager", garden.forager_);
    v.state("lodger_is_out", garden.lodger_is_out_);
    v.state("known_levels", garden.known_levels_);
  }

 private:
  void begin_here(vole::Stage& stage);
  void say_welcome(vole::Cues& cues);
  void say_ways(vole::Cues& cues);
  void say_cellar(vole::Cues& cues);
  void scrape(vole::Stage& stage);

  Forager forager_;
  bool lodger_is_out_ = false;
  std::vector<std::string> known_levels_;
};

// Over the garden, which stands still behind it.
struct PauseEnd {
  bool to_title = false;
};
template <class V>
void describe(V& v, PauseEnd& end) {
  v("to_title", end.to_title);
}
class Pause : public vole::Scene {
 public:
  using Result = PauseEnd;

  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;

  // For the scene that it lies over.
  static void cues_below(vole::Cues& cues);
};
template <class V>
void describe(V&, Pause&) {}

class Finish : public vole::Scene {
 public:
  using Argument = Harvest;

  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;

  template <class V>
  friend void describe(V& v, Finish& finish) {
    v.state("harvest", finish.harvest_);
  }

 private:
  Harvest harvest_;
};
