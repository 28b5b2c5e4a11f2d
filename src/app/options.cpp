#include "vole/app/options.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <cstdio>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"

namespace vole {
namespace {

// "FILE" or "FILE@TICK".
Shot parse_shot(const std::string& text) {
  const std::size_t at = text.rfind('@');
  if (at == std::string::npos) return {text, std::nullopt};
  const std::string tick = text.substr(at + 1);
  if (tick.empty() || tick.size() > 12 || tick.find_first_not_of("0123456789") != std::string::npos)
    throw CLI::ValidationError("--shot", "\"" + text + "\": a tick is a whole number, as in picture.png@120");
  return {text.substr(0, at), std::stoll(tick)};
}

// A run without a window must end by itself: at the last picture asked for, if nothing else is
// said.
void end_somewhere(Options& options) {
  if (!options.headless || options.ticks || !options.replay.empty() || !options.schemas.empty()) return;
  for (const Shot& shot : options.shots)
    if (shot.tick) options.ticks = std::max(options.ticks.value_or(0), *shot.tick);
  if (!options.ticks)
    throw CLI::ValidationError("--headless",
                               "say where the run ends: with --ticks N, --replay FILE or --shot FILE@TICK");
}

XrayParts xray_of(const std::string& words) {
  try {
    return parse_xray(words);
  } catch (const Error& error) {
    throw CLI::ValidationError("--xray", to_text(error.problems()[0]));
  }
}

std::vector<std::string> long_options(const CLI::App& app) {
  std::vector<std::string> names;
  for (const CLI::Option* option : app.get_options())
    for (const std::string& name : option->get_lnames()) names.push_back("--" + name);
  return names;
}

}  // namespace

std::string not_understood(const std::string& word, std::span<const std::string> options) {
  if (!word.starts_with('-')) return fmt::format("nothing is done with the word \"{}\"", word);
  return fmt::format("no option \"{}\"; {}", word, did_you_mean(word, options));
}

std::optional<int> parse_options(int argc, const char* const* argv, const std::string& title,
                                 Options& options) {
  CLI::App app(title);
  std::vector<std::string> shots;
  app.add_flag("--headless", options.headless, "Run without a window, as fast as it goes");
  app.add_option("--ticks", options.ticks, "End after this many ticks")
      ->check(CLI::Range(std::int64_t{0}, std::int64_t{1'000'000'000'000}));
  app.add_option("--shot", shots, "Save a picture of a tick, or of the end; may be given more than once")
      ->type_name("FILE[@TICK]")
      ->allow_extra_args(false);
  app.add_option("--seed", options.seed,
                 "Seed of all chance (when left out: drawn for a window, 0 with --headless)")
      ->check(CLI::Validator(
          [](const std::string& text) {
            const bool digits = !text.empty() && text.find_first_not_of("0123456789") == std::string::npos;
            return digits ? std::string() : "a seed is a whole number from 0 on";
          },
          ""));
  app.add_option("--record", options.record, "Write what is done to a file that --replay can repeat")
      ->type_name("FILE");
  CLI::Option* const replay = app.add_option(
      "--replay", options.replay, "Repeat a recorded run and check that it ends in the same state");
  replay->type_name("FILE")->excludes("--record", "--seed");
  app.add_option("--compare", options.compare,
                 "With --replay: play another recording beside it, and print the first tick, thing and field "
                 "that differ")
      ->type_name("FILE")
      ->needs(replay);
  std::string xray_parts;
  const CLI::Option* const xray =
      app.add_option("--xray", xray_parts,
                     "Draw what is solid, what is met and what checks see over the picture; or some of "
                     "tiles, bodies, "
                     "zones, checks, contacts, pivots, names, lamps, camera, as bodies,checks")
          ->type_name("[PARTS]")
          ->expected(0, 1);
  app.add_flag("--mute", options.mute, "No sound");
  app.add_option(
         "--schemas", options.schemas,
         "Write the JSON Schemas of the game's files, with its own components, into a folder, and end")
      ->type_name("DIR");
  app.add_option("--scale", options.scale, "Window and shot pixels to one pixel of the canvas")
      ->check(CLI::Range(1, 32));
  try {
    app.parse(argc, argv);
    for (const std::string& text : shots) options.shots.push_back(parse_shot(text));
    if (xray->count() > 0) options.xray = xray_of(xray_parts);
    end_somewhere(options);
  } catch (const CLI::ExtrasError&) {
    const std::vector<std::string> left = app.remaining();
    fmt::print(stderr, "{}\nRun with --help for more information.\n",
               not_understood(left.empty() ? std::string() : left.front(), long_options(app)));
    return 2;
  } catch (const CLI::ParseError& error) {
    return app.exit(error) == 0 ? 0 : 2;
  }
  return std::nullopt;
}

}  // namespace vole
