// Names that are told when their time has come: once, or again and again. As state; a scene sets them by its stage (stage_time.hpp).
//
// The next one that is due is at hand, so those that wait cost nothing, however many they are.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/entity.hpp"
#include "vole/base/random.hpp"
#include "vole/world/told.hpp"

namespace vole {

struct Timer {
  std::string name = {};
  Entity entity = {};       // that it is about; none: the scene
  std::int64_t every = 0;   // ticks from one time to the next; 0: once
  std::int64_t spread = 0;  // at most so many ticks sooner or later, each time anew
  std::int64_t times = 0;   // that are left, where it comes again; 0: without end
  // The tick at which it is told, but for the spread; while it is stopped, how far off that was.
  std::int64_t even = 0;
  std::int64_t due = 0;      // with it
  std::int64_t stopped = 0;  // ticks that were left when it was stopped; 0: it runs
  std::uint64_t number = 0;  // of those that are due in one tick the one that was set first is told first
};
template <class V>
void describe(V& v, Timer& timer) {
  v.state("name", timer.name);
  v.state("entity", timer.entity);
  v.state("every", timer.every, within(0, most_ticks));
  v.state("spread", timer.spread, within(0, most_ticks));
  v.state("times", timer.times, within(0, most_ticks));
  v.state("even", timer.even, within(-most_ticks, most_ticks));
  v.state("due", timer.due, within(0, most_ticks));
  v.state("stopped", timer.stopped, within(0, most_ticks));
  v.state("number", timer.number);
}

class Timers {
 public:
  // To be told after so many ticks, at least one; of `timer` its name, thing, and how it comes again.
  void add(Timer timer, std::int64_t ticks, Random& chance);
  // One tick: adds what is due in it to the list.
  void pass(Random& chance, std::vector<Told>& told);

  // All these are about the timers of a name, and of a thing where one is given.
  void cancel(std::string_view name, Entity about = {});
  void stop(std::string_view name, Entity about = {});
  void go_on(std::string_view name, Entity about = {});
  bool has(std::string_view name, Entity about = {}) const;
  // Until the next of them is told; 0: there is none.
  std::int64_t left(std::string_view name, Entity about = {}) const;

  // Takes away those for which gone(entity) is true of their thing.
  template <class Gone>
  void remove_of(const Gone& gone) {
    if (std::erase_if(all_, [&](const Timer& timer) { return timer.entity && gone(timer.entity); }) > 0)
      find_due();
  }
  // Hands those over that are about such a thing, and takes them back: what was left to them is left to them still.
  template <class Which>
  std::vector<Timer> hand_over(const Which& which) {
    std::vector<Timer> handed;
    for (Timer& timer : all_)
      if (timer.entity && which(timer.entity)) handed.push_back(counted_from(std::move(timer), passed_));
    remove_of(which);
    return handed;
  }
  void take_back(std::vector<Timer> timers);
  const std::vector<Timer>& all() const { return all_; }
  // After reading: puts in order when each is due.
  void find_due();

  template <class V>
  friend void describe(V& v, Timers& timers) {
    v.state("passed", timers.passed_, within(0, most_ticks));
    v.state("added", timers.added_);
    v.state("all", timers.all_);
  }

 private:
  // When a timer is due, and where it stands in the list. One that has been set anew or has moved since has another such entry.
  struct Due {
    std::int64_t due;
    std::uint64_t number;
    std::size_t place;
  };
  // With its ticks counted from then.
  static Timer counted_from(Timer timer, std::int64_t tick);
  static bool comes_later(const Due& a, const Due& b);
  bool is_valid(const Due& due) const;
  void set_due(Timer& timer, Random& chance) const;
  void add_due(std::size_t place);
  void take_away(std::size_t place);

  std::int64_t passed_ = 0;  // ticks
  std::uint64_t added_ = 0;
  std::vector<Timer> all_;
  std::vector<Due> due_;  // a heap, the next one first; made from the list, so no state
};

}  // namespace vole
