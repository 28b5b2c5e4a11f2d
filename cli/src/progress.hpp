// Says how far a command is, once a second, on the error stream; nothing where it is done sooner.
#pragma once

#include <fmt/core.h>

#include <chrono>
#include <cstdio>
#include <string>
#include <utility>

class Progress {
 public:
  Progress(std::string what, std::size_t total) : what_(std::move(what)), total_(total) {}

  void step() {
    ++done_;
    const auto now = Clock::now();
    if (now - told_ < std::chrono::seconds(1)) return;
    told_ = now;
    fmt::print(stderr, "{}: {} of {}\n", what_, done_, total_);
  }

 private:
  using Clock = std::chrono::steady_clock;
  std::string what_;
  std::size_t total_;
  std::size_t done_ = 0;
  Clock::time_point told_ = Clock::now();
};
