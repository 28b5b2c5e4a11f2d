// The saves of a game in a folder, each by a name, with the one before it beside it. What a call has written is there from its return on,
// whatever ends the program; and what ends it within a call leaves what was there before it.
//
//   SaveFolder saves(player_folder("allotment"), "allotment");
//   saves.write("slot one", [&](const SaveHead* now) { return save_text(head_after(now), holds); });
//   const auto read = saves.read("slot one");
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/saves/save_file.hpp"

namespace vole {

class SaveFolder {
 public:
  static constexpr std::size_t most_saves = 1000;

  // `folder` is made by the first write; empty: nothing can be kept, and nothing is there.
  SaveFolder(std::string folder, std::string game);

  struct Listed {
    std::string name;
    SaveHead head;
    std::string
        problem;  // in one sentence; of what is damaged the head is that of the one before, if there is one
  };
  // Those whose names begin so, the newest first. What cannot be read at all has a problem and no title.
  std::vector<Listed> list(std::string_view begin) const;

  struct Read {
    SaveFile save;
    std::string problem;  // where the newest is damaged, and this is the one before it
  };
  // None: there is no save of this name. Throws Error, in one sentence, where there is one and it cannot be read.
  std::optional<Read> read(std::string_view name) const;
  // The text of a save, which `make` makes knowing the head of the one that is there, if any. Throws Error, also where a save of another game
  // or of a newer format is in its place.
  void write(std::string_view name, const std::function<std::string(const SaveHead* now)>& make) const;
  // With the one before it. Throws Error.
  void remove(std::string_view name) const;

 private:
  std::string file_of(std::string_view name) const;
  std::string before_of(std::string_view name) const;
  template <class Result>
  std::optional<std::pair<Result, std::string>> newest(std::string_view name,
                                                       Result (*parse)(std::string_view, const std::string&,
                                                                       std::string_view)) const;

  std::string folder_, game_;
};

// Names are files' names on every system: 1 to 64 small letters, digits, '-', '_', and spaces between them. Throws Error.
inline constexpr std::size_t longest_save_name = 64;
void expect_save_name(std::string_view name, std::size_t longest = longest_save_name);
// What games name is kept in files that are named so, and has shorter names.
inline constexpr std::string_view slot_file_begin = "slot ", value_file_begin = "value ";
inline constexpr std::size_t longest_slot_name = 58;

}  // namespace vole
