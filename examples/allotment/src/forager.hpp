// The vole that a player steers, and what it has gathered: the same in the beds and in the cellar.
#pragma once

#include <vole/vole.hpp>

#include "harvest.hpp"

class Forager {
 public:
  Forager();

  // Finds the vole and its food in the level that was loaded; what was gathered before goes on. The camera follows it.
  void enter(vole::Stage& stage, const Harvest& before = {});
  void cues(vole::Cues& cues);
  void tick(vole::Stage& stage);
  // The count of food and the time.
  void draw(vole::Drawing& drawing) const;

  vole::Entity vole() const { return vole_; }
  Harvest harvest() const { return {gathered_, planted_, time_.ticks}; }

  template <class V>
  friend void describe(V& v, Forager& forager) {
    v.state("vole", forager.vole_);
    v.state("start", forager.start_);
    v.state("gathered", forager.gathered_);
    v.state("planted", forager.planted_);
    v.state("landing", forager.landing_);
    v.state("hurt", forager.hurt_);
    v.state("was_in_air", forager.was_in_air_);
    v.state("hop", forager.hop_);
    v.state("ticks_before", forager.ticks_before_);
    v.state("time", forager.time_);
  }

 private:
  void gather(vole::Stage& stage, vole::Entity bulb);
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
  bool was_in_air_ = false;
  int hop_ = 1000;  // ticks since a bulb was gathered
  std::int64_t ticks_before_ = 0;
  GameTime time_;

  vole::Label count_{"letters", "{}/{}"};
  vole::Label clock_{"letters", "{}", {.anchor = vole::Anchor::top}};
};
