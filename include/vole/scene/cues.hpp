// What a scene does when something happens. It says so in its cues(), which is called after enter() and again when a
// saved state was restored; so what is said here is no state, and nothing here is saved.
//
//   void cues(vole::Cues& cues) override {
//     cues.when_overlap_begins("vole", "bulb", [this](vole::Stage& stage, vole::Entity, vole::Entity bulb) {
//       ++gathered_;
//       stage.remove(bulb);
//     });
//     cues.when_told("frost", [](vole::Stage& stage) { stage.leave_for("finish"); });
//     cues.every(1.5f, [](vole::Stage& stage) { drop_leaf(stage); });
//   }
#pragma once

#include <concepts>
#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/entity.hpp"
#include "vole/level/kinds.hpp"

namespace vole {

class Stage;

// The things that a cue is about: those of a kind, or all that have a tag.
struct Which {
  std::string name;
  bool is_tag = false;

  Which(const char* kind) : name(kind) {}         // NOLINT: a kind's name stands for its things
  Which(std::string_view kind) : name(kind) {}    // NOLINT
  Which(const std::string& kind) : name(kind) {}  // NOLINT
};
//   cues.when_overlap_begins("vole", vole::tagged("seed"), ...);
inline Which tagged(std::string_view tag) {
  Which which(tag);
  which.is_tag = true;
  return which;
}

class Cues {
 public:
  using OnTwo = std::function<void(Stage&, Entity, Entity)>;
  using OnThing = std::function<void(Stage&, Entity)>;
  using OnScene = std::function<void(Stage&)>;

  // `kinds` must outlive this.
  explicit Cues(const Kinds& kinds) : kinds_(&kinds) {}

  // When the bodies of two things of these kinds begin to overlap; in each tick while they do, the first included; and
  // when they no longer do. The handler gets the first kind's thing, then the other's. What was removed overlaps nothing,
  // and its overlaps end without a call. Both may be tagged(). All throw Error for an unknown kind, and for a tag that no
  // kind has.
  void when_overlap_begins(const Which& which, const Which& other, OnTwo handler) {
    add_overlap({OverlapCue::When::begins, which, other, std::move(handler)});
  }
  void while_overlapping(const Which& which, const Which& other, OnTwo handler) {
    add_overlap({OverlapCue::When::lasts, which, other, std::move(handler)});
  }
  void when_overlap_ends(const Which& which, const Which& other, OnTwo handler) {
    add_overlap({OverlapCue::When::ends, which, other, std::move(handler)});
  }

  // When a clip of a thing of this kind comes to an event: once for each time it does, after all clips have
  // moved on, so the handler may change the clip. Throws Error for an unknown kind.
  void when_event(std::string_view kind, std::string_view event, OnThing handler);

  // When a name is told: by Stage::tell, or by a timer or tween at its end. A handler is given the thing that
  // it is about, if it wants to know.
  template <class Handler>
  void when_told(std::string_view name, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&>)
      add_told(name, [handler = std::move(handler)](Stage& stage, Entity) mutable { handler(stage); });
    else
      add_told(name, std::move(handler));
  }

  // Every so many seconds of the scene, the first time when they have passed once; at most once a tick.
  void every(float seconds, OnScene handler);

  // For the steps of a tick.
  struct OverlapCue {
    enum class When { begins, lasts, ends };
    When when = When::begins;
    Which which, other;
    OnTwo handler;
  };
  struct Event {
    std::string kind, event;
    OnThing handler;
  };
  struct Name {
    std::string name;
    OnThing handler;
  };
  struct Interval {
    float seconds = 0;
    OnScene handler;
  };
  const std::vector<OverlapCue>& overlaps() const { return overlaps_; }
  const std::vector<Event>& events() const { return events_; }
  const std::vector<Name>& names() const { return names_; }
  const std::vector<Interval>& intervals() const { return intervals_; }
  // Throws Error with the nearest name when there is no when_told for this one.
  void expect_name(std::string_view name) const;

 private:
  void add_overlap(OverlapCue cue);
  void add_told(std::string_view name, OnThing handler);

  const Kinds* kinds_;
  std::vector<OverlapCue> overlaps_;
  std::vector<Event> events_;
  std::vector<Name> names_;
  std::vector<Interval> intervals_;
};

}  // namespace vole
