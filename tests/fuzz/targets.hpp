// A function for each loader that takes any bytes as its file. It may throw vole::Error and nothing else.
#pragma once

#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

struct FuzzTarget {
  std::string name;
  std::string sample;  // a good file, below the small game's folder, to begin from
  void (*load)(std::string_view bytes);
};

const std::vector<FuzzTarget>& fuzz_targets();

// Loads the bytes; a vole::Error is as it should be, and anything else that is thrown goes on.
void load_once(const FuzzTarget& target, std::string_view bytes);
// Bytes of the good file to begin from.
std::string sample_of(const FuzzTarget& target);
