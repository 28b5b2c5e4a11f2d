// A state as a loader has it: any bytes as a snapshot or as a written state, played on and drawn.
#pragma once

#include <string>
#include <string_view>

// The folder is the small game of targets.cpp.
void write_state_samples(const std::string& folder);
void load_snapshot(std::string_view bytes);
void load_written_state(std::string_view bytes);
// As what a save holds, which arrives.
void load_saved(std::string_view bytes);
