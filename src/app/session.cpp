#include "vole/app/session.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <random>

#include "vole/base/output_files.hpp"
#include "vole/base/program.hpp"
#include "vole/saves/player_folder.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

using Clock = std::chrono::steady_clock;

// A play in a window has a new seed each time; a headless one has always the same.
std::uint64_t seed_for(const Options& options, const Host& host) {
  if (options.seed) return *options.seed;
  return host.shows() ? std::random_device()() : 0;
}

// Better now than after the play.
void expect_outputs(const Options& options) {
  OutputFiles outputs(options.force);
  if (!options.replay.empty()) outputs.keep(options.replay, "is the recording that is replayed");
  for (const Shot& shot : options.shots) outputs.add(shot.file, OutputKind::picture);
  for (const Shot& state : options.states) outputs.add(state.file, OutputKind::state);
  if (!options.record.empty()) outputs.add(options.record, OutputKind::recording);
}

// The same, each with these words before it where it has no place in a file.
std::vector<Problem> with_words_before(std::vector<Problem> problems, const std::string& words) {
  for (Problem& problem : problems)
    if (!problem.where.file) problem.text.insert(0, words);
  return problems;
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
                  : std::optional<Replay>(std::in_place, options_.replay, project_, *recorded_)),
      seed_(replay_ ? replay_->seed() : seed_for(options_, host)),
      simulation_(game_,
                  {files_.catalog, files_.kinds, files_.controls, project_.canvas, project_.ticks_per_second},
                  seed_),
      bindings_(files_.controls),
      saves_(kept_folder(), project_.id.value, game_),
      clock_(project_.ticks_per_second),
      loading_(project_.assets, files_.catalog),
      pictures_(options_.shots, [this](const std::string& file) { save_picture(file); }),
      states_(options_.states, [this](const std::string& file) { write_whole(file, simulation_.to_toml()); }),
      printed_(options_.print.empty() ? std::nullopt : std::optional<PrintedValues>(options_.print)),
      xray_(options_.xray),
      trouble_(project_.root),
      canvas_(project_.canvas),
      progress_said_(Clock::now()) {
  expect_outputs(options_);
  const FirstScene first = replay_ ? replay_->first() : options_.first;
  bindings_.gather().count_presses_of(xray_key());
  if (const std::string folder = kept_folder(); !folder.empty()) {
    Report wrong;
    bindings_.read(settings_file(folder), wrong);
    trouble_.print(wrong.problems());
    simulation_.use(bindings_.controls());
  }
  if (!options_.record.empty()) recorder_.emplace(project_, seed_, *recorded_, first);
  // Files must not change during a run that is recorded or replayed.
  if (host_.shows() && !replay_ && !recorder_) files_.watch();
  if (host_.shows() && recorder_)
    fmt::print(stderr,
               "recording to {}: files that change are taken over by the next start, not while it lasts\n",
               options_.record);
  ask_for(simulation_, game_, project_, first);
  saves_.begin();
  take_arrived();
  begin_change();
  // A wrong name is an error while the game starts; from here on it is shown and can be fixed.
  if (files_.watched()) files_.catalog.use_stand_ins();
  write_due();
}

Session::~Session() = default;

std::string Session::kept_folder() const {
  if (replay_) return {};
  if (!options_.kept_in.empty()) return options_.kept_in;
  return host_.shows() ? player_folder(project_.id.value) : std::string();
}

void Session::begin_change() {
  const SceneChange& change = *simulation_.change();
  scene_problems_.clear();
  if (change.how == SceneChange::How::closes || change.how == SceneChange::How::goes) return make_change();
  // What is held here is not a press there. Under a scene that opens all goes on as it was.
  if (change.how == SceneChange::How::leaves) bindings_.gather().release_all();
  loading_.begin(change.scene);
  if (!host_.shows())
    while (!loading_.complete() && end_signal() == 0) loading_.step();
  if (loading_.complete()) make_change();
}

