// Where a game's messages go. A program for Windows that opens no console may have been started with nowhere to print to:
// then the console it was started from is used, and without one, what went wrong is shown in a box.
#pragma once

namespace vole {

class OutputPlace {
 public:
  // `may_ask`: whether somebody is there to read a box.
  explicit OutputPlace(bool may_ask);

  // Shows what was printed and could not be seen, when the program fails. Returns `code`.
  int finish(int code);

 private:
  bool unseen_ = false;  // messages go into a file that is removed when the program ends
};

}  // namespace vole
