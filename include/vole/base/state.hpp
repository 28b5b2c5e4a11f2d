// A described struct as bytes and back: what snapshots, copies and checksums are made of. Bytes are for the program that
// wrote them; a state that goes to a file or to another build is written as TOML (writing.hpp).
//
//   StateWriter out;        write_state(out, bulb);
//   StateBytes bytes = out.take();
//   StateReader in(bytes);  read_state(in, bulb);        // bulb is as it was, bit for bit
//
// A type with a description by hand has `void write_state(StateWriter&, const T&)` and
// `void read_state(StateReader&, T&)` beside it.
#pragma once

#include <cstddef>
#include <cstdint>
#include <cstring>
#include <span>

#include "vole/base/describe.hpp"
#include "vole/base/hash.hpp"

namespace vole {

using StateBytes = std::vector<unsigned char>;

namespace detail {

// Whole numbers have the same width in a state on every machine, whatever `long` is there.
template <class T>
using WidthInState = std::conditional_t<
    sizeof(T) <= 2, T,
    std::conditional_t<std::is_same_v<T, int> || std::is_same_v<T, unsigned>, T,
                       std::conditional_t<std::is_signed_v<T>, std::int64_t, std::uint64_t>>>;

}  // namespace detail

class StateWriter {
 public:
  // What was written.
  StateBytes take() {
    bytes_.resize(used_);
    used_ = 0;
    return std::move(bytes_);
  }

  template <class T>
  void operator()(std::string_view, T& field, const FieldRule& = {}) {
    write_state(*this, field);
  }
  template <class T>
  void state(std::string_view, T& field, const FieldRule& = {}) {
    write_state(*this, field);
  }
  template <class T>
  void rest(Named<T>& fields) {
    write_state(*this, fields);
  }

  void add(const void* data, std::size_t size) {
    if (size > bytes_.size() - used_) grow(size);
    if (size > 0) std::memcpy(bytes_.data() + used_, data, size);
    used_ += size;
  }
  void add_count(std::size_t count) {
    const auto fixed = static_cast<std::uint32_t>(count);
    add(&fixed, sizeof fixed);
  }

 private:
  void grow(std::size_t size);

  StateBytes
      bytes_;  // larger than what was written: asking a vector for room at each field costs more than the rest
  std::size_t used_ = 0;
};

class StateReader {
 public:
  explicit StateReader(std::span<const unsigned char> bytes) : bytes_(bytes) {}

  template <class T>
  void operator()(std::string_view, T& field, const FieldRule& = {}) {
    read_state(*this, field);
  }
  template <class T>
  void state(std::string_view, T& field, const FieldRule& rule = {}) {
    read_state(*this, field);
    if constexpr (std::is_arithmetic_v<T>)
      if (rule.limited() && !rule.allows(static_cast<double>(field))) broken();
  }
  template <class T>
  void rest(Named<T>& fields) {
    read_state(*this, fields);
  }

  // Both throw Error when the bytes come to an end before it.
  void take(void* data, std::size_t size) {
    if (size > bytes_.size() - at_) cut_off();
    if (size > 0) std::memcpy(data, bytes_.data() + at_, size);
    at_ += size;
  }
  std::size_t take_count();
  bool at_end() const { return at_ == bytes_.size(); }

  // Throws Error: the bytes are not of a state.
  [[noreturn]] static void broken();

 private:
  [[noreturn]] static void cut_off();

