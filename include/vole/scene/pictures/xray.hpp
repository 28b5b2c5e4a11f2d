// What the picture is drawn over with when something is to be found out: the shapes and what they are, what the probes see,
// who stands where. Seen with --xray, with the key F8, and with Stage::xray.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>

namespace vole {

// Parts of it, which can be had one by one.
enum class XrayPart : std::uint8_t {
  tiles,
  bodies,
  zones,
  probes,
  contacts,
  pivots,
  names,
  lamps,
  camera,
  legend
};
constexpr auto enum_names(XrayPart) {
  return std::array<std::string_view, 10>{"tiles",  "bodies", "zones", "probes", "contacts",
                                          "pivots", "names",  "lamps", "camera", "legend"};
}

// A set of them.
class XrayParts {
 public:
  constexpr XrayParts() = default;
  static constexpr XrayParts all() { return XrayParts((1u << enum_names(XrayPart()).size()) - 1); }
  // All but the names, which cover much.
  static constexpr XrayParts usual() {
    XrayParts parts = all();
    parts.set(XrayPart::names, false);
    return parts;
  }
  // With the legend.
  static constexpr XrayParts only(XrayPart part) {
    XrayParts parts;
    parts.set(part);
    parts.set(XrayPart::legend);
    return parts;
  }

  constexpr bool has(XrayPart part) const { return (bits_ >> static_cast<unsigned>(part) & 1u) != 0; }
  constexpr bool any() const { return bits_ != 0; }
  constexpr void set(XrayPart part, bool shown = true) {
    const unsigned bit = 1u << static_cast<unsigned>(part);
    bits_ = shown ? bits_ | bit : bits_ & ~bit;
  }
  constexpr XrayParts without(XrayPart part) const {
    XrayParts parts = *this;
    parts.set(part, false);
    return parts;
  }
  constexpr XrayParts operator|(XrayParts other) const { return XrayParts(bits_ | other.bits_); }
  // What a key shows next: the usual, then each part alone, then nothing.
  XrayParts next() const;

  friend constexpr bool operator==(XrayParts a, XrayParts b) { return a.bits_ == b.bits_; }

 private:
  constexpr explicit XrayParts(unsigned bits) : bits_(bits) {}

  unsigned bits_ = 0;
};

// From words as "bodies,probes"; empty: the usual. Throws Error with the nearest word.
XrayParts parse_xray(std::string_view words);

}  // namespace vole
