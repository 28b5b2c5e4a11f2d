// The scenes of the milk round, and what they hand to each other.
#pragma once

#include <array>
#include <string_view>
#include <vole/vole.hpp>

namespace milk {

namespace colours {
inline constexpr vole::Colour cream{0xf7, 0xf3, 0xe3, 0xff};
inline constexpr vole::Colour straw{0xe6, 0xc7, 0x7d, 0xff};
inline constexpr vole::Colour gold{0xed, 0xa6, 0x3f, 0xff};
inline constexpr vole::Colour rust{0xb3, 0x48, 0x5a, 0xff};
inline constexpr vole::Colour bark{0x2b, 0x1d, 0x1a, 0xff};
}  // namespace colours

// How far the morning has come.
struct Morning {
  int round = 1;
  int players = 1;
  int bottles = 3;  // that may yet be broken
  int left = 0;     // at doorsteps, so far
};
template <class V>
void describe(V& v, Morning& morning) {
  v("round", morning.round);
  v("players", morning.players);
  v("bottles", morning.bottles);
  v("left", morning.left);
}

inline constexpr int rounds = 5;

// What the player wishes, from one run to the next.
enum class Dawn { late, usual, early };
constexpr auto enum_names(Dawn) {
  return std::array<std::string_view, 3>{"late", "usual", "early"};
}
struct Wishes {
  Dawn dawn = Dawn::usual;
};
template <class V>
void describe(V& v, Wishes& wishes) {
  v("dawn", wishes.dawn);
}

class Title : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;

  template <class V>
  friend void describe(V&, Title&) {}
};

class Round : public vole::Scene {
 public:
  using Argument = Morning;

  void enter(vole::Stage& stage) override;
  void cues(vole::Cues& cues) override;
  void shows(vole::Shown& shown) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;

 private:
  void leave_bottles(vole::Stage& stage, vole::Entity step);
  void spill(vole::Stage& stage, vole::Entity milk_float);
  void ring(vole::Stage& stage, int player);
  void scare_dogs(vole::Stage& stage, vole::Vec2 from, float within, float seconds);
  float hurry() const { return seconds_left_ / seconds_; }

  Morning morning_;
  std::array<vole::Entity, 2> floats_{};
  int to_go_ = 0;
  float seconds_ = 1, seconds_left_ = 1;
  float ring_again_ = 0;  // seconds until the bell can be rung
  bool done_ = false;

  template <class V>
  friend void describe(V& v, Round& round) {
    v.state("morning", round.morning_);
    v.state("floats", round.floats_);
    v.state("to_go", round.to_go_);
    v.state("seconds", round.seconds_);
    v.state("seconds_left", round.seconds_left_);
    v.state("ring_again", round.ring_again_);
    v.state("done", round.done_);
  }
};

struct PauseEnd {
  bool to_title = false;
};
template <class V>
void describe(V& v, PauseEnd& end) {
  v("to_title", end.to_title);
}

// Over a round, which stands still; settings can be changed from here.
class Pause : public vole::Scene {
 public:
  using Result = PauseEnd;

  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;

  template <class V>
  friend void describe(V&, Pause&) {}
};

class End : public vole::Scene {
 public:
  using Argument = Morning;

  void enter(vole::Stage& stage) override;
  void tick(vole::Stage& stage) override;
  void draw(vole::Drawing& drawing) const override;

 private:
  Morning morning_;

  template <class V>
  friend void describe(V& v, End& end) {
    v.state("morning", end.morning_);
  }
};

}  // namespace milk
