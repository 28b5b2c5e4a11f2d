// All components of one type: what Entities keeps them in.
#pragma once

#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"

namespace vole::detail {

std::size_t next_component_type();

// A number for each component type; its value depends on the order of first use and never on anything that a
// game can see.
template <class T>
std::size_t component_type() {
  static const std::size_t type = next_component_type();
  return type;
}

class PoolBase {
 public:
  virtual ~PoolBase() = default;
  // Closes the gaps that taken components left; the others keep their order.
  virtual void sweep() = 0;
  virtual void write(StateWriter& out) const = 0;
  // The generations are those of all entities; what is no component of a living one is refused with Error.
  virtual void read(StateReader& in, const std::vector<std::uint32_t>& generations) = 0;
  virtual std::string to_inline_toml(std::uint32_t owner) const = 0;
  virtual void from_node(std::uint32_t owner, const Node& node, Report& report) = 0;
  virtual void clear() = 0;

  bool has(std::uint32_t owner) const { return owner < position_.size() && position_[owner] != nowhere; }
  // The component stays in memory until the next sweep, but is found no more.
  void take(std::uint32_t owner);
  // How many places are in use, gaps included.
  std::size_t places() const { return owners_.size(); }
  // nowhere: a gap.
  std::uint32_t owner_at(std::size_t position) const { return owners_[position]; }

  static constexpr std::uint32_t nowhere = ~0u;

 protected:
  std::vector<std::uint32_t> position_;  // by owner: where its component is
  std::vector<std::uint32_t> owners_;    // by position
  std::size_t gaps_ = 0;
};

// Components of one type, in pages that never move.
template <Described T>
class Pool final : public PoolBase {
 public:
  template <class Value>
  T& add(std::uint32_t owner, Value&& value) {
    if (has(owner)) return at(position_[owner]) = std::forward<Value>(value);
    return append(owner, std::forward<Value>(value));
  }
  T* find(std::uint32_t owner) { return has(owner) ? &at(position_[owner]) : nullptr; }
  T& at(std::size_t position) { return pages_[position / page_size][position % page_size]; }
  const T& at(std::size_t position) const { return pages_[position / page_size][position % page_size]; }

  void sweep() override {
    if (gaps_ == 0) return;
    std::size_t to = 0;
    for (std::size_t from = 0; from < owners_.size(); ++from) {
      if (owners_[from] == nowhere) continue;
      if (to != from) {
        at(to) = std::move(at(from));
        owners_[to] = owners_[from];
        position_[owners_[to]] = static_cast<std::uint32_t>(to);
      }
      ++to;
    }
    drop_from(to);
    gaps_ = 0;
  }

  void write(StateWriter& out) const override {
    out.add_count(owners_.size() - gaps_);
    for (std::size_t i = 0; i < owners_.size(); ++i) {
      if (owners_[i] == nowhere) continue;
      write_state(out, owners_[i]);
      write_state(out, at(i));
    }
  }
  void read(StateReader& in, const std::vector<std::uint32_t>& generations) override {
    clear();
    for (std::size_t count = in.take_count(); count > 0; --count) {
      std::uint32_t owner = 0;
      read_state(in, owner);
      if (owner >= generations.size() || generations[owner] % 2 == 0 || has(owner)) StateReader::broken();
      read_state(in, append(owner));
    }
  }
  std::string to_inline_toml(std::uint32_t owner) const override {
    return vole::to_inline_toml(at(position_[owner]));
  }
  void from_node(std::uint32_t owner, const Node& node, Report& report) override {
    T value{};
    vole::read(node, value, report, TableOf::state);
    add(owner, std::move(value));
  }
  void clear() override {
    drop_from(0);
    position_.clear();
    gaps_ = 0;
  }

 private:
  template <class... Value>
  T& append(std::uint32_t owner, Value&&... value) {
    if (owner >= position_.size()) position_.resize(owner + 1, nowhere);
    const std::size_t position = owners_.size(), page = position / page_size;
    if (page == pages_.size()) pages_.emplace_back().reserve(page_size);
    position_[owner] = static_cast<std::uint32_t>(position);
    owners_.push_back(owner);
    return pages_[page].emplace_back(std::forward<Value>(value)...);
  }
  // Lets go of the components from this position on; their memory is kept for those that come.
  void drop_from(std::size_t first) {
    for (std::size_t last = owners_.size(); last > first; --last) pages_[(last - 1) / page_size].pop_back();
    owners_.resize(first);
  }

  static constexpr std::size_t page_size = 64;
  std::vector<std::vector<T>> pages_;  // none grows beyond its size, so nothing in it moves
};

}  // namespace vole::detail
