// A TrueType file whose tables have been checked. The rasterizer believes every offset in a font, so nothing
// of a file reaches it before it was found to lie inside. By Apple's and Microsoft's common specification of
// the tables.
#pragma once

#include <cstdint>
#include <string_view>
#include <vector>

#include "vole/base/error.hpp"
#include "vole/base/files.hpp"

namespace vole {

struct KernPair {
  int left = 0, right = 0;  // glyphs
  int units = 0;            // of the font's own grid
};

class TrueTypeFile {
 public:
  // Throws Error at `place` when this is not a font or its tables do not hold together. Keeps a reference.
  TrueTypeFile(const Bytes& bytes, const FilePosition& where);

  // Whether the glyph's outline, with all its parts, lies inside the file.
  bool sound(int glyph) const { return sound(glyph, 0); }
  int glyph_count() const { return glyphs_; }
  const std::vector<KernPair>& kern_pairs() const { return kern_pairs_; }

 private:
  struct Table {
    std::size_t at = 0;
    std::size_t size = 0;
  };

  [[noreturn]] void refuse(std::string_view why) const;
  std::uint32_t u16(std::size_t at) const;
  std::uint32_t u32(std::size_t at) const;
  Table find(std::string_view tag) const;
  Table needed(std::string_view tag, std::size_t least) const;
  void check_cmap() const;
  void check_cmap_part(std::size_t at, std::size_t room) const;
  void read_kern();
  Table outline(int glyph) const;
  bool sound(int glyph, int depth) const;
  bool sound_contours(const Table& data, int contours) const;
  bool sound_parts(const Table& data, int depth) const;

  const Bytes& bytes_;
  const FilePosition& place_;
  Table glyf_, loca_;
  bool long_loca_ = false;
  int glyphs_ = 0;
  std::vector<KernPair> kern_pairs_;
};

}  // namespace vole
