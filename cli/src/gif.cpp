#include "gif.hpp"

#include <gif_lib.h>

#include <algorithm>
#include <array>
#include <map>
#include <memory>
#include <span>
#include <utility>

#include "progress.hpp"
#include "vole/base/error.hpp"
#include "vole/base/output_files.hpp"

namespace {

using vole::Colour;
using vole::Image;

constexpr std::size_t most_colours = 256;

struct MapFreer {
  void operator()(ColorMapObject* map) const { GifFreeMapObject(map); }
};
using ColourMap = std::unique_ptr<ColorMapObject, MapFreer>;

std::uint32_t key_of(Colour colour) {
  return static_cast<std::uint32_t>(colour.r << 16 | colour.g << 8 | colour.b);
}

std::span<const Colour> pixels_of(const Image& image) {
  return {image.row(0), static_cast<std::size_t>(image.size().x) * static_cast<std::size_t>(image.size().y)};
}

// The colours of all frames, each with its number.
std::map<std::uint32_t, GifByteType> exact_palette(const Gif& gif) {
  std::map<std::uint32_t, GifByteType> palette;
  Progress progress("gathering the colours of the frames", gif.hundredths.size());
  for (std::size_t i = 0; i < gif.hundredths.size(); ++i, progress.step()) {
    const Image image = gif.draw(i);
    for (const Colour colour : pixels_of(image)) {
      const bool is_new = palette.emplace(key_of(colour), static_cast<GifByteType>(palette.size())).second;
      if (is_new && palette.size() > most_colours) return palette;
    }
  }
  return palette;
}

class Writer {
 public:
  Writer(vole::IVec2 size, const ColorMapObject* palette) : size_(size) {
    int error = 0;
    file_ = EGifOpen(&bytes_, append, &error);
    if (!file_) fail(error);
    EGifSetGifVersion(file_, true);
    check(EGifPutScreenDesc(file_, size.x, size.y, 8, 0, palette));
    // The extension by which viewers repeat a GIF: 0 times means for ever.
    const std::array<GifByteType, 3> times{1, 0, 0};
    check(EGifPutExtensionLeader(file_, APPLICATION_EXT_FUNC_CODE));
    check(EGifPutExtensionBlock(file_, 11, "NETSCAPE2.0"));
    check(EGifPutExtensionBlock(file_, static_cast<int>(times.size()), times.data()));
    check(EGifPutExtensionTrailer(file_));
    const std::string mark(vole::output_mark(vole::OutputKind::picture));
    check(EGifPutComment(file_, mark.c_str()));
  }
  ~Writer() {
    int error = 0;
    if (file_) EGifCloseFile(file_, &error);
  }
  Writer(const Writer&) = delete;
  Writer& operator=(const Writer&) = delete;

  void add(std::vector<GifByteType>& pixels, int hundredths, const ColorMapObject* own_palette) {
    GraphicsControlBlock control{DISPOSE_DO_NOT, false, hundredths, NO_TRANSPARENT_COLOR};
    std::array<GifByteType, 4> block{};
    EGifGCBToExtension(&control, block.data());
    check(EGifPutExtension(file_, GRAPHICS_EXT_FUNC_CODE, static_cast<int>(block.size()), block.data()));
    check(EGifPutImageDesc(file_, 0, 0, size_.x, size_.y, false, own_palette));
    for (int y = 0; y < size_.y; ++y)
      check(EGifPutLine(file_, pixels.data() + static_cast<std::ptrdiff_t>(y) * size_.x, size_.x));
  }

  vole::Bytes finish() {
    int error = 0;
    if (EGifCloseFile(std::exchange(file_, nullptr), &error) == GIF_ERROR) fail(error);
    return std::move(bytes_);
  }

 private:
  static int append(GifFileType* file, const GifByteType* data, int count) {
    auto& bytes = *static_cast<vole::Bytes*>(file->UserData);
    bytes.insert(bytes.end(), data, data + count);
    return count;
  }
  void check(int result) const {
    if (result == GIF_ERROR) fail(file_->Error);
  }
  [[noreturn]] static void fail(int error) {
    const char* const text = GifErrorString(error);
    throw vole::Error(vole::FilePosition{},
                      std::string("cannot make a GIF: ") + (text ? text : "unknown reason"));
  }

  vole::IVec2 size_;
  vole::Bytes bytes_;
  GifFileType* file_ = nullptr;
};

ColourMap map_of(const std::map<std::uint32_t, GifByteType>& palette) {
  ColourMap map(GifMakeMapObject(most_colours, nullptr));
  for (const auto& [key, number] : palette)
    map->Colors[number] = {static_cast<GifByteType>(key >> 16), static_cast<GifByteType>(key >> 8),
                           static_cast<GifByteType>(key)};
  return map;
}

// A frame with a palette of its own, made for it.
void add_with_own_palette(Writer& writer, const Image& image, int hundredths,
                          std::vector<GifByteType>& pixels) {
  std::array<std::vector<GifByteType>, 3> parts;
  for (const Colour colour : pixels_of(image)) {
    parts[0].push_back(colour.r);
    parts[1].push_back(colour.g);
    parts[2].push_back(colour.b);
  }
  int count = most_colours;
  const ColourMap map(GifMakeMapObject(most_colours, nullptr));
  if (GifQuantizeBuffer(static_cast<unsigned>(image.size().x), static_cast<unsigned>(image.size().y), &count,
                        parts[0].data(), parts[1].data(), parts[2].data(), pixels.data(),
                        map->Colors) == GIF_ERROR)
    throw vole::Error(vole::FilePosition{}, "cannot bring a picture down to 256 colours");
  writer.add(pixels, hundredths, map.get());
}

}  // namespace

void write_gif(const std::string& path, const Gif& gif) {
  const auto palette = exact_palette(gif);
  const bool exact = palette.size() <= most_colours;
  const ColourMap map = exact ? map_of(palette) : ColourMap(GifMakeMapObject(most_colours, nullptr));
  Writer writer(gif.size, map.get());
  std::vector<GifByteType> pixels;
  Progress progress("writing frames", gif.hundredths.size());
  for (std::size_t i = 0; i < gif.hundredths.size(); ++i, progress.step()) {
    const Image image = gif.draw(i);
    pixels.assign(pixels_of(image).size(), 0);
    if (!exact) {
      add_with_own_palette(writer, image, gif.hundredths[i], pixels);
      continue;
    }
    const std::span<const Colour> colours = pixels_of(image);
    std::transform(colours.begin(), colours.end(), pixels.begin(),
                   [&](Colour colour) { return palette.at(key_of(colour)); });
    writer.add(pixels, gif.hundredths[i], nullptr);
  }
  vole::write_whole(path, writer.finish());
}
