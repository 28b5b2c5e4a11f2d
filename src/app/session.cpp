#include "vole/app/session.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cstdio>

#include "vole/base/files.hpp"
#include "vole/version.hpp"

namespace vole {
namespace {

constexpr std::int64_t ticks_between_checkpoints = 300;

Controls controls_of(const Project& project) {
  const std::string file = join_path(project.root, "controls.toml");
  return file_exists(file) ? read_controls(file) : Controls{};
}

void print_problems(const std::vector<Problem>& problems) {
  for (const Problem& problem : problems) fmt::print(stderr, "{}\n", to_text(problem));
}

}  // namespace

// Real time for what the simulation must not know: progress and looking for changed files.
struct Session::Clock {
  using Now = std::chrono::steady_clock;
  Now::time_point told = Now::now();
  std::optional<Now::time_point> first_change, last_change;  // of files, not looked at yet

  static bool passed(Now::time_point& since, std::chrono::milliseconds span) {
    const Now::time_point now = Now::now();
    if (now - since < span) return false;
    since = now;
    return true;
  }
};

Session::Session(const Game& game, Project project, const Options& options, Host& host)
    : game_(game),
      project_(std::move(project)),
      options_(options),
      host_(host),
      controls_(controls_of(project_)),
      kinds_(read_kinds(project_.root)),
      catalog_(project_.root),
      gather_(std::make_unique<InputGather>(controls_)),
      ticker_(project_.ticks_per_second),
      canvas_(project_.canvas),
      clock_(std::make_unique<Clock>()) {
  if (!options.replay.empty()) {
    recording_ = read_recording(options.replay);
    check_recording(Place::whole_file(options.replay));
    reader_ = std::make_unique<InputReader>(recording_, controls_);
  } else {
    recording_.game = project_.id.value;
    recording_.game_version = project_.version;
    recording_.vole_version = version;
    recording_.seed = options.seed.value_or(0);
    recording_.ticks_per_second = project_.ticks_per_second;
    if (!options.record.empty()) writer_ = std::make_unique<InputWriter>(controls_);
  }
  settings_stamp_ = stamp_settings();
  // A run that is recorded or repeated must not change under way.
  if (host_.shows() && !reader_ && !writer_) {
    const auto below = [this](const char* folder) { return join_path(project_.root, folder); };
    watch_ = watch_files({{below("assets"), below("levels"), below("kinds")}, {project_.root}});
  }
  chance_ = Random(recording_.seed);
  enter(project_.first_scene.value, {}, project_.first_scene.place);
  // A wrong name is an error while the game starts, and from here on something to be shown and mended.
  if (watch_) catalog_.use_stand_ins();
  save_shots();
}

Session::~Session() = default;

void Session::check_recording(const Place& place) const {
  if (recording_.game != project_.id.value)
    throw Error(place, fmt::format("is a recording of the game \"{}\", and this is \"{}\"", recording_.game,
                                   project_.id.value));
  if (recording_.ticks_per_second != project_.ticks_per_second)
    throw Error(place,
                fmt::format("was recorded at {} ticks a second, and this build runs at {}",
                            recording_.ticks_per_second, project_.ticks_per_second),
                "record it again with --record");
}

void Session::enter(std::string_view scene, std::any carried, const Place& asked) {
  auto next = game_.make_scene(scene, asked);
  const StageSetting setting{catalog_, kinds_, game_.types(), project_.canvas, project_.ticks_per_second};
  auto stage = std::make_unique<Stage>(setting, std::uint64_t{chance_.next()} << 32 | chance_.next());
  carried_ = std::move(carried);
  stage->bring(carried_);
  if (scene_) {
    history_ = checksum();
    scene_->leave(*stage_);
  }
  // What is held here is not a press there.
  gather_->release_all();
  scene_.reset();
  stage_ = std::move(stage);
  next_scene_ = std::move(next);
  scene_name_ = scene;
  scene_problems_.clear();
  wanted_ = wanted_by_scene(project_.assets, scene, catalog_);
  preload_ = Preload(catalog_, wanted_);
  if (!host_.shows())
    while (!preload_.over()) preload_.step();
  if (preload_.over()) begin_scene();
}

void Session::begin_scene() {
  if (!project_.assets.groups.empty()) drop_unwanted(project_.assets, wanted_, catalog_);
  scene_ = std::move(next_scene_);
  half_entered_ = true;
  scene_->enter(*stage_);
  half_entered_ = false;
}

// As much as there is time for between two pictures, so that the bar moves.
void Session::go_on_loading() {
  const auto start = Clock::Now::now();
  while (!preload_.over() && Clock::Now::now() - start < std::chrono::milliseconds(10))
    survive([this] { preload_.step(); });
  if (preload_.over()) survive([this] { begin_scene(); });
}

template <class Work>
void Session::survive(const Work& work) {
  if (!watch_) return work();
  try {
    work();
  } catch (const Error& error) {
    scene_problems_ = error.problems();
    tell_problems(scene_problems_);
    show_trouble();
  }
}

void Session::tick() {
  while (next_scene_) go_on_loading();
  const TickInput& input = reader_ ? reader_->next() : gather_->latch();
  if (writer_) writer_->add(ticks_, input, recording_.inputs);
  stage_->begin_tick(input);
  scene_->tick(*stage_);
  stage_->end_tick();
  ++ticks_;
  if (const SceneChange* change = stage_->change()) {
    const SceneChange taken = *change;
    enter(taken.scene, taken.carried, {});
  }
  if (reader_) check_replay();
  if (writer_ && ticks_ % ticks_between_checkpoints == 0)
    recording_.checkpoints.push_back({fmt::format("{} {}", ticks_, checksum_text(checksum())), {}});
  save_shots();
}

std::uint64_t Session::checksum() const {
  Hash hash;
  hash.add(history_);
  hash.add(std::string_view(scene_name_));
  hash.add(chance_.state());
  stage_->add_to(hash);
  if (scene_) scene_->add_to(hash);
  return hash.value();
}

void Session::check_replay() {
  if (next_checkpoint_ < recording_.checkpoints.size() && differences_.empty()) {
    const Located<std::string>& line = recording_.checkpoints[next_checkpoint_];
    const std::string now = fmt::format("{} {}", ticks_, checksum_text(checksum()));
    if (line.value.starts_with(fmt::format("{} ", ticks_))) {
      ++next_checkpoint_;
      if (line.value != now)
        differences_.push_back({line.place, Severity::error,
                                fmt::format("at tick {} the state differs from the recording", ticks_), ""});
    }
  }
  if (ticks_ != recording_.ticks) return;
  if (checksum_text(checksum()) == recording_.checksum) return;
  const std::string made =
      fmt::format("{} {} with vole {}", recording_.game, recording_.game_version, recording_.vole_version);
  const std::string here = fmt::format("{} {} with vole {}", project_.id.value, project_.version, version);
  differences_.push_back(
      {Place::whole_file(options_.replay), Severity::error,
       fmt::format("the run ends in state {}, and the recording in {}", checksum_text(checksum()),
                   recording_.checksum),
       made == here ? "the game or its files changed since; record it again with --record"
                    : fmt::format("it was recorded by {}, and this is {}; record it again with --record",
                                  made, here)});
}

bool Session::over() const {
  if (host_.closing()) return true;
  if (options_.ticks && ticks_ >= *options_.ticks) return true;
  return reader_ && ticks_ >= recording_.ticks;
}

bool Session::step() {
  host_.gather(*gather_);
  const int due = ticker_.add(host_.elapsed());
  if (next_scene_)
    go_on_loading();
  else
    for (int i = 0; i < due && !over() && !next_scene_ && !half_entered_; ++i) survive([this] { tick(); });
  if (host_.shows()) {
    if (watch_) look_for_changes();
    if (const int missing = catalog_.stand_ins_made(); missing != stand_ins_seen_) {
      stand_ins_seen_ = missing;
      tell_problems(catalog_.broken());
      show_trouble();
    }
    host_.present(draw(ticker_.between()));
  } else {
    say_progress();
  }
  return !over();
}

void Session::say_progress() {
  if (ticks_ % 64 != 0 || !Clock::passed(clock_->told, std::chrono::seconds(1))) return;
  const std::int64_t last = reader_ ? recording_.ticks : options_.ticks.value_or(0);
  if (last > 0)
    fmt::print(stderr, "tick {} of {}\n", ticks_, last);
  else
    fmt::print(stderr, "tick {}\n", ticks_);
}

// An editor may write a file in several steps: looked at when it has been quiet for a moment, and not put off
// for long while more changes come.
void Session::look_for_changes() {
  const auto now = Clock::Now::now();
  if (watch_->changed()) {
    clock_->last_change = now;
    if (!clock_->first_change) clock_->first_change = now;
  }
  if (!clock_->first_change) return;
  const bool quiet = now - *clock_->last_change >= std::chrono::milliseconds(40);
  const bool long_enough = now - *clock_->first_change >= std::chrono::milliseconds(120);
  if (!quiet && !long_enough) return;
  clock_->first_change.reset();
  refresh();
}

void Session::draw_loading() {
  constexpr Colour rim{0x8d, 0x93, 0xa6, 0xff}, bar{0xed, 0xa6, 0x3f, 0xff};
  const LayerId layer = list_.add_layer({0, 0});
  const Vec2 canvas(project_.canvas);
  const Rect box{{canvas.x / 4, canvas.y / 2 - 4}, {canvas.x / 2, 8}};
  const float share =
      static_cast<float>(preload_.done()) / static_cast<float>(std::max<std::size_t>(preload_.total(), 1));
  list_.outline(layer, box, rim);
  list_.fill(layer, {box.at + Vec2{2, 2}, {(box.size.x - 4) * share, box.size.y - 4}}, bar);
}

// A strip at the bottom with what is wrong.
void Session::show_trouble() {
  std::vector<Problem> all = catalog_.broken();
  all.insert(all.end(), settings_problems_.begin(), settings_problems_.end());
  all.insert(all.end(), scene_problems_.begin(), scene_problems_.end());
  trouble_ = all.empty() ? std::string() : to_text(all.front());
  // Where the game lies says nothing to its maker, and there is little room.
  if (const std::string start = project_.root + "/"; trouble_.starts_with(start))
    trouble_.erase(0, start.size());
  if (all.size() > 1) trouble_ += fmt::format("\nand {} more", all.size() - 1);
  host_.tell(trouble_.substr(0, trouble_.find('\n')));
}

// Each line once, until it has been mended and is wrong again.
void Session::tell_problems(const std::vector<Problem>& problems) {
  for (const Problem& problem : problems)
    if (told_.insert(to_text(problem)).second) fmt::print(stderr, "{}\n", to_text(problem));
}

const Image& Session::draw(float between) {
  list_.start(project_.canvas);
  if (next_scene_) {
    canvas_.fill({0x1b, 0x1a, 0x26, 0xff});
    draw_loading();
  } else {
    draw_scene(between);
  }
  if (!trouble_.empty()) {
    const Font& font = plain_font();
    const int width = project_.canvas.x - 8;
    // The game stays to be seen, however much there is to say.
    const int most = std::max(project_.canvas.y / 3, font.line_height() + 4);
    const int height = std::min(measure_text(font, trouble_, width).y + 4, most);
    const int top = project_.canvas.y - height;
    const LayerId layer = list_.add_layer({0, 0});
    list_.clip_to({{0, top}, {project_.canvas.x, height}});
    list_.fill(layer, {{0, static_cast<float>(top)}, Vec2(project_.canvas)}, {0x6e, 0x27, 0x41, 0xf0});
    draw_text(list_, layer, font, trouble_, {4, static_cast<float>(top + 2)}, {.width = width});
  }
  list_.sort();
  raster_.draw(list_, canvas_);
  return canvas_;
}

void Session::draw_scene(float between) {
  canvas_.fill(stage_->has_level() ? stage_->level().sky : Colour{0, 0, 0, 255});
  const LayerId above = stage_->draw(list_, between);
  Drawing drawing(*stage_, list_, above, between);
  if (!half_entered_) survive([&] { scene_->draw(drawing); });
  if (options_.xray) stage_->draw_xray(list_, between);
}

void Session::save_shots() {
  for (const Shot& shot : options_.shots)
    if (shot.tick == ticks_) save_shot(shot);
}

void Session::save_shot(const Shot& shot) {
  const int factor = options_.scale > 0 ? options_.scale : 4;
  write_png(shot.file, enlarged(draw(1.0f), factor));
  fmt::print("{}: {} at tick {}\n", shot.file, scene_name_, ticks_);
}

std::uint64_t Session::stamp_settings() const {
  Hash hash;
  hash.add(file_stamp(join_path(project_.root, "controls.toml")));
  hash.add(file_stamp(join_path(project_.root, "kinds.toml")));
  if (const std::string folder = join_path(project_.root, "kinds"); folder_exists(folder))
    for (const std::string& file : list_files(folder)) hash.add(file_stamp(join_path(folder, file)));
  return hash.value();
}

void Session::refresh_settings(Report& report) {
  const std::uint64_t stamp = stamp_settings();
  if (stamp == settings_stamp_) return;
  settings_stamp_ = stamp;
  try {
    Controls controls = controls_of(project_);
    kinds_ = read_kinds(project_.root);
    controls_ = std::move(controls);
    gather_ = std::make_unique<InputGather>(controls_);
    settings_problems_.clear();
  } catch (const Error& error) {
    settings_problems_ = error.problems();
    report.add(error);
  }
}

Report Session::refresh() {
  Report report;
  catalog_.refresh(report);
  refresh_settings(report);
  scene_problems_.clear();
  told_.clear();
  // What the last good version of the files could not begin, the new one may.
  if (half_entered_) survive([this] { enter(std::string(scene_name_), carried_, {}); });
  tell_problems(report.problems());
  show_trouble();
  return report;
}

int Session::finish() {
  for (const Shot& shot : options_.shots)
    if (!shot.tick) save_shot(shot);
  for (const Shot& shot : options_.shots)
    if (shot.tick && *shot.tick > ticks_)
      fmt::print(stderr, "{}: not saved: the run ended at tick {}, before {}\n", shot.file, ticks_,
                 *shot.tick);
  const std::string checksum_now = checksum_text(checksum());
  if (writer_) {
    recording_.ticks = ticks_;
    recording_.checksum = checksum_now;
    write_recording(options_.record, recording_);
  }
  print_problems(differences_);
  const bool whole = !reader_ || ticks_ >= recording_.ticks;
  if (reader_)
    fmt::print("replayed {} ticks, checksum {}: {}\n", ticks_, checksum_now,
               !whole                 ? "not to the end"
               : differences_.empty() ? "as recorded"
                                      : "not as recorded");
  else if (options_.headless || writer_)
    fmt::print("{} ticks, checksum {}\n", ticks_, checksum_now);
  return differences_.empty() ? 0 : 1;
}

}  // namespace vole
