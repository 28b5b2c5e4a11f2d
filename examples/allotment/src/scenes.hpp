// The three scenes of the allotment.
#pragma once

#include <vole/vole.hpp>

#include "harvest.hpp"
#include "wildlife.hpp"

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

class Title : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;
};

class Beds : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;
  void add_to(vole::Hash& hash) const override;

 private:
  void welcome(vole::Stage& stage);
  void gather(vole::Stage& stage, vole::Entity bulb);
  void scrape(vole::Stage& stage);
  void take_fright(vole::Stage& stage, vole::Entity magpie);
  void tell_facts(vole::Stage& stage);
  void notice_landing(vole::Stage& stage);
  void climb_out(vole::Stage& stage);

  vole::Entity vole_;
  vole::Vec2 start_{0, 0};
  int gathered_ = 0;
  int planted_ = 0;
  int landing_ = 0;  // ticks for which the landing is still shown
  int hurt_ = 0;     // ticks for which nothing can hurt it again
  bool welcomed_ = false;
  bool was_in_air_ = false;
  int hop_ = 1000;  // ticks since a bulb was gathered
  GameTime time_;
  vole::Label count_{"letters", "{}/{}"};
  vole::Label clock_{"letters", "{}", {.anchor = vole::Anchor::top}};
};

class Finish : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;
  void add_to(vole::Hash& hash) const override;

 private:
  Harvest harvest_;
};
