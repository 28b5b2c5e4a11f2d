// A checksum of state: what the simulation holds, bit for bit, as one number. Not for security.
// Method: FNV-1a, 64 bits (G. Fowler, L. C. Noll, K.-P. Vo).
#pragma once

#include <cstdint>
#include <cstring>
#include <span>
#include <string_view>

namespace vole {

class Hash {
 public:
  void add(std::uint64_t value) {
    for (int shift = 0; shift < 64; shift += 8) mix(static_cast<std::uint8_t>(value >> shift));
  }
  void add(std::int64_t value) { add(static_cast<std::uint64_t>(value)); }
  void add(float value) { add(std::uint64_t{bits_of<std::uint32_t>(value)}); }
  void add(double value) { add(bits_of<std::uint64_t>(value)); }
  void add(std::string_view text) {
    add(std::uint64_t{text.size()});
    for (const char c : text) mix(static_cast<std::uint8_t>(c));
  }

  void add_bytes(std::span<const unsigned char> bytes) {
    add(std::uint64_t{bytes.size()});
    for (const unsigned char byte : bytes) mix(byte);
  }

  std::uint64_t value() const { return value_; }

 private:
  // By memcpy, since not every standard library here has std::bit_cast.
  template <class Bits, class T>
  static Bits bits_of(T value) {
    static_assert(sizeof(Bits) == sizeof(T));
    Bits bits{};
    std::memcpy(&bits, &value, sizeof bits);
    return bits;
  }

  void mix(std::uint8_t byte) {
    value_ ^= byte;
    value_ *= 0x100000001b3ull;
  }

  std::uint64_t value_ = 0xcbf29ce484222325ull;
};

}  // namespace vole
