#include "vole/app/options.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cstdio>
#include <limits>

#include "option_words.hpp"
#include "vole/app/printed_values.hpp"
#include "vole/base/error.hpp"
#include "vole/base/names.hpp"

namespace vole {
namespace {

using Value = OptionWord::Value;

constexpr std::int64_t most_ticks_of_run = 1'000'000'000'000;

// "FILE" or "FILE@TICK".
std::string take_shot(const std::string& text, std::string_view example, std::vector<Shot>& shots) {
  const std::size_t at = text.rfind('@');
  Shot shot{text.substr(0, at), std::nullopt};
  if (at != std::string::npos) {
    std::uint64_t tick = 0;
    if (const std::string wrong = take_whole(text.substr(at + 1), 0, most_ticks_of_run, tick); !wrong.empty())
      return fmt::format("after the @ of \"{}\", as in {}, {}", text, example, wrong);
    shot.tick = static_cast<std::int64_t>(tick);
  }
  if (shot.file.empty()) return fmt::format("the name of a file is wanted, as in {}", example);
  shots.push_back(std::move(shot));
  return {};
}

// "VALUES" or "VALUES@N".
std::string take_print(const std::string& text, Options& options) {
  const std::size_t at = text.rfind('@');
  if (at != std::string::npos) {
    std::uint64_t every = 0;
    if (const std::string wrong = take_whole(text.substr(at + 1), 1, most_ticks_of_run, every);
        !wrong.empty())
      return fmt::format("after the @ of \"{}\", as in robin.pose.at@60, {}", text, wrong);
    options.print_every = static_cast<std::int64_t>(every);
  }
  options.print = text.substr(0, at);
  try {
    static_cast<void>(PrintedValues(options.print));
  } catch (const Error& error) {
    const Problem& problem = error.problems()[0];
    return problem.text + (problem.hint.empty() ? "" : "; " + problem.hint);
  }
  return {};
}

std::string take_xray(const std::string& words, XrayParts& parts) {
  try {
    parts = parse_xray(words);
  } catch (const Error& error) {
    const Problem& problem = error.problems()[0];
    return problem.text + (problem.hint.empty() ? "" : "; " + problem.hint);
  }
  return {};
}

// A file or folder.
OptionWord path_option(std::string name, std::string value_name, std::string& path, std::string help) {
  return {std::move(name), std::move(value_name), Value::needed, std::move(help),
          [&path](const std::string& value) {
            path = value;
            return value.empty() ? std::string("a name is wanted, and it is empty") : std::string();
          }};
}
OptionWord flag(std::string name, bool& on, std::string help) {
  return {std::move(name), {}, Value::none, std::move(help), [&on](const std::string&) {
            on = true;
            return std::string();
          }};
}
// `Whole` is the number's own type; it may be optional.
template <class Whole, class Number>
OptionWord whole_option(std::string name, Whole least, Whole most, Number& number, std::string help) {
  return {std::move(name), "N", Value::needed, std::move(help),
          [&number, least, most](const std::string& value) {
            std::uint64_t whole = 0;
            std::string wrong =
                take_whole(value, static_cast<std::uint64_t>(least), static_cast<std::uint64_t>(most), whole);
            if (wrong.empty()) number = static_cast<Whole>(whole);
            return wrong;
          }};
}

// A run without a window must end by itself: at the last picture asked for, if nothing else is
// said.
std::string end_somewhere(Options& options) {
  if (!options.headless || options.ticks || !options.replay.empty() || !options.schemas.empty()) return {};
  for (const std::vector<Shot>* const shots : {&options.shots, &options.states})
    for (const Shot& shot : *shots)
      if (shot.tick) options.ticks = std::max(options.ticks.value_or(0), *shot.tick);
  if (options.ticks) return {};
  return "--headless: say where the run ends: with --ticks N, --replay FILE or --shot FILE@TICK";
}

std::string wrong_together(const Options& options) {
  if (!options.replay.empty() && options.record == options.replay)
    return "--record would replace the recording that is replayed: choose another name";
  if (!options.replay.empty() && options.seed)
    return "--replay and --seed exclude each other: the recording has its seed";
  if (!options.replay.empty() && !options.first.empty())
    return "--replay and --scene or --with exclude each other: the recording says what it begins with";
  if (!options.replay.empty() && !options.kept_in.empty())
    return "--replay and --kept-in exclude each other: a recording holds what was loaded";
  if (!options.compare.empty() && options.replay.empty()) return "--compare needs --replay FILE";
  return {};
}

std::vector<OptionWord> options_of_games(Options& options) {
  return {
      flag("--headless", options.headless, "Run without a window, as fast as it goes"),
      whole_option<std::int64_t>("--ticks", 0, most_ticks_of_run, options.ticks, "End after this many ticks"),
      {"--scene", "NAME", Value::needed, "Begin with this scene instead of the first",
       [&options](const std::string& value) {
         options.first.scene = value;
         return value.empty() ? std::string("the name of a scene is wanted, and it is empty") : std::string();
       }},
      {"--with", "TOML", Value::needed, "What that scene is handed, as 'round = 3'",
       [&options](const std::string& value) {
         options.first.with = value;
         return std::string();
       }},
      {"--shot", "FILE[@TICK]", Value::needed,
       "Save a picture of a tick, or of the end; may be given more than once",
       [&options](const std::string& value) { return take_shot(value, "picture.png@120", options.shots); }},
      {"--state", "FILE[@TICK]", Value::needed,
       "Write the whole state after a tick, or at the end, as TOML; may be given more than once",
       [&options](const std::string& value) { return take_shot(value, "state.toml@120", options.states); }},
      {"--print", "VALUES[@N]", Value::needed,
       "Print values after each tick, or every N ticks, as \"robin.pose.at, scene.lives\"",
       [&options](const std::string& value) { return take_print(value, options); }},
      whole_option<std::uint64_t>(
          "--seed", 0, std::numeric_limits<std::uint64_t>::max(), options.seed,
          "Seed of all chance (when left out: drawn for a window, 0 with --headless)"),
      path_option("--record", "FILE", options.record,
                  "Write what is done to a file that --replay can repeat"),
      path_option("--replay", "FILE", options.replay,
                  "Repeat a recorded run and check that it ends in the same state"),
      path_option(
          "--compare", "FILE", options.compare,
          "With --replay: play another recording beside it, and print the first tick, thing and field "
          "that differ"),
      {"--xray", "[PARTS]", Value::optional,
       "Draw what is solid, what is met and what probes see over the picture; or some of tiles, bodies, "
       "zones, probes, contacts, pivots, names, lamps, camera, as bodies,probes",
       [&options](const std::string& value) { return take_xray(value, options.xray); }},
      path_option("--kept-in", "DIR", options.kept_in,
                  "Keep saves and settings in this folder instead of the usual place, also with --headless"),
      flag("--force", options.force,
           "Replace files of the names of --shot, --state and --record that Vole did not make"),
      flag("--mute", options.mute, "No sound"),
      path_option(
          "--schemas", "DIR", options.schemas,
          "Write the JSON Schemas of the game's files, with its own components, into a folder, and end"),
      whole_option("--scale", 1, 32, options.scale, "Window and shot pixels to one pixel of the canvas"),
  };
}

}  // namespace

std::string not_understood(const std::string& word, std::span<const std::string> options) {
  if (!word.starts_with('-')) return fmt::format("unexpected word \"{}\"", word);
  return fmt::format("no option \"{}\"; {}", word, did_you_mean(word, options));
}

std::optional<int> parse_options(int argc, const char* const* argv, const std::string& title,
                                 Options& options) {
  const std::vector<std::string> words(argv + std::min(argc, 1), argv + argc);
  const std::vector<OptionWord> known = options_of_games(options);
  const auto asks_for_help = [](const std::string& word) { return word == "--help" || word == "-h"; };
  if (std::any_of(words.begin(), words.end(), asks_for_help)) {
    fmt::print("{}", help_text(title, argc > 0 ? argv[0] : "game", known));
    return 0;
  }
  std::string wrong = take_words(words, known);
  if (wrong.empty()) wrong = wrong_together(options);
  if (wrong.empty()) wrong = end_somewhere(options);
  if (wrong.empty()) return std::nullopt;
  fmt::print(stderr, "{}\nRun with --help for more information.\n", wrong);
  return 2;
}

}  // namespace vole
