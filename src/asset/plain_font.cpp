#include <array>

#include "vole/asset/font.hpp"

namespace vole {
namespace {

struct Letter {
  char letter;
  // Five pixels each, the leftmost in the highest bit: seven down to the line that letters stand on, and two below it.
  std::array<unsigned char, 9> rows;
};

// clang-format off
constexpr Letter drawn_letters[] = {
    {'A', {14, 17, 17, 31, 17, 17, 17}},
    {'B', {30, 17, 30, 17, 17, 17, 30}},
    {'C', {14, 17, 16, 16, 16, 17, 14}},
    {'D', {30, 17, 17, 17, 17, 17, 30}},
    {'E', {31, 16, 30, 16, 16, 16, 31}},
    {'F', {31, 16, 30, 16, 16, 16, 16}},
    {'G', {14, 17, 16, 23, 17, 17, 14}},
    {'H', {17, 17, 31, 17, 17, 17, 17}},
    {'I', {28, 8, 8, 8, 8, 8, 28}},
    {'J', {7, 2, 2, 2, 2, 18, 12}},
    {'K', {17, 18, 28, 18, 17, 17, 17}},
    {'L', {16, 16, 16, 16, 16, 16, 31}},
    {'M', {17, 27, 21, 21, 17, 17, 17}},
    {'N', {17, 25, 21, 19, 17, 17, 17}},
    {'O', {14, 17, 17, 17, 17, 17, 14}},
    {'P', {30, 17, 17, 30, 16, 16, 16}},
    {'Q', {14, 17, 17, 17, 21, 18, 13}},
    {'R', {30, 17, 17, 30, 18, 17, 17}},
    {'S', {15, 16, 14, 1, 1, 17, 14}},
    {'T', {31, 4, 4, 4, 4, 4, 4}},
    {'U', {17, 17, 17, 17, 17, 17, 14}},
    {'V', {17, 17, 17, 10, 10, 10, 4}},
    {'W', {17, 17, 17, 21, 21, 27, 17}},
    {'X', {17, 10, 4, 4, 10, 17, 17}},
    {'Y', {17, 17, 10, 4, 4, 4, 4}},
    {'Z', {31, 1, 2, 4, 8, 16, 31}},
    {'a', {0, 0, 14, 1, 15, 17, 15}},
    {'b', {16, 16, 30, 17, 17, 17, 30}},
    {'c', {0, 0, 14, 16, 16, 16, 14}},
    {'d', {1, 1, 15, 17, 17, 17, 15}},
    {'e', {0, 0, 14, 17, 31, 16, 14}},
    {'f', {6, 8, 28, 8, 8, 8, 8}},
    {'g', {0, 0, 15, 17, 17, 17, 15, 1, 14}},
    {'h', {16, 16, 30, 17, 17, 17, 17}},
    {'i', {16, 0, 16, 16, 16, 16, 16}},
    {'j', {4, 0, 4, 4, 4, 4, 4, 4, 24}},
    {'k', {16, 16, 18, 20, 24, 20, 18}},
    {'l', {16, 16, 16, 16, 16, 16, 8}},
    {'m', {0, 0, 26, 21, 21, 21, 21}},
    {'n', {0, 0, 28, 18, 18, 18, 18}},
    {'o', {0, 0, 14, 17, 17, 17, 14}},
    {'p', {0, 0, 30, 17, 17, 17, 30, 16, 16}},
    {'q', {0, 0, 15, 17, 17, 17, 15, 1, 1}},
    {'r', {0, 0, 22, 24, 16, 16, 16}},
    {'s', {0, 0, 14, 16, 12, 2, 28}},
    {'t', {8, 8, 28, 8, 8, 8, 6}},
    {'u', {0, 0, 18, 18, 18, 18, 14}},
    {'v', {0, 0, 17, 17, 10, 10, 4}},
    {'w', {0, 0, 17, 21, 21, 21, 10}},
    {'x', {0, 0, 17, 10, 4, 10, 17}},
    {'y', {0, 0, 18, 18, 18, 18, 14, 2, 12}},
    {'z', {0, 0, 30, 4, 8, 16, 30}},
    {'0', {14, 17, 19, 21, 25, 17, 14}},
    {'1', {8, 24, 8, 8, 8, 8, 28}},
    {'2', {14, 17, 1, 6, 8, 16, 31}},
    {'3', {14, 17, 1, 6, 1, 17, 14}},
    {'4', {2, 6, 10, 18, 31, 2, 2}},
    {'5', {31, 16, 30, 1, 1, 17, 14}},
    {'6', {14, 16, 30, 17, 17, 17, 14}},
    {'7', {31, 1, 2, 2, 4, 4, 4}},
    {'8', {14, 17, 14, 17, 17, 17, 14}},
    {'9', {14, 17, 17, 15, 1, 1, 14}},
    {'.', {0, 0, 0, 0, 0, 0, 16}},
    {',', {0, 0, 0, 0, 0, 0, 8, 16}},
    {'!', {16, 16, 16, 16, 16, 0, 16}},
    {'?', {14, 17, 1, 6, 4, 0, 4}},
    {':', {0, 0, 16, 0, 0, 16, 0}},
    {'-', {0, 0, 0, 28, 0, 0, 0}},
    {'+', {0, 4, 4, 31, 4, 4, 0}},
    {'/', {1, 1, 2, 4, 8, 16, 16}},
    {'\'', {16, 16, 0, 0, 0, 0, 0}},
    {'(', {8, 16, 16, 16, 16, 16, 8}},
    {')', {16, 8, 8, 8, 8, 8, 16}},
    {'%', {25, 25, 2, 4, 8, 19, 19}},
    {'"', {20, 20, 0, 0, 0, 0, 0}},
    {'=', {0, 0, 28, 0, 28, 0, 0}},
    {'*', {0, 21, 14, 31, 14, 21, 0}},
    {'_', {0, 0, 0, 0, 0, 0, 31}},
    {'[', {28, 16, 16, 16, 16, 16, 28}},
    {']', {28, 4, 4, 4, 4, 4, 28}},
    {'#', {10, 31, 10, 10, 10, 31, 10}},
    {'@', {14, 17, 23, 21, 23, 16, 14}},
    {'<', {2, 4, 8, 16, 8, 4, 2}},
    {'>', {16, 8, 4, 2, 4, 8, 16}},
    {';', {0, 0, 8, 0, 0, 0, 8, 16}},
};
// clang-format on

constexpr IVec2 cell{7, 11};  // a letter and its rim

void paint(Image& image, int left, const Letter& letter) {
  constexpr Colour rim{0x1b, 0x1a, 0x26, 0xff};
  const auto inked = [&letter](int x, int y) {
    return x >= 0 && x < 5 && y >= 0 && y < 9 &&
           (letter.rows[static_cast<std::size_t>(y)] >> (4 - x) & 1) != 0;
  };
  for (int y = -1; y <= 9; ++y)
    for (int x = -1; x <= 5; ++x) {
      bool near = false;
      for (int dy = -1; dy <= 1; ++dy)
        for (int dx = -1; dx <= 1; ++dx) near = near || inked(x + dx, y + dy);
      if (near) image.at(left + x + 1, y + 1) = inked(x, y) ? white : rim;
    }
}

Font make_plain_font() {
  Image image({cell.x * static_cast<int>(std::size(drawn_letters)), cell.y});
  int left = 0;
  for (const Letter& letter : drawn_letters) {
    paint(image, left, letter);
    left += cell.x;
  }
  Sheet sheet;
  sheet.name = "plain font";
  sheet.frame_size = cell;
  sheet.columns = static_cast<int>(std::size(drawn_letters));
  sheet.font = FontCut{{std::string()}, -1, 4, {}};
  sheet.pictures.push_back(std::make_shared<const Picture>(image));
  left = 0;
  for (const Letter& letter : drawn_letters) {
    sheet.font->glyphs[0] += letter.letter;
    sheet.frames.push_back(frame_of(*sheet.pictures[0], {{left, 0}, cell}));
    left += cell.x;
  }
  return Font(std::make_shared<const Sheet>(std::move(sheet)));
}

}  // namespace

const Font& plain_font() {
  static const Font font = make_plain_font();
  return font;
}

}  // namespace vole
