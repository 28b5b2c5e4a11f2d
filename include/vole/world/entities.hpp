// Things as ids, and plain described structs (components) attached to them.
//
//   ComponentTypes types;                          // those of the library, and the game's own
//   Entities entities(types);
//   Entity bulb = entities.create();
//   entities.add(bulb, Pose{{40, 16}});
//   entities.visit<Pose, Body>([](Entity, Pose& pose, Body& body) { ... });
//   entities.remove(bulb);                         // still there
//   entities.sweep();                              // the stage calls this at the end of each tick
//
// Until the next sweep() no component moves in memory or goes, so references hold for a whole tick, whatever is added,
// taken away or removed. Everything is visited in the order in which it was added, the same in every run.
#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/base/entity.hpp"
#include "vole/world/pool.hpp"

namespace vole {

class ComponentTypes;

class Entities {
 public:
  // Components may be of these types and no others; the list must be complete and outlive this.
  explicit Entities(const ComponentTypes& types);
  ~Entities();
  const ComponentTypes& types() const { return types_; }

  Entity create();
  // Marks it: it goes, with all its components, at the next sweep().
  void remove(Entity entity);
  bool removed(Entity entity) const { return !alive(entity) || marked_[entity.index] != 0; }
  bool any_removed() const { return !leaving_.empty(); }
  // Lets go of what was removed and taken away, in that order. The work grows with what there is to do, not
  // with how many go at once.
  void sweep();
  // Also while it is marked.
  bool alive(Entity entity) const;
  std::size_t count() const { return alive_; }

  // Attaches a component, or replaces the one it has. Throws std::out_of_range for an entity that is gone and
  // std::logic_error for a type that is not among the component types.
  template <class T>
  T& add(Entity entity, T component = {}) {
    return pool<T>().template add<T>(checked(entity), std::move(component));
  }
  // The same for a component that stands elsewhere, as in a kind: copied straight to its place.
  template <class T>
  T& add_copy(Entity entity, const T& component) {
    return *static_cast<T*>(pool<T>().add_copy(checked(entity), &component));
  }
  // Takes a component away, if the entity has it.
  template <class T>
  void remove(Entity entity) {
    if (alive(entity)) pool<T>().take(entity.index);
  }
  // nullptr when it has none, or is gone.
  template <class T>
  T* find(Entity entity) {
    return alive(entity) ? pool<T>().template find<T>(entity.index) : nullptr;
  }
  template <class T>
  const T* find(Entity entity) const {
    return const_cast<Entities*>(this)->find<T>(entity);
  }
  // Throws std::out_of_range when it has none.
  template <class T>
  T& get(Entity entity) {
    T* found = find<T>(entity);
    if (!found) missing_component(entity, described_type<T>().number(), type_name<T>());
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

  // Whether anything has one.
  template <class T>
  bool any() const {
    return const_cast<Entities*>(this)->pool<T>().places() > 0;
  }

  // Calls visit(entity, first, rest...) for each that has them all when the visit begins, in the order in
  // which `First` was attached. What is added meanwhile is not visited.
  template <class First, class... Rest, class Visit>
  void visit(Visit&& visit) {
    visit_in<First, Rest...>(visit, pool<First>(), pool<Rest>()...);
  }
  template <class First, class... Rest, class Visit>
  void visit(Visit&& visit) const {
    const_cast<Entities*>(this)->visit<First, Rest...>(
        [&visit](Entity entity, const First& first, const Rest&... rest) { visit(entity, first, rest...); });
  }

  // Moves the components of those things of which which(entity) is true to others, which hold nothing: their ids stay theirs here. And back again,
  // but for things that were removed meanwhile.
  void put_aside(const std::function<bool(Entity)>& which, Entities& aside);
  void bring_back(Entities& aside);

  // All of it as bytes and back, and as TOML: see world.hpp. What is marked must be swept out before.
  void write(StateWriter& out) const;
  void read(StateReader& in);
  std::string to_toml(std::string_view within = "") const;  // before the names of its tables
  void from_toml(const TomlValue& toml, Report& report);

 private:
  friend class ComponentTypes;

  void clear(std::vector<std::uint32_t> generations, std::vector<std::uint32_t> free);
  // Components that the order of a written state leaves out.
  void report_unordered(std::uint32_t index, const TomlValue& thing, Report& report) const;
  // By the number of the component's type.
  detail::Pool& pool(std::size_t type) { return pools_[type]; }
  template <class T>
  detail::Pool& pool() {
    const std::size_t type = described_type<T>().number();
    if (type >= pools_.size() || !pools_[type]) unknown_component(type_name<T>());
    return pools_[type];
  }
  template <class First, class... Rest, class Visit, class... Pools>
  void visit_in(Visit& visit, detail::Pool& firsts, Pools&... rests) {
    for (std::size_t i = 0, end = firsts.places(); i < end; ++i) {
      const std::uint32_t owner = firsts.owner_at(i);
      if (owner != detail::Pool::nowhere)
        visit_one(visit, at(owner), firsts.at<First>(i), rests.template find<Rest>(owner)...);
    }
  }
  template <class Visit, class First, class... Rest>
  static void visit_one(Visit& visit, Entity entity, First& first, Rest*... rest) {
    if ((rest && ...)) visit(entity, first, *rest...);
  }
  Entity at(std::uint32_t index) const { return {index, generations_[index]}; }
  std::uint32_t checked(Entity entity) const;
  [[noreturn]] void missing_component(Entity entity, std::size_t type, std::string_view type_name) const;
  [[noreturn]] static void unknown_component(std::string_view type);

  const ComponentTypes& types_;
  std::vector<detail::Pool> pools_;         // by number of the type; made once, so none moves
  std::vector<std::uint32_t> generations_;  // by index; odd while alive
  std::vector<std::uint32_t> free_;
  std::vector<std::uint8_t> marked_;  // by index
  std::vector<std::uint32_t> leaving_;
  std::size_t alive_ = 0;
};

}  // namespace vole