// As much as there is time for between two pictures, so that the bar moves.
void Session::go_on_loading() {
  const auto start = Clock::now();
  while (!loading_.complete() && Clock::now() - start < std::chrono::milliseconds(10))
    survive([this] { loading_.step(); });
  if (loading_.complete()) survive([this] { make_change(); });
}

void Session::make_change() {
  loading_.end();
  simulation_.make_change();
  loading_.drop_unwanted(simulation_.pile().names());
}

template <class Work>
void Session::survive(const Work& work) {
  std::vector<Problem> problems;
  try {
    work();
    return;
  } catch (const Error& error) {
    problems = error.problems();
  } catch (const std::exception& error) {
    problems = {{FilePosition{}, Severity::error, error.what(), ""}};
  }
  const std::string when = fmt::format("scene \"{}\", tick {}: ", scene_name(), ticks());
  // Where nobody watches it ends the run: an error must not pass for a result.
  if (!files_.watched()) throw Error(with_words_before(problems, when));
  // What is thrown in each tick is reported and shown as it was first.
  if (!trouble_.print(problems, when) && !scene_problems_.empty()) return;
  scene_problems_ = with_words_before(problems, when);
  show_trouble();
}

void Session::tick() {
  while (loading()) go_on_loading();
  take_arrived();
  const TickInput& input = replay_ ? replay_->next() : bindings_.gather().latch();
  if (recorder_) recorder_->add(ticks(), input);
  survive([&] { simulation_.tick(input); });
  survive([this] { take_outbox(); });
  if (replay_ && replay_->wants_check(ticks())) replay_->check(ticks(), checksum());
  if (recorder_ && recorder_->wants_checkpoint(ticks())) recorder_->add_checkpoint(ticks(), checksum());
  if (recorder_ && recorder_->full()) save_full_recording();
  if (simulation_.change()) survive([this] { begin_change(); });
  write_due();
}

void Session::save_picture(const std::string& file) {
  const Image& canvas = draw(1.0f);
  int factor = options_.scale > 0 ? options_.scale : 4;
  while (factor > 1 && !may_be_enlarged(canvas.size(), factor)) --factor;
  write_whole(file, marked_as_output(encode_png(enlarged(canvas, factor))));
}

void Session::write_due() {
  pictures_.save_due(ticks(), scene_name());
  states_.save_due(ticks(), scene_name());
  if (printed_ && ticks() % options_.print_every == 0)
    fmt::print("tick {}: {}\n", ticks(), printed_->line(simulation_, game_.types()));
}

bool Session::asks_for_control() const {
  return !loading() && !scene_name().empty() && stage().world().asks_for_control;
}

// What the player has bound counts from the next tick on, and is kept; in a replay it does not count.
void Session::take_outbox() {
  const Outbox out = simulation_.take_outbox();
  if (replay_ || out.empty()) return;
  if (!out.rebindings.empty()) {
    bindings_.add(out.rebindings);
    simulation_.use(bindings_.controls());
  }
  saves_.take(out, [this]() -> const Image& {
    picture_.draw(simulation_, game_, files_.catalog, 1, {}, canvas_);
    return canvas_;
  });
  write_kept(false);
}

// A value may change in every tick, and a disk is slow.
void Session::write_kept(bool at_once) {
  constexpr std::chrono::seconds between(1);
  if (!saves_.has_unwritten() || (!at_once && Clock::now() - kept_written_ < between)) return;
  kept_written_ = Clock::now();
  saves_.write_kept();
}

void Session::take_arrived() {
  write_kept(false);
  if (replay_) {
    if (const Arrived* const arrived = replay_->take_arrived(ticks())) take_in(*arrived);
    return;
  }
  Arrived arrived = saves_.take_arrived();
  if (arrived.empty()) return;
  arrived.tick = ticks();
  if (recorder_ && !recorder_->add(arrived)) save_full_recording();
  take_in(arrived);
}

