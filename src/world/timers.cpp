#include "vole/world/timers.hpp"

#include <algorithm>

namespace vole {
namespace {

// The tick of those that are stopped: none ever comes there.
constexpr auto never = static_cast<std::int64_t>(most_ticks);

bool is_meant(const Timer& timer, std::string_view name, Entity about) {
  return timer.name == name && (!about || timer.entity == about);
}

}  // namespace

bool Timers::comes_later(const Due& a, const Due& b) {
  return a.due != b.due ? a.due > b.due : a.number > b.number;
}

bool Timers::is_valid(const Due& due) const {
  return due.place < all_.size() && all_[due.place].number == due.number && all_[due.place].due == due.due;
}

Timer Timers::counted_from(Timer timer, std::int64_t tick) {
  if (timer.stopped != 0) return timer;
  timer.due -= tick;
  timer.even -= tick;
  return timer;
}

void Timers::take_back(std::vector<Timer> timers) {
  for (Timer& timer : timers) {
    Timer& back = all_.emplace_back(counted_from(std::move(timer), -passed_));
    back.number = ++added_;
  }
  find_due();
}

void Timers::find_due() {
  due_.clear();
  for (std::size_t i = 0; i < all_.size(); ++i)
    if (all_[i].stopped == 0) due_.push_back({all_[i].due, all_[i].number, i});
  std::make_heap(due_.begin(), due_.end(), comes_later);
}

void Timers::add_due(std::size_t place) {
  if (due_.size() > 2 * all_.size() + 16) return find_due();
  due_.push_back({all_[place].due, all_[place].number, place});
  std::push_heap(due_.begin(), due_.end(), comes_later);
}

// With its even time known; never in this tick or before it.
void Timers::set_due(Timer& timer, Random& chance) const {
  timer.due = timer.even;
  if (timer.spread > 0) {
    const auto most = static_cast<std::uint32_t>(std::min<std::int64_t>(timer.spread, INT32_MAX / 2));
    timer.due += static_cast<std::int64_t>(chance.below(2 * most + 1)) - most;
  }
  timer.due = std::clamp(timer.due, passed_ + 1, never - 1);
}

void Timers::add(Timer timer, std::int64_t ticks, Random& chance) {
  timer.number = ++added_;
  timer.even = std::min(passed_ + std::max<std::int64_t>(ticks, 1), never - 1);
  set_due(timer, chance);
  all_.push_back(std::move(timer));
  add_due(all_.size() - 1);
}

void Timers::take_away(std::size_t place) {
  if (place + 1 < all_.size()) all_[place] = std::move(all_.back());
  all_.pop_back();
  if (place < all_.size() && all_[place].stopped == 0) add_due(place);
}

void Timers::pass(Random& chance, std::vector<Told>& told) {
  ++passed_;
  while (!due_.empty() && due_.front().due <= passed_) {
    const Due now = due_.front();
    std::pop_heap(due_.begin(), due_.end(), comes_later);
    due_.pop_back();
    if (!is_valid(now)) continue;
    Timer& timer = all_[now.place];
    if (timer.every == 0 || timer.times == 1) {
      told.push_back({std::move(timer.name), timer.entity});
      take_away(now.place);
      continue;
    }
    told.push_back({timer.name, timer.entity});
    if (timer.times > 0) --timer.times;
    // From the even time on: so the spread does not add up.
    timer.even = std::min(timer.even + timer.every, never - 1);
    set_due(timer, chance);
    add_due(now.place);
  }
}

void Timers::cancel(std::string_view name, Entity about) {
  if (std::erase_if(all_, [&](const Timer& timer) { return is_meant(timer, name, about); }) > 0) find_due();
}

void Timers::stop(std::string_view name, Entity about) {
  for (Timer& timer : all_) {
    if (timer.stopped != 0 || !is_meant(timer, name, about)) continue;
    timer.stopped = std::max<std::int64_t>(timer.due - passed_, 1);
    timer.even -= passed_;
    timer.due = never;
  }
  find_due();
}

void Timers::go_on(std::string_view name, Entity about) {
  for (Timer& timer : all_) {
    if (timer.stopped == 0 || !is_meant(timer, name, about)) continue;
    timer.due = std::min(passed_ + timer.stopped, never - 1);
    timer.even = std::min(passed_ + timer.even, never - 1);
    timer.stopped = 0;
  }
  find_due();
}

bool Timers::has(std::string_view name, Entity about) const {
  return std::any_of(all_.begin(), all_.end(),
                     [&](const Timer& timer) { return is_meant(timer, name, about); });
}

std::int64_t Timers::left(std::string_view name, Entity about) const {
  std::int64_t least = 0;
  for (const Timer& timer : all_) {
    if (!is_meant(timer, name, about)) continue;
    const std::int64_t left = timer.stopped != 0 ? timer.stopped : timer.due - passed_;
    if (least == 0 || left < least) least = left;
  }
  return least;
}

}  // namespace vole
