// The scenes of a run as they lie over one another: opened, covered, uncovered, left; each with its ticks and its input; drawn one over
// the other, and saved as a whole.
//
//   ScenePile pile(setting, steps);
//   pile.begin(scenes.get("beds"), argument, seed);
//   pile.tick(input);
//   if (pile.change()) pile.make_change(seed);
//
// While a transition lasts, the scenes of before it are kept to be drawn.
#pragma once

#include <array>
#include <deque>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "vole/scene/running_scene.hpp"

namespace vole {

// A transition under way.
struct PassingTransition {
  Transition transition;
  std::int64_t ticks = 0;  // of it that are over
};
template <class V>
void describe(V& v, PassingTransition& passing) {
  v.state("transition", passing.transition);
  v.state("ticks", passing.ticks, within(0, most_ticks));
}

class ScenePile {
 public:
  // Until a transition is over, a scene that comes is drawn as what is after it, and one that leaves as what was before.
  enum class Role : std::uint8_t { there, coming, leaving };
  // Which scenes are drawn: those of before a transition, or of after it. Without a transition both are the same.
  enum class Side : std::uint8_t { before, after };

  // The steps must outlive this.
  ScenePile(const StageSetting& setting, const TickSteps& steps);
  ScenePile(const ScenePile&) = delete;
  ScenePile& operator=(const ScenePile&) = delete;

  // The first scene: Scene::enter is called. Throws what that throws, and then there is none.
  void begin(const SceneType& type, SceneArgument argument, std::uint64_t seed);
  // What a scene has asked for, when its time has come: the lowest that asks; nullptr when nothing is due.
  const SceneChange* change() const;
  // Where in the pile that scene is.
  std::size_t asking() const;
  // Does it; `seed` is for the scene that comes, where one does. Throws what a scene throws; then nothing is as it should be, and a state
  // that was kept before must be read.
  void make_change(std::uint64_t seed);
  // Nothing is asked for any more.
  void forget_changes();

  void tick(const TickInput& input);

  bool empty() const { return scenes_.empty(); }
  // The uppermost, which has the input.
  RunningScene& top() const { return *scenes_[top_index()].running; }
  std::size_t size() const { return scenes_.size(); }
  // From below.
  RunningScene& at(std::size_t index) const { return *scenes_[index].running; }
  // Whether it was left, and is drawn yet.
  bool is_left(std::size_t index) const {
    return scenes_[index].seen || scenes_[index].role == Role::leaving;
  }
  // Names of the scenes that will be there when the transition is over, from below.
  std::vector<std::string> names() const;

  // nullptr when none is under way.
  const Transition* transition() const { return passing_ ? &passing_->transition : nullptr; }
  // How much of it is over, eased; `share` is that of the tick under way.
  float transition_share(float share) const;

  void draw(DrawList& list, float share, XrayParts xray = {}, Side side = Side::after);
  // Behind everything.
  Colour sky(Side side = Side::after) const;

  Outbox take_outbox();
  void use(const std::shared_ptr<const Controls>& controls);

  void write(StateWriter& out) const;
  // Of the transition, and of the scenes.
  std::string transition_toml() const;
  std::string to_toml() const;
  // Scenes that were read, and are not in place yet: so what is wrong with them changes nothing.
  struct Scenes;
  std::shared_ptr<Scenes> read(StateReader& in);
  std::shared_ptr<Scenes> from_toml(const TomlValue& toml, Report& report);
  // Finds what their states name. Throws Error.
  static void bind(Scenes& scenes);
  void put(Scenes& scenes) noexcept;

 private:
  struct Piled {
    std::unique_ptr<RunningScene> running;
    Role role = Role::there;
    bool seen =
        false;  // it was left, and its last moment is still drawn: it has no ticks, and goes with the one over it
    std::size_t place = 0;  // of its setting
  };
  struct PiledHead;
  template <class V>
  friend void describe(V& v, PiledHead& head);

  // `among`: the scenes whose settings are in use.
  Piled make(const SceneType& type, SceneArgument argument, std::uint64_t seed, Role role,
             const std::vector<Piled>& among);
  std::size_t top_index() const;
  // The nearest below that is there; none: the length of the pile.
  std::size_t below(std::size_t index) const;
  void expect_known(const Transition& transition) const;
  void open(std::size_t over, const SceneChange& change, std::uint64_t seed);
  void leave(std::size_t index, const SceneChange& change, std::uint64_t seed);
  void close(std::size_t index, const SceneChange& change);
  void go(std::size_t index, const SceneChange& change);
  void keep_last_moment(std::size_t index);
  // Tells a scene, and those over it, that they end.
  void end_from(std::size_t index, bool stays_seen);
  bool make_room_over(std::size_t index);
  void come(const SceneChange& change, std::uint64_t seed);
  bool goes_on(std::size_t index) const;
  bool lets_through(std::size_t index, std::string_view name) const;
  const TickInput& heard(std::size_t index, const TickInput& input);
  bool is_drawn(std::size_t index, Side side) const;
  std::size_t lowest_drawn(Side side) const;
  std::int64_t length() const;
  void lay();
  void end_transition();
  void remove_leaving();

  StageSetting base_;
  const TickSteps& steps_;
  std::deque<StageSetting> settings_;  // of each scene, with what is kept for its pictures
  std::vector<Piled> scenes_;
  std::optional<PassingTransition> passing_;
  Outbox outbox_;    // of scenes that are gone
  TickInput heard_;  // memory
};
constexpr auto enum_names(ScenePile::Role) {
  return std::array<std::string_view, 3>{"there", "coming", "leaving"};
}

}  // namespace vole
