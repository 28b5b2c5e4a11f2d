#include "stroke_font.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <sstream>

#include "vole/base/error.hpp"
#include "vole/base/trig.hpp"

namespace paint {
namespace {

using vole::Bytes;
using vole::Vec2;

constexpr float units = 100;  // of the font, to one of the strokes' grid
constexpr int ascent = 1080, descent = -420;

std::vector<float> numbers_of(const std::string& text) {
  std::vector<float> numbers;
  std::istringstream parts(text);
  for (std::string part; std::getline(parts, part, ',');) numbers.push_back(std::stof(part));
  return numbers;
}

void add_arc(const std::vector<float>& arc, std::vector<Vec2>& points) {
  const int steps = std::max(1, static_cast<int>(std::abs(arc[5] - arc[4]) / 18));
  for (int i = 0; i <= steps; ++i) {
    const float angle = arc[4] + (arc[5] - arc[4]) * static_cast<float>(i) / static_cast<float>(steps);
    points.push_back(
        {arc[0] + arc[2] * vole::cos_degrees(angle), arc[1] + arc[3] * vole::sin_degrees(angle)});
  }
}

StrokeLetter read_letter(const std::string& line) {
  StrokeLetter letter{line[0], {}};
  std::istringstream strokes(line.substr(2));
  for (std::string stroke; std::getline(strokes, stroke, ';');) {
    std::istringstream words(stroke);
    std::vector<Vec2> points;
    for (std::string word; words >> word;) {
      const std::vector<float> numbers = numbers_of(word[0] == '@' ? word.substr(1) : word);
      if (word[0] == '@' && numbers.size() == 6)
        add_arc(numbers, points);
      else if (numbers.size() == 2)
        points.push_back({numbers[0], numbers[1]});
      else
        throw vole::Error(vole::FilePosition{},
                          fmt::format("letter {}: \"{}\" is no point and no arc", line[0], word));
    }
    letter.strokes.push_back(std::move(points));
  }
  return letter;
}

// Numbers in the byte order of the format.
class Table {
 public:
  void u8(unsigned value) { bytes.push_back(static_cast<unsigned char>(value)); }
  void u16(int value) {
    u8(static_cast<unsigned>(value) >> 8 & 0xff);
    u8(static_cast<unsigned>(value) & 0xff);
  }
  void u32(std::uint32_t value) {
    u16(static_cast<int>(value >> 16));
    u16(static_cast<int>(value & 0xffff));
  }
  void pad(std::size_t to) {
    while (bytes.size() % to != 0) u8(0);
  }
  std::uint32_t sum() const {
    std::uint32_t total = 0;
    for (std::size_t i = 0; i < bytes.size(); ++i) total += std::uint32_t{bytes[i]} << (24 - 8 * (i % 4));
    return total;
  }
  Bytes bytes;
};

using Contour = std::vector<vole::IVec2>;

struct Glyph {
  std::vector<Contour> contours;
  int advance = 0;
  int left = 0;
};

vole::IVec2 to_units(Vec2 point) {
  return {static_cast<int>(std::lround(point.x * units)), static_cast<int>(std::lround(point.y * units))};
}

// A round end, clockwise as the format wants it.
Contour dot(Vec2 middle, float radius) {
  Contour contour;
  for (int i = 0; i < 10; ++i) {
    const auto angle = static_cast<float>(-36 * i);
    contour.push_back(to_units(middle + Vec2{vole::cos_degrees(angle), vole::sin_degrees(angle)} * radius));
  }
  return contour;
}

Contour bar(Vec2 from, Vec2 to, float radius) {
  const Vec2 along = to - from;
  const float length = std::sqrt(along.x * along.x + along.y * along.y);
  const Vec2 side = Vec2{-along.y, along.x} * (radius / length);
  return {to_units(from + side), to_units(to + side), to_units(to - side), to_units(from - side)};
}

Glyph outline(const StrokeLetter& letter, const StrokeFont& font) {
  Glyph glyph;
  float right = 0;
  const Vec2 shift{font.pen / 2 + font.gap / 2 - 0.4f, 0};
  for (const auto& stroke : letter.strokes)
    for (std::size_t i = 0; i < stroke.size(); ++i) {
      right = std::max(right, stroke[i].x);
      glyph.contours.push_back(dot(stroke[i] + shift, font.pen / 2));
      if (i > 0 && stroke[i] != stroke[i - 1])
        glyph.contours.push_back(bar(stroke[i - 1] + shift, stroke[i] + shift, font.pen / 2));
    }
  glyph.advance = static_cast<int>((right + font.pen + font.gap - 0.8f) * units);
  return glyph;
}

Table glyph_data(Glyph& glyph) {
  Table out;
  if (glyph.contours.empty()) return out;
  vole::IVec2 least = glyph.contours[0][0], most = least;
  for (const Contour& contour : glyph.contours)
    for (const vole::IVec2 point : contour) {
      least = {std::min(least.x, point.x), std::min(least.y, point.y)};
      most = {std::max(most.x, point.x), std::max(most.y, point.y)};
    }
  glyph.left = least.x;
  out.u16(static_cast<int>(glyph.contours.size()));
  for (const int part : {least.x, least.y, most.x, most.y}) out.u16(part);
  int last = -1;
  for (const Contour& contour : glyph.contours) out.u16(last += static_cast<int>(contour.size()));
  out.u16(0);                                    // no instructions
  for (int i = 0; i <= last; ++i) out.u8(0x01);  // on the curve, both steps in two bytes
  for (const int axis : {0, 1}) {
    int before = 0;
    for (const Contour& contour : glyph.contours)
      for (const vole::IVec2 point : contour) {
        const int value = axis == 0 ? point.x : point.y;
        out.u16(value - before);
        before = value;
      }
  }
  out.pad(4);
  return out;
}

// Unicode to glyph, one segment for each letter: format 4.
Table cmap_data(const std::string& letters) {
  const auto count = static_cast<int>(letters.size()) + 1;
  int half = 1, steps = 0;
  for (; half * 2 <= count; half *= 2) ++steps;
  Table out;
  for (const int value : {0, 1, 3, 1, 0, 12}) out.u16(value);  // one part: Windows, Unicode
  for (const int value : {4, 16 + 8 * count, 0, 2 * count, 2 * half, steps, 2 * (count - half)})
    out.u16(value);
  for (const char letter : letters) out.u16(letter);
  out.u16(0xffff);
  out.u16(0);
  for (const char letter : letters) out.u16(letter);
  out.u16(0xffff);
  for (std::size_t i = 0; i < letters.size(); ++i) out.u16(static_cast<int>(i) + 1 - letters[i]);
  out.u16(1);
  for (int i = 0; i < count; ++i) out.u16(0);
  return out;
}

Table kern_data(const StrokeFont& font, const std::string& letters) {
  struct Pair {
    int left, right, more;
  };
  std::vector<Pair> pairs;
  for (const StrokeKerning& kern : font.kerning)
    pairs.push_back({static_cast<int>(letters.find(kern.left)) + 1,
                     static_cast<int>(letters.find(kern.right)) + 1, static_cast<int>(kern.more * units)});
  std::sort(pairs.begin(), pairs.end(), [](const Pair& a, const Pair& b) {
    return std::pair(a.left, a.right) < std::pair(b.left, b.right);
  });
  const auto count = static_cast<int>(pairs.size());
  int half = 1, steps = 0;
  for (; half * 2 <= count; half *= 2) ++steps;
  Table out;
  for (const int value : {0, 1, 0, 14 + 6 * count, 1, count, 6 * half, steps, 6 * (count - half)})
    out.u16(value);
  for (const Pair& pair : pairs)
    for (const int value : {pair.left, pair.right, pair.more}) out.u16(value);
  return out;
}

Table name_data(const std::string& name) {
  const std::array<std::pair<int, std::string>, 4> texts{{{1, name}, {2, "Regular"}, {4, name}, {6, name}}};
  Table out, letters;
  for (const int value : {0, static_cast<int>(texts.size()), 6 + 12 * static_cast<int>(texts.size())})
    out.u16(value);
  for (const auto& [id, text] : texts) {
    for (const int value :
         {3, 1, 0x409, id, 2 * static_cast<int>(text.size()), static_cast<int>(letters.bytes.size())})
      out.u16(value);
    for (const char c : text) letters.u16(c);
  }
  out.bytes.insert(out.bytes.end(), letters.bytes.begin(), letters.bytes.end());
  return out;
}

Table os2_data(const std::string& letters) {
  Table out;
  for (const int value : {4, 600, 400, 5, 0, 650, 600, 0, 75, 650, 600, 0, 350, 50, 300, 0}) out.u16(value);
  for (int i = 0; i < 10; ++i) out.u8(0);
  out.u32(1);
  for (int i = 0; i < 3; ++i) out.u32(0);
  out.u32(0x564f4c45);
  for (const int value : {0x40, static_cast<int>(letters.front()), static_cast<int>(letters.back()), ascent,
                          descent, 0, ascent, -descent})
    out.u16(value);
  out.u32(1);
  out.u32(0);
  for (const int value : {550, 900, 0, 32, 1}) out.u16(value);
  return out;
}

Table head_data() {
  Table out;
  out.u32(0x00010000);
  out.u32(0x00010000);
  out.u32(0);  // the sum over all, filled in at the end
  out.u32(0x5f0f3cf5);
  out.u16(0x0003);
  out.u16(1500);
  for (int i = 0; i < 4; ++i) out.u32(0);  // made and changed: always the same bytes
  for (const int value : {-200, descent, 1500, ascent, 0, 8, 2, 1, 0}) out.u16(value);
  return out;
}

Bytes assemble(std::vector<std::pair<std::string, Table>> tables) {
  std::sort(tables.begin(), tables.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  const auto count = static_cast<int>(tables.size());
  int half = 1, steps = 0;
  for (; half * 2 <= count; half *= 2) ++steps;
  Table out;
  out.u32(0x00010000);
  for (const int value : {count, 16 * half, steps, 16 * (count - half)}) out.u16(value);
  std::size_t at = 12 + 16 * tables.size();
  std::size_t head = 0;
  for (auto& [tag, table] : tables) {
    const std::size_t size = table.bytes.size();
    table.pad(4);
    if (tag == "head") head = at;
    for (const char c : tag) out.u8(static_cast<unsigned char>(c));
    out.u32(table.sum());
    out.u32(static_cast<std::uint32_t>(at));
    out.u32(static_cast<std::uint32_t>(size));
    at += table.bytes.size();
  }
  for (const auto& [tag, table] : tables)
    out.bytes.insert(out.bytes.end(), table.bytes.begin(), table.bytes.end());
  Table whole;
  whole.u32(0xb1b0afbau - out.sum());
  std::copy(whole.bytes.begin(), whole.bytes.end(),
            out.bytes.begin() + static_cast<std::ptrdiff_t>(head) + 8);
  return out.bytes;
}

}  // namespace

StrokeFont read_stroke_font(const std::string& path, const std::string& name) {
  StrokeFont font;
  font.name = name;
  std::istringstream lines(vole::read_text(path, 1 << 20));
  for (std::string line; std::getline(lines, line);) {
    if (line.size() < 3 || line[0] == '#') continue;
    if (line.starts_with("pen "))
      font.pen = std::stof(line.substr(4));
    else if (line.starts_with("gap "))
      font.gap = std::stof(line.substr(4));
    else if (line.starts_with("kern "))
      font.kerning.push_back({line.at(5), line.at(6), std::stof(line.substr(8))});
    else
      font.letters.push_back(read_letter(line));
  }
  std::sort(font.letters.begin(), font.letters.end(),
            [](const StrokeLetter& a, const StrokeLetter& b) { return a.letter < b.letter; });
  return font;
}

Bytes make_truetype(const StrokeFont& font) {
  std::string letters = " ";
  std::vector<Glyph> glyphs(2);  // one for what is missing, and the blank
  glyphs[0].contours = {{{100, 0}, {100, 900}, {500, 900}, {500, 0}}};
  glyphs[0].advance = 600;
  glyphs[1].advance = 450;
  for (const StrokeLetter& letter : font.letters) {
    letters += letter.letter;
    glyphs.push_back(outline(letter, font));
  }
  Table glyf, loca, hmtx, hhea, maxp, post;
  int widest = 0;
  std::size_t most_points = 0, most_contours = 0;
  for (Glyph& glyph : glyphs) {
    loca.u32(static_cast<std::uint32_t>(glyf.bytes.size()));
    const Table data = glyph_data(glyph);
    glyf.bytes.insert(glyf.bytes.end(), data.bytes.begin(), data.bytes.end());
    hmtx.u16(glyph.advance);
    hmtx.u16(glyph.left);
    widest = std::max(widest, glyph.advance);
    std::size_t points = 0;
    for (const Contour& contour : glyph.contours) points += contour.size();
    most_points = std::max(most_points, points);
    most_contours = std::max(most_contours, glyph.contours.size());
  }
  loca.u32(static_cast<std::uint32_t>(glyf.bytes.size()));
  const auto count = static_cast<int>(glyphs.size());
  hhea.u32(0x00010000);
  for (const int value : {ascent, descent, 0, widest, 0, 0, widest, 1, 0, 0, 0, 0, 0, 0, 0, count})
    hhea.u16(value);
  maxp.u32(0x00010000);
  for (const int value : {count, static_cast<int>(most_points), static_cast<int>(most_contours), 0, 0, 2, 0,
                          0, 0, 0, 0, 0, 0, 0})
    maxp.u16(value);
  post.u32(0x00030000);
  for (int i = 0; i < 7; ++i) post.u32(0);
  return assemble({{"OS/2", os2_data(letters)},
                   {"cmap", cmap_data(letters)},
                   {"glyf", glyf},
                   {"head", head_data()},
                   {"hhea", hhea},
                   {"hmtx", hmtx},
                   {"kern", kern_data(font, letters)},
                   {"loca", loca},
                   {"maxp", maxp},
                   {"name", name_data(font.name)},
                   {"post", post}});
}

}  // namespace paint
