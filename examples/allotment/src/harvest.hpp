// What is carried from the beds to the finish.
#pragma once

#include <cstdint>
#include <string>

struct Harvest {
  int gathered = 0;
  int planted = 0;
  std::int64_t ticks = 0;
};

// "0:42.3"
std::string time_text(std::int64_t ticks, int ticks_per_second);
