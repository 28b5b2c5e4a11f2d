// What a scene does when something happens. It says so in its cues(), which is called after enter() and again when a
// saved state was restored; so what is said here is no state, and nothing here is saved.
//
//   void cues(vole::Cues& cues) override {
//     cues.when_meet("vole", "bulb", [this](vole::Stage& stage, vole::Entity, vole::Entity bulb) {
//       ++gathered_;
//       stage.remove(bulb);
//     });
//     cues.when_told("frost", [](vole::Stage& stage) { stage.leave_for("finish"); });
//     cues.every(1.5f, [](vole::Stage& stage) { drop_leaf(stage); });
//   }
#pragma once

#include <concepts>
#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/vec.hpp"
#include "vole/scene/thing_selector.hpp"
#include "vole/scene/type_mark.hpp"
#include "vole/scene/values.hpp"
#include "vole/scene/watched.hpp"

namespace vole {

class Stage;
struct Kinds;
struct SaveAnswer;

// How two things met: what a cue is told that asks for it.
struct Meeting {
  Vec2 normal{0, 0};  // of length 1, from the second thing towards the first
  Vec2 point{0, 0};   // where they touch, or are deepest in each other
  float speed = 0;    // pixels a second at which they came together along the normal; below 0: they go apart
  // Which of their shapes met, by their places in the lists of `shapes`.
  std::uint32_t shape = 0, other_shape = 0;
};

// How a thing met tiles: the first that it came to.
struct TileMeeting {
  IVec2 cell{0, 0};
  Vec2 normal{0, 0};  // of length 1, from the tile towards the thing
  Vec2 point{0, 0};
  float speed = 0;  // pixels a second at which it came, along the normal
};

namespace detail {

// For the message of a handler that does not compile: false for every type, but only once it is known.
template <class>
inline constexpr bool fits_no_cue = false;

// What a handler is given besides the stage: the struct that a scene hands back; void for nothing.
template <class Call>
struct HandedTo {
  using Type = void;
};
template <class Handler, class Handed>
struct HandedTo<void (Handler::*)(Stage&, Handed)> {
  using Type = std::remove_cvref_t<Handed>;
};
template <class Handler, class Handed>
struct HandedTo<void (Handler::*)(Stage&, Handed) const> : HandedTo<void (Handler::*)(Stage&, Handed)> {};

}  // namespace detail

class Cues {
 public:
  using OnTwo = std::function<void(Stage&, Entity, Entity)>;
  using OnMeeting = std::function<void(Stage&, Entity, Entity, const Meeting&)>;
  using OnTile = std::function<void(Stage&, Entity, const TileMeeting&)>;
  using OnThing = std::function<void(Stage&, Entity)>;
  using OnScene = std::function<void(Stage&)>;

  // `kinds` must outlive this.
  explicit Cues(const Kinds& kinds, const Values* values = nullptr);

  // When the bodies of two things meet: they overlap, or touch where they hold each other, at some moment of the tick; in
  // each tick while they do, the first included; and when they part. The handler gets the first one's thing, then the
  // other's, and a Meeting if it asks for one. They part also when one of them is removed or switched off: then that one is
  // still there to be asked. All throw Error for a kind, tag, category or shape that
  // is not there.
  template <class Handler>
  void when_meet(const ThingSelector& which, const ThingSelector& other, Handler handler) {
    add_meeting(MeetingCue::When::begins, which, other, std::move(handler));
  }
  template <class Handler>
  void while_touching(const ThingSelector& which, const ThingSelector& other, Handler handler) {
    add_meeting(MeetingCue::When::lasts, which, other, std::move(handler));
  }
  // The same for tiles of the level: what a thing's category notices of them. It meets them once, until it touches none of them.
  template <class Handler>
  void when_meet(const ThingSelector& which, const TileSelector& tiles, Handler handler) {
    add_tiles(TileCue::When::begins, which, tiles, std::move(handler));
  }
  template <class Handler>
  void while_touching(const ThingSelector& which, const TileSelector& tiles, Handler handler) {
    add_tiles(TileCue::When::lasts, which, tiles, std::move(handler));
  }
  template <class Handler>
  void when_part(const ThingSelector& which, const ThingSelector& other, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&, Entity, Entity>)
      add_parting(which, other, std::move(handler));
    else
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_part takes (vole::Stage&, vole::Entity, vole::Entity)");
  }

