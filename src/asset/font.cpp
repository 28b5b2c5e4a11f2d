#include "vole/asset/font.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/catalog.hpp"
#include "vole/base/check_notes.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

// The part of a picture's area between its first and last column with ink.
IRect inked_part(const Picture& picture, const IRect& area) {
  const auto has_ink = [&](int x) {
    for (int y = area.top(); y < area.bottom(); ++y)
      if (picture.row(y)[x].a != 0) return true;
    return false;
  };
  int first = area.left();
  int end = area.right();
  while (first < end && !has_ink(first)) ++first;
  while (end > first && !has_ink(end - 1)) --end;
  return {{first, area.top()}, {end - first, area.size.y}};
}

char32_t other_case(char32_t letter) {
  if (letter >= U'a' && letter <= U'z') return letter - U'a' + U'A';
  if (letter >= U'A' && letter <= U'Z') return letter - U'A' + U'a';
  return letter;
}

// The letter of a sheet's frame, its ink moved to the left edge.
Glyph cut_glyph(char32_t letter, const Frame& from, int gap) {
  const IRect ink = inked_part(*from.picture, from.area);
  Frame frame = frame_of(*from.picture, ink);
  frame.offset = {0, from.offset.y};
  frame.size = {ink.size.x, from.size.y};
  return {letter, frame, ink.size.x + gap};
}

void add_kerning(const FontCut& cut, FontParts& parts, Report& report) {
  for (const auto& item : cut.kerning) {
    std::string_view text = item.name;
    const char32_t first = text.empty() ? 0 : next_letter(text);
    const char32_t second = text.empty() ? 0 : next_letter(text);
    if (first == 0 || second == 0 || !text.empty())
      report.error(item.where, fmt::format("\"{}\" is not two letters", item.name));
    parts.kerning.push_back({kerning_pair(first, second), item.value.value});
  }
}

FontParts parts_of(std::shared_ptr<const Sheet> sheet) {
  const FontCut& cut = *sheet->font;
  FontParts parts;
  parts.name = sheet->name;
  parts.pictures = sheet->pictures;
  parts.line_height = sheet->frame_size.y;
  parts.gap = cut.gap;
  parts.space = cut.space;
  const int columns = std::max(1, sheet->columns);
  for (std::size_t row = 0; row < cut.glyphs.size(); ++row) {
    std::string_view text = cut.glyphs[row];
    for (std::size_t index = row * static_cast<std::size_t>(columns); !text.empty(); ++index) {
      const char32_t letter = next_letter(text);
      if (letter == U' ' || index >= sheet->frames.size()) continue;
      parts.glyphs.push_back(cut_glyph(letter, sheet->frames[index], cut.gap));
    }
  }
  Report report;
  add_kerning(cut, parts, report);
  report.throw_if_errors();
  return parts;
}

struct FontText {
  Located<std::string> file;
  Located<int> size{16, {}};
  bool antialias = true;
  std::string letters;
  CheckNotes check;
};
template <class V>
void describe(V& v, FontText& font) {
  v("file", font.file);
  v("size", font.size, needed().within(4, 512));
  v("antialias", font.antialias);
  v("letters", font.letters);
  v("check", font.check);
}

constexpr std::size_t most_font_bytes = 64u << 20;

Font load_truetype(Loading& loading) {
  Report report;
  FontText text;
  read(read_toml(loading.path()), text, report);
  report.throw_if_errors();
  const std::string folder = folder_of(loading.path());
  std::string file = text.file.value;
  if (file.empty()) {
    const std::string own = std::string(loading.name()).substr(folder_of(loading.name()).size());
    file = own.substr(own.starts_with('/') ? 1 : 0) + ".ttf";
  }
  const std::string path = join_path(folder, file);
  loading.depends_on(path);
  if (!file_exists(path) && text.file.where.file) {
    try {
      read_bytes(path, most_font_bytes);
    } catch (const Error& error) {
      throw Error(text.file.where, fmt::format("no file \"{}\"", file), error.problems()[0].hint);
    }
  }
  FontParts parts =
      cut_truetype(read_bytes(path, most_font_bytes), {text.size.value, text.antialias, text.letters},
                   FilePosition::whole_file(path));
  parts.name = loading.name();
  return Font(std::move(parts));
}

}  // namespace

