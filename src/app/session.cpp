#include "vole/app/session.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <random>

#include "vole/base/file_set.hpp"
#include "vole/base/program.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

using Clock = std::chrono::steady_clock;

// A play in a window has a new seed each time; a headless one has always the same.
std::uint64_t seed_for(const Options& options, const Host& host) {
  if (options.seed) return *options.seed;
  return host.shows() ? std::random_device()() : 0;
}

Control xray_key() {
  return *find_control("key F8");
}

}  // namespace

Session::Session(Game game, Project project, Options options, Host& host)
    : game_(std::move(game)),
      project_(std::move(project)),
      options_(std::move(options)),
      host_(host),
      files_(project_),
      replay_(options_.replay.empty()
                  ? std::nullopt
                  : std::optional<Replay>(std::in_place, options_.replay, project_, *files_.controls)),
      seed_(replay_ ? replay_->seed() : seed_for(options_, host)),
      simulation_(game_,
                  {files_.catalog, files_.kinds, files_.controls, project_.canvas, project_.ticks_per_second},
                  seed_),
      gather_(std::make_unique<InputGather>(files_.controls)),
      ticker_(project_.ticks_per_second),
      xray_(options_.xray),
      trouble_(project_.root),
      canvas_(project_.canvas),
      progress_said_(Clock::now()) {
  gather_->count_presses_of(xray_key());
  if (host_.shows() && !replay_) {
    Report wrong;
    settings_ = read_settings(settings_file(project_.id.value), wrong);
    trouble_.print(wrong.problems());
    if (!settings_.bindings.empty()) use_bindings();
  }
  if (!options_.record.empty() && !replay_) recorder_.emplace(project_, seed_, *files_.controls);
  // Better now than after the play.
  if (recorder_) expect_writable(options_.record);
  for (const Shot& shot : options_.shots) expect_writable(shot.file);
  // Files must not change during a run that is recorded or replayed.
  if (host_.shows() && !replay_ && !recorder_) files_.watch();
  if (host_.shows() && recorder_)
    fmt::print(stderr,
               "recording to {}: files that change are taken over by the next start, not while it lasts\n",
               options_.record);
  simulation_.ask_for(project_.first_scene.value, project_.first_scene.where);
  begin_loading();
  // A wrong name is an error while the game starts; from here on it is shown and can be mended.
  if (files_.watched()) files_.catalog.use_stand_ins();
  save_shots();
}

Session::~Session() = default;

void Session::begin_loading() {
  // What is held here is not a press there.
  gather_->release_all();
  scene_problems_.clear();
  wanted_ = wanted_by_scene(project_.assets, simulation_.change()->scene, files_.catalog);
  preload_ = Preload(files_.catalog, wanted_);
  loading_ = true;
  if (!host_.shows())
    while (!preload_.complete()) preload_.step();
  if (preload_.complete()) enter();
}

// As much as there is time for between two pictures, so that the bar moves.
void Session::go_on_loading() {
  const auto start = Clock::now();
  while (!preload_.complete() && Clock::now() - start < std::chrono::milliseconds(10))
    survive([this] { preload_.step(); });
  if (preload_.complete()) survive([this] { enter(); });
}

void Session::enter() {
  loading_ = false;
  simulation_.enter();
  if (!project_.assets.groups.empty()) drop_unwanted(project_.assets, wanted_, files_.catalog);
}

template <class Work>
void Session::survive(const Work& work) {
  const auto when = [this] { return fmt::format("scene \"{}\", tick {}: ", scene_name(), ticks()); };
  try {
    work();
    return;
  } catch (const Error& error) {
    scene_problems_ = error.problems();
    for (Problem& problem : scene_problems_)
      if (!problem.where.file) problem.text.insert(0, when());
  } catch (const std::exception& error) {
    scene_problems_ = {{FilePosition{}, Severity::error, when() + error.what(), ""}};
  }
  // Where nobody watches it ends the run: an error must not pass for a result.
  if (!files_.watched()) throw Error(scene_problems_);
  trouble_.print(scene_problems_);
  show_trouble();
}

void Session::tick() {
  while (loading_) go_on_loading();
  const TickInput& input = replay_ ? replay_->next() : gather_->latch();
  if (recorder_) recorder_->add(ticks(), input);
  simulation_.tick(input);
  take_rebindings();
  if (replay_ && replay_->wants_check(ticks())) replay_->check(ticks(), checksum());
  if (recorder_ && recorder_->wants_checkpoint(ticks())) recorder_->add_checkpoint(ticks(), checksum());
  if (simulation_.change()) begin_loading();
  save_shots();
}

bool Session::asks_for_control() const {
  return !loading_ && !scene_name().empty() && stage().world().asks_for_control;
}

// What the player has bound counts from the next tick on, and is kept; in a replay it does not count.
void Session::take_rebindings() {
  const std::vector<Rebinding> rebindings = simulation_.stage().take_rebindings();
  if (rebindings.empty() || replay_) return;
  for (const Rebinding& rebinding : rebindings) add_rebinding(settings_, rebinding);
  use_bindings();
  if (host_.shows()) write_settings(settings_file(project_.id.value), settings_);
}

// The controls of the files with what the player has bound over them.
void Session::use_bindings() {
  bound_ = std::make_shared<const Controls>(with_rebindings(*files_.controls, settings_.bindings));
  gather_ = std::make_unique<InputGather>(bound_);
  gather_->count_presses_of(xray_key());
  gather_->ask_for_control(asks_for_control());
  simulation_.use(bound_);
}

