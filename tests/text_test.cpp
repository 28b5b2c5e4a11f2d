// Text: wrapping, outline, shadow, colours, labels, kerning, TrueType.
#include <cstring>

#include "support.hpp"
#include "vole/asset/font.hpp"
#include "vole/draw/label.hpp"
#include "vole/draw/raster.hpp"

namespace {

using vole::Colour;
using vole::DrawList;
using vole::Font;
using vole::Image;
using vole::IVec2;

constexpr Colour gold{0xed, 0xa6, 0x3f, 0xff};
constexpr Colour soil{0x2b, 0x1d, 0x1a, 0xff};

template <class Fill>
Image drawn(IVec2 size, const Fill& fill) {
  DrawList list;
  list.start(size);
  fill(list, list.add_layer({0, 0}));
  list.sort();
  Image image(size, {0, 0, 0, 255});
  vole::Raster().draw(list, image);
  return image;
}

int count_of(const Image& image, Colour colour) {
  int count = 0;
  for (int y = 0; y < image.size().y; ++y)
    for (int x = 0; x < image.size().x; ++x) count += image.at(x, y) == colour ? 1 : 0;
  return count;
}

// Where our own TrueType font is.
std::string truetype_path() {
  return allotment_folder() + "/assets/hedgerow.ttf";
}

// A file that grows out of a good one by changes at random.
vole::Bytes spoiled(vole::Bytes bytes, vole::Random& chance) {
  const auto changes = 1 + chance.below(6);
  for (std::uint32_t i = 0; i < changes; ++i) {
    const auto at = chance.below(static_cast<std::uint32_t>(bytes.size()));
    // Mostly where the tables are described, since that is where a change leads far.
    const auto where = chance.chance(0.5f) ? at % 400 : at;
    bytes[where] = static_cast<unsigned char>(chance.below(256));
  }
  if (chance.chance(0.1f)) bytes.resize(chance.below(static_cast<std::uint32_t>(bytes.size())));
  return bytes;
}

}  // namespace

TEST_CASE("lines are broken between words, and never wider than they may be") {
  const Font& font = vole::plain_font();
  vole::Random chance(8);
  for (int round = 0; round < 500; ++round) {
    std::string text;
    for (std::uint32_t length = chance.below(60); length > 0; --length)
      text += "ab l. \n\xc3\xa9"[chance.below(7)];
    const int width = 8 + static_cast<int>(chance.below(80));
    std::string_view rest = text;
    std::string together;
    while (!rest.empty()) {
      const std::string_view before = rest;
      const std::string_view line = vole::take_line(font, rest, width);
      REQUIRE(rest.size() < before.size());
      // Trailing blanks have no ink and may hang over.
      std::string_view inked = line;
      while (inked.ends_with(' ')) inked.remove_suffix(1);
      REQUIRE(font.line_width(inked) <= width);
      together += line;
    }
    const auto letters = [](std::string from) {
      std::erase_if(from, [](char c) { return c == ' ' || c == '\n'; });
      return from;
    };
    REQUIRE(letters(together) == letters(text));
  }
}

TEST_CASE("words stay whole where they fit, and long ones are broken where they must be") {
  const Font& font = vole::plain_font();
  const int width = font.line_width("seeds and");
  std::string_view rest = "seeds and bulbs\nagain";
  CHECK(vole::take_line(font, rest, width) == "seeds and");
  CHECK(vole::take_line(font, rest, width) == "bulbs");
  CHECK(vole::take_line(font, rest, width) == "again");
  CHECK(rest.empty());
  CHECK(vole::measure_text(font, "seeds and bulbs", width).y == 2 * font.line_height());
  CHECK(vole::measure_text(font, "a\n\nb", 0).y == 3 * font.line_height());
  std::string_view one = "mmmmmmmm";
  const std::string_view part = vole::take_line(font, one, font.line_width("mmm"));
  CHECK(part == "mmm");
  // Not even one letter fits: one a line, and an end.
  std::string_view narrow = "mm";
  CHECK(vole::take_line(font, narrow, 1) == "m");
  CHECK(vole::take_line(font, narrow, 1) == "m");
  CHECK(narrow.empty());
}

TEST_CASE("a text keeps its place at each anchor, broken into lines or not") {
  const Font& font = vole::plain_font();
  for (int anchor = 0; anchor < 9; ++anchor)
    for (const int width : {0, 40}) {
      const vole::TextStyle style{
          .anchor = static_cast<vole::Anchor>(anchor), .colour = gold, .width = width};
      const IVec2 size = vole::measure_text(font, "peas beans leeks", width);
      const IVec2 start = IVec2{120, 60} - vole::spot_in(style.anchor, size);
      const Image image = drawn({240, 120}, [&](DrawList& list, vole::LayerId layer) {
        vole::draw_text(list, layer, font, "peas beans leeks", {120, 60}, style);
      });
      int inside = 0;
      for (int y = start.y; y < start.y + size.y; ++y)
        for (int x = start.x; x < start.x + size.x; ++x) inside += image.at(x, y) == gold ? 1 : 0;
      CAPTURE(anchor, width);
      CHECK(inside > 60);
      CHECK(inside == count_of(image, gold));
    }
}

