// The only file that includes the TrueType rasterizer.
#include <fmt/core.h>

#include <algorithm>
#include <cstdlib>
#include <map>
#include <set>

#include "truetype_file.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/packing.hpp"

namespace {

// Thrown where the rasterizer finds an outline impossible.
struct ImpossibleOutline {};

// Frees what the rasterizer asked for, also when it is left by an exception.
class Arena {
 public:
  ~Arena() {
    for (void* block : blocks_) std::free(block);
  }
  void* get(std::size_t size) {
    void* const block = std::malloc(size);
    if (block) blocks_.insert(block);
    return block;
  }
  void give_back(void* block) {
    if (blocks_.erase(block) != 0) std::free(block);
  }

 private:
  std::set<void*> blocks_;
};

}  // namespace

#define STB_TRUETYPE_IMPLEMENTATION
#define STBTT_STATIC
#define STBTT_assert(x) ((x) ? (void)0 : throw ImpossibleOutline{})
#define STBTT_malloc(size, arena) (static_cast<Arena*>(arena)->get(size))
#define STBTT_free(block, arena) (static_cast<Arena*>(arena)->give_back(block))
#if defined(__GNUC__)
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wsign-conversion"
#pragma GCC diagnostic ignored "-Wshadow"
#pragma GCC diagnostic ignored "-Wunused-function"
#pragma GCC diagnostic ignored "-Wunused-parameter"
#endif
#include <stb/stb_truetype.h>
#if defined(__GNUC__)
#pragma GCC diagnostic pop
#endif

namespace vole {
namespace {

// Latin with its accents, Greek, Cyrillic and the usual signs.
constexpr std::pair<char32_t, char32_t> european_letters[] = {
    {0x21, 0x7e}, {0xa1, 0x17f}, {0x386, 0x3ce}, {0x400, 0x45f}, {0x2010, 0x2027}, {0x20ac, 0x20ac}};

struct Drawn {
  char32_t letter = 0;
  int glyph = 0;
  IVec2 size{0, 0};
  IVec2 offset{0, 0};  // from the pen at the line's top
  int advance = 0;
};

class TrueTypeCutter {
 public:
  TrueTypeCutter(const Bytes& bytes, const TrueTypeCut& cut, const FilePosition& where)
      : file_(bytes, where), cut_(cut) {
    font_.userdata = &arena_;
    // The rasterizer reads its input and never writes to it.
    if (stbtt_InitFont(&font_, const_cast<unsigned char*>(bytes.data()), 0) == 0)
      throw Error(where, "is a font without a list of Unicode letters");
    int ascent = 0, descent = 0, gap = 0;
    stbtt_GetFontVMetrics(&font_, &ascent, &descent, &gap);
    if (ascent - descent <= 0) throw Error(where, "is a broken font: its letters have no height");
    scale_ = static_cast<float>(cut.size) / static_cast<float>(ascent - descent);
    baseline_ = pixels(ascent);
  }

  FontParts cut() {
    for (const auto& [first, last] : european_letters)
      for (char32_t letter = first; letter <= last; ++letter) add(letter);
    for (std::string_view rest = cut_.letters; !rest.empty();) add(next_letter(rest));
    FontParts parts;
    parts.line_height = cut_.size;
    parts.gap = 0;
    parts.space = std::max(1, advance_of(stbtt_FindGlyphIndex(&font_, ' ')));
    draw(parts);
    add_kerning(parts);
    return parts;
  }

 private:
  int pixels(int units) const {
    const float scaled = static_cast<float>(units) * scale_;
    return static_cast<int>(scaled < 0 ? scaled - 0.5f : scaled + 0.5f);
  }

  int advance_of(int glyph) const {
    int advance = 0, bearing = 0;
    if (glyph >= 0 && glyph < file_.glyph_count()) stbtt_GetGlyphHMetrics(&font_, glyph, &advance, &bearing);
    return pixels(advance);
  }

