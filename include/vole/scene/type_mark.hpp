// What tells one class from another without its name: an address for each.
#pragma once

namespace vole::detail {

template <class T>
inline constexpr char type_mark = 0;

}  // namespace vole::detail
