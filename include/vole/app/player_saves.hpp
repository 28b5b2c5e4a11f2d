// What a game keeps for its player from one run to the next: saves, and values that last between runs; each a file in one folder
// (saves/save_folder.hpp). Does what a simulation asks (outbox.hpp); what comes of it is for its next tick (arrived.hpp).
#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include "vole/input/arrived.hpp"
#include "vole/saves/save_folder.hpp"
#include "vole/scene/outbox.hpp"

namespace vole {

class Game;
class Image;

class PlayerSaves {
 public:
  // `folder` empty: nothing can be kept. The game must outlive this.
  PlayerSaves(const std::string& folder, const std::string& game_id, const Game& game);

  // Notes what there is at the start of a run.
  void begin();
  // `picture` draws what the player sees, where a save wants it.
  void take(const Outbox& out, const std::function<const Image&()>& picture);
  // Writes the values that have changed; what changed several times since is written once.
  void write_kept();
  bool has_unwritten() const { return !unwritten_.empty(); }
  // What has come since it was taken last; `tick` of it is not set.
  Arrived take_arrived();

 private:
  void do_asked(const SaveAsked& asked, const std::function<const Image&()>& picture);
  void save(const SaveAsked& asked, const std::function<const Image&()>& picture);
  void load(const std::string& name);
  void read_value(const std::string& name);
  void write_value(const KeptValue& value);
  // In what is known to be there, which is not read again: files may be large.
  void forget(const std::string& name);
  void list();
  std::string text_of(const SaveHead* now, SaveHead& head, const std::string& holds);

  const SaveFolder folder_;
  const std::string game_id_;
  const Game& game_;
  const bool keeps_;
  std::int64_t count_ = 0;       // of the newest
  std::vector<SaveSlot> slots_;  // the newest first
  std::vector<KeptValue> unwritten_;
  Arrived arrived_;
};

// A picture at most 96 x 54 pixels large.
Image small_picture(const Image& picture);

}  // namespace vole
