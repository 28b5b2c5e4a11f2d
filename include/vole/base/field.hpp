// The numbers, pairs and colours among the fields of a described struct, found by name while the program
// runs:
//
//   const std::vector<FieldInfo>& fields = numeric_fields<Lamp>();      // "reach", "shine"
//   FieldRef reach = field_at(lamp, 0);
//   reach.put(reach.value() + Vec4(2, 0, 0, 0));
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <cstring>
#include <limits>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/describe.hpp"
#include "vole/base/vec.hpp"

namespace vole {

struct FieldInfo {
  std::string name;
  int parts = 0;             // 1: a number, 2: a pair, 4: a colour
  bool is_position = false;  // in pixels
};

constexpr std::string_view word_for_parts(int parts) {
  return parts == 1 ? "a number" : parts == 2 ? "a pair of numbers" : "a colour";
}

namespace detail {

// How many parts a field of this type has; 0 when it is nothing to reckon with.
template <class T>
constexpr int parts_of_type() {
  if constexpr (std::is_same_v<T, Colour>)
    return 4;
  else if constexpr (std::is_same_v<T, Vec2> || std::is_same_v<T, IVec2>)
    return 2;
  else
    return std::is_arithmetic_v<T> && !std::is_same_v<T, bool> ? 1 : 0;
}

template <class T>
T whole_or_not(float part) {
  if constexpr (std::is_floating_point_v<T>)
    return static_cast<T>(part);
  else
    return static_cast<T>(
        std::lround(std::clamp(static_cast<double>(part), static_cast<double>(std::numeric_limits<T>::min()),
                               static_cast<double>(std::numeric_limits<T>::max()))));
}

}  // namespace detail

// A value as parts: a number fills x, a pair x and y, a colour all four with red, green, blue and alpha up to 255.
template <class T>
Vec4 parts_of(const T& value) {
  static_assert(detail::parts_of_type<T>() > 0, "a number, a pair of numbers or a colour is wanted here");
  if constexpr (std::is_same_v<T, Colour>)
    return Vec4(value.r, value.g, value.b, value.a);
  else if constexpr (detail::parts_of_type<T>() == 2)
    return Vec4(static_cast<float>(value.x), static_cast<float>(value.y), 0, 0);
  else
    return Vec4(static_cast<float>(value), 0, 0, 0);
}

// One such field of one struct; good for as long as the struct stays where it is.
class FieldRef {
 public:
  // The bytes of a field, to put them back.
  using Bytes = std::array<std::byte, 16>;

  FieldRef() = default;
  template <class T>
  FieldRef(T& field, const FieldRule& rule)
      : field_(&field), size_(sizeof(T)), rule_(rule), value_(read_parts<T>), put_(write_parts<T>) {
    static_assert(sizeof(T) <= sizeof(Bytes) && std::is_trivially_copyable_v<T>);
  }

  explicit operator bool() const { return field_ != nullptr; }
  Vec4 value() const { return value_(field_); }
  // Brought within what the field may be; whole numbers are rounded.
  void put(Vec4 value) { put_(field_, value, rule_); }

  Bytes bytes() const {
    Bytes bytes{};
    std::memcpy(bytes.data(), field_, size_);
    return bytes;
  }
  void put_back(const Bytes& bytes) { std::memcpy(field_, bytes.data(), size_); }

 private:
  template <class T>
  static Vec4 read_parts(const void* field) {
    return parts_of(*static_cast<const T*>(field));
  }
  template <class T>
  static void write_parts(void* field, Vec4 to, const FieldRule& rule) {
    const auto within = [&rule](float part) {
      return static_cast<float>(std::clamp(static_cast<double>(part), rule.least, rule.most));
    };
    using detail::whole_or_not;
    T& value = *static_cast<T*>(field);
    if constexpr (std::is_same_v<T, Colour>)
      value = {whole_or_not<std::uint8_t>(to.x), whole_or_not<std::uint8_t>(to.y),
               whole_or_not<std::uint8_t>(to.z), whole_or_not<std::uint8_t>(to.w)};
    else if constexpr (detail::parts_of_type<T>() == 2)
      value = T(whole_or_not<decltype(value.x)>(within(to.x)), whole_or_not<decltype(value.y)>(within(to.y)));
    else
      value = whole_or_not<T>(within(to.x));
  }

  void* field_ = nullptr;
  std::size_t size_ = 0;
  FieldRule rule_;
  Vec4 (*value_)(const void*) = nullptr;
  void (*put_)(void*, Vec4, const FieldRule&) = nullptr;
};

namespace detail {

// Visits the fields that can be reckoned with, counting them.
template <class Visit>
class NumericVisitor {
 public:
  explicit NumericVisitor(Visit visit) : visit_(visit) {}
  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& rule = {}) {
    if constexpr (parts_of_type<T>() > 0) visit_(count_++, key, field, rule);
  }
  template <class T>
  void state(std::string_view key, T& field, const FieldRule& rule = {}) {
    (*this)(key, field, rule);
  }
  template <class T>
  void rest(Named<T>&) {}

 private:
  Visit visit_;
  std::size_t count_ = 0;
};

}  // namespace detail

// In the order in which the struct describes them, state included.
template <Described T>
const std::vector<FieldInfo>& numeric_fields() {
  static const std::vector<FieldInfo> fields = [] {
    std::vector<FieldInfo> found;
    T sample{};
    detail::NumericVisitor visitor(
        [&]<class F>(std::size_t, std::string_view key, F&, const FieldRule& rule) {
          found.push_back(
              {std::string(key), detail::parts_of_type<F>(), rule.is_position && std::is_same_v<F, Vec2>});
        });
    describe(visitor, sample);
    return found;
  }();
  return fields;
}

// The field at this index among numeric_fields(); none beyond them.
template <Described T>
FieldRef field_at(T& owner, std::size_t index) {
  FieldRef found;
  detail::NumericVisitor visitor([&](std::size_t i, std::string_view, auto& field, const FieldRule& rule) {
    if (i == index) found = FieldRef(field, rule);
  });
  describe(visitor, owner);
  return found;
}

// The index among numeric_fields() of this member; beyond them when it is not described.
template <Described T, class Field>
std::size_t index_of_field(Field T::*member) {
  T sample{};
  const void* const wanted = &(sample.*member);
  std::size_t found = numeric_fields<T>().size();
  detail::NumericVisitor visitor([&](std::size_t i, std::string_view, auto& field, const FieldRule&) {
    if (static_cast<const void*>(&field) == wanted) found = i;
  });
  describe(visitor, sample);
  return found;
}

}  // namespace vole
