#include "vole/asset/image.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cstdlib>
#include <limits>

namespace vole {
namespace {

// The most that the decoder may ask for at once. A picture says how large it is, and what is packed in it may be
// thousands of times as much.
thread_local std::size_t most_memory = std::numeric_limits<std::size_t>::max();

void* limited_malloc(std::size_t size) {
  return size <= most_memory ? std::malloc(size) : nullptr;
}
void* limited_realloc(void* memory, std::size_t size) {
  return size <= most_memory ? std::realloc(memory, size) : nullptr;
}

}  // namespace
}  // namespace vole

#define STBI_MALLOC(size) vole::limited_malloc(size)
#define STBI_REALLOC(memory, size) vole::limited_realloc(memory, size)
#define STBI_FREE(memory) std::free(memory)
#define STB_IMAGE_IMPLEMENTATION
#define STB_IMAGE_STATIC
#define STBI_ONLY_PNG
#define STBI_NO_STDIO
#define STBI_MAX_DIMENSIONS 16384
#define STB_IMAGE_WRITE_IMPLEMENTATION
#define STB_IMAGE_WRITE_STATIC
#if defined(__GNUC__)
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wsign-conversion"
#pragma GCC diagnostic ignored "-Wshadow"
#pragma GCC diagnostic ignored "-Wunused-function"
#pragma GCC diagnostic ignored "-Wmissing-field-initializers"
#pragma GCC diagnostic ignored "-Wunused-parameter"
#endif
#include <stb/stb_image.h>
#include <stb/stb_image_write.h>
#if defined(__GNUC__)
#pragma GCC diagnostic pop
#endif

