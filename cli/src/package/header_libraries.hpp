// Libraries that are compiled into every game from their headers.
#pragma once

#include <string_view>

struct HeaderLibrary {
  std::string_view name;
  std::string_view folder;   // below /usr/include
  std::string_view package;  // of Debian, which has its licence too
};

inline constexpr HeaderLibrary header_libraries[] = {{"glm", "glm", "libglm-dev"},
                                                     {"fmt", "fmt", "libfmt-dev"},
                                                     {"toml++", "toml++", "libtomlplusplus-dev"},
                                                     {"stb", "stb", "libstb-dev"},
                                                     {"CLI11", "CLI", "libcli11-dev"}};
