// The vole that a player steers, and what it has gathered: in the beds and in the cellar.
#pragma once

#include <vole/vole.hpp>

#include "harvest.hpp"

class Forager {
 public:
  // Finds the vole in the level, and brings the camera to it.
  void enter(vole::Stage& stage);
  // Adds the food in the level to what there is to gather.
  void count_food(const vole::Stage& stage);
  // From where the vole is now it begins again, when it falls.
  void begin_here(const vole::Stage& stage);
  void cues(vole::Cues& cues);
  void tick(vole::Stage& stage);
  // The count of food and the time.
  // `counters`: whether they are to be seen.
  void shows(vole::Shown& shown, const bool& counters) const;

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
  GameTime time_;
};
