#include "vole/asset/font.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace vole {
namespace {

// The part of a frame between its first and last column with ink.
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

}  // namespace

Font::Font(std::shared_ptr<const Sheet> sheet) : sheet_(std::move(sheet)) {
  gap_ = sheet_->font->gap;
  space_ = sheet_->font->space;
  const int columns = std::max(1, sheet_->picture->size().x / std::max(1, sheet_->frame_size.x));
  for (std::size_t row = 0; row < sheet_->font->glyphs.size(); ++row) {
    std::string_view text = sheet_->font->glyphs[row];
    for (std::size_t index = row * static_cast<std::size_t>(columns); !text.empty(); ++index) {
      const char32_t letter = next_letter(text);
      if (letter == U' ' || index >= sheet_->frames.size()) continue;
      const IRect ink = inked_part(*sheet_->picture, sheet_->frames[index].area);
      glyphs_.push_back({letter, {ink, sheet_->picture->alpha_of(ink)}, ink.size.x + gap_});
    }
  }
  std::stable_sort(glyphs_.begin(), glyphs_.end(),
                   [](const Glyph& a, const Glyph& b) { return a.letter < b.letter; });
}

const Glyph* Font::find(char32_t letter) const {
  const auto at = std::lower_bound(glyphs_.begin(), glyphs_.end(), letter,
                                   [](const Glyph& glyph, char32_t wanted) { return glyph.letter < wanted; });
  return at != glyphs_.end() && at->letter == letter ? &*at : nullptr;
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
  return found ? found->advance : space_;
}

IVec2 Font::measure(std::string_view text) const {
  IVec2 size{0, line_height()};
  int width = 0;
  while (!text.empty()) {
    const char32_t letter = next_letter(text);
    if (letter == U'\n') {
      size.y += line_height();
      width = 0;
      continue;
    }
    width += advance(letter);
    size.x = std::max(size.x, width - gap_);
  }
  return size;
}

Font AssetSort<Font>::load(Loading& loading) {
  const Asset<Sheet> sheet = loading.catalog().get<Sheet>(loading.name());
  loading.depends_on(join_path(loading.catalog().root(), "assets/" + loading.name() + ".png"));
  if (!sheet->font)
    throw Error(Place::whole_file(loading.path()),
                fmt::format("\"{}\" is no font: it has no [font] table", sheet->name));
  return Font(sheet.shared());
}

}  // namespace vole
