// The part of a stage that is about saves: what is kept under a name until the player wants it again.
//
//   stage.save("slot one", {.title = "The beds", .scenes = true});
//   stage.load("slot one");
//   for (const vole::SaveSlot& slot : stage.saves()) ...
//   cues.when_saved([](vole::Stage& stage, const vole::SaveAnswer& answer) { if (!answer.ok()) ... });
//
// All of it is done outside of the game after the tick, and what comes of it arrives before a later one. A save holds the values of the game
// that last for the run (values.hpp) and, where asked, the scenes as they are at the end of the tick.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/input/arrived.hpp"
#include "vole/scene/outbox.hpp"

namespace vole {

class KnownSaves;

class StageSaves {
 public:
  // Names have 1 to 58 small letters, digits, '-', '_', and spaces between them: all these throw Error for another. A save of the same name is
  // replaced. A title longer than SaveHead::longest_title is cut.
  void save(std::string_view name, SaveAs as = {});
  // What it holds comes in place of what is there: the values, and the scenes where it has some. A change of scene that was asked for in the tick
  // of saving is forgotten.
  void load(std::string_view name);
  void remove_save(std::string_view name);
  // Those that are there, the newest first. Nothing where nothing can be kept.
  const std::vector<SaveSlot>& saves() const;
  const KnownSaves& known_saves() const { return *saves_; }

 protected:
  explicit StageSaves(const KnownSaves* saves);
  ~StageSaves() = default;

  Outbox outbox_;

 private:
  void ask_outside(SaveAsked::Does does, std::string_view name, SaveAs as);

  const KnownSaves* saves_;
};

}  // namespace vole
