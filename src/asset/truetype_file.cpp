#include "truetype_file.hpp"

#include <fmt/core.h>

#include <algorithm>

namespace vole {

TrueTypeFile::TrueTypeFile(const Bytes& bytes, const FilePosition& where) : bytes_(bytes), place_(where) {
  if (bytes.empty()) refuse("the file is empty");
  if (bytes.size() < 12) throw Error(where, "is not a TrueType font");
  const std::uint32_t mark = u32(0);
  constexpr std::uint32_t version_1 = 0x00010000, apple = 0x74727565, postscript = 0x4f54544f;
  if (mark == postscript)
    throw Error(where, "has PostScript outlines, which are not read", "use the .ttf version of the font");
  if (mark != version_1 && mark != apple) throw Error(where, "is not a TrueType font");
  const std::size_t tables = u16(4);
  if (12 + 16 * tables > bytes.size()) refuse("its list of tables is cut off");
  for (std::size_t i = 0; i < tables; ++i) {
    const std::size_t at = u32(12 + 16 * i + 8), size = u32(12 + 16 * i + 12);
    if (at > bytes.size() || size > bytes.size() - at) refuse("a table reaches past the file's end");
  }
  const Table head = needed("head", 54);
  const Table hhea = needed("hhea", 36);
  const Table maxp = needed("maxp", 6);
  glyf_ = needed("glyf", 0);
  loca_ = needed("loca", 2);
  const Table hmtx = needed("hmtx", 4);
  glyphs_ = static_cast<int>(u16(maxp.at + 4));
  long_loca_ = u16(head.at + 50) == 1;
  if (u16(head.at + 50) > 1) refuse("its glyphs are listed in an unknown way");
  const std::size_t entries = static_cast<std::size_t>(glyphs_) + 1;
  if (loca_.size < entries * (long_loca_ ? 4 : 2)) refuse("its list of glyphs is cut off");
  const std::size_t wide = u16(hhea.at + 34);
  if (wide == 0 || wide >= entries || hmtx.size < 4 * wide + 2 * (entries - 1 - wide))
    refuse("its list of widths is cut off");
  check_cmap();
  read_kern();
}

void TrueTypeFile::refuse(std::string_view why) const {
  throw Error(place_, fmt::format("is a broken font: {}", why), "download or export it once more");
}

std::uint32_t TrueTypeFile::u16(std::size_t at) const {
  if (at + 2 > bytes_.size()) refuse("it is cut off");
  return std::uint32_t{bytes_[at]} << 8 | bytes_[at + 1];
}

std::uint32_t TrueTypeFile::u32(std::size_t at) const {
  return u16(at) << 16 | u16(at + 2);
}

TrueTypeFile::Table TrueTypeFile::find(std::string_view tag) const {
  const std::size_t tables = u16(4);
  for (std::size_t i = 0; i < tables; ++i) {
    const std::size_t entry = 12 + 16 * i;
    if (std::string_view(reinterpret_cast<const char*>(bytes_.data()) + entry, 4) == tag)
      return {u32(entry + 8), u32(entry + 12)};
  }
  return {};
}

TrueTypeFile::Table TrueTypeFile::needed(std::string_view tag, std::size_t least) const {
  const Table table = find(tag);
  if (table.at == 0 || table.size < least)
    refuse(fmt::format("its table \"{}\" is missing or too short", tag));
  return table;
}

void TrueTypeFile::check_cmap() const {
  const Table cmap = needed("cmap", 4);
  const std::size_t parts = u16(cmap.at + 2);
  if (cmap.size < 4 + 8 * parts) refuse("its list of letters is cut off");
  for (std::size_t i = 0; i < parts; ++i) {
    const std::size_t offset = u32(cmap.at + 4 + 8 * i + 4);
    if (offset + 16 > cmap.size) refuse("its list of letters is cut off");
    check_cmap_part(cmap.at + offset, cmap.size - offset);
  }
}

void TrueTypeFile::check_cmap_part(std::size_t at, std::size_t room) const {
  std::size_t wanted = 0;
  switch (u16(at)) {
    case 0:
      wanted = std::max<std::size_t>(6 + 256, u16(at + 2));
      break;
    case 4: {
      const std::size_t segments = u16(at + 6) / 2;
      wanted = 16 + 8 * segments;
      if (segments == 0 || wanted > room) break;
      if (u16(at + 14 + 2 * (segments - 1)) != 0xffff) refuse("its list of letters has no end");
      // What a search steps by must be what the count of segments says.
      std::size_t half = 1, steps = 0;
      for (; half * 2 <= segments; half *= 2) ++steps;
      if (u16(at + 8) != 2 * half || u16(at + 10) != steps || u16(at + 12) != 2 * (segments - half))
        refuse("its list of letters cannot be searched");
      for (std::size_t i = 0; i < segments; ++i) {
        const std::size_t last = u16(at + 14 + 2 * i);
        const std::size_t first = u16(at + 16 + 2 * segments + 2 * i);
        const std::size_t entry = 16 + 6 * segments + 2 * i;
        const std::size_t offset = u16(at + entry);
        if (offset != 0 && last >= first) wanted = std::max(wanted, entry + offset + 2 * (last - first) + 2);
      }
      // The last segment may point past the end: it maps no letter that is ever asked for.
      if (wanted > room && wanted <= room + 65536 &&
          u16(at + 16 + 2 * segments + 2 * (segments - 1)) == 0xffff)
        wanted = 16 + 8 * segments;
      break;
    }
    case 6:
      wanted = 10 + 2 * u16(at + 8);
      break;
    case 12:
    case 13:
      wanted = 16 + 12 * std::size_t{u32(at + 12)};
      break;
    case 2:
    case 8:
    case 10:
    case 14:
      return;  // not used for the letters that are asked for
    default:
      refuse("its letters are listed in an unknown way");
  }
  if (wanted > room) refuse("its list of letters is cut off");
}

void TrueTypeFile::read_kern() {
  const Table kern = find("kern");
  if (kern.size < 18 || u16(kern.at) != 0 || u16(kern.at + 2) == 0) return;
  const std::uint32_t coverage = u16(kern.at + 8);
  if (coverage >> 8 != 0 || (coverage & 1) == 0) return;  // not a plain horizontal list of pairs
  const std::size_t pairs = std::min<std::size_t>(u16(kern.at + 10), (kern.size - 18) / 6);
  for (std::size_t i = 0; i < pairs; ++i) {
    const std::size_t at = kern.at + 18 + 6 * i;
    kern_pairs_.push_back(
        {static_cast<int>(u16(at)), static_cast<int>(u16(at + 2)), static_cast<std::int16_t>(u16(at + 4))});
  }
}

TrueTypeFile::Table TrueTypeFile::outline(int glyph) const {
  const auto index = static_cast<std::size_t>(glyph);
  const std::size_t first =
      long_loca_ ? u32(loca_.at + 4 * index) : std::size_t{2} * u16(loca_.at + 2 * index);
  const std::size_t end =
      long_loca_ ? u32(loca_.at + 4 * index + 4) : std::size_t{2} * u16(loca_.at + 2 * index + 2);
  if (first > end || end > glyf_.size) return {0, 1};  // cannot be read
  return {glyf_.at + first, end - first};
}

bool TrueTypeFile::sound(int glyph, int depth) const {
  if (glyph < 0 || glyph >= glyphs_ || depth > 5) return false;
  const Table data = outline(glyph);
  if (data.size == 0) return true;  // nothing to show
  if (data.size < 10) return false;
  const int contours = static_cast<std::int16_t>(u16(data.at));
  return contours >= 0 ? sound_contours(data, contours) : sound_parts(data, depth);
}

bool TrueTypeFile::sound_contours(const Table& data, int contours) const {
  const std::size_t end = data.at + data.size;
  std::size_t at = data.at + 10 + 2 * static_cast<std::size_t>(contours);
  if (contours == 0) return true;
  if (at + 2 > end) return false;
  std::vector<std::size_t> starts{0};
  for (int i = 0; i < contours; ++i) {
    const std::size_t last = u16(data.at + 10 + 2 * static_cast<std::size_t>(i));
    if (last < starts.back()) return false;
    starts.push_back(last + 1);
  }
  at += 2 + u16(at);  // instructions
  const std::size_t points = starts.back();
  std::vector<unsigned char> flags;
  while (flags.size() < points) {
    if (at + 2 > end) return false;
    const unsigned char flag = bytes_[at++];
    const std::size_t times = 1 + ((flag & 8) != 0 ? std::size_t{bytes_[at++]} : 0);
    flags.insert(flags.end(), times, flag);
  }
  if (flags.size() != points) return false;
  for (const auto& [is_short, is_same] : {std::pair(2, 16), std::pair(4, 32)})
    for (const unsigned char flag : flags) at += (flag & is_short) != 0 ? 1 : (flag & is_same) != 0 ? 0 : 2;
  if (at > end) return false;
  // A contour of one point off the curve has no place to start from.
  for (std::size_t i = 0; i + 1 < starts.size(); ++i)
    if ((flags[starts[i]] & 1) == 0 && starts[i + 1] - starts[i] < 2) return false;
  return true;
}

bool TrueTypeFile::sound_parts(const Table& data, int depth) const {
  const std::size_t end = data.at + data.size;
  int parts = 0;
  for (std::size_t at = data.at + 10;; ++parts) {
    if (at + 4 > end || parts > 64) return false;
    const std::uint32_t flags = u16(at);
    const bool by_offset = (flags & 2) != 0;
    if (!by_offset || !sound(static_cast<int>(u16(at + 2)), depth + 1)) return false;
    at += 4 + ((flags & 1) != 0 ? 4 : 2);
    at += (flags & 8) != 0 ? 2 : (flags & 0x40) != 0 ? 4 : (flags & 0x80) != 0 ? 8 : 0;
    if (at > end) return false;
    if ((flags & 0x20) == 0) return true;
  }
}

}  // namespace vole
