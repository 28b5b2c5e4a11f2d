// What it takes to build for Windows: the compiler mingw-w64, and SDL.
#include <fmt/core.h>

#include "built_sdl.hpp"

OtherSystem windows_system(const std::string& source) {
  return {"windows",
          {"cmake", fmt::format("-DCMAKE_TOOLCHAIN_FILE={}/cmake/windows.cmake", source),
           "-DCMAKE_BUILD_TYPE=Release", "-DCMAKE_CXX_FLAGS_RELEASE=-O2 -DNDEBUG",
           "-DCMAKE_EXE_LINKER_FLAGS_RELEASE=-s"},
          {{"x86_64-w64-mingw32-g++-posix", "g++-mingw-w64-x86-64-posix"}, {"dpkg-source", "dpkg-dev"}},
          &with_built_sdl};
}
