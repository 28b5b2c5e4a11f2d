// The controls of a game as its player has bound them: those of its files, with what the player has set over them. Owns what
// hears the player, so that nothing is let go and no pad changes its player when they become others.
#pragma once

#include <memory>
#include <span>
#include <string>

#include "vole/app/player_settings.hpp"
#include "vole/input/gather.hpp"

namespace vole {

class PlayerBindings {
 public:
  explicit PlayerBindings(std::shared_ptr<const Controls> written);

  // What the file says counts from now on, and what is bound later is kept there. What is wrong with it goes to the report.
  void read(const std::string& file, Report& report);
  // The game's files say otherwise; what the player has set still lies over it.
  void use(std::shared_ptr<const Controls> written);
  // What the player has bound counts from now on. Kept in the file, if one was read. Throws Error where it cannot be written.
  void add(std::span<const Rebinding> rebindings);

  // As they are now.
  const std::shared_ptr<const Controls>& controls() const { return bound_; }
  InputGather& gather() { return gather_; }

 private:
  void bind();

  std::shared_ptr<const Controls> written_, bound_;
  PlayerSettings settings_;
  std::string file_;
  InputGather gather_;
};

}  // namespace vole