void Session::take_in(const Arrived& arrived) {
  survive([&] {
    const std::vector<Problem> unheard = simulation_.arrive(arrived);
    if (unheard.empty()) return;
    trouble_.print(unheard);
    if (host_.shows()) trouble_.show(unheard);
  });
}

void Session::save_full_recording() {
  fmt::print(stderr, "{} is as large as a recording may be: it ends at tick {}\n", options_.record, ticks());
  save_recording();
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
      write_kept(true);
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
  InputGather& gather = bindings_.gather();
  gather.ask_for_control(asks_for_control());
  host_.gather(gather);
  if (gather.take_counted() % 2 != 0) xray_ = xray_.next();
  const std::int64_t elapsed = host_.elapsed();
  gather.pass(static_cast<double>(elapsed) / 1e9);
  const int due = clock_.add(elapsed);
  if (loading())
    go_on_loading();
  else
    for (int i = 0; i < due && !over() && ticks_may_pass(); ++i) tick();
  if (host_.shows()) {
    if (files_.changes_are_due()) refresh();
    notice_stand_ins();
    host_.present(draw(clock_.share_of_tick()));
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
  // Where a scene is shown until the next has what it needs, the bar lies over it.
  const SceneChange* const next = loading() ? simulation_.change() : nullptr;
  const bool waits_in_the_dark = next && next->how == SceneChange::How::leaves &&
                                 next->transition.look == Transition::Look::cut && !next->stays_seen;
  if (simulation_.running() && !waits_in_the_dark)
    survive(
        [&] { picture_.draw(simulation_, game_, files_.catalog, share, xray_ | stage().xray(), canvas_); });
  else
    canvas_.fill({0x1b, 0x1a, 0x26, 0xff});
  list_.start(project_.canvas);
  if (loading()) draw_progress(list_, loading_.done(), loading_.total());
  trouble_.draw(list_);
  list_.sort();
  raster_.draw(list_, canvas_);
  return canvas_;
}

Report Session::refresh() {
  LiveFiles::Refreshed refreshed = files_.refresh();
  if (refreshed.settings) {
    bindings_.use(files_.controls);
    simulation_.use(bindings_.controls());
  }
  Report kinds;
  simulation_.recompile_kinds(kinds);
  scene_problems_ = kinds.problems();
  trouble_.forget();
  // A scene that could not come with the last files may come with the new ones.
  if (simulation_.ask_again() && !loading() && simulation_.change()) survive([this] { begin_change(); });
  trouble_.print(refreshed.report.problems());
  trouble_.print(scene_problems_);
  show_trouble();
  return std::move(refreshed.report);
}

int Session::finish() {
  // Shown pictures lie between ticks; the last one is of the end.
  if (host_.shows()) host_.present(draw(1.0f));
  write_kept(true);
  for (const SaveAnswer& answer : saves_.take_arrived().answers)
    if (!answer.ok()) fmt::print(stderr, "{}\n", answer.problem);
  const bool recorded = recorder_.has_value();
  save_recording();
  const bool pictures_saved = pictures_.save_last(ticks(), scene_name());
  const bool all_saved = states_.save_last(ticks(), scene_name()) && pictures_saved;
  const std::string checksum_now = checksum_text(checksum());
  if (!replay_) {
    if (options_.headless || recorded) fmt::print("{} ticks, checksum {}\n", ticks(), checksum_now);
    return all_saved ? 0 : 1;
  }
  const std::vector<Problem>& differences = replay_->differences();
  for (const Problem& problem : differences) fmt::print(stderr, "{}\n", to_text(problem));
  const bool whole = ticks() >= replay_->length();
  fmt::print("replayed {} ticks, checksum {}: {}\n", ticks(), checksum_now,
             !whole                    ? "not to the end"
             : replay_->is_unchecked() ? "unchecked: its end is not compared"
             : differences.empty()     ? "as recorded"
                                       : "not as recorded");
  return differences.empty() && all_saved ? 0 : 1;
}

}  // namespace vole