  // When a platform would squeeze a thing against something solid, once until it has room again: the platform waits.
  template <class Handler>
  void when_squeezed(const ThingSelector& which, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&, Entity, Entity>)
      add_squeezed(which, std::move(handler));
    else
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_squeezed takes (vole::Stage&, vole::Entity, vole::Entity)");
  }

  // When an action is pressed while the pointer is on such a thing, and it is the uppermost there (Stage::under_pointer). Needs
  // pointer = true in controls.toml.
  //   cues.when_clicked("seed", "select", [](vole::Stage& stage, vole::Entity seed) { stage.remove(seed); });
  template <class Handler>
  void when_clicked(const ThingSelector& which, std::string_view action, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&, Entity>)
      add_clicked(which, action, std::move(handler));
    else
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_clicked takes (vole::Stage&, vole::Entity)");
  }
  // Such a thing goes where the pointer goes, from when the action is pressed on it until it is let go. Then the handler is
  // called, where there is one.
  void drag(const ThingSelector& which, std::string_view action, OnThing when_dropped = {});

  // When a clip of a thing of this kind comes to an event: once for each time it does, after all clips have
  // moved on, so the handler may change the clip. Throws Error for an unknown kind.
  template <class Handler>
  void when_event(std::string_view kind, std::string_view event, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&, Entity>)
      add_event(kind, event, std::move(handler));
    else
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_event takes (vole::Stage&, vole::Entity)");
  }

  // When a name is told: by Stage::tell, or by a timer or tween at its end. A handler is given the thing that
  // it is about, if it wants to know.
  template <class Handler>
  void when_told(std::string_view name, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&>)
      add_told(name, [handler = std::move(handler)](Stage& stage, Entity) mutable { handler(stage); });
    else if constexpr (std::invocable<Handler&, Stage&, Entity>)
      add_told(name, std::move(handler));
    else
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_told takes (vole::Stage&), or (vole::Stage&, vole::Entity)");
  }

  // When a scene that lay over this one has closed: by its name or its class. A handler may take what that hands back (its class says
  // using Result = Choice;), and is then called only where it hands something back:
  //   cues.when_closed<Shop>([](vole::Stage& stage, const Choice& choice) { ... });
  // Another struct does not compile with the class; with the name it is an Error when the scene begins.
  template <class Handler>
  void when_closed(std::string_view scene, Handler handler) {
    using Handed = typename detail::HandedTo<decltype(&Handler::operator())>::Type;
    if constexpr (std::invocable<Handler&, Stage&>)
      add_closed({std::string(scene), nullptr, nullptr,
                  [handler = std::move(handler)](Stage& stage, const void*) mutable { handler(stage); }});
    else if constexpr (Described<Handed>)
      add_closed(
          {std::string(scene), nullptr, &described_type<Handed>(), handed_on<Handed>(std::move(handler))});
    else
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_closed takes (vole::Stage&), or (vole::Stage&, const Result&) with "
                    "the struct that the scene "
                    "hands back, which is described");
  }
  template <class SceneClass, class Handler>
  void when_closed(Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&>)
      add_closed({{},
                  &detail::type_mark<SceneClass>,
                  nullptr,
                  [handler = std::move(handler)](Stage& stage, const void*) mutable { handler(stage); }});
    else if constexpr (!requires { typename SceneClass::Result; })
      static_assert(
          detail::fits_no_cue<Handler>,
          "this scene hands nothing back: write in its class what it does, using Result = MyStruct;");
    else if constexpr (std::invocable<Handler&, Stage&, const typename SceneClass::Result&>)
      add_closed({{},
                  &detail::type_mark<SceneClass>,
                  &described_type<typename SceneClass::Result>(),
                  handed_on<typename SceneClass::Result>(std::move(handler))});
    else
      static_assert(
          detail::fits_no_cue<Handler>,
          "a handler of when_closed takes (vole::Stage&), or (vole::Stage&, const Result&) with the "
          "struct that the scene hands back");
  }

  // When the scene has come to a level by Stage::go_to_level: at the end of the tick in which it was asked to.
  void when_arrived(std::string_view level, OnScene handler) {
    arrivals_.push_back({std::string(level), std::move(handler)});
  }

  // What came of saving, loading and removing a save (stage_saves.hpp), of whichever scene asked for it; and where a value that lasts between
  // runs could not be kept. A handler takes (Stage&, const SaveAnswer&).
  void when_saved(std::function<void(Stage&, const SaveAnswer&)> handler) {
    saved_.push_back(std::move(handler));
  }

  // When a value is another at the end of a tick than at the end of the one before: a member of the scene that it describes, or a field of a
  // value of the game (value<Purse>().coins). The handler takes (Stage&), or (Stage&, const T& before). What handlers change is told too.
  template <class T, class Handler>
  void when_changes(const T& value, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&, const T&>)
      add_watched<detail::WatchedValue<T>>(value, std::move(handler));
    else if constexpr (std::invocable<Handler&, Stage&>)
      add_watched<detail::WatchedValue<T>>(
          value, [handler = std::move(handler)](Stage& stage, const T&) mutable { handler(stage); });
    else
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_changes takes (vole::Stage&), or (vole::Stage&, const T& before)");
  }
  template <class T, class Handler>
  void when_changes(const T&& gone, Handler handler) = delete;
  // The same of a field of a component, for all things that are meant: (Stage&, Entity), or (Stage&, Entity, const T& before). A thing that
  // comes or goes has not changed.
  template <class Component, class T, class Handler>
  void when_changes(ThingSelector which, T Component::*field, Handler handler) {
    expect(which);
    if constexpr (std::invocable<Handler&, Stage&, Entity, const T&>)
      add_watched<detail::WatchedField<Component, T>>(std::move(which), field, std::move(handler));
    else if constexpr (std::invocable<Handler&, Stage&, Entity>)
      add_watched<detail::WatchedField<Component, T>>(
          std::move(which), field,
          [handler = std::move(handler)](Stage& stage, Entity thing, const T&) mutable {
            handler(stage, thing);
          });
    else
      static_assert(
          detail::fits_no_cue<Handler>,
          "a handler of when_changes of a field takes (vole::Stage&, vole::Entity), or (vole::Stage&, "
          "vole::Entity, const T& before)");
  }
  // A value of the game: see values.hpp. Throws Error for one that it does not have.
  template <class T>
  const T& value() const {
    return expect_values(values_).template get<T>();
  }

  // Every so many seconds of the scene, the first time when they have passed once; at most once a tick.
  template <class Handler>
  void every(float seconds, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&>)
      add_interval(seconds, std::move(handler));
    else
      static_assert(detail::fits_no_cue<Handler>, "a handler of every takes (vole::Stage&)");
  }

  // For the steps of a tick.
  struct MeetingCue {
    enum class When { begins, lasts, ends };
    When when = When::begins;
    ThingSelector which, other;
    OnMeeting handler;
  };
  struct TileCue {
    enum class When { begins, lasts };
    When when = When::begins;
    ThingSelector which;
    TileSelector tiles;
    OnTile handler;
  };
  struct SqueezeCue {
    ThingSelector which;
    OnTwo handler;
  };
  struct PointerCue {
    ThingSelector which;
    std::string action;
    bool drags = false;
    OnThing handler;
  };
  struct Event {
    std::string kind, event;
    OnThing handler;
  };
  struct Name {
    std::string name;
    OnThing handler;
  };
  struct Closed {
    std::string scene;                      // empty: by its class
    const void* mark = nullptr;             // of the class
    const DescribedType* handed = nullptr;  // what it is given; nullptr for nothing
    std::function<void(Stage&, const void*)> handler;
  };
  struct Interval {
    float seconds = 0;
    OnScene handler;
  };
  const std::vector<MeetingCue>& meetings() const { return meetings_; }
  const std::vector<TileCue>& tile_meetings() const { return tile_meetings_; }
  const std::vector<SqueezeCue>& squeezes() const { return squeezes_; }
  const std::vector<PointerCue>& pointers() const { return pointers_; }
  const std::vector<Event>& events() const { return events_; }
  const std::vector<Name>& names() const { return names_; }
  struct Arrival {
    std::string level;
    OnScene handler;
  };
  const std::vector<Arrival>& arrivals() const { return arrivals_; }
  const std::vector<std::function<void(Stage&, const SaveAnswer&)>>& saved() const { return saved_; }
  const std::vector<std::unique_ptr<Watched>>& watched() const { return watched_; }
  const std::vector<Closed>& closings() const { return closings_; }
  const std::vector<Interval>& intervals() const { return intervals_; }
  // For tools that play a level without its game: a name that is told needs no cue.
  void take_any_name() { takes_any_name_ = true; }
  // Throws Error with the nearest name when there is no when_told for this one.
  void expect_name(std::string_view name) const;

 private:
  void expect(const ThingSelector& which) const;
  template <class Handler>
  void add_meeting(MeetingCue::When when, const ThingSelector& which, const ThingSelector& other,
                   Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&, Entity, Entity, const Meeting&>)
      add_meeting({when, which, other, std::move(handler)});
    else if constexpr (!std::invocable<Handler&, Stage&, Entity, Entity>)
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_meet and while_touching takes (vole::Stage&, vole::Entity, "
                    "vole::Entity), and may take a "
                    "const vole::Meeting& after them");
    else
      add_meeting({when, which, other,
                   [handler = std::move(handler)](Stage& stage, Entity a, Entity b, const Meeting&) mutable {
                     handler(stage, a, b);
                   }});
  }
  template <class Handler>
  void add_tiles(TileCue::When when, const ThingSelector& which, const TileSelector& tiles, Handler handler) {
    if constexpr (std::invocable<Handler&, Stage&, Entity, const TileMeeting&>)
      add_tiles({when, which, tiles, std::move(handler)});
    else if constexpr (!std::invocable<Handler&, Stage&, Entity>)
      static_assert(detail::fits_no_cue<Handler>,
                    "a handler of when_meet and while_touching for tiles takes (vole::Stage&, vole::Entity), "
                    "and may take "
                    "a const vole::TileMeeting& after them");
    else
      add_tiles({when, which, tiles,
                 [handler = std::move(handler)](Stage& stage, Entity thing, const TileMeeting&) mutable {
                   handler(stage, thing);
                 }});
  }
  void add_tiles(TileCue cue);
  void add_meeting(MeetingCue cue);
  void add_parting(const ThingSelector& which, const ThingSelector& other, OnTwo handler);
  void add_squeezed(const ThingSelector& which, OnTwo handler);
  void add_clicked(const ThingSelector& which, std::string_view action, OnThing handler);
  void add_event(std::string_view kind, std::string_view event, OnThing handler);
  void add_told(std::string_view name, OnThing handler);
  void add_closed(Closed cue);
  template <class Result, class Handler>
  static std::function<void(Stage&, const void*)> handed_on(Handler handler) {
    return [handler = std::move(handler)](Stage& stage, const void* result) mutable {
      handler(stage, *static_cast<const Result*>(result));
    };
  }
  void add_interval(float seconds, OnScene handler);
  template <class W, class... Parts>
  void add_watched(Parts&&... parts) {
    watched_.push_back(std::make_unique<W>(std::forward<Parts>(parts)...));
  }

  const Kinds* kinds_;
  const Values* values_;
  std::vector<MeetingCue> meetings_;
  std::vector<TileCue> tile_meetings_;
  std::vector<SqueezeCue> squeezes_;
  std::vector<PointerCue> pointers_;
  std::vector<Event> events_;
  std::vector<Arrival> arrivals_;
  std::vector<std::function<void(Stage&, const SaveAnswer&)>> saved_;
  std::vector<std::unique_ptr<Watched>> watched_;
  bool takes_any_name_ = false;
  std::vector<Name> names_;
  std::vector<Closed> closings_;
  std::vector<Interval> intervals_;
};

}  // namespace vole
