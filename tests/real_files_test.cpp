// Pictures and fonts that nobody here made: those that this system has, compared with libpng pixel by pixel,
// and every variety of PNG that libpng can write.
#include <png.h>

#include <csetjmp>
#include <cstdio>

#include "support.hpp"
#include "vole/asset/font.hpp"

namespace {

using vole::Bytes;
using vole::Colour;
using vole::Image;

struct MemoryReader {
  const Bytes& bytes;
  std::size_t at = 0;
};

void read_memory(png_structp png, png_bytep to, png_size_t size) {
  auto& reader = *static_cast<MemoryReader*>(png_get_io_ptr(png));
  if (size > reader.bytes.size() - reader.at) png_error(png, "cut off");
  std::copy_n(reader.bytes.begin() + static_cast<std::ptrdiff_t>(reader.at), size, to);
  reader.at += size;
}

void keep_quiet(png_structp, png_const_charp) {}
[[noreturn]] void give_up(png_structp png, png_const_charp) {
  longjmp(*png_set_longjmp_fn(png, longjmp, sizeof(jmp_buf)), 1);
}

// By libpng, to 8 bits RGBA; an empty picture when it refuses.
Image by_libpng(const Bytes& bytes) {
  MemoryReader reader{bytes};
  png_structp png = png_create_read_struct(PNG_LIBPNG_VER_STRING, nullptr, give_up, keep_quiet);
  png_infop info = png_create_info_struct(png);
  Image image;
  std::vector<png_bytep> rows;
  if (setjmp(png_jmpbuf(png)) != 0) {
    png_destroy_read_struct(&png, &info, nullptr);
    return {};
  }
  png_set_read_fn(png, &reader, read_memory);
  png_read_info(png, info);
  png_set_expand(png);
  png_set_scale_16(png);
  png_set_gray_to_rgb(png);
  png_set_add_alpha(png, 255, PNG_FILLER_AFTER);
  png_read_update_info(png, info);
  image = Image(
      {static_cast<int>(png_get_image_width(png, info)), static_cast<int>(png_get_image_height(png, info))});
  for (int y = 0; y < image.size().y; ++y) rows.push_back(reinterpret_cast<png_bytep>(image.row(y)));
  png_read_image(png, rows.data());
  png_read_end(png, nullptr);
  png_destroy_read_struct(&png, &info, nullptr);
  return image;
}

struct Variety {
  int colour = PNG_COLOR_TYPE_RGB_ALPHA;
  int depth = 8;
  bool interlaced = false;
  bool transparent = false;  // with a tRNS chunk
};

void write_memory(png_structp png, png_bytep from, png_size_t size) {
  auto& bytes = *static_cast<Bytes*>(png_get_io_ptr(png));
  bytes.insert(bytes.end(), from, from + size);
}

Bytes write_variety(const Variety& variety, int width, int height, vole::Random& chance) {
  Bytes bytes;
  png_structp png = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, keep_quiet);
  png_infop info = png_create_info_struct(png);
  png_set_write_fn(png, &bytes, write_memory, nullptr);
  png_set_IHDR(png, info, static_cast<png_uint_32>(width), static_cast<png_uint_32>(height), variety.depth,
               variety.colour, variety.interlaced ? PNG_INTERLACE_ADAM7 : PNG_INTERLACE_NONE,
               PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
  const auto random_byte = [&] { return static_cast<png_byte>(chance.below(256)); };
  const int shades = 1 << std::min(variety.depth, 8);
  if (variety.colour == PNG_COLOR_TYPE_PALETTE) {
    std::vector<png_color> palette(static_cast<std::size_t>(shades));
    for (png_color& colour : palette) colour = {random_byte(), random_byte(), random_byte()};
    png_set_PLTE(png, info, palette.data(), shades);
  }
  if (variety.transparent) {
    std::vector<png_byte> alphas(static_cast<std::size_t>(shades) / 2);
    for (png_byte& alpha : alphas) alpha = random_byte();
    png_color_16 colour{};
    colour.gray = colour.red = colour.green = colour.blue = 1;
    if (variety.colour == PNG_COLOR_TYPE_PALETTE)
      png_set_tRNS(png, info, alphas.data(), static_cast<int>(alphas.size()), nullptr);
    else
      png_set_tRNS(png, info, nullptr, 0, &colour);
  }
  png_write_info(png, info);
  std::vector<std::vector<png_byte>> rows(static_cast<std::size_t>(height));
  std::vector<png_bytep> pointers;
  for (auto& row : rows) {
    row.resize(png_get_rowbytes(png, info));
    // Many small values, so that the colour of tRNS is met.
    for (png_byte& byte : row)
      byte = chance.chance(0.5f) ? static_cast<png_byte>(chance.below(2)) : random_byte();
    pointers.push_back(row.data());
  }
  png_write_image(png, pointers.data());
  png_write_end(png, nullptr);
  png_destroy_write_struct(&png, &info);
  return bytes;
}

// Where nothing is seen, no colour is right or wrong.
bool same(const Image& a, const Image& b) {
  if (a.size() != b.size()) return false;
  for (int y = 0; y < a.size().y; ++y)
    for (int x = 0; x < a.size().x; ++x) {
      const Colour left = a.at(x, y), right = b.at(x, y);
      if (left != right && (left.a != 0 || right.a != 0)) return false;
    }
  return true;
}

std::vector<std::string> files_below(const std::string& folder, const std::string& ending) {
  std::vector<std::string> files;
  if (!vole::folder_exists(folder)) return files;
  for (const std::string& file : vole::list_files(folder))
    if (file.ends_with(ending)) files.push_back(folder + "/" + file);
  return files;
}

}  // namespace

