// A save as a file: what it is of, what it holds, and a sum over all of it. A text, in TOML:
//
//   # A save of a game made with Vole. A change by hand makes it useless.
//   sum = "5b1c6f0a9d2e4b7c"                  # of all that comes after this line
//   format = 1
//   game = "allotment"
//   version = 2                               # of what the game saves
//   title = "The beds"
//   time = "2026-12-02 10:31"                 # of the player's clock, and only shown
//   count = 17                                # one more with each save: the newest has the largest
//   picture = "iVBORw0KGgo..."                # a small PNG in base64, or nothing
//   [values.purse]                            # what it holds
//   coins = 12
#pragma once

#include <string>
#include <string_view>

#include "vole/base/describe.hpp"
#include "vole/base/toml_value.hpp"

namespace vole {

struct SaveHead {
  static constexpr int known_format = 1;
  static constexpr std::size_t longest_title = 200;  // bytes

  int format = known_format;
  std::string game;
  int version = 1;
  std::string title;
  std::string time;
  std::int64_t count = 0;
  std::string picture;
};
template <class V>
void describe(V& v, SaveHead& head) {
  v("format", head.format);
  v("game", head.game);
  v("version", head.version);
  v("title", head.title);
  v("time", head.time);
  v("count", head.count);
  v("picture", head.picture);
}

struct SaveFile {
  static constexpr std::size_t most_bytes = 64 << 20;
  static constexpr int most_values = 2'000'000;

  SaveHead head;
  TomlValue holds;    // the tables beside it
  std::string lines;  // the same as they are written
};

// `holds`: the lines of tables. Throws Error for what could not be read again: a text that is not in UTF-8, more
// than a save may hold.
std::string save_text(const SaveHead& head, std::string_view holds);
// With the mark and the sum put before everything else.
std::string save_text_of_body(std::string_view body);
// Throws Error with the file's name and one sentence: for what is no save, is cut short or damaged, is of another game or format, or is too
// large. `game` empty: of any game.
SaveFile read_save(std::string_view text, const std::string& file, std::string_view game);
// Whether it is a save, of any game and format, and its sum is right.
bool is_whole_save(std::string_view text);
// The head alone, with the sum checked: what a list of saves shows.
SaveHead read_save_head(std::string_view text, const std::string& file, std::string_view game);

}  // namespace vole
