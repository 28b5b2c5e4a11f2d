// A game under way: one tick after the other, drawn in between, recorded or replayed. A host calls step().
#pragma once

#include <any>
#include <memory>
#include <optional>
#include <set>
#include <string>

#include "vole/app/game.hpp"
#include "vole/app/groups.hpp"
#include "vole/app/host.hpp"
#include "vole/app/options.hpp"
#include "vole/app/project.hpp"
#include "vole/app/ticker.hpp"
#include "vole/base/watch.hpp"
#include "vole/draw/raster.hpp"
#include "vole/input/recording.hpp"

namespace vole {

class Session {
 public:
  // All of them must outlive the session. Throws Error for whatever is wrong in the game's files.
  Session(const Game& game, Project project, const Options& options, Host& host);
  ~Session();

  // What has passed since the last step; false when the run is over.
  bool step();
  // Writes the recording and the last pictures, prints the closing line, and returns the exit code.
  int finish();

  // One tick, whatever the time. For tests and tools.
  void tick();
  std::int64_t ticks() const { return ticks_; }
  std::uint64_t checksum() const;
  // Draws the game as it stands, `between` the last tick and the next.
  const Image& draw(float between);
  // Loads changed files anew; returns what is newly wrong with them. The last good versions stay.
  Report refresh();

  const Stage& stage() const { return *stage_; }
  std::string_view scene_name() const { return scene_name_; }
  // What is wrong at the moment and shown over the game; empty: nothing.
  const std::string& trouble() const { return trouble_; }
  bool loading() const { return next_scene_ != nullptr; }
  // What the last picture drawn consisted of.
  const DrawList& drawn() const { return list_; }

 private:
  // Leaves the scene and begins another; when its assets are to be loaded ahead and somebody watches, in
  // steps.
  void enter(std::string_view scene, std::any carried, const Place& asked);
  void begin_scene();
  void go_on_loading();
  void draw_loading();
  void draw_scene(float between);
  // What a scene of a running game throws is shown, not the end of the game.
  template <class Work>
  void survive(const Work& work);
  void show_trouble();
  void tell_problems(const std::vector<Problem>& problems);
  void look_for_changes();
  void check_recording(const Place& place) const;
  void check_replay();
  std::uint64_t stamp_settings() const;
  void refresh_settings(Report& report);
  void say_progress();
  void save_shots();
  void save_shot(const Shot& shot);
  bool over() const;

  const Game& game_;
  Project project_;
  const Options& options_;
  Host& host_;

  Controls controls_;
  Kinds kinds_;
  Catalog catalog_;
  std::unique_ptr<InputGather> gather_;
  Ticker ticker_;
  std::unique_ptr<Stage> stage_;
  std::unique_ptr<Scene> scene_;
  std::string scene_name_;
  std::unique_ptr<Scene> next_scene_;  // while its assets are loaded
  std::vector<WantedAsset> wanted_;
  Preload preload_;
  std::any carried_;           // what the scene was given
  bool half_entered_ = false;  // its enter() threw; tried again when files change
  std::int64_t ticks_ = 0;
  Random chance_;  // seeds the stages
  std::uint64_t history_ =
      0;  // how each scene before this one ended, so that a checksum covers the whole run

  Recording recording_;
  std::unique_ptr<InputWriter> writer_;
  std::unique_ptr<InputReader> reader_;
  std::size_t next_checkpoint_ = 0;
  std::vector<Problem> differences_;
  std::uint64_t settings_stamp_ = 0;        // of controls and kinds, as last looked at
  std::vector<Problem> settings_problems_;  // what keeps their newest versions from use
  std::vector<Problem> scene_problems_;     // what the running scene threw last
  std::set<std::string> told_;              // lines printed already
  int stand_ins_seen_ = 0;
  std::string trouble_;  // shown over the game; empty: all is well
  std::unique_ptr<FileWatch> watch_;

  Image canvas_;
  DrawList list_;
  Raster raster_;
  struct Clock;
  std::unique_ptr<Clock> clock_;
};

}  // namespace vole
