// A described struct as bytes and back: what snapshots, copies and checksums are made of. Bytes are for the program that
// wrote them; a state that goes to a file or to another build is written as TOML (writing.hpp).
//
//   StateWriter out;        write_state(out, bulb);
//   StateBytes bytes = out.take();
//   StateReader in(bytes);  read_state(in, bulb);        // bulb is as it was, bit for bit
#pragma once

#include <cstddef>
#include <cstdint>
#include <cstring>
#include <span>

#include "vole/base/described_type.hpp"
#include "vole/base/hash.hpp"

namespace vole {

using StateBytes = std::vector<unsigned char>;

class StateWriter {
 public:
  // What was written: to look at until more is, and to begin anew in the same memory; or to have.
  std::span<const unsigned char> written() const { return {bytes_.data(), used_}; }
  void clear() { used_ = 0; }
  StateBytes take() {
    bytes_.resize(used_);
    used_ = 0;
    return std::move(bytes_);
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

  // Larger than what was written: asking a vector for room at each field costs more than the rest.
  StateBytes bytes_;
  std::size_t used_ = 0;
};

class StateReader {
 public:
  explicit StateReader(std::span<const unsigned char> bytes) : bytes_(bytes) {}

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

// A value of any type that a field may have.
template <class T>
void write_state(StateWriter& out, const T& value) {
  field_type<T>().write_state(out, &value);
}
template <class T>
void read_state(StateReader& in, T& value) {
  field_type<T>().read_state(in, &value);
}

// Adds every field to a checksum: what is restored is what is hashed.
template <Described T>
void add_to(Hash& hash, const T& value) {
  StateWriter out;
  write_state(out, value);
  hash.add_bytes(out.take());
}

}  // namespace vole
