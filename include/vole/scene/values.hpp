// Described structs that belong to the game and to none of its scenes: a score, a purse, how far one has come.
//
//   game.value<Purse>("purse");               // in main()
//   stage.value<Purse>().coins += 3;          // in any scene
//
// They are state: saved, restored and compared with the scenes.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/described_type.hpp"

namespace vole {

// Which ones a game has.
class ValueTypes {
 public:
  struct One {
    std::string name;
    const DescribedType* type = nullptr;
  };

  // Throws std::logic_error for a name or a class that is there already.
  void add(std::string_view name, const DescribedType& type);
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

  void write(StateWriter& out) const;
  void read(StateReader& in);
  // The tables below [values].
  std::string to_toml() const;
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
