// empty-frame, repeated-frame and jumping-frame: frames that are probably a mistake.
#include <algorithm>
#include <array>
#include <map>

#include "game_files.hpp"
#include "game_under_check.hpp"
#include "vole/base/utf8.hpp"

namespace {

// What of a frame's area is not clear, from its corner; looked at once where many frames show the same, as those of a
// stand-in do.
class ShownParts {
 public:
  const vole::IRect& of(const vole::Frame& frame) {
    const Key key{frame.picture, {frame.area.left(), frame.area.top(), frame.area.size.x, frame.area.size.y}};
    const auto [found, is_new] = known_.try_emplace(key);
    if (is_new) found->second = look_at(frame);
    return found->second;
  }

 private:
  using Key = std::pair<const vole::Picture*, std::array<int, 4>>;

  static vole::IRect look_at(const vole::Frame& frame) {
    vole::IVec2 least = frame.area.size, most{-1, -1};
    for (int y = 0; y < frame.area.size.y; ++y) {
      const vole::Colour* const row = frame.picture->row(frame.area.top() + y) + frame.area.left();
      for (int x = 0; x < frame.area.size.x; ++x)
        if (row[x].a != 0) {
          least = {std::min(least.x, x), std::min(least.y, y)};
          most = {std::max(most.x, x), std::max(most.y, y)};
        }
    }
    return most.x < 0 ? vole::IRect{} : vole::IRect{least, most - least + vole::IVec2{1, 1}};
  }

  std::map<Key, vole::IRect> known_;
};

// A font's frames are letters, and those beyond its text or for a blank are empty with good reason.
std::set<std::size_t> blanks_of(const vole::Sheet& sheet) {
  std::set<std::size_t> blanks;
  if (!sheet.font) return blanks;
  for (std::size_t i = 0; i < sheet.frames.size(); ++i) blanks.insert(i);
  const auto columns = static_cast<std::size_t>(std::max(1, sheet.columns));
  for (std::size_t row = 0; row < sheet.font->glyphs.size(); ++row) {
    std::string_view text = sheet.font->glyphs[row];
    for (std::size_t i = row * columns; !text.empty(); ++i)
      if (vole::next_letter(text) != U' ') blanks.erase(i);
  }
  return blanks;
}

void find_empty_frames(GameUnderCheck& game) {
  const std::set<std::string> others = pictures_of_others(game.catalog);
  game.each_sheet([&](const vole::Sheet& sheet, const std::string& file) {
    if (file.ends_with(".png") && others.count(sheet.name) != 0) return;
    std::string empty;
    int count = 0;
    ShownParts parts;
    const std::set<std::size_t> blanks = blanks_of(sheet);
    for (std::size_t i = 0; i < sheet.frames.size(); ++i) {
      if (blanks.count(i) != 0 || !parts.of(sheet.frames[i]).empty()) continue;
      if (++count <= 8)
        empty += fmt::format("{}{}", count > 1 ? ", " : "",
                             sheet.frame_names.empty() ? std::to_string(i) : sheet.frame_names[i]);
    }
    if (count > 8) empty += fmt::format(" and {} more", count - 8);
    if (count > 0)
      game.add("empty-frame", file,
               fmt::format("frame{} {} of \"{}\" show{} nothing", count == 1 ? "" : "s", empty, sheet.name,
                           count == 1 ? "s" : ""));
  });
}

void find_repeated_frame(GameUnderCheck& game, const vole::Clip& clip, const std::string& file) {
  if (clip.loop && clip.frames.size() > 2 && clip.frames.front() == clip.frames.back() && clip.ends.empty() &&
      clip.frames[clip.frames.size() - 2] != clip.frames.back())
    game.add(
        "repeated-frame", file,
        fmt::format("clip \"{}\" loops, and its last frame repeats its first: it stands still for a moment",
                    clip.name),
        "leave the last one out");
}

// What of a frame is not clear, from its pivot.
vole::IRect on_pivot(const vole::Frame& frame, ShownParts& parts) {
  const vole::IRect& part = parts.of(frame);
  return {part.at + frame.offset - frame.pivot, part.size};
}

// A frame that lies elsewhere on its pivot than the one before it, as one that was drawn a row too high.
// What runs moves its feet a little; what flies or spins has a pivot that is not at its feet.
void find_jump(GameUnderCheck& game, const vole::Sheet& sheet, const vole::Clip& clip, ShownParts& parts,
               const std::string& file) {
  const std::size_t count = clip.frames.size();
  const auto shown = [&](int index) { return on_pivot(sheet.posed(index, &clip), parts); };
  for (std::size_t i = 0; i < count; ++i) {
    if (i + 1 == count && !clip.loop) return;
    const int from = clip.frames[i], to = clip.frames[(i + 1) % count];
    const vole::IRect before = shown(from), after = shown(to);
    if (before.empty() || after.empty()) continue;
    const vole::Frame frame = sheet.posed(to, &clip);
    const bool on_feet = frame.pivot.y * 8 >= frame.size.y * 7;
    const int fall = after.bottom() - before.bottom();
    const int slide = (after.left() + after.right() - before.left() - before.right()) / 2;
    const bool jumps = on_feet && std::abs(fall) > std::max(2, frame.size.y / 8);
    const bool slides = std::abs(slide) > std::max(2, frame.size.x / 4);
    if (!jumps && !slides) continue;
    return game.add(
        "jumping-frame", file,
        fmt::format("clip \"{}\" jumps {} pixels {} from frame {} to {}", clip.name,
                    std::abs(jumps ? fall : slide),
                    jumps ? (fall > 0 ? "down" : "up") : (slide > 0 ? "right" : "left"), from, to),
        "`vole preview --show baseline` puts them side by side; move the drawing, or set the pivot");
  }
}

}  // namespace

void find_odd_frames(GameUnderCheck& game) {
  find_empty_frames(game);
  game.each_sheet([&game](const vole::Sheet& sheet, const std::string& file) {
    ShownParts parts;
    for (const vole::Clip& clip : sheet.clips) {
      find_repeated_frame(game, clip, file);
      find_jump(game, sheet, clip, parts, file);
    }
  });
}