TEST_CASE("outline and shadow lie below the letters, in their own colours") {
  TempFolder folder;
  Image dot({3, 3});
  dot.at(1, 1) = vole::white;
  vole::write_png(folder.path("assets/f.png"), dot);
  folder.write("assets/f.sheet.toml", "frame = { size = [3, 3] }\n[font]\nglyphs = [\"o\"]\n");
  vole::Catalog catalog(folder.path());
  const Font& font = *catalog.get<Font>("f");
  const auto with = [&](const vole::TextStyle& style) {
    return drawn({12, 12}, [&](DrawList& list, vole::LayerId layer) {
      vole::draw_text(list, layer, font, "o", {5, 5}, style);
    });
  };
  const Image rim = with({.colour = gold, .outline = soil});
  CHECK(count_of(rim, gold) == 1);
  CHECK(count_of(rim, soil) == 8);
  CHECK(rim.at(5, 6) == gold);
  const Image shadow = with({.colour = gold, .shadow = soil, .shadow_by = {2, 1}});
  CHECK(count_of(shadow, soil) == 1);
  CHECK(shadow.at(7, 7) == soil);
  // Half a shadow lets half of the ground through.
  CHECK(with({.colour = gold, .shadow = {200, 100, 0, 128}}).at(6, 7) == Colour{100, 50, 0, 255});
}

TEST_CASE("runs of colour reach from their letter to the next run, over blanks and broken lines") {
  vole::TextRuns text;
  text.add("l").add("l ll", gold).add("l", soil);
  CHECK(text.text() == "ll lll");
  const Font& font = vole::plain_font();
  std::vector<vole::PictureItem> items;
  vole::lay_out_text(font, text.text(), {.width = 16, .runs = text.runs()}, items);
  REQUIRE(items.size() == 5);
  const Colour expected[] = {vole::white, gold, gold, gold, soil};
  for (std::size_t i = 0; i < 5; ++i) CHECK(items[i].tint == expected[i]);
}

TEST_CASE("kerning moves what follows, and no more than that") {
  TempFolder folder;
  folder.write_picture("assets/f.png", {8, 5});
  folder.write(
      "assets/f.sheet.toml",
      "frame = { size = [4, 5] }\n[font]\nglyphs = [\"AV\"]\ngap = 1\nkerning = { AV = -2, VV = 1 }\n");
  vole::Catalog catalog(folder.path());
  const Font& font = *catalog.get<Font>("f");
  CHECK(font.line_width("A") == 4);
  CHECK(font.line_width("VA") == 9);
  CHECK(font.line_width("AV") == 7);
  CHECK(font.line_width("VVV") == 16);
  folder.write("assets/f.sheet.toml",
               "frame = { size = [4, 5] }\n[font]\nglyphs = [\"AV\"]\nkerning = { A = 1 }\n");
  CHECK(error_of([&] { vole::Catalog(folder.path()).get<Font>("f"); }, folder) ==
        "assets/f.sheet.toml:4:13: error: \"A\" is not two letters");
}

TEST_CASE("a label lays its text out when a value changes, and only then") {
  TempFolder folder;
  write_small_game(folder);
  folder.write_picture("assets/f.png", {48, 5});
  folder.write("assets/f.sheet.toml", "frame = { size = [4, 5] }\n[font]\nglyphs = [\"0123456789/x\"]\n");
  vole::Catalog catalog(folder.path());
  const auto font = catalog.get<Font>("f");
  int gathered = 3;
  std::string name = "x";
  vole::Label label("f", "{}/{}{{}}");
  label.of(gathered, name);
  const auto draw = [&] {
    DrawList list;
    list.start({100, 20});
    label.draw(list, list.add_layer({0, 0}), font, {2, 2});
    return list.items().size();
  };
  CHECK(draw() == 3);
  CHECK(label.text() == "3/x{}");
  gathered = 12;
  CHECK(draw() == 4);
  CHECK(label.text() == "12/x{}");
  if (allocations_are_counted()) {
    DrawList list;
    const auto again = [&] {
      list.start({100, 20});
      label.draw(list, list.add_layer({0, 0}), font, {2, 2});
    };
    again();
    const std::int64_t before = allocations_so_far();
    for (int i = 0; i < 100; ++i) again();
    for (gathered = 10; gathered < 90; ++gathered) again();
    CHECK(allocations_so_far() == before);
  }
  gathered = 4;
  label.set_pattern("{{{}{{}} {}");
  CHECK(draw() == 2);
  CHECK(label.text() == "{4{} x");
  // Each number as short as its type allows.
  const std::int8_t small = -128;
  const std::uint64_t large = 18'446'744'073'709'551'615u;
  const float tenth = 0.1f, whole = 3, million = 1e6f;
  const double third = 1.0 / 3;
  const bool right = true;
  vole::Label numbers("f", "{} {} {} {} {} {} {}");
  numbers.of(small, large, tenth, whole, million, third, right);
  DrawList list;
  list.start({100, 20});
  numbers.draw(list, list.add_layer({0, 0}), font, {2, 2});
  CHECK(numbers.text() == "-128 18446744073709551615 0.1 3 1000000 0.3333333333333333 yes");
  label.set_style({.outline = soil});
  CHECK(draw() > 2);
  label.set_style({});
  CHECK(draw() == 2);
  // A new version of the font is taken up.
  folder.write("assets/f.sheet.toml", "frame = { size = [4, 5] }\n[font]\nglyphs = [\"012345678\"]\n");
  vole::Report report;
  catalog.refresh(report);
  gathered = 9;
  CHECK(draw() == 0);
}