TEST_CASE("every variety of PNG is read as libpng reads it") {
  vole::Random chance(15);
  const std::pair<int, std::vector<int>> varieties[] = {{PNG_COLOR_TYPE_GRAY, {1, 2, 4, 8, 16}},
                                                        {PNG_COLOR_TYPE_PALETTE, {1, 2, 4, 8}},
                                                        {PNG_COLOR_TYPE_RGB, {8, 16}},
                                                        {PNG_COLOR_TYPE_GRAY_ALPHA, {8, 16}},
                                                        {PNG_COLOR_TYPE_RGB_ALPHA, {8, 16}}};
  int count = 0;
  for (const auto& [colour, depths] : varieties)
    for (const int depth : depths)
      for (const bool interlaced : {false, true})
        for (const bool transparent : {false, true}) {
          if (transparent && (colour & PNG_COLOR_MASK_ALPHA) != 0) continue;
          for (const auto& [width, height] : {std::pair(1, 1), std::pair(7, 5), std::pair(33, 20)}) {
            const Bytes bytes =
                write_variety({colour, depth, interlaced, transparent}, width, height, chance);
            const Image ours = vole::decode_png(bytes, vole::FilePosition::whole_file("variety.png"));
            CAPTURE(colour, depth, interlaced, transparent, width, height);
            REQUIRE(same(ours, by_libpng(bytes)));
            ++count;
          }
        }
  CHECK(count == 3 * 52);
}

TEST_CASE("this system's icons are read as libpng reads them") {
  int read = 0;
  for (const char* folder : {"/usr/share/icons", "/usr/share/pixmaps"})
    for (const std::string& file : files_below(folder, ".png")) {
      CAPTURE(file);
      const Bytes bytes = vole::read_bytes(file, std::size_t{1} << 28);
      REQUIRE(same(vole::decode_png(bytes, vole::FilePosition::whole_file(file)), by_libpng(bytes)));
      ++read;
    }
  WARN(read << " pictures compared");
  CHECK(read > 1000);  // of adwaita-icon-theme, which the tests install
}

TEST_CASE("this system's fonts are cut, or refused with a reason") {
  int cut = 0, refused = 0;
  for (const std::string& file : files_below("/usr/share/fonts", ".ttf")) {
    CAPTURE(file);
    const Bytes bytes = vole::read_bytes(file, std::size_t{1} << 28);
    try {
      const vole::Font font(
          vole::cut_truetype(bytes, {16 + cut % 30, cut % 2 == 0, ""}, vole::FilePosition::whole_file(file)));
      ++cut;
      for (const vole::Glyph& glyph : font.glyphs()) {
        REQUIRE(glyph.frame.area.shared_with(glyph.frame.picture->area()) == glyph.frame.area);
        REQUIRE(std::abs(glyph.advance) < 1000);
      }
    } catch (const vole::Error& error) {
      ++refused;
      WARN(error.what());
    }
  }
  WARN(cut << " fonts cut, " << refused << " refused");
  CHECK(cut > 0);  // DejaVu, which the tests install
}
