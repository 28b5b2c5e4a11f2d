// What it takes to build packages for Linux: SDL that is linked in and loads the display and sound libraries of the machine while
// it runs, those that are there. Vole itself is the one of this tool.
#include "built_sdl.hpp"

OtherSystem linux_system() {
  OtherSystem system{"linux",
                     {"cmake", "-DCMAKE_BUILD_TYPE=Release",
                      "-DCMAKE_EXE_LINKER_FLAGS_RELEASE=-static-libstdc++ -static-libgcc -s"},
                     {{"dpkg-source", "dpkg-dev"}, {"/usr/include/SDL2", "libsdl2-dev"}},
                     &with_built_sdl};
  system.has_library = true;
  return system;
}