TEST_CASE("a TrueType font is cut at any size, with its kerning") {
  const vole::Bytes bytes = vole::read_bytes(truetype_path(), 1 << 20);
  const vole::FilePosition where = vole::FilePosition::whole_file("hedgerow.ttf");
  for (const int size : {8, 13, 24, 64, 200}) {
    const Font font(vole::cut_truetype(bytes, {size, true, ""}, where));
    CHECK(font.line_height() == size);
    const vole::Glyph* const letter = font.glyph(U'H');
    REQUIRE(letter != nullptr);
    CHECK(letter->frame.area.size.y > size / 3);
    CHECK(letter->frame.area.size.y <= size);
    CHECK(letter->advance > 0);
    // What is drawn lies within the line.
    for (const vole::Glyph& glyph : font.glyphs()) {
      CHECK(glyph.frame.offset.y >= -1);
      CHECK(glyph.frame.offset.y + glyph.frame.area.size.y <= size + 1);
    }
  }
  const Font large(vole::cut_truetype(bytes, {64, true, ""}, where));
  CHECK(large.step(U'A', U'V') < large.advance(U'A'));
  CHECK(large.step(U'H', U'H') == large.advance(U'H'));
  const vole::FontParts sharp = vole::cut_truetype(bytes, {24, false, ""}, where);
  for (const auto& picture : sharp.pictures)
    CHECK(picture->alpha_of(picture->area()) != vole::Alpha::blended);
}

TEST_CASE("what is not a font, or half of one, is refused and not read past its end") {
  TempFolder folder;
  folder.write("assets/a.font.toml", "file = \"a.ttf\"\nsize = 16\n");
  const auto refused = [&](std::string_view bytes) {
    folder.write("assets/a.ttf", bytes);
    return error_of([&] { vole::Catalog(folder.path()).get<Font>("a"); }, folder);
  };
  CHECK(refused("") ==
        "assets/a.ttf: error: is a broken font: the file is empty; download or export it once more");
  CHECK(refused("This is a text and no font.") == "assets/a.ttf: error: is not a TrueType font");
  CHECK(refused("OTTO and so on and so on") ==
        "assets/a.ttf: error: has PostScript outlines, which are not read; use the .ttf version of the font");
  const vole::Bytes good = vole::read_bytes(truetype_path(), 1 << 20);
  const std::string half(good.begin(), good.begin() + static_cast<std::ptrdiff_t>(good.size() / 2));
  CHECK(refused(half).find("is a broken font") != std::string::npos);
  folder.write("assets/a.font.toml", "file = \"b.ttf\"\nsize = 16\n");
  CHECK(refused("x") == "assets/a.font.toml:1:8: error: no file \"b.ttf\"; did you mean \"a.ttf\"?");
  folder.write("assets/a.font.toml", "file = \"a.ttf\"\nsize = 100000\n");
  CHECK(refused("x") == "assets/a.font.toml:2:8: error: 100000 is too large; the most is 512");
  vole::Random chance(31);
  for (int i = 0; i < 1500; ++i) {
    const vole::Bytes bytes = spoiled(good, chance);
    try {
      vole::cut_truetype(bytes, {16, true, ""}, {});
    } catch (const vole::Error&) {
    }
  }
}

