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
template <class V>
void describe(V&, Title&) {}  // it keeps nothing

class Beds : public vole::Scene {
 public:
  Beds();
  void enter(vole::Stage& stage) override;
  void cues(vole::Cues& cues) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;

  template <class V>
  friend void describe(V& v, Beds& beds) {
    v.state("vole", beds.vole_);
    v.state("start", beds.start_);
    v.state("gathered", beds.gathered_);
    v.state("planted", beds.planted_);
    v.state("landing", beds.landing_);
    v.state("hurt", beds.hurt_);
    v.state("door_moves", beds.door_moves_);
    v.state("lodger_is_out", beds.lodger_is_out_);
    v.state("was_in_air", beds.was_in_air_);
    v.state("hop", beds.hop_);
    v.state("time", beds.time_);
  }

 private:
  void say_welcome(vole::Cues& cues);
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
  bool door_moves_ = false;
  bool lodger_is_out_ = false;
  bool was_in_air_ = false;
  int hop_ = 1000;  // ticks since a bulb was gathered
  GameTime time_;

  vole::Label count_{"letters", "{}/{}"};
  vole::Label clock_{"letters", "{}", {.anchor = vole::Anchor::top}};
};

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