bool Session::over() const {
  if (host_.closing() || end_signal() != 0) return true;
  if (options_.ticks && ticks() >= *options_.ticks) return true;
  return replay_ && ticks() >= replay_->length();
}

bool Session::step() {
  try {
    return go_on();
  } catch (...) {
    // What was played is kept, whatever ends the game.
    try {
      save_recording();
    } catch (const Error& error) {
      fmt::print(stderr, "{}\n", error.what());
    }
    throw;
  }
}

void Session::save_recording() {
  if (recorder_) recorder_->write(options_.record, ticks(), checksum());
  recorder_.reset();
}

bool Session::go_on() {
  if (over()) return false;
  gather_->ask_for_control(asks_for_control());
  host_.gather(*gather_);
  if (gather_->take_counted() % 2 != 0) xray_ = xray_.next();
  const std::int64_t elapsed = host_.elapsed();
  gather_->pass(static_cast<double>(elapsed) / 1e9);
  const int due = ticker_.add(elapsed);
  if (loading_)
    go_on_loading();
  else
    for (int i = 0; i < due && !over() && ticks_may_pass(); ++i) survive([this] { tick(); });
  if (host_.shows()) {
    if (files_.changes_are_due()) refresh();
    notice_stand_ins();
    host_.present(draw(ticker_.share_of_tick()));
  } else {
    say_progress();
  }
  return !over();
}

void Session::notice_stand_ins() {
  const int made = files_.catalog.stand_ins_made();
  if (made == stand_ins_seen_) return;
  stand_ins_seen_ = made;
  trouble_.print(files_.catalog.broken());
  show_trouble();
}

void Session::say_progress() {
  if (ticks() % 64 != 0 || Clock::now() - progress_said_ < std::chrono::seconds(1)) return;
  progress_said_ = Clock::now();
  const std::int64_t last = replay_ ? replay_->length() : options_.ticks.value_or(0);
  if (last > 0)
    fmt::print(stderr, "tick {} of {}\n", ticks(), last);
  else
    fmt::print(stderr, "tick {}\n", ticks());
}

void Session::show_trouble() {
  std::vector<Problem> all = files_.problems();
  all.insert(all.end(), scene_problems_.begin(), scene_problems_.end());
  trouble_.show(all);
  host_.tell(trouble_.first_line());
}

const Image& Session::draw(float share) {
  list_.start(project_.canvas);
  if (loading_) {
    canvas_.fill({0x1b, 0x1a, 0x26, 0xff});
    draw_progress(list_, preload_.done(), preload_.total());
  } else {
    canvas_.fill(simulation_.sky());
    if (!simulation_.half_entered()) survive([&] { simulation_.draw(list_, share, xray_ | stage().xray()); });
  }
  list_.end_view();
  trouble_.draw(list_);
  list_.sort();
  raster_.draw(list_, canvas_);
  return canvas_;
}

void Session::save_shots() {
  for (const Shot& shot : options_.shots)
    if (shot.tick == ticks()) save_shot(shot);
}

void Session::save_shot(const Shot& shot) {
  int factor = options_.scale > 0 ? options_.scale : 4;
  while (factor > 1 && !may_be_enlarged(canvas_.size(), factor)) --factor;
  write_png(shot.file, enlarged(draw(1.0f), factor));
  fmt::print("{}: {} at tick {}\n", shot.file, scene_name(), ticks());
}

Report Session::refresh() {
  LiveFiles::Refreshed refreshed = files_.refresh();
  if (refreshed.settings) use_bindings();
  Report kinds;
  simulation_.recompile_kinds(kinds);
  scene_problems_ = kinds.problems();
  trouble_.forget();
  // A scene that could not begin with the last files may begin with the new ones.
  if (simulation_.half_entered()) survive([this] { simulation_.enter_again(); });
  trouble_.print(refreshed.report.problems());
  trouble_.print(scene_problems_);
  show_trouble();
  return std::move(refreshed.report);
}

int Session::finish() {
  // Shown pictures lie between ticks; the last one is of the end.
  if (host_.shows()) host_.present(draw(1.0f));
  const bool recorded = recorder_.has_value();
  save_recording();
  bool all_saved = true;
  for (const Shot& shot : options_.shots) {
    if (!shot.tick) save_shot(shot);
    if (!shot.tick || *shot.tick <= ticks()) continue;
    all_saved = false;
    fmt::print(stderr, "{}: error: not saved: the run ended at tick {}, before {}\n", shot.file, ticks(),
               *shot.tick);
  }
  const std::string checksum_now = checksum_text(checksum());
  if (!replay_) {
    if (options_.headless || recorded) fmt::print("{} ticks, checksum {}\n", ticks(), checksum_now);
    return all_saved ? 0 : 1;
  }
  const std::vector<Problem>& differences = replay_->differences();
  for (const Problem& problem : differences) fmt::print(stderr, "{}\n", to_text(problem));
  const bool whole = ticks() >= replay_->length();
  fmt::print("replayed {} ticks, checksum {}: {}\n", ticks(), checksum_now,
             !whole                 ? "not to the end"
             : replay_->is_script() ? "a script, compared with nothing"
             : differences.empty()  ? "as recorded"
                                    : "not as recorded");
  return differences.empty() && all_saved ? 0 : 1;
}

}  // namespace vole
