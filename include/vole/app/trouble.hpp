// What is wrong with a running game: printed once, and shown as a strip over it until it is fixed.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "vole/base/error.hpp"
#include "vole/draw/draw_list.hpp"

namespace vole {

class Trouble {
 public:
  // `root`: the game's folder, which is left out of what is shown.
  explicit Trouble(std::string root) : root_(std::move(root)) {}

  // Prints each line once, until forget(), and at most `most_lines` of them; `when` comes before those without a place in a file, and
  // makes no other line of them. Whether there was anything new.
  bool print(const std::vector<Problem>& problems, const std::string& when = {});
  static constexpr std::size_t most_lines = 200;
  void forget() { printed_.clear(); }

  // Shows the first of these, and how many more there are; none: nothing.
  void show(const std::vector<Problem>& problems);
  // What is shown; empty: nothing.
  const std::string& text() const { return text_; }
  std::string first_line() const { return text_.substr(0, text_.find('\n')); }
  // At the bottom of the canvas, over everything.
  void draw(DrawList& list) const;

 private:
  std::string root_;
  std::string text_;
  std::set<std::string> printed_;
};

// A bar for how much of `total` is done.
void draw_progress(DrawList& list, std::size_t done, std::size_t total);

}  // namespace vole