  std::span<const unsigned char> bytes_;
  std::size_t at_ = 0;
};

template <class T>
void write_state(StateWriter& out, const T& value) {
  using namespace detail;
  if constexpr (IsLocated<T>::value) {
    write_state(out, value.value);
  } else if constexpr (IsOptional<T>::value) {
    write_state(out, value.has_value());
    if (value) write_state(out, *value);
  } else if constexpr (IsNamed<T>::value) {
    out.add_count(value.size());
    for (const auto& item : value) {
      write_state(out, item.name);
      write_state(out, item.value);
    }
  } else if constexpr (std::is_same_v<T, std::vector<bool>>) {
    out.add_count(value.size());
    for (const bool item : value) write_state(out, item);
  } else if constexpr (IsVector<T>::value) {
    out.add_count(value.size());
    for (const auto& item : value) write_state(out, item);
  } else if constexpr (IsArray<T>::value) {
    for (const auto& item : value) write_state(out, item);
  } else if constexpr (std::is_same_v<T, std::string>) {
    out.add_count(value.size());
    out.add(value.data(), value.size());
  } else if constexpr (std::is_same_v<T, Vec2> || std::is_same_v<T, IVec2>) {
    write_state(out, value.x);
    write_state(out, value.y);
  } else if constexpr (std::is_same_v<T, Vec4>) {
    for (int i = 0; i < 4; ++i) write_state(out, value[i]);
  } else if constexpr (std::is_same_v<T, Rect> || std::is_same_v<T, IRect>) {
    write_state(out, value.at);
    write_state(out, value.size);
  } else if constexpr (std::is_same_v<T, Colour>) {
    for (const std::uint8_t part : {value.r, value.g, value.b, value.a}) write_state(out, part);
  } else if constexpr (std::is_same_v<T, Entity>) {
    write_state(out, value.index);
    write_state(out, value.generation);
  } else if constexpr (std::is_same_v<T, Random>) {
    write_state(out, value.state());
  } else if constexpr (std::is_enum_v<T>) {
    write_state(out, static_cast<std::underlying_type_t<T>>(value));
  } else if constexpr (std::is_floating_point_v<T>) {
    out.add(&value, sizeof value);
  } else if constexpr (std::is_integral_v<T>) {
    const auto fixed = static_cast<WidthInState<T>>(value);
    out.add(&fixed, sizeof fixed);
  } else if constexpr (Described<T>) {
    describe(out, const_cast<T&>(value));  // describe takes T& for readers; a writer changes nothing
  } else {
    static_assert(always_false<T>, "this type of field has no state: describe it");
  }
}

template <class T>
void read_state(StateReader& in, T& value) {
  using namespace detail;
  if constexpr (IsLocated<T>::value) {
    value.where = {};
    read_state(in, value.value);
  } else if constexpr (IsOptional<T>::value) {
    bool has_value = false;
    read_state(in, has_value);
    if (!has_value) return value.reset();
    if (!value) value.emplace();
    read_state(in, *value);
  } else if constexpr (IsNamed<T>::value) {
    value.clear();
    for (std::size_t count = in.take_count(); count > 0; --count) {
      auto& item = value.emplace_back();
      read_state(in, item.name);
      read_state(in, item.value);
    }
  } else if constexpr (std::is_same_v<T, std::vector<bool>>) {
    value.assign(in.take_count(), false);
    for (std::size_t i = 0; i < value.size(); ++i) {
      bool item = false;
      read_state(in, item);
      value[i] = item;
    }
  } else if constexpr (IsVector<T>::value) {
    value.resize(in.take_count());
    for (auto& item : value) read_state(in, item);
  } else if constexpr (IsArray<T>::value) {
    for (auto& item : value) read_state(in, item);
  } else if constexpr (std::is_same_v<T, std::string>) {
    value.resize(in.take_count());
    in.take(value.data(), value.size());
  } else if constexpr (std::is_same_v<T, Vec2> || std::is_same_v<T, IVec2>) {
    read_state(in, value.x);
    read_state(in, value.y);
  } else if constexpr (std::is_same_v<T, Vec4>) {
    for (int i = 0; i < 4; ++i) read_state(in, value[i]);
  } else if constexpr (std::is_same_v<T, Rect> || std::is_same_v<T, IRect>) {
    read_state(in, value.at);
    read_state(in, value.size);
  } else if constexpr (std::is_same_v<T, Colour>) {
    for (std::uint8_t* part : {&value.r, &value.g, &value.b, &value.a}) read_state(in, *part);
  } else if constexpr (std::is_same_v<T, Entity>) {
    read_state(in, value.index);
    read_state(in, value.generation);
    if (value.generation % 2 == 0 && value != Entity{}) StateReader::broken();
  } else if constexpr (std::is_same_v<T, Random>) {
    std::uint64_t state = 0;
    read_state(in, state);
    value = Random::from_state(state);
  } else if constexpr (std::is_enum_v<T>) {
    std::underlying_type_t<T> number{};
    read_state(in, number);
    if constexpr (NamedEnum<T>)
      if (static_cast<std::uint64_t>(number) >= enum_names(T{}).size()) StateReader::broken();
    value = static_cast<T>(number);
  } else if constexpr (std::is_same_v<T, bool>) {
    unsigned char byte = 0;  // a bool must hold nothing but 0 and 1
    in.take(&byte, sizeof byte);
    value = byte != 0;
  } else if constexpr (std::is_floating_point_v<T>) {
    in.take(&value, sizeof value);
  } else if constexpr (std::is_integral_v<T>) {
    WidthInState<T> fixed{};
    in.take(&fixed, sizeof fixed);
    value = static_cast<T>(fixed);
  } else if constexpr (Described<T>) {
    describe(in, value);
  } else {
    static_assert(always_false<T>, "this type of field has no state: describe it");
  }
}

// Adds every field to a checksum: what is restored is what is hashed.
template <Described T>
void add_to(Hash& hash, const T& value) {
  StateWriter out;
  write_state(out, value);
  hash.add_bytes(out.take());
}

}  // namespace vole
