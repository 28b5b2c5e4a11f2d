// All components of one type: what Entities keeps them in.
#pragma once

#include <cstddef>
#include <cstdint>
#include <new>
#include <string>
#include <utility>
#include <vector>

namespace vole {

class DescribedType;
class TomlValue;
class Report;
class StateReader;
class StateWriter;
struct ValueMemory;

}  // namespace vole

namespace vole::detail {

// How components of a type are copied and moved; made and ended, as its description says.
struct ComponentCopies {
  void (*copy_over)(void* to, const void* from);
  void (*move_over)(void* to, void* from);
  void (*forget)(void* component);  // see component_hooks.hpp; nullptr: nothing
};
template <class T>
constexpr ComponentCopies copies_of() {
  ComponentCopies copies{
      [](void* to, const void* from) { *static_cast<T*>(to) = *static_cast<const T*>(from); },
      [](void* to, void* from) { *static_cast<T*>(to) = std::move(*static_cast<T*>(from)); }, nullptr};
  if constexpr (requires(T & component) { forget(component); })
    copies.forget = [](void* component) { forget(*static_cast<T*>(component)); };
  return copies;
}
template <class T>
inline constexpr ComponentCopies component_copies = copies_of<T>();

// Components of one type, in pages that never move.
class Pool {
 public:
  // Of no type: not to be used.
  Pool() = default;
  // Both must outlive this.
  Pool(const DescribedType& type, const ComponentCopies& copies);
  Pool(Pool&&) noexcept;
  Pool& operator=(Pool&&) = delete;
  ~Pool();

  explicit operator bool() const { return type_ != nullptr; }

  bool has(std::uint32_t owner) const { return owner < position_.size() && position_[owner] != nowhere; }
  template <class T>
  T* find(std::uint32_t owner) {
    return has(owner) ? &at<T>(position_[owner]) : nullptr;
  }
  void* find(std::uint32_t owner) { return has(owner) ? at(position_[owner]) : nullptr; }
  // Attaches one, or puts it over the one that is there.
  template <class T>
  T& add(std::uint32_t owner, T&& component) {
    if (has(owner)) {
      forget(position_[owner]);
      return at<T>(position_[owner]) = std::move(component);
    }
    T* const added = new (room()) T(std::move(component));
    hold(owner);
    return *added;
  }
  void* add_copy(std::uint32_t owner, const void* component);
  // The component stays in memory until the next sweep, but is found no more.
  void take(std::uint32_t owner);
  // Moves a component over from another pool of the same type, where it is found no more.
  void take_over(std::uint32_t owner, Pool& other);
  // Closes the gaps that taken components left; the others keep their order.
  void sweep();
  void clear();

  // How many places are in use, gaps included.
  std::size_t places() const { return owners_.size(); }
  // nowhere: a gap.
  std::uint32_t owner_at(std::size_t position) const { return owners_[position]; }
  template <class T>
  T& at(std::size_t position) {
    return reinterpret_cast<T*>(pages_[position / page_size])[position % page_size];
  }
  void* at(std::size_t position) { return pages_[position / page_size] + position % page_size * size_; }

  void write(StateWriter& out) const;
  // The generations are those of all entities; what is no component of a living one is refused with Error.
  void read(StateReader& in, const std::vector<std::uint32_t>& generations);
  std::string to_inline_toml(std::uint32_t owner) const;
  void from_toml(std::uint32_t owner, const TomlValue& toml, Report& report);

  static constexpr std::uint32_t nowhere = ~0u;

 private:
  // Memory for the component that comes next; then who has it.
  void* room();
  void hold(std::uint32_t owner);
  const void* at(std::size_t position) const { return const_cast<Pool*>(this)->at(position); }
  void forget(std::size_t position) {
    if (copies_->forget) copies_->forget(at(position));
  }
  // Lets go of the components from this position on; their memory is kept for those that come.
  void drop_from(std::size_t first);

  static constexpr std::size_t page_size = 64;

  const DescribedType* type_ = nullptr;
  const ValueMemory* memory_ = nullptr;
  const ComponentCopies* copies_ = nullptr;
  std::vector<std::byte*> pages_;        // its own
  std::vector<std::uint32_t> position_;  // by owner: where its component is
  std::vector<std::uint32_t> owners_;    // by position
  std::size_t gaps_ = 0;
  std::size_t size_ = 0;  // of a component
};

}  // namespace vole::detail