Font::Font(FontParts parts) : parts_(std::move(parts)) {
  order();
}

Font::Font(std::shared_ptr<const Sheet> sheet) : Font(parts_of(std::move(sheet))) {}

void Font::order() {
  std::stable_sort(parts_.glyphs.begin(), parts_.glyphs.end(),
                   [](const Glyph& a, const Glyph& b) { return a.letter < b.letter; });
  std::stable_sort(parts_.kerning.begin(), parts_.kerning.end(),
                   [](const Kerning& a, const Kerning& b) { return a.pair < b.pair; });
}

const Glyph* Font::find(char32_t letter) const {
  const auto at = std::lower_bound(parts_.glyphs.begin(), parts_.glyphs.end(), letter,
                                   [](const Glyph& glyph, char32_t wanted) { return glyph.letter < wanted; });
  return at != parts_.glyphs.end() && at->letter == letter ? &*at : nullptr;
}

const Glyph* Font::glyph(char32_t letter) const {
  if (letter == U' ' || letter == U'\n') return nullptr;
  for (const char32_t wanted : {letter, other_case(letter), U'?'})
    if (const Glyph* found = find(wanted)) return found;
  return nullptr;
}

int Font::advance(char32_t letter) const {
  if (letter == U'\n') return 0;
  const Glyph* found = glyph(letter);
  return found ? found->advance : parts_.space;
}

int Font::step(char32_t letter, char32_t next) const {
  const int plain = advance(letter);
  if (next == 0 || parts_.kerning.empty()) return plain;
  const std::uint64_t pair = kerning_pair(letter, next);
  const auto at =
      std::lower_bound(parts_.kerning.begin(), parts_.kerning.end(), pair,
                       [](const Kerning& item, std::uint64_t wanted) { return item.pair < wanted; });
  return at != parts_.kerning.end() && at->pair == pair ? plain + at->pixels : plain;
}

int Font::line_width(std::string_view line) const {
  int width = 0;
  bool ends_in_ink = false;
  while (!line.empty()) {
    const char32_t letter = next_letter(line);
    std::string_view after = line;
    width += step(letter, after.empty() ? 0 : next_letter(after));
    ends_in_ink = letter != U' ';
  }
  return std::max(0, ends_in_ink ? width - parts_.gap : width);
}

IVec2 Font::measure(std::string_view text) const {
  IVec2 size{0, 0};
  while (true) {
    const std::string_view line = text.substr(0, text.find('\n'));
    size = {std::max(size.x, line_width(line)), size.y + line_height()};
    if (line.size() == text.size()) return size;
    text.remove_prefix(line.size() + 1);
  }
}

Font AssetType<Font>::load(Loading& loading) {
  if (loading.path().ends_with(".font.toml")) return load_truetype(loading);
  const Asset<Sheet> sheet = loading.catalog().get<Sheet>(loading.name());
  loading.depends_on(sheet);
  if (!sheet->font)
    throw Error(FilePosition::whole_file(loading.path()),
                fmt::format("\"{}\" is not a font: it has no [font] table", sheet->name));
  return Font(sheet.shared());
}

std::shared_ptr<const Font> AssetType<Font>::built_in(std::string_view name) {
  // Always there, so nothing is owned.
  return name == "plain" ? std::shared_ptr<const Font>(std::shared_ptr<void>(), &plain_font()) : nullptr;
}

bool AssetType<Font>::will_do(Catalog& catalog, std::string_view name) {
  if (file_exists(catalog.asset_path(fmt::format("{}{}", name, ending)))) return true;
  if (!catalog.has<Sheet>(name)) return built_in(name) != nullptr;
  try {
    return catalog.get<Sheet>(name)->font.has_value();
  } catch (const Error&) {
    return false;
  }
}

TomlValue AssetType<Font>::schema() {
  return schema_of<FontText>();
}

}  // namespace vole