namespace vole {
namespace {

constexpr std::size_t most_png_bytes = 256u << 20;
constexpr unsigned char png_mark[8] = {0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};

std::uint32_t big_endian(const unsigned char* at) {
  return std::uint32_t{at[0]} << 24 | std::uint32_t{at[1]} << 16 | std::uint32_t{at[2]} << 8 | at[3];
}

// The size as the header claims it, checked before any memory is asked for.
void check_header(const Bytes& bytes, const FilePosition& where) {
  const bool marked = bytes.size() >= 8 && std::equal(png_mark, png_mark + 8, bytes.begin());
  if (!marked) throw Error(where, "is not a PNG picture", bytes.empty() ? "the file is empty" : "");
  if (bytes.size() < 33) throw Error(where, "is cut off: the PNG header is not complete");
  const std::int64_t width = big_endian(bytes.data() + 16);
  const std::int64_t height = big_endian(bytes.data() + 20);
  if (width == 0 || height == 0) throw Error(where, "is a picture without pixels");
  if (width > Image::longest_side || height > Image::longest_side || width * height > Image::most_pixels)
    throw Error(where, fmt::format("is {} x {} pixels; the most is {} along a side and {} million in all",
                                   width, height, Image::longest_side, Image::most_pixels / 1'000'000));
}

// The sum that each part of a PNG ends with: Portable Network Graphics (Third Edition), annex D.
constexpr std::array<std::uint32_t, 256> make_crc_table() {
  std::array<std::uint32_t, 256> table{};
  for (std::uint32_t byte = 0; byte < 256; ++byte) {
    std::uint32_t value = byte;
    for (int bit = 0; bit < 8; ++bit) value = (value & 1) != 0 ? 0xedb88320 ^ (value >> 1) : value >> 1;
    table[byte] = value;
  }
  return table;
}

std::uint32_t crc(const unsigned char* bytes, std::size_t count) {
  static constexpr std::array<std::uint32_t, 256> table = make_crc_table();
  std::uint32_t value = 0xffffffff;
  for (std::size_t i = 0; i < count; ++i) value = table[(value ^ bytes[i]) & 0xff] ^ (value >> 8);
  return ~value;
}

// Decoders make up missing rows and read past flipped bits; here each part must be whole, up to the closing one.
void check_complete(const Bytes& bytes, const FilePosition& where) {
  constexpr std::size_t around = 12;  // length, name and sum of a part
  const std::string again = "save it again or copy it once more";
  std::size_t at = 8;
  while (at + around <= bytes.size()) {
    const std::size_t length = big_endian(bytes.data() + at);
    if (length > bytes.size() - at - around) break;
    const unsigned char* const name = bytes.data() + at + 4;
    if (crc(name, length + 4) != big_endian(name + 4 + length))
      throw Error(where, fmt::format("is damaged: the PNG's part at byte {} does not add up", at), again);
    if (std::equal(name, name + 4, "IEND")) return;
    at += around + length;
  }
  throw Error(where, "is cut off: the PNG has no end", again);
}

// While one is in scope, the decoder gets no more memory at once than a picture of this size can need: twice its raw
// bytes, which are at most 8 for each pixel and some more for each row.
class MemoryLimit {
 public:
  MemoryLimit(std::size_t pixels, std::size_t file_bytes) {
    most_memory = std::max(2 * (pixels * 9 + 65536), 2 * file_bytes);
  }
  ~MemoryLimit() { most_memory = std::numeric_limits<std::size_t>::max(); }
  MemoryLimit(const MemoryLimit&) = delete;
  MemoryLimit& operator=(const MemoryLimit&) = delete;
};

// A channel of 16 bits to the nearest of 8.
std::uint8_t to_8_bits(stbi_us value) {
  return static_cast<std::uint8_t>((std::uint32_t{value} * 255 + 32895) >> 16);
}
std::uint8_t to_8_bits(stbi_uc value) {
  return value;
}

// The decoder names what it came upon in a word or two of its own.
std::string broken_because(std::string_view reason) {
  if (reason == "outofmem") return "holds more data than its size has pixels for";
  if (reason.find("not supported") != std::string_view::npos)
    return "is a PNG of a type that is not in the standard";
  return fmt::format("is a broken PNG picture ({})", reason);
}

template <class Channel>
Image decode(const Bytes& bytes, const FilePosition& where,
             Channel* (*load)(const stbi_uc*, int, int*, int*, int*, int)) {
  int width = 0, height = 0, channels = 0;
  Channel* const pixels = load(bytes.data(), static_cast<int>(bytes.size()), &width, &height, &channels, 4);
  if (!pixels) throw Error(where, broken_because(stbi_failure_reason()));
  const std::unique_ptr<Channel, void (*)(void*)> owner(pixels, stbi_image_free);
  Image image({width, height});
  const Channel* from = pixels;
  for (int y = 0; y < height; ++y) {
    Colour* to = image.row(y);
    for (int x = 0; x < width; ++x, from += 4)
      to[x] = {to_8_bits(from[0]), to_8_bits(from[1]), to_8_bits(from[2]), to_8_bits(from[3])};
  }
  return image;
}

}  // namespace

Image::Image(IVec2 size, Colour fill_colour)
    : size_(std::max(size.x, 0), std::max(size.y, 0)),
      pixels_(static_cast<std::size_t>(size_.x) * static_cast<std::size_t>(size_.y), fill_colour) {}

bool operator==(const Image& a, const Image& b) {
  return a.size_ == b.size_ && a.pixels_ == b.pixels_;
}

void Image::fill(Colour colour) {
  std::fill(pixels_.begin(), pixels_.end(), colour);
}

void Image::resize(IVec2 size) {
  size_ = {std::max(size.x, 0), std::max(size.y, 0)};
  pixels_.resize(static_cast<std::size_t>(size_.x) * static_cast<std::size_t>(size_.y));
}

Image decode_png(const Bytes& bytes, const FilePosition& where) {
  check_header(bytes, where);
  check_complete(bytes, where);
  const std::size_t pixels = std::size_t{big_endian(bytes.data() + 16)} * big_endian(bytes.data() + 20);
  const MemoryLimit limit(pixels, bytes.size());
  constexpr std::size_t depth_at = 24;  // of a channel, in the header
  return bytes[depth_at] == 16 ? decode(bytes, where, stbi_load_16_from_memory)
                               : decode(bytes, where, stbi_load_from_memory);
}

Image read_png(const std::string& path) {
  return decode_png(read_bytes(path, most_png_bytes), FilePosition::whole_file(path));
}

Bytes encode_png(const Image& image) {
  if (image.empty()) throw Error(FilePosition{}, "a picture without pixels cannot be saved");
  Bytes bytes;
  const auto append = [](void* to, void* data, int size) {
    const auto* from = static_cast<const unsigned char*>(data);
    static_cast<Bytes*>(to)->insert(static_cast<Bytes*>(to)->end(), from, from + size);
  };
  stbi_write_png_to_func(append, &bytes, image.size().x, image.size().y, 4, image.row(0), image.size().x * 4);
  return bytes;
}

void write_png(const std::string& path, const Image& image) {
  write_whole(path, encode_png(image));
}

bool may_be_enlarged(IVec2 size, int factor) {
  const std::int64_t width = std::int64_t{size.x} * factor, height = std::int64_t{size.y} * factor;
  return width <= Image::longest_side && height <= Image::longest_side &&
         width * height <= Image::most_pixels;
}

Image enlarged(const Image& image, int factor) {
  Image large(IVec2{image.size().x * factor, image.size().y * factor});
  for (int y = 0; y < large.size().y; ++y) {
    const Colour* from = image.row(y / factor);
    Colour* to = large.row(y);
    for (int x = 0; x < large.size().x; ++x) to[x] = from[x / factor];
  }
  return large;
}

}  // namespace vole
