// Names that the compiler checks: the types of the constants in the header that `vole atlas` writes.
//
//   sprite.play(names::sheet::vole::clip::run);     // a clip that is gone does not compile
//
// Each turns into a plain text wherever a name is wanted. A clip, point or frame also knows whose it is.
#pragma once

#include <string_view>

namespace vole {

namespace detail {

struct NameText {
  std::string_view text;
  constexpr operator std::string_view() const { return text; }
};

}  // namespace detail

// `Sheet` is the generated struct of the sheet, with its `name`.
template <class Sheet>
struct ClipName : detail::NameText {};
template <class Sheet>
struct PointName : detail::NameText {};
template <class Sheet>
struct FrameName : detail::NameText {};

struct SheetName : detail::NameText {};
struct TilesetName : detail::NameText {};
struct FontName : detail::NameText {};
struct LevelName : detail::NameText {};
struct SoundName : detail::NameText {};
struct ActionName : detail::NameText {};
struct AxisName : detail::NameText {};
struct KindName : detail::NameText {};
struct TagName : detail::NameText {};
struct CategoryName : detail::NameText {};
struct SceneName : detail::NameText {};
struct FactName : detail::NameText {};
struct CueName : detail::NameText {};
struct PlaceName : detail::NameText {};
struct ZoneName : detail::NameText {};
struct PathName : detail::NameText {};
struct PiecesName : detail::NameText {};

}  // namespace vole
