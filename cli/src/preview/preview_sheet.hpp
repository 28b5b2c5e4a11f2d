// The pictures that a sheet can be shown as.
#pragma once

#include <string>
#include <vector>

#include "vole/asset/sheet.hpp"

// All frames, and all clips as strips.
void preview_frames(const vole::Sheet& sheet, const std::string& output);
// The frames of these clips, large and with their numbers, times and events.
void preview_strips(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips,
                    const std::string& output);
// The frames of these clips on one line, so that feet which jump are seen.
void preview_baseline(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips,
                      const std::string& output);
// The clip rules as a diagram.
void preview_rules(const vole::Sheet& sheet, const std::string& output);
// These clips at their real speed, side by side on one line, as a GIF that repeats.
void preview_motion(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips,
                    const std::string& output);