  void add(char32_t letter) {
    const int glyph = stbtt_FindGlyphIndex(&font_, static_cast<int>(letter));
    if (glyph == 0 || !file_.sound(glyph)) return;
    if (std::any_of(drawn_.begin(), drawn_.end(), [&](const Drawn& d) { return d.letter == letter; })) return;
    int x0 = 0, y0 = 0, x1 = 0, y1 = 0;
    stbtt_GetGlyphBitmapBox(&font_, glyph, scale_, scale_, &x0, &y0, &x1, &y1);
    const int largest = cut_.size * 6;
    if (x1 - x0 > largest || y1 - y0 > largest) return;
    drawn_.push_back({letter,
                      glyph,
                      {std::max(x1 - x0, 0), std::max(y1 - y0, 0)},
                      {x0, baseline_ + y0},
                      advance_of(glyph)});
  }

  // One picture with all letters, white, their coverage as alpha.
  void draw(FontParts& parts) {
    std::vector<IVec2> sizes;
    for (const Drawn& drawn : drawn_) sizes.push_back(drawn.size);
    const Packing packing = pack(sizes, {4096, 4096});
    std::vector<Image> pages;
    for (const IVec2 page : packing.pages) pages.emplace_back(page);
    for (std::size_t i = 0; i < drawn_.size(); ++i)
      if (sizes[i].x > 0 && sizes[i].y > 0)
        rasterize(drawn_[i], packing.placed[i].at, pages[static_cast<std::size_t>(packing.placed[i].page)]);
    if (pages.empty()) pages.emplace_back(IVec2{1, 1});
    for (const Image& page : pages) parts.pictures.push_back(std::make_shared<const Picture>(page));
    for (std::size_t i = 0; i < drawn_.size(); ++i) {
      const Drawn& drawn = drawn_[i];
      const auto page = static_cast<std::size_t>(packing.placed[i].page);
      Frame frame = frame_of(*parts.pictures[page], {packing.placed[i].at, drawn.size});
      frame.offset = drawn.offset;
      frame.size = {drawn.advance, cut_.size};
      parts.glyphs.push_back({drawn.letter, frame, drawn.advance});
    }
  }

  void rasterize(const Drawn& drawn, IVec2 at, Image& page) {
    coverage_.assign(static_cast<std::size_t>(drawn.size.x) * static_cast<std::size_t>(drawn.size.y), 0);
    try {
      stbtt_MakeGlyphBitmap(&font_, coverage_.data(), drawn.size.x, drawn.size.y, drawn.size.x, scale_,
                            scale_, drawn.glyph);
    } catch (const ImpossibleOutline&) {
      return;  // a letter that cannot be drawn is blank; the others stand
    }
    const unsigned char* from = coverage_.data();
    for (int y = 0; y < drawn.size.y; ++y)
      for (int x = 0; x < drawn.size.x; ++x, ++from) {
        const int alpha = cut_.antialias ? *from : *from >= 128 ? 255 : 0;
        if (alpha != 0) page.at(at.x + x, at.y + y) = {255, 255, 255, static_cast<std::uint8_t>(alpha)};
      }
  }

  void add_kerning(FontParts& parts) const {
    std::multimap<int, char32_t> letters;
    for (const Drawn& drawn : drawn_) letters.emplace(drawn.glyph, drawn.letter);
    for (const KernPair& pair : file_.kern_pairs()) {
      const int more = pixels(pair.units);
      if (more == 0) continue;
      const auto [left, left_end] = letters.equal_range(pair.left);
      const auto [right, right_end] = letters.equal_range(pair.right);
      for (auto a = left; a != left_end; ++a)
        for (auto b = right; b != right_end; ++b)
          parts.kerning.push_back({kerning_pair(a->second, b->second), more});
    }
  }

  TrueTypeFile file_;
  const TrueTypeCut& cut_;
  Arena arena_;
  stbtt_fontinfo font_{};
  float scale_ = 1;
  int baseline_ = 0;
  std::vector<Drawn> drawn_;
  std::vector<unsigned char> coverage_;
};

}  // namespace

FontParts cut_truetype(const Bytes& bytes, const TrueTypeCut& cut, const FilePosition& where) {
  try {
    return TrueTypeCutter(bytes, cut, where).cut();
  } catch (const ImpossibleOutline&) {
    throw Error(where, "is a broken font: its tables contradict each other");
  }
}

}  // namespace vole
