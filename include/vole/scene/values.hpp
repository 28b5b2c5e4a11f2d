// Described structs that belong to the game and to none of its scenes: a score, a purse, how far one has come.
//
//   game.value<Purse>("purse");               // in main()
//   stage.value<Purse>().coins += 3;          // in any scene
//
// They are state: saved, restored and compared with the scenes. One may last between runs, as high scores and settings do:
//
//   game.value<Settings>("settings", vole::Lasts::between_runs);
//   game.value<Scores>("scores", [](Scores& mine, const Scores& theirs) { ... });     // where two copies of the game may be open at once
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/described_type.hpp"

namespace vole {

// A value that lasts for the run is as it is made when the game starts, and is part of what a player saves. One that lasts between runs is kept
// by itself: what it was when it changed last is there when the game starts again, whatever the player loads.
enum class Lasts : std::uint8_t { run, between_runs };

// Which ones a game has.
class ValueTypes {
 public:
  // Puts what is kept of another copy of the game into this one's. It is called before each time that a value is kept, so doing it twice must
  // change nothing.
  using Join = std::function<void(void* mine, const void* theirs)>;
  struct One {
    std::string name;
    const DescribedType* type = nullptr;
    Lasts lasts = Lasts::run;
    Join join = nullptr;
  };

  // Throws std::logic_error for a name or a class that is there already, and Error for the name of a value between runs that is none of a save
  // (save_folder.hpp).
  void add(One value);
  const std::vector<One>& all() const { return all_; }

 private:
  std::vector<One> all_;
};

class Values {
 public:
  // As they are made. The types must outlive this.
  explicit Values(const ValueTypes& types);

  // They stay where they are. Throw Error for a class that the game does not name as a value's.
  template <class T>
  T& get() {
    return *static_cast<T*>(of(described_type<T>()));
  }
  template <class T>
  const T& get() const {
    return *static_cast<const T*>(of(described_type<T>()));
  }

  const ValueTypes& types() const { return types_; }
  // By its place among the types.
  const void* at(std::size_t index) const { return all_[index].get(); }
  void* at(std::size_t index) { return all_[index].get(); }

  void write(StateWriter& out) const;
  void read(StateReader& in);
  // The tables below [values]: all, and one by its place.
  std::string to_toml() const;
  std::string to_toml(std::size_t index) const;
  void from_toml(const TomlValue& toml, Report& report);

 private:
  void* of(const DescribedType& type) const;

  const ValueTypes& types_;
  std::vector<std::shared_ptr<void>> all_;
};

// Of a game that has some. Throw Error.
Values& expect_values(Values* values);
const Values& expect_values(const Values* values);

}  // namespace vole
