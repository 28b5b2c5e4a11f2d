// What the garden hands to the finish.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>

struct Harvest {
  int gathered = 0;
  int planted = 0;
  std::int64_t ticks = 0;
};
template <class V>
void describe(V& v, Harvest& harvest) {
  v.state("gathered", harvest.gathered);
  v.state("planted", harvest.planted);
  v.state("ticks", harvest.ticks);
}

// "0:42.3"
std::string time_text(std::int64_t ticks, int ticks_per_second);

// A span of time that a label can show. Two are the same when they read the same.
struct GameTime {
  std::int64_t ticks = 0;
  int ticks_per_second = 60;

  std::int64_t tenths() const { return ticks * 10 / ticks_per_second; }
  friend bool operator==(const GameTime& a, const GameTime& b) { return a.tenths() == b.tenths(); }
};
template <class V>
void describe(V& v, GameTime& time) {
  v.state("ticks", time.ticks);
  v.state("ticks_per_second", time.ticks_per_second);
}
std::string to_text(const GameTime& time);
