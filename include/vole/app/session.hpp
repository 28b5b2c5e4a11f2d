// A game under way on a host: what is pressed goes to the simulation, what it shows to the host; recorded or replayed,
// with its files live. All it does is put these together.
#pragma once

#include <memory>
#include <optional>
#include <string>

#include "vole/app/host.hpp"
#include "vole/app/live_files.hpp"
#include "vole/app/options.hpp"
#include "vole/app/pile_picture.hpp"
#include "vole/app/player_bindings.hpp"
#include "vole/app/player_saves.hpp"
#include "vole/app/printed_values.hpp"
#include "vole/app/recorder.hpp"
#include "vole/app/scene_loading.hpp"
#include "vole/app/shots.hpp"
#include "vole/app/simulation.hpp"
#include "vole/app/tick_clock.hpp"
#include "vole/app/trouble.hpp"
#include "vole/draw/raster.hpp"

namespace vole {

class Session final : public HostedRun {
 public:
  // The host must outlive the session. Throws Error for whatever is wrong in the game's files.
  Session(Game game, Project project, Options options, Host& host);
  ~Session() override;

  bool step() override;
  int finish() override;

  // One tick, whatever the time. For tests and tools.
  void tick();
  std::int64_t ticks() const { return simulation_.ticks(); }
  std::uint64_t checksum() const { return simulation_.checksum(); }
  // Draws the game as it stands, `share` of the way between the last tick and the next.
  const Image& draw(float share);
  // Reads changed files; returns what is newly wrong with them. The last good versions stay.
  Report refresh();

  const Project& project() const { return project_; }
  Simulation& simulation() { return simulation_; }
  const Stage& stage() const { return simulation_.stage(); }
  std::string_view scene_name() const { return simulation_.scene_name(); }
  // What is wrong at the moment and shown over the game; empty: nothing.
  const std::string& trouble() const { return trouble_.text(); }
  // Whether the next scene waits for what it needs.
  bool loading() const { return loading_.under_way(); }

 private:
  // Prepares what the next scene needs, in steps where somebody watches, and then has it come.
  void begin_change();
  void go_on_loading();
  void make_change();
  // What a scene of a running game throws is shown, not the end of the game.
  template <class Work>
  void survive(const Work& work);
  void show_trouble();
  void save_picture(const std::string& file);
  // What the options ask for after this tick.
  void write_due();
  bool ticks_may_pass() const { return !loading() && simulation_.running(); }
  void notice_stand_ins();
  void say_progress();
  bool asks_for_control() const;
  void take_outbox();
  // What comes from outside before the next tick.
  void take_in(const Arrived& arrived);
  void take_arrived();
  void write_kept(bool at_once);
  std::string kept_folder() const;
  bool over() const;
  // A step without the care for what was recorded.
  bool go_on();
  // Once: after it nothing more is recorded.
  void save_recording();
  void save_full_recording();

  const Game game_;
  const Project project_;
  const Options options_;
  Host& host_;

  LiveFiles files_;
  const std::shared_ptr<const Controls> recorded_ = files_.controls;  // a recorder and a replay go by these
  std::optional<Replay> replay_;
  std::uint64_t seed_;
  std::optional<Recorder> recorder_;
  Simulation simulation_;
  PlayerBindings bindings_;
  PlayerSaves saves_;
  TickClock clock_;
  SceneLoading loading_;
  const Shots pictures_, states_;
  const std::optional<PrintedValues> printed_;

  XrayParts xray_;
  Trouble trouble_;
  std::vector<Problem> scene_problems_;  // what the running scene threw last
  int stand_ins_seen_ = 0;
  Image canvas_;
  PilePicture picture_;
  DrawList list_;  // of what is drawn over it
  Raster raster_;
  std::chrono::steady_clock::time_point progress_said_, kept_written_;
};

}  // namespace vole