namespace {

unsigned read_16(const vole::Bytes& bytes, std::size_t at) {
  return static_cast<unsigned>(bytes[at] << 8 | bytes[at + 1]);
}
unsigned read_32(const vole::Bytes& bytes, std::size_t at) {
  return read_16(bytes, at) << 16 | read_16(bytes, at + 2);
}
void add_big_endian(vole::Bytes& bytes, unsigned value, int count) {
  for (int i = count - 1; i >= 0; --i) bytes.push_back(static_cast<unsigned char>(value >> 8 * i));
}

// The font with another list of letters: a part of a `cmap` (OpenType, "cmap"), for Windows and Unicode.
vole::Bytes with_letters(vole::Bytes font, const vole::Bytes& part) {
  const unsigned tables = read_16(font, 4);
  while (font.size() % 4 != 0) font.push_back(0);
  vole::Bytes place;
  add_big_endian(place, static_cast<unsigned>(font.size()), 4);
  add_big_endian(place, static_cast<unsigned>(12 + part.size()), 4);
  for (unsigned i = 0; i < tables; ++i) {
    const std::size_t entry = 12 + 16 * i;
    if (std::string(font.begin() + static_cast<std::ptrdiff_t>(entry),
                    font.begin() + static_cast<std::ptrdiff_t>(entry) + 4) == "cmap")
      std::copy(place.begin(), place.end(), font.begin() + static_cast<std::ptrdiff_t>(entry) + 8);
  }
  for (const auto& [value, count] :
       std::vector<std::pair<unsigned, int>>{{0, 2}, {1, 2}, {3, 2}, {10, 2}, {12, 4}})
    add_big_endian(font, value, count);
  font.insert(font.end(), part.begin(), part.end());
  return font;
}

// The glyphs of A to Z by the font's own list, which is of format 4 with plain segments.
std::vector<unsigned> glyphs_of_capitals(const vole::Bytes& font) {
  std::size_t cmap = 0;
  for (std::size_t entry = 12; cmap == 0; entry += 16)
    if (font[entry] == 'c' && font[entry + 1] == 'm') cmap = read_32(font, entry + 8);
  const std::size_t part = cmap + read_32(font, cmap + 8);
  REQUIRE(read_16(font, part) == 4);
  const std::size_t segments = read_16(font, part + 6) / 2;
  std::vector<unsigned> glyphs;
  for (unsigned letter = 'A'; letter <= 'Z'; ++letter) {
    std::size_t i = 0;
    while (read_16(font, part + 14 + 2 * i) < letter) ++i;
    const std::size_t offset_at = part + 16 + 6 * segments + 2 * i;
    const unsigned offset = read_16(font, offset_at);
    const unsigned first = read_16(font, part + 16 + 2 * segments + 2 * i);
    const unsigned delta = read_16(font, part + 16 + 4 * segments + 2 * i);
    glyphs.push_back(
        (offset == 0 ? letter + delta : read_16(font, offset_at + offset + 2 * (letter - first)) + delta) &
        0xffff);
  }
  return glyphs;
}

}  // namespace

TEST_CASE("a font may list its letters in each of the ways that are in use, and none may be cut off") {
  const vole::Bytes font = vole::read_bytes(truetype_path(), 1 << 20);
  const std::vector<unsigned> glyphs = glyphs_of_capitals(font);
  // Format 6: a first letter and a glyph for each from there on; format 12: groups of letters.
  vole::Bytes run, groups;
  for (const unsigned value : {6u, 10 + 26 * 2u, 0u, 65u, 26u}) add_big_endian(run, value, 2);
  for (const unsigned glyph : glyphs) add_big_endian(run, glyph, 2);
  add_big_endian(groups, 12, 2);
  add_big_endian(groups, 0, 2);
  for (const unsigned value : {16 + 26 * 12u, 0u, 26u}) add_big_endian(groups, value, 4);
  for (unsigned i = 0; i < 26; ++i)
    for (const unsigned value : {'A' + i, 'A' + i, glyphs[i]}) add_big_endian(groups, value, 4);
  const vole::TrueTypeCut cut{16, true, ""};
  const Font plain(vole::cut_truetype(font, cut, {}));
  for (vole::Bytes part : {run, groups}) {
    const Font other(vole::cut_truetype(with_letters(font, part), cut, {}));
    for (char32_t letter = U'A'; letter <= U'Z'; ++letter) {
      const vole::Glyph* const wanted = plain.glyph(letter);
      const vole::Glyph* const got = other.glyph(letter);
      REQUIRE((wanted && got));
      CHECK(got->advance == wanted->advance);
      CHECK(got->frame.area.size == wanted->frame.area.size);
      CHECK(got->frame.offset == wanted->frame.offset);
    }
    part.pop_back();
    CHECK_THROWS_WITH(vole::cut_truetype(with_letters(font, part), cut, {}),
                      Catch::Contains("its list of letters is cut off"));
    part[1] = 99;
    CHECK_THROWS_WITH(vole::cut_truetype(with_letters(font, part), cut, {}),
                      Catch::Contains("its letters are listed in an unknown way"));
  }
}
