// Things as ids, and plain structs (components) attached to them.
//
//   Entity bulb = entities.create();
//   entities.add(bulb, Pose{{40, 16}});
//   entities.each<Pose, Body>([](Entity, Pose& pose, Body& body) { ... });
//
// Components stay where they are in memory until their entity is destroyed, so a reference holds while others
// are added. Everything is visited in the order in which it was added, the same in every run.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <tuple>
#include <vector>

namespace vole {

struct Entity {
  std::uint32_t index = 0;
  std::uint32_t generation = 0;  // 0: no entity

  explicit operator bool() const { return generation != 0; }
  friend bool operator==(Entity, Entity) = default;
};

namespace detail {

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
  virtual void remove(std::uint32_t owner) = 0;

  bool has(std::uint32_t owner) const { return owner < position_.size() && position_[owner] != nowhere; }

 protected:
  static constexpr std::uint32_t nowhere = ~0u;
  std::vector<std::uint32_t> position_;  // by owner: where its component is
  std::vector<std::uint32_t> owners_;    // by position
};

// Components of one type, without gaps, in pages that never move.
template <class T>
class Pool final : public PoolBase {
 public:
  T& add(std::uint32_t owner, T value) {
    if (has(owner)) return at(position_[owner]) = std::move(value);
    if (owner >= position_.size()) position_.resize(owner + 1, nowhere);
    const auto position = static_cast<std::uint32_t>(owners_.size());
    if (position / page_size == pages_.size()) pages_.push_back(std::make_unique<Page>());
    position_[owner] = position;
    owners_.push_back(owner);
    return at(position) = std::move(value);
  }

  void remove(std::uint32_t owner) override {
    if (!has(owner)) return;
    // The later ones move up by one: order is worth more here than the cost, since things come and go rarely.
    for (std::uint32_t i = position_[owner]; i + 1 < owners_.size(); ++i) {
      at(i) = std::move(at(i + 1));
      owners_[i] = owners_[i + 1];
      position_[owners_[i]] = i;
    }
    owners_.pop_back();
    at(static_cast<std::uint32_t>(owners_.size())) = T{};
    position_[owner] = nowhere;
  }

  T* find(std::uint32_t owner) { return has(owner) ? &at(position_[owner]) : nullptr; }
  std::size_t size() const { return owners_.size(); }
  std::uint32_t owner_at(std::size_t position) const { return owners_[position]; }
  T& at(std::size_t position) { return (*pages_[position / page_size])[position % page_size]; }

 private:
  static constexpr std::size_t page_size = 128;
  using Page = std::array<T, page_size>;
  std::vector<std::unique_ptr<Page>> pages_;
};

}  // namespace detail

class Entities {
 public:
  Entity create();
  // Takes all its components away. Not while each() is under way.
  void destroy(Entity entity);
  bool alive(Entity entity) const;
  std::size_t count() const { return alive_; }

  // Attaches a component, or replaces the one it has.
  template <class T>
  T& add(Entity entity, T component = {}) {
    return pool<T>().add(checked(entity), std::move(component));
  }
  // Takes a component away, if the entity has it. Not while each() visits its sort.
  template <class T>
  void take(Entity entity) {
    if (alive(entity)) pool<T>().remove(entity.index);
  }
  // nullptr when it has none, or is gone.
  template <class T>
  T* find(Entity entity) {
    return alive(entity) ? pool<T>().find(entity.index) : nullptr;
  }
  template <class T>
  const T* find(Entity entity) const {
    return const_cast<Entities*>(this)->find<T>(entity);
  }
  // Throws std::out_of_range when it has none.
  template <class T>
  T& get(Entity entity) {
    T* found = find<T>(entity);
    if (!found) missing_component();
    return *found;
  }
  template <class T>
  const T& get(Entity entity) const {
    return const_cast<Entities*>(this)->get<T>(entity);
  }
  template <class T>
  bool has(Entity entity) const {
    return find<T>(entity) != nullptr;
  }

  // Calls visit(entity, first, rest...) for each that has them all, in the order in which `First` was
  // attached.
  template <class First, class... Rest, class Visit>
  void each(Visit&& visit) {
    auto& firsts = pool<First>();
    for (std::size_t i = 0; i < firsts.size(); ++i) {
      const std::uint32_t owner = firsts.owner_at(i);
      [[maybe_unused]] const auto others = std::tuple<Rest*...>(pool<Rest>().find(owner)...);
      if ((std::get<Rest*>(others) && ...)) visit(at(owner), firsts.at(i), *std::get<Rest*>(others)...);
    }
  }
  template <class First, class... Rest, class Visit>
  void each(Visit&& visit) const {
    const_cast<Entities*>(this)->each<First, Rest...>(
        [&visit](Entity entity, const First& first, const Rest&... rest) { visit(entity, first, rest...); });
  }

 private:
  template <class T>
  detail::Pool<T>& pool() {
    const std::size_t type = detail::component_type<T>();
    if (type >= pools_.size()) pools_.resize(type + 1);
    if (!pools_[type]) pools_[type] = std::make_unique<detail::Pool<T>>();
    return static_cast<detail::Pool<T>&>(*pools_[type]);
  }
  Entity at(std::uint32_t index) const { return {index, generations_[index]}; }
  std::uint32_t checked(Entity entity) const;
  [[noreturn]] static void missing_component();

  std::vector<std::unique_ptr<detail::PoolBase>> pools_;
  std::vector<std::uint32_t> generations_;  // by index; odd while alive
  std::vector<std::uint32_t> free_;
  std::size_t alive_ = 0;
};

}  // namespace vole
