#include "vole/asset/image.hpp"

#include <fmt/format.h>

#include <algorithm>

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

constexpr std::int64_t most_pixels = 64'000'000;
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
  if (width > Image::longest_side || height > Image::longest_side || width * height > most_pixels)
    throw Error(where, fmt::format("is {} x {} pixels; the most is {} along a side and {} million in all",
                                   width, height, Image::longest_side, most_pixels / 1'000'000));
}

// Decoders make up missing rows; a picture without its closing chunk has lost something.
void check_complete(const Bytes& bytes, const FilePosition& where) {
  std::size_t at = 8;
  while (at + 12 <= bytes.size()) {
    const std::size_t length = big_endian(bytes.data() + at);
    const bool last = std::equal(bytes.begin() + static_cast<std::ptrdiff_t>(at) + 4,
                                 bytes.begin() + static_cast<std::ptrdiff_t>(at) + 8, "IEND");
    if (last) return;
    if (length > bytes.size()) break;
    at += 12 + length;
  }
  throw Error(where, "is cut off: the PNG has no end", "save it again or copy it once more");
}

// A channel of 16 bits to the nearest of 8.
std::uint8_t to_8_bits(stbi_us value) {
  return static_cast<std::uint8_t>((std::uint32_t{value} * 255 + 32895) >> 16);
}
std::uint8_t to_8_bits(stbi_uc value) {
  return value;
}

template <class Channel>
Image decode(const Bytes& bytes, const FilePosition& where,
             Channel* (*load)(const stbi_uc*, int, int*, int*, int*, int)) {
  int width = 0, height = 0, channels = 0;
  Channel* const pixels = load(bytes.data(), static_cast<int>(bytes.size()), &width, &height, &channels, 4);
  if (!pixels) throw Error(where, fmt::format("is a broken PNG picture ({})", stbi_failure_reason()));
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

void Image::fill(Colour colour) {
  std::fill(pixels_.begin(), pixels_.end(), colour);
}

Image decode_png(const Bytes& bytes, const FilePosition& where) {
  check_header(bytes, where);
  check_complete(bytes, where);
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
